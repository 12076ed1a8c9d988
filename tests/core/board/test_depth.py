"""What flattening takes from each face, and what a look at a board says of it."""

from dataclasses import replace

import pytest
from hypothesis import given

from tests.jobs import boards
from tests.making import a_board, t
from tests.profiles import examples
from vividplank.core.board import Board, Region, Warp, flat_slab
from vividplank.core.board.flat.depth import Depths, depths
from vividplank.core.survey.look import advice, cuts


def found(board: Board, length: float = 60, width: float = 6) -> Depths:
    region = Region(0, t(length), 0, 0.0, 0, t(width))
    return depths(board, region, flat_slab(board, region))


def test_a_bowed_board_loses_as_much_on_both_faces() -> None:
    # Bow of 1/4: face B touches at the ends and is 1/4 off in the middle; its slab lies 1/4 up, and
    # the top of the arc comes off face A.
    seen = found(a_board(warp=Warp(bow=t(0.25))))
    assert seen.below == pytest.approx(t(0.25), abs=1)
    assert seen.above == pytest.approx(t(0.25), abs=1)
    assert seen.hollow == pytest.approx(t(0.25), abs=1)


@pytest.mark.parametrize(
    ("warp", "sign"),
    [
        (Warp(bow=t(0.2)), 1),
        (Warp(bow=-t(0.2)), -1),
        (Warp(cup=t(0.1)), 1),
        (Warp(cup=-t(0.1)), -1),
    ],
)
def test_the_hollow_face_is_told(warp: Warp, sign: int) -> None:
    assert found(a_board(warp=warp)).hollow * sign > 0


def test_twist_stands_high_at_two_opposite_corners() -> None:
    # Split, two corners of face B are a quarter of the twist below the plane's mean, two above.
    seen = found(a_board(warp=Warp(twist=t(0.4))))
    near_low, far_low, near_high, far_high = seen.corners_below
    assert min(far_low, near_high) > max(near_low, far_high) + t(0.15)
    assert seen.hollow == pytest.approx(0, abs=1e-6)


def test_a_flat_board_loses_nothing() -> None:
    seen = found(a_board())
    assert (seen.below, seen.above, seen.hollow) == pytest.approx((0, 0, 0), abs=1e-3)


@examples(100)
@given(boards("D"))
def test_what_comes_off_and_the_slab_make_up_the_thickness_everywhere(board: Board) -> None:
    low, high = max(s.y0 for s in board.stations), min(s.y1 for s in board.stations)
    region = Region(0, board.length, low, 0.0, 0, high - low)
    slab = flat_slab(board, region)
    seen = depths(board, region, slab)
    for x in (0, board.length // 3, board.length):
        for y in (low, (low + high) / 2, high):
            below = slab.lower(x, y) - board.underside(x, y)
            assert (
                -0.01 <= below <= seen.below + 40
            )  # the grid of `depths` may miss a peak by a few thousandths
            assert below + slab.thickness <= board.thickness(x, y) + 0.01


@examples(60)
@given(boards("L"))
def test_cutting_a_straight_board_never_makes_it_thinner(board: Board) -> None:
    low, high = max(s.y0 for s in board.stations), min(s.y1 for s in board.stations)
    straight = replace(board, stations=tuple(replace(s, y0=low, y1=high) for s in board.stations))
    whole, halved, thirds = (cut.flat for cut in cuts(straight, 0))
    assert halved >= whole - 0.01 and thirds >= whole - 0.01
    told = advice(straight, cuts(straight, 0), "in")
    assert told.startswith(("Crosscut first", "Rip first", "Lies nearly flat"))


def test_pieces_are_apart_by_the_kerf() -> None:
    thirds = cuts(a_board(length=60.25), t(0.125))[2].pieces
    assert [(p.x0, p.x1) for p in thirds] == [
        (0, t(20)),
        (t(20.125), t(40.125)),
        (t(40.25), t(60.25)),
    ]
