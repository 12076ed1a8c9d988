"""DXF as other programs write it: what is drawn oddly is read, and what is not taken is told."""

import math
from typing import Any

import pytest

from tests.takeoff.making import a_dxf, dxf_bytes, named, rectangle, sizes, taken_off
from vividplank.core.takeoff import LayerMeaning, Reading, Settings
from vividplank.core.takeoff.readers.drawn import plain


def kinds(reading: Reading) -> dict[str, Any]:
    return {d.kind: d for d in reading.decisions}


def test_a_spline_or_an_ellipse_beside_the_parts_refuses_nothing() -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True)  # type: ignore[attr-defined]
    space.add_spline([(0, 200), (100, 250), (200, 200), (300, 220)])  # type: ignore[attr-defined]
    space.add_ellipse((800, 0), (100, 0), 0.5)  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert sizes(reading) == [(1, (600.0, 70.0, 0.0)), (1, (200.0, 100.0, 0.0))]
    assert kinds(reading)["open"].what == "No parts: 1 line without an area"


@pytest.mark.parametrize(("how", "word"), [("off", "switched off"), ("freeze", "frozen")])
def test_hidden_layers_are_left_out_and_can_be_asked_for(how: str, word: str) -> None:
    document, space = a_dxf()
    getattr(document.layers.add("OLD"), how)()  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True)  # type: ignore[attr-defined]
    for y in (200, 300):
        space.add_lwpolyline(rectangle(0, y, 500, 40), close=True, dxfattribs={"layer": "OLD"})  # type: ignore[attr-defined]
    space.add_text("Rail", dxfattribs={"insert": (5, 205), "layer": "OLD"})  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert sizes(reading) == [(1, (600.0, 70.0, 0.0))]
    assert (
        kinds(reading)["hidden"].what == f"Left out: 2 things on the layer 'OLD', which is {word}"
    )
    all_of_it = taken_off(dxf_bytes(document), "a.dxf", Settings(turned=frozenset({"hidden:OLD"})))
    assert [q for q, _ in sizes(all_of_it)] == [1, 2] or sum(
        p.quantity for p in all_of_it.parts
    ) == 3
    assert kinds(all_of_it)["hidden"].turned


@pytest.mark.parametrize("gap", [0.01, 0.05, 0.3])
def test_an_outline_of_lines_that_nearly_meet_is_closed_and_told(gap: float) -> None:
    document, space = a_dxf()
    corners = rectangle(0, 0, 600, 70)
    for k, (a, b) in enumerate(zip(corners, corners[1:] + corners[:1], strict=True)):
        cut = (b[0] - gap if k == 0 else b[0], b[1])
        space.add_line(a, cut)  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 200, 400, 50), close=True)  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert [q for q, _ in sizes(reading)] == [1, 1] and reading.parts[0].quantity == 1
    assert {tuple(round(s) for s in size) for _, size in sizes(reading)} == {
        (600, 70, 0),
        (400, 50, 0),
    }
    assert "Closed: 1 outline, open by" in kinds(reading)["gap"].what


def test_a_wide_gap_is_no_slip() -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 200, 400, 50), close=True)  # type: ignore[attr-defined]
    for a, b in (
        ((0, 0), (600, 0)),
        ((600, 0), (600, 70)),
        ((600, 70), (0, 70)),
        ((0, 70), (0, 20)),
    ):
        space.add_line(a, b)  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert (
        sizes(reading) == [(1, (400.0, 50.0, 0.0))]
        and "4 lines without an area" in kinds(reading)["open"].what
    )


@pytest.mark.parametrize("axis", [1, 0])
def test_a_view_drawn_upright_is_laid_flat(axis: int) -> None:
    document, space = a_dxf()
    flat = rectangle(0, 0, 600, 70)
    ring = [(x, 500.0, y) if axis else (500.0, x, y) for x, y in flat]
    space.add_polyline3d(ring, close=True)  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 200, 400, 50), close=True)  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert sizes(reading) == [(1, (600.0, 70.0, 0.0)), (1, (400.0, 50.0, 0.0))]
    assert kinds(reading)["upright"].what == "Laid flat: 1 outline drawn upright"


