"""The API through a real PostgreSQL."""

import json
from dataclasses import replace
from pathlib import Path
from typing import Any

import brotli
import pytest
from flask.testing import FlaskClient
from sqlalchemy import event, text
from sqlalchemy.exc import OperationalError
from sqlalchemy.orm import Session
from werkzeug.test import TestResponse

from launcher.postgres import Cluster
from tests.conftest import sql
from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.jobs.queue import lay_out
from vividplank.store.database import engine, session
from vividplank.web.openapi import openapi_document

ROOT = Path(__file__).parents[2]
INCH = 8128


def make(client: FlaskClient, document: dict[str, Any] = JOB) -> dict[str, Any]:
    answer = client.post("/api/projects/from-job", data=json.dumps(document))
    assert answer.status_code == 201, answer.text
    found: dict[str, Any] = answer.get_json()
    return found


def edit(client: FlaskClient, project: dict[str, Any], **change: Any) -> TestResponse:
    body = {"version": project["version"], "label": "an edit"} | change
    return client.post(f"/api/projects/{project['pk']}/edits", json=body)


def connect(client: FlaskClient, project: int, **instruments: str) -> None:
    """Instruments connected in the workshop a project is made in."""
    place = client.get(f"/api/projects/{project}/workshop").get_json()
    workshop = place["workshop"] | {"instruments": instruments}
    body = {"name": place["name"], "version": place["version"], "workshop": workshop}
    assert client.put(f"/api/workshops/{place['pk']}", json=body).status_code == 200


def part(id: str, **kept: Any) -> dict[str, Any]:
    return {
        "id": id,
        "name": id,
        "quantity": 1,
        "species": "oak",
        "length": 10 * INCH,
        "width": 2 * INCH,
        "thickness": INCH // 2,
    } | kept


def test_a_new_project_stands_on_the_shelf(client: FlaskClient) -> None:
    assert client.get("/api/projects").get_json() == {"projects": []}
    made = client.post("/api/projects", json={"name": "Plan chest", "system": "mm"}).get_json()
    assert made["shop"]["min_blank_length"] == 300 * 320
    shelf = client.get("/api/projects").get_json()["projects"]
    assert [(p["name"], p["parts"], p["boards"], p["laid_out"]) for p in shelf] == [
        ("Plan chest", 0, 0, False)
    ]
    gone = client.delete(f"/api/projects/{made['pk']}", json={"version": made["version"]})
    assert gone.status_code == 204 and client.get("/api/projects").get_json() == {"projects": []}


def test_a_job_file_comes_in_and_goes_out_the_same(client: FlaskClient) -> None:
    project = make(client)
    out = client.get(f"/api/projects/{project['pk']}/job.json")
    assert "attachment" in out.headers["Content-Disposition"]
    assert json.loads(out.text)["parts"] == JOB["parts"]
    assert [b["price"] for b in json.loads(out.text)["boards"]] == [20, 15.5, 9]


def test_a_bad_file_is_refused_with_its_place_and_changes_nothing(client: FlaskClient) -> None:
    answer = client.post("/api/projects/from-job", data='{"format": "vivid-plank/job"}')
    assert answer.status_code == 422 and answer.get_json()["where"] == "$.version"
    assert client.get("/api/projects").get_json() == {"projects": []}


def test_edits_undo_and_redo(client: FlaskClient) -> None:
    project = make(client)
    added = edit(client, project, put_parts=[part("N")], label="new part N").get_json()
    assert [p["id"] for p in added["parts"]] == ["A", "P", "R", "L", "N"] and added[
        "undo"
    ] == "new part N"
    renamed = edit(client, added, put_parts=[part("M", was="N")], remove_boards=["B3"]).get_json()
    assert [p["id"] for p in renamed["parts"]][-1] == "M" and len(renamed["boards"]) == 2
    back = client.post(
        f"/api/projects/{project['pk']}/undo", json={"version": renamed["version"]}
    ).get_json()
    assert (
        back["parts"] == added["parts"] and len(back["boards"]) == 3 and back["redo"] == "an edit"
    )
    again = client.post(
        f"/api/projects/{project['pk']}/redo", json={"version": back["version"]}
    ).get_json()
    assert again["parts"] == renamed["parts"] and again["redo"] == ""
    fresh = client.get(f"/api/projects/{project['pk']}").get_json()
    assert fresh == again


