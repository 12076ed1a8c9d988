"""No right plan makes more of a board than relaxation.py says: against plans found, planted plans
and cases worked by hand.
"""

import random
import time

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench.planted import FAMILIES, Family, planted
from tests.jobs import jobs
from tests.making import BARE, a_board, a_fault, a_part, t
from tests.profiles import examples, seeds
from vividplank.core.board import Board, Warp, same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.relaxation import BoardRelaxation
from vividplank.core.layout.model.item_types import ItemType, item_types
from vividplank.core.layout.model.plan import BoardPlan, Plan
from vividplank.core.layout.search.search import Limits, search


def held(plan: BoardPlan, listed: list[ItemType], job: Job) -> np.ndarray:
    """How many units of each item type, or ticks of net width of its staves, a board holds."""
    found = np.zeros(len(listed))
    first = {member[0]: w.index for w in listed for member in w.members}
    for segment in plan.segments:
        for strip, blank in segment.blanks():
            for item in blank.items():
                plain = type(item)(item.part, item.n)
                if plain in first:
                    w = first[plain]
                    found[w] += (
                        strip.y1 - strip.y0 - job.shop.allowance.width if listed[w].is_panel else 1
                    )
    return found


def assert_room(job: Job, plan: Plan, rng: random.Random) -> None:
    for species in {b.species for b in job.boards}:
        boards = [b for b in job.boards if b.species == species]
        parts = tuple(p for p in job.parts if same_species(p.species, species))
        if not parts:
            continue
        listed = item_types(Job("", job.shop, parts, ()))
        relaxation = BoardRelaxation(boards, listed, job.shop)
        if relaxation.shortest < 1:
            continue
        taken = {p.board: held(p, listed, job) for p in plan.boards}
        for spread in (0.0, 0.5, 2.0):
            profits = np.array(
                [
                    (w.length if w.is_panel else w.length * w.width)
                    * rng.uniform(1 - spread / 2, 1 + spread)
                    for w in listed
                ]
            )
            profits = np.maximum(profits, 0)
            room, _ = relaxation.most(profits)
            for b, board in enumerate(boards):
                assert float(profits @ taken.get(board.id, np.zeros(len(listed)))) <= room[b] * (
                    1 + 1e-9
                )


@examples(150)
@given(jobs(), st.randoms(use_true_random=False))
def test_no_plan_found_holds_more(job: Job, rng: random.Random) -> None:
    assert_room(job, search(job, Limits(seconds=60, rounds=1), time.monotonic), rng)


@pytest.mark.parametrize("family", FAMILIES)
def test_planted_boards_hold_no_more(family: Family) -> None:
    for seed in seeds(16):
        made = planted(family, 4, seed)
        assert_room(made.job, made.plan, random.Random(seed))


def room(board: Board, *parts: Part) -> tuple[float, list[float]]:
    """By the piece: the most pieces of all kinds, and how many of each."""
    found, held = BoardRelaxation([board], item_types(Job("", BARE, parts, ())), BARE).most(
        np.ones(len(parts))
    )
    return float(found[0]), list(held[0])


def test_lengths_and_widths_that_do_not_go_in_are_not_counted() -> None:
    # 60 by 7 in, kerfs of 1/8. Along: 29 + 1/8 + 29 = 58 1/8 go twice into 60. Across: 2 + 1/8 + 2
    # + 1/8 + 2 = 6 1/4 thrice.
    assert room(a_board(length=60, width=7), a_part("A", 9, 29, 2)) == (6.0, [6.0])
    # 31 in goes once.
    assert room(a_board(length=60, width=7), a_part("A", 9, 31, 2)) == (3.0, [3.0])


def test_beside_a_fault_only_what_fits_is_counted() -> None:
    # Rot over the whole length from 2 to 4 1/2 in: 2 in are left below (one strip), 2 1/2 above
    # (one).
    board = a_board(length=60, width=7, defects=(a_fault("rot", 0, 60, 2, 4.5),))
    # Along each 29 + 1/8 + 29 = 58 1/8 go twice into 60.
    assert room(board, a_part("A", 9, 29, 2))[0] == 4.0
    # A sound fault through the board is in the way of what wants a clear face; on one face of what
    # wants two.
    through = a_board(length=60, width=7, defects=(a_fault("tight-knot", 0, 60, 2, 4.5),))
    assert room(through, a_part("A", 9, 29, 2))[0] == 4.0
    assert room(through, a_part("A", 9, 29, 2, faces="sound"))[0] == 6.0
    one = a_board(length=60, width=7, defects=(a_fault("tight-knot", 0, 60, 2, 4.5, "A"),))
    assert room(one, a_part("A", 9, 29, 2))[0] == 6.0
    assert room(one, a_part("A", 9, 29, 2, faces="clear-two"))[0] == 4.0


