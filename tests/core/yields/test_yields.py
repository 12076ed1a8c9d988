"""The account of where the wood went: it closes, and each figure is what one would measure."""

import json
import time
from dataclasses import replace

import pytest
from hypothesis import given

from tests.conftest import ROOT
from tests.core.layout.model.test_audit import JOB, PLAN
from tests.jobs import jobs
from tests.profiles import examples
from vividplank.core.board.volume import board_volume
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.yields import CATEGORIES, account
from vividplank.core.yields.offcuts import offcuts

CUBIC_INCH = TICKS_PER_INCH**3
DOCS = ROOT / "docs"


@examples(60)
@given(jobs())
def test_it_closes_to_the_rough_volume_exactly(job: Job) -> None:
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    found = account(job, plan)
    for board in found.boards:
        assert (
            sum(board.where.values()) == board.rough == round(board_volume(job.board(board.board)))
        )
        assert set(board.where) == set(CATEGORIES)
        # Nothing is counted twice: what no other category claims is never less than nothing.
        assert min(board.where.values()) >= -2, board.where
    placed = [i for *_, i in plan.items() if not i.stave]
    panels = {(i.part, i.n) for *_, i in plan.items() if i.stave}
    wanted = sum(job.part(i.part).volume for i in placed) + sum(
        job.part(p).volume for p, _ in panels
    )
    assert found.where["parts"] == pytest.approx(wanted, abs=10 * len(found.boards) + 10)


def test_a_board_by_hand() -> None:
    # B2 of the hand-written plan: 50 x 7 x 1 = 350 cubic inches.
    found = next(
        b
        for b in account(read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))).boards
        if b.board == "B2"
    )
    where = {name: volume / CUBIC_INCH for name, volume in found.where.items()}
    assert found.rough / CUBIC_INCH == pytest.approx(350)
    # Two tiles 8 x 3 x 1/2 and two laths 14 x 2 x 3/8.
    assert where["parts"] == pytest.approx(2 * 8 * 3 * 0.5 + 2 * 14 * 2 * 0.375)
    # Beyond the segment 4 in are left to the end trim, a kerf of them; the check begins at 46.
    assert where["defects"] == pytest.approx((49 - 46) * 7)
    # The rip above the only strip is 1/8 wide along 44; no second strip, so no second cut.
    assert where["rip kerf"] == pytest.approx(0.125 * 44)
    # Across 7: one at each end of the segment, which begins where the end trim ends. Across 3 1/8:
    # two in the gap between the blanks, one after the last; between the two tiles, 1/2 thick.
    assert where["crosscut kerf"] == pytest.approx(
        2 * 0.125 * 7 + 3 * 0.125 * 3.125 + 0.125 * 3.125 * 0.5
    )
    assert where["resaw kerf"] == pytest.approx(15 * 3.125 * 0.0625)
    # End trims; the clear stretch from the cut to the check, too short to keep; and what the blanks
    # are longer than their parts, at the parts' thickness.
    over = (17 - 16.125) * 3.125 * 0.5 + 2 * (15 - 14) * 3.125 * 0.375
    assert where["end trim"] == pytest.approx((2 - 0.125) * 7 + (46 - 45.125) * 7 + over)
    # Beside the strip 3 3/4 in along 44 go to the rack, planed with their segment to the 7/8 that
    # the laths' blank asks.
    assert where["offcuts kept"] == pytest.approx(44 * 3.75 * 0.875)
    # Chips: 1 in down to 1/2 under the tiles; 1 in less two laths and a kerf under the laths; 1/8
    # off the offcut.
    assert where["chips"] == pytest.approx(
        17 * 3.125 * 0.5 + 15 * 3.125 * (1 - 0.75 - 0.0625) + 44 * 3.75 * 0.125
    )
    assert sum(where.values()) == pytest.approx(350)


def test_an_offcut_is_kept_with_its_fault_and_its_end() -> None:
    # The last 37.375 in of a board are left, a split over the last 5 of them: clear for more than
    # the 16 in of the rule.
    job, plan = json.loads(json.dumps(JOB)), json.loads(json.dumps(PLAN))
    job["boards"][0]["length"] = 80
    job["boards"][0]["stations"][1]["x"] = 80
    job["boards"][0]["defects"].append(
        {"kind": "split", "face": "both", "x0": 75, "x1": 80, "y0": 3, "y1": 3.5}
    )
    long = account(read_job(json.dumps(job)), read_plan(json.dumps(plan))).boards[0]
    # With one over all its width and the last 25 in only 12.375 are clear: nothing is kept. The
    # last inch is end trim.
    job["boards"][0]["defects"][-1].update(x0=55, y0=0, y1=6.5)
    found = account(read_job(json.dumps(job)), read_plan(json.dumps(plan))).boards[0]
    gone = long.where["offcuts kept"] - found.where["offcuts kept"]
    assert gone / CUBIC_INCH == pytest.approx((80 - 42.5 - 0.125) * 6.5)
    assert found.where["defects"] / CUBIC_INCH == pytest.approx((79 - 55) * 6.5)


@examples(40)
@given(jobs())
def test_the_account_and_the_rack_agree(job: Job) -> None:
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    for planned in (b for b in plan.boards if b.segments):
        kept = next(a for a in account(job, plan).boards if a.board == planned.board).where[
            "offcuts kept"
        ]
        racked = float(sum(board_volume(piece) for piece in offcuts(job, planned)))
        # A piece's edges lie on whole ticks, inside the line it was cut along.
        assert kept == pytest.approx(racked, rel=2e-3, abs=CUBIC_INCH / 50)


def test_the_settle_together() -> None:
    job = read_job((DOCS / "examples" / "settle.job.json").read_text(encoding="utf-8"))
    plan = read_plan((DOCS / "examples" / "settle.plan.json").read_text(encoding="utf-8"))
    found = account(job, plan)
    assert found.rough == sum(found.where.values())
    assert found.price == plan.cost
    assert found.where["parts"] == pytest.approx(
        sum(p.volume * p.quantity for p in job.parts), rel=1e-9
    )
    assert 0.3 < found.share < 0.9


def test_boards_left_in_the_rack_are_not_in_it() -> None:
    job = read_job(json.dumps(JOB))
    plan = read_plan(json.dumps(PLAN))
    assert [b.board for b in account(job, replace(plan, boards=plan.boards[:1])).boards] == ["B1"]
