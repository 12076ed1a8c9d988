"""The log through a real PostgreSQL: what happened is kept, and the rest is planned round it."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.web.test_api import INCH
from tests.web.test_plan_bench import items, stood
from vividplank.jobs.queue import lay_out

__all__ = ["stood"]
Stood = tuple[dict[str, Any], dict[str, Any]]


def steps_of(client: FlaskClient, project: dict[str, Any]) -> dict[str, dict[str, Any]]:
    found = client.get(f"/api/projects/{project['pk']}/milling").get_json()
    return {s["key"]: s for r in found["routes"] for s in r["steps"]}


def tick(client: FlaskClient, layout: int, key: str, done: bool = True, **more: int) -> None:
    body = {"key": key, "done": done, "minutes": 3, **more}
    assert client.put(f"/api/layouts/{layout}/steps", json=body).status_code == 204


def pieces(client: FlaskClient, layout: int) -> dict[str, dict[str, Any]]:
    found = client.get(f"/api/layouts/{layout}/pieces").get_json()["pieces"]
    return {p["mark"]: p for p in found}


def replan(client: FlaskClient, project: dict[str, Any]) -> dict[str, Any]:
    made = client.post(f"/api/projects/{project['pk']}/layout", json={"seconds": 1}).get_json()
    lay_out(made["pk"])
    answer = client.get(f"/api/projects/{project['pk']}/layout").get_json()
    assert answer["standing"]["pk"] == made["pk"], answer["latest"]["trouble"]
    now: dict[str, Any] = answer["standing"]
    assert not now["stale"]
    return now


def metal(piece: dict[str, Any]) -> dict[str, Any]:
    middle = piece["length"] // 2
    box = {"x0": middle, "x1": middle + INCH // 2, "y0": INCH, "y1": INCH + INCH // 2}
    return {
        "event": {
            "kind": "found",
            "piece": piece["mark"],
            "defect": {"kind": "metal", "face": "A", **box},
        }
    }


def test_the_log_keeps_how_many_passes_a_step_took(client: FlaskClient, stood: Stood) -> None:
    project, plan = stood
    key = next(iter(steps_of(client, project)))
    for passes in (5, 5, 4):  # the same twice is once; another count takes its place
        body = {"key": key, "done": True, "passes": passes}
        assert client.put(f"/api/layouts/{plan['pk']}/steps", json=body).status_code == 204
    log = client.get(f"/api/projects/{project['pk']}/log.json").get_json()
    said = [(e["kind"], e.get("passes")) for e in log["events"]]
    assert said == [("did", 5), ("void", None), ("did", 4)]


def test_a_log_kept_elsewhere_is_written_whole_or_not_at_all(
    client: FlaskClient, stood: Stood
) -> None:
    project, _ = stood
    base = f"/api/projects/{project['pk']}"
    steps = list(steps_of(client, project))
    at = "2026-03-02T09:30:00+00:00"
    lines: list[dict[str, Any]] = [
        {"n": 4, "at": at, "kind": "did", "step": steps[0], "who": "Wren", "minutes": 4}
        | {"passes": 2},
        {"n": 5, "kind": "did", "step": steps[1]},
        {"n": 6, "kind": "void", "event": 5},
        {"n": 7, "kind": "measured", "piece": "B2", "what": "moisture", "value": 9},
    ]
    paper = {"format": "vivid-plank/log", "version": 1, "unit": "in", "events": lines}
    wrong = {**paper, "events": [*lines, {"n": 8, "kind": "did", "step": "Z9/face"}]}
    refused = client.post(f"{base}/log.json", json=wrong)
    assert refused.status_code == 422 and refused.get_json()["where"] == "$.events[4]"
    assert client.get(f"{base}/log.json").get_json()["events"] == []
    undated = {**paper, "events": [{**lines[0], "at": "last Monday"}]}
    refused = client.post(f"{base}/log.json", json=undated)
    assert refused.status_code == 422 and refused.get_json()["where"] == "$.events[0].at"
    taken = client.post(f"{base}/log.json", json=paper)
    assert taken.status_code == 201 and taken.get_json() == {"events": 2}
    now = client.get(f"{base}/log.json").get_json()["events"]
    assert [(e["n"], e["kind"], e.get("who"), e.get("passes")) for e in now] == [
        (1, "did", "Wren", 2),
        (2, "measured", None, None),
    ]
    assert now[0]["at"] == at
    assert [k for k, s in steps_of(client, project).items() if s["done"]] == [steps[0]]
    # Again it cannot have happened otherwise: what is done is done, and is there once.
    assert client.post(f"{base}/log.json", json=paper).status_code == 201
    done = [e for e in client.get(f"{base}/log.json").get_json()["events"] if e["kind"] == "did"]
    assert len(done) == 1


def test_a_nail_at_the_jointer_and_the_rest_is_planned_round_it(
    client: FlaskClient, asked: list[int], stood: Stood
) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}"
    first = list(steps_of(client, project))[:3]
    for key in first:
        tick(client, plan["pk"], key)
    there = pieces(client, plan["pk"])
    mark = next(m for m, p in there.items() if p["state"] == "work" and p["items"])
    lost = there[mark]
    nowhere = metal({**lost, "mark": "X9"})
    assert client.post(f"/api/layouts/{plan['pk']}/events", json=nowhere).status_code == 422
    said = client.post(f"/api/layouts/{plan['pk']}/events", json=metal(lost))
    assert said.status_code == 201
    told = said.get_json()
    assert not told["fits"] and "metal found" in told["says"] and mark in told["says"]
    rest = client.get(f"{base}/rest").get_json()
    assert [f["piece"] for f in rest["freed"]] == [mark]
    assert client.get(f"{base}/log").get_json()["open"]

    now = replan(client, project)
    # What was done is done; the piece is a board by itself with the nail in it.
    steps = steps_of(client, project)
    assert [k for k in steps if steps[k]["done"]] == first
    board = next(b for b in now["boards"] if b["id"] == mark)
    assert board["came_from"] == lost["board"] and board["price"] == 0
    assert [d["kind"] for d in board["defects"]].count("metal") == 1
    # Every part is placed as often as it is wanted, beside what is given up.
    gone = set(lost["items"])
    placed = [
        f"{i['part']}{i['n']}" + (f"·{i['stave']}" if i["stave"] else "") for _, i in items(now)
    ]
    assert sorted(set(placed)) == sorted(placed)
    assert gone <= set(placed)
    assert not client.get(f"{base}/log").get_json()["open"]
    # Books close over what was bought.
    books = client.get(f"{base}/account").get_json()
    assert mark not in {b["board"] for b in books["boards"]}  # its wood is charged to its board
    assert books["rough"] == pytest.approx(sum(books["where"].values()))

    # What has really come of the boards cut so far stands beside what was planned for them.
    far = books["so_far"]
    assert far["rough"] == pytest.approx(sum(far["where"].values()))
    assert far["rough"] == pytest.approx(sum(far["planned"].values()))
    assert far["where"]["in work"] > 0 and far["planned"]["in work"] == 0
    assert sum(machine["taken"] for machine in far["labour"]) == pytest.approx(9)

    # Planned once more, nothing is done twice to what is a board by now.
    made = client.post(f"{base}/layout", json={"seconds": 1}).get_json()
    lay_out(made["pk"])
    rest = client.get(f"{base}/rest").get_json()
    assert rest["freed"] == [] and mark not in rest["begun"]
    board = pieces(client, client.get(f"{base}/layout").get_json()["standing"]["pk"])[mark]
    assert [f["kind"] for f in board["faults"]].count("metal") == 1

    # The event is taken back: the log keeps both.
    log = client.get(f"{base}/log").get_json()["events"]
    found = next(e for e in log if e["kind"] == "found")
    assert client.post(f"{base}/log/{found['n']}/void").status_code == 204
    log = client.get(f"{base}/log").get_json()["events"]
    assert [e["stands"] for e in log if e["n"] == found["n"]] == [False]
    assert client.post(f"{base}/log/999/void").status_code == 404


def test_a_tick_is_an_event_and_a_void_takes_it_back(client: FlaskClient, stood: Stood) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}"
    key = next(iter(steps_of(client, project)))
    tick(client, plan["pk"], key)
    (event,) = client.get(f"{base}/log").get_json()["events"]
    assert event["kind"] == "did" and key in event["says"]
    assert client.post(f"{base}/log/{event['n']}/void").status_code == 204
    assert not steps_of(client, project)[key]["done"]
    tick(client, plan["pk"], key)
    tick(client, plan["pk"], key, done=False)
    events = client.get(f"{base}/log").get_json()["events"]
    assert [(e["kind"], e["stands"]) for e in reversed(events)] == [
        ("did", False),
        ("void", False),
        ("did", False),
        ("void", False),
    ]
    file = client.get(f"{base}/log.json").get_json()
    assert file["format"] == "vivid-plank/log" and len(file["events"]) == 4
    assert all(e["at"] for e in file["events"])


def test_no_plan_from_before_undoes_a_cut(
    client: FlaskClient, asked: list[int], stood: Stood
) -> None:
    project, plan = stood
    for key in list(steps_of(client, project))[:2]:
        tick(client, plan["pk"], key)
    there = pieces(client, plan["pk"])
    mark = next(m for m, p in there.items() if p["state"] == "work" and p["items"])
    spoiled = {"event": {"kind": "spoiled", "piece": mark, "why": "split", "then": "scrap"}}
    assert client.post(f"/api/layouts/{plan['pk']}/events", json=spoiled).status_code == 201
    replan(client, project)
    refused = client.post(f"/api/projects/{project['pk']}/layout/undo")
    assert refused.status_code == 409 and "cut since" in refused.get_json()["what"]
    assert client.post(f"/api/layouts/{plan['pk']}/stand").status_code == 422


def test_a_fault_of_a_board_nobody_has_cut_is_of_its_survey(
    client: FlaskClient, asked: list[int], stood: Stood
) -> None:
    project, plan = stood
    there = pieces(client, plan["pk"])
    mark = next(m for m, p in there.items() if p["state"] == "rack")
    said = client.post(f"/api/layouts/{plan['pk']}/events", json=metal(there[mark]))
    assert said.status_code == 201
    board = next(
        b
        for b in client.get(f"/api/projects/{project['pk']}").get_json()["boards"]
        if b["id"] == mark
    )
    assert [d["kind"] for d in board["defects"]].count("metal") == 1
    now = replan(client, project)
    board = next(b for b in now["boards"] if b["id"] == mark)
    assert [d["kind"] for d in board["defects"]].count("metal") == 1


def test_a_piece_a_hair_too_thin_is_accepted_or_its_fellows_follow(
    client: FlaskClient, asked: list[int], stood: Stood
) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}"
    steps = steps_of(client, project)
    key = next(k for k, s in steps.items() if s["kind"] == "thickness")
    tick(client, plan["pk"], key)
    mark = steps[key]["gives"][0]
    read = steps[key]["stock_out"] - INCH // 16  # 1/32 more is for the panels among them
    thin = {"event": {"kind": "measured", "piece": mark, "what": "thickness", "value": read}}
    said = client.post(f"/api/layouts/{plan['pk']}/events", json=thin).get_json()
    assert not said["fits"] and said["short"]
    for short in said["short"]:
        assert (short["what"], short["there"]) == ("thickness", read) and short["wanted"] > read
    taken = {"event": {"kind": "accepted", "piece": mark}}
    told = client.post(f"/api/layouts/{plan['pk']}/events", json=taken).get_json()
    assert told["fits"] and told["short"] == []
    assert client.get(f"{base}/rest").get_json()["freed"] == []


def test_a_board_nobody_has_cut_is_measured_again(
    client: FlaskClient, asked: list[int], stood: Stood
) -> None:
    project, plan = stood
    mark = next(m for m, p in pieces(client, plan["pk"]).items() if p["state"] == "rack")
    cup = {"event": {"kind": "measured", "piece": mark, "what": "cup", "value": INCH // 16}}
    assert client.post(f"/api/layouts/{plan['pk']}/events", json=cup).status_code == 201
    boards = client.get(f"/api/projects/{project['pk']}").get_json()["boards"]
    assert next(b for b in boards if b["id"] == mark)["warp"]["cup"] == INCH // 16


def test_what_is_told_twice_with_its_moment_is_written_once(
    client: FlaskClient, stood: Stood
) -> None:
    project, plan = stood
    mark = next(iter(pieces(client, plan["pk"])))
    at = "2026-03-02T09:30:00.250Z"
    said = {**metal(pieces(client, plan["pk"])[mark]), "at": at}
    numbers = [
        client.post(f"/api/layouts/{plan['pk']}/events", json=body).get_json()["n"]
        for body in (said, said, {**said, "at": "2026-03-02T09:31:00Z"})
    ]
    assert numbers == [1, 1, 2]
    (second, first) = client.get(f"/api/projects/{project['pk']}/log").get_json()["events"]
    assert (first["n"], second["n"]) == (1, 2) and first["at"].startswith("2026-03-02T09:30:00")
    refused = client.post(f"/api/layouts/{plan['pk']}/events", json={**said, "at": "Monday"})
    assert refused.status_code == 422 and refused.get_json()["where"] == "$.at"
