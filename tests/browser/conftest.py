"""The real application in processes of its own, and the real interface in headless Chromium."""

import os
import shutil
import signal
import socket
from collections.abc import Iterator
from dataclasses import dataclass, field
from multiprocessing.context import ForkServerProcess

import pytest
from playwright.sync_api import Browser, Page, expect, sync_playwright

from launcher.processes import is_ours
from tests.forked import started
from tests.waiting import until

expect.set_options(timeout=120_000)  # a busy machine is slow, not wrong

#: Chromium as root wants no sandbox; on a closed network its own background talk only fails.
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]


@dataclass
class App:
    """Web server and worker on one database; both can be killed and started again."""

    database: str
    port: int
    processes: list[ForkServerProcess] = field(default_factory=list)

    @property
    def url(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        for words in (["vividplank.serve", "--port", str(self.port)], ["vividplank.jobs"]):
            self.processes.append(started(words, self.database))
        until(lambda: is_ours(self.port))

    def kill(self, how: signal.Signals = signal.SIGKILL) -> None:
        """Nobody answers until it is started again. Tests of an outage use this: a browser that is
        told to be offline lets some requests of a page that has a worker through."""
        for process in self.processes:
            assert process.pid
            os.kill(process.pid, how)
        for process in self.processes:
            process.join(30)
        self.processes.clear()


@pytest.fixture
def app(database: str) -> Iterator[App]:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port = probe.getsockname()[1]
    started = App(database, port)
    started.start()
    yield started
    started.kill()


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    chromium = shutil.which("chromium")
    assert chromium, "Chromium is missing; ./plank test installs it from Debian's packages"
    with sync_playwright() as playwright:
        opened = playwright.chromium.launch(executable_path=chromium, args=FLAGS)
        yield opened
        opened.close()


@pytest.fixture
def page(request: pytest.FixtureRequest, browser: Browser, app: App) -> Iterator[Page]:
    """A page at desk size that fails the test on any script error or refused resource. Its service
    worker, which first of all keeps every file, is there in tests marked `offline`.
    """
    context = browser.new_context(
        locale="en-GB",
        viewport={"width": 1280, "height": 800},
        base_url=app.url,
        reduced_motion="reduce",
        service_workers="allow" if request.node.get_closest_marker("offline") else "block",
    )
    context.set_default_timeout(120_000)
    opened = context.new_page()
    troubles: list[str] = []
    opened.on("pageerror", lambda error: troubles.append(str(error)))
    opened.on(
        "console",
        lambda told: (
            troubles.append(told.text)
            if told.type == "error" and "Content Security" in told.text
            else None
        ),
    )
    yield opened
    context.close()
    assert troubles == []
