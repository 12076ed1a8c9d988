"""A piece cut out of a board is that board's wood."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import boards, scanned
from tests.profiles import examples
from vividplank.core.board import Board, Defect, Region, Station, Warp, flat_slab
from vividplank.core.board.check import check_board
from vividplank.core.board.find import clear_length, holds
from vividplank.core.board.piece import cut_out
from vividplank.core.board.volume import board_volume, region_volume
from vividplank.core.measure import TICKS_PER_INCH as INCH

LONG, WIDE = 96 * INCH, 8 * INCH
PLAIN = Board(
    "P1", "oak", LONG, (Station(0, 0, WIDE, INCH, INCH), Station(LONG, 0, WIDE, INCH, INCH))
)
WARPED = replace(PLAIN, warp=Warp(bow=INCH // 4, cup=INCH // 16, twist=INCH // 8))


def h(board: Board, x0: int, x1: int, y0: int, y1: int) -> float:
    return flat_slab(board, Region(x0, x1, y0, 0.0, 0, y1 - y0)).thickness


@pytest.mark.parametrize("board", [WARPED, scanned(WARPED, 13, 5, 1, 40)])
def test_a_rectangle_holds_the_same_flat_board_cut_out_or_not(board: Board) -> None:
    low, high = 2 * INCH, 6 * INCH
    piece = cut_out(board, "P1-1", 20 * INCH, 70 * INCH, lambda x: low, lambda x: high)
    assert (
        piece and check_board(piece, "$") and (piece.length, piece.widest) == (50 * INCH, 4 * INCH)
    )
    assert h(piece, 0, 50 * INCH, 0, 4 * INCH) == pytest.approx(
        h(board, 20 * INCH, 70 * INCH, low, high), abs=3
    )
    assert h(piece, 10 * INCH, 30 * INCH, 0, 3 * INCH) == pytest.approx(
        h(board, 30 * INCH, 50 * INCH, low, 5 * INCH), abs=3
    )


def test_bow_of_half_a_length_is_a_quarter() -> None:
    piece = cut_out(replace(PLAIN, warp=Warp(bow=INCH // 4)), "x", 0, LONG // 2)
    assert (
        piece
        and piece.warp.bow == pytest.approx(INCH / 16, abs=2)
        and piece.warp.cup == piece.warp.twist == 0
    )


def test_faults_come_along_where_they_lie() -> None:
    faults = (
        Defect("tight-knot", "A", 30 * INCH, 32 * INCH, 2 * INCH, 3 * INCH, "ellipse"),
        Defect("check", "both", 0, 24 * INCH, 4 * INCH, 5 * INCH),
        Defect(
            "wane",
            "B",
            60 * INCH,
            80 * INCH,
            0,
            2 * INCH,
            "outline",
            ((60 * INCH, 0), (80 * INCH, 0), (70 * INCH, 2 * INCH)),
        ),
    )
    piece = cut_out(replace(PLAIN, defects=faults), "x", 20 * INCH, 70 * INCH)
    assert piece and check_board(piece, "$")
    knot, check, *wane = piece.defects
    assert (knot.shape, knot.x0, knot.y0) == ("ellipse", 10 * INCH, 2 * INCH)
    assert (check.x0, check.x1) == (0, 4 * INCH)
    assert wane and min(d.x0 for d in wane) == 40 * INCH and max(d.x1 for d in wane) == 50 * INCH


@examples(60)
@given(boards("B"), st.floats(0, 0.45), st.floats(0.5, 1))
def test_a_piece_has_the_volume_of_its_place(board: Board, start: float, end: float) -> None:
    x0, x1 = int(board.length * start), int(board.length * end)
    piece = cut_out(board, "x", x0, x1)
    assert piece
    check_board(piece, "$")
    far = 10 * board.length
    assert float(board_volume(piece)) == pytest.approx(
        region_volume(board, Region(x0, x1, 0, 0.0, -far, far)), rel=0.01
    )


def test_a_board_is_found_by_what_it_holds() -> None:
    knotted = replace(WARPED, defects=(Defect("rot", "both", 40 * INCH, 44 * INCH, 0, WIDE),))
    assert clear_length(knotted, 2 * INCH) == 52 * INCH
    assert holds(knotted, round(0.9 * INCH), 40 * INCH, 4 * INCH)
    assert holds(knotted, round(0.9 * INCH), 60 * INCH, 4 * INCH) is None
    assert holds(knotted, INCH, 40 * INCH, 4 * INCH) is None
    place = holds(knotted, round(0.9 * INCH), 40 * INCH, 4 * INCH)
    assert place and h(knotted, place.x0, place.x1, place.y0, place.y1) >= 0.9 * INCH
