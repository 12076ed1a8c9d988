"""The search: whatever the job, what comes out passes the audit, which shares no code with it."""

import re
import time
from dataclasses import replace
from decimal import Decimal
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import ROOT
from tests.jobs import jobs
from tests.profiles import examples
from vividplank.core.board import Board, Defect, Station, Warp
from vividplank.core.cutlist import Panel, Part
from vividplank.core.exchange import read_job
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.pattern import CuttingPattern
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.search.effort import FIRST
from vividplank.core.layout.search.portfolio import CostBounds
from vividplank.core.layout.search.search import Limits, _Search, search
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Allowance, Kerf, Shop

FEW = Limits(seconds=60, rounds=3)
SETTLE = ROOT / "vividplank" / "demo" / "settle.job.json"


@examples(120)
@given(jobs(), st.booleans())
def test_every_plan_passes_the_audit(job: Job, quick: bool) -> None:
    plan = search(job, replace(FEW, quick=quick), time.monotonic)
    assert [str(v) for v in audit(job, plan)] == []


def flat(
    id: str = "B",
    length: float = 60,
    width: float = 6,
    thick: float = 1.0,
    price: str = "10",
    **kept: object,
) -> Board:
    ends = [
        Station(round(x * INCH), 0, round(width * INCH), round(thick * INCH), round(thick * INCH))
        for x in (0, length)
    ]
    return Board(id, "oak", round(length * INCH), tuple(ends), price=Decimal(price), **kept)  # type: ignore[arg-type]


def part(
    id: str, quantity: int, length: float, width: float, thickness: float = 0.75, **kept: object
) -> Part:
    return Part(
        id, id, quantity, "oak", *(round(v * INCH) for v in (length, width, thickness)), **kept
    )  # type: ignore[arg-type]


