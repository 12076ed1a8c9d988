"""Simulated trips, made in several processes at once, estimate by estimate in turn.

A trip depends on its seed and on the first trips alone, so that the same trips are made however
many processes share them.
"""

import logging
import multiprocessing
import os
import signal
import time
from collections.abc import Callable
from concurrent.futures import FIRST_COMPLETED, Executor, Future, ProcessPoolExecutor, wait
from concurrent.futures.process import BrokenProcessPool
from contextlib import suppress
from multiprocessing.synchronize import Event
from threading import Thread

from sqlalchemy.exc import DBAPIError

from vividplank.core.buying.chance.purchase import Purchase, guesses, purchase
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.job import Job
from vividplank.core.layout.search.warm import warm
from vividplank.core.milling import Milling
from vividplank.store import buying, milling
from vividplank.store.database import gone, session
from vividplank.store.errors import InDoubt, NotFoundError

log = logging.getLogger("vividplank.jobs")

#: So many first trips of an estimate say how many boards the others begin with.
GUESSED_FROM = 2
#: How soon it is noticed that nobody wants any more trips.
_LOOK_SECONDS = 0.5

#: In a process of the pool: set when its trips are not wanted any more.
_stop: Event | None = None


class Processes(ProcessPoolExecutor):
    """Processes that give up the trip they are on when the pool is left, and end when the one that
    began them does.
    """

    def __init__(self, workers: int) -> None:
        # A process forked from the worker would inherit its threads.
        context = multiprocessing.get_context("forkserver")
        self._stop = context.Event()
        super().__init__(workers, context, _begin, (self._stop,))

    def __exit__(self, *about: object) -> None:
        self._stop.set()
        self.shutdown(cancel_futures=True)


def _begin(stop: Event) -> None:
    global _stop
    _stop = stop
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # whoever began it is asked, and stops it
    Thread(target=_end_with_parent, daemon=True).start()
    warm()


def _end_with_parent() -> None:
    parent = multiprocessing.parent_process()
    if parent:
        parent.join()
        os._exit(1)


def make_trip(
    job: Job,
    supplier: Supplier,
    seed: int,
    guess: dict[str, int],
    grade: str,
    use_hand: bool,
    machines: Milling,
) -> Purchase | None:
    """One trip, in a process of the pool; None where its trips are not wanted any more."""
    return purchase(
        job,
        supplier,
        seed,
        time.monotonic,
        guess,
        grade=grade,
        use_hand=use_hand,
        milling=machines,
        go_on=lambda: not (_stop and _stop.is_set()),
    )


def make_trips(pool: Executor, workers: int, wanted: Callable[[], bool]) -> None:
    """Make the trips that estimates want, those with the fewest first so that all suppliers have a
    first answer soon, until none wants any or `wanted` says no.

    What two workers have both made is kept once. A trip that fails ends its estimate. One that is
    lost because the database or a process went away is made again by whoever looks round next.
    """
    making: dict[Future[Purchase | None], tuple[int, int]] = {}
    try:
        while wanted():
            for _ in range(workers - len(making)):
                if not _begin_one(pool, making):
                    break
            if not making:
                return
            done, _ = wait(making, _LOOK_SECONDS, FIRST_COMPLETED)
            for trip in done:
                _keep(making.pop(trip)[0], trip)
    except (BrokenProcessPool, InDoubt, DBAPIError) as problem:
        if isinstance(problem, DBAPIError) and not gone(problem):
            raise
        log.warning("a trip was lost (%s); it is made again", type(problem).__name__)


def _begin_one(pool: Executor, making: dict["Future[Purchase | None]", tuple[int, int]]) -> bool:
    """Begin the trip that is wanted most; False where none can be begun now."""
    with session() as opened:
        wanting = [
            (pk, trips, done, done | {seed for of, seed in making.values() if of == pk})
            for pk, trips, done in buying.trips_wanted(opened)
        ]
        for pk, trips, done, begun in sorted(wanting, key=lambda w: (len(w[3]), w[0])):
            seed = next(n for n in range(trips + 1) if n not in begun)
            if seed >= trips or (seed >= GUESSED_FROM and not done.issuperset(range(GUESSED_FROM))):
                continue
            with suppress(NotFoundError):
                found, job = buying.estimate(opened, pk)
                first = [p for p in found.purchases if p.seed < GUESSED_FROM]
                guess = guesses(first) if seed >= GUESSED_FROM else {}
                machines = milling.of_project(opened, found.project, job)
                trip = pool.submit(
                    make_trip,
                    job,
                    found.supplier,
                    seed,
                    guess,
                    found.grade,
                    found.use_hand,
                    machines,
                )
                making[trip] = pk, seed
                return True
    return False


def _keep(pk: int, trip: "Future[Purchase | None]") -> None:
    try:
        made = trip.result()
        if made:
            with session() as opened:
                buying.add_trip(opened, pk, made)
    except NotFoundError:
        log.info("estimate %s was removed while it was simulated", pk)
    except (BrokenProcessPool, InDoubt, DBAPIError):
        raise
    except Exception:
        log.exception("simulating for estimate %s failed", pk)
        with session() as opened:
            buying.fail(opened, pk, "the simulation failed; the worker's log says why")
