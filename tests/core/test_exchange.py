"""Job and plan files: nothing lost on the way, and what is not allowed is refused with its place."""

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import jsonschema
import pytest
from hypothesis import given, settings

from tests.core.test_audit import JOB, PLAN
from tests.jobs import jobs
from vividplank.core.document import digest, job_from_document, job_to_document
from vividplank.core.exchange import Refusal, job_document, plan_document, read_job, read_plan
from vividplank.core.exchange.json_schema import FILES, schema
from vividplank.core.job import Job
from vividplank.core.layout.audit import audit

DOCS = Path(__file__).parents[2] / "docs"


@settings(max_examples=60, deadline=None)
@given(jobs())
def test_a_job_survives_its_file_and_its_document(job: Job) -> None:
    document = json.dumps(job_document(job))
    assert read_job(document) == job
    jsonschema.validate(json.loads(document), schema("job.schema.json"))
    kept = job_from_document(json.loads(json.dumps(job_to_document(job))))
    assert kept == job and digest(kept) == digest(job)


@pytest.mark.parametrize("name", FILES)
def test_the_schemas_in_docs_are_those_of_the_code(name: str) -> None:
    assert json.loads((DOCS / name).read_text(encoding="utf-8")) == schema(name)


def test_the_examples_are_right() -> None:
    job_text = (DOCS / "examples" / "settle.job.json").read_text(encoding="utf-8")
    plan_text = (DOCS / "examples" / "settle.plan.json").read_text(encoding="utf-8")
    jsonschema.validate(json.loads(job_text), schema("job.schema.json"))
    jsonschema.validate(json.loads(plan_text), schema("plan.schema.json"))
    job, plan = read_job(job_text), read_plan(plan_text)
    assert audit(job, plan) == [] and plan.unplaced == ()
    assert read_plan(json.dumps(plan_document(plan, job.unit))) == plan


def refused(change: Callable[[dict[str, Any]], None], read: Callable[[str], object], document: dict[str, Any]) -> Refusal:
    document = copy.deepcopy(document)
    change(document)
    with pytest.raises(Refusal) as found:
        read(json.dumps(document))
    return found.value


@pytest.mark.parametrize(("change", "path", "expected"), [
    (lambda d: d.update(format="x"), "$.format", "expected 'vivid-plank/job'"),
    (lambda d: d.update(version=2), "$.version", "expected 1"),
    (lambda d: d.update(unit="ft"), "$.unit", "expected 'in' or 'mm'"),
    (lambda d: d.update(colour="red"), "$.colour", "expected no such name"),
    (lambda d: d["shop"].pop("kerf"), "$.shop.kerf", "is missing"),
    (lambda d: d["shop"].update(method="guess"), "$.shop.method", "expected 'mill-wide' or 'rough-rip'"),
    (lambda d: d["parts"][1].pop("length"), "$.parts[1].length", "is missing"),
    (lambda d: d["parts"][0].update(length="20"), "$.parts[0].length", "valid number"),
    (lambda d: d["parts"][0].update(length=-1), "$.parts[0].length", "greater than 0"),
    (lambda d: d["parts"][0].update(length=1e-9), "$.parts[0].length", "more than nothing"),
    (lambda d: d["parts"][0].update(quantity=0), "$.parts[0].quantity", "greater than or equal to 1"),
    (lambda d: d["parts"][0].update(quantity=1.5), "$.parts[0].quantity", "integer"),
    (lambda d: d["parts"][0].update(faces="pretty"), "$.parts[0].faces", "expected 'clear-two'"),
    (lambda d: d["parts"][1].update(id="A"), "$.parts[1].id", "expected every id once"),
    (lambda d: d["parts"][1]["panel"].update(stave_max=1), "$.parts[1].panel.stave_max", "at least stave_min"),
    (lambda d: d["parts"][0].update(run="row"), "$.parts[2].thickness", "expected the thickness of A"),
    (lambda d: d["boards"][0]["stations"].pop(), "$.boards[0].stations", "at least 2"),
    (lambda d: d["boards"][0]["stations"][0].update(x=1), "$.boards[0].stations[0].x", "expected 0"),
    (lambda d: d["boards"][0]["stations"][1].update(x=59), "$.boards[0].stations[1].x", "at the board's length"),
    (lambda d: d["boards"][0]["stations"][1].update(y1=-1), "$.boards[0].stations[1].y1", "y1 above y0"),
    (lambda d: d["boards"][0]["stations"][1].update(t0=0), "$.boards[0].stations[1].t0", "greater than 0"),
    (lambda d: d["boards"][0]["defects"][0].update(x1=1), "$.boards[0].defects[0].x1", "not before x0"),
    (lambda d: d["boards"][0]["defects"][0].update(face="C"), "$.boards[0].defects[0].face", "expected 'A'"),
])
def test_a_job_that_is_not_allowed_is_refused_with_its_place(
    change: Callable[[dict[str, Any]], None], path: str, expected: str
) -> None:
    found = refused(change, read_job, JOB)
    assert found.path == path and expected in found.why, found


def test_a_plan_that_is_not_allowed_is_refused_with_its_place() -> None:
    found = refused(lambda d: d["boards"][0]["segments"][0]["strips"][0]["blanks"][0].update(layers=[]), read_plan, PLAN)
    assert found.path == "$.boards[0].segments[0].strips[0].blanks[0].layers"


@pytest.mark.parametrize("text", ["", "{", "[1]", "null", '{"format": NaN}', "[" * 100_000, "\ufeff{}", '"\\ud800"'])
def test_what_is_no_document_is_refused(text: str) -> None:
    with pytest.raises(Refusal):
        read_job(text.encode("utf-8", "surrogatepass"))


def test_a_price_keeps_every_figure() -> None:
    job = copy.deepcopy(JOB)
    job["boards"][0]["price"] = 61.53712345
    assert job_document(read_job(json.dumps(job)))["boards"][0]["price"] == 61.53712345


def test_the_digest_follows_what_a_layout_depends_on_and_nothing_else() -> None:
    base = read_job(json.dumps(JOB))
    renamed = copy.deepcopy(JOB) | {"name": "else"}
    renamed["parts"][0]["name"] = "Ledge"
    assert digest(read_job(json.dumps(renamed))) == digest(base)
    renamed["parts"][0]["length"] = 20.5
    assert digest(read_job(json.dumps(renamed))) != digest(base)