BARE = Shop(
    kerf=Kerf(INCH // 8, INCH // 8, INCH // 16),
    allowance=Allowance(0, 0, 0, 0),
    end_trim=0,
    min_blank_length=12 * INCH,
)


def test_a_board_that_is_exactly_enough_is_used_up() -> None:
    # Two rows of two 29 15/16 x 2 15/16: 2 x 29 15/16 + 1/8 = 60, 2 x 2 15/16 + 1/8 = 6.
    job = Job("", BARE, (part("A", 4, 29.9375, 2.9375),), (flat(),))
    plan = search(job, FEW, time.monotonic)
    assert plan.unplaced == () and plan.lower_bound == pytest.approx(10, abs=1e-5)


def test_short_parts_share_a_blank_the_machines_can_take() -> None:
    job = Job("", BARE, (part("T", 3, 4, 2),), (flat(length=14, width=2.25),))
    plan = search(job, FEW, time.monotonic)
    blanks = [blank for _, _, _, blank, _ in plan.items()]
    assert plan.unplaced == () and len(set(blanks)) == 1
    assert blanks[0].x1 - blanks[0].x0 >= 12 * INCH


def test_a_thick_board_is_resawn() -> None:
    # Three of 1/2 with two kerfs of 1/16 need 1 5/8.
    job = Job("", BARE, (part("S", 3, 20, 3, 0.5),), (flat(length=21, width=3, thick=1.625),))
    assert search(job, FEW, time.monotonic).unplaced == ()
    thin = replace(job, boards=(flat(length=21, width=3, thick=1.61),))
    assert len(search(thin, FEW, time.monotonic).unplaced) == 1


def test_a_knot_on_one_face_may_lie_in_a_part_with_one_clear_face() -> None:
    knot = Defect("tight-knot", "A", 5 * INCH, 6 * INCH, INCH, 2 * INCH)
    board = flat(length=20, width=3, defects=(knot,))
    for faces, left_out in (("clear-two", 1), ("clear-one", 0), ("sound", 0)):
        job = Job("", BARE, (part("K", 1, 19, 3, faces=faces),), (board,))
        assert len(search(job, FEW, time.monotonic).unplaced) == left_out, faces


def test_a_twisted_board_gives_short_pieces_where_it_gives_no_long_one() -> None:
    # Bow of 3/8 in 60: whole, 1 - 3/8 is left; a third of the length keeps a ninth of the bow,
    # 1/24.
    board = flat(width=3, warp=Warp(bow=3 * INCH // 8))
    assert (
        len(
            search(
                Job("", BARE, (part("L", 1, 59, 3, 0.8),), (board,)), FEW, time.monotonic
            ).unplaced
        )
        == 1
    )
    assert (
        search(Job("", BARE, (part("S", 3, 19, 3, 0.8),), (board,)), FEW, time.monotonic).unplaced
        == ()
    )


def test_rough_ripping_beats_the_cup_that_milling_wide_cannot() -> None:
    # Cup of 1/4 across 8 in leaves 3/4; half as wide it is 1/16, and 15/16 is left.
    board = flat(length=30, width=8, warp=Warp(cup=INCH // 4))
    parts = (part("R", 2, 29, 3.75, 0.875),)
    assert len(search(Job("", BARE, parts, (board,)), FEW, time.monotonic).unplaced) > 0
    assert (
        search(
            Job("", replace(BARE, method="rough-rip"), parts, (board,)), FEW, time.monotonic
        ).unplaced
        == ()
    )


def test_a_panel_is_whole_or_not_there() -> None:
    panel = part("P", 1, 20, 12, panel=Panel(2 * INCH, 6 * INCH))
    assert search(Job("", BARE, (panel,), (flat(length=45),)), FEW, time.monotonic).unplaced == ()
    plan = search(Job("", BARE, (panel,), (flat(length=30),)), FEW, time.monotonic)
    assert [u.part for u in plan.unplaced] == ["P"] and plan.boards == () and plan.cost == 0


def test_owned_and_cheaper_boards_come_first() -> None:
    job = Job(
        "",
        BARE,
        (part("A", 1, 40, 3),),
        (flat("dear", price="20"), flat("own", price="0"), flat("cheap")),
    )
    plan = search(job, Limits(seconds=60, rounds=20), time.monotonic)
    assert [b.board for b in plan.boards] == ["own"] and plan.cost == 0


def test_a_quick_search_looks_at_a_pile_and_fills_few_boards_with_care(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """Of ten boards that differ in price alone the cheapest is filled with care."""
    careful: set[str] = set()
    cut = PatternGenerator.cut

    def counted(self: PatternGenerator, *asked: Any) -> list[CuttingPattern]:
        if asked[-2:] != FIRST[:2]:
            careful.add(self.board.id)
        return cut(self, *asked)

    monkeypatch.setattr(PatternGenerator, "cut", counted)
    pile = tuple(flat(f"B{n}", price=str(10 + n)) for n in range(10))
    job = Job("", BARE, (part("A", 1, 50, 5),), pile)
    for quick in (True, False):
        careful.clear()
        plan = search(job, Limits(600, 1, quick=quick), time.monotonic)
        assert [b.board for b in plan.boards] == ["B0"]
        assert (len(careful) == 1) == quick


def test_the_same_seed_gives_the_same_plan() -> None:
    job = read_job(SETTLE.read_text())
    one, two = (
        search(job, Limits(seconds=600, rounds=5, seed=3), time.monotonic) for _ in range(2)
    )
    assert one.boards == two.boards


def test_the_settle_is_placed_whole_within_the_bound() -> None:
    job = read_job(SETTLE.read_text())
    plan = search(job, Limits(seconds=600, rounds=40), time.monotonic)
    assert plan.unplaced == () and audit(job, plan) == []
    assert 0 < plan.lower_bound <= float(plan.cost) < 508.0


def test_a_watcher_sees_improvement_and_can_stop_it() -> None:
    seen = []

    def watch(progress):  # type: ignore[no-untyped-def]
        seen.append(progress)
        return len(seen) < 3

    job = read_job(SETTLE.read_text())
    clock = iter(range(10_000))
    plan = search(job, Limits(seconds=9_000), lambda: float(next(clock)), watch)
    assert len(seen) == 4 and audit(job, plan) == []
    assert all(b.cost <= a.cost or b.unplaced < a.unplaced for a, b in pairwise(seen))


def test_a_plan_comes_before_anything_is_proved() -> None:
    told = []

    def watch(progress):  # type: ignore[no-untyped-def]
        told.append(progress)
        return True

    search(read_job(SETTLE.read_text()), FEW, time.monotonic, watch)
    assert told[0].unplaced < 5 and told[0].lower_bound == 0 < told[-1].lower_bound


def test_who_proves_goes_on_while_much_is_left_or_the_bound_rises() -> None:
    now = [0.0]
    proving = _Search(
        Job("", BARE, (part("A", 1, 20, 2),), (flat(),)), Limits(10), None, lambda: now[0], Task()
    )
    proving.known.learn(CostBounds(100.0, 107.0))
    now[0] = 5.0
    assert proving.promises()  # it has just risen
    now[0] = 7.0
    assert proving.promises()  # 7 % may be left
    proving.known.learn(CostBounds(upper=105.0))
    assert not proving.promises()
    proving.known.learn(CostBounds(101.0))
    assert proving.promises()
    now[0] = 7.9
    assert proving.promises()
    now[0] = 8.1
    assert not proving.promises()


def test_a_watcher_is_told_what_is_tried() -> None:
    job = read_job(SETTLE.read_text())
    said: list[str] = []
    clock = iter(range(100_000))

    def watch(progress):  # type: ignore[no-untyped-def]
        said.append(progress.trying)
        return True

    search(job, Limits(seconds=1e6, rounds=42), lambda: float(next(clock)), watch)
    assert said[0] == "the first plan, board by board"
    anew = [s for s in said if "laid anew" in s]
    ids = {b.id for b in job.boards}
    assert anew and all(re.split(", | and | laid", s)[0] in ids | {"what is left"} for s in anew)
    assert any(
        re.fullmatch(r"the best of \d+ ways to cut single boards, put together", s) for s in said
    )


@pytest.mark.parametrize(
    ("change", "word"),
    [
        ({"species": "walnut"}, "no board of walnut"),
        ({"thickness": 2 * INCH}, "thickness"),
        ({"length": 80 * INCH}, "length"),
        ({"width": 7 * INCH}, "width"),
        ({"quantity": 9}, "ran out"),
    ],
)
def test_what_is_left_out_says_why(change: dict[str, object], word: str) -> None:
    wanted = replace(part("A", 1, 40, 3), **change)  # type: ignore[arg-type]
    plan = search(Job("", BARE, (wanted,), (flat(),)), FEW, time.monotonic)
    assert plan.unplaced and word in plan.unplaced[0].why
