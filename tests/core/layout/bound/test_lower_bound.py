"""The bound is never above the cost of any right plan that places everything."""

import random
import time
from collections import Counter
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given

from bench.planted import FAMILIES, Family
from bench.planted import planted as planted_jobs
from tests.jobs import jobs
from tests.making import BARE, a_board, a_fault, a_part
from tests.profiles import examples, seeds
from vividplank.core.board import Board, Station
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.lower_bound import lower_bound
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Allowance, Kerf, Shop


@examples(120)
@given(jobs())
def test_no_plan_found_undercuts_it(job: Job) -> None:
    plan = search(job, Limits(seconds=60, rounds=2), time.monotonic)
    if plan.unplaced:  # of a job of what it places it is a whole plan
        job = only_placed(job, plan)
    else:
        assert plan.lower_bound <= float(plan.cost) + 1e-6
    assert lower_bound(job) <= float(plan.cost) + 1e-6


def only_placed(job: Job, plan: Plan) -> Job:
    """The job with as many of each part as the plan places. The bound does not look at which."""
    out = Counter(u.part for u in plan.unplaced)
    parts = [replace(p, quantity=p.quantity - out[p.id]) for p in job.parts]
    return replace(job, parts=tuple(p for p in parts if p.quantity > 0))


def planted(seed: int) -> tuple[Job, Decimal]:
    """Boards cut at random into parts with no waste but kerf, and spare boards as dear: its cost
    cannot be beaten.
    """
    rng = random.Random(seed)
    kerf = INCH // 8
    parts: list[Part] = []
    boards: list[Board] = []
    for b in range(4):
        length, width = rng.randint(40, 100) * INCH, rng.randint(4, 10) * INCH
        boards.append(_board(f"B{b}", length, width))
        at = 0
        while length - at >= 12 * INCH:
            run = length - at if length - at < 30 * INCH else rng.randint(14, 24) * INCH
            rows = rng.randint(1, 3)
            wide = (width - (rows - 1) * kerf) // rows
            parts += [
                Part(f"P{len(parts) + k}", "", 1, "oak", run, wide, INCH, "sound")
                for k in range(rows)
            ]
            at += run + kerf
    cost = sum((b.price for b in boards), Decimal(0))
    spare = [
        _board(f"S{k}", rng.randint(40, 100) * INCH, rng.randint(4, 10) * INCH) for k in range(4)
    ]
    shop = Shop("mill-wide", Kerf(kerf, kerf, kerf), Allowance(0, 0, 0, 0), 0, 12 * INCH, 0.0)
    return Job("planted", shop, tuple(parts), (*boards, *spare)), cost


