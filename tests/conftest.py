"""What the tests share: a real PostgreSQL of their own, fresh databases in it, the API."""

import itertools
import os
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

import psycopg
import pytest
from flask import Flask
from flask.testing import FlaskClient

from launcher.paths import DATA
from launcher.postgres import Cluster, running
from tests import profiles

profiles.register()

ROOT = Path(__file__).parents[1]
#: Tests that need processes, a database, a browser or long searches, which `plank test --quick`
#: leaves out.
SLOW = ("tests/browser", "tests/store", "tests/web", "tests/devices", "tests/test_launcher.py")
SLOW += ("tests/test_processes.py", "tests/test_demo.py", "tests/core/layout/bound")
SLOW += ("tests/core/layout/search", "tests/core/layout/model/test_fixings.py")
SLOW += ("tests/core/layout/test_what_ifs.py", "tests/core/milling/test_day.py")
SLOW += ("tests/core/buying/test_lengths.py", "tests/takeoff/test_corpus.py")
SLOW += ("tests/takeoff/test_hostile.py", "tests/takeoff/test_score.py")
SLOW += ("tests/takeoff/test_bodies.py", "tests/takeoff/test_formats.py")
_numbers = itertools.count(1)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    for item in items:
        if item.nodeid.startswith(SLOW):
            item.add_marker(pytest.mark.slow)


@pytest.fixture(scope="session")
def cluster() -> Iterator[Cluster]:
    """PostgreSQL with a folder and port of its own in each pytest-xdist worker (`gw0`, ...)."""
    worker = os.environ.get("PYTEST_XDIST_WORKER", "gw0")
    first_port = 54328 + 200 * int(worker.removeprefix("gw"))
    in_a_hurry = ("fsync=off", "synchronous_commit=off", "full_page_writes=off")
    with running(DATA / f"postgres-test-{worker}", first_port, in_a_hurry) as started:
        yield started


@pytest.fixture(scope="session")
def template(cluster: Cluster) -> str:
    """A migrated database to copy from."""
    from vividplank.store.database import engine
    from vividplank.store.prepare import migrate

    sql(cluster, "drop database if exists plank_template")
    sql(cluster, "create database plank_template")
    migrate(cluster.url("plank_template"))
    engine(cluster.url("plank_template")).dispose()
    return "plank_template"


@pytest.fixture(scope="session")
def demo_template(cluster: Cluster, template: str) -> str:
    """A database with the demo in it, laid out and its drawings read, to copy from."""
    import time

    from vividplank.core.layout.search.search import Limits, search
    from vividplank.demo.__main__ import load_demo
    from vividplank.jobs.reading import read_drawing
    from vividplank.store import drawings, layouts, projects
    from vividplank.store.database import engine, session

    name = "plank_demo_template"
    sql(cluster, f"drop database if exists {name}")
    sql(cluster, f"create database {name} template {template}")
    with pytest.MonkeyPatch.context() as patch:
        patch.setenv("PLANK_DATABASE", cluster.url(name))
        load_demo()
        with session() as opened:
            layout = layouts.latest(opened, projects.shelf(opened)[0].pk)
            assert layout
            plan = search(layout.job, Limits(seconds=600, rounds=60), time.monotonic)
            layouts.finish(opened, layout.pk, layout.job, plan)
            unread = drawings.unread(opened)
        for drawing in unread:  # else each application that is started would read them again
            read_drawing(drawing)
    engine(cluster.url(name)).dispose()
    return name


@pytest.fixture
def database(
    request: pytest.FixtureRequest, cluster: Cluster, monkeypatch: pytest.MonkeyPatch
) -> Iterator[str]:
    """The address of a migrated database, gone afterwards; empty, or with the demo in it where the
    test asks for `demo`, and with a project that is laid out where it asks for `stood`.
    """
    from vividplank.store.database import engine

    with_more = (name for name in ("demo", "stood") if name in request.fixturenames)
    source = next((f"{name}_template" for name in with_more), "template")
    name = f"plank_{os.getpid()}_{next(_numbers)}"
    sql(cluster, f"create database {name} template {request.getfixturevalue(source)}")
    url = cluster.url(name)
    monkeypatch.setenv("PLANK_DATABASE", url)
    yield url
    engine(url).dispose()
    sql(cluster, f"drop database {name} with (force)")


@pytest.fixture
def demo(database: str) -> int:
    """The demo project's number."""
    from vividplank.store import projects
    from vividplank.store.database import session

    with session() as opened:
        return projects.shelf(opened)[0].pk


@pytest.fixture(scope="session")
def _queued() -> list[int]:
    return []


@pytest.fixture
def asked(_queued: list[int]) -> list[int]:
    """The layouts the web server has put on the queue."""
    _queued.clear()
    return _queued


@pytest.fixture(scope="session")
def application(_queued: list[int]) -> Flask:
    """The API; layouts wait in `asked`, all other work is done at once."""
    from vividplank.devices.simulated import SimulatedBench
    from vividplank.devices.yards import SimulatedYard
    from vividplank.jobs.queue import plan_days, think
    from vividplank.jobs.reading import read_drawing, straightened, upright
    from vividplank.jobs.trips import make_trips
    from vividplank.web.app import create_app
    from vividplank.web.asking import Asking

    def simulate(_: int) -> None:
        with ThreadPoolExecutor(1) as pool:
            make_trips(pool, 1, lambda: True)

    asking = Asking(
        _queued.append,
        read_drawing,
        lambda pk: think(pk, 0.2),
        lambda pk: plan_days(pk, 2.0),
        simulate,
        upright,
        straightened,
    )
    app: Flask = create_app(asking, SimulatedBench(), SimulatedYard())
    return app


@pytest.fixture
def client(database: str, asked: list[int], application: Flask) -> FlaskClient:
    """A caller of the API on a database of its own, with instruments nobody has touched."""
    from vividplank.devices.simulated import SimulatedBench

    application.extensions["bench"] = SimulatedBench()
    return application.test_client()


def sql(cluster: Cluster, text: str) -> None:
    """One statement outside any transaction, in the database for upkeep."""
    with psycopg.connect(cluster.url("postgres"), autocommit=True) as connection:
        connection.execute(text)  # type: ignore[call-overload]
