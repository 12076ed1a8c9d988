"""Milling through a real PostgreSQL: steps and readings, the shop's settings, schools, days,
passes, paper.
"""

import threading
from datetime import UTC, datetime, timedelta
from typing import Any

import icalendar
import pypdfium2
import pytest
from flask.testing import FlaskClient
from sqlalchemy import text, update

from tests.waiting import until
from tests.web.test_api import INCH, connect, edit, make
from vividplank.jobs.queue import lay_out
from vividplank.store import layouts
from vividplank.store.database import session
from vividplank.store.models import StepDoneRow


@pytest.fixture
def stood(client: FlaskClient) -> dict[str, Any]:
    """The milling of a small project that is laid out."""
    (project,) = client.get("/api/projects").get_json()["projects"]
    return {"project": project["pk"]} | milling(client, project["pk"])


def milling(client: FlaskClient, project: int) -> dict[str, Any]:
    found: dict[str, Any] = client.get(f"/api/projects/{project}/milling").get_json()
    return found


def set_milling(client: FlaskClient, project: int, **values: Any) -> None:
    base = f"/api/projects/{project}/milling-settings"
    now = client.get(base).get_json()
    answer = client.put(base, json=now | {"milling": now["milling"] | values})
    assert answer.status_code == 200, answer.text


def steps(found: dict[str, Any]) -> list[dict[str, Any]]:
    return [s for r in found["routes"] for s in r["steps"]]


def tick(client: FlaskClient, found: dict[str, Any], key: str, **more: Any) -> None:
    answer = client.put(
        f"/api/layouts/{found['layout']}/steps", json={"key": key, "done": True} | more
    )
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


