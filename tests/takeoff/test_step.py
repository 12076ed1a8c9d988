"""STEP: any nesting, any placement, the sizes come out; surfaces and empty files are told."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.profiles import examples
from tests.takeoff.making import sizes, taken_off
from tests.takeoff.step_files import Assembly, block, place
from vividplank.core.takeoff import Settings, Unreadable, read
from vividplank.jobs.reading import read_in_process

pieces = st.tuples(st.integers(300, 2000), st.integers(60, 290), st.integers(6, 50))
turns = st.tuples(
    st.floats(0, math.tau), st.tuples(st.floats(-1, 1), st.floats(-1, 1), st.just(0.7))
)


@examples(12)
@given(
    st.lists(st.tuples(pieces, st.integers(1, 3), turns), min_size=1, max_size=4), st.integers(0, 3)
)
def test_sizes_and_counts_survive_nesting_and_turning(parts: list, depth: int) -> None:  # type: ignore[type-arg]
    a = Assembly()
    inner = a.group("inner")
    for k, (size, count, (turn, about)) in enumerate(parts):
        product = a.product(block(*size), f"Piece {'abcd'[k]}")
        for n in range(count):
            a.put(inner, product, place(3000 * k, 500 * n, 10 * n, turn + n, about))
    group = inner
    for level in range(depth):
        outer = a.group(f"level {level}")
        a.put(outer, group, place(7, -3, 11, 0.3 + level, (0.2, 1, 0)))
        group = outer
    reading = taken_off(a.write(), "nested.step")
    wanted = sorted((tuple(float(s) for s in size), count) for size, count, _ in parts)
    assert sorted((found, n) for n, found in sizes(reading)) == wanted
    assert {p.name for p in reading.parts} == {f"Piece {'abcd'[k]}" for k in range(len(parts))}


def test_a_group_placed_twice_counts_twice() -> None:
    a = Assembly()
    pair, whole = a.group("pair"), a.group("whole")
    leg = a.product(block(400, 40, 30), "Leg")
    for x in (0, 500):
        a.put(pair, leg, place(x))
    for y in (0, 600):
        a.put(whole, pair, place(0, y, 0, math.pi / 2))
    assert sizes(taken_off(a.write(), "two.step")) == [(4, (400.0, 40.0, 30.0))]


def test_names_that_programs_give_are_no_names() -> None:
    a = Assembly()
    whole = a.group("Assembly1")
    a.put(whole, a.product(block(400, 40, 30), "SOLID"), place())
    a.put(whole, a.product(block(300, 50, 20), "Body.002"), place(0, 200))
    a.put(whole, a.product(block(200, 60, 10), "Rail:1"), place(0, 400))
    assert {p.name for p in taken_off(a.write(), "x.step").parts} == {"Part 1", "Part 2", "Rail"}


def test_a_surface_is_no_part_and_is_told() -> None:
    from OCP.BRepBuilderAPI import BRepBuilderAPI_MakeFace
    from OCP.gp import gp_Dir, gp_Pln, gp_Pnt

    sheet = BRepBuilderAPI_MakeFace(gp_Pln(gp_Pnt(0, 0, 0), gp_Dir(0, 0, 1)), 0, 100, 0, 50).Face()
    a = Assembly()
    a.product(sheet, "Sketch")
    with pytest.raises(Unreadable, match="holds no solid"):
        taken_off(a.write(), "surface.step")


def test_a_coloured_face_without_a_name_ends_nothing() -> None:
    from OCP.Quantity import Quantity_Color, Quantity_TOC_RGB
    from OCP.TopAbs import TopAbs_FACE
    from OCP.TopExp import TopExp_Explorer
    from OCP.XCAFDoc import XCAFDoc_ColorType, XCAFDoc_DocumentTool

    a = Assembly()
    shape = block(400, 60, 20)
    rail = a.product(shape, "Rail")
    face = a.tool.AddSubShape(rail, TopExp_Explorer(shape, TopAbs_FACE).Current())
    colours = XCAFDoc_DocumentTool.ColorTool_s(a.document.Main())
    colours.SetColor(
        face, Quantity_Color(0.8, 0.2, 0.1, Quantity_TOC_RGB), XCAFDoc_ColorType.XCAFDoc_ColorSurf
    )
    reading, _ = read_in_process(a.write(), "coloured.step", {})
    assert [(p.name, p.quantity) for p in reading.parts] == [("Rail", 1)] and sizes(reading) == [
        (1, (400.0, 60.0, 20.0))
    ]


def test_a_body_called_body_is_called_as_its_container_or_instance() -> None:
    a = Assembly()
    whole = a.group("Cabinet")
    for k, name in enumerate(("Left side", "Shelf")):
        holder = a.group(name)
        a.put(holder, a.product(block(600 - 50 * k, 280, 19), "Body"), place())
        a.put(whole, holder, place(0, 0, 300 * k))
    assert {p.name for p in taken_off(a.write(), "cabinet.step").parts} == {"Left side", "Shelf"}


def test_parts_in_other_files_are_named() -> None:
    a = Assembly()
    a.product(block(400, 60, 20), "Rail")
    content = a.write()
    linked = content.replace(
        b"ENDSEC;\nEND-ISO",
        b"#9001=DOCUMENT_FILE('parts/leg.stp','',$,#9002,'',$);\nENDSEC;\nEND-ISO",
    )
    assert linked != content
    assert any(
        "leg.stp" in t and "not here" in t for t in taken_off(linked, "assembly.step").troubles
    )


@pytest.mark.parametrize("diameter", [12.0, 40.0, 300.0])
def test_round_parts_are_as_thick_as_they_are(diameter: float) -> None:
    from OCP.BRepPrimAPI import BRepPrimAPI_MakeCylinder

    a = Assembly()
    a.product(BRepPrimAPI_MakeCylinder(diameter / 2, 700).Shape(), "Dowel")
    ((_, size),) = sizes(taken_off(a.write(), "dowel.step"), 320)
    assert size == pytest.approx((700, diameter, diameter), abs=0.051)


def test_an_answer_about_the_unit_of_the_file_it_replaces_leaves_a_model_that_says_its_own() -> (
    None
):
    made = Assembly()
    made.put(made.group("Piece"), made.product(block(600, 80, 20), "Rail"), place())
    for unit in ("MM", "INCH"):
        reading, _ = read(made.write(unit=unit), "a.step", Settings("cm"))
        assert [p.length // 320 for p in reading.parts] == [600] and reading.asks == ""


def test_a_model_larger_than_any_furniture_is_asked_about_its_unit() -> None:
    made = Assembly()
    made.put(made.group("Piece"), made.product(block(36, 5.5, 0.75), "Shelf"), place())
    metres = made.write().replace(
        b"SI_UNIT(.MILLI.,.METRE.)", b"SI_UNIT($,.METRE.)"
    )  # inches, called metres
    reading, _ = read(metres, "a.step", Settings())
    assert (
        reading.asks
        == "By the file's own word it would be 36 m long. The biggest thing is 36: inches?"
    )
    answered, _ = read(metres, "a.step", Settings("in"))
    assert answered.asks == "" and [round(p.length / 320, 1) for p in answered.parts] == [914.4]
