"""Milling through a real PostgreSQL: steps and readings, the shop's settings, schools, days, passes, paper."""

from datetime import UTC, datetime, timedelta
from typing import Any

import icalendar
import pytest
from flask.testing import FlaskClient
from sqlalchemy import update

from tests.web.test_api import INCH, edit, make
from vividplank.jobs.queue import lay_out
from vividplank.store.database import session
from vividplank.store.models import StepDoneRow


@pytest.fixture
def stood(client: FlaskClient, asked: list[int]) -> dict[str, Any]:
    """The milling of a small project that is laid out."""
    project = make(client)
    made = client.post(f"/api/projects/{project['pk']}/layout", json={"seconds": 1}).get_json()
    lay_out(made["pk"])
    return {"project": project["pk"]} | milling(client, project["pk"])


def milling(client: FlaskClient, project: int) -> dict[str, Any]:
    found: dict[str, Any] = client.get(f"/api/projects/{project}/milling").get_json()
    return found


def steps(found: dict[str, Any]) -> list[dict[str, Any]]:
    return [s for r in found["routes"] for s in r["steps"]]


def tick(client: FlaskClient, found: dict[str, Any], key: str, **more: Any) -> None:
    answer = client.put(f"/api/layouts/{found['layout']}/steps", json={"key": key, "done": True} | more)
    assert answer.status_code == 204, answer.text


def test_only_what_nothing_waits_for_is_ready(client: FlaskClient, stood: dict[str, Any]) -> None:
    ready = [s["key"] for s in steps(stood) if s["ready"]]
    assert ready and all(k.endswith("/rough-length") for k in ready)
    tick(client, stood, ready[0], minutes=2.5)
    now = {s["key"]: s for s in steps(milling(client, stood["project"]))}
    assert now[ready[0]]["done"] and not now[ready[0]]["ready"]
    assert any(s["ready"] for s in now.values() if ready[0] in s["after"])
    places = {w["board"]: w["place"] for w in milling(client, stood["project"])["where"]}
    assert places[ready[0].split("/")[0]] == "rough" and set(places.values()) <= {"rack", "rough"}


def test_a_rest_is_waited_for_by_the_clock(client: FlaskClient, stood: dict[str, Any]) -> None:
    settings = client.get(f"/api/projects/{stood['project']}/milling-settings").get_json()["milling"]
    settings["school"] = "two-visits"
    assert client.put(f"/api/projects/{stood['project']}/milling-settings", json={"milling": settings}).status_code == 200
    found = milling(client, stood["project"])
    sticker = next(s for s in steps(found) if s["kind"] == "sticker")
    after = next(s for s in steps(found) if sticker["key"] in s["after"])
    tick(client, found, sticker["key"])
    resting = next(s for s in steps(milling(client, stood["project"])) if s["key"] == after["key"])
    assert not resting["ready"] and datetime.fromisoformat(resting["rests_until"]) > datetime.now(UTC) + timedelta(days=2)
    with session() as opened:
        opened.execute(update(StepDoneRow).values(at=datetime.now(UTC) - timedelta(days=4)))
    rested = next(s for s in steps(milling(client, stood["project"])) if s["key"] == after["key"])
    assert rested["ready"] and rested["rests_until"] == ""


