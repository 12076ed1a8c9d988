"""Job and plan files: nothing lost on the way, and what is not allowed is refused with its
place.
"""

import copy
import json
from collections.abc import Callable
from dataclasses import replace
from typing import Any

import jsonschema
import pytest
from hypothesis import given

from tests.conftest import ROOT
from tests.core.layout.model.test_audit import JOB, PLAN
from tests.jobs import jobs
from tests.profiles import examples
from vividplank.core.board import Zone
from vividplank.core.document import digest, job_from_document, job_to_document
from vividplank.core.exchange import Refusal, job_document, plan_document, read_job, read_plan
from vividplank.core.exchange.json_schema import FILES, schema
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit

DOCS = ROOT / "docs"


@examples(60)
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


@pytest.mark.parametrize("name", ["settle", "lectern"])
def test_the_examples_are_right(name: str) -> None:
    job_text = (DOCS / "examples" / f"{name}.job.json").read_text(encoding="utf-8")
    plan_text = (DOCS / "examples" / f"{name}.plan.json").read_text(encoding="utf-8")
    jsonschema.validate(json.loads(job_text), schema("job.schema.json"))
    jsonschema.validate(json.loads(plan_text), schema("plan.schema.json"))
    job, plan = read_job(job_text), read_plan(plan_text)
    assert audit(job, plan) == [] and plan.unplaced == ()
    assert read_plan(json.dumps(plan_document(plan, job.unit))) == plan


def refused(
    change: Callable[[dict[str, Any]], None],
    read: Callable[[str], object],
    document: dict[str, Any],
) -> Refusal:
    document = copy.deepcopy(document)
    change(document)
    with pytest.raises(Refusal) as found:
        read(json.dumps(document))
    return found.value


@pytest.mark.parametrize(
    ("change", "path", "expected"),
    [
        (lambda d: d.update(format="x"), "$.format", "expected 'vivid-plank/job'"),
        (lambda d: d.update(version=4), "$.version", "expected 1, 2 or 3"),
        (
            lambda d: d["parts"][0].update(figure="curly"),
            "$.parts[0].figure",
            "came with version 3 and this file says 1",
        ),
        (
            lambda d: d["shop"]["allowance"].update(between=0.5),
            "$.shop.allowance.between",
            "came with version 3",
        ),
        (lambda d: d.update(unit="ft"), "$.unit", "expected 'in' or 'mm'"),
        (lambda d: d.update(colour="red"), "$.colour", "expected no such name"),
        (lambda d: d["shop"].pop("kerf"), "$.shop.kerf", "is missing"),
        (
            lambda d: d["shop"].update(method="guess"),
            "$.shop.method",
            "expected 'mill-wide' or 'rough-rip'",
        ),
        (lambda d: d["parts"][1].pop("length"), "$.parts[1].length", "is missing"),
        (lambda d: d["parts"][0].update(length="20"), "$.parts[0].length", "valid number"),
        (lambda d: d["parts"][0].update(length=-1), "$.parts[0].length", "greater than 0"),
        (lambda d: d["parts"][0].update(length=1e-9), "$.parts[0].length", "more than nothing"),
        (
            lambda d: d["parts"][0].update(quantity=0),
            "$.parts[0].quantity",
            "greater than or equal to 1",
        ),
        (lambda d: d["parts"][0].update(quantity=1.5), "$.parts[0].quantity", "integer"),
        (
            lambda d: d["parts"][0].update(faces="pretty"),
            "$.parts[0].faces",
            "expected 'clear-two'",
        ),
        (lambda d: d["parts"][1].update(id="A"), "$.parts[1].id", "expected every id once"),
        (
            lambda d: d["parts"][1]["panel"].update(stave_max=1),
            "$.parts[1].panel.stave_max",
            "at least stave_min",
        ),
        (
            lambda d: d["parts"][0].update(run="row"),
            "$.parts[2].thickness",
            "expected the thickness of A",
        ),
        (lambda d: d["boards"][0]["stations"].pop(), "$.boards[0].stations", "at least 2"),
        (
            lambda d: d["boards"][0]["stations"][0].update(x=1),
            "$.boards[0].stations[0].x",
            "expected 0",
        ),
        (
            lambda d: d["boards"][0]["stations"][1].update(x=59),
            "$.boards[0].stations[1].x",
            "at the board's length",
        ),
        (
            lambda d: d["boards"][0]["stations"][1].update(y1=-1),
            "$.boards[0].stations[1].y1",
            "y1 above y0",
        ),
        (
            lambda d: d["boards"][0]["stations"][1].update(t0=0),
            "$.boards[0].stations[1].t0",
            "greater than 0",
        ),
        (
            lambda d: d["boards"][0]["defects"][0].update(x1=1),
            "$.boards[0].defects[0].x1",
            "not before x0",
        ),
        (
            lambda d: d["boards"][0]["defects"][0].update(face="C"),
            "$.boards[0].defects[0].face",
            "expected 'A'",
        ),
        (
            lambda d: d["boards"][0].update(searched=True),
            "$.boards[0].searched",
            "came with version 2",
        ),
        (
            lambda d: d["boards"][0]["defects"][0].update(shape="ellipse"),
            "$.boards[0].defects[0].shape",
            "came with version 2",
        ),
    ],
)
def test_a_job_that_is_not_allowed_is_refused_with_its_place(
    change: Callable[[dict[str, Any]], None], path: str, expected: str
) -> None:
    found = refused(change, read_job, JOB)
    assert found.path == path and expected in found.why, found


