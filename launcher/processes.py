"""The one process tree: web server and worker under the launcher, started again when one of them
dies.
"""

import contextlib
import ctypes
import fcntl
import os
import signal
import socket
import subprocess
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from pathlib import Path

from launcher.paths import DATA, ROOT, Trouble, say

#: So long a killed launcher's children may take to end.
_ENDING_SECONDS = 30
_MOST_RESTARTS = (
    5  # within a minute: beyond that something is wrong that starting again does not mend
)


@dataclass
class Child:
    name: str
    command: list[str | Path]
    process: subprocess.Popen[bytes] | None = None
    deaths: list[float] = field(default_factory=list)

    def start(self, environment: dict[str, str]) -> None:
        self.process = subprocess.Popen(
            [str(c) for c in self.command],
            env=environment,
            cwd=ROOT,
            stdin=subprocess.DEVNULL,
            start_new_session=True,
            preexec_fn=_die_with_parent,
        )

    def stop(self) -> None:
        if self.process and self.process.poll() is None:
            self.process.terminate()
            try:
                self.process.wait(15)
            except subprocess.TimeoutExpired:
                self.process.kill()
                self.process.wait()


class Stop(Exception):
    """Ctrl-C or a polite kill."""


def supervise(
    children: list[Child],
    environment: dict[str, str],
    ready: Callable[[], None],
    first: Callable[[], None] = lambda: None,
) -> None:
    """Run the children until Ctrl-C or a closed terminal; one that dies is started again. `first`
    is called before each look at them, to see to what they all need.
    """

    def stop(*_: object) -> None:
        raise Stop

    signal.signal(signal.SIGINT, stop)
    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGHUP, stop)
    try:
        for child in children:
            child.start(environment)
        ready()
        while True:
            time.sleep(0.3)
            first()
            for child in children:
                if child.process and child.process.poll() is not None:
                    _again(child, environment)
    except Stop:
        say("stopping")
    finally:
        for number in (signal.SIGINT, signal.SIGHUP):
            signal.signal(number, signal.SIG_IGN)
        for child in reversed(children):
            child.stop()


def _again(child: Child, environment: dict[str, str]) -> None:
    now = time.monotonic()
    child.deaths = [t for t in child.deaths if now - t < 60] + [now]
    if len(child.deaths) > _MOST_RESTARTS:
        raise Trouble(f"the {child.name} keeps stopping; what it printed above says why.")
    say(
        f"the {child.name} stopped (exit {child.process.returncode if child.process else '?'}); "
        f"starting it again"
    )
    child.start(environment)


def port_is_free(port: int, host: str = "127.0.0.1") -> bool:
    with socket.socket() as probe:
        probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind((host, port))
        except OSError:
            return False
        return True


def is_ours(port: int) -> bool:
    """Whether Vivid Plank itself answers on this port, its database there or not."""
    try:
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/api/health", timeout=2) as answer:
            return b"vivid-plank" in answer.read(200)
    except urllib.error.HTTPError as refused:
        return b"vivid-plank" in refused.read(200)
    except (OSError, urllib.error.URLError):
        return False


@contextlib.contextmanager
def serving(port: int) -> Iterator[bool]:
    """Hold the place of the launcher that serves on this port; False where another one holds it.

    What a killed launcher leaves is waited for: its children end with it, in their own time.
    """
    DATA.mkdir(parents=True, exist_ok=True)
    with (DATA / f"serving.{port}").open("w") as place:
        try:
            fcntl.flock(place, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except BlockingIOError:
            yield False
            return
        if is_ours(port):
            say("the last run is still ending; waiting for it")
            deadline = time.monotonic() + _ENDING_SECONDS
            while not port_is_free(port) and time.monotonic() < deadline:
                time.sleep(0.2)
        yield True


def await_web(port: int, child: Child, seconds: float = 60) -> None:
    deadline = time.monotonic() + seconds
    while time.monotonic() < deadline:
        if is_ours(port):
            return
        if child.process and child.process.poll() is not None:
            raise Trouble("the web server did not start; what it printed above says why.")
        time.sleep(0.1)
    raise Trouble(f"the web server did not answer on port {port} within {seconds:.0f} s.")


def _die_with_parent() -> None:
    ctypes.CDLL(None).prctl(1, signal.SIGTERM)
    os.umask(0o077)
