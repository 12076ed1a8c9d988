"""Searches that help one another: what passes between them, and that they end with the one that was
asked for.
"""

import time

import pytest

from tests.making import BARE, a_board, a_part
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.limits import Limits
from vividplank.core.layout.model.pattern import CuttingPattern, PatternSegment
from vividplank.core.layout.search.portfolio import CostBounds, Exchange, Patterns, with_workers
from vividplank.core.layout.search.search import search

JOB = Job("", BARE, (a_part("A", 3, 20, 2),), (a_board(length=60, width=6),))


def answering(
    job: Job, task: Task, limits: Limits, clock: object, share: Exchange, first: bool
) -> CostBounds:
    """A helper that says its seed as the place of a board and a bound, and gives back whatever it
    is told.
    """
    told, _ = share([(limits.seed, CuttingPattern((), ()))], CostBounds(3.0 if first else 2.0))
    while True:
        told, _ = share(told, CostBounds())


def failing(
    job: Job, task: Task, limits: Limits, clock: object, share: Exchange, first: bool
) -> CostBounds:
    raise EOFError


def ending(
    job: Job, task: Task, limits: Limits, clock: object, share: Exchange, first: bool
) -> CostBounds:
    return CostBounds(7.0)


def busy(
    job: Job, task: Task, limits: Limits, clock: object, share: Exchange, first: bool
) -> CostBounds:
    """A helper that has something to say, and then no time to listen."""
    share([], CostBounds(4.0))
    while True:
        pass


def heard(share: Exchange, found: Patterns, many: int) -> tuple[Patterns, CostBounds]:
    """What came back, asked until there is enough (pytest's own time limit ends it otherwise)."""
    collected, bounds = share(found, CostBounds(1.0))
    while len(collected) < many:
        more, bounds = share([], bounds)
        collected += more
    return collected, bounds


def test_helpers_speak_with_seeds_of_their_own_and_hear_what_was_found() -> None:
    pattern = CuttingPattern((PatternSegment(0, 1, 0, 0.0, ()),), ((0, 1),))
    with with_workers(JOB, Limits(60, seed=7, workers=3), time.monotonic, answering) as share:
        assert share
        collected, bounds = heard(share, [(5, pattern)], 4)
    assert {(1007, CuttingPattern((), ())), (2007, CuttingPattern((), ()))} < set(collected)
    assert (5, pattern) in collected
    assert bounds.lower == 3.0


def test_a_helper_that_is_done_still_tells_its_bound() -> None:
    with with_workers(JOB, Limits(60, workers=2), time.monotonic, ending) as share:
        assert share
        while share([], CostBounds(1.0))[1].lower < 7.0:
            pass


def test_nobody_waits_for_a_helper_that_does_not_listen() -> None:
    much: Patterns = [
        (k, CuttingPattern((), ())) for k in range(100_000)
    ]  # far more than a pipe holds
    with with_workers(JOB, Limits(60, workers=2), time.monotonic, busy) as share:
        assert share
        while share([], CostBounds(1.0))[1].lower < 4.0:
            pass
        for _ in range(3):
            assert share(much, CostBounds(1.0))[0] == []


def test_a_helper_that_is_gone_is_no_longer_asked() -> None:
    with with_workers(JOB, Limits(60, workers=2), time.monotonic, failing) as share:
        assert share
        assert share([], CostBounds(1.0)) == ([], CostBounds(1.0)) == share([], CostBounds(1.0))


@pytest.mark.parametrize(
    "limits", [Limits(60), Limits(1, workers=2), Limits(60, rounds=1, workers=2)]
)
def test_alone_where_it_is_not_worth_it(limits: Limits) -> None:
    with with_workers(JOB, limits, time.monotonic, answering) as share:
        assert share is None


def test_a_search_with_help_keeps_the_rules() -> None:
    plan = search(JOB, Limits(4, workers=2), time.monotonic)
    assert not plan.unplaced and audit(JOB, plan) == []


def test_hands_are_one_or_more() -> None:
    with pytest.raises(ValueError, match="one or more"):
        Limits(workers=0)
