"""Arguing with a plan by hand: what holds is laid, what does not is refused with a reason, and
every plan stays right.
"""

import random
import time
from collections.abc import Callable
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import jobs
from tests.making import BARE, a_board, a_fault, a_part, t
from tests.profiles import examples
from vividplank.core.job import Job
from vividplank.core.layout.edit import moves
from vividplank.core.layout.edit.moves import Refused
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Item, Plan, Segment
from vividplank.core.layout.search.search import Limits, search

A, B = Item("A", 1), Item("B", 1)


def empty(job: Job) -> Plan:
    """Everything in the tray."""
    return moves._told(job, Plan(()))


def a_job(*boards: object, **changes: object) -> Job:
    parts = (a_part("A", 2, 29, 2), a_part("B", 1, 20, 1.5))
    return Job("", BARE, parts, boards or (a_board("B", 62, 6), a_board("C", 40, 4, price="7")))  # type: ignore[arg-type]


def segment(plan: Plan, item: Item) -> Segment:
    found = moves.where(plan, item)
    assert found
    return found.segment


def test_laid_near_an_end_it_lies_against_it_and_costs_its_board() -> None:
    job = a_job()
    plan = moves.lay_down(job, empty(job), A, "B", t(16), t(2))
    # 29 long with its middle at 16: it would begin at 1 1/2, so it lies against the end; 2 wide,
    # against the edge.
    assert (segment(plan, A).x0, segment(plan, A).x1) == (0, t(29))
    assert plan.cost == 10 and (u := {(u.part, u.n) for u in plan.unplaced}) and ("A", 1) not in u
    assert audit(job, plan) == []


def test_beside_another_it_lies_a_kerf_apart() -> None:
    job = a_job()
    plan = moves.lay_down(job, empty(job), A, "B", t(15), t(1))
    along = moves.lay_down(job, plan, B, "B", t(41), t(1))
    assert segment(along, B).x0 == t(29.125)
    across = moves.lay_down(job, plan, B, "B", t(12), t(3))
    found = moves.where(across, B)
    assert found and found.strip.y0 == t(2.125) and found.segment.x1 == t(29)
    assert audit(job, along) == [] == audit(job, across)


def test_into_a_strip_that_has_room_it_goes_end_to_end() -> None:
    job = Job(
        "",
        BARE,
        (a_part("A", 1, 29, 2), a_part("B", 1, 20, 1.5), a_part("C", 1, 58, 2)),
        (a_board("B", 62, 6),),
    )
    plan = moves.lay_down(job, empty(job), Item("C", 1), "B", t(29), t(1))
    plan = moves.lay_down(job, plan, A, "B", t(15), t(3))
    plan = moves.lay_down(job, plan, B, "B", t(40), t(3))
    found = moves.where(plan, B)
    assert found and found.blank.x0 == t(29.125) and len(found.segment.strips) == 2


@pytest.mark.parametrize(
    ("where", "why"),
    [
        (("C", 5, 2), None),
        (("C", 36, 2), None),
        (("D", 5, 2), "there is no board D"),
        (("F", 15, 1), "rule 4: a rot (both) at 10 in to 12 in lies in no blank"),
        (("S", 10, 1), "it needs 29 in of the board; at most 28 in is free on S"),
        (("N", 10, 1), "it needs 2 in across; N gives 1 1/2 in there"),
        (("T", 10, 1), "rule 5"),
    ],
)
def test_what_does_not_hold_is_refused_with_its_reason(
    where: tuple[str, float, float], why: str | None
) -> None:
    job = a_job(
        a_board("B", 62, 6),
        a_board("C", 40, 4),
        a_board("F", 30, 4, defects=(a_fault("rot", 10, 12, 1, 2),)),
        a_board("S", 28, 4),
        a_board("N", 40, 1.5),
        a_board("T", 40, 4, thick=0.5),
    )
    board, x, y = where
    if why is None:
        assert audit(job, moves.lay_down(job, empty(job), A, board, t(x), t(y))) == []
    else:
        with pytest.raises(Refused) as refused:
            moves.lay_down(job, empty(job), A, board, t(x), t(y))
        assert why in str(refused.value)


