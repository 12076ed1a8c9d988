"""Which end leads, how a machine shows its setting, and where the chips go."""

import json
import time

import pytest
from hypothesis import given

from tests.core.layout.model.test_audit import JOB, PLAN
from tests.jobs import jobs
from tests.profiles import examples
from vividplank.core.board.grain import Grain
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.milling.physics.orient import for_edge, for_face
from vividplank.core.milling.shop.dial import Dial
from vividplank.core.yields import account
from vividplank.core.yields.chips import OPERATIONS, chips_by_operation


def test_fibres_that_climb_from_the_table_want_the_other_end_first() -> None:
    # Climbing toward face A as x grows, with face B down, they come out at the table's side at the
    # datum end: the far end leads.
    climbing = Grain(datum_edge=0.05, far_edge=0.04)
    assert (
        for_face(climbing, "B").first == "far end" and for_face(climbing, "A").first == "datum end"
    )
    assert not for_face(climbing, "B").light


def test_where_the_edges_disagree_the_steeper_rules_in_light_passes() -> None:
    lead = for_face(Grain(datum_edge=0.02, far_edge=-0.06), "B")
    assert lead.first == "datum end" and lead.light and "steeper" in lead.why


def test_nobody_looked_or_straight_grain_leaves_the_choice() -> None:
    assert for_face(Grain(), "B").first == "" and for_face(Grain(datum_edge=0.001), "B").first == ""


def test_the_face_at_the_fence_decides_which_end_an_edge_leads_with() -> None:
    # Datum edge down, face B to the fence: the datum end leads. Fibres that fall toward the datum
    # edge as x grows agree.
    assert for_edge(Grain(), "B").first == "datum end" and for_edge(Grain(), "A").first == "far end"
    assert for_edge(Grain(), "B", datum_edge=False).first == "far end"
    agree, against = for_edge(Grain(across=-0.03), "B"), for_edge(Grain(across=0.03), "B")
    assert not agree.light and "down and away" in agree.why
    assert against.light and against.first == "datum end" and "light passes" in against.why
    assert not for_edge(Grain(across=0.03), "A").light  # the other face to the fence turns it round


@pytest.mark.parametrize(
    ("depth", "says"),
    [
        (INCH // 32, "half a turn"),
        (INCH // 64, "a quarter turn"),
        (3 * INCH // 64, "three quarters of a turn"),
        (INCH // 16, "one turn"),
        (3 * INCH // 32, "1 1/2 turns"),
        (INCH // 8, "2 turns"),
        (INCH // 256, "1/16 of a turn"),
    ],
)
def test_a_wheel_of_a_sixteenth_a_turn(depth: int, says: str) -> None:
    assert Dial("wheel", INCH // 16).says(depth, "in") == says


def test_a_scale_and_a_readout_show_the_measure() -> None:
    assert (
        Dial("scale").says(INCH // 32, "in") == "1/32 in"
        and Dial("readout").says(TICKS_PER_MM, "mm") == "1 mm"
    )
    assert Dial("wheel", 2 * TICKS_PER_MM).says(TICKS_PER_MM, "mm") == "half a turn"


def test_chips_by_operation_of_a_bowed_board_by_hand() -> None:
    # B2 is flat and 1 thick. Facing takes nothing. Two tiles in a blank of 17 x 3 1/8 come down to
    # 1/2: 1/2 x 53.125 = 26.5625 cubic inches by the planer. The lath blank of 15 x 3 1/8 is planed
    # from 1 to 7/8 (1/8 x 46.875 = 5.859) and its two layers are skimmed 1/32 each (2.930). The
    # offcut of 44 x 3 3/4 beside them is planed to 7/8 too (20.625).
    job, plan = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))
    cubic = {k: v / INCH**3 for k, v in chips_by_operation(job, plan)["B2"].items()}
    assert cubic["facing"] == 0 and cubic["flattening panels"] == 0
    assert cubic["planing"] == pytest.approx(26.5625 + 5.859375 + 20.625, abs=1e-3)
    assert cubic["skim after resawing"] == pytest.approx(2.9296875, abs=1e-3)
    # B1 is bowed: facing takes under the plane of each segment's slab, two thirds of what goes at
    # the ends on average over four blanks of 20 1/2 x 3 1/8: a third of 0.1 x (20.5/60)^2 over
    # 256.25 square inches is 1.0 cubic inch.
    bowed = {k: v / INCH**3 for k, v in chips_by_operation(job, plan)["B1"].items()}
    assert bowed["facing"] == pytest.approx(0.1 * (20.5 / 60) ** 2 / 3 * 4 * 20.5 * 3.125, rel=0.02)
    assert bowed["flattening panels"] == pytest.approx(2 * 20.5 * 3.125 / 32, rel=1e-3)


@examples(40)
@given(jobs())
def test_chips_by_operation_close_exactly_with_the_account(job: Job) -> None:
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    found = chips_by_operation(job, plan)
    for board in account(job, plan).boards:
        assert tuple(found[board.board]) == OPERATIONS
        assert sum(found[board.board].values()) == board.where["chips"]
        assert all(v >= 0 for v in found[board.board].values())
