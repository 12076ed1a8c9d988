"""The API against its own description: the document is valid, and whatever it allows is answered,
never with a crash.
"""

import json
from collections.abc import Iterator
from itertools import groupby
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import Phase, given, settings

from launcher.postgres import Cluster
from tests.conftest import sql
from tests.core.layout.model.test_audit import JOB
from tests.profiles import PROFILE, examples
from vividplank.devices.simulated import SimulatedBench
from vividplank.jobs.queue import lay_out
from vividplank.store.database import engine
from vividplank.web.app import create_app
from vividplank.web.asking import Asking
from vividplank.web.openapi import openapi_document

DOCUMENT = json.loads(openapi_document())
OPERATIONS = [
    (path, method, mode)
    for path, methods in DOCUMENT["paths"].items()
    for method, said in methods.items()
    for mode in ("positive", "negative")
    # What takes nothing can be asked in no wrong way.
    if mode == "positive" or said.get("parameters") or said.get("requestBody", {}).get("required")
]
_EACH = [list(same) for _, same in groupby(OPERATIONS, key=lambda one: one[:2])]
#: In CI what is allowed and what is forbidden take turns over the operations.
TURNS = OPERATIONS if PROFILE == "long" else [o[k % len(o)] for k, o in enumerate(_EACH)]
#: A few for each of the operations; a long run is by hand, with more.
BOUNDED = settings(examples(25), phases=[Phase.explicit, Phase.generate])


@pytest.fixture(scope="module")
def schema() -> Any:
    """The document as a maker of cases; loaded where it is needed, since it takes seconds."""
    import schemathesis

    return schemathesis.openapi.from_dict(DOCUMENT)


def test_the_document_is_valid(schema: Any) -> None:
    schema.validate()


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


@pytest.mark.parametrize(("path", "method", "mode"), TURNS)
def test_what_the_document_allows_and_forbids_is_answered(
    stood: FlaskClient, schema: Any, path: str, method: str, mode: str
) -> None:
    from schemathesis import GenerationMode
    from schemathesis.core import NotSet

    @BOUNDED
    @given(case=schema[path][method].as_strategy(generation_mode=GenerationMode(mode)))
    def answered(case: Any) -> None:
        # About half of the cases ask for what is there.
        case.path_parameters = {
            name: 1 + value % 3 if isinstance(value, int) and value % 2 else value
            for name, value in (case.path_parameters or {}).items()
        }
        sent: dict[str, Any] = {}
        if isinstance(case.body, bytes):
            sent = {"data": case.body, "content_type": "application/json"}
        elif not isinstance(case.body, NotSet):
            sent = {"data": json.dumps(case.body), "content_type": "application/json"}
        answer = stood.open(
            case.formatted_path, method=case.method, query_string=dict(case.query or {}), **sent
        )
        said = (case.method, case.formatted_path, case.query, case.body)
        assert answer.status_code < 500, (said, answer.text)
        if answer.status_code >= 400:
            assert answer.get_json()["what"]

    answered()
