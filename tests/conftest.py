"""What the tests share: a real PostgreSQL of their own, fresh databases in it, the API, and a browser."""

import itertools
import os
from collections.abc import Iterator
from pathlib import Path

import pytest
from flask.testing import FlaskClient
from hypothesis import settings

from launcher.house import DATA
from launcher.postgres import Cluster, binaries, running

# The same examples on every run, and no deadline: a busy machine is slow, not wrong.
settings.register_profile("plank", derandomize=True, deadline=None)
settings.load_profile("plank")

ROOT = Path(__file__).parents[1]
_numbers = itertools.count(1)


@pytest.fixture(scope="session")
def cluster() -> Iterator[Cluster]:
    with running(DATA / "postgres-test") as started:
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


@pytest.fixture
def database(cluster: Cluster, template: str, monkeypatch: pytest.MonkeyPatch) -> Iterator[str]:
    """The address of an empty, migrated database, gone afterwards."""
    from vividplank.store.database import engine

    name = f"plank_{os.getpid()}_{next(_numbers)}"
    sql(cluster, f"create database {name} template {template}")
    url = cluster.url(name)
    monkeypatch.setenv("PLANK_DATABASE", url)
    yield url
    engine(url).dispose()
    sql(cluster, f"drop database {name} with (force)")


@pytest.fixture
def asked() -> list[int]:
    """The layouts the web server has put on the queue."""
    return []


@pytest.fixture
def client(database: str, asked: list[int]) -> FlaskClient:
    """The API; layouts wait in `asked`, all other work is done at once."""
    from vividplank.devices.simulated import SimulatedBench
    from vividplank.jobs.queue import plan_days, think
    from vividplank.jobs.reading import read_drawing, straightened, upright
    from vividplank.web.app import create_app
    from vividplank.web.asking import Asking

    asking = Asking(asked.append, read_drawing, lambda pk: think(pk, 0.2), lambda pk: plan_days(pk, 2.0), upright, straightened)
    client: FlaskClient = create_app(asking, SimulatedBench()).test_client()
    return client


def sql(cluster: Cluster, text: str) -> None:
    done = cluster.run(binaries() / "psql", "-d", "postgres", "-qc", text)
    assert done.returncode == 0, done.stderr