def test_two_change_places_where_both_hold() -> None:
    job = Job(
        "",
        BARE,
        (a_part("A", 1, 29, 2), a_part("B", 1, 20, 2)),
        (a_board("B", 30, 3), a_board("C", 40, 4)),
    )
    plan = moves.lay_down(
        job, moves.lay_down(job, empty(job), A, "B", t(15), t(1)), B, "C", t(10), t(1)
    )
    swapped = moves.swap(job, plan, A, B)
    found = moves.where(swapped, A)
    assert found and found.board == "C" and audit(job, swapped) == []
    short = replace(job, boards=(job.boards[0], a_board("C", 25, 4)))
    with pytest.raises(Refused, match="end trim"):
        moves.swap(short, plan, A, B)


def test_turned_end_for_end_faults_fall_elsewhere() -> None:
    job = a_job(a_board("B", 62, 6, defects=(a_fault("rot", 52, 60, 0, 2),)))
    plan = moves.lay_down(job, empty(job), A, "B", t(15), t(1))
    long = moves.recut(job, plan, A, 0, t(60))
    with pytest.raises(Refused, match="rot"):
        moves.turn(job, long, A)
    clean = replace(job, boards=(a_board("B", 62, 6),))
    found = moves.where(moves.turn(clean, long, A), A)
    assert found and (found.blank.x0, found.blank.x1) == (t(31), t(60))


def test_split_and_joined_again_it_is_the_same() -> None:
    job = a_job()
    plan = moves.lay_down(job, empty(job), A, "B", t(15), t(1))
    plan = moves.lay_down(job, plan, Item("A", 2), "B", t(45), t(1))
    joined = moves.join(job, plan, A)
    assert len(joined.boards[0].segments) == 1
    assert [s.x0 for s in moves.split(job, joined, A).boards[0].segments] == [
        s.x0 for s in plan.boards[0].segments
    ]
    with pytest.raises(Refused, match="no other segment"):
        moves.join(job, joined, A)
    crossed = moves.lay_down(job, joined, B, "B", t(28), t(4))
    with pytest.raises(Refused, match="would go through B1"):
        moves.split(job, crossed, A)


def test_a_panel_is_taken_up_with_all_its_staves_and_laid_again_by_solving() -> None:
    job = Job("", BARE, (a_part("P", 1, 29, 5, panel=(2, 3)),), (a_board("B", 62, 6),))
    plan = search(job, Limits(60, rounds=1), time.monotonic)
    stave = next(i for *_, i in plan.items())
    assert moves.take_up(job, plan, stave).boards == ()
    with pytest.raises(Refused, match="glued from staves"):
        moves.lay_down(job, empty(job), Item("P", 1), "B", t(15), t(1))


def test_what_a_plan_comes_to() -> None:
    job = a_job()
    plan = moves.lay_down(job, empty(job), A, "C", t(15), t(1))
    # 29 x 2 x 3/4 of 40 x 4 x 1.
    assert moves.worth(job, plan) == moves.Worth(
        job.boards[1].price, pytest.approx(29 * 2 * 0.75 / 160), 1
    )  # type: ignore[arg-type]


MOVES: list[Callable[[Job, Plan, random.Random, list[Item]], Plan]] = [
    lambda job, plan, rng, items: moves.take_up(job, plan, rng.choice(items)),
    lambda job, plan, rng, items: moves.turn(job, plan, rng.choice(items)),
    lambda job, plan, rng, items: moves.swap(job, plan, rng.choice(items), rng.choice(items)),
    lambda job, plan, rng, items: moves.split(job, plan, rng.choice(items)),
    lambda job, plan, rng, items: moves.join(job, plan, rng.choice(items)),
    lambda job, plan, rng, items: moves.lay_down(
        job,
        plan,
        rng.choice(items),
        (b := rng.choice(job.boards)).id,
        rng.randrange(b.length),
        rng.randrange(b.widest),
    ),
]


@examples(60)
@given(jobs(), st.randoms(use_true_random=False))
def test_after_any_moves_a_plan_is_right(job: Job, rng: random.Random) -> None:
    plan = search(job, Limits(60, rounds=1), time.monotonic)
    everything = sorted({i for *_, i in plan.items()}, key=str)
    for _ in range(8):
        if not everything:
            break
        try:
            plan = rng.choice(MOVES)(job, plan, rng, everything)
        except Refused:
            continue
        assert audit(job, replace(plan, lower_bound=0.0)) == []
