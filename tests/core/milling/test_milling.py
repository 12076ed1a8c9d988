"""Milling steps: worked by hand for one board and every school, and reasons that no step is
without.

The board B1 is 60 long, 6 1/2 wide, 1 thick and bowed 1/10; two segments of 20 1/2 are cut from it.
The jointer's bed is 8: a piece of 6 3/8 is more than three quarters of it, so its usual pass of
1/32 is halved to 1/64. B2 is flat.
"""

import json
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import ROOT
from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.core.board.grain import Grain
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_64TH
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, Step, routes
from vividplank.core.milling.model.passes import depths, equal_passes, settings
from vividplank.core.milling.model.step import Fellow
from vividplank.core.milling.shop.cautions import CAUTIONS
from vividplank.core.milling.shop.machines import Jointer, Machines, depth_of_pass
from vividplank.core.milling.shop.school import SCHOOLS, School

DOCS = ROOT / "docs"
HAND_JOB, HAND_PLAN = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))
_64 = TICKS_PER_64TH


def steps(milling: Milling | None = None, job: Job = HAND_JOB) -> dict[str, Step]:
    return {s.key: s for route in routes(job, HAND_PLAN, milling) for s in route.steps}


def kinds(school: School, piece: str) -> list[str]:
    found = steps(Milling(school=school))
    return [k.removeprefix(piece).strip("/") for k in found if k.startswith(piece)]


def sixty_fourths(step: Step) -> list[float]:
    return [p / _64 for p in step.passes]