def test_a_fault_splits_the_strips_in_its_way() -> None:
    # A hole in the middle of 62 in, 1 in long and wide: the strip in its way holds no 40 in, the
    # two others do.
    board = a_board(length=62, width=7, defects=(a_fault("hole", 30, 31, 3, 4),))
    assert room(board, a_part("A", 9, 40, 2))[0] == 2.0
    # Of 20 in it holds one before and one behind it, the others three each.
    assert room(board, a_part("A", 20, 20, 2))[0] == 1 + 1 + 3 + 3


def test_several_faults_spoil_together() -> None:
    # Two holes, in different heights: of three strips of 2 in each takes one, and between them only
    # one has room.
    board = a_board(
        length=62,
        width=7,
        defects=(a_fault("hole", 30, 31, 0.5, 1.5), a_fault("hole", 32, 33, 5, 6)),
    )
    assert room(board, a_part("A", 9, 40, 2))[0] == 1.0
    # A knot on either face: over each alone a part with one clear face may lie, over both together
    # none.
    knots = (
        a_fault("tight-knot", 20, 21, 0.5, 1.5, "A"),
        a_fault("tight-knot", 40, 41, 0.5, 1.5, "B"),
    )
    assert room(a_board(length=62, width=2.5, defects=knots[:1]), a_part("A", 9, 60, 2))[0] == 1.0
    assert room(a_board(length=62, width=2.5, defects=knots), a_part("A", 9, 60, 2))[0] == 0.0
    assert room(a_board(length=62, width=2.5, defects=knots), a_part("A", 9, 30, 2))[0] == 2.0


def test_a_taper_takes_from_the_long_strips_only() -> None:
    # 60 in, from 7 down to 5 in: two strips of 2 in over the whole length, a third over half of it
    # at most, where 6 1/4 in are.
    board = a_board(length=62, width=7, far_width=5)
    assert room(board, a_part("A", 9, 50, 2))[0] == 2.0
    assert 2 <= room(board, a_part("A", 9, 18, 2))[0] / 3 < 3


def test_what_is_never_flat_enough_has_no_room() -> None:
    # 1 in thick, bowed by 1/2 over 60 in: over 59 in nearly half an inch is lost, over 14 in hardly
    # anything.
    board = a_board(length=60, width=6, warp=Warp(t(0.5)))
    assert room(board, a_part("A", 9, 59, 2, thickness=0.75))[0] == 0
    assert room(board, a_part("A", 9, 14, 2, thickness=0.75))[0] > 0


def test_thin_parts_count_for_every_layer() -> None:
    # 1 in gives two of 3/8 with a kerf between them.
    assert room(a_board(length=30, width=2), a_part("A", 9, 29, 2, thickness=0.375)) == (2.0, [2.0])


def test_layers_need_not_be_alike() -> None:
    # Two strips over 40 1/8 in. The narrow one is resawn into two of 20 in end to end and one of 40
    # in, the wide one into two of 40 in: 2 * 1 + 1.5 + 2 * 10. Two of 40 in in the narrow one would
    # be one too many.
    sizes = ("A", 2, 20, 2), ("B", 1, 40, 2), ("C", 2, 40, 3)
    parts = [a_part(id, n, long, wide, thickness=0.375) for id, n, long, wide in sizes]
    listed = item_types(Job("", BARE, tuple(parts), ()))
    most, _ = BoardRelaxation([a_board(length=40.125, width=5.125)], listed, BARE).most(
        np.array([1, 1.5, 10])
    )
    assert most[0] >= 23.5


def test_staves_are_counted_by_their_width() -> None:
    made = a_part("P", 1, 29, 12, panel=(2, 3))
    listed = item_types(Job("", BARE, (made,), ()))
    most, _ = BoardRelaxation([a_board(length=30, width=8)], listed, BARE).most(np.ones(1))
    # 8 in less two kerfs between three staves leave 7 3/4 net; a level board may also be cut a
    # little aslant, which relaxation.py allows for by the slope over the length between the blanks
    # of its outermost strips.
    assert t(7.75) <= most[0] <= t(7.75) + t(1 / 4)
