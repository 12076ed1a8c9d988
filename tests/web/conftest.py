"""Searches of the API's tests go by rounds: a busy machine is slow, and finds the same. A project
that is laid out is copied, and not laid out for every test.
"""

import json

import pytest
from flask import Flask

from launcher.postgres import Cluster
from tests.conftest import sql
from tests.core.layout.model.test_audit import JOB
from vividplank.core.layout.model.limits import Limits
from vividplank.jobs import queue
from vividplank.store.database import engine
from vividplank.store.layouts import Layout

#: About what a quiet machine does in a second.
_ROUNDS_A_SECOND = 40


def _by_rounds(layout: Layout) -> Limits:
    return Limits(seconds=500, rounds=max(2, round(_ROUNDS_A_SECOND * layout.seconds)))


@pytest.fixture(autouse=True)
def by_rounds(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(queue, "limits_of", _by_rounds)


@pytest.fixture(scope="session")
def stood_template(cluster: Cluster, template: str, application: Flask) -> str:
    """A database with one small project that is laid out, to copy from."""
    name = "plank_stood_template"
    sql(cluster, f"drop database if exists {name}")
    sql(cluster, f"create database {name} template {template}")
    with pytest.MonkeyPatch.context() as patch:
        patch.setenv("PLANK_DATABASE", cluster.url(name))
        patch.setattr(queue, "limits_of", _by_rounds)
        client = application.test_client()
        project = client.post("/api/projects/from-job", data=json.dumps(JOB)).get_json()["pk"]
        asked = client.post(f"/api/projects/{project}/layout", json={"seconds": 1}).get_json()
        queue.lay_out(asked["pk"])
    engine(cluster.url(name)).dispose()
    return name