def test_plane_then_rip() -> None:
    # 0.1 x (20 1/2 / 60)^2 = 0.0117 of bow is left in a segment: one pass of 1/64 cleans enough of
    # the face, and takes from the ends only: its thickest place stays within 1/64 of 1. The
    # settings lie a light 1/64 over 3/4, and from there up at steps of 4/64: 49, 53, 57, 61.
    assert kinds("plane-then-rip", "B1.1") == [
        "face",
        "edge",
        "thickness",
        "a/width",
        "a/square",
        "a/length-A",
        "b/width",
        "b/square",
        "b/length-A",
    ]
    found = steps()
    face, plane = found["B1.1/face"], found["B1.1/thickness"]
    assert face.down == "face B" and sixty_fourths(face) == [1] and face.setup == "jointer 127"
    assert face.stock_in == face.stock_out == INCH
    assert (plane.stock_in, plane.stock_out) == (INCH, 3 * INCH // 4)
    assert sixty_fourths(plane) == [3, 4, 4, 4, 1]
    assert [r / _64 for r in plane.readings] == [61, 57, 53, 49, 48]
    # A strip of 3 1/8 keeps 1/8 for its edges: fence at 3. The blank of 20 1/2 gives the 20 of the
    # shelf.
    assert found["B1.1a/width"].setting == 3 * INCH and found["B1.1a/length-A"].setting == 20 * INCH


def test_seven_steps_rip_before_they_plane() -> None:
    assert kinds("seven-steps", "B1.1")[:5] == [
        "face",
        "edge",
        "a/width",
        "a/thickness",
        "a/square",
    ]
    plane = steps(Milling(school="seven-steps"))["B1.1a/thickness"]
    assert plane.size[1] == 3 * INCH and sixty_fourths(plane) == [3, 4, 4, 4, 1]


def test_the_jointed_saw_edge_is_ripped_a_sixteenth_over() -> None:
    # Fence at 3 1/16; the jointer takes the 4/64 in two passes of its usual 2/64.
    found = steps(Milling(school="jointed-saw-edge"))
    assert found["B1.1a/width"].setting == 3 * INCH + INCH // 16
    edge = found["B1.1a/saw-edge"]
    assert sixty_fourths(edge) == [2, 2] and (edge.stock_in, edge.stock_out) == (
        3 * INCH + INCH // 16,
        3 * INCH,
    )


def test_rough_rip_first_flattens_each_strip_by_itself() -> None:
    # A strip of 3 1/8 is under half the bed: passes of the usual 2/64.
    assert kinds("rough-rip-first", "B1.1") == [
        "rough-rip",
        "a/face",
        "a/edge",
        "a/thickness",
        "a/width",
        "a/square",
        "a/length-A",
        "b/face",
        "b/edge",
        "b/thickness",
        "b/width",
        "b/square",
        "b/length-A",
    ]
    face = steps(Milling(school="rough-rip-first"))["B1.1a/face"]
    assert sixty_fourths(face) == [2] and face.size == (41 * INCH // 2, 25 * INCH // 8, INCH)


def test_look_first_skims_both_faces_lightly() -> None:
    # 1/64 off each face leaves 62/64: it joins the others at 61.
    found = steps(Milling(school="look-first"))
    skim = found["B1.1/skim"]
    assert sixty_fourths(skim) == [1, 1] and skim.stock_out == 62 * _64
    assert sixty_fourths(found["B1.1/thickness"]) == [1, 4, 4, 4, 1]


def test_two_visits_rest_before_the_last_eighth() -> None:
    # The first visit stops at 3/4 + 1/8 = 56/64, by 61 and 57. After three days 1/64 more is faced
    # off: 55/64, and the second goes by 53 and 49.
    assert kinds("two-visits", "B1.1")[:6] == [
        "face",
        "edge",
        "rough-thickness",
        "sticker",
        "face-again",
        "thickness",
    ]
    found = steps(Milling(school="two-visits"))
    assert sixty_fourths(found["B1.1/rough-thickness"]) == [3, 4, 1]
    assert found["B1.1/sticker"].hold == 3 * 24 * 60
    assert sixty_fourths(found["B1.1/thickness"]) == [2, 4, 1]


def test_by_hand_no_machine_is_switched_on() -> None:
    found = steps(Milling(school="by-hand")).values()
    assert {s.machine for s in found} == {"hand plane", "handsaw", "bench"}
    assert not any(s.obstacle for s in found)


def test_a_school_for_one_board_or_part_or_piece_alone() -> None:
    found = steps(Milling(exceptions={"B1.1": "by-hand"}))
    assert found["B1.1/face"].machine == "hand plane" and found["B1.2/face"].machine == "jointer"
    found = steps(Milling(exceptions={"A": "seven-steps"}))
    assert "B1.1a/thickness" in found and "B1.2/thickness" in found
    found = steps(Milling(exceptions={"P": "by-hand"}))
    assert found["P1/flatten"].machine == "hand plane" and found["B2.1/face"].machine == "jointer"


def test_a_resawn_blank_is_planed_thick_sawn_rested_and_skimmed() -> None:
    # Two laths of 3/8 with 1/32 each and a kerf of 1/16: 7/8 off the planer, 13/32 off the saw,
    # then 3/8.
    found = steps()
    saw, skim = found["B2.1a2/resaw"], found["B2.1a2-1/finish-thickness"]
    assert saw.stock_in == 7 * INCH // 8 and saw.setting == 13 * INCH // 32
    assert skim.setting == 3 * INCH // 8 and sum(skim.passes) == INCH // 32
    assert found["B2.1/thickness"].setting == 7 * INCH // 8
    again, sticker = found["B2.1a2-1/check"], found["B2.1a2-1/sticker"]
    assert skim.after == (again.key,) and again.after == (sticker.key,)
    assert sticker.hold == 24 * 60 and sticker.after == (saw.key,)
    assert "B2.1a2-2/finish-thickness" in found


def test_a_panel_stops_early_and_is_flattened_after_glue_up() -> None:
    # Staves leave the planer at 3/4 + 1/32; two of 3 give 6 for a panel of 5 3/4. 20 1/2 long: a
    # clamp every 8, three of them.
    found = steps()
    assert found["B1.2/thickness"].setting == 3 * INCH // 4 + INCH // 32
    glue, flat, trim = found["P1/glue"], found["P1/flatten"], found["P1/trim"]
    assert "P1·1, P1·2 side by side" in glue.do and "3 clamps" in glue.why and glue.hold == 60
    assert set(glue.after) == {"B1.2a/glue-edge", "B1.2b/glue-edge"}
    assert (
        sixty_fourths(flat) == [1, 1]
        and flat.after == ("P1/unclamp",)
        and found["P1/unclamp"].hold == 12 * 60
    )
    assert (trim.stock_in, trim.stock_out) == (6 * INCH, 23 * INCH // 4)
    assert found["P1/length"].setting == 20 * INCH


def test_the_rings_of_staves_are_told_where_somebody_looked() -> None:
    assert "look at the ends" in steps()["P1/glue"].down
    boards = tuple(
        replace(b, grain=Grain(heart="A")) if b.id == "B1" else b for b in HAND_JOB.boards
    )
    assert (
        "B1 has its heart at face A" in steps(job=replace(HAND_JOB, boards=boards))["P1/glue"].down
    )


def test_a_fitted_part_waits_for_its_measure() -> None:
    job = replace(HAND_JOB, parts=tuple(replace(p, fitted=p.id == "A") for p in HAND_JOB.parts))
    held = steps(job=job)["B1.1a/fit-A1"]
    assert held.setting == 0 and "Hold A1 long" in held.do and "the list says 20 in" in held.why
    found = steps(Milling(fitted={"A1": 157 * INCH // 8}), job)
    assert (
        found["B1.1a/length-A1"].setting == 157 * INCH // 8
        and "as measured on the work" in found["B1.1a/length-A1"].why
    )
    assert "B1.1b/fit-A2" in found  # A2 has not been measured
    assert found["B1.1b/fit-A2"].fellows == (Fellow("A1", 157 * INCH // 8),)
    assert "A1 was measured at 19 5/8 in" in found["B1.1b/fit-A2"].why


def test_measures_of_opposite_sides_are_compared() -> None:
    job = replace(HAND_JOB, parts=tuple(replace(p, fitted=p.id == "A") for p in HAND_JOB.parts))
    apart = steps(Milling(fitted={"A1": 157 * INCH // 8, "A2": 158 * INCH // 8}), job)
    assert "A1 was measured at 19 5/8 in, 1/8 in shorter" in apart["B1.1b/length-A2"].why
    assert "A2 was measured at 19 3/4 in, 1/8 in longer" in apart["B1.1a/length-A1"].why
    same = steps(Milling(fitted={"A1": 157 * INCH // 8, "A2": 157 * INCH // 8}), job)
    assert same["B1.1b/length-A2"].why.endswith("A1 is the same")


def test_a_loose_knot_between_the_strips_is_sawn_away_before_the_jointer() -> None:
    knotty = json.loads(json.dumps(JOB))
    knotty["boards"][0]["defects"].append(
        {"kind": "loose-knot", "face": "both", "x0": 8, "x1": 9, "y0": 3.13, "y1": 3.24}
    )
    sawn = steps(job=read_job(json.dumps(knotty)))["B1.1/rough-rip"]
    assert "a loose knot at 8 in lies in its waste" in sawn.why


def test_what_only_strips_can_hold_is_ripped_first_whatever_the_school() -> None:
    # Cupped 0.35 over 6 1/2 the segment holds under 3/4 flat; strips of half the width keep a
    # quarter of the cup.
    cupped = json.loads(json.dumps(JOB))
    cupped["boards"][0]["warp"] = {"cup": 0.35}
    found = steps(job=read_job(json.dumps(cupped)))
    assert "each strip by itself holds it" in found["B1.1/rough-rip"].why


def test_a_twist_is_split_by_hand_before_the_jointer_where_that_saves_the_board() -> None:
    # 1.2 of twist over the board is 0.4 over a segment of 20 1/2: on three corners 0.6 would be
    # left, under the 3/4 wanted; split between two it costs half of that and leaves 0.8.
    twisted = json.loads(json.dumps(JOB))
    twisted["boards"][0]["warp"] = {"twist": 1.2}
    found = steps(job=read_job(json.dumps(twisted)))
    knock = found["B1.1/knock-down"]
    assert (
        knock.machine == "hand plane"
        and "corners" in knock.do
        and knock.key in found["B1.1/face"].after
    )


def test_a_metric_shop_works_in_millimetres() -> None:
    found = steps(job=replace(HAND_JOB, unit="mm"))
    face = found["B1.1/face"]
    assert sum(face.passes) % 32 == 0  # whole tenths
    assert "0.3 mm comes off" in face.why  # 0.01167 in
    assert found["B1.1/thickness"].passes[-1] == 120  # 3/16 of a turn of 2 mm, under the light 0.4


@pytest.mark.parametrize("school", SCHOOLS)
def test_every_step_of_the_demo_says_why_and_waits_only_for_steps_that_are(school: School) -> None:
    job = read_job((DOCS / "examples" / "settle.job.json").read_text(encoding="utf-8"))
    plan = read_plan((DOCS / "examples" / "settle.plan.json").read_text(encoding="utf-8"))
    found = [s for route in routes(job, plan, Milling(school=school)) for s in route.steps]
    keys = [s.key for s in found]
    assert len(set(keys)) == len(keys)
    seen: set[str] = set()
    for step in found:
        assert step.why and step.machine in CAUTIONS and step.setup and step.minutes > 0
        assert any(c.isdigit() for c in step.why + step.do) or step.kind == "face-again", step
        assert all(p > 0 for p in step.passes)
        assert set(step.after) <= seen  # routes are written in an order that works
        seen.add(step.key)
        if step.kind in ("thickness", "finish-thickness"):
            assert step.stock_in - sum(step.passes) == step.stock_out == step.setting
    for lines in CAUTIONS.values():
        assert any("manual" in line for line in lines)
    pieces = [p for s in found for p in s.pieces if s.kind.startswith(("length", "fit"))]
    assert len(pieces) == len(set(pieces)) == sum(p.quantity for p in job.parts)


def test_the_wider_and_the_harder_the_lighter_the_pass() -> None:
    usual, step = INCH // 32, TICKS_PER_64TH
    assert depth_of_pass(usual, 3 * INCH, 8 * INCH, 1360, step) == 254  # white oak, narrow
    assert depth_of_pass(usual, 7 * INCH, 8 * INCH, 1360, step) == 127
    assert (
        depth_of_pass(INCH // 8, 3 * INCH, 8 * INCH, 1820, step) == 762
    )  # hickory: three quarters of 8/64
    assert depth_of_pass(usual, 8 * INCH, 8 * INCH, 3000, step) == step
    wide = steps(Milling(Machines(jointer=Jointer(bed_width=12 * INCH))))["B1.1/face"]
    assert (
        wide.setup == "jointer 127"
    )  # 6 3/8 is over half of 12: three quarters of 2/64, down to a whole 64th


@given(st.floats(0, 5000), st.integers(1, 12))
def test_jointer_passes_take_it_all_and_none_too_deep(depth: float, most: int) -> None:
    passes = equal_passes(depth, most * TICKS_PER_64TH)
    assert depth <= sum(passes) < depth + TICKS_PER_64TH + 1
    assert all(0 < p <= most * TICKS_PER_64TH for p in passes)


@given(st.integers(0, 20000), st.integers(0, 20000))
def test_planer_passes_end_exactly_with_a_light_one(start: int, finish: int) -> None:
    passes = depths(start, settings(start, finish, 508, 508, 127, 127))
    assert sum(passes) == max(0, start - finish) and all(0 < p <= 508 for p in passes)
    assert not passes or passes[-1] <= 127
