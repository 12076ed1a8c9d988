"""Replanning: what is done stands, what is in work keeps its items where they still fit, and the
rest is laid out on the wood as it is now.

`remaining` makes the job that is left: the parts that are neither finished nor spoken for by a
piece in work, on the boards nobody has cut and on what cut ones have left. A plan of that job comes
back into the whole with `Remaining.merged`.
"""

from collections import Counter, defaultdict
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.fixings import Fixings, Task
from vividplank.core.layout.model.plan import (
    Blank,
    BoardPlan,
    Closed,
    Item,
    Made,
    Plan,
    Strip,
    Unplaced,
)
from vividplank.core.log.events import Event
from vividplank.core.log.freed import Freed, freed_pieces, glue_up_of
from vividplank.core.log.made import made_before
from vividplank.core.log.state import Held, state
from vividplank.core.milling import Route
from vividplank.core.yields.keeping import offcut, worth_keeping


@dataclass(frozen=True)
class Kept:
    """A piece whose work goes on, or is done, with what it is for."""

    piece: str
    items: tuple[Item, ...]
    finished: bool


@dataclass(frozen=True)
class Remaining:
    """`job` is what is left to lay out, `pieces` those of its boards that came out of others.
    `begun` are the boards that stay as they are in `plan`, the one that stands, `numbers` the
    instance of each part that the job's first, second ... is, `made` what was made larger than the
    list wants it now.
    """

    job: Job
    whole: Job
    plan: Plan
    begun: frozenset[str]
    closed: tuple[Closed, ...]
    freed: tuple[Freed, ...]
    kept: tuple[Kept, ...]
    made: tuple[Made, ...]
    pieces: tuple[Board, ...]
    numbers: Mapping[str, tuple[int, ...]]

    def task(self, fixings: Fixings) -> Task:
        """What is held of the standing plan, in the numbers of the job that is left."""
        numbers = {(part, n): k for part, ns in self.numbers.items() for k, n in enumerate(ns, 1)}
        boards = [_renumbered(b, numbers) for b in self.plan.boards if b.board not in self.begun]
        pins = tuple(
            Item(i.part, numbers[i.part, i.n], i.stave)
            for i in fixings.pins
            if (i.part, i.n) in numbers
        )
        plan = Plan(tuple(b for b in boards if b.segments))
        return Task(replace(fixings, pins=pins, begun=()), plan if plan.boards else None)

    def merged(self, plan: Plan) -> Plan:
        """The boards that are being cut as they are, and a plan of what is left."""
        numbers = {(part, k): n for part, ns in self.numbers.items() for k, n in enumerate(ns, 1)}
        begun = tuple(b for b in self.plan.boards if b.board in self.begun)
        sunk = sum((self.whole.board(b.board).price for b in begun), Decimal(0))
        return replace(
            plan,
            boards=(*begun, *(_renumbered(b, numbers) for b in plan.boards)),
            unplaced=tuple(Unplaced(u.part, numbers[u.part, u.n], u.why) for u in plan.unplaced),
            cost=plan.cost + sunk,
            lower_bound=plan.lower_bound + float(sunk),
            closed=self.closed,
            made=self.made,
        )


def remaining(
    now: Job,
    before: Job,
    plan: Plan,
    routes: Sequence[Route],
    events: Sequence[Event],
    racked: Collection[str] = (),
    strict: bool = True,
) -> Remaining:
    """What is left of a job (`now`, on its boards) of which `plan`, made for the job `before`, has
    been worked on. `routes` are those of that plan, `events` those that stand, `racked` the boards
    whose offcuts have been carried away.
    """
    wood = state(before, plan, routes, events, strict)
    there = wood.pieces
    freed = freed_pieces(now, before, plan, there)
    gone = {f.piece for f in freed}
    closed = (
        *plan.closed,
        *(
            Closed(
                f.piece,
                there[f.piece].step,
                f.then,
                f.items,
                _label(f.piece, before) if f.then == "stock" and f.reason != "cut" else "",
            )
            for f in freed
        ),
    )
    plan, lost = _without_lost_units(before, plan, closed, wood.begun)
    begun = _bound(before, plan, wood.begun, lost)
    held_items = {
        i
        for b in plan.boards
        if b.board in begun
        for s in b.segments
        for _, k in s.blanks()
        for i in k.items()
        if i not in lost
    }
    kept = tuple(
        Kept(mark, held.items, held.state == "finished")
        for mark, held in there.items()
        if held.items and mark not in gone
    )
    pieces = _stock(now, before, there, freed, racked)
    parts, numbers = _wanted(now, plan, held_items, lost, begun)
    known = {b.id for b in before.boards}
    uncut = tuple(as_seen(b, wood.pieces.get(b.id)) for b in now.boards if b.id not in begun)
    cut = tuple(b for b in before.boards if b.id in begun)
    fresh = tuple(b for b in pieces if b.id not in {u.id for u in uncut} | known)
    gone_parts = tuple(
        p
        for p in before.parts
        if p.id not in {q.id for q in now.parts} and any(i.part == p.id for i in lost)
    )
    whole = replace(now, parts=(*now.parts, *gone_parts), boards=(*cut, *uncut, *fresh))
    job = replace(now, parts=parts, boards=(*uncut, *fresh))
    going_on = [there[k.piece] for k in kept]
    made = made_before(now, before, plan, going_on, lost)
    return Remaining(job, whole, plan, begun, closed, freed, kept, made, fresh, numbers)


