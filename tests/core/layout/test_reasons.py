"""Why a plan is as it is, in sentences; wishes kept or said not to be."""

import time
from dataclasses import replace

from tests.making import BARE, a_board, a_fault, a_part, t
from vividplank.core.board import Warp
from vividplank.core.job import Job
from vividplank.core.layout.explain.reasons import reasons
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.layout.search.search import Limits, search


def told(job: Job, plan: Plan) -> dict[str, str]:
    return {r.about: r.text for r in reasons(job, plan, "in")}


def test_a_cut_says_what_it_saves() -> None:
    # Bow of 1/2 in over 60: whole it is 1/2 flat. A piece of 30 has a quarter of the bow: 7/8.
    board = a_board("W1", warp=Warp(t(0.5)), defects=(a_fault("loose-knot", 5, 6, 4, 5),))
    job = Job(
        "",
        replace(BARE, max_slope=0.0),
        (a_part("A", 1, 30, 2),),
        (board, a_board("W2", price="7")),
    )
    plan = Plan(
        (
            BoardPlan(
                "W1",
                (
                    Segment(
                        0, t(30), 0, 0.0, (Strip(0, t(2), (Blank(0, t(30), ((Item("A", 1),),)),)),)
                    ),
                ),
            ),
        )
    )
    said = told(job, plan)
    assert said["W1.1"] == (
        "Cut at 0 in and 30 in, it is 7/8 in flat, where the whole board is 1/2 in: cutting "
        "first saves"
        " 3/8 in; 3/4 in is needed"
    )
    assert said["A1"] == "A1 on W1: both faces are clear; the loose knot at 5 in stays outside"
    assert said["W1"] == "12 % of it becomes parts, in one piece"
    assert said["W2"] == "stays in the rack: everything comes out of the others, 7.00 saved"


def test_parts_that_belong_together_come_from_one_board() -> None:
    parts = tuple(replace(a_part(id, 1, 29, 2), same_board="doors") for id in "AB")
    # Each of the cheap ones holds one of the two; the dear one holds both.
    cheap = [a_board(f"C{k}", 30, 2.2, price="1") for k in range(2)]
    job = Job("", BARE, parts, (*cheap, a_board("D", 60, 2.2, price="9")))
    plan = search(job, Limits(60, rounds=3), time.monotonic)
    assert (
        [b.board for b in plan.boards] == ["D"]
        and audit(job, plan) == []
        and "doors" not in told(job, plan)
    )
    free = search(
        replace(job, parts=tuple(replace(p, same_board="") for p in parts)),
        Limits(60, rounds=3),
        time.monotonic,
    )
    assert {b.board for b in free.boards} == {"C0", "C1"}


def test_where_no_board_holds_all_it_is_said() -> None:
    parts = tuple(replace(a_part(id, 1, 29, 2), same_board="doors", match="leaves") for id in "AB")
    job = Job("", BARE, parts, tuple(a_board(f"C{k}", 30, 2.2) for k in range(2)))
    plan = search(job, Limits(60, rounds=3), time.monotonic)
    said = told(job, plan)
    assert not plan.unplaced
    assert [r.about for r in reasons(job, plan, "in") if r.wish] == ["doors", "leaves"]
    assert (
        said["doors"]
        == "A and B were to come from one board (doors); no board holds all, they lie on C0, C1"
    )
    assert said["leaves"].startswith("A and B were to be opened like a book")
