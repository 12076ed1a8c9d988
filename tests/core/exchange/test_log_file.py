"""Logs of a shop, in and out, and what they leave to plan."""

import json
from pathlib import Path

import pytest

from tests.conftest import ROOT
from vividplank import command
from vividplank.core.exchange import Refusal, read_job, read_plan
from vividplank.core.exchange.job_file import read_workshop
from vividplank.core.exchange.log_file import log_document, read_log
from vividplank.core.layout.model.audit import audit
from vividplank.core.log.events import Did, LogError, Void, standing
from vividplank.core.timber.rest import Climate

DOCS = ROOT / "docs" / "examples"
LOG = DOCS / "settle.log.json"


def a_log(*events: dict[str, object]) -> str:
    return json.dumps(
        {"format": "vivid-plank/log", "version": 1, "unit": "in", "events": list(events)}
    )


def replanned(tmp_path: Path, log: Path) -> tuple[int, Path, Path]:
    job, plan = DOCS / "settle.job.json", DOCS / "settle.plan.json"
    out, found = tmp_path / "job2.json", tmp_path / "plan2.json"
    words = ["replan", job, plan, log, "--out", out, "--plan", found, "--seconds", "1"]
    return command.main([str(w) for w in words]), out, found


def test_the_example_leaves_what_it_should(tmp_path: Path) -> None:
    # AR1 was finished and split; O1.2, a stave of the seat, has a nail in it;
    # O1.3, for two slats, was cut at the wrong line. What O1 is still for: SL1, in "O1.1 rest".
    code, out, found = replanned(tmp_path, LOG)
    assert code == 0
    document = json.loads(out.read_text())
    assert document["kept"] == [{"piece": "O1.1 rest", "items": [{"part": "SL", "n": 1}]}]
    wanted = {p["id"]: p["quantity"] for p in document["parts"]}
    before = {p.id: p.quantity for p in read_job((DOCS / "settle.job.json").read_bytes()).parts}
    assert wanted["AR"] == before["AR"] == 2 and wanted["SL"] == before["SL"] - 1
    (left,) = [b for b in document["boards"] if b.get("from")]
    assert (left["id"], left["from"], left["price"]) == ("O1.2", "O1", 0)
    assert "B" in left["dressed"] and "metal" in [d["kind"] for d in left["defects"]]
    assert "O1" not in [b["id"] for b in document["boards"]]
    job, plan = read_job(out.read_bytes()).on_boards(), read_plan(found.read_bytes())
    assert audit(job, plan) == []


def test_the_air_of_the_workshop_stays(tmp_path: Path) -> None:
    document = json.loads((DOCS / "settle.job.json").read_text())
    document["version"] = 3
    document["shop"]["climate"] = {"celsius": 17.0, "humidity": 0.62}
    job, out = tmp_path / "job.json", tmp_path / "job2.json"
    job.write_text(json.dumps(document))
    words = ["replan", job, DOCS / "settle.plan.json", LOG, "--out", out]
    assert command.main([str(w) for w in words]) == 0
    before, after = read_workshop(job.read_bytes()), read_workshop(out.read_bytes())
    assert before == after and after and after.climate == Climate(17.0, 0.62)


@pytest.mark.parametrize(
    ("event", "where"),
    [
        ({"n": 1, "kind": "did"}, "step"),
        ({"n": 1, "kind": "void", "event": 3}, "voids 3"),
        ({"n": 1, "kind": "spoiled", "piece": "W1", "why": "split", "then": "burn"}, "then"),
        ({"n": 0, "kind": "did", "step": "W/face"}, ".n"),
        ({"n": 1, "kind": "sung", "piece": "W"}, "$.events[0]"),
        (
            {"n": 1, "kind": "did", "does": "rip", "takes": ["W"], "gives": [{"piece": "V"}]},
            "h0 under h1",
        ),
    ],
)
def test_what_cannot_be_is_refused_where_it_stands(event: dict[str, object], where: str) -> None:
    with pytest.raises(Refusal) as refused:
        read_log(a_log(event))
    assert where in str(refused.value)


def test_what_is_about_no_piece_of_the_plan_is_refused(tmp_path: Path) -> None:
    log = tmp_path / "log.json"
    for event in (
        {"n": 1, "kind": "did", "step": "X9/face"},
        {"n": 1, "kind": "measured", "piece": "X9", "what": "width", "value": 3},
    ):
        log.write_text(a_log(event))
        assert replanned(tmp_path, log)[0] == 2


def test_a_void_of_a_void_lets_the_event_stand() -> None:
    did = Did(n=1, step="W/face")
    assert standing([did]) == (did,)
    assert standing([did, Void(n=2, event=1)]) == ()
    assert standing([did, Void(n=2, event=1), Void(n=3, event=2)]) == (did,)
    with pytest.raises(LogError):
        standing([did, did])


def test_a_log_survives_its_file() -> None:
    events = read_log(LOG.read_bytes())
    assert read_log(json.dumps(log_document(events, "in"))) == events
    assert read_log(json.dumps(log_document(events, "mm"))) == events