def test_two_tabs_the_second_is_told_and_nothing_is_overwritten(client: FlaskClient) -> None:
    project = make(client)
    first = edit(client, project, put_parts=[part("N")])
    assert first.status_code == 200
    second = edit(client, project, put_parts=[part("N", length=9 * INCH)])
    assert second.status_code == 409 and second.get_json()["version"] == first.get_json()["version"]
    kept = client.get(f"/api/projects/{project['pk']}").get_json()
    assert kept["parts"][-1]["length"] == 10 * INCH


@pytest.mark.parametrize(
    ("change", "where", "word"),
    [
        ({"put_parts": [part("A", was="P")]}, "$.put_parts[0].id", "taken"),
        ({"put_parts": [part("N", length=0)]}, "$.put_parts[0].length", "more than nothing"),
        ({"put_parts": [part("N", length="long")]}, "$.put_parts[0].length", "integer"),
        ({"put_parts": [part("N", colour="red")]}, "$.put_parts[0].colour", "not permitted"),
        (
            {"put_parts": [part("N", glued_up={"layers": 2, "thickness": 9})]},
            "$.put_parts[0].glued_up",
            "layers",
        ),
        ({"name": " "}, "$.name", "empty"),
        ({"shop": {}}, "$.shop", "method is missing"),
    ],
)
def test_an_edit_that_cannot_be_is_refused_whole(
    client: FlaskClient, change: dict[str, Any], where: str, word: str
) -> None:
    project = make(client)
    answer = edit(client, project, **change)
    assert (
        answer.status_code == 422
        and answer.get_json()["where"] == where
        and word in answer.get_json()["what"].lower()
    )
    assert client.get(f"/api/projects/{project['pk']}").get_json() == project


def test_the_units_of_a_project_change_what_is_shown_not_what_is_kept(client: FlaskClient) -> None:
    project = make(client)
    metric = edit(client, project, system="mm").get_json()
    assert metric["system"] == "mm" and metric["parts"] == project["parts"]
    assert json.loads(client.get(f"/api/projects/{project['pk']}/job.json").text)["unit"] == "mm"
    undone = client.post(
        f"/api/projects/{project['pk']}/undo", json={"version": metric["version"]}
    ).get_json()
    assert undone["system"] == "in"


def test_a_pasted_list_is_read_and_what_was_not_understood_is_told(client: FlaskClient) -> None:
    project = make(client)
    text = (
        "name\tcount\tlength\twidth\tthickness\twood\nLeg\t4\t28 1/2\t2\t1 "
        "1/2\tash\nRail\t2\tlong\t3\t3/4\tash"
    )
    found = client.post(f"/api/projects/{project['pk']}/read-list", json={"text": text}).get_json()
    assert [p["name"] for p in found["parts"]] == ["Leg"] and found["refused"][0]["row"] == 3
    csv = client.get(f"/api/projects/{project['pk']}/parts.csv").text
    again = client.post(
        f"/api/projects/{project['pk']}/read-list", json={"text": csv.replace("\nA,", "\nA9,")}
    ).get_json()
    assert again["parts"][0]["id"] == "A9"
    assert [r["why"] for r in again["refused"]] == [
        f"the mark '{m}' is taken; expected every mark once" for m in "PRL"
    ]


