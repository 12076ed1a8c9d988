"""Milling steps: worked by hand for one board, and limits that no step passes over in silence."""

import json
from dataclasses import replace
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.test_audit import JOB, PLAN
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.measure import TICKS_PER_64TH
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Machines, Step, routes
from vividplank.core.milling.machines import CAUTIONS, Jointer, Planer
from vividplank.core.milling.passes import equal_passes, thickness_passes

DOCS = Path(__file__).parents[2] / "docs"
HAND_JOB, HAND_PLAN = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))


def steps(machines: Machines | None = None, method: str = "mill-wide") -> dict[str, Step]:
    job = replace(HAND_JOB, shop=replace(HAND_JOB.shop, method=method))  # type: ignore[arg-type]
    return {s.key: s for route in routes(job, HAND_PLAN, machines) for s in route.steps}


def test_plane_then_rip_in_order_for_one_segment() -> None:
    kinds = [s.key.removeprefix("B1.1").strip("/") for s in routes(HAND_JOB, HAND_PLAN)[0].steps]
    assert kinds[:7] == ["B1/length", "face", "edge", "thickness", "width", "a/ends", "b/ends"]


def test_the_figures_of_a_bowed_segment_by_hand() -> None:
    # 20 1/2 in of a board bowed 0.1 over 60: 0.1 * (20.5/60)^2 = 0.01167 in comes off the hollow face B,
    # which is the next 64th: 1/64, one pass. 1 - 1/64 = 63/64 goes to the planer, which stops at 3/4:
    # 15/64 to take, the last pass 1/64, three of 1/16 and one of 2/64.
    found = steps()
    face, plane = found["B1.1/face"], found["B1.1/thickness"]
    assert face.down == "face B" and face.passes == (TICKS_PER_64TH,)
    assert face.stock_in == INCH and face.stock_out == INCH - TICKS_PER_64TH
    assert plane.setting == 3 * INCH // 4 and plane.stock_in == face.stock_out
    assert [p / TICKS_PER_64TH for p in plane.passes] == [4, 4, 4, 2, 1]
    assert "1/64 in comes off" in face.why


def test_a_resawn_blank_is_planed_thick_sawn_and_skimmed() -> None:
    # Two laths of 3/8 with 1/32 each and a kerf of 1/16: 7/8 off the planer, 13/32 off the saw, then 3/8.
    found = steps()
    saw, skim = found["B2.1a2/resaw"], found["B2.1a2/finish-thickness"]
    assert saw.stock_in == 7 * INCH // 8 and saw.setting == 13 * INCH // 32
    assert skim.setting == 3 * INCH // 8 and sum(skim.passes) == INCH // 32
    assert found["B2.1/thickness"].setting == 7 * INCH // 8


def test_rough_ripping_flattens_each_blank_by_itself() -> None:
    found = steps(method="rough-rip")
    assert list(found)[1:8] == ["B1.1/rough-rip", "B1.1a/blank-length", "B1.1a/face", "B1.1a/edge", "B1.1a/thickness",
                                "B1.1a/width", "B1.1a/ends"]


@pytest.mark.parametrize(("jointer", "words"), [
    (Jointer(bed_width=6 * INCH), "6 3/8 in wide; the jointer takes 6 in"),
    (Jointer(shortest=30 * INCH), "nothing under 30 in"),
    (Jointer(thinnest=2 * INCH), "the jointer takes 2 in and more"),
    (Jointer(narrowest=7 * INCH), "hands come too near"),
])
def test_what_the_jointer_cannot_take_is_said_with_the_way_round(jointer: Jointer, words: str) -> None:
    face = steps(Machines(jointer=jointer))["B1.1/face"]
    assert words in face.obstacle and face.way_round
    assert not any("guard" in way for way in face.way_round)


def test_what_the_planer_cannot_take_is_said_too() -> None:
    assert "this planer takes 5 in" in steps(Machines(planer=Planer(width=5 * INCH)))["B1.1/thickness"].obstacle
    short = steps(Machines(planer=Planer(shortest=30 * INCH)))["B1.1/thickness"]
    assert "20 1/2 in is shorter than the 30 in it feeds" in short.obstacle
    long = steps(Machines(jointer=Jointer(longest=20 * INCH)))["B1.1/edge"]
    assert "cannot hold it straight" in long.obstacle and "straight carrier" in long.way_round[0]
    assert "thinner" in steps(Machines(planer=Planer(thinnest=INCH // 2)))["B2.1a2/finish-thickness"].obstacle


def test_a_twisted_corner_is_for_the_hand_plane_and_a_bow_is_not() -> None:
    bowed = steps()["B1.1/face"]
    assert "hand plane" not in bowed.why
    twisted = json.loads(json.dumps(JOB))
    twisted["boards"][0]["warp"] = {"twist": 0.5}
    # 1/2 over the board, a third of that over 20 1/2 of its 60 in: split, two corners stand a twelfth high.
    face = routes(read_job(json.dumps(twisted)), HAND_PLAN)[0].steps[1]
    assert "Knock down the high corner first" in face.why


def test_a_metric_shop_works_in_millimetres() -> None:
    metric = replace(HAND_JOB, unit="mm")
    found = {s.key: s for route in routes(metric, HAND_PLAN) for s in route.steps}
    face = found["B1.1/face"]
    assert face.setting == 256 and sum(face.passes) % 32 == 0  # 0.8 mm a pass, whole tenths
    assert "0.3 mm comes off" in face.why  # 0.01167 in
    assert found["B1.1/thickness"].passes[-1] == 128  # 0.4 mm, the light one


def test_every_step_says_why_and_every_machine_has_its_cautions() -> None:
    job = read_job((DOCS / "examples" / "settle.job.json").read_text(encoding="utf-8"))
    plan = read_plan((DOCS / "examples" / "settle.plan.json").read_text(encoding="utf-8"))
    found = [s for route in routes(job, plan) for s in route.steps]
    assert len({s.key for s in found}) == len(found)
    for step in found:
        assert step.why and step.machine in CAUTIONS
        assert any(c.isdigit() for c in step.why + step.do), step
        assert all(p > 0 for p in step.passes)
        if step.key.endswith("/thickness"):
            assert step.stock_in - sum(step.passes) == step.stock_out == step.setting
    for lines in CAUTIONS.values():
        assert any("manual" in line for line in lines)


@given(st.floats(0, 5000), st.integers(1, 12))
def test_jointer_passes_take_it_all_and_none_too_deep(depth: float, most: int) -> None:
    passes = equal_passes(depth, most * TICKS_PER_64TH)
    assert depth <= sum(passes) < depth + TICKS_PER_64TH + 1
    assert all(0 < p <= most * TICKS_PER_64TH for p in passes)


@given(st.integers(0, 20000), st.integers(0, 20000))
def test_planer_passes_end_exactly_with_a_light_one(start: int, finish: int) -> None:
    passes = thickness_passes(start, finish, 508, 127)
    assert sum(passes) == max(0, start - finish) and all(0 < p <= 508 for p in passes)
    assert not passes or passes[-1] <= 127
