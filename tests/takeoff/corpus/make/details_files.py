"""Details of drawings by ezdxf and svgwrite: drawn twice, in paper space, with centre lines,
pockets, clips, styles and scales.
"""

import ezdxf
import svgwrite
from corpus import Row, Writer
from ezdxf import units

w = Writer("details")


def new(
    unit: int = units.MM, version: str = "R2013"
) -> tuple[ezdxf.document.Drawing, ezdxf.layouts.Modelspace]:
    document = ezdxf.new(version, setup=True)
    document.units = unit
    return document, document.modelspace()


def rect(x: float, y: float, a: float, b: float) -> list[tuple[float, float]]:
    return [(x, y), (x + a, y), (x + a, y + b), (x, y + b)]


def save(
    document: ezdxf.document.Drawing, name: str, parts: list[Row], unit: str = "", says: str = ""
) -> None:
    document.saveas(w.path(name))
    w.holds(name, parts, unit, says)


def twice() -> None:
    document, space = new()
    for layer in ("CUT", "OUTLINE"):
        document.layers.add(layer)
        for k in range(3):
            space.add_lwpolyline(rect(0, 100 * k, 500, 70), close=True, dxfattribs={"layer": layer})
    save(document, "twice.dxf", [("", 3, 500, 70, 0)], says="every outline drawn on two layers")


def paper() -> None:
    document, _ = new()
    sheet = document.paperspace()
    for k in range(2):
        sheet.add_lwpolyline(rect(0, 100 * k, 400, 60), close=True)
    save(document, "paper.dxf", [("", 2, 400, 60, 0)], says="all of it in paper space")


def centre() -> None:
    """Rails of four lines each, with centre lines over their edges, dimension lines of plain lines,
    a leader.
    """
    document, space = new()
    document.layers.add("CENTRE")
    document.layers.add("DIM")
    for k in range(2):
        ring = rect(0, 200 * k, 620, 80)
        for a, b in zip(ring, ring[1:] + ring[:1], strict=True):
            space.add_line(a, b)
        space.add_line(
            (-20, 200 * k + 40),
            (640, 200 * k + 40),
            dxfattribs={"layer": "CENTRE", "linetype": "CENTER"},
        )
        space.add_line((0, 200 * k - 30), (620, 200 * k - 30), dxfattribs={"layer": "DIM"})
        for x in (0, 620):
            space.add_line((x, 200 * k - 5), (x, 200 * k - 40), dxfattribs={"layer": "DIM"})
        space.add_text("620", height=8, dxfattribs={"layer": "DIM"}).set_placement(
            (300, 200 * k - 28)
        )
        space.add_text("RAIL", height=10).set_placement((200, 200 * k + 50))
    save(
        document,
        "centre.dxf",
        [("RAIL", 2, 620, 80, 0)],
        says="centre lines, dimensions of plain lines",
    )


def pockets() -> None:
    """A panel with pockets and words in them; a template with a long slot of two arcs and two
    lines; a ring.
    """
    document, space = new()
    space.add_lwpolyline(rect(0, 0, 900, 400), close=True)
    space.add_text("Back panel 12 mm thick", height=12).set_placement((40, 350))
    for k in range(2):
        space.add_lwpolyline(rect(150 + 350 * k, 100, 200, 120), close=True)
        space.add_text("6 deep", height=8).set_placement((170 + 350 * k, 150))
    space.add_lwpolyline([(0, 600), (700, 600), (700, 700), (0, 700)], close=True)
    space.add_lwpolyline(
        [(100, 630, 0, 0, 0), (500, 630, 0, 0, 1), (500, 670, 0, 0, 0), (100, 670, 0, 0, 1)],
        format="xyseb",
        close=True,
    )
    space.add_circle((1200, 200), 150)
    space.add_circle((1200, 200), 100)
    save(
        document,
        "pockets.dxf",
        [("Back panel", 1, 900, 400, 12), ("", 1, 700, 100, 0), ("", 1, 300, 300, 0)],
        says="pockets with words, a slot, a ring",
    )


def nested() -> None:
    """Blocks in blocks, scaled and mirrored, the unit inches; a part on a frozen layer inside a
    block.
    """
    document, space = new(units.IN)
    document.layers.add("HIDE").freeze()
    slat = document.blocks.new("SLAT")
    slat.add_lwpolyline(rect(0, 0, 20, 2), close=True)
    slat.add_lwpolyline(rect(0, 5, 8, 2), close=True, dxfattribs={"layer": "HIDE"})
    panel = document.blocks.new("PANEL")
    for k in range(3):
        panel.add_blockref("SLAT", (0, 3 * k))
    space.add_blockref("PANEL", (0, 0))
    space.add_blockref("PANEL", (60, 0), dxfattribs={"xscale": -1})
    space.add_blockref("SLAT", (0, 30), dxfattribs={"xscale": 1.5, "yscale": 1.5})
    i = 25.4
    save(
        document,
        "nested.dxf",
        [("", 6, 20 * i, 2 * i, 0), ("", 1, 30 * i, 3 * i, 0)],
        says="blocks in blocks, scaled; a frozen layer within",
    )


