"""Replanning: nothing wanted twice, no wood in two pieces, a plan that can be made of them."""

import json
import random
import time
from dataclasses import replace
from decimal import Decimal

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.conftest import ROOT
from tests.core.layout.search.test_limits import millings
from tests.core.log.histories import Shop, keys, laid_out, wanted_numbers
from tests.jobs import jobs
from tests.machine_shop import told, violations
from tests.making import BARE, a_board, a_part, t
from tests.profiles import examples, seeds
from vividplank.core.board import Defect, Warp, remeasured
from vividplank.core.exchange import plan_document, read_job, read_plan
from vividplank.core.exchange.log_file import log_document, read_log
from vividplank.core.exchange.route_file import route_document
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import (
    Blank,
    BoardPlan,
    Closed,
    Item,
    Plan,
    Segment,
    Strip,
    Unplaced,
)
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.log.events import Accepted, Did, Event, Found, Measured, Spoiled
from vividplank.core.log.freed import a_hair_short
from vividplank.core.log.replan import Remaining, remaining
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.route.routes import usual_milling
from vividplank.core.piece.volume import volume
from vividplank.core.yields import account

DOCS = ROOT / "docs" / "examples"


def settle() -> Shop:
    job = read_job((DOCS / "settle.job.json").read_bytes()).on_boards()
    plan = read_plan((DOCS / "settle.plan.json").read_bytes())
    return Shop(job, job, plan, usual_milling(job), [])


def holds(shop: Shop, left: Remaining, before: set[str], done: set[str]) -> None:
    """What must be true of a shop that has just planned the rest anew."""
    assert audit(shop.job, shop.plan) == []
    kept_plan = read_plan(json.dumps(plan_document(shop.plan, shop.job.unit)))
    assert kept_plan.closed == shop.plan.closed
    assert read_log(json.dumps(log_document(shop.events, shop.job.unit))) == tuple(shop.events)
    assert wanted_numbers(shop.now, shop.plan) == {p.id: p.quantity for p in shop.now.parts}
    made = shop.routes
    assert done <= keys(made), done - keys(made)  # nothing that was done is forgotten
    assert {k for k in keys(made) if k in before} >= done
    wood = shop.wood
    assert done <= wood.done
    # No wood lies in two pieces: together they are no more than what was bought.
    there = sum(volume(h.piece) for h in wood.pieces.values() if h.state != "cut")
    bought = {b.id for b in shop.job.boards if not b.came_from}
    rough = sum(volume(h.piece) for m, h in laid_wood(shop).items() if m in bought)
    assert there <= rough * (1 + 1e-6)
    for kept in left.kept:
        assert wood.pieces[kept.piece].items == kept.items
    for freed in left.freed:
        held = wood.pieces.get(freed.piece)
        assert held is None or held.state == "rack"
    # The books close over all of it, and charge what was bought.
    books = account(shop.job, made, shop.plan.closed)
    assert {b.board for b in books.boards} <= {b.id for b in shop.job.boards}
    real = account(shop.job, made, shop.plan.closed, wood.done)
    for board in (*books.boards, *real.boards):
        assert sum(board.where.values()) == board.rough
        assert min(board.where.values()) >= -board.rough / 2000, board.where


def can_be_made(job: Job, milling: Milling) -> None:
    """What is left is laid out on the pieces as they are, and another's machine shop makes it."""
    again = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    assert audit(job, again) == []
    document = route_document(routes(job, again, milling), job.unit)
    found = violations(job, again, milling.machines, document)
    assert not found, told(found)


def laid_wood(shop: Shop) -> dict:  # type: ignore[type-arg]
    return dict(replace_events(shop).wood.pieces)


def replace_events(shop: Shop) -> Shop:
    return replace(shop, events=[])