def _without_lost_units(
    before: Job, plan: Plan, closed: Iterable[Closed], cut: Collection[str]
) -> tuple[Plan, frozenset[Item]]:
    """All items that are lost: those of a panel or a built-up piece with one of theirs. On boards
    nobody has `cut` they have no place any more.
    """
    lost = {i for c in closed for i in c.items}
    units = {glue_up_of(i, before.part(i.part)) for i in lost} - {None}
    items = [item for *_, item in plan.items()]
    lost |= {i for i in items if glue_up_of(i, before.part(i.part)) in units}
    numbers = {(i.part, i.n): i.n for i in items if i not in lost}
    boards = (b if b.board in cut else _renumbered(b, numbers) for b in plan.boards)
    return replace(plan, boards=tuple(b for b in boards if b.segments)), frozenset(lost)


def _renumbered(board: BoardPlan, numbers: Mapping[tuple[str, int], int]) -> BoardPlan:
    """The same cuts with other instances; what has no number here is left out."""

    def layer(items: Iterable[Item]) -> tuple[Item, ...]:
        known = [i for i in items if (i.part, i.n) in numbers]
        return tuple(Item(i.part, numbers[i.part, i.n], i.stave) for i in known)

    segments = []
    for s in board.segments:
        strips = []
        for t in s.strips:
            blanks = [
                Blank(k.x0, k.x1, named)
                for k in t.blanks
                if (named := tuple(found for one in k.layers if (found := layer(one))))
            ]
            if blanks:
                strips.append(Strip(t.y0, t.y1, tuple(blanks)))
        if strips:
            segments.append(replace(s, strips=tuple(strips)))
    return BoardPlan(board.board, tuple(segments))


def _bound(before: Job, plan: Plan, cut: frozenset[str], lost: Collection[Item]) -> frozenset[str]:
    """The boards that have been cut, and those of which a panel or a built-up piece has staves or
    layers beside ones of a cut board.
    """
    boards: defaultdict[tuple[str, int], set[str]] = defaultdict(set)
    for b, *_, item in plan.items():
        unit = glue_up_of(item, before.part(item.part))
        if unit and item not in lost:
            boards[unit].add(b.board)
    found = set(cut)
    growing = True
    while growing:
        more = {x for group in boards.values() if group & found for x in group} - found
        found |= more
        growing = bool(more)
    return frozenset(found)


def _stock(
    now: Job,
    before: Job,
    there: Mapping[str, Held],
    freed: Iterable[Freed],
    racked: Collection[str],
) -> tuple[Board, ...]:
    """What cut boards have left, as boards under their own marks."""
    keep = now.shop.keep
    usable = {f.piece for f in freed if f.then == "stock" and f.reason != "cut"}
    usable |= {
        mark
        for mark, h in there.items()
        if h.state == "offcut" and not h.spoiled and h.piece.board.id not in racked
    }
    found = []
    for mark, held in there.items():
        if mark not in usable:
            continue
        board = offcut(held.body)
        if board is None or not worth_keeping(board, keep):
            continue
        origin = held.piece.board.id
        quarter = next((b.quarter for b in before.boards if b.id == origin), "")
        found.append(
            replace(
                held.as_moved(board),
                id=_label(mark, before),
                price=Decimal(0),
                quarter=quarter,
                came_from=origin,
            )
        )
    return tuple(found)


def _label(mark: str, job: Job) -> str:
    """The mark of a piece as a board; one that bore the name of a part, which is made again and has
    that name, is "the rest of" it.
    """
    names = {i.name for p in job.parts for i in _items_of(p)}
    return f"{mark} rest" if mark.split("·")[0] in names else mark


def _items_of(part: Part) -> Iterable[Item]:
    return (Item(part.id, n) for n in range(1, 2 * part.quantity + 2))


def as_seen(board: Board, held: Held | None) -> Board:
    """A board nobody has cut, with the faults found on it and its warp as it was read since."""
    if held is None:
        return board
    known = set(board.defects)
    faults = (*board.defects, *(d for d in held.found if d not in known))
    board = replace(board, defects=faults) if held.found else board
    return held.as_moved(board, crook=False)


def _wanted(
    now: Job,
    plan: Plan,
    held: Collection[Item],
    lost: Collection[Item],
    begun: Collection[str],
) -> tuple[tuple[Part, ...], dict[str, tuple[int, ...]]]:
    """The parts still to be laid out, and which instance each of them is: those of the plan that
    are free, then new numbers.
    """
    spoken: defaultdict[str, set[int]] = defaultdict(set)
    for i in held:
        spoken[i.part].add(i.n)
    used: defaultdict[str, set[int]] = defaultdict(set)
    for i in (*held, *lost):
        used[i.part].add(i.n)
    free: defaultdict[str, list[int]] = defaultdict(list)
    for b, *_, item in plan.items():
        if b.board not in begun and item.n not in free[item.part]:
            free[item.part].append(item.n)
    for u in plan.unplaced:
        if u.n not in free[u.part]:
            free[u.part].append(u.n)
    broken = {
        p.run for p in now.parts if p.run and (spoken[p.id] or any(i.part == p.id for i in lost))
    }
    found, numbers = [], {}
    for part in now.parts:
        count = part.quantity - len(spoken[part.id])
        if count <= 0:
            continue
        again = Counter(i.part for i in lost)[part.id]
        first = [n for n in range(1, part.quantity + 1) if n not in used[part.id]]
        known = [n for n in free[part.id] if n not in used[part.id]]
        order = list(dict.fromkeys((*known, *first)))[:count]
        new = max([*used[part.id], *order, 0]) + 1
        if part.glued_up and again:  # layers of one piece have numbers that follow each other
            new = -(-(new - 1) // part.glued_up.layers) * part.glued_up.layers + 1
        order += range(new, new + count - len(order))
        numbers[part.id] = tuple(sorted(order))
        alone = part.run in broken
        found.append(replace(part, quantity=count, run="" if alone else part.run))
    return tuple(found), numbers
