"""Each format: a fixture, the parts in it by hand, the parts found. Fixtures of other programs:
fixtures/README.md.
"""

import io
from pathlib import Path

import pytest
from OCP.gp import gp_Ax1, gp_Dir, gp_Pnt  # noqa: F401  the kernel is there

from tests.takeoff.making import (
    a_block,
    a_dxf,
    dxf_bytes,
    named,
    rectangle,
    sizes,
    taken_off,
    written,
)
from tests.takeoff.step_files import Assembly, block, bookcase, mirrored, place
from vividplank.core.exchange import read_job
from vividplank.core.exchange.parts_list import read_parts
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff import (
    LayerMeaning,
    Reading,
    Settings,
    Unreadable,
    kind_of,
    reading_document,
)

FIXTURES = Path(__file__).parent / "fixtures"
DEMO = Path(__file__).parents[2] / "vividplank" / "demo"
STOOL = [
    (4, (420.0, 40.0, 40.0)),
    (1, (380.0, 340.0, 24.0)),
    (2, (258.0, 70.0, 22.0)),
    (2, (218.0, 70.0, 22.0)),
]
TRAY = [(2, (480.0, 60.0, 12.0)), (1, (455.0, 335.0, 6.0)), (2, (335.0, 60.0, 12.0))]


@pytest.mark.parametrize(
    ("name", "expected"),
    [("stool.stl", STOOL), ("stool.off", STOOL), ("stool.3mf", STOOL), ("tray.step", TRAY)],
)
def test_models_of_other_programs(name: str, expected: list) -> None:  # type: ignore[type-arg]
    reading = taken_off((FIXTURES / name).read_bytes(), name)
    assert sizes(reading) == expected
    assert reading.pieces == sum(n for n, _ in expected)
    assert reading.troubles == ()
    assert {v.name for v in reading.views} == {"three-quarter", "front", "side", "plan"}
    refs = {r for p in reading.parts for r in p.refs}
    assert {s.ref for s in reading.views[0].shapes} == refs  # every part can be pointed at


@pytest.mark.parametrize("name", ["stool.dxf", "stool.svg"])
def test_flat_drawings_of_other_programs(name: str) -> None:
    reading = taken_off((FIXTURES / name).read_bytes(), name)
    assert sizes(reading) == [
        (4, (420.0, 40.0, 0.0)),
        (1, (380.0, 300.0, 0.0)),
        (2, (258.0, 70.0, 0.0)),
    ]
    seat = next(p for p in reading.parts if len(p.refs) == 1)
    assert seat.fill == pytest.approx((380 + 300) / 2 / 380, rel=1e-3) and len(seat.outline) == 4


def test_the_sketch_says_its_sizes_in_words() -> None:
    reading = taken_off((FIXTURES / "sketch.dxf").read_bytes(), "sketch.dxf", Settings("in"))
    rail = named(reading, "Long rail")
    assert (rail.length, rail.width) == (
        40 * 8128,
        5 * 8128,
    )  # as written, not the 16 by 2 that are drawn
    assert "the words beside it say 40 in, the drawing 16 in" in " ".join(reading.troubles)


@pytest.mark.parametrize("name", ["list.xlsx", "list.ods", "list.csv"])
def test_lists_of_another_program(name: str) -> None:
    reading = taken_off((FIXTURES / name).read_bytes(), name)
    found = read_parts(reading.table, "in")
    mm = TICKS_PER_MM
    assert [
        (p.name, p.quantity, p.length, p.width, p.thickness, p.species) for p in found.parts
    ] == [
        ("Leg", 4, 420 * mm, 40 * mm, 40 * mm, "ash"),
        ("Rail long", 2, 258 * mm, 70 * mm, 22 * mm, "ash"),
        ("Rail short", 2, 218 * mm, 70 * mm, 22 * mm, "ash"),
        ("Seat", 1, 380.5 * mm, 340 * mm, 24 * mm, "white oak"),
    ]
    assert [r.row for r in found.refused] == [8] and found.refused[0].why.startswith(
        "'many' is no count"
    )


