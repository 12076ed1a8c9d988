"""Outlines on a flat drawing: holes, words, written figures, likes."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.takeoff.making import rectangle
from vividplank.core.takeoff.flat import Outline, Written, parts_of_outlines, view_of
from vividplank.core.takeoff.found import Found, LayerMeaning, Settings, Words

MM = 320


def read(
    outlines: list[Outline],
    words: list[Words] | None = None,
    written: list[Written] | None = None,
    settings: Settings | None = None,
) -> tuple[tuple[Found, ...], tuple[str, ...]]:
    return parts_of_outlines(outlines, words or [], written or [], "mm", settings or Settings())


def outline(ref: str, x: float, y: float, w: float, h: float, turn: float = 0.0, **kept: object) -> Outline:
    return Outline(ref, tuple(rectangle(x, y, w, h, turn)), **kept)  # type: ignore[arg-type]


@given(st.floats(50, 3000), st.floats(10, 49), st.floats(0, math.pi), st.floats(-1e4, 1e4))
def test_a_rectangle_is_measured_the_same_however_it_lies(length: float, width: float, turn: float, x: float) -> None:
    parts, troubles = read([outline("a", x, -x, length, width, turn)])
    assert (parts[0].length, parts[0].width) == pytest.approx((length * MM, width * MM), abs=2)
    assert troubles == () and parts[0].outline == ()


def test_holes_are_no_parts_and_panels_in_frames_are() -> None:
    frame = outline("a", 0, 0, 600, 400)
    hole, panel = outline("b", 20, 20, 30, 10), outline("c", 60, 60, 480, 280)
    assert [p.refs for p in read([frame, hole, panel])[0]] == [("a",), ("c",)]
    drilled = Outline("d", tuple((300 + 20 * math.cos(k / 8), 200 + 20 * math.sin(k / 8)) for k in range(50)), circle=True)
    assert [p.refs for p in read([frame, drilled])[0]] == [("a",)]


def test_words_go_to_the_smallest_outline_they_lie_in_else_to_the_nearest() -> None:
    outer, inner, far = outline("a", 0, 0, 600, 400), outline("b", 100, 100, 400, 200), outline("c", 0, 800, 300, 60)
    words = [Words((300, 200), "Panel"), Words((10, 10), "Frame"), Words((310, 830), "Rail"), Words((5000, 0), "Title")]
    assert [p.name for p in read([outer, inner, far], words)[0]] == ["Frame", "Panel", "Rail"]


def test_written_figures_belong_to_the_outline_they_span() -> None:
    rail = outline("a", 0, 0, 600, 70)
    along = Written((0, -40), (600, -40), 0.0, 610 * MM, 600)
    across = Written((-40, 0), (-40, 70), math.pi / 2, 70 * MM, 70)
    elsewhere = Written((0, 900), (500, 900), 0.0, 500 * MM, 500)
    parts, troubles = read([rail], written=[along, across, elsewhere])
    assert (parts[0].length, parts[0].width) == (610 * MM, 70 * MM)
    assert troubles == ("'a': written 610 mm, drawn 600 mm; the written figure was taken",)


def test_written_figures_on_a_turned_outline() -> None:
    turn = 0.5
    rail = outline("a", 0, 0, 600, 70, turn)
    a, b = rail.points[0], rail.points[1]
    parts, _ = read([rail], written=[Written(a, b, turn, 604 * MM, 600)])
    assert parts[0].length == 604 * MM


def test_likes_are_counted_by_size_layer_and_shape() -> None:
    notched = Outline("c", ((0, 0), (300, 0), (300, 30), (280, 30), (280, 60), (0, 60)))
    parts, _ = read(
        [outline("a", 0, 0, 300, 60), outline("b", 900, 0, 300, 60, 1.0), notched, outline("d", 0, 500, 300, 60, layer="ash")]
    )
    assert [(p.refs, p.quantity) for p in parts] == [(("a", "b"), 2), (("c",), 1), (("d",), 1)]


def test_layers_say_wood_and_thickness() -> None:
    settings = Settings(layers=(("ply", LayerMeaning("birch ply", 6 * MM)), ("notes", LayerMeaning(ignore=True))))
    parts, _ = read(
        [outline("a", 0, 0, 300, 200, layer="ply"), outline("b", 500, 0, 300, 200, layer="notes")], settings=settings
    )
    assert [(p.species, p.thickness) for p in parts] == [("birch ply", 6 * MM)]


def test_the_view_lies_at_the_origin_with_y_down() -> None:
    view = view_of([outline("a", 100, 200, 300, 60)], [Words((100, 200), "Rail")])
    assert (view.width, view.height) == (300, 60)
    assert set(view.shapes[0].outline) == {(0, 60), (300, 60), (300, 0), (0, 0)} and view.words[0].at == (0, 60)
