"""Drawings by ezdxf, as a shop draws them: sheets with a title block, blocks with attributes,
dimensions, layers off, R12.
"""

import ezdxf
from corpus import Row, Writer, least_box
from ezdxf import units
from ezdxf.document import Drawing
from ezdxf.layouts import Modelspace

w = Writer("ezdxf")


def new(version: str = "R2010", unit: int = units.MM) -> tuple[Drawing, Modelspace]:
    document = ezdxf.new(version, setup=True)
    document.units = unit
    return document, document.modelspace()


def box(
    space: Modelspace,
    x: float,
    y: float,
    long: float,
    wide: float,
    layer: str = "0",
    **more: object,
) -> None:
    space.add_lwpolyline(
        [(x, y), (x + long, y), (x + long, y + wide), (x, y + wide)],
        close=True,
        dxfattribs={"layer": layer, **more},
    )


def words(
    space: Modelspace, text: str, x: float, y: float, height: float = 8, layer: str = "0"
) -> None:
    space.add_text(text, height=height, dxfattribs={"layer": layer}).set_placement((x, y))


def save(
    document: Drawing,
    name: str,
    parts: list[Row],
    unit: str = "",
    says: str = "",
    binary: bool = False,
) -> None:
    document.saveas(w.path(name), fmt="bin" if binary else "asc")
    w.holds(name, parts, unit, says)


def sheet() -> None:
    """A sheet with border and title block, parts named inside, one hidden layer, two with gaps."""
    document, space = new()
    document.layers.add("OLD").off()
    document.layers.add("BORDER")
    box(space, 0, 0, 1190, 842, "BORDER")
    for k, text in enumerate(("SCALE 1:1", "DATE 2026-11-03", "DRAWN J", "TITLE Wall shelf")):
        box(space, 990, 10 + 20 * k, 190, 20, "BORDER")
        words(space, text, 995, 15 + 20 * k, 6, "BORDER")
    for k in range(2):
        box(space, 40, 100 + 160 * k, 600, 140)
        words(space, "Shelf 18 thk", 60, 120 + 160 * k)
    for k, gap in enumerate((0.05, 0.3)):
        x, y = 40, 500 + 120 * k
        space.add_lwpolyline([(x, y + gap), (x, y + 90), (x + 420, y + 90), (x + 420, y), (x, y)])
        words(space, "Bracket", x + 30, y + 30)
    box(space, 700, 300, 200, 60, "OLD")
    save(
        document,
        "sheet.dxf",
        [("Shelf", 2, 600, 140, 18), ("Bracket", 2, 420, 90, 0)],
        says="border, title block, layer off, gaps",
    )
    save(
        document,
        "sheet-binary.dxf",
        [("Shelf", 2, 600, 140, 18), ("Bracket", 2, 420, 90, 0)],
        says="the same, binary",
        binary=True,
    )


def frame_on_zero() -> None:
    """All on layer 0: a frame in A2's proportion, parts with cut-outs and bores."""
    document, space = new()
    box(space, 0, 0, 1188, 840)
    for k in range(3):
        box(space, 50, 60 + 220 * k, 800, 180)
        box(space, 300, 120 + 220 * k, 200, 60)
        space.add_circle((120, 150 + 220 * k), 6)
    save(
        document,
        "frame.dxf",
        [("", 3, 800, 180, 0)],
        says="a frame on the parts' own layer, cut-outs, bores",
    )


def blocks() -> None:
    document, space = new("R2000")
    block = document.blocks.new("LEG")
    block.add_lwpolyline([(0, 0), (720, 0), (720, 45), (400, 60), (0, 60)], close=True)
    for tag, at in (("NAME", 10), ("THICKNESS", 20), ("MATERIAL", 30), ("QTY", 40)):
        block.add_attdef(tag, (10, at), dxfattribs={"height": 5})
    for k in range(2):
        insert = space.add_blockref("LEG", (0, 150 * k), dxfattribs={"rotation": 0 if k else 15})
        insert.add_auto_attribs(
            {"NAME": "Back leg", "THICKNESS": "45", "MATERIAL": "ash", "QTY": "1"}
        )
    mirrored = space.add_blockref("LEG", (900, 600), dxfattribs={"xscale": -1})
    mirrored.add_auto_attribs(
        {"NAME": "Back leg", "THICKNESS": "45", "MATERIAL": "ash", "QTY": "1"}
    )
    grid = document.blocks.new("SLAT")
    grid.add_lwpolyline([(0, 0), (300, 0), (300, 40), (0, 40)], close=True)
    space.add_blockref("SLAT", (0, -400), dxfattribs={"row_count": 4, "row_spacing": 60})
    save(
        document,
        "blocks.dxf",
        [("Back leg", 3, 720, 60, 45), ("", 4, 300, 40, 0)],
        says="attributes, a mirrored insert, an array",
    )


def written() -> None:
    """Dimensions that rule over what is drawn; overrides with words."""
    document, space = new()
    for k, (name, text) in enumerate((("Rail", "660 TYP"), ("Stile", "2x 670"), ("Panel", "<>"))):
        y = 300 * k
        box(space, 0, y, 655 if k < 2 else 500, 90)
        words(space, name, 20, y + 30)
        space.add_linear_dim(
            base=(0, y - 40),
            p1=(0, y),
            p2=(655 if k < 2 else 500, y),
            text=text,
            override={"dimtxt": 8},
        ).render()
    save(
        document,
        "dimensions.dxf",
        [("Rail", 1, 660, 90, 0), ("Stile", 1, 670, 90, 0), ("Panel", 1, 500, 90, 0)],
        says="figures with words beside them",
    )