@pytest.mark.parametrize("name", ["sketch.pdf", "sketch.png"])
def test_sheets_come_as_pictures(name: str) -> None:
    from vividplank.core.takeoff import read

    reading, pages = read((FIXTURES / name).read_bytes(), name, Settings())
    assert (
        reading.kind == "sheet"
        and len(pages) == len(reading.views)
        and pages[0].png.startswith(b"\x89PNG")
    )
    if name.endswith("pdf"):
        # The rail's box, 160 by 20 mm on paper, comes with its corners to snap to.
        spans = [
            (
                max(p[0] for p in line) - min(p[0] for p in line),
                max(p[1] for p in line) - min(p[1] for p in line),
            )
            for line in reading.views[0].lines
        ]
        assert any(abs(w - 160) < 0.1 and abs(h - 20) < 0.1 for w, h in spans)
        assert "Long rail 40 x 5" in {w.text for w in reading.views[0].words}


def test_a_photograph_is_turned_as_the_camera_held_it() -> None:
    from PIL import Image

    from vividplank.core.takeoff import read

    with Image.open(FIXTURES / "sketch.png") as sketch:
        held = Image.Exif()
        held[0x0112] = 6  # the camera lay on its side
        out = io.BytesIO()
        sketch.convert("RGB").save(out, "JPEG", exif=held)
        width, height = sketch.size
    reading, pages = read(out.getvalue(), "sketch.jpg", Settings())
    assert (reading.views[0].width, reading.views[0].height) == (height, width) and len(pages) == 1


def test_the_demo_list_is_what_its_model_holds() -> None:
    job = read_job((DEMO / "settle.job.json").read_bytes())
    reading = taken_off((DEMO / "settle.step").read_bytes(), "settle.step")
    assert {(f.key, f.quantity, f.length, f.width, f.thickness) for f in reading.parts} == {
        (p.name, p.quantity, p.length, p.width, p.thickness) for p in job.parts
    }


def test_an_assembly_of_fifty_solids_nested_and_turned() -> None:
    reading = taken_off(bookcase(5), "bookcase.step")
    assert [
        (p.name, *s)
        for p, s in zip(sorted(reading.parts, key=lambda p: -p.length), sizes(reading), strict=True)
    ] == [
        ("Side", 10, (1800.0, 280.0, 19.0)),
        ("Shelf", 25, (760.0, 270.0, 19.0)),
        ("Back slat", 15, (760.0, 60.0, 12.0)),
    ]
    assert reading.pieces == 50


@pytest.mark.parametrize("schema", ["AP203", "AP214IS", "AP242DIS"])
@pytest.mark.parametrize("unit", ["MM", "INCH", "M"])
def test_step_schemas_and_units(schema: str, unit: str) -> None:
    a = Assembly()
    top = a.group("Box")
    a.put(top, a.product(block(508, 76.2, 19.05), "Side"), place(10, 0, 0, 0.4, (1, 1, 1)))
    content = a.write(schema, unit)
    assert ("203" if schema == "AP203" else "214" if "214" in schema else "242") in content[
        :3000
    ].decode("latin-1").replace("CONFIG_CONTROL_DESIGN", "203")
    assert sizes(taken_off(content, "box.stp")) == [(1, (508.0, 76.2, 19.1))]


def test_mirrored_solids_of_a_step_file_are_a_pair() -> None:
    from OCP.BRepAlgoAPI import BRepAlgoAPI_Cut
    from OCP.BRepBuilderAPI import BRepBuilderAPI_Transform

    notch = BRepBuilderAPI_Transform(
        block(60, 30, 10), place(40, 0, 0).Transformation(), True
    ).Shape()
    post = BRepAlgoAPI_Cut(block(700, 60, 40), notch).Shape()
    a = Assembly()
    top = a.group("Frame")
    a.put(top, a.product(post, "Left post"), place())
    a.put(top, a.product(mirrored(post), "Right post"), place(0, 500, 0))
    reading = taken_off(a.write(), "frame.step")
    assert [(p.name, p.quantity, p.mirrored) for p in reading.parts] == [
        ("Left post / Right post", 2, 1)
    ]
    assert reading.parts[0].fill == pytest.approx(1 - 60 * 30 * 10 / (700 * 60 * 40), abs=1e-3)


