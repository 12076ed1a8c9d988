"""Simulated trips shared over processes, kept in a real PostgreSQL."""

from concurrent.futures import Executor, Future, ThreadPoolExecutor
from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.web.test_buying import MILL, YARD, Project, listed
from vividplank.core.buying.chance.purchase import Purchase
from vividplank.jobs.trips import GUESSED_FROM, Processes, make_trips
from vividplank.store import buying, projects
from vividplank.store.database import session

__all__ = ["listed"]


class ByHand(Executor):
    """Trips are begun and end only when the test says so; `begun` are their suppliers and seeds,
    `guesses` what each was told to begin with.
    """

    def __init__(self) -> None:
        self.begun: list[tuple[str, int]] = []
        self.guesses: list[dict[str, int]] = []
        self.made: list[Future[Any]] = []

    def submit(self, fn: Any, /, *about: Any, **_: Any) -> Future[Any]:
        self.begun.append((about[1].id, about[2]))
        self.guesses.append(about[3])
        self.made.append(Future())
        if about[2] < GUESSED_FROM:
            self.made[-1].set_result(fn(*about))
        return self.made[-1]


def ask(project: Project, supplier: str, trips: int, use_hand: bool = False) -> int:
    with session() as opened:
        job = projects.load(opened, project["pk"]).job
        at = buying.supplier(opened, supplier)
        return buying.ask(opened, project["pk"], job, at, "", use_hand, trips)


def made(estimate: int) -> tuple[Purchase, ...]:
    with session() as opened:
        return buying.estimate(opened, estimate)[0].purchases


def test_suppliers_take_turns(client: FlaskClient, listed: Project) -> None:
    """Of two estimates asked for one after the other both have an answer before either has two."""
    asked = [ask(listed, at, 2) for at in (YARD, MILL)]
    pool = ByHand()
    make_trips(pool, 2, lambda: True)
    assert pool.begun == [(YARD, 0), (MILL, 0), (YARD, 1), (MILL, 1)]
    assert [len(made(pk)) for pk in asked] == [2, 2]


def test_no_trip_is_begun_twice_and_the_first_ones_say_what_the_others_begin_with(
    client: FlaskClient, listed: Project
) -> None:
    ask(listed, MILL, 5)
    pool = ByHand()
    looks = iter(range(4))
    make_trips(pool, 3, lambda: next(looks, None) is not None)
    assert sorted(pool.begun) == [(MILL, seed) for seed in range(5)]
    assert not any(pool.guesses[:GUESSED_FROM])
    assert all(g == pool.guesses[-1] and g for g in pool.guesses[GUESSED_FROM:])


def test_two_processes_make_the_same_trips_as_one(client: FlaskClient, listed: Project) -> None:
    alone = ask(listed, MILL, 3)
    with ThreadPoolExecutor(1) as pool:
        make_trips(pool, 1, lambda: True)
    # There are no boards at hand, so that these are the same trips.
    shared = ask(listed, MILL, 3, use_hand=True)
    assert shared != alone
    with Processes(2) as pool:
        make_trips(pool, 2, lambda: True)
    assert made(shared) == made(alone) and len(made(alone)) == 3


def test_a_trip_that_fails_ends_its_estimate_and_no_other(
    client: FlaskClient, listed: Project, monkeypatch: pytest.MonkeyPatch
) -> None:
    fails, goes = ask(listed, MILL, 2), ask(listed, YARD, 2)

    class Breaks(ByHand):
        def submit(self, fn: Any, /, *about: Any, **more: Any) -> Future[Any]:
            trip = super().submit(fn, *about, **more)
            if about[1].id == MILL:
                self.made[-1] = trip = Future()
                trip.set_exception(ArithmeticError("no such board"))
            return trip

    make_trips(Breaks(), 2, lambda: True)
    with session() as opened:
        assert "failed" in buying.estimate(opened, fails)[0].trouble
        assert buying.unfinished(opened) == []
    assert len(made(goes)) == 2
