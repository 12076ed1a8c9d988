"""Processes of the application for tests: each start is a fork of one that has imported it and
holds the compiled code, a second in place of six. What is forked holds no thread and no connection.
"""

import multiprocessing
import os
import runpy
import sys
from multiprocessing.context import ForkServerProcess

from tests.conftest import ROOT

_FORKSERVER = multiprocessing.get_context("forkserver")
_FORKSERVER.set_forkserver_preload(["tests.preloaded"])


def _run(words: list[str], environment: dict[str, str]) -> None:
    os.environ.update(environment)
    os.chdir(ROOT)
    sys.argv = words
    runpy.run_module(words[0], run_name="__main__", alter_sys=True)


def started(words: list[str], database: str) -> ForkServerProcess:
    """What `python -m` does with these words, on this database; it runs. A worker shares its work
    with no other process: tests go on side by side as it is.
    """
    environment = {**os.environ, "PLANK_DATABASE": database, "PLANK_PROCESSES": "1"}
    process = _FORKSERVER.Process(target=_run, args=(words, environment))
    process.start()
    return process
