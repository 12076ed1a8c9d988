"""Models and drawings by OpenSCAD: exploded parts, parts that touch, notches and bores; STL, OFF,
3MF, DXF, SVG.
"""

import subprocess
import tempfile
from pathlib import Path

from corpus import Row, Writer

w = Writer("openscad")

STEP_STOOL = """
module leg() { difference() { cube([45, 45, 430]); translate([-1, 12, 380]) cube([26, 21, 60]); } }
for (k = [0:3]) translate([120 * k, 0, 0]) leg();
translate([0, 100, 0]) cube([420, 300, 30]);
for (k = [0:1]) translate([0, 450 + 60 * k, 0]) rotate([0, 0, 12]) cube([360, 18, 60]);
translate([600, 0, 0]) rotate([0, 35, 0]) cylinder(d = 25, h = 380, $fn = 96);
"""
STOOL: list[Row] = [
    ("", 4, 430, 45, 45),
    ("", 1, 420, 300, 30),
    ("", 2, 360, 60, 18),
    ("", 1, 380, 25, 25),
]
TOUCHING = """
cube([600, 200, 18]);
translate([0, 0, 18]) cube([18, 200, 300]);
translate([582, 0, 18]) cube([18, 200, 300]);
"""
PLATE = """
difference() { square([700, 180]); for (x = [80, 620]) translate([x, 90]) circle(d = 30, $fn = 64);
  translate([300, 130]) square([100, 60]); }
translate([0, 220]) square([500, 90]);
translate([0, 350]) square([500, 90]);
translate([560, 220]) polygon([[0, 0], [140, 0], [140, 60], [60, 200], [0, 200]]);
"""
PLATE_PARTS: list[Row] = [("", 1, 700, 180, 0), ("", 2, 500, 90, 0), ("", 1, 200, 140, 0)]


def write(text: str, name: str) -> None:
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder) / "model.scad"
        source.write_text(text)
        subprocess.run(
            ["openscad", "-o", w.path(name), str(source)], check=True, capture_output=True
        )


for ending, unit in (("stl", "mm"), ("off", "mm"), ("3mf", "")):
    write(STEP_STOOL, f"stool.{ending}")
    w.holds(f"stool.{ending}", STOOL, unit, says="parts laid apart in one mesh")
write(TOUCHING, "touching.stl")
w.holds(
    "touching.stl",
    [("", 1, 600, 200, 18), ("", 2, 300, 200, 18)],
    "mm",
    says="three boards fused into one body by the program",
)
for ending in ("dxf", "svg"):
    write(PLATE, f"plates.{ending}")
    w.holds(f"plates.{ending}", PLATE_PARTS, "mm", says="bores, a notch, a tapered gusset")
w.done()