def test_a_board_that_is_being_cut_is_chalked_no_more(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    def paper() -> str:
        (page,) = pypdfium2.PdfDocument(
            client.get(f"/api/layouts/{stood['layout']}/chalk.pdf").data
        )
        return str(page.get_textpage().get_text_bounded())

    assert "Square across" in paper()
    tick(client, stood, next(s["key"] for s in steps(stood) if s["ready"]))
    assert "nothing to mark any more" in paper() and "Square across" not in paper()


def test_a_rest_is_waited_for_by_the_clock(client: FlaskClient, stood: dict[str, Any]) -> None:
    set_milling(client, stood["project"], school="two-visits")
    found = milling(client, stood["project"])
    sticker = next(s for s in steps(found) if s["kind"] == "sticker")
    after = next(s for s in steps(found) if sticker["key"] in s["after"])
    tick(client, found, sticker["key"])
    resting = next(s for s in steps(milling(client, stood["project"])) if s["key"] == after["key"])
    rest = timedelta(minutes=sticker["hold"])  # which pieces rest, and how long, is the plan's
    over = datetime.fromisoformat(resting["rests_until"])
    assert rest >= timedelta(days=1) and not resting["ready"]
    assert abs(over - (datetime.now(UTC) + rest)) < timedelta(minutes=5)
    with session() as opened:
        long_ago = datetime.now(UTC) - rest - timedelta(hours=1)
        opened.execute(update(StepDoneRow).values(at=long_ago))
    rested = next(s for s in steps(milling(client, stood["project"])) if s["key"] == after["key"])
    assert rested["ready"] and rested["rests_until"] == ""


def test_a_reading_says_how_to_go_on_and_is_kept(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    plane = next(s for s in steps(stood) if s["kind"] == "thickness")

    def read(ticks: int) -> dict[str, Any]:
        told: dict[str, Any] = client.post(
            f"/api/layouts/{stood['layout']}/reading", json={"key": plane["key"], "reading": ticks}
        ).get_json()
        return told

    assert read(plane["setting"])["state"] == "done"
    over = read(plane["setting"] + INCH // 32)
    assert (
        over["state"] == "go on"
        and len(over["turns"]) == len(over["passes"])
        and "quarter turn" in over["turns"][0]
    )
    thin = read(plane["setting"] - INCH // 16)
    assert thin["state"] == "stop" and "too thin" in thin["says"] and thin["ways"]
    tick(client, stood, plane["key"], reading=plane["setting"])
    assert (
        next(s for s in steps(milling(client, stood["project"])) if s["key"] == plane["key"])[
            "reading"
        ]
        == plane["setting"]
    )
    nowhere = client.post(
        f"/api/layouts/{stood['layout']}/reading", json={"key": "Z9/face", "reading": 1}
    )
    assert nowhere.status_code == 422 and nowhere.get_json()["where"] == "$.key"


def test_the_shop_is_entered_once_and_every_project_in_it_has_it(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/projects/{stood['project']}"
    settings = client.get(f"{base}/milling-settings").get_json()["milling"]
    settings["machines"]["jointer"]["bed_width"] = 6 * INCH
    settings["exceptions"] = {"B1": "by-hand"}
    settings["chosen"] = {"B1.1/face": "hand"}
    own = {"part": "A", "name": "Groove", "machine": "bench", "setting": "", "before": False}
    settings["own"] = [own | {"minutes": 5}]
    begun = make(client)
    kept = client.put(
        f"{base}/milling-settings", json={"milling": settings, "version": 0}
    ).get_json()
    assert kept == {"milling": settings, "version": 2}  # the workshop's, and its own
    other = make(client)
    taken = client.get(f"/api/projects/{other['pk']}/milling-settings").get_json()["milling"]
    assert taken["machines"]["jointer"]["bed_width"] == 6 * INCH and taken["exceptions"] == {}
    assert taken["chosen"] == {} and taken["own"] == []  # they are of the other's pieces
    # One that was begun before is made in the same workshop. None of it is an edit of a project.
    before = client.get(f"/api/projects/{begun['pk']}/milling-settings").get_json()["milling"]
    assert before["machines"]["jointer"]["bed_width"] == 6 * INCH
    project = client.get(base).get_json()
    assert edit(client, project, name="else").status_code == 200
    set_milling(client, other["pk"], school="seven-steps")
    assert client.get(f"{base}/milling-settings").get_json() == kept
    by_hand = [
        s
        for r in milling(client, stood["project"])["routes"]
        if r["board"] == "B1"
        for s in r["steps"]
    ]
    assert by_hand and {s["machine"] for s in by_hand} <= {"hand plane", "handsaw", "bench"}


@pytest.mark.parametrize(
    ("where", "value"),
    [
        (("machines", "planer", "width"), 0),
        (("machines", "planer", "width"), "wide"),
        (("school",), "by feel"),
        (("hours", "ends"), 3),
    ],
)
def test_a_shop_that_cannot_be_is_refused_and_the_old_one_stays(
    client: FlaskClient, stood: dict[str, Any], where: tuple[str, ...], value: object
) -> None:
    base = f"/api/projects/{stood['project']}/milling-settings"
    before = client.get(base).get_json()
    document = client.get(base).get_json()
    at = document["milling"]
    for name in where[:-1]:
        at = at[name]
    at[where[-1]] = value
    answer = client.put(base, json=document)
    assert answer.status_code == 422 and "expected" in answer.get_json()["what"]
    assert client.get(base).get_json() == before


def test_of_two_settings_made_from_one_state_the_second_is_told(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/projects/{stood['project']}/milling-settings"
    state = client.get(base).get_json()
    one = state | {"milling": state["milling"] | {"school": "seven-steps"}}
    other = state | {"milling": state["milling"] | {"over": INCH // 16}}
    assert client.put(base, json=one).status_code == 200
    late = client.put(base, json=other)
    assert late.status_code == 409 and late.get_json()["version"] == 1
    assert client.get(base).get_json()["milling"]["school"] == "seven-steps"


@pytest.mark.parametrize(
    ("system", "turn", "setting"),
    [
        ("in", "1/32 in", "passes of 1/32 in"),
        ("in-decimal", "0.0312 in", "passes of 0.0312 in"),
        ("ft-in", '1/32"', 'passes of 1/32"'),
    ],
)
def test_a_shop_of_inches_reads_inches_at_the_machine(
    client: FlaskClient, stood: dict[str, Any], system: str, turn: str, setting: str
) -> None:
    project = client.get(f"/api/projects/{stood['project']}").get_json()
    assert edit(client, project, system=system).status_code == 200
    edge = next(s for s in steps(milling(client, stood["project"])) if s["kind"] == "edge")
    assert edge["turns"][0] == turn and edge["set_to"] == setting
    told = [
        t
        for s in steps(milling(client, stood["project"]))
        for t in (s["why"], s["do"], s["leaves"], *s["turns"])
    ]
    assert not any(" mm" in t for t in told)


def meanwhile(client: FlaskClient, first: Any, second: Any) -> Any:
    """Do `first` in a transaction, begin `second` before it is committed, and answer what came of
    `second`.
    """
    answers: list[Any] = []
    other = threading.Thread(
        target=lambda: answers.append(second(client.application.test_client()))
    )
    waiting = text(
        "select count(*) from pg_stat_activity where datname = current_database() and "
        "wait_event_type = 'Lock'"
    )

    def waits() -> bool:
        with session() as watching:
            return bool(watching.scalar(waiting))

    with session() as opened:
        first(opened)
        opened.flush()
        other.start()
        until(lambda: bool(answers) or waits())
    other.join()
    return answers[0]


def test_the_machines_go_out_with_the_job_file_and_come_in_with_it(client: FlaskClient) -> None:
    project = make(client)
    base = f"/api/projects/{project['pk']}"
    assert "machines" not in client.get(f"{base}/job.json").get_json(force=True)
    now = client.get(f"{base}/milling-settings").get_json()["milling"]["machines"]
    shop = now | {"off": ["jointer"], "preferred": {"edge": "hand"}}
    set_milling(client, project["pk"], machines=shop)
    text = client.get(f"{base}/job.json").get_data()
    other = client.post("/api/projects/from-job", data=text).get_json()
    found = client.get(f"/api/projects/{other['pk']}/milling-settings").get_json()["milling"]
    assert found["machines"] == shop


def test_any_way_can_be_taken_and_the_makers_own_steps_are_in_the_route(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    face = next(s for s in steps(stood) if s["kind"] == "face")
    assert face["machine"] == "jointer" and face["task"] == "face"
    assert {w["method"] for w in face["ways"]} >= {"machine", "carrier", "hand"}
    own = {"part": "A", "name": "Round over", "machine": "bench", "minutes": 4}
    set_milling(client, stood["project"], chosen={face["key"]: "hand"}, own=[own])
    now = {s["key"]: s for s in steps(milling(client, stood["project"]))}
    chosen = now[face["key"]]
    assert (chosen["way"], chosen["machine"], chosen["obstacle"]) == ("hand", "hand plane", "")
    assert chosen["face_down"] != chosen["cuts"]  # a hand plane cuts what looks up
    mine = [s for s in now.values() if s["does"] == "own"]
    assert mine and all(s["do"].startswith("Round over: A") and s["minutes"] == 4 for s in mine)


def test_one_step_ticked_by_two_at_once_is_ticked(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    key = next(s["key"] for s in steps(stood) if s["ready"])
    address = f"/api/layouts/{stood['layout']}/steps"
    answer = meanwhile(
        client,
        lambda opened: layouts.mark_step(opened, stood["layout"], key, True),
        lambda there: there.put(address, json={"key": key, "done": True, "minutes": 2}),
    )
    assert answer.status_code == 204
    assert next(s for s in steps(milling(client, stood["project"])) if s["key"] == key)["done"]


def test_the_last_two_steps_of_a_board_at_the_same_moment_cut_it(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    route = next(r for r in stood["routes"] if r["board"] == "B1")
    *others, one, two = [s["key"] for s in route["steps"]]
    for key in others:
        tick(client, stood, key)
    answer = meanwhile(
        client,
        lambda opened: layouts.mark_step(opened, stood["layout"], one, True),
        lambda there: there.put(
            f"/api/layouts/{stood['layout']}/steps", json={"key": two, "done": True}
        ),
    )
    assert answer.status_code == 204
    entries = client.get("/api/stock").get_json()["boards"]
    assert next(b for b in entries if b["id"] == "B1" and not b["rack"])["state"] == "cut"


def test_schools_side_by_side(client: FlaskClient, stood: dict[str, Any]) -> None:
    found = client.get(f"/api/projects/{stood['project']}/schools").get_json()
    assert len(found["schools"]) == 7 and found["chosen"] == "plane-then-rip"
    assert found["advised"] in [s["school"] for s in found["schools"]] and "minutes" in found["why"]
    by_hand = next(s for s in found["schools"] if s["school"] == "by-hand")
    assert by_hand["setups"] == 0 and by_hand["by_hand"] > 0


def test_days_are_planned_moved_by_hand_and_go_out_as_calendar_and_paper(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/layouts/{stood['layout']}"
    assert client.get(f"{base}/days").get_json()["state"] == "none"
    assert client.get(f"{base}/days.ics").status_code == 409
    days = client.post(f"{base}/days", json={"begins": "2026-03-09"})
    assert days.status_code == 202
    found = client.get(f"{base}/days").get_json()
    assert found["state"] == "done" and not found["stale"]
    assert sorted(k for s in found["setups"] for k in s["steps"]) == sorted(
        s["key"] for s in steps(stood)
    )
    assert found["least"] <= found["changes"] <= found["piece_by_piece"]
    assert all(
        found["opens"] <= s["from_clock"] <= found["opens"] + found["day_minutes"]
        for s in found["setups"]
    )

    calendar = icalendar.Calendar.from_ical(client.get(f"{base}/days.ics").data)
    events = list(calendar.walk("VEVENT"))
    assert len(events) >= len(found["setups"])
    first = min(e.decoded("dtstart") for e in events)
    assert first == datetime(2026, 3, 9, 8, 0) and all(
        e.decoded("dtend") > e.decoded("dtstart") for e in events
    )
    assert client.get(f"{base}/settings.pdf").data.startswith(b"%PDF")
    assert client.get(f"{base}/routes.pdf").data.startswith(b"%PDF")

    last = found["setups"][-1]
    name = last["setup"] if last["number"] == 1 else f"{last['setup']} {last['number']}"
    moved = client.post(f"{base}/days", json={"begins": "2026-03-09", "on_day": {name: 9}})
    assert moved.status_code == 202
    again = client.get(f"{base}/days").get_json()
    same = [
        s for s in again["setups"] if (s["setup"], s["number"]) == (last["setup"], last["number"])
    ]
    assert [s["day"] for s in same] == [9] and again["on_day"] == {name: 9}
    # What cannot be says so, and the days that stood stay.
    client.post(f"{base}/days", json={"begins": "2026-03-09", "on_day": {"planer 9": 0}})
    refused = client.get(f"{base}/days").get_json()
    assert refused["state"] == "failed" and "no setting called planer 9" in refused["trouble"]
    assert refused["setups"] == again["setups"]


@pytest.mark.parametrize("begins", ["soon", "2026-13-40"])
def test_a_first_day_that_is_none_is_refused(
    client: FlaskClient, stood: dict[str, Any], begins: str
) -> None:
    assert (
        client.post(f"/api/layouts/{stood['layout']}/days", json={"begins": begins}).status_code
        == 422
    )


def test_what_is_done_is_not_planned_again_and_a_change_makes_days_stale(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/layouts/{stood['layout']}"
    first = next(s["key"] for s in steps(stood) if s["ready"])
    tick(client, stood, first)
    client.post(f"{base}/days", json={"begins": "2026-03-09"})
    found = client.get(f"{base}/days").get_json()
    assert first not in [k for s in found["setups"] for k in s["steps"]] and not found["stale"]
    set_milling(client, stood["project"], school="seven-steps")
    assert client.get(f"{base}/days").get_json()["stale"]
    assert client.get(f"{base}/days.ics").status_code == 409


def test_the_shop_s_own_times_are_learnt(client: FlaskClient, stood: dict[str, Any]) -> None:
    saw = [s for s in steps(stood) if s["machine"] == "crosscut saw"]
    assert len(saw) >= 6
    for s in saw[:5]:
        tick(client, stood, s["key"], minutes=3 * s["minutes"])
    after = {s["key"]: s["minutes"] for s in steps(milling(client, stood["project"]))}
    # Five times three times as long, all in one project: two thirds of the way (in logarithms).
    assert after[saw[5]["key"]] == pytest.approx(3**0.66 * saw[5]["minutes"], rel=0.05)


def test_passes_are_shown_the_right_way_and_the_wrong(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    piece = next(s["piece"] for s in steps(stood) if s["kind"] == "face")
    url = f"/api/layouts/{stood['layout']}/passes"
    right = client.post(url, json={"piece": piece}).get_json()
    shares = [f["clean"] for f in right["frames"]]
    assert shares == sorted(shares) and right["enough"] > 0 and right["down"] in "AB"
    assert len(right["frames"][0]["lines"]) > len(right["frames"][0]["lines"][0]) > 1
    planed = client.post(url, json={"piece": piece, "machine": "planer"}).get_json()
    assert planed["says"]
    assert client.post(url, json={"piece": "Z9.1"}).get_json()["where"] == "$.piece"
    face = next(s for s in steps(stood) if s["kind"] == "face" and s["piece"] == piece)
    assert right["frames"][len(face["passes"])]["clean"] >= face["clean"] - 1e-9


def test_the_planers_readout_shows_its_setting_and_is_off_by_as_much_every_time(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/layouts/{stood['layout']}"
    plane = next(s for s in steps(stood) if s["kind"] == "thickness")
    ask = {"key": plane["key"], "reading": plane["readings"][-1], "instrument": "readout"}
    unconnected = client.post(f"{base}/caliper", json=ask)
    assert (
        unconnected.status_code == 422
        and unconnected.get_json()["where"] == "$.workshop.instruments.readout"
    )
    connect(client, stood["project"], readout="simulated")
    answers = [client.post(f"{base}/caliper", json=ask).get_json() for _ in range(60)]
    read = [a["reading"] - ask["reading"] for a in answers if a["reading"] is not None]
    assert (
        len(read) > 50
        and 0.002 * INCH < sum(read) / len(read) < 0.004 * INCH
        and max(read) < 0.008 * INCH
    )


def test_the_caliper_at_the_machine_reads_what_the_passes_left(
    client: FlaskClient, stood: dict[str, Any]
) -> None:
    base = f"/api/layouts/{stood['layout']}"
    plane = next(s for s in steps(stood) if s["kind"] == "thickness")
    ask = {"key": plane["key"], "reading": plane["readings"][0]}
    unconnected = client.post(f"{base}/caliper", json=ask)
    assert unconnected.status_code == 422 and "connected" in unconnected.get_json()["what"]
    name = client.get("/api/instruments").get_json()["caliper"][0]["name"]
    connect(client, stood["project"], caliper=name)
    answers = [client.post(f"{base}/caliper", json=ask).get_json() for _ in range(40)]
    read = [a["reading"] for a in answers if a["reading"] is not None]
    assert (
        len(read) > 30
        and all(abs(r - ask["reading"]) < INCH / 100 for r in read)
        and len(set(read)) > 1
    )
    assert all("Read again" in a["trouble"] for a in answers if a["reading"] is None)
    assert client.post(f"{base}/caliper", json=ask | {"key": "Z9/face"}).status_code == 422


def test_a_fitted_part_is_held_until_its_measure_comes_from_the_work(
    client: FlaskClient, asked: list[int]
) -> None:
    project = make(client)
    fitted = [p | {"fitted": True} for p in project["parts"] if p["id"] == "A"]
    project = edit(client, project, put_parts=fitted).get_json()
    made = client.post(f"/api/projects/{project['pk']}/layout", json={"seconds": 1}).get_json()
    lay_out(made["pk"])
    held = [s for s in steps(milling(client, project["pk"])) if s["kind"].startswith("fit-A")]
    assert held and all(s["setting"] == 0 and s["set_to"] == "cut to the work" for s in held)
    set_milling(client, project["pk"], fitted={"A1": 155 * INCH // 8})
    now = steps(milling(client, project["pk"]))
    (cut,) = [s for s in now if s["kind"] == "length-A1"]
    assert cut["setting"] == 155 * INCH // 8 and "A1" in cut["do"]
    places = {w["mark"]: w["place"] for w in milling(client, project["pk"])["where"]}
    for s in now:
        if s["board"] == cut["board"] and not s["kind"].startswith(("length", "fit")):
            tick(client, milling(client, project["pk"]), s["key"])
    places = {w["mark"]: w["place"] for w in milling(client, project["pk"])["where"]}
    assert places["A1"] in ("milled", "held long")
    tick(client, milling(client, project["pk"]), cut["key"])
    assert {w["mark"]: w["place"] for w in milling(client, project["pk"])["where"]}[
        "A1"
    ] == "fitted"