def test_what_to_buy_and_what_a_board_yields(client: FlaskClient) -> None:
    project = make(client)
    asks = client.get(f"/api/projects/{project['pk']}/needs").get_json()["asks"]
    assert asks[0]["quarter"] == "4/4" and asks[0]["thumb"] == pytest.approx(
        asks[0]["blanks"] * 1.3
    )
    look = client.post(
        f"/api/projects/{project['pk']}/look", json={"board": project["boards"][0]}
    ).get_json()
    # Bow of 0.1: whole 0.9, halves 0.975, thirds 0.989.
    assert [c["flat"] / INCH for c in look["cuts"]] == pytest.approx([0.9, 0.975, 0.9889], abs=1e-3)
    assert look["board_feet"] == pytest.approx(60 * 6.5 / 144) and look["alone"]
    crossed = project["boards"][0] | {
        "stations": [s | {"y1": -1} for s in project["boards"][0]["stations"]]
    }
    refused = client.post(f"/api/projects/{project['pk']}/look", json={"board": crossed})
    assert refused.status_code == 422 and "edges cross" in refused.get_json()["what"]


def test_from_layout_to_steps_to_books(client: FlaskClient, asked: list[int]) -> None:
    project = make(client)
    base = f"/api/projects/{project['pk']}"
    for later in ("milling", "account"):
        assert client.get(f"{base}/{later}").status_code == 404
    waiting = client.post(f"{base}/layout", json={"seconds": 1}).get_json()
    assert waiting["state"] == "waiting" and asked == [waiting["pk"]]
    lay_out(waiting["pk"])
    found = client.get(f"{base}/layout").get_json()
    assert found["latest"] == found["standing"] and found["latest"]["state"] == "done"
    assert found["latest"]["unplaced"] == 0 and not found["latest"]["stale"]

    milling = client.get(f"{base}/milling").get_json()
    step = milling["routes"][0]["steps"][0]
    assert (
        client.put(
            f"/api/layouts/{waiting['pk']}/steps", json={"key": step["key"], "done": True}
        ).status_code
        == 204
    )
    assert client.get(f"{base}/milling").get_json()["routes"][0]["steps"][0]["done"]
    assert {s["machine"] for r in milling["routes"] for s in r["steps"]} <= set(milling["cautions"])

    books = client.get(f"{base}/account").get_json()
    assert sum(books["where"].values()) == pytest.approx(books["rough"], rel=1e-12)
    assert sum(books["chips"].values()) == pytest.approx(books["where"]["chips"], rel=1e-9)
    assert all(
        sum(b["chips"].values()) == pytest.approx(b["where"]["chips"], abs=1e-9)
        for b in books["boards"]
    )
    assert books["price"] == found["latest"]["cost"]
    assert books["per_foot_of_parts"] == pytest.approx(books["price"] / books["where"]["parts"])

    svg = client.get(f"/api/layouts/{waiting['pk']}/plan.svg").text
    assert svg.startswith("<svg") and "A1" in svg
    plan = client.get(f"/api/layouts/{waiting['pk']}/plan.json").text
    assert client.post(f"{base}/plan", data=plan).status_code == 201

    edit(client, project, put_parts=[part("A", quantity=1, length=20 * INCH)])
    assert client.get(f"{base}/layout").get_json()["standing"]["stale"]
    now = client.get(base).get_json()
    client.post(f"{base}/undo", json={"version": now["version"]})
    assert not client.get(f"{base}/layout").get_json()["standing"]["stale"]


def test_a_plan_that_breaks_a_rule_is_not_taken(client: FlaskClient) -> None:
    project = make(client)
    base = f"/api/projects/{project['pk']}"
    assert client.post(f"{base}/plan", data=json.dumps(PLAN)).status_code == 201
    broken = json.loads(json.dumps(PLAN))
    broken["boards"][0]["segments"][0]["x0"] = 0.5
    answer = client.post(f"{base}/plan", data=json.dumps(broken))
    assert answer.status_code == 422 and "breaks rule 1" in answer.get_json()["what"]


