"""Models and drawings by build123d: labels, colours, compounds in compounds, booleans; STEP, GLB,
3MF, STL, DXF, SVG.
"""

import copy

from build123d import (
    Align,
    Axis,
    Box,
    Circle,
    Color,
    ColorIndex,
    Compound,
    Cylinder,
    ExportDXF,
    ExportSVG,
    Location,
    Mesher,
    Part,
    Plane,
    Pos,
    Rectangle,
    RectangleRounded,
    Unit,
    chamfer,
    export_gltf,
    export_step,
    export_stl,
    fillet,
    mirror,
)
from corpus import Writer

w = Writer("build123d")
LOW = (Align.MIN, Align.MIN, Align.MIN)


def board(long: float, wide: float, thick: float, label: str = "") -> Part:
    made = Box(long, wide, thick, align=LOW)
    made.label = label
    return made


def at(part: Part, *where: float, turn: tuple[float, float, float] = (0, 0, 0)) -> Part:
    moved = copy.copy(part).locate(Location(where, turn))
    moved.label, moved.color = part.label, part.color
    return moved


def table() -> None:
    leg = chamfer(Box(55, 55, 710, align=LOW).edges().filter_by(Axis.Z), 4)
    leg.label, leg.color = "Leg", Color("saddlebrown")
    long, short = board(1300, 95, 22, "Long apron"), board(600, 95, 22, "Short apron")
    long.color = short.color = Color("peru")
    top = board(1600, 800, 27, "Top")
    base = Compound(
        label="Base",
        children=[
            *(at(leg, x, y, 0) for x in (0, 1400) for y in (0, 700)),
            at(long, 60, 0, 600, turn=(90, 0, 0)),
            at(long, 60, 720, 600, turn=(90, 0, 0)),
            at(short, 0, 60, 600, turn=(90, 0, 90)),
            at(short, 1400, 60, 600, turn=(90, 0, 90)),
        ],
    )
    whole = Compound(label="Reading table", children=[base, at(top, -50, -20, 710)])
    truth = [
        ("Leg", 4, 710, 55, 55),
        ("Long apron", 2, 1300, 95, 22),
        ("Short apron", 2, 600, 95, 22),
        ("Top", 1, 1600, 800, 27),
    ]
    export_step(whole, w.path("table.step"))
    w.holds("table.step", truth, says="compound in compound, labels, colours")
    shelf, post = board(36, 5.5, 0.75, "Shelf"), board(3, 3, 28, "Post")
    inch = Compound(label="Rack", children=[shelf, at(shelf, 0, 8, 0), at(post, 50, 0, 0)])
    export_step(inch, w.path("rack-inch.step"), unit=Unit.IN)
    truth_in = [("Shelf", 2, 914.4, 139.7, 19.05), ("Post", 1, 711.2, 76.2, 76.2)]
    w.holds("rack-inch.step", truth_in, says="a model in inches")
    export_gltf(whole, w.path("table.glb"), binary=True)
    w.holds("table.glb", truth, "mm")


def chair() -> None:
    back = fillet(
        (Box(430, 90, 20, align=LOW) - Pos(215, -500, 10) * Cylinder(540, 30))
        .edges()
        .filter_by(Axis.Z),
        3,
    )
    box = back.bounding_box().size
    back.label = "Crest rail"
    leg = Box(40, 40, 450, align=LOW) - Pos(0, 8, 380) * Box(12, 30, 60, align=LOW)
    leg.label = "Front leg R"
    other = mirror(leg, about=Plane.YZ)
    other.label = "Front leg L"
    whole = Compound(label="Chair", children=[back, at(leg, 0, 300, 0), at(other, 430, 300, 0)])
    export_step(whole, w.path("chair.step"))
    w.holds(
        "chair.step",
        [("Crest rail", 1, box.X, box.Y, box.Z), ("Front leg", 2, 450, 40, 40)],
        says="a pair, an arc",
    )


def meshes() -> None:
    lid, side = board(420, 300, 15, "Lid"), board(420, 180, 15, "Side")
    mesher = Mesher(unit=Unit.MM)
    mesher.add_shape([lid], part_number="Lid")
    mesher.add_shape([at(side, 0, 400, 0)], part_number="Side")
    mesher.add_shape([at(side, 0, 700, 0, turn=(20, 30, 0))], part_number="Side")
    mesher.write(w.path("box.3mf"))
    w.holds("box.3mf", [("Lid", 1, 420, 300, 15), ("Side", 2, 420, 180, 15)])
    inch = Mesher(unit=Unit.IN)
    inch.add_shape([board(30, 8, 0.75, "Shelf")], part_number="Shelf")
    inch.write(w.path("shelf-inch.3mf"))
    w.holds("shelf-inch.3mf", [("Shelf", 1, 762, 203.2, 19.05)], says="3MF in inches")
    export_stl(Compound(children=[lid, at(side, 0, 400, 0)]), w.path("box.stl"))
    w.holds("box.stl", [("", 1, 420, 300, 15), ("", 1, 420, 180, 15)], "mm")


def drawings() -> None:
    side = RectangleRounded(600, 240, 30) - Pos(-200, 0) * Circle(10) - Pos(200, 0) * Circle(10)
    shelf = Pos(0, 320) * Rectangle(560, 220)
    for exporter, name in (
        (ExportDXF(unit=Unit.MM), "bracket.dxf"),
        (ExportSVG(unit=Unit.MM, margin=5), "bracket.svg"),
    ):
        exporter.add_layer("side", color=ColorIndex.RED) if isinstance(
            exporter, ExportDXF
        ) else exporter.add_layer("side")
        exporter.add_layer("shelf")
        exporter.add_shape(side, layer="side")
        exporter.add_shape(shelf, layer="shelf")
        exporter.add_shape(Pos(0, 620) * Rectangle(560, 220), layer="shelf")
        exporter.write(w.path(name))
        w.holds(
            name, [("", 1, 600, 240, 0), ("", 2, 560, 220, 0)], says="two layers, arcs and bores"
        )
    notch = (
        Rectangle(900, 120) - Pos(-300, 50) * Rectangle(20, 60) - Pos(300, 50) * Rectangle(20, 60)
    )
    inch = ExportDXF(unit=Unit.IN)
    inch.add_shape(Rectangle(36, 5.5))
    inch.write(w.path("rail-inch.dxf"))
    w.holds("rail-inch.dxf", [("", 1, 36 * 25.4, 5.5 * 25.4, 0)], says="DXF in inches")
    plain = ExportDXF(unit=Unit.MM)
    plain.add_shape(notch)
    plain.write(w.path("notched.dxf"))
    w.holds("notched.dxf", [("", 1, 900, 120, 0)], says="edge halvings")


def loose() -> None:
    """Several named bodies in one product, and round parts."""
    dowel = Cylinder(5, 60)
    peg = Cylinder(12.7, 152.4)
    dowel.label, peg.label = "Dowel", "Peg"
    whole = Compound(
        label="Rack",
        children=[
            board(914.4, 139.7, 19.05, "Back"),
            *(at(peg, 100 * k, 60, 100) for k in range(5)),
            *(at(dowel, 100 * k, 200, 100, turn=(30, 20, 10)) for k in range(3)),
        ],
    )
    export_step(whole, w.path("peg-rack.step"))
    w.holds(
        "peg-rack.step",
        [("Back", 1, 914.4, 139.7, 19.05), ("Peg", 5, 152.4, 25.4, 25.4), ("Dowel", 3, 60, 10, 10)],
        says="round parts",
    )


table()
chair()
meshes()
drawings()
loose()
w.done()