def mtext() -> None:
    document, space = new(unit=units.IN)
    for k, text in enumerate(
        (
            "Stretcher\\PQty: 3\\P1/4 thick",
            'Top {\\fArial|b1;rail}\\P%%u2 off\\P3/4" thk',
            "4x 3/4 Shelf",
            "Lid (2)",
        )
    ):
        box(space, 0, 10 * k, 24 + k, 4)
        space.add_mtext(
            text, dxfattribs={"char_height": 0.4, "insert": (1, 10 * k + 3.5), "width": 10}
        )
    i = 25.4
    save(
        document,
        "mtext.dxf",
        [
            ("Stretcher", 3, 24 * i, 4 * i, 0.25 * i),
            ("Top rail", 2, 25 * i, 4 * i, 0.75 * i),
            ("Shelf", 4, 26 * i, 4 * i, 0.75 * i),
            ("Lid", 2, 27 * i, 4 * i, 0),
        ],
        says="words in several lines",
    )


def old() -> None:
    """R12: POLYLINE entities with bulges, no unit; lines and arcs that make loops."""
    document = ezdxf.new("R12")
    space = document.modelspace()
    space.add_polyline2d(
        [(0, 0), (500, 0, 0, 0, 1), (500, 100), (0, 100)], format="xyseb", close=True
    )
    for k in range(2):
        y = 200 + 150 * k
        space.add_line((0, y), (400, y))
        space.add_arc((400, y + 50), 50, -90, 90)
        space.add_line((400, y + 100), (0, y + 100))
        space.add_line((0, y + 100), (0, y))
    document.saveas(w.path("r12.dxf"))
    w.holds(
        "r12.dxf",
        [("", 1, 550, 100, 0), ("", 2, 450, 100, 0)],
        "mm",
        says="no unit, bulges, loops of lines and arcs",
    )


def curves() -> None:
    document, space = new(unit=units.M)
    space.add_circle((0, 0), 0.3)
    space.add_ellipse((1, 0), (0.4, 0), 0.5)
    spline = space.add_spline(
        [(2, 0), (2.3, 0.05), (2.6, 0), (2.6, 0.2), (2.3, 0.25), (2, 0.2), (2, 0)]
    )
    long, wide = least_box(
        [(1000 * p.x, 1000 * p.y) for p in spline.construction_tool().approximate(4000)]
    )
    save(
        document,
        "round.dxf",
        [("", 1, 600, 600, 0), ("", 1, 800, 400, 0), ("", 1, long, wide, 0)],
        says="in metres: a circle, an ellipse, a spline",
    )


def nested_sheet() -> None:
    """A sheet of plywood that parts are nested on, hatches, centre lines and paper space with a
    title.
    """
    document, space = new()
    box(space, 0, 0, 2440, 1220)
    y = 20.0
    for k, (long, wide) in enumerate(((700, 300), (700, 300), (900, 250), (1200, 180))):
        box(space, 20, y, long, wide)
        hatch = space.add_hatch()
        hatch.paths.add_polyline_path(
            [(20, y), (20 + long, y), (20 + long, y + wide), (20, y + wide)], is_closed=True
        )
        space.add_line(
            (0, y + wide / 2), (long + 40, y + wide / 2), dxfattribs={"linetype": "CENTER"}
        )
        y += wide + 20
        del k
    paper = document.paperspace()
    paper.add_lwpolyline([(0, 0), (420, 0), (420, 297), (0, 297)], close=True)
    save(
        document,
        "nested.dxf",
        [("", 2, 700, 300, 0), ("", 1, 900, 250, 0), ("", 1, 1200, 180, 0)],
        says="a stock sheet, hatches, paper space",
    )


def rails() -> None:
    """Three rails of one size, each with another profile; two of one are mirror images."""
    document, space = new()
    rings = (
        [(0, 0), (600, 0), (600, 80), (0, 80)],
        [(0, 0), (600, 0), (600, 80), (300, 50), (0, 80)],
        [(0, 0), (600, 0), (600, 80), (100, 80), (100, 40), (0, 40)],
    )
    y = 0
    for k, ring in enumerate((*rings, [(600 - a, b) for a, b in rings[2]][::-1])):
        space.add_lwpolyline([(a, b + y) for a, b in ring], close=True)
        words(space, "Rail", 200, y + 20)
        y += 120
        del k
    save(
        document,
        "rails.dxf",
        [("Rail", 1, 600, 80, 0), ("Rail", 1, 600, 80, 0), ("Rail", 2, 600, 80, 0)],
        says="one size, three shapes",
    )


def feet() -> None:
    document, space = new(unit=units.FT)
    box(space, 0, 0, 4, 0.5)
    words(space, "Shelf", 0.3, 0.2, 0.1)
    space.add_circle((1, 2), 0.75)
    save(
        document,
        "feet.dxf",
        [("Shelf", 1, 4 * 304.8, 152.4, 0), ("", 1, 457.2, 457.2, 0)],
        says="in feet",
    )


for make in (sheet, frame_on_zero, blocks, written, mtext, old, curves, nested_sheet, rails, feet):
    make()
w.done()
