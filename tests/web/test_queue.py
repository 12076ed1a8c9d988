"""The worker on a real queue: it takes work, survives being killed, and picks up what was never
queued.
"""

from collections.abc import Iterator
from contextlib import contextmanager
from multiprocessing.context import ForkServerProcess
from pathlib import Path

from tests.core.layout.model.test_audit import JOB
from tests.forked import started
from tests.waiting import until
from vividplank.core.exchange import read_job
from vividplank.demo.__main__ import load_demo
from vividplank.jobs.queue import ask_to_think, make_app
from vividplank.store import drawings, layouts, projects
from vividplank.store.database import session

FIXTURES = Path(__file__).parents[1] / "takeoff" / "fixtures"


@contextmanager
def worker(database: str) -> Iterator[ForkServerProcess]:
    process = started(["vividplank.jobs"], database)
    try:
        yield process
    finally:
        if process.is_alive():
            process.terminate()
        process.join(30)


def kill(process: ForkServerProcess) -> None:
    process.kill()
    process.join(30)


def state(layout: int) -> str:
    with session() as opened:
        return layouts.load(opened, layout).state


def ask(seconds: float) -> int:
    import json

    with session() as opened:
        project = projects.add(opened, read_job(json.dumps(JOB)), "in")
        return layouts.ask(opened, project.pk, project.job, seconds).pk


def test_a_killed_worker_loses_nothing(database: str) -> None:
    layout = ask(6)  # never put on the queue: the worker finds it when it looks round
    with worker(database) as first:
        until(lambda: state(layout) == "searching")
        kill(first)
    assert state(layout) == "searching"
    with worker(database):
        until(lambda: state(layout) == "done")
    with session() as opened:
        found = layouts.load(opened, layout)
        assert found.plan is not None and found.plan.unplaced == ()


def test_a_worker_asked_to_end_hands_its_search_back_at_once(database: str) -> None:
    layout = ask(300)
    with worker(database) as first:
        until(lambda: state(layout) == "searching")
        first.terminate()
        first.join(12)
        assert first.exitcode == 0  # of a search of 300 s
    assert state(layout) == "waiting"
    with worker(database):
        until(lambda: state(layout) == "searching")
        with session() as opened:
            layouts.stop(opened, layout)
        until(lambda: state(layout) == "stopped")


def test_a_search_that_is_asked_to_stop_keeps_what_it_has(database: str) -> None:
    layout = ask(300)
    with worker(database):
        until(lambda: state(layout) == "searching")
        with session() as opened:
            layouts.stop(opened, layout)
        until(lambda: state(layout) == "stopped")
    with session() as opened:
        assert layouts.load(opened, layout).plan is not None


def test_what_else_might_be_cheaper_is_thought_about(database: str) -> None:
    layout = ask(2)
    with worker(database):
        until(lambda: state(layout) == "done")
        app = make_app()
        with app.open():
            ask_to_think(app, layout)

        def thought() -> bool:
            with session() as opened:
                found = layouts.what_ifs(opened, layout)
                return found is not None and found.done

        until(thought)


def test_the_demo_is_loaded_once_and_comes_back(database: str) -> None:
    load_demo()
    load_demo()
    with session() as opened:
        shelf = projects.shelf(opened)
        assert [(e.name, e.demo, e.boards) for e in shelf] == [("Reading-room settle", True, 9)]
        layout = layouts.latest(opened, shelf[0].pk)
        assert layout is not None and not layout.stale(projects.load(opened, shelf[0].pk).job)
        projects.remove(opened, shelf[0].pk, projects.load(opened, shelf[0].pk).version)
    load_demo()
    with session() as opened:
        assert len(projects.shelf(opened)) == 1


def test_a_drawing_is_read_while_a_search_runs_and_after_a_worker_was_killed(database: str) -> None:
    searching = ask(300)
    with session() as opened:
        project = layouts.load(opened, searching).project
        content = (FIXTURES / "stool.stl").read_bytes()
        first = drawings.add(opened, project, "stool.stl", "application/octet-stream", content).pk

    def read(pk: int) -> str:
        with session() as opened:
            return drawings.load(opened, pk).state

    with worker(database) as working:
        until(lambda: state(searching) == "searching")
        until(lambda: read(first) == "done")  # it did not wait for the search
        with session() as opened:
            assert len(drawings.reading(opened, first).parts) == 4
            second = drawings.add(
                opened, project, "again.stl", "application/octet-stream", content
            ).pk
            drawings.begin(opened, second)  # as a worker leaves it that is killed in the middle
        kill(working)
    with worker(database):
        until(lambda: read(second) == "done")
