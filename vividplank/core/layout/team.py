"""Several searches of one job at once, each in a process of its own with its own chances, that tell one another their fills.

The first of them is the search that was asked for; the others help it and end with it. What one finds goes into the pools of
all, so that they put together what none has found alone. The first helper sees to the bound and tells it as it rises.
"""

import multiprocessing
from collections.abc import Callable, Iterator
from contextlib import contextmanager, suppress
from dataclasses import replace
from multiprocessing.connection import Connection

from vividplank.core.job import Job
from vividplank.core.layout.filled import Fill
from vividplank.core.layout.holds import Task
from vividplank.core.layout.limits import Limits

#: Fills by the place of their board.
Found = list[tuple[int, Fill]]
#: Tells the others what was found, and the best bound known; answers what they have found since, and theirs.
Share = Callable[[Found, float], tuple[Found, float]]
#: A search of a job within limits that shares what it finds and answers its bound; told whether it is the first helper.
Helper = Callable[[Job, Task, Limits, Callable[[], float], Share, bool], float]

#: A search shorter than this is over before a helper has begun.
_WORTHWHILE = 3.0


@contextmanager
def helped(
    job: Job, limits: Limits, clock: Callable[[], float], helper: Helper, task: Task = Task()  # noqa: B008
) -> Iterator[Share | None]:
    """While this is open, `limits.hands - 1` helpers search as well; None where there are none."""
    many = 0 if limits.rounds is not None or limits.seconds < _WORTHWHILE else limits.hands - 1
    if many < 1:
        yield None
        return
    context = multiprocessing.get_context("spawn")  # a forked one would inherit the threads of whoever searches
    ends: list[Connection] = []
    helpers = []
    for k in range(many):
        ours, theirs = context.Pipe()
        its = replace(limits, seed=limits.seed + 1000 * (k + 1), hands=1)
        process = context.Process(target=_help, args=(helper, job, task, its, clock, theirs, k == 0), daemon=True)
        process.start()
        theirs.close()
        ends.append(ours)
        helpers.append(process)
    try:
        yield _between(ends)
    finally:
        for end in ends:
            end.close()
        for process in helpers:
            process.terminate()
            process.join()


def _between(ends: list[Connection]) -> Share:
    """Collects from all helpers and passes on to each what the others have; one that is gone is no longer asked.

    A helper speaks when it has been spoken to, so that never two wait for each other to listen.
    """
    backlog: dict[Connection, Found] = {end: [] for end in ends}
    asked: set[Connection] = set()

    def share(found: Found, bound: float) -> tuple[Found, float]:
        collected: Found = []
        for end in list(backlog):
            try:
                theirs: Found = []
                if end in asked and end.poll():
                    theirs, proved = end.recv()
                    bound = max(bound, proved)
                    asked.discard(end)
                collected += theirs
                for other in backlog:
                    if other is not end:
                        backlog[other] += theirs
                backlog[end] += found
                if end not in asked:
                    end.send((backlog[end], bound))
                    backlog[end] = []
                    asked.add(end)
            except (EOFError, OSError):
                del backlog[end]
        return collected, bound

    return share


def _help(
    helper: Helper, job: Job, task: Task, limits: Limits, clock: Callable[[], float], end: Connection, first: bool
) -> None:
    waiting: Found = []

    def share(found: Found, bound: float) -> tuple[Found, float]:
        waiting.extend(found)
        if not end.poll():
            return [], bound
        theirs, known = end.recv()
        end.send((waiting, bound))
        waiting.clear()
        return theirs, max(known, bound)

    with suppress(EOFError, OSError, KeyboardInterrupt):  # the search it helped is over, or is being stopped
        bound = helper(job, task, limits, clock, share, first)
        while True:  # its last word, each time it is asked for it
            end.recv()
            end.send((waiting, bound))
