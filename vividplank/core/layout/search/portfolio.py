"""Several searches of one job at once, each in a process of its own with its own chances, that tell
one another their fills.

The first of them is the search that was asked for; the others help it and end with it. What one
finds goes into the pools of all, so that they put together what none has found alone. The first
helper sees to the bound and tells it as it rises.
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
from vividplank.core.layout.model.pattern import Fill

#: Fills by the place of their board.
Found = list[tuple[int, Fill]]


@dataclass(frozen=True)
class Span:
    """What the cheapest whole plan costs: at least the best bound, at most the best plan."""

    least: float = 0.0
    most: float = math.inf

    def __and__(self, other: "Span") -> "Span":
        return Span(max(self.least, other.least), min(self.most, other.most))


#: Tells the others what was found, and what is known of the cost; answers what they have found
# since, and what all know of it.
Share = Callable[[Found, Span], tuple[Found, Span]]
#: A search of a job within limits that shares what it finds and answers what it knows; told
# whether it is the first helper.
Helper = Callable[[Job, Task, Limits, Callable[[], float], Share, bool], Span]

#: A search shorter than this is over before a helper has begun.
_WORTHWHILE = 3.0


@contextmanager
def helped(
    job: Job,
    limits: Limits,
    clock: Callable[[], float],
    helper: Helper,
    task: Task = Task(),  # noqa: B008
) -> Iterator[Share | None]:
    """While this is open, `limits.hands - 1` helpers search as well; None where there are none."""
    many = 0 if limits.rounds is not None or limits.seconds < _WORTHWHILE else limits.hands - 1
    if many < 1:
        yield None
        return
    context = multiprocessing.get_context(
        "spawn"
    )  # a forked one would inherit the threads of whoever searches
    lines: list[_Line] = []
    helpers = []
    for k in range(many):
        ours, theirs = context.Pipe()
        its = replace(limits, seed=limits.seed + 1000 * (k + 1), hands=1)
        process = context.Process(
            target=_help, args=(helper, job, task, its, clock, theirs, k == 0), daemon=True
        )
        process.start()
        theirs.close()
        lines.append(_Line(ours))
        helpers.append(process)
    try:
        yield _between(lines)
    finally:
        for process in helpers:
            process.terminate()
        for process, line in zip(helpers, lines, strict=True):
            process.join()
            line.reader.join()
            line.end.close()


class _Line:
    """An end of a pipe that is read all the time, so that who speaks never waits for the other to
    listen.
    """

    def __init__(self, end: Connection) -> None:
        self.end = end
        self.heard: SimpleQueue[tuple[Found, Span]] = SimpleQueue()
        self.told = Span()
        self.ended = False
        self.reader = Thread(target=self._read, daemon=True)
        self.reader.start()

    def tell(self, found: Found, span: Span) -> None:
        """Say what is new; nobody may be there any more to hear it."""
        if found or span != self.told:
            self.told = span
            with suppress(OSError):
                self.end.send((found, span))

    def hear(self) -> tuple[Found, Span]:
        """All that was said since it was last asked, and what is known by it."""
        found, span = list[tuple[int, Fill]](), Span()
        while not self.heard.empty():
            theirs, known = self.heard.get()
            found += theirs
            span &= known
        return found, span

    def _read(self) -> None:
        with suppress(EOFError, OSError):
            while True:
                self.heard.put(self.end.recv())
        self.ended = True


def _between(lines: Sequence[_Line]) -> Share:
    """Collects from all helpers, and passes on to each what is new and what the others have."""

    def share(found: Found, span: Span) -> tuple[Found, Span]:
        heard = [line.hear() for line in lines]
        for _, known in heard:
            span &= known
        for k, line in enumerate(lines):
            line.tell(
                [
                    *found,
                    *(fill for n, (theirs, _) in enumerate(heard) if n != k for fill in theirs),
                ],
                span,
            )
        return [fill for theirs, _ in heard for fill in theirs], span

    return share


def _help(
    helper: Helper,
    job: Job,
    task: Task,
    limits: Limits,
    clock: Callable[[], float],
    end: Connection,
    first: bool,
) -> None:
    line = _Line(end)

    def share(found: Found, span: Span) -> tuple[Found, Span]:
        line.tell(found, span)
        theirs, known = line.hear()
        if line.ended:  # the search it helps is over
            raise EOFError
        return theirs, span & known

    with suppress(EOFError, KeyboardInterrupt):
        line.tell([], helper(job, task, limits, clock, share, first))
        line.reader.join()  # what it said last is read before it goes