def test_nothing_to_lay_out_is_said(client: FlaskClient, asked: list[int]) -> None:
    made = client.post("/api/projects", json={"name": "Empty"}).get_json()
    answer = client.post(f"/api/projects/{made['pk']}/layout", json={})
    assert answer.status_code == 422 and "no parts" in answer.get_json()["what"] and asked == []


def test_a_search_can_be_stopped_and_a_newer_one_replaces_it(client: FlaskClient) -> None:
    project = make(client)
    base = f"/api/projects/{project['pk']}"
    first = client.post(f"{base}/layout", json={"seconds": 500}).get_json()["pk"]
    second = client.post(f"{base}/layout", json={"seconds": 500}).get_json()["pk"]
    client.post(f"/api/layouts/{second}/stop")
    for layout in (first, second):
        lay_out(layout)  # returns at its first look at the watch
    assert client.get(f"{base}/layout").get_json()["latest"]["state"] == "stopped"
    # Both stopped at their first arrangement, which is the same: the plan that stood goes on
    # standing.
    assert client.get(f"{base}/layout").get_json()["standing"]["pk"] == first


def test_drawings_are_kept_shown_and_never_run(client: FlaskClient) -> None:
    project = make(client)
    base = f"/api/projects/{project['pk']}/drawings"
    svg = (ROOT / "vividplank" / "demo" / "settle.svg").read_bytes()
    added = client.post(base, data=svg, headers={"X-File-Name": "settle%20front.svg"}).get_json()
    assert (added["name"], added["media_type"]) == ("settle front.svg", "image/svg+xml")
    shown = client.get(f"/api/drawings/{added['pk']}")
    assert shown.data == svg and "sandbox" in shown.headers["Content-Security-Policy"]
    png = client.post(
        base, data=b"\x89PNG\r\n\x1a\nrest", headers={"X-File-Name": "a.pdf"}
    ).get_json()
    assert png["media_type"] == "image/png"
    refused = client.post(base, data=b"<html><script>", headers={"X-File-Name": "a.png"})
    assert refused.status_code == 422 and "expected STEP, STL" in refused.get_json()["what"]
    assert client.delete(f"/api/drawings/{added['pk']}").status_code == 204
    assert [d["pk"] for d in client.get(base).get_json()["drawings"]] == [png["pk"]]


def test_only_our_own_pages_may_write_and_only_this_machine_is_served(client: FlaskClient) -> None:
    body = {"name": "X"}
    foreign = client.post(
        "/api/projects", json=body, headers={"Origin": "http://elsewhere.example"}
    )
    cross = client.post("/api/projects", json=body, headers={"Sec-Fetch-Site": "cross-site"})
    rebound = client.get("/api/projects", headers={"Host": "elsewhere.example:8128"})
    assert {foreign.status_code, cross.status_code, rebound.status_code} == {403}
    own = client.post(
        "/api/projects",
        json=body,
        headers={"Origin": "http://localhost", "Sec-Fetch-Site": "same-origin"},
    )
    assert own.status_code == 201


def test_headers_and_limits(client: FlaskClient) -> None:
    answer = client.get("/api/health")
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'none'" in policy and "unsafe" not in policy
    assert answer.headers["X-Content-Type-Options"] == "nosniff"
    large = client.post("/api/projects/from-job", data=b" " * (5 << 20))
    assert large.status_code == 413 and "4 MB" in large.get_json()["what"]
    assert client.get("/api/nothing").get_json() == {
        "what": "there is nothing here",
        "where": "",
        "found": [],
        "version": None,
    }
    assert client.get("/api/projects/99").status_code == 404


def test_what_is_sent_is_compressed_for_who_takes_it(client: FlaskClient) -> None:
    at = f"/api/projects/{make(client)['pk']}"
    plain = client.get(at)
    sent = client.get(at, headers={"Accept-Encoding": "gzip, br"})
    assert sent.headers["Content-Encoding"] == "br" and "Accept-Encoding" in sent.headers["Vary"]
    assert brotli.decompress(sent.data) == plain.data
    assert len(sent.data) < len(plain.data) / 2


