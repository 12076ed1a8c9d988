"""Ruin and recreate: a plan of many boards gets better where a few of them are laid anew, and
stays right.
"""

import itertools
import time
from decimal import Decimal

import pytest

from vividplank.core.board import Board, Station
from vividplank.core.cutlist import Panel, Part
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.limits import Limits
from vividplank.core.layout.model.solution import Solution
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.search.effort import LEAST, affordable
from vividplank.core.layout.search.profits import Profits
from vividplank.core.layout.search.restricted_master import SharedBounds
from vividplank.core.layout.search.ruin_and_recreate import RuinAndRecreate
from vividplank.core.measure import TICKS_PER_64TH
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Allowance, Shop

MANY = 18


def board(k: int, long: int, wide: int) -> Board:
    ends = tuple(Station(x * INCH, 0, wide * INCH, INCH, INCH) for x in (0, long))
    return Board(f"B{k}", "oak", long * INCH, ends, price=Decimal(long) / 10)


def part(id: str, quantity: int, width: int = 5, panel: Panel | None = None) -> Part:
    return Part(id, id, quantity, "oak", 40 * INCH, width * INCH, 3 * INCH // 4, "sound", panel)


LIMITS = Limits(seconds=20)


def heuristic(
    *parts: Part,
    long: int = 100,
    last: int = 6,
    limits: Limits = LIMITS,
    many: int = MANY,
) -> RuinAndRecreate:
    """Boards of 6 in., but for the last one, that take two parts end to end."""
    shop = Shop(allowance=Allowance(0, 0, 0, 0), end_trim=0)
    job = Job(
        "", shop, parts, tuple(board(k, long, last if k == many - 1 else 6) for k in range(many))
    )
    listed = item_types(job)
    same = [1.0] * len(listed)
    return RuinAndRecreate(
        Profits(listed, same, same, same, 1.0, 0.0),
        [PatternGenerator(b, shop, listed, TICKS_PER_64TH) for b in job.boards],
        [b.price for b in job.boards],
        Decimal(0),
        [w.width if w.is_panel else w.count for w in listed],
        shop,
        limits,
        time.monotonic,
        lambda *_: True,
        SharedBounds(0.0),
    )


def one_each(found: RuinAndRecreate) -> Solution:
    """A whole plan that is as poor as may be: one part on every board."""
    each = [1] + [0] * (len(found.demand) - 1)
    return Solution(
        [f.cut(each, found.profits, found.rng)[0] for f in found.generators],
        [0] * len(found.demand),
    )


def test_a_few_boards_laid_anew_take_fewer_boards() -> None:
    found = heuristic(part("A", MANY))
    poor = one_each(found)
    was = found.objective(poor)
    better = found.improve_subproblem(poor, was, 0)
    assert better is not None and better.remaining == [0]
    # Nine boards are laid anew, and four and a half are enough for them.
    assert was.cost == MANY * 10 and found.objective(better).cost == (MANY - 4) * 10
    assert sum(dict(f.taken).get(0, 0) for f in better.patterns) == MANY


def test_a_plan_that_cannot_be_better_stays() -> None:
    found = heuristic(part("A", MANY), long=60)
    best = one_each(found)
    assert found.improve_subproblem(best, found.objective(best), 0) is None


def test_it_stops_when_it_is_told_to() -> None:
    asked: list[str] = []
    found = heuristic(part("A", MANY))
    found.goes_on = lambda *_: asked.append(found.trying) is not None
    poor = one_each(found)
    assert found.improve_subproblem(poor, found.objective(poor), 0) is None
    assert len(asked) == 1 and "laid anew, the rest as it is" in asked[0]


def test_nothing_is_begun_when_the_time_is_over() -> None:
    found = heuristic(part("A", MANY))
    poor = one_each(found)
    found.clock = lambda: found.began + found.limits.seconds
    assert found.improve_subproblem(poor, found.objective(poor), 0) is None


def test_what_no_board_can_give_stays_left_out() -> None:
    found = heuristic(part("A", MANY), part("W", 1, 7))
    lacking = Solution(one_each(found).patterns, [0, 1])
    assert found.improve_subproblem(lacking, found.objective(lacking), 0) is None


def test_of_a_panel_so_much_is_laid_anew_as_stood_on_these_boards() -> None:
    # 36 in. of panel in staves of 2 to 5 1/2, two end to end on a board: four boards hold it.
    found = heuristic(part("A", 14), part("P", 1, 36, Panel(2 * INCH, 11 * INCH // 2)))
    patterns = [f.cut([1, 0], found.profits, found.rng)[0] for f in found.generators[:14]]
    remaining = found.demand[1]
    for generator in found.generators[14:]:
        patterns.append(generator.cut([0, remaining], found.profits, found.rng)[0])
        remaining -= dict(patterns[-1].taken)[1]
    assert remaining <= 0
    solution = Solution(patterns, [0, remaining])
    better = found.improve_subproblem(solution, found.objective(solution), 0)
    assert better is not None and better.remaining[0] == 0 >= better.remaining[1]
    assert [
        sum(dict(f.taken).get(k, 0) for f in better.patterns) >= found.demand[k] for k in (0, 1)
    ] == [True, True]
    assert found.objective(better).better(found.objective(solution))


def test_what_is_left_out_is_sought_on_the_boards_that_can_give_it() -> None:
    found = heuristic(part("A", MANY), part("W", 1, 7), last=8)
    whole = one_each(found)
    lacking = Solution(whole.patterns, [0, 1])
    better = found.improve_subproblem(lacking, found.objective(lacking), 0)
    assert better is not None and better.remaining == [0, 0]
    assert better.patterns[:-1] == whole.patterns[:-1] and dict(better.patterns[-1].taken) == {
        0: 1,
        1: 1,
    }


def test_what_one_board_alone_can_give_is_worth_more_than_what_all_can() -> None:
    found = heuristic(part("A", MANY), part("W", 1, 7), last=8, limits=Limits(seconds=60, rounds=1))
    best, objective = found.run(found.first())
    assert objective.unplaced == 0 and best.remaining == [0, 0]
    # Alike at first; twice as much where one board can, less the one that all boards have in
    # common.
    assert found.plain == [1.0, 2 - 1 / MANY]


def test_the_less_time_the_less_care() -> None:
    # 100 boards: full care takes 22 times as long as the first plan, less care 0.4 of that, in 0.9
    # of the time.
    assert affordable(1.0, 100, 24.5) is None
    assert affordable(1.0, 100, 24.4) == (1, 2, 80) == affordable(1.0, 100, 9.8)
    assert affordable(1.0, 100, 9.7) == LEAST


@pytest.mark.parametrize(("seconds", "careful"), [(20.0, True), (4.0, False)])
def test_where_time_is_short_for_many_boards_they_are_asked_with_less_care(
    seconds: float, careful: bool
) -> None:
    found = heuristic(part("A", 30), long=60, many=30, limits=Limits(seconds=seconds))
    ticks = itertools.count()
    found.clock = lambda: next(ticks) / 100
    found.began = 0.0
    first = found.first()
    assert first.remaining == [0] and (found.effort is None) == careful
    best, objective = found.run(first)
    assert best.remaining == [0] and objective.cost == 30 * 6


def test_a_first_round_that_is_late_is_ended_with_little_care() -> None:
    found = heuristic(part("A", 30), long=60, many=30)
    ticks = itertools.count()
    found.began, found.clock = 0.0, lambda: next(ticks) / 1000
    first = found.first()
    assert found.effort is None
    found.clock = lambda: 15.01 + next(ticks) / 1000  # of 20
    best, objective = found.run(first)
    assert found.effort == LEAST and best.remaining == [0] and objective.cost == 30 * 6
