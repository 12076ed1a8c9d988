"""At the machine: what a reading means, where a piece is, what a run of passes teaches, settings
kept, and paper.
"""

import json
from dataclasses import replace
from io import BytesIO
from typing import Any

import pypdfium2
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.layout.model.test_audit import JOB, PLAN
from tests.core.layout.search.test_limits import machines
from tests.core.milling.test_milling import HAND_JOB, HAND_PLAN, steps
from tests.core.milling.test_simulate import board
from vividplank.core.board import Board
from vividplank.core.exchange import Refusal, read_job, read_plan
from vividplank.core.exchange.paper.route_pdf import route_cards, setting_sheets
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Machines, Milling, routes
from vividplank.core.milling.bench.reading import judge
from vividplank.core.milling.bench.watch import Watched, watch
from vividplank.core.milling.bench.where import PLACES, whereabouts
from vividplank.core.milling.bench.words import figures, setting_name
from vividplank.core.milling.days.day_solver import plan_days
from vividplank.core.milling.physics.flatten import flatten
from vividplank.core.milling.shop.document import milling_from_document, milling_to_document
from vividplank.core.milling.shop.school import SCHOOLS, Hours
from vividplank.core.piece import piece_of_board

PLANE = steps()["B1.1/thickness"]  # to 3/4, passes of 4/64, the last 1/64, a wheel of 1/16 a turn


