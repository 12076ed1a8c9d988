"""Where things lie, and how trouble is told."""

import contextlib
import errno
import os
import shutil
import sys
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
#: Everything the project installs or keeps for itself; delete it to start afresh.
DATA = Path(os.environ.get("PLANK_DATA", ROOT / ".plank")).resolve()
PORT = 8128
NEEDED_SPACE = 600 * 1024 * 1024


class Trouble(Exception):
    """A sentence for the person at the keyboard: what is wrong and what to do."""


def say(text: str) -> None:
    with contextlib.suppress(OSError):  # the terminal may be gone
        print(f"plank: {text}", file=sys.stderr, flush=True)


def check_space(wanted: int = NEEDED_SPACE) -> None:
    DATA.mkdir(parents=True, exist_ok=True)
    free = shutil.disk_usage(DATA).free
    if free < wanted:
        raise Trouble(
            f"the disk is nearly full: {free >> 20} MB free where {DATA} lies, {wanted >> 20} MB "
            f"needed. "
            "Make room, or set PLANK_DATA to a folder on another disk."
        )


def in_words(problem: OSError) -> str:
    """What an operating system error means to the person at the keyboard."""
    if problem.errno == errno.ENOSPC:
        return (
            f"the disk is full, nothing more could be written to {DATA}. Make room and start again."
        )
    if problem.errno in (errno.EACCES, errno.EPERM):
        return (
            f"no permission for {problem.filename}. Run it as the owner of that folder, or "
            f"set PLANK_DATA to one of yours."
        )
    return f"{problem.strerror}: {problem.filename}"