def surveyed() -> dict[str, Any]:
    """The job with its board surveyed thoroughly: everything that came with version 2."""
    document = copy.deepcopy(JOB) | {"version": 2}
    board = document["boards"][0]
    for station in board["stations"]:
        station["between"] = [1.0]
    board["defects"].append(
        {
            "kind": "wane",
            "face": "A",
            "x0": 50,
            "x1": 56,
            "y0": 5,
            "y1": 6,
            "shape": "outline",
            "points": [[50, 6], [53, 5], [56, 6]],
            "severity": "grave",
        }
    )
    board.update(
        grain={
            "datum_edge": 0.02,
            "rings": 70,
            "heart": "B",
            "zones": [{"figure": "quarter", "x0": 2, "x1": 30, "y0": 1, "y1": 5}],
        },
        dressed=["A", "B"],
        grade="FAS",
        searched=True,
        quarter="4/4",
        note="leans by the door",
        moisture=[
            {"percent": 9.5, "day": 20000, "x": 3, "y": 2},
            {"percent": 8.5, "day": 20000, "x": 40, "y": 2},
        ],
    )
    return document


def scanned() -> dict[str, Any]:
    document = copy.deepcopy(JOB) | {"version": 2}
    board = document["boards"][0]
    length = board["length"]
    board["warp"] = {}
    board["surface"] = {
        "xs": [0, length / 2, length],
        "ys": [-1, 10],
        "lower": [[0, 0], [0.25, 0.2], [0, 0.0625]],
        "upper": [[1, 1], [1.25, 1.2], [1, 1.0625]],
    }
    return document


@pytest.mark.parametrize("document", [surveyed(), scanned()])
def test_a_surveyed_board_survives_its_file(document: dict[str, Any]) -> None:
    job = read_job(json.dumps(document))
    again = job_document(job)
    assert again["version"] == 2 and read_job(json.dumps(again)) == job
    jsonschema.validate(again, schema("job.schema.json"))
    assert job_from_document(json.loads(json.dumps(job_to_document(job)))) == job


def test_a_plain_board_is_written_as_version_1() -> None:
    assert job_document(read_job(json.dumps(JOB | {"version": 2})))["version"] == 1


@pytest.mark.parametrize(
    "kept", [{"quarter": "5/4"}, {"note": "leans by the door"}, {"supplier": "a barn"}]
)
def test_what_the_yard_and_the_maker_wrote_is_in_the_file(kept: dict[str, Any]) -> None:
    plain = read_job(json.dumps(JOB))
    job = replace(plain, boards=tuple(replace(b, **kept) for b in plain.boards))
    assert read_job(json.dumps(job_document(job))) == job


#: What a part may be wished to be, of which a layout depends.
WISHES: list[dict[str, Any]] = [
    {"same_board": "a"},
    {"match": "a"},
    {"resawn": True},
    {"figure": "curly"},
    {"from_board": "W1"},
]


@pytest.mark.parametrize("wish", WISHES)
def test_a_wish_and_room_between_parts_are_in_the_file(wish: dict[str, Any]) -> None:
    plain = read_job(json.dumps(JOB))
    first, *others = plain.parts
    roomy = replace(plain.shop, allowance=replace(plain.shop.allowance, between=4064))
    for job in (
        replace(plain, parts=(replace(first, **wish), *others)),
        replace(plain, shop=roomy),
    ):
        document = job_document(job)
        assert document["version"] == 3 and read_job(json.dumps(document)) == job
        jsonschema.validate(document, schema("job.schema.json"))


