"""The route document: its schema, the example in docs, the command, and the machines that come with
a job.
"""

import json
from dataclasses import replace
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import ROOT
from tests.core.layout.search.test_limits import machines
from tests.core.milling.test_milling import HAND_JOB, HAND_PLAN
from tests.profiles import examples
from vividplank.command import main
from vividplank.core.exchange import Refusal, job_document, read_job, read_plan, read_workshop
from vividplank.core.exchange.json_schema import schema
from vividplank.core.exchange.route_file import route_document
from vividplank.core.milling import Machines, Milling, routes
from vividplank.core.milling.shop.school import SCHOOLS, School
from vividplank.core.milling.shop.workshop import Instruments, Workshop
from vividplank.core.timber.rest import Climate

EXAMPLES = ROOT / "docs" / "examples"


@pytest.mark.parametrize("school", SCHOOLS)
def test_every_school_writes_what_the_schema_allows(school: School) -> None:
    for name in ("settle", "lectern"):
        job = read_job((EXAMPLES / f"{name}.job.json").read_bytes()).on_boards()
        plan = read_plan((EXAMPLES / f"{name}.plan.json").read_bytes())
        document = route_document(routes(job, plan, Milling(school=school)), job.unit)
        jsonschema.validate(json.loads(json.dumps(document)), schema("route.schema.json"))


def test_the_example_in_docs_is_what_the_command_writes(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    job, plan = (str(EXAMPLES / f"lectern.{kind}.json") for kind in ("job", "plan"))
    out = tmp_path / "route.json"
    assert main(["route", job, plan, "--out", str(out)]) == 0
    assert json.loads(out.read_text()) == json.loads(
        (EXAMPLES / "lectern.route.json").read_text(encoding="utf-8")
    )
    assert "steps" in capsys.readouterr().out


def test_a_plan_that_is_not_right_has_no_route(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    job, plan = (
        EXAMPLES / "lectern.job.json",
        json.loads((EXAMPLES / "lectern.plan.json").read_text()),
    )
    plan["boards"][0]["segments"][0]["strips"][0]["y1"] = 0.5
    (tmp_path / "plan.json").write_text(json.dumps(plan))
    out = tmp_path / "route.json"
    assert main(["route", str(job), str(tmp_path / "plan.json"), "--out", str(out)]) == 2
    assert "expected a plan that is right" in capsys.readouterr().err and not out.exists()


def test_facts_stand_beside_the_sentences() -> None:
    document = route_document(routes(HAND_JOB, HAND_PLAN), "in")
    steps = {s["key"]: s for s in document["steps"]}
    face, plane = steps["B1.1/face"], steps["B1.1/thickness"]
    assert (face["cuts"], face["face_down"], face["depth"], face["passes"]) == ("B", "B", 0.0156, 1)
    assert face["size_in"]["B1.1"] == {"length": 20.5, "width": 6.5, "thickness": 1}
    assert plane["passes"] == [0.9531, 0.8906, 0.8281, 0.7656, 0.75] and plane["cuts"] == "A"
    rip = steps["B1.1a/width"]
    assert rip["gives"] == [
        {"piece": "B1.1a", "h0": 0, "h1": 3},
        {"piece": "B1.1 rest", "h0": 3.125},
    ]
    assert rip["along"] == "datum-edge" and rip["setting"] == 3
    cut = steps["B1.1a/length-A"]
    assert cut["gives"][0]["items"] == [{"part": "A", "n": 1}]


@examples(40)
@given(machines(), st.floats(-5, 40), st.floats(0, 0.95))
def test_the_workshop_comes_with_the_job(shop: Machines, celsius: float, humidity: float) -> None:
    place = Workshop(
        replace(shop, off=("jointer",), preferred=(("edge", "hand"),)),
        climate=Climate(celsius, humidity),
        instruments=Instruments(readout="simulated"),
    )
    text = json.dumps(job_document(HAND_JOB, place))
    assert read_workshop(text) == place and read_job(text) == HAND_JOB
    jsonschema.validate(json.loads(text), schema("job.schema.json"))


def test_what_a_job_does_not_say_of_its_workshop_is_usual() -> None:
    document = job_document(HAND_JOB) | {"version": 3}
    assert read_workshop(json.dumps(document)) is None
    document["machines"] = {"planer": {"width": 12.5}, "off": ["bandsaw"]}
    found = read_workshop(json.dumps(document))
    machines = replace(
        Machines(), planer=replace(Machines().planer, width=101600), off=("bandsaw",)
    )
    assert found == Workshop(machines)
    damp = {**document, "shop": document["shop"] | {"climate": {"humidity": 0.7}}}
    assert read_workshop(json.dumps(damp)) == Workshop(machines, climate=Climate(humidity=0.7))
    for path, wrong in (
        ("$.machines.planer.wdth", {"machines": {"planer": {"wdth": 12}}}),
        ("$.machines.off[0]", {"machines": {"off": ["lathe"]}}),
        (
            "$.shop.climate.humidity",
            {"shop": document["shop"] | {"climate": {"humidity": 1.2}}},
        ),
    ):
        with pytest.raises(Refusal) as refused:
            read_workshop(json.dumps(document | wrong))
        assert refused.value.path == path
