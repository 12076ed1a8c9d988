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
from vividplank.core.layout.model.pattern import Fill, FilledSegment
from vividplank.core.layout.search.portfolio import Found, Share, Span, helped
from vividplank.core.layout.search.search import search

JOB = Job("", BARE, (a_part("A", 3, 20, 2),), (a_board(length=60, width=6),))


def answering(
    job: Job, task: Task, limits: Limits, clock: object, share: Share, first: bool
) -> Span:
    """A helper that says its seed as the place of a board and a bound, and gives back whatever it
    is told.
    """
    told, _ = share([(limits.seed, Fill((), ()))], Span(3.0 if first else 2.0))
    while True:
        told, _ = share(told, Span())


def failing(job: Job, task: Task, limits: Limits, clock: object, share: Share, first: bool) -> Span:
    raise EOFError


def ending(job: Job, task: Task, limits: Limits, clock: object, share: Share, first: bool) -> Span:
    return Span(7.0)


def busy(job: Job, task: Task, limits: Limits, clock: object, share: Share, first: bool) -> Span:
    """A helper that has something to say, and then no time to listen."""
    share([], Span(4.0))
    while True:
        pass


def heard(share: Share, found: Found, many: int) -> tuple[Found, Span]:
    """What came back, asked until there is enough (pytest's own time limit ends it otherwise)."""
    collected, span = share(found, Span(1.0))
    while len(collected) < many:
        more, span = share([], span)
        collected += more
    return collected, span


def test_helpers_speak_with_seeds_of_their_own_and_hear_what_was_found() -> None:
    fill = Fill((FilledSegment(0, 1, 0, 0.0, ()),), ((0, 1),))
    with helped(JOB, Limits(60, seed=7, hands=3), time.monotonic, answering) as share:
        assert share
        collected, span = heard(share, [(5, fill)], 4)
    assert {(1007, Fill((), ())), (2007, Fill((), ()))} < set(collected)
    assert (5, fill) in collected
    assert span.least == 3.0


def test_a_helper_that_is_done_still_tells_its_bound() -> None:
    with helped(JOB, Limits(60, hands=2), time.monotonic, ending) as share:
        assert share
        while share([], Span(1.0))[1].least < 7.0:
            pass


def test_nobody_waits_for_a_helper_that_does_not_listen() -> None:
    much: Found = [(k, Fill((), ())) for k in range(100_000)]  # far more than a pipe holds
    with helped(JOB, Limits(60, hands=2), time.monotonic, busy) as share:
        assert share
        while share([], Span(1.0))[1].least < 4.0:
            pass
        for _ in range(3):
            assert share(much, Span(1.0))[0] == []


def test_a_helper_that_is_gone_is_no_longer_asked() -> None:
    with helped(JOB, Limits(60, hands=2), time.monotonic, failing) as share:
        assert share
        assert share([], Span(1.0)) == ([], Span(1.0)) == share([], Span(1.0))


@pytest.mark.parametrize("limits", [Limits(60), Limits(1, hands=2), Limits(60, rounds=1, hands=2)])
def test_alone_where_it_is_not_worth_it(limits: Limits) -> None:
    with helped(JOB, limits, time.monotonic, answering) as share:
        assert share is None


def test_a_search_with_help_keeps_the_rules() -> None:
    plan = search(JOB, Limits(4, hands=2), time.monotonic)
    assert not plan.unplaced and audit(JOB, plan) == []


def test_hands_are_one_or_more() -> None:
    with pytest.raises(ValueError, match="one or more"):
        Limits(hands=0)