def test_lines_of_a_text_do_not_run_into_each_other() -> None:
    document, space = a_dxf(1)
    space.add_lwpolyline(rectangle(0, 0, 30, 8), close=True)  # type: ignore[attr-defined]
    space.add_mtext("Shelf\\PQty: 3\\P1/4 thick", dxfattribs={"insert": (2, 4)})  # type: ignore[attr-defined]
    part = named(taken_off(dxf_bytes(document), "a.dxf"), "Shelf")
    assert (part.quantity, part.thickness) == (3, 8128 // 4)


@pytest.mark.parametrize(
    ("text", "clean"),
    [
        ("%%uRail%%u", "Rail"),
        ("%%c35", "⌀35"),
        ("45%%d", "45°"),
        ("\\A1;660\\PTYP", "660\nTYP"),
        ("{\\fArial|b0;Rail}", "Rail"),
    ],
)
def test_codes_in_texts_are_no_letters(text: str, clean: str) -> None:
    assert plain(text) == clean


@pytest.mark.parametrize(
    ("text", "length"),
    [
        ("660 TYP", 660),
        ("2x 670", 670),
        ("(680)", 680),
        ("690 REF", 690),
        ("<>", 600),
        ("<> TYP", 600),
        ("\\A1;660;", 660),
        ("640 (2 PLACES)", 640),
    ],
)
def test_a_dimension_s_own_words_rule(text: str, length: float) -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True)  # type: ignore[attr-defined]
    space.add_linear_dim((0, -50), (0, 0), (600, 0), text=text).render()  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert sizes(reading)[0][1][0] == length


def test_a_dimension_whose_words_are_no_figure_is_told() -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True)  # type: ignore[attr-defined]
    space.add_linear_dim((0, -50), (0, 0), (600, 0), text="see note 3").render()  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert sizes(reading)[0][1][0] == 600 and any(
        "'see note 3', which is no figure" in t for t in reading.troubles
    )


@pytest.mark.parametrize(("code", "per"), [(6, 1000.0), (2, 304.8), (4, 1.0), (1, 25.4)])
def test_round_things_keep_their_size_in_every_unit(code: int, per: float) -> None:
    document, space = a_dxf(code)
    space.add_circle((0, 0), 150 / per)  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(1000 / per, 0, 600 / per, 70 / per), close=True)  # type: ignore[attr-defined]
    disc = next(p for p in taken_off(dxf_bytes(document), "a.dxf").parts if p.fill < 0.9)
    assert (disc.length / 320, disc.width / 320) == pytest.approx((300, 300), abs=0.05)
    assert disc.fill == pytest.approx(math.pi / 4, rel=1e-3)


def test_words_of_a_layer_without_parts_name_nothing() -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True, dxfattribs={"layer": "OAK"})  # type: ignore[attr-defined]
    space.add_lwpolyline(rectangle(0, 300, 200, 70), close=True, dxfattribs={"layer": "NOTES"})  # type: ignore[attr-defined]
    space.add_text("do not scale", dxfattribs={"insert": (100, 30), "layer": "NOTES"})  # type: ignore[attr-defined]
    settings = Settings(layers=(("NOTES", LayerMeaning(ignore=True)),))
    reading = taken_off(dxf_bytes(document), "a.dxf", settings)
    assert [p.name for p in reading.parts] == ["Part 1"]
    assert kinds(reading)["layer"].what == "Left out, as you said: 1 outline on 'NOTES'"


def test_words_that_begin_in_a_bore_name_the_part_and_not_the_bore() -> None:
    document, space = a_dxf()
    space.add_lwpolyline(rectangle(0, 0, 600, 70), close=True)  # type: ignore[attr-defined]
    space.add_circle((300, 35), 4)  # type: ignore[attr-defined]
    space.add_text("Seat rail", dxfattribs={"insert": (300, 35), "height": 8})  # type: ignore[attr-defined]
    reading = taken_off(dxf_bytes(document), "a.dxf")
    assert sizes(reading) == [(1, (600.0, 70.0, 0.0))] and reading.parts[0].name == "Seat rail"
    assert "holes" in kinds(reading)
