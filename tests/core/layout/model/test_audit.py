"""The audit: a right plan passes, and each rule broken is named with its place."""

import copy
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from vividplank.core.exchange import plan_document, read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit

# Two boards, one plain and one with a fault on either face, and a plan written by hand.
JOB: dict[str, Any] = {
    "format": "vivid-plank/job",
    "version": 1,
    "unit": "in",
    "name": "two shelves",
    "shop": {
        "method": "mill-wide",
        "kerf": {"crosscut": 0.125, "rip": 0.125, "resaw": 0.0625},
        "allowance": {"length": 0.5, "width": 0.125, "face": 0.03125, "panel_width": 0.25},
        "end_trim": 1,
        "min_blank_length": 12,
        "max_slope": 0.02,
    },
    "parts": [
        {
            "id": "A",
            "name": "Shelf",
            "quantity": 2,
            "species": "oak",
            "length": 20,
            "width": 3,
            "thickness": 0.75,
            "faces": "clear-one",
        },
        {
            "id": "P",
            "name": "Top",
            "quantity": 1,
            "species": "oak",
            "length": 20,
            "width": 5.75,
            "thickness": 0.75,
            "faces": "sound",
            "panel": {"stave_min": 2, "stave_max": 4},
        },
        {
            "id": "R",
            "name": "Tile",
            "quantity": 2,
            "species": "oak",
            "length": 8,
            "width": 3,
            "thickness": 0.5,
            "faces": "clear-two",
            "run": "row",
        },
        {
            "id": "L",
            "name": "Lath",
            "quantity": 2,
            "species": "oak",
            "length": 14,
            "width": 2,
            "thickness": 0.375,
            "faces": "clear-one",
        },
    ],
    "boards": [
        {
            "id": "B1",
            "species": "Oak",
            "length": 60,
            "price": 20,
            "stations": [
                {"x": 0, "y0": 0, "y1": 6.5, "t0": 1, "t1": 1},
                {"x": 60, "y0": 0, "y1": 6.5, "t0": 1, "t1": 1},
            ],
            "warp": {"bow": 0.1},
            "defects": [{"kind": "tight-knot", "face": "A", "x0": 5, "x1": 6, "y0": 1, "y1": 2}],
        },
        {
            "id": "B2",
            "species": "oak",
            "length": 50,
            "price": 15.5,
            "stations": [
                {"x": 0, "y0": 0, "y1": 7, "t0": 1, "t1": 1},
                {"x": 50, "y0": 0, "y1": 7, "t0": 1, "t1": 1},
            ],
            "defects": [{"kind": "check", "face": "both", "x0": 46, "x1": 50, "y0": 0, "y1": 7}],
        },
        {
            "id": "B3",
            "species": "ash",
            "length": 40,
            "price": 9,
            "stations": [
                {"x": 0, "y0": 0, "y1": 7, "t0": 1, "t1": 1},
                {"x": 40, "y0": 0, "y1": 7, "t0": 1, "t1": 1},
            ],
        },
    ],
}


def item(part: str, n: int, stave: int = 0) -> dict[str, Any]:
    return {"part": part, "n": n} | ({"stave": stave} if stave else {})


PLAN: dict[str, Any] = {
    "format": "vivid-plank/plan",
    "version": 1,
    "unit": "in",
    "boards": [
        {
            "board": "B1",
            "segments": [
                {
                    "x0": 1,
                    "x1": 21.5,
                    "y0": 0,
                    "slope": 0,
                    "strips": [
                        {
                            "y0": 0,
                            "y1": 3.125,
                            "blanks": [{"x0": 1, "x1": 21.5, "layers": [[item("A", 1)]]}],
                        },
                        {
                            "y0": 3.25,
                            "y1": 6.375,
                            "blanks": [{"x0": 1, "x1": 21.5, "layers": [[item("A", 2)]]}],
                        },
                    ],
                },
                {
                    "x0": 22,
                    "x1": 42.5,
                    "y0": 0,
                    "slope": 0.001,
                    "strips": [
                        {
                            "y0": 0.05,
                            "y1": 3.175,
                            "blanks": [{"x0": 22, "x1": 42.5, "layers": [[item("P", 1, 1)]]}],
                        },
                        {
                            "y0": 3.3,
                            "y1": 6.425,
                            "blanks": [{"x0": 22, "x1": 42.5, "layers": [[item("P", 1, 2)]]}],
                        },
                    ],
                },
            ],
        },
        {
            "board": "B2",
            "segments": [
                {
                    "x0": 1,
                    "x1": 45,
                    "y0": 0,
                    "slope": 0,
                    "strips": [
                        {
                            "y0": 0,
                            "y1": 3.125,
                            "blanks": [
                                {"x0": 1, "x1": 18, "layers": [[item("R", 1), item("R", 2)]]},
                                {"x0": 20, "x1": 35, "layers": [[item("L", 1)], [item("L", 2)]]},
                            ],
                        }
                    ],
                }
            ],
        },
    ],
    "unplaced": [],
    "summary": {"cost": 35.5, "lower_bound": 15.5, "seconds": 0.1},
}


