"""A portfolio of searches of one job, each a worker process with its own seed.

The first is the search that was asked for; the other workers end with it. They exchange patterns
and bounds: what one finds becomes columns in the restricted masters of all. The first of the other
workers raises the lower bound and tells it as it rises.

Reference
---------
C. P. Gomes, B. Selman: Algorithm portfolios. Artificial Intelligence 126 (2001), 43-62. Here the
members cooperate.
"""

import math
import multiprocessing
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager, suppress
from dataclasses import dataclass, replace
from multiprocessing.connection import Connection
from queue import SimpleQueue
from threading import Thread

from vividplank.core.job import Job
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.limits import Limits
from vividplank.core.layout.model.pattern import CuttingPattern

#: Patterns by the place of their board.
Patterns = list[tuple[int, CuttingPattern]]


@dataclass(frozen=True)
class CostBounds:
    """What the cheapest whole plan costs: at least `lower`, at most `upper`."""

    lower: float = 0.0
    upper: float = math.inf

    def __and__(self, other: "CostBounds") -> "CostBounds":
        return CostBounds(max(self.lower, other.lower), min(self.upper, other.upper))


#: Tells the others what was found, and what is known of the cost; answers what they have found
#: since, and what all know of it.
Exchange = Callable[[Patterns, CostBounds], tuple[Patterns, CostBounds]]
#: A search of a job within limits that shares what it finds and answers what it knows; sent
#: whether it is the first of the others.
Worker = Callable[[Job, Task, Limits, Callable[[], float], Exchange, bool], CostBounds]

#: A search shorter than this is over before another worker has begun.
_WORTHWHILE = 3.0


@contextmanager
def with_workers(
    job: Job,
    limits: Limits,
    clock: Callable[[], float],
    worker: Worker,
    task: Task = Task(),  # noqa: B008
) -> Iterator[Exchange | None]:
    """While this is open, `limits.workers - 1` others search as well; None where there are none."""
    many = 0 if limits.rounds is not None or limits.seconds < _WORTHWHILE else limits.workers - 1
    if many < 1:
        yield None
        return
    # A process forked from this one would inherit its threads.
    context = multiprocessing.get_context("forkserver")
    channels: list[_Channel] = []
    workers = []
    for k in range(many):
        ours, theirs = context.Pipe()
        its = replace(limits, seed=limits.seed + 1000 * (k + 1), workers=1)
        process = context.Process(
            target=_work, args=(worker, job, task, its, clock, theirs, k == 0), daemon=True
        )
        process.start()
        theirs.close()
        channels.append(_Channel(ours))
        workers.append(process)
    try:
        yield _between(channels)
    finally:
        for process in workers:
            process.terminate()
        for process, channel in zip(workers, channels, strict=True):
            process.join()
            channel.reader.join()
            channel.end.close()


class _Channel:
    """An end of a pipe that is read all the time, so that who speaks never waits for the other to
    listen.
    """

    def __init__(self, end: Connection) -> None:
        self.end = end
        self.received: SimpleQueue[tuple[Patterns, CostBounds]] = SimpleQueue()
        self.sent = CostBounds()
        self.ended = False
        self.reader = Thread(target=self._read, daemon=True)
        self.reader.start()

    def send(self, found: Patterns, bounds: CostBounds) -> None:
        """Send what is new; nobody may be there any more to receive it."""
        if found or bounds != self.sent:
            self.sent = bounds
            with suppress(OSError):
                self.end.send((found, bounds))

    def receive(self) -> tuple[Patterns, CostBounds]:
        """All that was said since it was last asked, and what is known by it."""
        found, bounds = list[tuple[int, CuttingPattern]](), CostBounds()
        while not self.received.empty():
            theirs, known = self.received.get()
            found += theirs
            bounds &= known
        return found, bounds

    def _read(self) -> None:
        with suppress(EOFError, OSError):
            while True:
                self.received.put(self.end.recv())
        self.ended = True


def _between(channels: Sequence[_Channel]) -> Exchange:
    """Collects from all workers, and passes on to each what is new and what the others have."""

    def exchange(found: Patterns, bounds: CostBounds) -> tuple[Patterns, CostBounds]:
        received = [channel.receive() for channel in channels]
        for _, known in received:
            bounds &= known
        for k, channel in enumerate(channels):
            channel.send(
                [
                    *found,
                    *(
                        pattern
                        for n, (theirs, _) in enumerate(received)
                        if n != k
                        for pattern in theirs
                    ),
                ],
                bounds,
            )
        return [pattern for theirs, _ in received for pattern in theirs], bounds

    return exchange


def _work(
    worker: Worker,
    job: Job,
    task: Task,
    limits: Limits,
    clock: Callable[[], float],
    end: Connection,
    first: bool,
) -> None:
    channel = _Channel(end)

    def exchange(found: Patterns, bounds: CostBounds) -> tuple[Patterns, CostBounds]:
        channel.send(found, bounds)
        theirs, known = channel.receive()
        if channel.ended:  # the search it helps is over
            raise EOFError
        return theirs, bounds & known

    with suppress(EOFError, KeyboardInterrupt):
        channel.send([], worker(job, task, limits, clock, exchange, first))
        channel.reader.join()  # what it said last is read before it goes