def _board(id: str, length: int, width: int) -> Board:
    ends = (Station(0, 0, width, INCH, INCH), Station(length, 0, width, INCH, INCH))
    area = (length + INCH // 8) * (width + INCH // 8)
    return Board(
        id,
        "oak",
        length,
        ends,
        price=(Decimal(area) / Decimal(INCH * INCH * 10)).quantize(Decimal("0.0001")),
    )


@pytest.mark.parametrize("seed", range(12))
def test_it_stays_under_a_planted_best_and_near_it(seed: int) -> None:
    job, best = planted(seed)
    bound = lower_bound(job)
    assert 0.95 * float(best) <= bound <= float(best) + 1e-6


def test_two_woods_add_up_and_owned_boards_cost_nothing() -> None:
    ends = (Station(0, 0, 6 * INCH, INCH, INCH), Station(40 * INCH, 0, 6 * INCH, INCH, INCH))
    boards = tuple(
        Board(f"{wood}{n}", wood, 40 * INCH, ends, price=Decimal(price))
        for wood in ("oak", "ash")
        for n, price in ((1, 7), (2, 9))
    )
    parts = tuple(
        Part(wood, "", 1, wood, 30 * INCH, 4 * INCH, INCH // 2) for wood in ("oak", "ash")
    )
    assert lower_bound(Job("", Shop(), parts, boards)) == pytest.approx(14, abs=1e-4)
    owned = tuple(replace(b, price=Decimal(0)) for b in boards)
    assert lower_bound(Job("", Shop(), parts, owned)) == 0


def test_where_nothing_can_be_complete_it_is_the_whole_stock() -> None:
    ends = (Station(0, 0, 6 * INCH, INCH, INCH), Station(40 * INCH, 0, 6 * INCH, INCH, INCH))
    job = Job(
        "",
        Shop(),
        (Part("A", "", 1, "oak", 90 * INCH, INCH, INCH // 2),),
        (Board("B", "oak", 40 * INCH, ends, price=Decimal(7)),),
    )
    assert lower_bound(job) == pytest.approx(7, abs=1e-4)


SMALL = examples(40)


@SMALL
@given(jobs())
def test_with_rows_by_worth_it_is_no_lower_and_still_undercut_by_no_plan(job: Job) -> None:
    plain, seen = lower_bound(job), lower_bound(job, cuts=6)
    assert seen >= plain - 1e-6
    plan = search(job, Limits(seconds=60, rounds=2), time.monotonic)
    if not plan.unplaced:
        assert seen <= float(plan.cost) + 1e-6


@pytest.mark.parametrize("family", FAMILIES)
@pytest.mark.parametrize("seed", seeds(6))
def test_with_rows_by_worth_it_stays_under_planted_plans_of_every_family(
    family: Family, seed: int
) -> None:
    known = planted_jobs(family, 4, seed)
    bound = lower_bound(known.job, cuts=8)
    assert bound <= float(known.cost) + 1e-6
    assert bound >= lower_bound(known.job) - 1e-6


def test_faults_that_area_does_not_see_are_seen_by_worth() -> None:
    # Two boards of 60 x 6 at 10 each. By area one would hold the four parts of 25 x 2 7/8 (it has
    # 360 square inches, they take about 310); but a rotten place of 12 across its middle leaves
    # room for none of them behind it: two on each board.
    rot = a_fault("rot", 24, 36, 0, 6)
    boards = (a_board("A", defects=(rot,)), a_board("B", defects=(rot,)))
    job = Job("", BARE, (a_part("P", 4, 23, 2.9, 1.0, faces="sound"),), boards)
    assert lower_bound(job) == pytest.approx(10, abs=1e-3)
    few = Job("", BARE, (a_part("P", 6, 23, 2.9, 1.0, faces="sound"),), boards)
    assert lower_bound(few, cuts=20) == pytest.approx(20, abs=1e-3)
    plan = search(few, Limits(seconds=60, rounds=3), time.monotonic)
    assert plan.cost == 20 and not plan.unplaced


def test_it_stops_when_it_is_told_to_and_what_it_has_is_true() -> None:
    known = planted_jobs("faults", 4, 1)
    asked: list[int] = []

    def go_on() -> bool:
        asked.append(1)
        return len(asked) < 3

    stopped = lower_bound(known.job, cuts=50, go_on=go_on)
    assert len(asked) <= 4 and lower_bound(known.job) - 1e-6 <= stopped <= float(known.cost) + 1e-6


@pytest.mark.parametrize("after", [1, 5, 40])
def test_in_the_midst_of_counting_boards_it_stops_as_well(after: int) -> None:
    known = planted_jobs("faults", 6, 2)
    asked: list[int] = []

    def go_on() -> bool:
        asked.append(1)
        return len(asked) < after

    stopped = lower_bound(known.job, cuts=50, go_on=go_on)
    assert len(asked) <= after + 2
    assert lower_bound(known.job) - 1e-6 <= stopped <= float(known.cost) + 1e-6


def test_what_it_proves_is_told_as_it_comes() -> None:
    known = planted_jobs("faults", 4, 1)
    told: list[float] = []
    bound = lower_bound(known.job, cuts=8, proved=told.append)
    assert told == sorted(told) and told[0] >= lower_bound(known.job) - 1e-6
    assert told[-1] == bound <= float(known.cost) + 1e-6


def test_every_wood_has_its_turn_while_there_is_time() -> None:
    oak, other = planted_jobs("faults", 6, 2).job, planted_jobs("faults", 4, 1).job
    ash = replace(
        other,
        parts=tuple(replace(p, id=f"Z{p.id}", species="ash") for p in other.parts),
        boards=tuple(replace(b, id=f"Z{b.id}", species="ash") for b in other.boards),
    )
    both = replace(oak, parts=(*oak.parts, *ash.parts), boards=(*oak.boards, *ash.boards))

    def bound(job: Job, asked: int) -> float:
        times = iter(range(asked))
        return lower_bound(job, cuts=50, go_on=lambda: next(times, None) is not None)

    # Sixty times are not enough for the oak, which goes on rising; yet the ash has risen too.
    assert bound(oak, 60) < bound(oak, 400)
    assert bound(both, 60) > bound(oak, 60) + lower_bound(ash) + 1


def test_no_boards_cost_nothing_and_no_parts_need_none() -> None:
    assert lower_bound(Job("", BARE, (a_part("P"),), ())) == 0
    assert lower_bound(Job("", BARE, (), (a_board("A"),))) == 0
