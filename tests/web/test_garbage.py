"""Whatever is sent, the answer is a sentence: never a crash, never half a change."""

import json
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from tests.core.layout.model.test_audit import JOB, PLAN
from tests.profiles import examples
from vividplank.jobs.queue import lay_out

words = st.text(max_size=20)
values = st.recursive(
    st.none() | st.booleans() | st.integers(-(10**12), 10**12) | st.floats(allow_nan=False) | words,
    lambda inner: st.lists(inner, max_size=4) | st.dictionaries(words, inner, max_size=4),
    max_leaves=12,
)
KEEP = examples(40)


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
    steps = (
        document.items()
        if isinstance(document, dict)
        else enumerate(document)
        if isinstance(document, list)
        else ()
    )
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


@pytest.mark.parametrize(
    "path",
    [
        "/api/projects",
        "/api/projects/{}/edits",
        "/api/projects/{}/undo",
        "/api/projects/{}/read-list",
        "/api/projects/{}/look",
    ],
)
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
def test_a_plan_with_one_thing_wrong_is_taken_or_refused(
    client: FlaskClient, path: tuple[Any, ...], value: Any
) -> None:
    project = make(client)
    answer = client.post(
        f"/api/projects/{project['pk']}/plan", data=json.dumps(changed(PLAN, path, value))
    )
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


@pytest.mark.parametrize(
    ("method", "path"),
    [
        ("get", "/api/projects/77"),
        ("get", "/api/projects/77/layout"),
        ("get", "/api/projects/77/milling"),
        ("get", "/api/projects/77/account"),
        ("get", "/api/projects/77/needs"),
        ("get", "/api/projects/77/ways"),
        ("get", "/api/projects/77/offers?supplier=otter-bend"),
        ("post", "/api/projects/77/offers/bought"),
        ("get", "/api/projects/77/parts.csv"),
        ("get", "/api/layouts/77/plan.json"),
        ("get", "/api/layouts/77/plan.svg"),
        ("post", "/api/layouts/77/stop"),
        ("get", "/api/drawings/77"),
        ("delete", "/api/drawings/77"),
        ("get", "/api/projects/77/drawings"),
    ],
)
def test_what_is_not_there_is_said(client: FlaskClient, method: str, path: str) -> None:
    answer = getattr(client, method)(path)
    assert answer.status_code == 404 and answer.get_json()["what"]


@pytest.mark.parametrize(
    "asked",
    [
        "needs?stock_length=-1",
        "ways?chance=2",
        "ways?hour=much",
        "offers",
        "offers?supplier=nobody",
    ],
)
def test_a_question_about_buying_that_cannot_be_is_refused(client: FlaskClient, asked: str) -> None:
    is_a_sentence(client.get(f"/api/projects/{make(client)['pk']}/{asked}"))


DEEP = '{"name": ' + "[" * 50_000 + "]" * 50_000 + "}"


@pytest.mark.parametrize(
    ("body", "told"),
    [
        ('{"name": "a\\u0000b", "system": "in"}', "U+0000"),
        ('{"name": "a\\ud800", "system": "in"}', "U+D800"),
        ('{"na\\u0000me": "a", "system": "in"}', "U+0000"),
        ('{"name": NaN, "system": "in"}', "no number"),
        ('{"name": 1e999, "system": "in"}', "more than any number"),
        (DEEP, "nested too deep"),
        ('{"name": ' + "[" * 200 + "]" * 200 + "}", "nested too deep"),
        ("{", "no JSON"),
    ],
)
def test_what_no_document_holds_is_refused_at_the_door(
    client: FlaskClient, body: str, told: str
) -> None:
    for address in ("/api/projects", "/api/projects/from-job"):
        answer = client.post(address, data=body, content_type="application/json")
        is_a_sentence(answer)
        assert told in answer.get_json()["what"], answer.text
    assert client.get("/api/projects").get_json()["projects"] == []


@pytest.mark.parametrize("number", [2**62 + 1, 2**63, 2**64, 10**30])
@pytest.mark.parametrize(
    "address",
    ["/api/projects/{}", "/api/layouts/{}/days", "/api/drawings/{}/pages/{}", "/api/pictures/{}"],
)
def test_a_number_no_row_can_have_is_refused(
    client: FlaskClient, address: str, number: int
) -> None:
    is_a_sentence(client.get(address.format(number, number)))


@pytest.mark.parametrize(
    "address",
    [
        "/api/projects/%00",
        "/api/projects?find=%00",
        "/%00",
        "/api/projects/1/needs?stock_length=%ff",
    ],
)
def test_an_address_with_a_character_that_belongs_in_none(
    client: FlaskClient, address: str
) -> None:
    is_a_sentence(client.get(address))


@pytest.mark.parametrize("begins", ["9999-12-31", "0001-01-01", "2026-02-30"])
def test_days_begin_on_a_day_that_a_plan_can_go_on_from(
    client: FlaskClient, asked: list[int], begins: str
) -> None:
    project = make(client)
    lay_out(
        client.post(f"/api/projects/{project['pk']}/layout", json={"seconds": 0.2}).get_json()["pk"]
    )
    answer = client.post("/api/layouts/1/days", json={"begins": begins})
    is_a_sentence(answer)
    assert answer.get_json()["where"] == "$.begins"


@pytest.mark.parametrize("name", ["white\noak", "oak\u2028", "oak\x07", "oak\r"])
def test_a_wood_is_one_line(client: FlaskClient, name: str) -> None:
    project = make(client)
    for thing, what in (("put_parts", project["parts"][0]), ("put_boards", project["boards"][0])):
        change = {"version": project["version"], "label": "wood", thing: [what | {"species": name}]}
        answer = client.post(f"/api/projects/{project['pk']}/edits", json=change)
        is_a_sentence(answer)
        assert "line break" in answer.get_json()["what"] and answer.get_json()["where"].endswith(
            ".species"
        )


def test_a_name_of_a_file_may_be_anything(client: FlaskClient) -> None:
    address = f"/api/projects/{make(client)['pk']}/drawings"
    named = client.post(
        address,
        data=b"name,length,width,thickness\nRail,20,2,1\n",
        headers={"X-File-Name": "li%00st%0a.csv"},
    )
    assert named.status_code == 201 and named.get_json()["name"] == "li_st_.csv"


def test_measures_that_multiply_each_other_for_ever_are_limited(client: FlaskClient) -> None:
    project = make(client)
    measures = [{"name": "a0", "text": "1.01", "kind": "number", "note": ""}]
    measures += [
        {"name": f"a{k}", "text": "*".join([f"a{k - 1}"] * 90), "kind": "number", "note": ""}
        for k in range(1, 9)
    ]
    change = {"version": project["version"], "label": "measures", "measures": measures}
    answer = client.post(f"/api/projects/{project['pk']}/edits", json=change)
    is_a_sentence(answer)
    assert "grows beyond" in answer.get_json()["what"]