@examples(40)
@given(jobs(), millings(), st.integers(0, 2**20))
def test_any_history_can_be_planned_on(job: Job, milling: Milling, seed: int) -> None:
    rng = random.Random(seed)
    shop = laid_out(job, milling)
    for _ in range(2):
        shop.work(rng, rng.randint(0, 25))
        for _ in range(rng.randint(0, 3)):
            shop.mishap(rng)
        shop.taken_back(rng)
        for _ in range(rng.randint(0, 2)):
            shop.list_changed(rng)
        before = keys(shop.routes)
        done = {e.step for e in shop.events if isinstance(e, Did)}
        left = shop.replan()
        holds(shop, left, before, done)
        can_be_made(left.job, milling)
        assert shop.wood == shop.wood  # the same log gives the same state


@pytest.mark.parametrize("seed", seeds(10))
def test_the_settle_half_way(seed: int) -> None:
    rng = random.Random(seed)
    shop = settle()
    shop.work(rng, 150)
    shop.mishap(rng)
    before = keys(shop.routes)
    done = {e.step for e in shop.events if isinstance(e, Did)}
    holds(shop, shop.replan(), before, done)


def test_what_is_closed_has_to_be_made_again() -> None:
    shop = settle()
    item = next(i for *_, i in shop.plan.items() if not i.stave)
    lost = Closed("O1.1", "O1/rough-length", "scrap", (item,))
    given_up = replace(shop.plan, closed=(lost,))
    assert [v.rule for v in audit(shop.job, given_up)] == [7]
    again = Unplaced(item.part, shop.job.part(item.part).quantity + 1, "no wood for it")
    assert audit(shop.job, replace(given_up, unplaced=(again,))) == []


def test_a_reading_that_is_within_what_the_step_takes_frees_nothing() -> None:
    shop = settle()
    step = next(s for r in shop.routes for s in r.steps if s.kind == "thickness")
    for read, frees in ((step.stock_out - step.tolerance, False), (step.stock_out - 2000, True)):
        shop.events = [Did(n=1, step=step.key, reading=read)]
        left = remaining(shop.now, shop.job, shop.plan, shop.routes, shop.events)
        assert [f.reason for f in left.freed] == (["size"] if frees else [])


def test_a_piece_that_has_moved_is_flattened_again() -> None:
    """Planed and rested it is cupped by 1/32: the same wood is faced and planed anew."""
    shop = settle()
    route, last = next(
        (r, k) for r in shop.routes for k, s in enumerate(r.steps) if s.kind == "thickness"
    )
    shop.events = [Did(n=k, step=s.key) for k, s in enumerate(route.steps[: last + 1], 1)]
    (given,) = route.steps[last].gives
    assert {"A", "B"} <= {f for f in "AB" if shop.wood.pieces[given.piece].piece.face(f).flat}
    cup = INCH // 32
    shop.events.append(Measured(n=last + 2, piece=given.piece, what="cup", value=cup))
    left = shop.replan()
    assert [(f.piece, f.reason) for f in left.freed] == [(given.piece, "moved")]
    (board,) = (b for b in left.pieces if b.warp == Warp(0, cup, 0))
    assert board.came_from == route.board and not {"A", "B"} & set(board.dressed)
    again = [s for r in shop.routes if r.board == board.id for s in r.steps]
    assert "flatten" in [s.does for s in again]
    assert audit(shop.job, shop.plan) == []
    can_be_made(left.job, shop.milling)


