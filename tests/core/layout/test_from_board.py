"""Parts that are to come out of a named board or offcut: laid there and nowhere else."""

import time
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import BARE, a_board, a_part
from vividplank.core.buying import asks
from vividplank.core.cutlist import Part
from vividplank.core.cutlist.check import check_runs
from vividplank.core.job import Job
from vividplank.core.job.checks import checks
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.refusal import Refusal


def of(id: str, board: str, length: float = 29, quantity: int = 1) -> Part:
    return replace(a_part(id, quantity, length, 2), from_board=board)


def planned(job: Job) -> Plan:
    plan = search(job, Limits(60, rounds=3), time.monotonic)
    assert audit(job, plan) == []
    return plan


def lies(plan: Plan) -> dict[str, str]:
    return {item.part: board.board for board, _, _, _, item in plan.items()}


def test_it_comes_out_of_its_offcut_though_another_board_is_cheaper() -> None:
    boards = (a_board("C", 60, 2.2, price="1"), a_board("W1.2", 30, 2.2, price="9"))
    job = Job("", BARE, (of("A", "W1.2"), a_part("B", 1, 29, 2)), boards)
    assert lies(planned(job)) == {"A": "W1.2", "B": "C"}
    free = replace(job, parts=tuple(replace(p, from_board="") for p in job.parts))
    assert set(lies(planned(free)).values()) == {"C"}


def test_what_was_cut_out_of_the_board_is_that_board_still() -> None:
    cut = replace(a_board("W1.3", 30, 2.2), came_from="W1")
    job = Job("", BARE, (of("A", "W1"),), (a_board("W2", 60, 2.2), cut))
    assert lies(planned(job)) == {"A": "W1.3"}


def test_the_audit_sees_it_on_another_board() -> None:
    job = Job("", BARE, (of("A", "W1"),), (a_board("W1", 30, 2.2), a_board("W2", 30, 2.2)))
    other = replace(job, parts=(of("A", "W2"),))
    (found,) = audit(other, planned(job))
    assert found.rule == 7 and "A is to come out of W2" in found.what


def test_without_its_board_it_is_left_out_and_asked_about() -> None:
    job = Job("", BARE, (of("A", "W9"),), (a_board("W1", 60, 2.2),))
    (left,) = planned(job).unplaced
    assert left.why == "is to come out of W9, which is not here"
    (check,) = (c for c in checks(job, "in") if "W9" in c.what)
    assert [p.from_board for p in check.fixed] == [""]
    ash = replace(job, boards=(replace(a_board("W9", 60, 2.2), species="Ash"),))
    assert any("W9 is of Ash" in c.why for c in checks(ash, "in"))


def test_no_wood_is_asked_for_what_comes_out_of_a_board_that_is_here() -> None:
    parts = (of("A", "W1"), a_part("B", 1, 29, 2), of("C", "gone"))
    (ask,) = asks(Job("", BARE, parts, (a_board("W1", 30, 2.2),)))
    assert ask.parts == ("B", "C")


def test_a_run_comes_out_of_one_board() -> None:
    one, two, free = (
        replace(of(id, board, 12), run="R") for id, board in (("A", "W1"), ("B", "W2"), ("C", ""))
    )
    check_runs((free, one))
    with pytest.raises(Refusal, match="expected W1 as for A"):
        check_runs((free, one, two))
    job = Job("", BARE, (free, one), (a_board("W1", 30, 2.2), a_board("W2", 30, 2.2)))
    assert lies(planned(job)) == {"A": "W1", "C": "W1"}


@given(st.lists(st.sampled_from(["", "W1", "W2", "W3"]), min_size=1, max_size=6))
def test_every_part_lies_on_its_board_or_nowhere(named: list[str]) -> None:
    parts = tuple(of(f"P{k}", board, 12) for k, board in enumerate(named))
    job = Job("", BARE, parts, (a_board("W1", 30, 2.2), a_board("W2", 44, 2.2)))
    plan = planned(job)
    for part, board in lies(plan).items():
        assert job.part(part).from_board in ("", board)
    # Two fit on W1 and three on W2, and a part for any board never takes a named one's place.
    placed = min(2, named.count("W1")) + min(3, named.count("W2"))
    free = min(named.count(""), 5 - placed)
    assert len(lies(plan)) == placed + free
