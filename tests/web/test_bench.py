"""At the bench through the API: instruments, photographs, the stock room."""

from typing import Any

import pytest
from flask.testing import FlaskClient

from tests.core.layout.model.test_audit import JOB
from tests.making import a_board
from tests.photograph import photographed
from tests.web.test_api import connect, edit, make
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.jobs.queue import lay_out


def laid_out(client: FlaskClient, asked: list[int]) -> dict[str, Any]:
    project = make(client)
    lay_out(
        client.post(f"/api/projects/{project['pk']}/layout", json={"seconds": 1}).get_json()["pk"]
    )
    return project


ALL = {
    "caliper": "simulated",
    "moisture": "simulated",
    "metal": "simulated",
    "scanner": "simulated",
}


def connected(client: FlaskClient) -> dict[str, Any]:
    project = make(client)
    connect(client, project["pk"], **ALL)
    return project


def post(client: FlaskClient, project: dict[str, Any], what: str, **body: Any) -> Any:
    """Asked again where the instrument got nothing: it does that now and then."""
    for _ in range(6):
        found = client.post(f"/api/projects/{project['pk']}/{what}", json=body).get_json()
        if not found.get("trouble"):
            return found
    raise AssertionError(found)


def test_readings_come_from_what_is_connected(client: FlaskClient) -> None:
    assert [o["name"] for o in client.get("/api/instruments").get_json()["scanner"]] == [
        "simulated"
    ]
    project = make(client)
    board = project["boards"][0]
    refused = client.post(f"/api/projects/{project['pk']}/scan", json={"board": board})
    assert refused.status_code == 422 and "not connected" in refused.get_json()["what"]
    project = connected(client)
    read = post(client, project, "readings/thickness", board=board, x=5 * INCH, y=INCH)
    assert read["thickness"] == pytest.approx(board["stations"][0]["t0"], rel=0.05)
    assert (
        4
        <= post(client, project, "readings/moisture", board=board, x=0, y=0, day=20_000)["percent"]
        < 20
    )
    swept = post(client, project, "sweep", board=board)
    assert ("along" in swept["said"]) == bool(swept["places"])


def test_a_scan_becomes_the_board_and_its_flat_thickness(client: FlaskClient) -> None:
    project = connected(client)
    board = project["boards"][0]
    found = post(client, project, "scan", board=board)
    scanned = board | {"surface": found["surface"], "warp": {"bow": 0, "cup": 0, "twist": 0}}
    kept = edit(client, project, put_boards=[scanned]).get_json()["boards"][0]
    assert kept["surface"] == found["surface"]
    look = client.post(f"/api/projects/{project['pk']}/look", json={"board": kept}).get_json()
    assert look["warp"] == found["warp"] and look["causes"].startswith("It loses")
    tried = client.post(
        f"/api/projects/{project['pk']}/cuts", json={"board": kept, "places": [30 * INCH]}
    ).get_json()["pieces"]
    assert len(tried) == 2 and len(tried[0]["below"]) == 40 and len(tried[0]["above"][0]) == 8
    # What comes off and what stays make up the thickness, give or take what flattening leaves low.
    assert max(max(row) for row in tried[0]["below"]) <= tried[0]["takes_below"] + 2


def test_a_survey_is_kept_whole_and_undone(client: FlaskClient) -> None:
    project = make(client)
    board = project["boards"][0]
    long = board["length"]
    surveyed = board | {
        "stations": [s | {"between": [8000]} for s in board["stations"]],
        "defects": [
            {
                "kind": "wane",
                "face": "A",
                "x0": 0,
                "x1": INCH,
                "y0": 0,
                "y1": INCH,
                "shape": "outline",
                "severity": "grave",
                "points": [[0, 0], [INCH, 0], [0, INCH]],
            }
        ],
        "grain": {
            "datum_edge": 0.06,
            "far_edge": -0.02,
            "across": 0.01,
            "rings": 70,
            "heart": "A",
            "zones": [{"figure": "quarter", "x0": 0, "x1": long, "y0": 0, "y1": INCH}],
        },
        "dressed": ["A"],
        "grade": "FAS",
        "searched": True,
        "moisture": [
            {"percent": 9, "day": 20_000, "x": 5, "y": 5},
            {"percent": 12.5, "day": 20_000, "x": 50, "y": 5},
        ],
    }
    kept = edit(client, project, put_boards=[surveyed]).get_json()
    assert kept["boards"][0] == surveyed
    look = client.post(
        f"/api/projects/{project['pk']}/look", json={"board": kept["boards"][0]}
    ).get_json()
    assert look["sawn"] == "quarter-sawn" and any("disagree" in f for f in look["feed"])
    survey = client.post(
        f"/api/projects/{project['pk']}/survey", json={"board": kept["boards"][0]}
    ).get_json()
    assert survey["rest"]["uneven"] == 3.5 and survey["clear_feet"] > 0
    out = client.get(f"/api/projects/{project['pk']}/job.json").get_json()
    assert out["version"] == 2 and out["boards"][0]["defects"][0]["shape"] == "outline"
    back = client.post(
        f"/api/projects/{project['pk']}/undo", json={"version": kept["version"]}
    ).get_json()
    assert back["boards"] == project["boards"]


