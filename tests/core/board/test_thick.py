"""Lengths for a wanted thickness and tried cuts: by hand on pure bow and twist, and what they
say.
"""

import pytest
from hypothesis import given

from tests.jobs import boards
from tests.making import a_board, t
from tests.profiles import examples
from vividplank.core.board import Board, Warp
from vividplank.core.board.flat.thick import (
    flat_between,
    lengths_for,
    region,
    said_of,
    straight_width,
    unshimmed,
)
from vividplank.core.survey.look import pieces_at

FOOT = t(12)
BOWED = a_board(length=96, width=6, thick=1, warp=Warp(bow=t(0.25)))
TWISTED = a_board(length=60, width=6, thick=1, warp=Warp(twist=t(0.25)))


def test_a_bow_costs_by_the_square_of_the_length() -> None:
    # Whole 1 - 1/4; a length l of it bows by 1/4 (l / 96)^2: 7/8 comes out of 96 / sqrt 2 = 67.9.
    assert flat_between(BOWED, 0, t(96)) == pytest.approx(t(0.75), abs=2)
    found = lengths_for(BOWED, t(0.875), t(0.125), FOOT)
    assert found[0].x1 - found[0].x0 == pytest.approx(t(67.88), abs=t(1))
    assert all(p.flat >= t(0.875) for p in found)
    assert "Whole it holds 3/4 in. Crosscut at" in said_of(
        BOWED, t(0.875), found, t(0.125), FOOT, "in"
    )


def test_enough_whole_and_never_enough_are_said() -> None:
    assert said_of(
        BOWED, t(0.75) - 2, lengths_for(BOWED, t(0.75) - 2, 0, FOOT), 0, FOOT, "in"
    ).startswith("Holds")
    none = lengths_for(BOWED, t(1), 0, FOOT)
    assert none == () and said_of(BOWED, t(1), none, 0, FOOT, "in").startswith(
        "Not for this: at 1 in nothing over 12 in comes out"
    )


def test_shimming_halves_what_a_twist_costs() -> None:
    # On three corners a twist of 1/4 costs 1/4, split it costs 1/8.
    place = region(TWISTED, 0, t(60))
    assert unshimmed(TWISTED, place) == pytest.approx(t(0.75), abs=2)
    piece = pieces_at(TWISTED, (), t(0.125))[0]
    assert piece.flat == pytest.approx(t(0.875), abs=2) and piece.saved == pytest.approx(
        t(0.125), abs=4
    )
    # An eighth off two opposite corners, nothing off the other two.
    assert sorted(piece.corners) == pytest.approx([0, 0, t(0.125), t(0.125)], abs=4)


def test_a_tried_cut_gives_both_sides_less_the_kerf() -> None:
    pieces = pieces_at(BOWED, (t(40),), t(0.125))
    assert [(p.x0, p.x1) for p in pieces] == [(0, t(40)), (t(40.125), t(96))]
    assert [(p.x0, p.x1) for p in pieces_at(BOWED, (0, t(96)), t(0.125))] == [
        (0, t(96))
    ]  # no cut at the very ends
    assert pieces[0].flat == pytest.approx(t(1 - 0.25 * (40 / 96) ** 2), abs=3)


def test_the_straight_width_of_a_crooked_board() -> None:
    assert straight_width(a_board(length=60, width=6, far_width=4), 0, t(60)) == (0, t(4))


@examples(40)
@given(boards("B"))
def test_lengths_hold_what_was_asked_are_apart_and_longest_first(board: Board) -> None:
    wanted = round(board.thinnest * 0.9)
    found = lengths_for(board, wanted, t(0.125), FOOT)
    spans = [p.x1 - p.x0 for p in found]
    assert spans == sorted(spans, reverse=True) and all(s >= FOOT for s in spans)
    assert all(flat_between(board, p.x0, p.x1) >= wanted for p in found)
    assert all(
        a.x1 + t(0.125) <= b.x0 or b.x1 + t(0.125) <= a.x0
        for k, a in enumerate(found)
        for b in found[:k]
    )


@examples(40)
@given(boards("B"))
def test_shimming_never_costs(board: Board) -> None:
    for piece in pieces_at(board, (board.length // 2,), t(0.125)):
        assert piece.saved > -t(1 / 64)  # both are found on grids