def test_what_was_read_before_a_face_was_made_flat_is_over() -> None:
    shop = settle()
    route, at = next(
        (r, k) for r in shop.routes for k, s in enumerate(r.steps) if s.does == "flatten"
    )
    shop.events = [Did(n=k, step=s.key) for k, s in enumerate(route.steps[:at], 1)]
    (mark,) = route.steps[at].takes
    shop.events.append(Measured(n=at + 1, piece=mark, what="twist", value=INCH // 8))
    assert shop.wood.pieces[mark].moved == {"twist": INCH // 8}
    shop.events.append(Did(n=at + 2, step=route.steps[at].key))
    (given,) = route.steps[at].gives
    assert not shop.wood.pieces[given.piece].moved


@given(st.integers(-INCH // 2, INCH // 2), st.integers(0, 2**32))
def test_a_crook_is_told_from_end_to_end(crook: int, seed: int) -> None:
    """The middle of the datum edge stands off the line between its ends by as much as was read, and
    the board is nowhere wider than it was.
    """
    board = random.Random(seed).choice(settle().job.boards)
    now = remeasured(board, board.warp, crook)
    middle = board.length / 2
    for edge in (0, 1):
        off = now.edges(middle)[edge] - board.edges(middle)[edge]
        ends = [now.edges(x)[edge] - board.edges(x)[edge] for x in (0, board.length)]
        assert abs(off - crook) <= 2 and all(abs(e) <= 1 for e in ends)
    for x in range(0, board.length, INCH):
        assert np.diff(now.edges(x)) <= np.diff(board.edges(x)) + 1e-6


def test_passes_beyond_those_foretold_come_off_the_thickness() -> None:
    """As many more as what is to spare allows free nothing; one beyond that is too thin."""
    shop = settle()
    route, at = next(
        (r, k) for r in shop.routes for k, s in enumerate(r.steps) if s.does == "flatten"
    )
    step = route.steps[at]
    (given,) = step.gives
    more = step.spare // step.passes[-1]
    for over, reasons in ((more, []), (more + 1, ["size"])):
        shop.events = [Did(n=k, step=s.key) for k, s in enumerate(route.steps[:at], 1)]
        passes = len(step.passes) + over
        shop.events.append(Did(n=at + 1, step=step.key, passes=passes))
        left = remaining(shop.now, shop.job, shop.plan, shop.routes, shop.events)
        assert [f.reason for f in left.freed if f.piece == given.piece] == reasons
    held = shop.wood.pieces[given.piece]
    assert held.measured["thickness"] == step.holds - (more + 1) * step.passes[-1]


def test_a_piece_that_is_accepted_serves_until_something_else_is_seen() -> None:
    shop = settle()
    step = next(s for r in shop.routes for s in r.steps if s.kind == "thickness")
    (given,) = step.gives
    hair = INCH // 32
    thin = Measured(n=2, piece=given.piece, what="thickness", value=step.stock_out - hair)
    taken = Accepted(n=3, piece=given.piece)
    split = Defect("split", "both", 0, INCH, 0, INCH)
    again = Found(n=4, piece=given.piece, defect=split)
    did = Did(n=1, step=step.key)
    told: list[Event] = [did, thin, taken, again]
    for many, reasons in enumerate(([], ["size"], [], ["fault"]), 1):
        shop.events = told[:many]
        left = remaining(shop.now, shop.job, shop.plan, shop.routes, shop.events)
        assert [f.reason for f in left.freed] == reasons
    # Were its parts that thin, it would serve.
    shop.events = told[:2]
    held = shop.wood.pieces[given.piece]
    short = a_hair_short(shop.now, held)
    assert short and {p.id for p, _ in short} <= {i.part for i in held.items}
    thinner = {p.id: replace(p, thickness=held.measured["thickness"]) for p, _ in short}
    shop.now = replace(shop.now, parts=tuple(thinner.get(p.id, p) for p in shop.now.parts))
    left = remaining(shop.now, shop.job, shop.plan, shop.routes, shop.events)
    assert left.freed == () and left.made == ()  # it is that thin already


@pytest.mark.parametrize("what", ["length", "width", "thickness"])
def test_a_part_that_is_made_and_wanted_smaller_is_brought_to_it(what: str) -> None:
    """A rail is finished; the dry fit wants it 1/16 smaller, and then 1/16 once more."""
    shop = settle()
    item = next(i for *_, i in shop.plan.items() if i.part == "AR")
    route = next(r for r in shop.routes for s in r.steps for g in s.gives if item in g.items)
    shop.events = [Did(n=k, step=s.key) for k, s in enumerate(route.steps, 1)]
    was = {s.key: s.stock_out for r in shop.routes for s in r.steps}
    for again in ("again", "again-2"):
        smaller = {what: getattr(shop.now.part("AR"), what) - INCH // 16}
        parts = [replace(p, **smaller) if p.id == "AR" else p for p in shop.now.parts]
        shop.now = replace(shop.now, parts=tuple(parts))
        left = shop.replan()
        assert left.freed == () and item in {i for k in left.kept for i in k.items}
        assert audit(shop.job, shop.plan) == []
        steps = {s.key: s for r in shop.routes for s in r.steps}
        mine = f"{item.name}/{again}-{what}"
        assert steps[mine].stock_out == smaller[what] and shop.wood.pieces[item.name].step != mine
        done = [e.step for e in shop.events if isinstance(e, Did)]
        assert [steps[k].stock_out for k in done if k in was] == [was[k] for k in done if k in was]
        document = route_document(shop.routes, shop.job.unit)
        assert violations(shop.job, shop.plan, shop.milling.machines, document) == []
        shop.events.append(Did(n=len(shop.events) + 1, step=mine))
        made = shop.wood.pieces[item.name]
        assert made.state == "finished"
        sizes = dict(zip(("length", "width", "thickness"), made.piece.size, strict=True))
        assert sizes[what] == pytest.approx(smaller[what], abs=2)


def test_passes_of_a_face_that_is_planed_by_hand_take_nothing_from_its_thickness() -> None:
    """Its route foretells none; a log from elsewhere may count them all the same."""
    shop = settle()
    shop.milling = replace(shop.milling, school="by-hand")
    step = next(s for r in shop.routes for s in r.steps if s.does == "flatten" and not s.passes)
    shop.events = [Did(n=1, step=step.key, passes=40)]
    assert not shop.wood.pieces[step.gives[0].piece].measured


def test_of_a_panel_that_is_lost_no_stave_is_left_on_a_board_that_waits() -> None:
    """P has staves on A and B, Q on B and C. C is cut, so that B waits as it is laid out; the stave
    of P on A is spoiled: P is made anew, and its stave on B has no place there any more."""
    parts = tuple(a_part(id, 1, 28, 7, panel=(3, 5)) for id in "PQ")
    boards = tuple(a_board(id, 30, 9) for id in "ABCD")

    def laid(board: str, *staves: Item) -> BoardPlan:
        strips = (
            Strip(t(4.5 * k), t(4.5 * k + 4), (Blank(0, t(29), ((s,),)),))
            for k, s in enumerate(staves)
        )
        return BoardPlan(board, (Segment(0, t(29), 0, 0.0, tuple(strips)),))

    plan = Plan(
        (
            laid("A", Item("P", 1, 1)),
            laid("B", Item("P", 1, 2), Item("Q", 1, 1)),
            laid("C", Item("Q", 1, 2)),
        ),
        cost=Decimal(30),
    )
    job = Job("", BARE, parts, boards)
    assert audit(job, plan) == []
    shop = Shop(job, job, plan, usual_milling(job), [])
    shop.events += [Did(n=n, step=f"{b}/rough-length") for n, b in ((1, "A"), (2, "C"))]
    (first,) = (m for m, h in shop.wood.pieces.items() if h.state == "work" and m.startswith("A"))
    shop.events.append(Spoiled(n=3, piece=first, why="split", then="scrap"))
    left = remaining(job, job, plan, shop.routes, shop.events)
    assert [(p.id, left.numbers[p.id]) for p in left.job.parts] == [("P", (2,))]
    assert left.begun >= {"B", "C"}
    found = left.merged(search(left.job, Limits(60, rounds=2), time.monotonic))
    assert audit(left.whole, found) == [] and found.unplaced == ()
    on_b = {item for board, *_, item in found.items() if board.board == "B"}
    assert Item("Q", 1, 1) in on_b and Item("P", 1, 2) not in on_b