def check(
    change: Callable[[dict[str, Any]], None] = lambda plan: None,
    job_change: Callable[[dict[str, Any]], None] = lambda job: None,
) -> list[str]:
    job, plan = copy.deepcopy(JOB), copy.deepcopy(PLAN)
    job_change(job)
    change(plan)
    return [str(v) for v in audit(read_job(json.dumps(job)), read_plan(json.dumps(plan)))]


def seg(p: dict[str, Any], board: int, segment: int) -> dict[str, Any]:
    found: dict[str, Any] = p["boards"][board]["segments"][segment]
    return found


def blank(p: dict[str, Any], board: int, segment: int, strip: int, k: int = 0) -> dict[str, Any]:
    found: dict[str, Any] = seg(p, board, segment)["strips"][strip]["blanks"][k]
    return found


def test_a_right_plan_passes() -> None:
    assert check() == []


@pytest.mark.parametrize(
    ("change", "rule", "words"),
    [
        (lambda p: seg(p, 0, 1).update(x0=21.6), 1, "segments 0.1 in apart"),
        (lambda p: seg(p, 0, 0).update(x0=0.9), 1, "reaches into the end trim"),
        (lambda p: seg(p, 0, 0)["strips"][1].update(y0=3.2), 1, "strips 0.0"),
        (lambda p: blank(p, 1, 0, 0, 1).update(x0=18.1, x1=33.1), 1, "blanks 0.1 in apart"),
        (lambda p: blank(p, 0, 0, 0).update(x1=21.6), 1, "not inside its segment"),
        (lambda p: seg(p, 0, 1).update(slope=0.03), 2, "slope 0.03"),
        (lambda p: seg(p, 0, 0)["strips"][1].update(y0=3.45, y1=6.575), 2, "outline"),
        (lambda p: blank(p, 0, 0, 0).update(x1=21.4), 3, "its items need 20 1/2 in"),
        (lambda p: seg(p, 0, 0)["strips"][0].update(y1=3.1), 3, "A needs 3 1/8 in of width"),
        (lambda p: blank(p, 1, 0, 0, 0)["layers"].__setitem__(0, [item("R", 1)]), 7, "run row"),
        (lambda p: p["boards"][1].update(board="B3"), 7, "the board is ash"),
        (lambda p: p["boards"][0].update(board="B9"), 7, "no such board"),
        (lambda p: blank(p, 0, 0, 0)["layers"].__setitem__(0, [item("A", 2)]), 7, "placed 2 times"),
        (
            lambda p: blank(p, 0, 0, 0)["layers"].__setitem__(0, [item("A", 3)]),
            7,
            "n goes from 1 to 2",
        ),
        (
            lambda p: p["unplaced"].append({"part": "A", "n": 1, "why": ""}),
            7,
            "listed more than once",
        ),
        (lambda p: seg(p, 0, 0)["strips"].pop(), 7, "neither placed nor listed"),
        (lambda p: seg(p, 0, 1)["strips"][0].update(y1=2.1), 6, "expected 2 in to 4 in"),
        (lambda p: seg(p, 0, 1)["strips"].pop(), 6, "add up to 3 in"),
        (
            lambda p: blank(p, 0, 1, 0)["layers"].__setitem__(0, [item("P", 1)]),
            6,
            "needs a stave number",
        ),
        (lambda p: p["summary"].update(cost=20), 8, "the boards cut cost 35.5"),
        (lambda p: p["summary"].update(lower_bound=36), 8, "above the cost"),
    ],
)
def test_each_broken_rule_is_named(
    change: Callable[[dict[str, Any]], None], rule: int, words: str
) -> None:
    found = check(change)
    assert any(line.startswith(f"rule {rule} ") and words in line for line in found), found


@pytest.mark.parametrize(
    ("defect", "rule4"),
    [
        (
            {"kind": "tight-knot", "face": "B", "x0": 10, "x1": 11, "y0": 1, "y1": 2},
            True,
        ),  # with the one on A: none is clear
        ({"kind": "check", "face": "A", "x0": 10, "x1": 11, "y0": 1, "y1": 2}, True),
        (
            {"kind": "bee nest", "face": "B", "x0": 10, "x1": 11, "y0": 1, "y1": 2},
            True,
        ),  # unknown is unsound
        ({"kind": "sapwood", "face": "A", "x0": 10, "x1": 11, "y0": 1, "y1": 2}, False),
        (
            {"kind": "check", "face": "both", "x0": 21.5, "x1": 22, "y0": 0, "y1": 6},
            False,
        ),  # in the crosscut
        (
            {"kind": "check", "face": "both", "x0": 30, "x1": 31, "y0": 3.199, "y1": 3.29},
            False,
        ),  # in the sloped rip
        ({"kind": "check", "face": "both", "x0": 30, "x1": 31, "y0": 3.17, "y1": 3.29}, True),
    ],
)
def test_defects_count_where_they_overlap(defect: dict[str, Any], rule4: bool) -> None:
    found = check(job_change=lambda j: j["boards"][0]["defects"].append(defect))
    assert any(line.startswith("rule 4") for line in found) == rule4, found


