"""Outline, thickness and volume of a board."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import boards
from vividplank.core.board import Board, Region, Station, Warp
from vividplank.core.board.volume import board_volume, region_volume, stretch_volume
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.survey.look import advice, cuts


def tapered() -> Board:
    return Board("T", "oak", 100, (Station(0, 0, 40, 10, 12), Station(100, 10, 30, 8, 6)))


def test_between_stations_all_is_linear() -> None:
    assert tapered().edges(50) == (5, 35)
    assert tapered().thickness(0, 20) == 11 and tapered().thickness(50, 20) == 9


def test_the_volume_of_a_taper_by_hand() -> None:
    # Width 40 to 20 and mean thickness 11 to 7 along 100: the integral of (40-20s)(11-4s) over s is
    # 440 - 380/2 + 80/3 = 276 2/3, times 100.
    assert board_volume(tapered()) == Fraction(83000, 3)


def test_a_straight_region_is_inside_until_the_edge_runs_away() -> None:
    board = tapered()
    assert board.within(Region(0, 100, 10, 0.0, 0, 20))
    assert not board.within(Region(0, 100, 10, 0.0, 0, 21))
    assert not board.within(Region(0, 100, 9, 0.0, 0, 20))
    assert board.within(Region(0, 100, 0, 0.1, 0, 20))  # follows the lower edge


@given(boards("V"), st.floats(0, 1))
def test_two_stretches_make_the_whole(board: Board, share: float) -> None:
    cut = int(board.length * share)
    parts = stretch_volume(board, 0, cut) + stretch_volume(board, cut, board.length)
    assert parts == pytest.approx(float(board_volume(board)), rel=1e-9)


@given(boards("V"))
def test_a_region_counts_only_what_is_wood(board: Board) -> None:
    wide = Region(0, board.length, 0, 0.0, -(10**7), 10**7)
    assert region_volume(board, wide) == pytest.approx(float(board_volume(board)), rel=1e-9)
    assert region_volume(board, replace(wide, h1=-(10**6))) == 0


def test_halves_and_thirds_of_a_bowed_board() -> None:
    ends = (Station(0, 0, 6 * INCH, INCH, INCH), Station(96 * INCH, 0, 6 * INCH, INCH, INCH))
    bowed = Board("B", "oak", 96 * INCH, ends, Warp(bow=INCH // 4))
    flat = [cut.flat / INCH for cut in cuts(bowed, 0)]
    assert flat == pytest.approx([0.75, 1 - 0.25 / 4, 1 - 0.25 / 9], abs=1e-5)
    assert advice(bowed, cuts(bowed, 0), "in").startswith(
        "Crosscut first: halved, its pieces give 15/16 in instead of 3/4 in"
    )
    cupped = replace(bowed, warp=Warp(cup=INCH // 4))
    assert advice(cupped, cuts(cupped, 0), "in").startswith(
        "Rip first: at half its width it gives 15/16 in instead of 3/4 in"
    )
    assert "nearly flat" in advice(
        replace(bowed, warp=Warp()), cuts(replace(bowed, warp=Warp()), 0), "in"
    )