@pytest.mark.parametrize("kind", ["stl", "obj", "ply", "off", "glb", "3mf"])
def test_every_mesh_format(kind: str) -> None:
    meshes = [
        a_block((500, 60, 20)),
        a_block((500, 60, 20), (0, 0, 20)),
        a_block((700, 300, 18), (0, 400, 50), 0.4, (1, 1, 0)),
    ]
    reading = taken_off(written(meshes, kind), f"table.{kind}", Settings("mm"))
    assert sizes(reading) == [(1, (700.0, 300.0, 18.0)), (2, (500.0, 60.0, 20.0))]


def test_groups_of_an_obj_give_names() -> None:
    text = ""
    for k, (name, mesh) in enumerate(
        (("Leg", a_block((20, 2, 2))), ("Rail_2", a_block((18, 3, 1), (0, 9, 0))))
    ):
        text += f"g {name}\n" + "".join(f"v {x} {y} {z}\n" for x, y, z in mesh.vertices)
        text += "".join(
            f"f {a + 8 * k + 1} {b + 8 * k + 1} {c + 8 * k + 1}\n" for a, b, c in mesh.faces
        )
    reading = taken_off(text.encode(), "stand.obj")
    assert {p.name for p in reading.parts} == {"Leg", "Rail"}
    # Nothing says the unit, and 20 of anything but inches is no furniture.
    assert reading.unit == "in" and reading.asks.endswith("inches?")
    assert (
        named(taken_off(text.encode(), "stand.obj", Settings("cm")), "Leg").length
        == 200 * TICKS_PER_MM
    )


def test_a_unit_the_file_says_is_doubted_where_it_cannot_be() -> None:
    reading = taken_off(
        written([a_block((700, 300, 18))], "glb"), "a.glb"
    )  # a GLB is in metres by its own description
    assert (
        reading.asks.startswith("By the file's own word it would be 700 m long")
        and reading.unit == "mm"
    )


def test_dxf_blocks_scales_attributes_layers_and_words() -> None:
    document, space = a_dxf()
    leg = document.blocks.new("LEG")  # type: ignore[attr-defined]
    leg.add_lwpolyline(rectangle(0, 0, 40, 400), close=True)
    leg.add_circle((20, 20), 5)
    pair = document.blocks.new("PAIR")  # type: ignore[attr-defined]
    for k in range(2):
        one = pair.add_blockref("LEG", (300 * k, 0), dxfattribs={"rotation": 10 * k})
        one.add_attrib("NAME", "Leg")
        one.add_attrib("THICKNESS", "40")
    space.add_blockref("PAIR", (2000, 0), dxfattribs={"xscale": 2, "yscale": 2})  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True, dxfattribs={"layer": "OAK-19"})  # type: ignore[attr-defined]
    words = {"insert": (100, 30), "layer": "OAK-19"}
    space.add_text("2x Seat rail", dxfattribs=words)  # type: ignore[attr-defined]
    settings = Settings(
        layers=(
            ("OAK-19", LayerMeaning("white oak", 19 * TICKS_PER_MM)),
            ("0", LayerMeaning("ash")),
        )
    )
    reading = taken_off(dxf_bytes(document), "frame.dxf", settings)
    rail, legs = named(reading, "Seat rail"), named(reading, "Leg")
    assert (rail.quantity, rail.species, rail.thickness) == (2, "white oak", 19 * TICKS_PER_MM)
    # 400 long in a block doubled by the one around it; the screw hole in it is no part.
    assert (legs.quantity, legs.length, legs.width, legs.thickness) == (
        2,
        800 * 320,
        80 * 320,
        40 * 320,
    )
    assert len(reading.parts) == 2 and reading.layers == ("0", "OAK-19")
    ignored = taken_off(
        dxf_bytes(document), "frame.dxf", Settings(layers=(("0", LayerMeaning(ignore=True)),))
    )
    assert [p.name for p in ignored.parts] == ["Seat rail"]


def test_dxf_written_dimensions_rule_over_measured_ones() -> None:
    document, space = a_dxf()
    for a, b in zip(
        rectangle(0, 200, 900, 120), [*rectangle(0, 200, 900, 120)[1:], (0, 200)], strict=True
    ):
        space.add_line(a, b)  # type: ignore[attr-defined]
    space.add_linear_dim(base=(0, 150), p1=(0, 200), p2=(900, 200), text="920").render()  # type: ignore[attr-defined]
    space.add_linear_dim(base=(-50, 0), p1=(0, 200), p2=(0, 320), angle=90).render()  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert [(p.length, p.width) for p in reading.parts] == [(920 * 320, 120 * 320)]
    assert "written 920 mm, drawn 900 mm" in reading.troubles[0]