def solids() -> None:
    """Filled SOLIDs, a REGION's outline as lines, text as attributes, splines closed by a flag."""
    document, space = new(units.CM)
    space.add_solid([(0, 0), (60, 0), (0, 8), (60, 8)])
    spline = (
        space.add_closed_spline([(0, 20), (30, 22), (60, 20), (60, 30), (30, 33), (0, 30)])
        if hasattr(space, "add_closed_spline")
        else None
    )
    del spline
    space.add_lwpolyline(rect(0, 50, 40, 6), close=True, dxfattribs={"const_width": 0.1})
    space.add_polyline3d([(0, 70, 0), (50, 70, 0), (50, 76, 0), (0, 76, 0)], close=True)
    parts: list[Row] = [("", 1, 600, 80, 0), ("", 1, 400, 60, 0), ("", 1, 500, 60, 0)]
    document.saveas(w.path("solids.dxf"))
    if not hasattr(space, "add_closed_spline"):
        w.holds("solids.dxf", parts, says="in cm: a solid, a wide polyline, a 3D polyline")
    else:
        for e in list(space.query("SPLINE")):
            space.delete_entity(e)
        save(document, "solids.dxf", parts, says="in cm: a solid, a wide polyline, a 3D polyline")


def svg_styles() -> None:
    d = svgwrite.Drawing(
        w.path("styles.svg"), size=("100%", "100%"), viewBox="0 0 800 600", debug=False
    )
    d.defs.add(d.style(".ghost { display: none } .cut { stroke: red; fill: none }"))
    clip = d.defs.add(d.clipPath(id="page-clip"))
    clip.add(d.rect((0, 0), (800, 600)))
    marker = d.marker(insert=(0, 0), size=(5, 5), id="arrow")
    marker.add(d.path("M0,0 L5,2 L0,5 z"))
    d.defs.add(marker)
    pattern = d.defs.add(d.pattern(size=(10, 10), id="grain", patternUnits="userSpaceOnUse"))
    pattern.add(d.rect((0, 0), (5, 10)))
    g = d.add(d.g(clip_path="url(#page-clip)"))
    for k in range(2):
        g.add(d.rect((20, 20 + 100 * k), (600, 70), class_="cut", rx=8))
    g.add(d.rect((20, 400), (90, 40), class_="ghost"))
    g.add(d.polyline([(20, 300), (420, 300), (420, 360), (20, 360), (20, 300)], class_="cut"))
    g.add(d.line((20, 520), (620, 520), marker_end="url(#arrow)"))
    d.save()
    w.holds(
        "styles.svg",
        [("", 2, 600, 70, 0), ("", 1, 400, 60, 0)],
        "mm",
        says="clips, markers, patterns, classes that hide, rounded corners",
    )


def svg_scaled() -> None:
    d = svgwrite.Drawing(w.path("scaled.svg"), size=("297mm", "210mm"), viewBox="0 0 1188 840")
    inner = d.add(d.g(transform="scale(4) translate(10,10)"))
    inner.add(d.rect((0, 0), (150, 20), id="rail"))
    nested = d.add(d.svg(insert=(40, 300), size=(600, 200)))
    nested.add(d.rect((0, 0), (400, 80), id="panel"))
    d.add(d.ellipse((900, 500), (160, 100), id="plaque"))
    text = d.add(d.text("", insert=(60, 330)))
    text.add(d.tspan("Drawer", x=[60], y=[330]))
    text.add(d.tspan("front", x=[60], y=[350]))
    d.save()
    q = 297 / 1188
    w.holds(
        "scaled.svg",
        [
            ("rail", 1, 600 * q, 80 * q, 0),
            ("", 1, 400 * q, 80 * q, 0),
            ("plaque", 1, 320 * q, 200 * q, 0),
        ],
        says="a viewBox of another size, a drawing in a drawing",
    )


def svg_twice() -> None:
    """Each part filled once and drawn round once, as drawing programs export it."""
    d = svgwrite.Drawing(w.path("twice.svg"), size=("600mm", "400mm"), viewBox="0 0 600 400")
    for k in range(3):
        points = [(20, 20 + 90 * k), (520, 20 + 90 * k), (520, 80 + 90 * k), (20, 80 + 90 * k)]
        d.add(d.polygon(points, fill="tan", stroke="none"))
        d.add(d.polygon(points, fill="none", stroke="black"))
    d.save()
    w.holds("twice.svg", [("", 3, 500, 60, 0)], says="each outline twice: its fill and its line")


for make in (twice, paper, centre, pockets, nested, solids, svg_styles, svg_scaled, svg_twice):
    make()
w.done()