@pytest.mark.parametrize(
    ("reading", "state", "says"),
    [
        (48, "done", "3/4 in: that is it"),
        (50, "go on", "1/32 in to go: two passes at a quarter turn"),
        (53, "go on", "5/64 in to go: one pass at one turn, then one at a quarter turn"),
        (45, "stop", "45/64 in is 3/64 in too thin: 3/4 in was wanted"),
    ],
)
def test_a_caliper_reading_at_the_planer(reading: int, state: str, says: str) -> None:
    verdict = judge(PLANE, reading * INCH // 64, HAND_JOB, Machines())
    assert (verdict.state, verdict.says) == (state, says)


def test_too_thin_says_what_else_it_would_make() -> None:
    # 45/64 is no shelf of 3/4 any more; the tiles of 1/2 and laths of 3/8 still come out of 20 1/2
    # x 6 3/8.
    ways = judge(PLANE, 45 * INCH // 64, HAND_JOB, Machines()).ways
    assert any("make Tile (R) of it: 8 in × 3 in × 1/2 in" in w for w in ways) and any(
        "Lath (L)" in w for w in ways
    )
    assert not any("Shelf" in w for w in ways) and "write it off" in ways[-1]


def test_out_of_square_stops_and_a_hair_does_not() -> None:
    edge = steps()["B1.1/edge"]
    assert judge(edge, 0, HAND_JOB, Machines()).state == "done"
    assert judge(edge, INCH // 100, HAND_JOB, Machines()).state == "done"  # under a 64th
    stopped = judge(edge, INCH // 32, HAND_JOB, Machines())
    assert (
        stopped.state == "stop"
        and "out of square by 1/32 in" in stopped.says
        and "fence" in stopped.ways[0]
    )


def test_a_faced_piece_must_still_hold_its_thickness() -> None:
    face = steps()["B1.1/face"]
    good = judge(face, 62 * INCH // 64, HAND_JOB, Machines(), 48 * INCH // 64)
    assert good.state == "done" and "7/32 in for the planer" in good.says
    assert judge(face, 46 * INCH // 64, HAND_JOB, Machines(), 48 * INCH // 64).state == "stop"
    swollen = judge(face, 70 * INCH // 64, HAND_JOB, Machines(), 48 * INCH // 64)
    assert swollen.state == "stop" and any("metal" in w for w in swollen.ways)


def test_widths_and_lengths_too_large_go_on_and_too_small_stop() -> None:
    rip, cut = steps()["B1.1a/width"], steps()["B1.1a/length-A"]
    wide = judge(rip, 3 * INCH + INCH // 16, HAND_JOB, Machines())
    assert wide.state == "go on" and "set the fence to 3 in" in wide.says
    assert "too narrow" in judge(rip, 2 * INCH, HAND_JOB, Machines()).says
    assert "against the stop once more" in judge(cut, 21 * INCH, HAND_JOB, Machines()).says
    assert (
        judge(cut, 19 * INCH, HAND_JOB, Machines()).says
        == "19 in is 1 in too short: 20 in was wanted"
    )


@given(st.integers(INCH // 8, 2 * INCH))
def test_what_is_to_go_brings_it_to_size_exactly(reading: int) -> None:
    verdict = judge(PLANE, reading, HAND_JOB, Machines())
    if verdict.state == "go on":
        assert reading - sum(verdict.passes) == PLANE.stock_out
    elif verdict.state == "done":
        assert abs(reading - PLANE.stock_out) <= PLANE.tolerance
    else:
        assert reading < PLANE.stock_out and verdict.ways


def test_every_piece_can_be_found_all_the_way() -> None:
    found = routes(HAND_JOB, HAND_PLAN)
    every = [s for r in found for s in r.steps]

    def at(mark: str, *done: str) -> str:
        return next(
            w.place for w in whereabouts(HAND_JOB, HAND_PLAN, found, done) if w.mark == mark
        )

    way = [
        "B1/rough-length",
        "B1.1/face",
        "B1.1/edge",
        "B1.1/thickness",
        "B1.1a/width",
        "B1.1a/square",
        "B1.1a/length-A",
    ]
    seen = [at("A1", *way[:n]) for n in range(len(way) + 1)]
    assert seen == ["rack", "rough", "rough", "rough", "milled", "milled", "milled", "finished"]
    assert at("A2", *way) == "milled"  # of the same segment
    sawn = [
        "B2/rough-length",
        "B2.1/face",
        "B2.1/edge",
        "B2.1/thickness",
        "B2.1a/width",
        "B2.1a/blank-length",
        "B2.1a2/resaw",
        "B2.1a2-1/sticker",
    ]
    assert at("L1", *sawn) == "resting"
    assert at("P1·1", *(s.key for s in every if s.kind != "length" and s.board != "")) == "panel"
    done = {s.key for s in every}
    places_now = {w.place for w in whereabouts(HAND_JOB, HAND_PLAN, found, done)}
    assert places_now == {"finished"} and places_now < set(PLACES)


def test_a_fitted_piece_is_held_long() -> None:
    job = replace(HAND_JOB, parts=tuple(replace(p, fitted=p.id == "A") for p in HAND_JOB.parts))
    found = routes(job, HAND_PLAN)
    done = {s.key for r in found for s in r.steps if not s.kind.startswith("fit-")}
    assert {
        w.place for w in whereabouts(job, HAND_PLAN, found, done) if w.mark in ("A1", "A2")
    } == {"held long"}
    assert {
        w.place
        for w in whereabouts(job, HAND_PLAN, found, done | {"B1.1a/fit-A1"})
        if w.mark == "A1"
    } == {"fitted"}


@pytest.mark.parametrize("school", SCHOOLS)
def test_nothing_is_lost_by_any_school(school: str) -> None:
    found = routes(HAND_JOB, HAND_PLAN, Milling(school=school))  # type: ignore[arg-type]
    marks = [w.mark for w in whereabouts(HAND_JOB, HAND_PLAN, found, ())]
    assert sorted(marks) == ["A1", "A2", "L1", "L2", "P1·1", "P1·2", "R1", "R2"]


def seen(bent: Board, **how: Any) -> Watched:
    wood = piece_of_board(bent)
    found = flatten(bent, wood.box, round(0.75 * INCH), INCH // 32, False)
    return watch(wood, found, how.pop("machine", "jointer"), "in", **how)


def test_the_right_way_and_two_wrong_ones() -> None:
    bowed = board(bow=0.125)
    right = seen(bowed)
    # As by hand in test_simulate: five passes, four of five cleaned nine tenths.
    assert len(right.frames) == 6 and right.enough == 4 and "on to the planer" in right.says
    assert [f.clean for f in right.frames] == sorted(f.clean for f in right.frames)
    rocked = seen(bowed, down="A", press="infeed")
    assert "Turn it hollow side down" in rocked.says and rocked.frames[-1].bent > INCH // 10
    planed = seen(bowed, machine="planer")
    assert "let it spring back" in planed.says
    flat = seen(board(), machine="planer")
    assert len(flat.frames) == 2 and "parallel" in flat.says


def test_nobody_is_told_to_turn_what_lies_right() -> None:
    rocked = seen(board(bow=-0.125), press="infeed")
    assert "Turn it" not in rocked.says


def test_the_picture_shows_what_the_step_foretells() -> None:
    # A twist that is split between two corners by hand first: the picture begins after that, and
    # comes to the share that the step names, in as many passes.
    twisted = board(twist=0.2)
    wood = piece_of_board(twisted)
    found = flatten(twisted, wood.box, round(0.8 * INCH), INCH // 32, True)
    assert found.high
    frames = watch(wood, found, "jointer", "in").frames
    assert frames[found.passes].clean == found.clean == 1.0


def test_the_end_that_leads_makes_the_picture_not_the_sum() -> None:
    one, other = (seen(board(twist=0.1), far_end_first=f) for f in (False, True))
    assert one.frames[1].lines != other.frames[1].lines
    assert abs(one.frames[1].clean - other.frames[1].clean) < 0.1


NAMES = st.text(min_size=1, max_size=4)


@given(
    machines(),
    st.sampled_from(SCHOOLS),
    st.dictionaries(NAMES, st.sampled_from(SCHOOLS), max_size=3),
    st.dictionaries(NAMES, st.integers(1, 100_000), max_size=3),
)
def test_settings_come_back_as_they_were_kept(
    shop: Machines, school: str, exceptions: dict[str, str], fitted: dict[str, int]
) -> None:
    milling = Milling(shop, school, exceptions, fitted)  # type: ignore[arg-type]
    assert milling_from_document(json.loads(json.dumps(milling_to_document(milling)))) == milling


@pytest.mark.parametrize(
    ("change", "path", "word"),
    [
        (
            {"machines": {"jointer": {"bed_width": 0}}},
            "$.machines.jointer.bed_width",
            "over nothing",
        ),
        (
            {"machines": {"planer": {"usual_pass": -5}}},
            "$.machines.planer.usual_pass",
            "over nothing",
        ),
        ({"machines": {"router_bridge": -1}}, "$.machines.router_bridge", "or nothing"),
        ({"school": "by feel"}, "$.school", "plane-then-rip"),
        ({"hours": {"begins": 1000, "ends": 900}}, "$.hours", "begins before it ends"),
        ({"fitted": {"A1": 0}}, "$.fitted.A1", "over nothing"),
        ({"machines": {"planer": {"width": "wide"}}}, "$.machines.planer.width", "integer"),
    ],
)
def test_settings_no_machine_has_are_refused(
    change: dict[str, object], path: str, word: str
) -> None:
    with pytest.raises(Refusal) as refused:
        milling_from_document(change)
    assert refused.value.path == path and word in refused.value.why


def text_of(pdf: bytes) -> list[str]:
    document = pypdfium2.PdfDocument(BytesIO(pdf))
    return [page.get_textpage().get_text_range() for page in document]


def test_a_route_card_for_each_board_and_panel() -> None:
    pages = text_of(route_cards(HAND_JOB, routes(HAND_JOB, HAND_PLAN), "in"))
    assert len(pages) >= 3
    assert (
        "Face B1.1, hollow side down" in pages[0]
        and "set to 3/4 in; 5 passes; readings 61/64, 57/64" in pages[0]
    )
    assert any("Glue Top P1" in p and "60 minutes" not in p.split("Glue Top P1")[0] for p in pages)


def test_a_setting_sheet_for_each_machine_with_its_cautions() -> None:
    found = routes(HAND_JOB, HAND_PLAN)
    every = [s for r in found for s in r.steps]
    days = plan_days(every, Milling(), 2)
    pages = text_of(setting_sheets(HAND_JOB, found, days, Hours(), "in"))
    whole = "\n".join(pages)
    assert "fence at 3 in" in whole and "passes of 1/64 in" in whole and "manual" in whole
    for step in every:
        assert step.do.split(",")[0][:24] in whole, step.do


def test_settings_and_figures_in_words() -> None:
    found = steps()
    assert setting_name(found["B1.1/thickness"], "in") == "3/4 in"
    assert setting_name(found["B1.1a/length-A"], "in") == "stop at 20 in"
    assert setting_name(found["B1.1a/square"], "in") == "square ends"
    assert setting_name(found["B1/rough-length"], "mm") == "rough crosscuts to the marks"
    assert figures(found["B1.1/edge"], "in") == "set to 1/32 in; 1 pass"
    assert figures(found["B1/rough-length"], "in") == "to the marks"
    assert figures(found["P1/glue"], "in").endswith("then 1 hour before it is touched again")
    job, plan = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))
    bent = {s.key: s for r in routes(job, plan, Milling(school="rough-rip-first")) for s in r.steps}
    assert setting_name(bent["B1.1/rough-rip"], "in") == "freehand to the line"


def test_a_handsaw_is_led_along_a_line_and_set_to_nothing() -> None:
    found = steps(Milling(school="by-hand"))
    assert setting_name(found["B1/rough-length"], "in") == "to the marks"
    assert setting_name(found["B1.1a/square"], "in") == "to a square line"
    assert setting_name(found["B1.1a/length-A"], "in") == "to a line at 20 in"
    assert figures(found["B1.1a/length-A"], "in") == "a line at 20 in"
