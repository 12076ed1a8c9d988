"""Figure that is wished for: shown where a board has it, for no more money and with nothing left
out.
"""

import random
import time
from dataclasses import replace

import pytest

from tests.making import BARE, a_board, a_part, t
from vividplank.core.board import Board, Grain, Region, Zone
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.explain.reasons import reasons
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.figure import FigurePreference, share_shown, shown_in
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.search.reoptimise import solve
from vividplank.core.layout.search.search import Limits, search

LEGS = replace(a_part("L", 2, 29, 2), figure="straight")
RAILS = a_part("R", 2, 29, 2)


def figured(board: Board, *zones: tuple[str, float, float, float, float]) -> Board:
    found = tuple(Zone(figure, *map(t, corners)) for figure, *corners in zones)  # type: ignore[arg-type]
    return replace(board, grain=Grain(zones=found))


def solved(*boards: Board, parts: tuple[Part, ...] = (LEGS, RAILS)) -> tuple[Job, Plan]:
    job = Job("", BARE, parts, boards)
    plan = search(job, Limits(60, rounds=6), time.monotonic)
    assert not audit(job, plan)
    return job, plan


def test_the_share_of_a_place_that_shows_a_figure() -> None:
    board = figured(
        a_board(), ("straight", 0, 20, 0, 6), ("straight", 20, 30, 0, 3), ("curly", 30, 60, 0, 6)
    )
    place = Region(t(10), t(40), 0, 0.0, 0, t(6))  # 10 of 30 in wholly, 10 by half
    assert share_shown(board, "straight", place) == pytest.approx(0.5)
    assert share_shown(board, "quarter", place) == 0.0
    assert share_shown(figured(a_board(), *[("curly", 0, 60, 0, 6)] * 2), "curly", place) == 1.0


def test_a_want_without_a_figure_is_worth_the_same_everywhere() -> None:
    board = figured(a_board(), ("straight", 0, 30, 0, 6))
    preference = FigurePreference(board, item_types(Job("", BARE, (LEGS, RAILS), (board,))))
    inside, outside = Region(0, t(29), 0, 0.0, 0, t(2)), Region(t(31), t(60), 0, 0.0, 0, t(2))
    assert [
        preference.factor(k, place) for k in (0, 1) for place in (inside, outside)
    ] == pytest.approx([1.03, 0.97, 1, 1])


@pytest.mark.parametrize("first", [0, 1])
def test_of_two_like_boards_the_one_with_the_figure_gives_the_parts_that_are_to_show_it(
    first: int,
) -> None:
    boards = [a_board("A", 30, 4.25), figured(a_board("S", 30, 4.25), ("straight", 0, 30, 0, 4.25))]
    job, plan = solved(*(boards if first == 0 else boards[::-1]))
    assert {(b.board, i.part) for b, _, _, _, i in plan.items()} == {("S", "L"), ("A", "R")}
    assert shown_in(job, plan) == {"L": 1.0}


@pytest.mark.parametrize(
    "zone", [(0, 30, 0, 4.25), (30, 60, 0, 4.25), (0, 60, 0, 2.125), (0, 60, 2.125, 4.25)]
)
def test_within_a_board_they_lie_where_the_figure_is(
    zone: tuple[float, float, float, float],
) -> None:
    board = figured(a_board("B", 60, 4.25), ("straight", *zone))
    job, plan = solved(board)
    assert not plan.unplaced and shown_in(job, plan)["L"] > 0.9


def test_a_figure_costs_nothing_and_leaves_nothing_out() -> None:
    dear = figured(a_board("S", 60, 4.25, price="11"), ("straight", 0, 60, 0, 4.25))
    job, plan = solved(a_board("A", 60, 4.25), dear)
    assert (float(plan.cost), plan.unplaced) == (10, ())
    told = [r.text for r in reasons(job, plan, "in") if r.about == "L"]
    assert told == ["L was to show straight figure; 0 % of it does"]
    none, laid = solved(a_board("A", 60, 4.25))
    assert [r.text for r in reasons(none, laid, "in") if r.about == "L"] == [
        "L was to show straight figure; no board has such figure noted"
    ]


def test_a_piece_that_shows_its_figure_is_said_to() -> None:
    job, plan = solved(figured(a_board("B", 60, 4.25), ("straight", 0, 60, 0, 4.25)))
    said = {
        r.about: "straight figure, as wished" in r.text
        for r in reasons(job, plan, "in")
        if " on B" in r.text
    }
    assert said and all(shows == about.startswith("L") for about, shows in said.items())


def test_solving_again_moves_what_then_shows_its_figure_for_no_more_money() -> None:
    boards = (a_board("A", 30, 4.25), figured(a_board("S", 30, 4.25), ("straight", 0, 30, 0, 4.25)))
    plain = replace(LEGS, figure="")
    before = Job("", BARE, (plain, RAILS), boards)
    wrong = next(
        plan
        for seed in range(20)
        for plan in [search(before, Limits(60, seed=seed, rounds=1), time.monotonic)]
        if any(b.board == "A" and i.part == "L" for b, _, _, _, i in plan.items())
    )
    job = replace(before, parts=(LEGS, RAILS))
    again = solve(job, Limits(60, rounds=6), time.monotonic, None, Task(plan=wrong))
    assert shown_in(job, again) == {"L": 1.0}
    assert again.cost == wrong.cost


def test_the_volume_that_shows_is_that_of_the_blanks_in_the_zone() -> None:
    board = figured(a_board("B", 60, 4.25), ("straight", 0, 60, 0, 2.125))
    job = Job("", BARE, (replace(LEGS, quantity=4),), (board,))
    generator = PatternGenerator(board, BARE, item_types(job), t(1 / 64))
    (best, *_) = generator.cut([4], [1.0], random.Random(1))
    assert dict(best.taken) == {0: 4}
    assert generator.strips.preference.shown(best) == pytest.approx(2 * LEGS.volume)
