"""Whatever is sent, the answer is a sentence: never a crash, never half a change."""

import json
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.core.test_audit import JOB, PLAN

words = st.text(max_size=20)
values = st.recursive(
    st.none() | st.booleans() | st.integers(-(10**12), 10**12) | st.floats(allow_nan=False) | words,
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(words, inner, max_size=4), max_leaves=12,
)
KEEP = settings(max_examples=40, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))


def make(client: FlaskClient) -> dict[str, Any]:
    found: dict[str, Any] = client.post("/api/projects/from-job", data=json.dumps(JOB)).get_json()
    return found


def is_a_sentence(answer: Any) -> None:
    assert 400 <= answer.status_code < 500, (answer.status_code, answer.text)
    told = answer.get_json()["what"]
    assert told and "Traceback" not in told


def places(document: Any, path: tuple[Any, ...] = ()) -> list[tuple[Any, ...]]:
    """Every place in a document."""
    found = [path] if path else []
    steps = document.items() if isinstance(document, dict) else enumerate(document) if isinstance(document, list) else ()
    for key, value in steps:
        found += places(value, (*path, key))
    return found


def changed(document: dict[str, Any], path: tuple[Any, ...], value: Any) -> dict[str, Any]:
    copy: dict[str, Any] = json.loads(json.dumps(document))
    at: Any = copy
    for key in path[:-1]:
        at = at[key]
    at[path[-1]] = value
    return copy


@pytest.mark.parametrize("path", [
    "/api/projects", "/api/projects/{}/edits", "/api/projects/{}/undo", "/api/projects/{}/read-list", "/api/projects/{}/look",
])
def test_any_body_is_taken_or_refused(client: FlaskClient, path: str) -> None:
    project = make(client)
    address = path.format(project["pk"])

    @KEEP
    @given(values)
    def send(body: Any) -> None:
        answer = client.post(address, json=body)
        if answer.status_code >= 300:
            is_a_sentence(answer)

    send()
    assert client.get(f"/api/projects/{project['pk']}").get_json() == project


@KEEP
@given(st.sampled_from(places(JOB)), values)
def test_a_job_with_one_thing_wrong_is_taken_or_refused_with_a_place(
    client: FlaskClient, path: tuple[Any, ...], value: Any
) -> None:
    answer = client.post("/api/projects/from-job", data=json.dumps(changed(JOB, path, value)))
    if answer.status_code != 201:
        is_a_sentence(answer)
        assert answer.get_json()["where"].startswith("$")


@KEEP
@given(st.sampled_from(places(PLAN)), values)
def test_a_plan_with_one_thing_wrong_is_taken_or_refused(client: FlaskClient, path: tuple[Any, ...], value: Any) -> None:
    project = make(client)
    answer = client.post(f"/api/projects/{project['pk']}/plan", data=json.dumps(changed(PLAN, path, value)))
    if answer.status_code != 201:
        is_a_sentence(answer)


@KEEP
@given(st.binary(max_size=200))
def test_any_bytes_are_refused_as_files(client: FlaskClient, content: bytes) -> None:
    project = make(client)
    is_a_sentence(client.post("/api/projects/from-job", data=content))
    is_a_sentence(client.post(f"/api/projects/{project['pk']}/plan", data=content))
    answer = client.post(f"/api/projects/{project['pk']}/drawings", data=content)
    if answer.status_code != 201:
        is_a_sentence(answer)


@pytest.mark.parametrize(("method", "path"), [
    ("get", "/api/projects/77"), ("get", "/api/projects/77/layout"), ("get", "/api/projects/77/milling"),
    ("get", "/api/projects/77/account"), ("get", "/api/projects/77/needs"), ("get", "/api/projects/77/parts.csv"),
    ("get", "/api/layouts/77/plan.json"), ("get", "/api/layouts/77/plan.svg"), ("post", "/api/layouts/77/stop"),
    ("get", "/api/drawings/77"), ("delete", "/api/drawings/77"), ("get", "/api/projects/77/drawings"),
])
def test_what_is_not_there_is_said(client: FlaskClient, method: str, path: str) -> None:
    answer = getattr(client, method)(path)
    assert answer.status_code == 404 and answer.get_json()["what"]


@pytest.mark.parametrize("query", ["waste=-1", "waste=9", "waste=much"])
def test_a_share_of_waste_that_cannot_be_is_refused(client: FlaskClient, query: str) -> None:
    is_a_sentence(client.get(f"/api/projects/{make(client)['pk']}/needs?{query}"))