def test_figures_along_a_row_are_added_up() -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 0, 900, 100), close=True)  # type: ignore[attr-defined]
    for a, b, text in ((0, 400, "<>"), (400, 900, "510"), (0, 900, "<>")):
        space.add_linear_dim(base=(0, -40), p1=(a, 0), p2=(b, 0), text=text).render()  # type: ignore[attr-defined]
    troubles = " ".join(taken_off(dxf_bytes(document), "a.dxf").troubles)
    assert "add up to 910 mm" in troubles and "900 mm" in troubles


def test_svg_ids_transforms_and_real_units() -> None:
    svg = b"""
      <svg xmlns="http://www.w3.org/2000/svg" width="600mm" height="400mm" viewBox="0 0 600 400">
      <g id="oak" transform="translate(10,10) scale(1)">
      <rect id="seat-rail" width="500" height="60"/>
      <rect id="rect12" y="100" width="60" height="250" transform="rotate(5)"/>
      <text x="10" y="130">Post x2</text></g></svg>"""
    reading = taken_off(svg, "a.svg")
    assert sizes(reading) == [(1, (500.0, 60.0, 0.0)), (2, (250.0, 60.0, 0.0))]
    assert (
        reading.asks == ""
        and {p.name for p in reading.parts} == {"seat rail", "Post"}
        and reading.layers == ("oak",)
    )
    bare = taken_off(svg.replace(b'mm"', b'"'), "a.svg")
    assert (
        bare.asks
        and taken_off(svg.replace(b'mm"', b'"'), "a.svg", Settings("in")).parts[0].length
        == 500 * 8128
    )


@pytest.mark.parametrize(
    ("content", "name", "why"),
    [
        (b"", "a.step", "empty"),
        (b"hello", "a.step", "is of a kind that is not read here"),
        (b"\x7fELF", "a", "is of a kind"),
        (b"PK\x03\x04broken", "a.3mf", "damaged"),
        (b"ISO-10303-21;\nHEADER;\n", "a.step", "STEP file"),
        (b"%PDF-1.4 nothing", "a.pdf", "PDF cannot be read"),
        (b"\x89PNG\r\n\x1a\nrest", "a.png", "picture cannot be read"),
        (b"0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n", "a.dxf", "no closed outline"),
        (b"<svg></svg>", "a.svg", "no closed shape"),
        (b"solid x\nfacet\nendsolid", "a.stl", "STL"),
    ],
)
def test_what_cannot_be_read_is_refused_in_a_sentence(content: bytes, name: str, why: str) -> None:
    with pytest.raises(Unreadable, match=why):
        taken_off(content, name)


def test_the_content_decides_what_a_file_is() -> None:
    assert kind_of((FIXTURES / "tray.step").read_bytes(), "tray.txt") == "step"
    assert kind_of((FIXTURES / "list.ods").read_bytes(), "list.zip") == "ods"
    assert kind_of((FIXTURES / "stool.3mf").read_bytes(), "stool") == "3mf"


TABLE = "Part\tLength\tWidth\tThickness\tWood\nRückwand\t600\t300\t19\tEiche\n"


@pytest.mark.parametrize(
    "encoding", ["utf-8", "utf-8-sig", "utf-16", "utf-16-le", "utf-16-be", "cp1252"]
)
@pytest.mark.parametrize("name", ["list.txt", "list.csv"])
def test_a_table_in_whatever_letters_a_spreadsheet_writes(encoding: str, name: str) -> None:
    reading = taken_off(TABLE.encode(encoding), name)
    assert reading.table.lstrip("\ufeff") == TABLE and bool(reading.troubles) == (
        encoding == "cp1252"
    )


def test_a_nul_in_a_table_is_left_out_and_told() -> None:
    reading = taken_off(b"Part,Length\0,Width\nA,1,2\n", "list.csv")
    assert "\0" not in reading.table and "NUL" in reading.troubles[0]


def test_no_name_in_a_file_keeps_a_database_from_holding_it() -> None:
    reading = Reading("list", "in", table="a\0b\ud800c", troubles=("\0",))
    assert reading_document(reading)["table"] == "abc" and reading_document(reading)[
        "troubles"
    ] == [""]