def test_clear_two_and_resawn_blanks_take_no_knot() -> None:
    knot = {"kind": "pin-knot", "face": "A", "x0": 25, "x1": 25.5, "y0": 1, "y1": 1.5}
    found = check(job_change=lambda j: j["boards"][1]["defects"].append(knot))
    assert any("a resawn blank carries none" in line for line in found)
    knot = {"kind": "pin-knot", "face": "A", "x0": 3, "x1": 3.5, "y0": 1, "y1": 1.5}
    found = check(job_change=lambda j: j["boards"][1]["defects"].append(knot))
    assert any("clear-two wants both faces free" in line for line in found)


def test_flatness_is_asked_of_the_milled_area_or_of_each_blank() -> None:
    # Bow of 2.5 over 60 in: a segment of 20.5 keeps 2.5 * (20.5/60)^2 = 0.29, leaving 0.71 of 1 in.
    bent = check(job_change=lambda j: j["boards"][0]["warp"].update(bow=2.5))
    assert sum(line.startswith("rule 5") and "0.7" in line for line in bent) == 2
    # Cup of 0.25 over 6.5 in: the milled area of 6.375 keeps 0.24; a strip of 3.125 only 0.058.
    cupped = {"cup": 0.25}
    assert any(
        line.startswith("rule 5")
        for line in check(job_change=lambda j: j["boards"][0]["warp"].update(cupped))
    )

    def rough(job: dict[str, Any]) -> None:
        job["shop"]["method"] = "rough-rip"
        job["boards"][0]["warp"].update(cupped)

    assert check(job_change=rough) == []


def test_a_resawn_blank_needs_room_for_every_layer_and_kerf() -> None:
    # 2 x (3/8 + 1/32) + 1/16 = 7/8: 1 in is enough, 0.87 is not.
    thin = check(
        job_change=lambda j: [s.update(t0=0.87, t1=0.87) for s in j["boards"][1]["stations"]]
    )
    assert any(line.startswith("rule 5") and "0.8750 in is needed" in line for line in thin)


def test_a_short_blank_and_a_part_in_the_midst_of_a_run() -> None:
    found = check(lambda p: blank(p, 1, 0, 0, 0).update(x1=12.9))
    assert any("no blank is shorter than 12 in" in line for line in found)
    found = check(
        lambda p: blank(p, 1, 0, 0, 0)["layers"].__setitem__(
            0, [item("R", 1), item("A", 1), item("R", 2)]
        )
    )
    assert any("has another part in its midst" in line for line in found)


def test_the_plan_document_survives() -> None:
    job: Job = read_job(json.dumps(JOB))
    plan = read_plan(json.dumps(PLAN))
    assert read_plan(json.dumps(plan_document(plan, job.unit))) == plan


def test_the_command_says_the_same(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    from vividplank.command import main

    (tmp_path / "job.json").write_text(json.dumps(JOB))
    (tmp_path / "plan.json").write_text(json.dumps(PLAN))
    assert main(["audit", str(tmp_path / "job.json"), str(tmp_path / "plan.json")]) == 0
    (tmp_path / "plan.json").write_text(
        json.dumps(PLAN | {"summary": {"cost": 1, "lower_bound": 0}})
    )
    assert main(["audit", str(tmp_path / "job.json"), str(tmp_path / "plan.json")]) == 1
    assert "rule 8" in capsys.readouterr().out
    assert (
        main(
            [
                "plan",
                str(tmp_path / "job.json"),
                "--out",
                str(tmp_path / "out.json"),
                "--seconds",
                "0.5",
            ]
        )
        == 0
    )
    assert main(["audit", str(tmp_path / "job.json"), str(tmp_path / "out.json")]) == 0
    assert main(["plan", str(tmp_path / "none.json"), "--out", str(tmp_path / "x.json")]) == 2
    (tmp_path / "job.json").write_text('{"format": "vivid-plank/job"}')
    assert main(["plan", str(tmp_path / "job.json"), "--out", str(tmp_path / "x.json")]) == 2
    assert "$.version" in capsys.readouterr().err


def test_parts_of_one_blank_have_between_them_what_the_shop_asks() -> None:
    # Two tiles of 8 in a blank of 17: 16 and a kerf of 1/8 and 1/2 over are 16 5/8; with 1/2
    # between them too, 17 1/8.
    def roomy(job: dict[str, Any], between: float) -> None:
        job["version"] = 3
        job["shop"]["allowance"]["between"] = between

    assert any(
        "its items need 17 1/8 in" in line for line in check(job_change=lambda j: roomy(j, 0.5))
    )
    assert check(job_change=lambda j: roomy(j, 0.375)) == []
