"""The API against its own description: the document is valid, and whatever it allows is answered,
never with a crash.
"""

import json
from collections.abc import Iterator
from typing import Any

import pytest
import schemathesis
from flask.testing import FlaskClient
from hypothesis import Phase, settings

from launcher.postgres import Cluster
from tests.conftest import sql
from tests.core.layout.model.test_audit import JOB
from tests.profiles import examples
from vividplank.devices.simulated import SimulatedBench
from vividplank.jobs.queue import lay_out
from vividplank.store.database import engine
from vividplank.web.app import create_app
from vividplank.web.asking import Asking
from vividplank.web.openapi import openapi_document

SCHEMA = schemathesis.openapi.from_dict(json.loads(openapi_document()))
#: A few for each of the operations; a long run is by hand, with more.
BOUNDED = settings(examples(5), phases=[Phase.explicit, Phase.generate])


def test_the_document_is_valid() -> None:
    SCHEMA.validate()


@pytest.fixture(scope="module")
def stood(cluster: Cluster, template: str) -> Iterator[FlaskClient]:
    """One API for all cases, with a few projects that have a plan; no work is queued."""
    sql(cluster, "drop database if exists plank_openapi")
    sql(cluster, f"create database plank_openapi template {template}")
    url = cluster.url("plank_openapi")
    with pytest.MonkeyPatch.context() as patched:
        patched.setenv("PLANK_DATABASE", url)
        client = create_app(Asking(*[lambda pk: None] * 5), SimulatedBench()).test_client()
        for _ in range(3):
            made = client.post("/api/projects/from-job", data=json.dumps(JOB)).get_json()
            lay_out(
                client.post(f"/api/projects/{made['pk']}/layout", json={"seconds": 0.2}).get_json()[
                    "pk"
                ]
            )
        yield client
    engine(url).dispose()
    sql(cluster, "drop database plank_openapi with (force)")


@SCHEMA.parametrize()
@BOUNDED
def test_whatever_the_document_allows_is_answered(stood: FlaskClient, case: Any) -> None:
    # About half of the cases ask for what is there.
    case.path_parameters = {
        name: 1 + value % 3 if isinstance(value, int) and value % 2 else value
        for name, value in (case.path_parameters or {}).items()
    }
    sent: dict[str, Any] = {}
    if isinstance(case.body, bytes):
        sent = {"data": case.body, "content_type": "application/json"}
    elif not isinstance(case.body, schemathesis.core.NotSet):
        sent = {"data": json.dumps(case.body), "content_type": "application/json"}
    answer = stood.open(
        case.formatted_path, method=case.method, query_string=dict(case.query or {}), **sent
    )
    assert answer.status_code < 500, (
        case.method,
        case.formatted_path,
        case.query,
        case.body,
        answer.text,
    )
    if answer.status_code >= 400:
        assert answer.get_json()["what"]
