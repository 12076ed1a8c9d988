"""Pictures of a model: true to size, and nothing drawn over by what stands behind it."""

import pytest
from shapely.geometry import Point, Polygon

from tests.takeoff.making import a_block, solid
from vividplank.core.takeoff.model.found import View
from vividplank.core.takeoff.readers.picture import pictures


def view(name: str, *pieces: tuple) -> View:  # type: ignore[type-arg]
    solids = [solid(a_block(size, at), f"s{k}") for k, (size, at) in enumerate(pieces)]
    return next(v for v in pictures(solids) if v.name == name)


def seen_at(picture: View, x: float, y: float) -> str:
    """The piece one sees at a place: the last drawn of those that cover it."""
    return [s.ref for s in picture.shapes if Polygon(s.outline).contains(Point(x, y))][-1]


def test_views_are_true_to_size() -> None:
    block = ((600.0, 300.0, 20.0), (0.0, 0.0, 0.0))
    assert [(v.width, v.height) for v in (view(n, block) for n in ("front", "side", "plan"))] == [
        pytest.approx((600, 20)),
        pytest.approx((300, 20)),
        pytest.approx((600, 300)),
    ]


def test_one_face_is_seen_from_the_front_and_three_from_the_corner() -> None:
    block = ((600.0, 300.0, 20.0), (0.0, 0.0, 0.0))
    assert len(view("front", block).shapes) == 1 and len(view("three-quarter", block).shapes) == 3
    assert (
        len({s.shade for s in view("three-quarter", block).shapes}) == 3
    )  # the light tells them apart


@pytest.mark.parametrize("order", [(0, 1), (1, 0)])
def test_what_stands_in_front_is_seen_whatever_comes_first(order: tuple[int, int]) -> None:
    pieces = [((100.0, 20.0, 100.0), (0.0, -200.0, 0.0)), ((300.0, 20.0, 300.0), (0.0, 200.0, 0.0))]
    picture = view("front", *(pieces[k] for k in order))
    assert (
        seen_at(picture, 150, 150) == f"s{order.index(0)}"
    )  # the near one, small, over the far one's middle
    assert seen_at(picture, 20, 20) == f"s{order.index(1)}"


def test_a_tenon_does_not_show_through_the_rail_that_holds_it() -> None:
    rail, slat = ((500.0, 30.0, 80.0), (0.0, 0.0, 300.0)), ((60.0, 14.0, 300.0), (0.0, 0.0, 170.0))
    picture = view("front", rail, slat)
    height = picture.height
    assert seen_at(picture, 250, 30) == "s0"  # where the slat runs up inside the rail
    assert seen_at(picture, 250, height - 20) == "s1"


def test_up_is_up_in_files_that_hold_y_upward() -> None:
    solids = [solid(a_block((600, 20, 300)))]
    assert [(v.width, v.height) for v in pictures(solids, y_up=True)][1] == pytest.approx((600, 20))