def test_a_reading_says_how_to_go_on_and_is_kept(client: FlaskClient, stood: dict[str, Any]) -> None:
    plane = next(s for s in steps(stood) if s["kind"] == "thickness")

    def read(ticks: int) -> dict[str, Any]:
        told: dict[str, Any] = client.post(
            f"/api/layouts/{stood['layout']}/reading", json={"key": plane["key"], "reading": ticks}).get_json()
        return told

    assert read(plane["setting"])["state"] == "done"
    over = read(plane["setting"] + INCH // 32)
    assert over["state"] == "go on" and len(over["turns"]) == len(over["passes"]) and "quarter turn" in over["turns"][0]
    thin = read(plane["setting"] - INCH // 16)
    assert thin["state"] == "stop" and "too thin" in thin["says"] and thin["ways"]
    tick(client, stood, plane["key"], reading=plane["setting"])
    assert next(s for s in steps(milling(client, stood["project"])) if s["key"] == plane["key"])["reading"] == plane["setting"]
    nowhere = client.post(f"/api/layouts/{stood['layout']}/reading", json={"key": "Z9/face", "reading": 1})
    assert nowhere.status_code == 422 and nowhere.get_json()["where"] == "$.key"


def test_the_shop_is_entered_once_and_the_next_project_has_it(client: FlaskClient, stood: dict[str, Any]) -> None:
    base = f"/api/projects/{stood['project']}"
    settings = client.get(f"{base}/milling-settings").get_json()["milling"]
    settings["machines"]["jointer"]["bed_width"] = 6 * INCH
    settings["exceptions"] = {"B1": "by-hand"}
    assert client.put(f"{base}/milling-settings", json={"milling": settings}).get_json()["milling"] == settings
    other = make(client)
    taken = client.get(f"/api/projects/{other['pk']}/milling-settings").get_json()["milling"]
    assert taken["machines"]["jointer"]["bed_width"] == 6 * INCH and taken["exceptions"] == {}
    by_hand = [s for r in milling(client, stood["project"])["routes"] if r["board"] == "B1" for s in r["steps"]]
    assert by_hand and {s["machine"] for s in by_hand} <= {"hand plane", "handsaw", "bench"}


@pytest.mark.parametrize(("where", "value"), [
    (("machines", "planer", "width"), 0), (("machines", "planer", "width"), "wide"), (("school",), "by feel"),
    (("hours", "ends"), 3),
])
def test_a_shop_that_cannot_be_is_refused_and_the_old_one_stays(
    client: FlaskClient, stood: dict[str, Any], where: tuple[str, ...], value: object
) -> None:
    base = f"/api/projects/{stood['project']}/milling-settings"
    before = client.get(base).get_json()
    changed = client.get(base).get_json()["milling"]
    at = changed
    for name in where[:-1]:
        at = at[name]
    at[where[-1]] = value
    answer = client.put(base, json={"milling": changed})
    assert answer.status_code == 422 and "expected" in answer.get_json()["what"]
    assert client.get(base).get_json() == before


def test_schools_side_by_side(client: FlaskClient, stood: dict[str, Any]) -> None:
    found = client.get(f"/api/projects/{stood['project']}/schools").get_json()
    assert len(found["schools"]) == 7 and found["chosen"] == "plane-then-rip"
    assert found["advised"] in [s["school"] for s in found["schools"]] and "minutes" in found["why"]
    by_hand = next(s for s in found["schools"] if s["school"] == "by-hand")
    assert by_hand["setups"] == 0 and by_hand["by_hand"] > 0


def test_days_are_planned_moved_by_hand_and_go_out_as_calendar_and_paper(client: FlaskClient, stood: dict[str, Any]) -> None:
    base = f"/api/layouts/{stood['layout']}"
    assert client.get(f"{base}/days").get_json()["state"] == "none"
    assert client.get(f"{base}/days.ics").status_code == 409
    days = client.post(f"{base}/days", json={"begins": "2026-03-09"})
    assert days.status_code == 202
    found = client.get(f"{base}/days").get_json()
    assert found["state"] == "done" and not found["stale"]
    assert sorted(k for s in found["setups"] for k in s["steps"]) == sorted(s["key"] for s in steps(stood))
    assert found["least"] <= found["changes"] <= found["piece_by_piece"]
    assert all(found["opens"] <= s["from_clock"] <= found["opens"] + found["day_minutes"] for s in found["setups"])

    calendar = icalendar.Calendar.from_ical(client.get(f"{base}/days.ics").data)
    events = [e for e in calendar.walk("VEVENT")]
    assert len(events) >= len(found["setups"])
    first = min(e.decoded("dtstart") for e in events)
    assert first == datetime(2026, 3, 9, 8, 0) and all(e.decoded("dtend") > e.decoded("dtstart") for e in events)
    assert client.get(f"{base}/settings.pdf").data.startswith(b"%PDF")
    assert client.get(f"{base}/routes.pdf").data.startswith(b"%PDF")

    last = found["setups"][-1]
    name = last["setup"] if last["number"] == 1 else f"{last['setup']} {last['number']}"
    moved = client.post(f"{base}/days", json={"begins": "2026-03-09", "on_day": {name: 9}})
    assert moved.status_code == 202
    again = client.get(f"{base}/days").get_json()
    same = [s for s in again["setups"] if (s["setup"], s["number"]) == (last["setup"], last["number"])]
    assert [s["day"] for s in same] == [9] and again["on_day"] == {name: 9}
    # What cannot be says so, and the days that stood stay.
    client.post(f"{base}/days", json={"begins": "2026-03-09", "on_day": {"planer 9": 0}})
    refused = client.get(f"{base}/days").get_json()
    assert refused["state"] == "failed" and "no setting called planer 9" in refused["trouble"]
    assert refused["setups"] == again["setups"]


@pytest.mark.parametrize("begins", ["soon", "2026-13-40"])
def test_a_first_day_that_is_none_is_refused(client: FlaskClient, stood: dict[str, Any], begins: str) -> None:
    assert client.post(f"/api/layouts/{stood['layout']}/days", json={"begins": begins}).status_code == 422


def test_what_is_done_is_not_planned_again_and_a_change_makes_days_stale(client: FlaskClient, stood: dict[str, Any]) -> None:
    base = f"/api/layouts/{stood['layout']}"
    first = next(s["key"] for s in steps(stood) if s["ready"])
    tick(client, stood, first)
    client.post(f"{base}/days", json={"begins": "2026-03-09"})
    found = client.get(f"{base}/days").get_json()
    assert first not in [k for s in found["setups"] for k in s["steps"]] and not found["stale"]
    settings = client.get(f"/api/projects/{stood['project']}/milling-settings").get_json()["milling"]
    client.put(f"/api/projects/{stood['project']}/milling-settings", json={"milling": settings | {"school": "seven-steps"}})
    assert client.get(f"{base}/days").get_json()["stale"]
    assert client.get(f"{base}/days.ics").status_code == 409


def test_the_shop_s_own_times_are_learnt(client: FlaskClient, stood: dict[str, Any]) -> None:
    saw = [s for s in steps(stood) if s["machine"] == "crosscut saw"]
    assert len(saw) >= 6
    for s in saw[:5]:
        tick(client, stood, s["key"], minutes=3 * s["minutes"])
    after = {s["key"]: s["minutes"] for s in steps(milling(client, stood["project"]))}
    assert after[saw[5]["key"]] == pytest.approx(3 * saw[5]["minutes"], rel=0.02)


def test_passes_are_shown_the_right_way_and_the_wrong(client: FlaskClient, stood: dict[str, Any]) -> None:
    piece = next(s["piece"] for s in steps(stood) if s["kind"] == "face")
    url = f"/api/layouts/{stood['layout']}/passes"
    right = client.post(url, json={"piece": piece}).get_json()
    shares = [f["clean"] for f in right["frames"]]
    assert shares == sorted(shares) and right["enough"] > 0 and right["down"] in "AB"
    assert len(right["frames"][0]["lines"]) > len(right["frames"][0]["lines"][0]) > 1
    planed = client.post(url, json={"piece": piece, "machine": "planer"}).get_json()
    assert planed["says"]
    assert client.post(url, json={"piece": "Z9.1"}).get_json()["where"] == "$.piece"
    assert client.post(url, json={"piece": piece, "depth": 0}).status_code == 422


def test_the_planers_readout_shows_its_setting_and_is_off_by_as_much_every_time(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/layouts/{stood['layout']}"
    plane = next(s for s in steps(stood) if s["kind"] == "thickness")
    ask = {"key": plane["key"], "reading": plane["readings"][-1], "instrument": "readout"}
    unconnected = client.post(f"{base}/caliper", json=ask)
    assert unconnected.status_code == 422 and unconnected.get_json()["where"] == "$.shop.instruments.readout"
    project = client.get(f"/api/projects/{stood['project']}").get_json()
    shop = project["shop"] | {"instruments": project["shop"]["instruments"] | {"readout": "simulated"}}
    assert edit(client, project, shop=shop).status_code == 200
    answers = [client.post(f"{base}/caliper", json=ask).get_json() for _ in range(60)]
    read = [a["reading"] - ask["reading"] for a in answers if a["reading"] is not None]
    assert len(read) > 50 and 0.002 * INCH < sum(read) / len(read) < 0.004 * INCH and max(read) < 0.008 * INCH


def test_the_caliper_at_the_machine_reads_what_the_passes_left(client: FlaskClient, stood: dict[str, Any]) -> None:
    base = f"/api/layouts/{stood['layout']}"
    plane = next(s for s in steps(stood) if s["kind"] == "thickness")
    ask = {"key": plane["key"], "reading": plane["readings"][0]}
    unconnected = client.post(f"{base}/caliper", json=ask)
    assert unconnected.status_code == 422 and "connected" in unconnected.get_json()["what"]
    project = client.get(f"/api/projects/{stood['project']}").get_json()
    name = client.get("/api/instruments").get_json()["caliper"][0]["name"]
    shop = project["shop"] | {"instruments": project["shop"]["instruments"] | {"caliper": name}}
    assert edit(client, project, shop=shop).status_code == 200
    answers = [client.post(f"{base}/caliper", json=ask).get_json() for _ in range(40)]
    read = [a["reading"] for a in answers if a["reading"] is not None]
    assert len(read) > 30 and all(abs(r - ask["reading"]) < INCH / 100 for r in read) and len(set(read)) > 1
    assert all("Read again" in a["trouble"] for a in answers if a["reading"] is None)
    assert client.post(f"{base}/caliper", json=ask | {"key": "Z9/face"}).status_code == 422


def test_a_fitted_part_is_held_until_its_measure_comes_from_the_work(client: FlaskClient, asked: list[int]) -> None:
    project = make(client)
    fitted = [p | {"fitted": True} for p in project["parts"] if p["id"] == "A"]
    project = edit(client, project, put_parts=fitted).get_json()
    made = client.post(f"/api/projects/{project['pk']}/layout", json={"seconds": 1}).get_json()
    lay_out(made["pk"])
    held = [s for s in steps(milling(client, project["pk"])) if s["kind"] == "fit-A"]
    assert held and all(s["setting"] == 0 and s["set_to"] == "cut to the work" for s in held)
    base = f"/api/projects/{project['pk']}/milling-settings"
    settings = client.get(base).get_json()["milling"]
    client.put(base, json={"milling": settings | {"fitted": {"A1": 155 * INCH // 8}}})
    now = steps(milling(client, project["pk"]))
    (cut,) = [s for s in now if s["kind"] == "length-A"]
    assert cut["setting"] == 155 * INCH // 8 and "A1" in cut["do"]
    places = {w["mark"]: w["place"] for w in milling(client, project["pk"])["where"]}
    for s in now:
        if s["board"] == cut["board"] and not s["kind"].startswith(("length", "fit")):
            tick(client, milling(client, project["pk"]), s["key"])
    places = {w["mark"]: w["place"] for w in milling(client, project["pk"])["where"]}
    assert places["A1"] in ("milled", "held long")
    tick(client, milling(client, project["pk"]), cut["key"])
    assert {w["mark"]: w["place"] for w in milling(client, project["pk"])["where"]}["A1"] == "finished"