def test_an_error_tells_no_trace_and_logs_it(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("secret inside")

    monkeypatch.setattr("vividplank.store.projects.shelf", broken)
    answer = client.get("/api/projects")
    assert (
        answer.status_code == 500 and "secret" not in answer.text and "Traceback" not in answer.text
    )
    assert "secret inside" in caplog.text


def test_the_description_in_docs_is_that_of_the_code() -> None:
    assert (ROOT / "docs" / "openapi.json").read_text(encoding="utf-8") == openapi_document()


def test_a_board_is_surveyed_before_any_cut(client: FlaskClient) -> None:
    project = make(client)
    board = project["boards"][0]
    cut = {"board": board, "places": [board["length"] // 2]}
    pieces = client.post(f"/api/projects/{project['pk']}/cuts", json=cut).get_json()["pieces"]
    assert len(pieces) == 2 and all(len(p["corners"]) == 4 for p in pieces)
    asked = {"board": board, "wanted": 6000, "quality": "clear-two"}
    found = client.post(f"/api/projects/{project['pk']}/survey", json=asked).get_json()
    assert found["said"] and found["areas"] and 0 < found["share"] <= 1 and found["rest"] is None
    wet = asked | {"board": board | {"moisture": [{"percent": 14, "day": 20000}]}}
    rest = client.post(f"/api/projects/{project['pk']}/survey", json=wet).get_json()["rest"]
    assert rest["least"] < rest["days"] < rest["most"] and rest["shrinks"] == sorted(
        rest["shrinks"]
    )
    crossed = board | {"stations": [s | {"y0": s["y1"], "y1": s["y0"]} for s in board["stations"]]}
    refused = client.post(f"/api/projects/{project['pk']}/survey", json=asked | {"board": crossed})
    assert refused.status_code == 422 and "edges cross" in refused.get_json()["what"]


def test_sheets_are_laid_out_and_stock_lengths_cut(client: FlaskClient) -> None:
    project = make(client)
    shelf = part(
        id="S",
        quantity=3,
        length=40 * INCH,
        width=20 * INCH,
        thickness=INCH // 2,
        stock="sheet",
        species="birch ply",
    )
    rail = part(
        id="B",
        quantity=3,
        length=40 * INCH,
        width=2 * INCH,
        thickness=INCH,
        stock="bought",
        species="pine",
    )
    edit(client, project, put_parts=[shelf, rail])
    needs = client.get(f"/api/projects/{project['pk']}/needs").get_json()
    (lengths,) = needs["lengths"]
    assert sorted(name for cut in lengths["cuts"] for name in cut) == ["B", "B", "B"]
    assert len(lengths["cuts"]) == lengths["lengths"]
    (plan,) = client.get(f"/api/projects/{project['pk']}/sheets").get_json()["plans"]
    assert (plan["sheets"], plan["least"], plan["unplaced"]) == (1, 1, 0)
    laid = [
        i["part"]
        for s in plan["cut"][0]
        for t in s["strips"]
        for k in t["blanks"]
        for layer in k["layers"]
        for i in layer
    ]
    assert laid == ["S", "S", "S"] and plan["boards"][0]["length"] == 96 * INCH


def test_without_a_database_it_says_so_and_is_still_itself(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    project = make(client)
    monkeypatch.setenv("PLANK_DATABASE", "postgresql://plank:x@127.0.0.1:1/plank")
    answer = edit(client, project, name="else")
    assert (
        answer.status_code == 503
        and "the database is starting; nothing was changed" in answer.get_json()["what"]
    )
    health = client.get("/api/health")
    assert health.status_code == 503 and health.get_json() == {
        "name": "vivid-plank",
        "database": False,
    }


def test_an_edit_whose_commit_got_no_answer_is_told_as_in_doubt(
    client: FlaskClient, database: str, cluster: Cluster, monkeypatch: pytest.MonkeyPatch
) -> None:
    project = make(client)

    def cut_off(connection: Any) -> None:
        pid = connection.connection.dbapi_connection.info.backend_pid
        sql(cluster, f"select pg_terminate_backend({pid})")

    event.listen(engine(database), "commit", cut_off)
    try:
        answer = edit(client, project, name="else")
    finally:
        event.remove(engine(database), "commit", cut_off)
    told = answer.get_json()["what"]
    assert (
        answer.status_code == 503
        and "may be kept or not" in told
        and "nothing was changed" not in told
    )
    assert client.get(f"/api/projects/{project['pk']}").status_code == 200


def test_a_full_disk_is_named_in_use(client: FlaskClient) -> None:
    project = make(client)
    with session() as opened:
        opened.execute(
            text(
                "create function no_room() returns trigger language plpgsql as "
                "$$ begin raise exception 'no room' using errcode = 'disk_full'; end $$"
            )
        )
        opened.execute(
            text(
                "create trigger no_room before update on project for each row execute function "
                "no_room()"
            )
        )
    answer = edit(client, project, name="else")
    assert (
        answer.status_code == 507
        and "the disk is full; nothing was changed" in answer.get_json()["what"]
    )


def test_what_fails_after_it_was_saved_is_not_called_unchanged(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    project = make(client)
    asking = client.application.extensions["asking"]

    def broken(pk: int) -> None:
        raise RuntimeError("broken")

    monkeypatch.setitem(client.application.extensions, "asking", replace(asking, read=broken))
    address = f"/api/projects/{project['pk']}/drawings"
    answer = client.post(address, data=b"name,length\nA,1\n", headers={"X-File-Name": "a.csv"})
    assert answer.status_code == 500 and "it was saved before that" in answer.get_json()["what"]


def test_what_a_heading_holds_is_asked_once_and_remembered_for_every_project(
    client: FlaskClient,
) -> None:
    first = make(client)
    text = "Ding;Zahl;Kante A;Kante B;Kante C\nZarge;2;1118;82;21\nBein;4;430;45;45"

    def listed(project: Any, **answers: Any) -> Any:
        body = {"text": text, "species": "ash", "answers": {"unit": "mm", **answers}}
        return client.post(f"/api/projects/{project['pk']}/read-list", json=body).get_json()

    asked = listed(first)
    assert [q["kind"] for q in asked["questions"]] == ["columns"]
    assert [(c["heading"], c["meaning"], c["sure"]) for c in asked["columns"]][2] == (
        "Kante A",
        "length",
        False,
    )
    turned = listed(first, columns={"Kante A": "width", "Kante B": "length"}, confirmed=True)
    assert turned["questions"] == [] and turned["parts"][0]["width"] == 1118 * 320
    meanings = {c["heading"]: c["meaning"] for c in asked["columns"]}
    assert client.put("/api/headings", json={"meanings": meanings}).status_code == 200
    again = listed(make(client))
    assert again["questions"] == [] and [p["length"] for p in again["parts"]] == [
        1118 * 320,
        430 * 320,
    ]
    assert asked["remembered"] == [] and again["remembered"] == [
        "Ding",
        "Zahl",
        "Kante A",
        "Kante B",
        "Kante C",
    ]
    assert client.put("/api/headings", json={"meanings": {"Ding": "colour"}}).status_code == 422


def test_only_an_edit_whose_commit_got_no_answer_is_in_doubt(
    client: FlaskClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    def gone(_: Session) -> None:
        raise OperationalError("commit", {}, Exception("server closed the connection"))

    monkeypatch.setattr(Session, "commit", gone)
    read = client.get("/api/projects")
    assert read.status_code == 503 and "may be kept or not" not in read.get_json()["what"]
    edit = client.post("/api/projects", json={"name": "Chest", "system": "in"})
    assert edit.status_code == 503 and "may be kept or not" in edit.get_json()["what"]
