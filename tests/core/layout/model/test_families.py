"""The search on jobs that lean on one rule each; every plan passes the audit, and what must fit
does.
"""

import time
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import boards, inches, jobs
from tests.making import BARE, a_board, a_fault, a_part, t
from tests.profiles import examples
from vividplank.core.board import Warp
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.limits import Limits
from vividplank.core.layout.search.search import search

FAMILY = examples(40)


def right(job: Job, rounds: int = 2) -> None:
    plan = search(job, Limits(seconds=60, rounds=rounds), time.monotonic)
    assert [str(v) for v in audit(job, plan)] == []


@FAMILY
@given(jobs(), st.lists(boards("X"), min_size=1, max_size=3))
def test_rough_ripped_out_of_badly_warped_boards(job: Job, warped: list) -> None:  # type: ignore[type-arg]
    bent = tuple(
        replace(b, id=f"W{i}", warp=Warp(t(0.5), t(0.2), t(-0.4))) for i, b in enumerate(warped)
    )
    right(replace(job, shop=replace(job.shop, method="rough-rip"), boards=(*job.boards, *bent)))


@FAMILY
@given(jobs(), st.lists(inches(0.25, 0.45), min_size=1, max_size=3))
def test_thin_parts_resawn_out_of_thick_boards(job: Job, thin: list[int]) -> None:
    parts = tuple(
        Part(f"T{i}", "", 5, "oak", t(14 + i), t(2), thickness, "sound")
        for i, thickness in enumerate(thin)
    )
    right(replace(job, parts=parts, boards=(*job.boards, a_board("thick", 70, 8, 2.05))))


@FAMILY
@given(jobs(), st.integers(2, 9), inches(2, 7))
def test_short_parts_ganged(job: Job, count: int, length: int) -> None:
    parts = (Part("S", "", count, "oak", length, t(1.5), t(0.5), "clear-one"), *job.parts[:2])
    right(replace(job, parts=parts))


@FAMILY
@given(jobs(), st.integers(1, 5))
def test_runs_of_many_parts(job: Job, count: int) -> None:
    parts = tuple(
        Part(f"R{i}", "", count, "oak", t(3 + i), t(2), t(0.5), "clear-two", None, "long")
        for i in range(3)
    )
    right(replace(job, parts=parts))


@FAMILY
@given(jobs())
def test_with_nothing_to_place_or_nothing_to_place_it_on(job: Job) -> None:
    right(replace(job, parts=()))
    empty = replace(job, boards=())
    plan = search(empty, Limits(seconds=60, rounds=1), time.monotonic)
    assert audit(empty, plan) == [] and plan.cost == 0
    assert len(plan.unplaced) == sum(p.quantity for p in job.parts)


def test_a_faulty_board_gives_what_lies_between_its_faults() -> None:
    faults = tuple(a_fault("rot", x, x + 1, 0, 6) for x in (15, 31, 47))
    board = a_board(length=63, width=3, defects=faults)
    plan = search(
        Job("", BARE, (a_part("A", 4, 15, 3),), (board,)),
        Limits(seconds=60, rounds=10),
        time.monotonic,
    )
    assert plan.unplaced == ()


def test_a_job_of_two_woods_never_mixes_them() -> None:
    boards = (a_board("O", species="oak"), a_board("A", species="ash"))
    parts = (a_part("X", 2, species="ash"), a_part("Y", 2, species="Oak"))
    plan = search(Job("", BARE, parts, boards), Limits(seconds=60, rounds=5), time.monotonic)
    where = {(board.board, item.part) for board, *_, item in plan.items()}
    assert where == {("O", "Y"), ("A", "X")}


@pytest.mark.parametrize("seconds", [0.05, 0.3])
def test_it_ends_in_time_by_its_clock(seconds: float) -> None:
    ticking = iter(x * 0.01 for x in range(10**6))
    boards = tuple(a_board(f"B{i}", 80, 7) for i in range(20))
    job = Job("", BARE, tuple(a_part(f"P{i}", 3, 10 + i, 2) for i in range(20)), boards)
    plan = search(job, Limits(seconds=seconds), lambda: next(ticking))
    assert audit(job, plan) == []
    assert plan.seconds <= seconds + 0.5  # a few looks at the clock after the last one that counted


def test_the_boards_it_needs_are_no_more_than_the_parts_do() -> None:
    # Eight rows of 20 x 3 fit two to a board of 20 1/8 x 6 1/4: four boards of the six, the cheap
    # ones.
    boards = tuple(a_board(f"B{i}", 20.125, 6.25, price=str(5 + i)) for i in range(6))
    plan = search(
        Job("", BARE, (a_part("A", 8, 20, 3),), boards),
        Limits(seconds=60, rounds=60),
        time.monotonic,
    )
    assert plan.unplaced == () and plan.cost == 5 + 6 + 7 + 8
    assert plan.lower_bound == pytest.approx(26, abs=1e-3)
