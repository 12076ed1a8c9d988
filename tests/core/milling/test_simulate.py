"""Passes over jointer and planer: cases in closed form, and what no pass can do.

A piece of 48 x 6 x 1 throughout. Hollow side down it stands on its ends; every pass takes its depth
from what touches.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import linprog

from tests.profiles import examples
from vividplank.core.board import Board, Region, Station, Warp, flat_slab
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling.physics.flatten import ENOUGH_CLEAN, flatten
from vividplank.core.milling.physics.simulate import (
    MOST_PASSES,
    Piece,
    Press,
    joint,
    joint_until,
    knock_down,
    piece_of,
    plane,
)

PASS = INCH // 32
WHOLE = Region(0, 48 * INCH, 0, 0.0, 0, 6 * INCH)


def board(bow: float = 0, cup: float = 0, twist: float = 0) -> Board:
    ends = (Station(0, 0, 6 * INCH, INCH, INCH), Station(48 * INCH, 0, 6 * INCH, INCH, INCH))
    return Board("T", "oak", 48 * INCH, ends, Warp(*(round(w * INCH) for w in (bow, cup, twist))))


def jointed(start: Piece, press: Press = "outfeed") -> list[Piece]:
    return [start, *joint_until(start, PASS, 1.0, press)]


def slab(piece: Piece) -> float:
    """The thickest slab between two parallel planes in a piece, as a linear program over its
    grid.
    """
    x, y = (a.ravel() for a in np.meshgrid(piece.xs, piece.ys, indexing="ij"))
    one, nil = np.ones_like(x), np.zeros_like(x)
    rows = np.vstack([np.column_stack([x, y, one, nil]), np.column_stack([x, y, one, one])])
    rows[: len(x)] *= -1
    limits = np.concatenate([-piece.lower.ravel(), piece.upper.ravel()])
    found = linprog([0, 0, 0, -1], A_ub=rows, b_ub=limits, bounds=(None, None), method="highs")
    return float(-found.fun)


def test_a_pure_bow_hollow_down_loses_its_ends_and_comes_out_flat() -> None:
    # 1/8 in of bow: the plane of the flat board lies 1/8 over its ends. Passes of 1/32 take four
    # from the ends until the middle touches, and a fifth cleans it; so 5/32 are gone at the ends
    # and 1/32 in the middle.
    start, *_, end = jointed(piece_of(board(bow=0.125), WHOLE))
    gone = (end.lower - start.lower) / INCH
    assert len(jointed(start)) - 1 == 5
    assert gone[0] == pytest.approx(5 / 32, abs=1e-6) and gone[-1] == pytest.approx(
        5 / 32, abs=1e-6
    )
    assert gone[len(gone) // 2] == pytest.approx(1 / 32, abs=1e-6)
    assert end.bent() < 1 and end.clean == 1.0


def test_crown_down_and_pressed_on_the_infeed_it_is_clean_at_once_and_as_bent_as_before() -> None:
    start, *_, end = jointed(piece_of(board(bow=-0.125), WHOLE), "infeed")
    assert end.clean == 1.0 and len(jointed(start, "infeed")) == 2
    assert end.bent() / INCH == pytest.approx(0.125, abs=0.005)


def test_crown_down_pressed_on_the_outfeed_it_comes_flat_but_as_a_wedge() -> None:
    *_, end = jointed(piece_of(board(bow=-0.125), WHOLE))
    assert end.bent() < 1 and end.clean == 1.0
    assert (
        end.thickness[0].max() < end.thickness[-1].min() - INCH // 4
    )  # the end that led lost most


def test_cup_hollow_down_stands_on_its_edges() -> None:
    # 0.08 across: three passes of 1/32 are the least that reach the middle (0.094 > 0.08), which
    # loses 0.014.
    start, *_, end = jointed(piece_of(board(cup=0.08), WHOLE))
    assert len(jointed(start)) - 1 == 3
    gone = (end.lower - start.lower)[:, 3] / INCH
    assert gone == pytest.approx(np.full_like(gone, 3 / 32 - 0.08), abs=1e-4)


def test_a_planer_alone_makes_bent_stock_even_and_leaves_it_bent() -> None:
    piece = piece_of(board(bow=0.125), WHOLE)
    for setting in (0.97, 0.94, 0.90):
        piece = plane(piece, setting * INCH)
    piece = piece.turned_over()
    for setting in (0.87, 0.84):
        piece = plane(piece, setting * INCH)
    assert piece.thickness.max() / INCH == pytest.approx(0.84, abs=1e-6)
    # Between rollers 5 in apart it is pressed flat but for 1/8 x (10/48)^2 = 0.005.
    assert piece.bent() / INCH == pytest.approx(0.125, abs=0.006)


def test_jointed_first_the_planer_makes_it_parallel() -> None:
    *_, flat = jointed(piece_of(board(bow=0.125), WHOLE))
    done = plane(flat, 0.8 * INCH)
    assert (
        done.clean_upper.all() and np.ptp(done.thickness) < 1e-3 and done.turned_over().bent() < 1
    )


def test_a_twist_shimmed_by_hand_keeps_half_of_what_three_corners_cost() -> None:
    # A twist of 0.2: on three corners it costs 0.2, split between two corners 0.1: 0.9 stays flat
    # in 1.
    found = flatten(board(twist=0.2), WHOLE, round(0.8 * INCH), PASS, True)
    assert found.slab / INCH == pytest.approx(0.9, abs=1e-4)
    assert found.enough and len(found.high) == 2 and found.thinnest >= round(0.8 * INCH)
    alone = flatten(board(twist=0.2), WHOLE, round(0.4 * INCH), PASS, True)
    assert (
        alone.high == () and alone.thinnest < found.thinnest
    )  # thin enough for all of it to go at the jointer


def test_a_show_face_takes_as_many_passes_as_a_hidden_one_or_more() -> None:
    show, hidden = (
        flatten(board(bow=0.125), WHOLE, round(0.75 * INCH), PASS, s) for s in (True, False)
    )
    assert show.passes >= hidden.passes and show.clean == 1.0 and hidden.clean >= ENOUGH_CLEAN


def test_turning_twice_is_not_turning() -> None:
    piece = piece_of(board(0.1, 0.05, 0.1), WHOLE)
    for turn in (Piece.turned_over, Piece.turned_round):
        again = turn(turn(piece))
        assert np.allclose(again.lower, piece.lower) and np.allclose(again.upper, piece.upper)
    assert np.allclose(piece_of(board(0.1, 0.05, 0.1), WHOLE, "A").lower, piece.turned_over().lower)


WARP = st.floats(-0.3, 0.3)


@examples(60)
@given(
    WARP,
    WARP,
    WARP,
    st.lists(st.sampled_from(["outfeed", "infeed", "plane", "over", "round"]), max_size=8),
)
def test_no_pass_adds_wood_uncleans_a_face_or_makes_the_slab_thicker(
    bow: float, cup: float, twist: float, moves: list[str]
) -> None:
    raw = board(bow, cup, twist)
    whole = flat_slab(raw, WHOLE).thickness
    piece = piece_of(raw, WHOLE, along=25, across=5)
    before = slab(piece)
    assert before >= whole - 1  # a grid knows less than the board, so it may promise more
    for move in moves:
        if move == "over":
            piece = piece.turned_over()
            continue
        if move == "round":
            piece = piece.turned_round()
            continue
        if piece.thickness.min() < 4 * PASS:
            break
        then = (
            plane(piece, piece.thickness.max() - PASS)
            if move == "plane"
            else joint(piece, PASS, move)
        )  # type: ignore[arg-type]
        assert (then.lower >= piece.lower).all() and (then.upper <= piece.upper).all()
        assert (then.clean_lower >= piece.clean_lower).all() and (
            then.clean_upper >= piece.clean_upper
        ).all()
        assert (then.lower - piece.lower).max() <= PASS + 1e-6
        after = slab(then)
        assert after <= before + 1e-3
        piece, before = then, after


@examples(40)
@given(WARP, WARP, WARP, st.sampled_from([0.5, 0.6, 0.7]), st.booleans())
def test_what_is_foretold_of_facing_is_never_more_than_the_board_holds(
    bow: float, cup: float, twist: float, finish: float, show: bool
) -> None:
    found = flatten(board(bow, cup, twist), WHOLE, round(finish * INCH), PASS, show)
    assert 1 <= found.passes <= MOST_PASSES + 1
    assert found.thinnest <= found.thickest <= INCH + 1
    assert found.thinnest <= found.slab + INCH / 500  # the grid knows the board to that much
    if found.enough:
        assert (
            found.thinnest >= round(finish * INCH)
            and found.clean >= (1.0 if show else ENOUGH_CLEAN) - 1e-9
        )


def test_knocking_down_takes_only_what_reaches_below() -> None:
    piece = piece_of(board(twist=0.2), WHOLE)
    done = knock_down(piece, np.full_like(piece.lower, 0.05 * INCH))
    assert done.lower.min() == pytest.approx(0.05 * INCH)
    assert (done.lower[piece.lower > 0.05 * INCH] == piece.lower[piece.lower > 0.05 * INCH]).all()
