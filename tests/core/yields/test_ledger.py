"""Where the wood went: it closes, and each figure is what one would measure."""

import time
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given

from tests.conftest import ROOT
from tests.core.layout.search.test_limits import millings
from tests.jobs import jobs
from tests.making import a_board, a_fault, a_part, t
from tests.profiles import examples
from vividplank.core.board import Board, Warp
from vividplank.core.board.check import check_board
from vividplank.core.board.volume import board_volume
from vividplank.core.cutlist import Part
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.model.step import Given
from vividplank.core.piece import piece_of_board
from vividplank.core.piece.sawing import beside
from vividplank.core.piece.volume import volume
from vividplank.core.shop import Keep, Shop
from vividplank.core.yields import CATEGORIES, Account, account
from vividplank.core.yields.cost import costs
from vividplank.core.yields.keeping import racked, worth_keeping

CUBIC_INCH = TICKS_PER_INCH**3
EXAMPLES = ROOT / "docs" / "examples"
RAIL = a_part("R", 1, 39, 4)


def of_one(board: Board, part: Part = RAIL, shop: Shop | None = None) -> tuple[Job, Account]:
    """The account of one part cut from 5 to 45 along the datum edge of a board 60 long."""
    job = Job("bench", shop or Shop(), (part,), (board,))
    strip = Strip(0, t(4.125), (Blank(t(5), t(45), ((Item(part.id, 1),),)),))
    plan = Plan((BoardPlan(board.id, (Segment(t(5), t(45), 0, 0.0, (strip,)),)),))
    return job, account(job, routes(job, plan))


def inches(where: dict[str, int]) -> dict[str, float]:
    return {name: v / CUBIC_INCH for name, v in where.items() if v}


def test_what_a_part_costs_by_hand() -> None:
    """The board of the next test, 60 x 6 x 1, for 30: no offcut of it is kept, so its rail carries
    all. With a rule that keeps 14 7/8 by 6 behind it, that carries 14.875 / 60 of the price.
    """
    board = replace(a_board("W"), price=Decimal(30))
    _, found = of_one(board)
    (rail,) = costs(found).parts
    assert (rail.part, rail.volume, rail.cost) == ("R", 39 * 4 * 0.75 * CUBIC_INCH, Decimal(30))
    _, found = of_one(board, shop=Shop(keep=Keep(t(14), t(5))))
    kept = costs(found)
    assert float(kept.kept) == pytest.approx(30 * 14.875 / 60)
    assert kept.kept + kept.parts[0].cost == 30 and kept.nothing == 0


def test_the_costs_of_the_settle_add_up_to_what_was_paid() -> None:
    job = read_job((EXAMPLES / "settle.job.json").read_bytes())
    plan = read_plan((EXAMPLES / "settle.plan.json").read_bytes())
    found = account(job, routes(job, plan))
    shared = costs(found)
    assert float(sum(c.cost for c in shared.parts) + shared.kept + shared.nothing) == pytest.approx(
        float(found.price)
    )
    assert {c.part for c in shared.parts} == {p.id for p in job.on_boards().parts}
    assert sum(c.volume for c in shared.parts) == pytest.approx(found.where["parts"])


def test_a_board_by_hand() -> None:
    # 60 x 6 x 1. Two crosscuts of 1/8 across 6; before the first 4 7/8, behind the second 14 7/8
    # are left, shorter than the 16 of the rule. Facing takes 1/64 of 40 x 6, the planer what is
    # over 3/4. The rip is 1/8 x 40 x 3/4; beside it 1 7/8 are left, narrower than 2. Of the strip,
    # 40 x 4 x 3/4, the square cut takes an eighth and leaves an eighth, the last 1/8 and 5/8.
    _, found = of_one(a_board("W"))
    (board,) = found.boards
    assert inches(board.where) == pytest.approx(
        {
            "parts": 39 * 4 * 0.75,
            "end trim": (4.875 + 14.875) * 6 + (0.125 + 0.625) * 4 * 0.75,
            "crosscut kerf": 2 * 0.125 * 6 + 2 * 0.125 * 4 * 0.75,
            "rip kerf": 0.125 * 40 * 0.75,
            "chips": 40 * 6 * 0.25,
            "edge waste": 1.875 * 40 * 0.75,
        }
    )
    assert inches(board.chips) == pytest.approx(
        {"facing": 40 * 6 / 64, "planing": 40 * 6 * (0.25 - 1 / 64)}
    )


def test_an_offcut_is_kept_as_it_was_left_rough_or_planed() -> None:
    # 8 wide: beside the rip stay 3 7/8 by 40, planed to 3/4 on both faces; with a rule of 12 in the
    # rough end of 14 7/8 by 8 is kept as well.
    job, found = of_one(a_board("W", width=8), shop=Shop(keep=Keep(t(12), t(2))))
    kept = racked(found.kept, job.shop.keep, "bench")["W"]
    assert [(b.id, b.length, round(b.mean_width), b.thickest) for b in kept] == [
        ("W.1-2", t(40), t(3.875), t(0.75)),
        ("W-2", t(14.875), t(8), t(1)),
    ]
    assert set(kept[0].dressed) == {"A", "B", "datum-edge"} and kept[1].dressed == ()
    assert kept[0].note == "offcut of W, bench"
    (board,) = found.boards
    assert board.where["offcuts kept"] == pytest.approx(
        sum(float(board_volume(b)) for b in kept), rel=1e-6
    )