@pytest.mark.parametrize(
    ("document", "change", "path", "expected"),
    [
        (
            surveyed(),
            lambda b: b["stations"][0].update(between=[1, 1]),
            "stations[0].between",
            "as many readings",
        ),
        (
            surveyed(),
            lambda b: b["stations"][0].update(between=[0]),
            "stations[0].between[0]",
            "greater than 0",
        ),
        (
            surveyed(),
            lambda b: b["defects"][-1].update(points=[[50, 5], [56, 6], [50, 6], [56, 5]]),
            "defects[1].points",
            "crosses",
        ),
        (
            surveyed(),
            lambda b: b["defects"][-1].update(points=[[50, 5], [56, 6]]),
            "defects[1].points",
            "three points",
        ),
        (surveyed(), lambda b: b["defects"][-1].update(x1=57), "defects[1].x0", "bounds"),
        (
            surveyed(),
            lambda b: b["defects"][-1].update(shape="ellipse"),
            "defects[1].points",
            "belong to an outline",
        ),
        (
            surveyed(),
            lambda b: b["defects"][-1].update(shape="ellipse", points=[], x1=50),
            "defects[1].shape",
            "without area",
        ),
        (surveyed(), lambda b: b["grain"]["zones"][0].update(x1=1), "grain.zones[0]", "no area"),
        (surveyed(), lambda b: b["dressed"].append("A"), "dressed", "once"),
        (
            surveyed(),
            lambda b: b["moisture"].append(b["moisture"][0]),
            "moisture",
            "one for each place",
        ),
        (surveyed(), lambda b: b["moisture"][0].pop("y"), "moisture[0].x", "both x and y"),
        (surveyed(), lambda b: b["moisture"][0].update(x=500), "moisture[0].x", "off the board"),
        (scanned(), lambda b: b.update(warp={"bow": 1}), "surface", "no bow"),
        (scanned(), lambda b: b["surface"].update(xs=[0, 30, 20]), "surface.xs", "each beyond"),
        (scanned(), lambda b: b["surface"].update(xs=[0, 30, 40]), "surface.xs", "board's length"),
        (scanned(), lambda b: b["surface"].update(ys=[0, 1]), "surface.ys", "highest"),
        (scanned(), lambda b: b["surface"]["lower"].pop(), "surface.lower", "one for each of 3 xs"),
        (
            scanned(),
            lambda b: b["surface"]["upper"][1].append(1),
            "surface.upper[1]",
            "one for each of 2 ys",
        ),
        (
            scanned(),
            lambda b: b["surface"]["upper"][1].__setitem__(0, 0),
            "surface.upper[1]",
            "faces cross",
        ),
    ],
)
def test_a_survey_that_cannot_be_is_refused_with_its_place(
    document: dict[str, Any], change: Callable[[dict[str, Any]], None], path: str, expected: str
) -> None:
    found = refused(lambda d: change(d["boards"][0]), read_job, document)
    assert found.path == f"$.boards[0].{path}" and expected in found.why, found


def test_a_plan_that_is_not_allowed_is_refused_with_its_place() -> None:
    found = refused(
        lambda d: d["boards"][0]["segments"][0]["strips"][0]["blanks"][0].update(layers=[]),
        read_plan,
        PLAN,
    )
    assert found.path == "$.boards[0].segments[0].strips[0].blanks[0].layers"


@pytest.mark.parametrize(
    "text", ["", "{", "[1]", "null", '{"format": NaN}', "[" * 100_000, "\ufeff{}", '"\\ud800"']
)
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


@pytest.mark.parametrize("wish", WISHES)
def test_a_wish_makes_a_plan_stale(wish: dict[str, Any]) -> None:
    base = read_job(json.dumps(JOB))
    first, *others = base.parts
    assert digest(replace(base, parts=(replace(first, **wish), *others))) != digest(base)


def test_a_figure_noted_on_a_board_makes_a_plan_stale_where_it_is_wished_for() -> None:
    plain = read_job(json.dumps(JOB))
    first, *others = plain.parts
    wishing = replace(plain, parts=(replace(first, figure="curly"), *others))

    def noted(job: Job, figure: Any) -> Job:
        board, *rest = job.boards
        return replace(
            job,
            boards=(
                replace(board, grain=replace(board.grain, zones=(Zone(figure, 0, 9, 0, 9),))),
                *rest,
            ),
        )

    assert digest(noted(plain, "curly")) == digest(plain)
    assert digest(noted(wishing, "straight")) == digest(wishing)
    assert digest(noted(wishing, "curly")) != digest(wishing)