@pytest.mark.parametrize(
    ("change", "where", "what"),
    [
        (
            {
                "defects": [
                    {
                        "kind": "wane",
                        "face": "A",
                        "x0": 0,
                        "x1": 9,
                        "y0": 0,
                        "y1": 9,
                        "shape": "outline",
                        "points": [[0, 0], [9, 9], [9, 0], [0, 9]],
                    }
                ]
            },
            "defects[0].points",
            "crosses or touches itself",
        ),
        (
            {
                "stations": [
                    {"x": 0, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                    {"x": 60 * INCH, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                    {"x": 30 * INCH, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                ]
            },
            "stations[2].x",
            "board's length",
        ),
        (
            {
                "stations": [
                    {"x": 0, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                    {"x": 50 * INCH, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                    {"x": 40 * INCH, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                    {"x": 60 * INCH, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                ]
            },
            "stations[2].x",
            "in order along the board",
        ),
        (
            {
                "stations": [
                    {"x": 0, "y0": 0, "y1": 9, "t0": 0, "t1": 9},
                    {"x": 60 * INCH, "y0": 0, "y1": 9, "t0": 9, "t1": 9},
                ]
            },
            "stations[0].t0",
            "more than nothing",
        ),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_lost(
    client: FlaskClient, change: dict[str, Any], where: str, what: str
) -> None:
    project = make(client)
    answer = edit(client, project, put_boards=[project["boards"][0] | change])
    told = answer.get_json()
    assert answer.status_code == 422 and where in told["where"] and what in told["what"]
    assert client.get(f"/api/projects/{project['pk']}").get_json()["boards"] == project["boards"]


def test_a_fault_off_the_board_is_pointed_out(client: FlaskClient) -> None:
    project = make(client)
    off = {"kind": "rot", "face": "A", "x0": 900 * INCH, "x1": 901 * INCH, "y0": 0, "y1": INCH}
    board = project["boards"][0] | {"defects": [*project["boards"][0]["defects"], off]}
    look = client.post(f"/api/projects/{project['pk']}/look", json={"board": board}).get_json()
    assert look["outside"] == [len(board["defects"]) - 1]


def test_a_photograph_is_straightened_and_goes_with_its_board(client: FlaskClient) -> None:
    project = make(client)
    taken = photographed(a_board(), (20, 3))
    added = client.post(f"/api/projects/{project['pk']}/pictures", data=taken.jpeg)
    assert added.status_code == 201
    picture = added.get_json()["picture"]
    assert client.get(f"/api/pictures/{picture}/straight").status_code == 404
    body = {"board": project["boards"][0], "face": "A", "corners": taken.corners}
    assert (
        client.post(f"/api/pictures/{picture}/straighten", json=body).get_json()["straight"] is True
    )
    assert client.get(f"/api/pictures/{picture}/straight").mimetype == "image/jpeg"
    refused = client.post(
        f"/api/pictures/{picture}/straighten", json=body | {"corners": taken.corners[::-1]}
    )
    assert refused.status_code == 422 and "other face" in refused.get_json()["what"]
    none = client.post(f"/api/projects/{project['pk']}/pictures", data=b"no picture at all")
    assert none.status_code == 422 and "no photograph" in none.get_json()["what"]
    kept = edit(
        client,
        project,
        put_boards=[project["boards"][0] | {"photos": [{"face": "A", "picture": picture}]}],
    ).get_json()
    rack = client.get("/api/stock").get_json()["rack"]
    carried = {
        "project": project["pk"],
        "version": kept["version"],
        "board": kept["boards"][0]["id"],
        "to_project": rack,
    }
    assert client.post("/api/stock/carry", json=carried).status_code == 200
    now = client.get(f"/api/projects/{project['pk']}").get_json()
    client.delete(f"/api/projects/{project['pk']}", json={"version": now["version"]})
    assert (
        client.get(f"/api/pictures/{picture}/straight").status_code == 200
    )  # its board is on the rack with it
    on_rack = client.get(f"/api/projects/{rack}").get_json()
    assert on_rack["rack"] is True and on_rack["boards"][0]["photos"] == [
        {"face": "A", "picture": picture}
    ]


def test_the_stock_room_finds_a_board_by_what_it_holds(client: FlaskClient) -> None:
    project = make(client)
    assert client.get("/api/projects").get_json()["projects"][0]["pk"] == project["pk"]
    everything = client.get("/api/stock").get_json()["boards"]
    assert [b["id"] for b in everything] == [b["id"] for b in JOB["boards"]]
    assert all(b["state"] == "free" and b["flat"] > 0 and b["clear"] > 0 for b in everything)
    asked = {"thickness": INCH * 3 // 4, "length": 30 * INCH, "width": 3 * INCH}
    found = client.get("/api/stock", query_string=asked).get_json()["boards"]
    assert found and all(b["place"]["x1"] - b["place"]["x0"] == 30 * INCH for b in found)
    assert (
        client.get("/api/stock", query_string=asked | {"length": 900 * INCH}).get_json()["boards"]
        == []
    )
    assert client.get("/api/stock", query_string={"wood": "walnut"}).get_json()["boards"] == []
    assert (
        len(client.get("/api/projects").get_json()["projects"]) == 1
    )  # the rack is no project on the shelf
    assert client.get("/api/stock/labels").data.startswith(b"%PDF")


def test_a_board_is_carried_and_its_mark_kept_apart(client: FlaskClient) -> None:
    here, there = make(client), make(client)
    carried = {
        "project": here["pk"],
        "version": here["version"],
        "board": JOB["boards"][0]["id"],
        "to_project": there["pk"],
    }
    assert client.post("/api/stock/carry", json=carried).get_json() == {
        "id": f"{JOB['boards'][0]['id']}.2"
    }
    assert (
        client.post("/api/stock/carry", json=carried).status_code == 404
    )  # it is not there any more
    moved = client.get(f"/api/projects/{there['pk']}").get_json()["boards"][-1]
    assert moved | {"id": JOB["boards"][0]["id"]} == here["boards"][0]
    assert client.post(
        "/api/stock/carry", json=carried | {"to_project": here["pk"]}
    ).status_code in (404, 409, 422)


def test_with_its_last_step_a_board_is_cut_up_and_its_offcuts_go_to_the_rack(
    client: FlaskClient, asked: list[int]
) -> None:
    project = laid_out(client, asked)
    # This shop keeps every stick, whatever the plan leaves.
    keeps = project["shop"] | {"keep": {"length": 3 * INCH, "width": INCH // 2}}
    project = edit(client, project, shop=keeps).get_json()
    milling = client.get(f"/api/projects/{project['pk']}/milling").get_json()
    cut = milling["routes"][0]
    for step in cut["steps"]:
        assert not any(b["rack"] for b in client.get("/api/stock").get_json()["boards"])
        client.put(
            f"/api/layouts/{milling['layout']}/steps", json={"key": step["key"], "done": True}
        )
    stock = client.get("/api/stock").get_json()["boards"]
    offcuts = [b for b in stock if b["rack"]]
    assert offcuts and all(
        b["id"].startswith(cut["board"]) and "offcut of" in b["note"] for b in offcuts
    )
    gone = next(b for b in stock if b["id"] == cut["board"])
    assert gone["state"] == "cut" and gone["used_for"]
    refused = client.post(
        "/api/stock/carry",
        json={
            "project": project["pk"],
            "version": gone["version"],
            "board": cut["board"],
            "to_project": offcuts[0]["project"],
        },
    )
    assert refused.status_code == 422 and "cut up" in refused.get_json()["what"]
    # Once more is not twice.
    client.put(
        f"/api/layouts/{milling['layout']}/steps",
        json={"key": cut["steps"][-1]["key"], "done": True},
    )
    assert len([b for b in client.get("/api/stock").get_json()["boards"] if b["rack"]]) == len(
        offcuts
    )
