"""The processes a worker shares its work over: how many, and what they are forked from."""

import multiprocessing
import os
from multiprocessing.forkserver import ensure_running

#: How many processes a search or an estimate is shared over; of each processor one where it is not
#: set.
_SETTING = "PLANK_PROCESSES"


def process_count() -> int:
    """How many, this one counted.

    Raises
    ------
    ValueError
        Where the setting is no number from 1 up.
    """
    given = os.environ.get(_SETTING)
    if not given:
        return len(os.sched_getaffinity(0))
    if not given.isdecimal() or not int(given):
        raise ValueError(f"{_SETTING} is {given!r}; expected a number from 1 up")
    return int(given)


def make_ready() -> None:
    """Begin the process that the others are forked from; it imports the application once for all of
    them, while the worker goes on.
    """
    multiprocessing.get_context("forkserver").set_forkserver_preload(
        ["vividplank.jobs.__main__", "vividplank.jobs.compiled"]
    )
    if process_count() > 1:
        ensure_running()
