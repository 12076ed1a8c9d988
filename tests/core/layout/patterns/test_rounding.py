"""A board cut as it is counted keeps every rule, and holds what it should."""

from dataclasses import replace
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import jobs
from tests.making import BARE, a_board, a_fault, a_part, t
from tests.profiles import examples
from vividplank.core.board import Board, Station, same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.relaxation import BoardRelaxation
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.item_types import ItemType, item_types
from vividplank.core.layout.model.pattern import EMPTY
from vividplank.core.layout.model.plan import Plan, Unplaced
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.search.naming import Named
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_INCH
from vividplank.core.shop import Shop


def by_area(listed: list[ItemType], shares: list[float]) -> list[float]:
    return [
        (w.length if w.is_panel else w.length * w.width) * s
        for w, s in zip(listed, shares, strict=True)
    ]


def cut(job: Job, shares: list[float]) -> tuple[Plan, float, float]:
    """The boards one after the other as they are counted; what they hold is worth, and what it was
    counted for.
    """
    listed = item_types(job)
    left = [w.width if w.is_panel else w.count for w in listed]
    profits = by_area(listed, shares)
    patterns, held, counted = [], 0.0, 0.0
    for board in job.boards:
        mine = [w for w in listed if same_species(w.species, board.species)]
        patterns.append(EMPTY)
        relaxation = (
            BoardRelaxation([board], [replace(w, index=k) for k, w in enumerate(mine)], job.shop)
            if mine
            else None
        )
        if relaxation and relaxation.shortest >= 1:
            most, _ = relaxation.most(np.array([profits[w.index] for w in mine]))
            counted += float(most[0])
            generator = PatternGenerator(board, job.shop, listed, TICKS_PER_64TH)
            patterns[-1] = (
                generator.rounding.cut(relaxation.counted.get(0, ()), left, profits) or EMPTY
            )
        for index, amount in patterns[-1].taken:
            held += profits[index] * min(amount, max(0, left[index]))
            left[index] -= amount
    named = Named(listed, left, {}, {})
    boards = named.boards((b.id for b in job.boards), patterns)
    used = {b.board for b in boards}
    unplaced = tuple(
        Unplaced(item.part, item.n, "")
        for _, missing in named.missing()
        for unit in missing
        for item in unit
    )
    return (
        Plan(boards, unplaced, sum((b.price for b in job.boards if b.id in used), Decimal(0))),
        held,
        counted,
    )


@examples(60)
@given(jobs(), st.randoms(use_true_random=False))
def test_every_rule_is_kept(job: Job, rng) -> None:  # type: ignore[no-untyped-def]
    plan, held, counted = cut(job, [rng.uniform(0.5, 1) for _ in item_types(job)])
    assert audit(job, plan) == []
    assert held <= counted * (1 + 1e-9)


def test_an_edge_that_leaves_the_line_at_once_is_kept_to() -> None:
    # The datum edge rises by 1/64 in from the very corner: a strip at height 0 stands out over it
    # all along.
    ends = Station(0, 0, t(3), t(0.85), t(0.85)), Station(t(20), 127, t(3), t(0.85), t(0.85))
    board = replace(a_board("B", 20, 3), stations=ends)
    shop = replace(BARE, min_blank_length=t(6), max_slope=0.0)
    job = Job("", shop, (a_part("P", 1, 3, 0.75, 0.25, faces="clear-two"),), (board,))
    plan, _, _ = cut(job, [1.0])
    assert audit(job, plan) == [] and not plan.unplaced


def test_nearly_all_that_is_counted_is_held() -> None:
    sizes = (31.0, 2.25), (22.5, 3.5), (14.0, 2.0), (41.5, 4.0)
    parts = tuple(a_part(f"P{k}", 30, *size) for k, size in enumerate(sizes))
    boards = (
        a_board("A", 96, 7.5),
        a_board("B", 120, 8, far_width=7.25),
        a_board("C", 100, 9, defects=(a_fault("hole", 40, 42, 4, 5),)),
    )
    plan, held, counted = cut(Job("", Shop(), parts, boards), [1.0] * len(parts))
    assert held > 0.93 * counted
    assert {b.board for b in plan.boards} == {"A", "B", "C"}


def strip_of(board: Board, *parts: Part) -> list[tuple[float, ...]]:
    """What goes end to end over a whole board, blanks half an inch longer: where they lie, how many
    parts each holds.
    """
    shop = replace(BARE, allowance=replace(BARE.allowance, length=t(0.5)))
    listed = item_types(Job("", shop, parts, ()))
    profits = by_area(listed, [1.0] * len(listed))
    relaxation = BoardRelaxation([board], listed, shop)
    relaxation.most(np.array(profits))
    pattern = PatternGenerator(board, shop, listed, TICKS_PER_64TH).rounding.cut(
        relaxation.counted[0], [w.count for w in listed], profits
    )
    blanks = [
        k for s in (pattern.segments if pattern else ()) for strip in s.strips for k in strip.blanks
    ]
    return sorted((k.x0 / TICKS_PER_INCH, k.x1 / TICKS_PER_INCH, len(k.layers[0])) for k in blanks)


def test_parts_lie_before_and_behind_what_is_unsound() -> None:
    board = a_board(length=62, width=2, defects=(a_fault("hole", 30, 31, 0.5, 1),))
    assert strip_of(board, a_part("A", 9, 14, 2)) == [(0.0, 28.625, 2), (31.0, 59.625, 2)]


def test_a_knot_on_either_face_is_for_a_blank_of_its_own() -> None:
    # 30 in behind one another: in one blank both faces would have a knot, in two each has a clear
    # one.
    knots = a_fault("tight-knot", 10, 11, 0.5, 1, "A"), a_fault("tight-knot", 40, 41, 0.5, 1, "B")
    board = a_board(length=62, width=2, defects=knots)
    assert strip_of(board, a_part("A", 2, 30, 2)) == [(0.0, 30.5, 1), (30.625, 61.125, 1)]
    assert strip_of(board, a_part("A", 2, 30, 2, faces="sound")) == [(0.0, 60.625, 2)]
    assert strip_of(board, a_part("A", 2, 30, 2, faces="clear-two")) == []
    assert strip_of(board, a_part("A", 2, 28, 2, faces="clear-two")) == [(11.0, 39.5, 1)]


def test_no_more_is_taken_than_there_is() -> None:
    assert strip_of(a_board(length=62, width=2), a_part("A", 1, 14, 2)) == [(0.0, 14.5, 1)]


@pytest.mark.parametrize("bow", [0.0, 0.6])
def test_where_it_is_not_flat_together_it_is_crosscut(bow: float) -> None:
    # 1 in thick, parts of 3/4: a bow of 0.6 in over the whole length leaves a quarter of that over
    # half of it.
    board = replace(a_board(length=60, width=6), warp=replace(a_board().warp, bow=t(bow)))
    listed = item_types(Job("", BARE, (a_part("A", 4, 24, 2.5),), ()))
    profits = by_area(listed, [1.0])
    relaxation = BoardRelaxation([board], listed, BARE)
    relaxation.most(np.array(profits))
    pattern = PatternGenerator(board, BARE, listed, TICKS_PER_64TH).rounding.cut(
        relaxation.counted[0], [4], profits
    )
    assert pattern is not None
    assert dict(pattern.taken) == {0: 4}
    assert all(s.x1 - s.x0 < t(31) for s in pattern.segments) or bow == 0
