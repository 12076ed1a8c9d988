"""Waiting for something that another process does."""

import time
from collections.abc import Callable


def until(holds: Callable[[], bool], seconds: float = 120) -> None:
    """Return as soon as it holds; an AssertionError when it never does."""
    deadline = time.monotonic() + seconds
    while not holds():
        assert time.monotonic() < deadline, f"did not happen within {seconds} s"
        time.sleep(0.05)
