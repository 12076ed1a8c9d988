"""The bench of a plan through a real PostgreSQL: moves, what is held, undo, names."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.making import a_board
from tests.web.test_api import INCH, edit, part
from vividplank.jobs.queue import lay_out


@pytest.fixture
def stood(client: FlaskClient) -> tuple[dict[str, Any], dict[str, Any]]:
    """A project of three rails and its plan as it stands."""
    (there,) = client.get("/api/projects").get_json()["projects"]
    project = client.get(f"/api/projects/{there['pk']}").get_json()
    return project, client.get(f"/api/projects/{project['pk']}/layout").get_json()["standing"]


def items(layout: dict[str, Any]) -> list[tuple[str, dict[str, Any]]]:
    return [
        (b["board"], item)
        for b in layout["plan"]["boards"]
        for s in b["segments"]
        for t in s["strips"]
        for k in t["blanks"]
        for layer in k["layers"]
        for item in layer
    ]


def single(layout: dict[str, Any]) -> tuple[str, dict[str, Any]]:
    """A piece that is no stave and where it lies."""
    return next((b, i) for b, i in items(layout) if not i["stave"])


def test_a_move_is_tried_then_made_then_undone(
    client: FlaskClient, stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}/layout"
    _, item = single(plan)
    taking = {"kind": "take-up", "item": item}
    tried = client.post(f"/api/layouts/{plan['pk']}/try", json=taking).get_json()
    assert tried["holds"] and tried["unplaced"] >= 1 and tried["yields"] < tried["yields_before"]
    assert client.get(base).get_json()["standing"]["pk"] == plan["pk"]  # tried is not made

    made = client.post(f"/api/layouts/{plan['pk']}/move", json=taking)
    assert made.status_code == 201 and made.get_json()["made_by"] == "hand"
    now = client.get(base).get_json()
    assert now["standing"]["pk"] == made.get_json()["pk"] and (now["undos"], now["redos"]) == (1, 0)
    assert any("in the tray" in u["why"] for u in now["standing"]["plan"]["unplaced"])
    # The plan it was made from no longer stands, so a second move on it is refused.
    assert client.post(f"/api/layouts/{plan['pk']}/move", json=taking).status_code == 409

    assert client.post(f"{base}/undo").get_json()["pk"] == plan["pk"]
    assert client.get(base).get_json()["redos"] == 1
    assert client.post(f"{base}/redo").get_json()["pk"] == now["standing"]["pk"]
    client.post(f"{base}/undo")
    assert client.post(f"{base}/undo").status_code == 409


def test_what_has_been_cut_is_not_moved(
    client: FlaskClient, stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    project, plan = stood
    board, item = single(plan)
    milling = client.get(f"/api/projects/{project['pk']}/milling").get_json()
    step = next(r for r in milling["routes"] if r["board"] == board)["steps"][0]["key"]
    ticked = {"key": step, "done": True}
    assert client.put(f"/api/layouts/{plan['pk']}/steps", json=ticked).status_code == 204
    taking = {"kind": "take-up", "item": item}
    tried = client.post(f"/api/layouts/{plan['pk']}/try", json=taking).get_json()
    assert not tried["holds"] and tried["why"].startswith(f"{board} has been cut into")
    assert client.post(f"/api/layouts/{plan['pk']}/move", json=taking).status_code == 422
    laying = {"kind": "lay-down", "item": item, "board": board, "x": 0, "y": 0}
    assert client.post(f"/api/layouts/{plan['pk']}/move", json=laying).status_code == 422
    client.put(f"/api/layouts/{plan['pk']}/steps", json=ticked | {"done": False})
    assert client.post(f"/api/layouts/{plan['pk']}/move", json=taking).status_code == 201


def test_what_stands_against_a_move_is_said(
    client: FlaskClient, stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    _, plan = stood
    board, item = single(plan)
    nowhere = {"kind": "lay-down", "item": item, "board": "no board", "x": 0, "y": 0}
    tried = client.post(f"/api/layouts/{plan['pk']}/try", json=nowhere).get_json()
    assert (
        not tried["holds"]
        and tried["why"] == "there is no board no board"
        and tried["cost"] == tried["cost_before"]
    )
    refused = client.post(f"/api/layouts/{plan['pk']}/move", json=nowhere)
    assert refused.status_code == 422 and "no board" in refused.get_json()["what"]
    assert (
        client.post(
            f"/api/layouts/{plan['pk']}/move", json={"kind": "swap", "item": item}
        ).status_code
        == 422
    )

    held = client.put(f"/api/layouts/{plan['pk']}/fixings", json={"pins": [item]}).get_json()
    for kind in ("take-up", "turn"):
        tried = client.post(
            f"/api/layouts/{held['pk']}/try", json={"kind": kind, "item": item}
        ).get_json()
        assert tried["why"] == "it is pinned; loosen the pin first"
    assert board in {b["board"] for b in held["plan"]["boards"]}


def test_the_rest_is_solved_round_what_is_held(
    client: FlaskClient, asked: list[int], stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}/layout"
    board, item = single(plan)
    other = next(
        (
            b["id"]
            for b in plan["boards"]
            if b["id"] != board and b["id"] not in {n for n, _ in items(plan)}
        ),
        None,
    )
    zone = {"board": board, "x0": 0, "x1": INCH, "y0": 0, "y1": INCH}
    body = {
        "pins": [item],
        "forbidden": [zone],
        "excluded": [other] if other else [],
        "priority": [item["part"]],
    }
    body["begun"] = []
    assert client.put(f"/api/layouts/{plan['pk']}/fixings", json=body).get_json()["fixings"] == body
    made = client.post(base, json={"seconds": 1}).get_json()
    assert made["fixings"] == body
    lay_out(made["pk"])
    now = client.get(base).get_json()["standing"]
    assert (board, item) in items(now)
    for place in (
        {"excluded": ["X"]},
        {"forbidden": [zone | {"x1": 0}]},
        {"forbidden": [zone | {"board": "X"}]},
    ):
        assert client.put(f"/api/layouts/{now['pk']}/fixings", json=place).status_code == 422


def test_a_new_search_keeps_what_is_cut_and_its_ticks(
    client: FlaskClient, asked: list[int], stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}"
    board, _ = single(plan)
    route = next(
        r for r in client.get(f"{base}/milling").get_json()["routes"] if r["board"] == board
    )
    for step in route["steps"][:3]:
        ticked = {"key": step["key"], "done": True, "reading": 7 if step["setting"] else None}
        client.put(f"/api/layouts/{plan['pk']}/steps", json=ticked)
    # Another board, and one part more: what is cut stays, its ticks too.
    more = a_board("X9", length=90, width=8)
    part = project["parts"][0] | {"id": "NEW", "quantity": 1, "panel": None, "run": ""}
    station = {"y0": 0, "y1": more.stations[0].y1, "t0": INCH, "t1": INCH}
    put = {
        "id": "X9",
        "species": part["species"],
        "length": more.length,
        "stations": [{"x": 0, **station}, {"x": more.length, **station}],
    }
    edit(client, project, put_boards=[put], put_parts=[part])
    made = client.post(f"{base}/layout", json={"seconds": 1}).get_json()
    assert made["fixings"]["begun"] == [board]
    lay_out(made["pk"])
    now = client.get(f"{base}/layout").get_json()["standing"]
    assert now["pk"] == made["pk"]
    cut = next(b for b in plan["plan"]["boards"] if b["board"] == board)
    assert cut in now["plan"]["boards"]
    steps = {
        s["key"]: s for r in client.get(f"{base}/milling").get_json()["routes"] for s in r["steps"]
    }
    assert [s for s in steps if steps[s]["done"]] == [s["key"] for s in route["steps"][:3]]


def test_plans_with_names_are_kept_and_stand_again(
    client: FlaskClient, stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    project, plan = stood
    base = f"/api/projects/{project['pk']}"
    client.put(f"/api/layouts/{plan['pk']}/name", json={"name": " as found "})
    _, item = single(plan)
    client.post(f"/api/layouts/{plan['pk']}/move", json={"kind": "take-up", "item": item})
    (kept,) = client.get(f"{base}/plans").get_json()["plans"]
    assert (kept["name"], kept["unplaced"], kept["stale"]) == ("as found", 0, False)
    again = client.post(f"/api/layouts/{kept['pk']}/stand").get_json()
    assert client.get(f"{base}/layout").get_json()["standing"]["pk"] == again["pk"]
    assert again["plan"] == client.get(f"/api/layouts/{plan['pk']}").get_json()["plan"]


def test_a_stale_plan_is_not_argued_with(
    client: FlaskClient, stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    project, plan = stood
    edit(client, project, put_parts=[part("Z", quantity=1, length=20 * INCH)])
    _, item = single(plan)
    refused = client.post(f"/api/layouts/{plan['pk']}/move", json={"kind": "take-up", "item": item})
    assert refused.status_code == 422 and "laid out again" in refused.get_json()["what"]


def test_what_else_might_be_cheaper_is_thought_about_when_asked(
    client: FlaskClient, stood: tuple[dict[str, Any], dict[str, Any]]
) -> None:
    _, plan = stood
    place = f"/api/layouts/{plan['pk']}/what-ifs"
    assert client.get(place).get_json() == {"asked": False, "done": False, "found": []}
    asked = client.post(place)
    assert asked.status_code == 202
    found = client.get(place).get_json()
    assert found["asked"] and found["done"]
    assert all(t["placed"] > 0 or t["saves"] > 0 for t in found["found"])
    assert [(-t["placed"], -t["saves"]) for t in found["found"]] == sorted(
        (-t["placed"], -t["saves"]) for t in found["found"]
    )
    # One more of the dearest board, for nothing, saves something.
    assert any(t["kind"] == "board" for t in found["found"])