def test_what_a_saw_leaves_beside_a_fault_is_lost_to_the_fault() -> None:
    # A split over the last 10 in: of the 14 7/8 behind the piece 1 is end trim, 9 are lost to it.
    _, found = of_one(a_board("W", defects=(a_fault("split", 50, 60, 2, 3),)))
    (board,) = found.boards
    assert board.where["defects"] / CUBIC_INCH == pytest.approx(9 * 6)


def test_what_the_rule_leaves_out() -> None:
    keep = Keep(t(20), t(2))
    cracked = a_board("W", length=30, defects=(a_fault("split", 14, 16, 0, 6),))
    assert worth_keeping(replace(cracked, defects=()), keep) and not worth_keeping(cracked, keep)


def test_a_rough_offcut_is_as_bent_as_it_was() -> None:
    board = a_board("W", length=90, warp=Warp(bow=t(0.1)))
    job, found = of_one(board)
    (rough,) = racked(found.kept, job.shop.keep)["W"]
    assert rough.length == t(90 - 45.125) and rough.warp.bow > 0


def test_half_a_thickness_that_is_sawn_off_is_kept() -> None:
    job, found = of_one(a_board("W", thick=2), a_part("R", 1, 39, 4, 0.875))
    kept = [b for b in racked(found.kept, job.shop.keep)["W"] if b.length == t(40)]
    assert any(b.thickest == pytest.approx(t(1 + 1 / 64), abs=2) for b in kept)


def test_every_board_of_a_panel_carries_its_share_of_what_is_planed_off_the_panel() -> None:
    panel = a_part("P", 1, 39, 8, panel=(3, 5))
    boards = a_board("V"), a_board("W")
    job = Job("", Shop(), (panel,), boards)
    plan = Plan(
        tuple(
            BoardPlan(
                b.id,
                (
                    Segment(
                        t(5),
                        t(45),
                        0,
                        0.0,
                        (Strip(0, t(4.25), (Blank(t(5), t(45), ((Item("P", 1, n),),)),)),),
                    ),
                ),
            )
            for n, b in enumerate(boards, 1)
        )
    )
    found = account(job, routes(job, plan))
    assert found.where["parts"] / CUBIC_INCH == pytest.approx(39 * 8 * 0.75)
    one, two = (b.where["parts"] for b in found.boards)
    assert one == pytest.approx(two, rel=0.02)
    assert all(b.chips["flattening glued pieces"] > 0 for b in found.boards)


@examples(60)
@given(jobs(), millings())
def test_it_closes_to_the_rough_volume_exactly(job: Job, milling: Milling) -> None:
    job = job.on_boards()
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    made = routes(job, plan, milling)
    found = account(job, made)
    assert {b.board for b in found.boards} == {b.board for b in plan.boards if b.segments}
    for board in found.boards:
        rough = round(board_volume(job.board(board.board)))
        assert sum(board.where.values()) == board.rough == rough
        assert tuple(board.where) == CATEGORIES
        # What a board is counted in differs from its exact volume by what its columns round.
        assert min(board.where.values()) >= -rough / 2000, board.where
    for step in (s for r in made for s in r.steps):
        if step.does in ("crosscut", "rip", "resaw", "square", "length", "trim"):
            kerf = job.shop.kerf.rip
            sawn = beside(step.wood_in[0], step.gives, kerf)
            if sawn:
                pieces = [*step.wood_out, *sawn.kerfs, *sawn.offcuts]
                whole = volume(step.wood_in[0])
                assert sum(map(volume, pieces)) == pytest.approx(whole, rel=1e-9), step.key
    for boards in racked(found.kept, job.shop.keep).values():
        for board_kept in boards:
            check_board(board_kept, "$")


def test_the_settle_together() -> None:
    job = read_job((EXAMPLES / "settle.job.json").read_bytes()).on_boards()
    plan = read_plan((EXAMPLES / "settle.plan.json").read_bytes())
    found = account(job, routes(job, plan))
    assert found.rough == sum(found.where.values())
    assert found.price == plan.cost
    # Fitted pieces are held long and count as their list says.
    wanted = sum(p.volume * p.quantity for p in job.parts)
    assert found.where["parts"] == pytest.approx(wanted, rel=1e-6)
    assert 0.3 < found.share < 0.9


def test_boards_left_in_the_rack_are_not_in_it() -> None:
    job, _ = of_one(a_board("W"))
    both = replace(job, boards=(*job.boards, a_board("X")))
    strip = Strip(0, t(4.125), (Blank(t(5), t(45), ((Item("R", 1),),)),))
    plan = Plan((BoardPlan("W", (Segment(t(5), t(45), 0, 0.0, (strip,)),)), BoardPlan("X", ())))
    assert [b.board for b in account(both, routes(both, plan)).boards] == ["W"]


def test_kerfs_and_offcuts_of_a_crosscut_between_two_pieces() -> None:
    # Pieces from 0 to 10 and 12 to 20 of 30, a kerf of 1/8: cuts at 10, 12 and 20; left are the
    # 1 3/4 between them and 9 7/8 at the end.
    whole = piece_of_board(a_board("W", length=30))
    places = [Given("a", 0, t(10)), Given("b", t(12), t(20))]
    sawn = beside(whole, places, t(0.125))
    assert sawn and sawn.axis == "crosscut"
    assert [(p.x0, p.x1) for p in sawn.kerfs] == [
        (t(10), t(10.125)),
        (t(11.875), t(12)),
        (t(20), t(20.125)),
    ]
    assert [(p.x0, p.x1) for p in sawn.offcuts] == [(t(10.125), t(11.875)), (t(20.125), t(30))]
