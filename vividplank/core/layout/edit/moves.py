"""Arguing with a plan by hand: pieces taken up and laid down elsewhere, cuts moved, segments
turned, split and joined.

Every move answers a new plan that is right by the audit, or a Refused that says what stands against
it. What is moved is a blank with all that lies in it. What was taken up is unplaced, in the tray.
"""

import math
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from vividplank.core.board import Board
from vividplank.core.board.volume import board_volume
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit_board
from vividplank.core.layout.model.fixings import FORBIDDEN
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip, Unplaced
from vividplank.core.measure import TICKS_PER_INCH, about

#: A piece laid down within this of an edge or a cut is laid against it.
_SNAP = 2 * TICKS_PER_INCH
IN_TRAY = "in the tray: taken up by hand"

Layers = tuple[tuple[Item, ...], ...]


class Refused(Exception):
    """A move that cannot be made; the text says why."""


@dataclass(frozen=True)
class Found:
    """Where a piece lies: its board, segment, strip and blank."""

    board: str
    segment: Segment
    strip: Strip
    blank: Blank


def where(plan: Plan, item: Item) -> Found | None:
    for board, segment, strip, blank, other in plan.items():
        if other == item:
            return Found(board.board, segment, strip, blank)
    return None


def take_up(job: Job, plan: Plan, item: Item) -> Plan:
    """The plan without the blank that holds this item; of a panel all staves are taken up."""
    found = _there(plan, item)
    panels = {(i.part, i.n) for i in found.blank.items() if i.stave}
    gone = {i for i in found.blank.items() if not i.stave} | {
        i for *_, i in plan.items() if i.stave and (i.part, i.n) in panels
    }
    return _told(job, _without(plan, lambda b: any(i in gone for i in b.items())))


def lay_down(job: Job, plan: Plan, item: Item, board: str, x: int, y: int) -> Plan:
    """The blank of this item, from its place or from the tray, with its middle at x, y of a board:
    snapped to what is near.

    Raises Refused where it does not hold there.
    """
    found = where(plan, item)
    layers = found.blank.layers if found else _from_tray(job, item)
    wide = (
        (found.strip.y1 - found.strip.y0)
        if found and any(i.stave for i in found.blank.items())
        else _width(job, layers)
    )
    moved = {i for layer in layers for i in layer}
    rest = _without(plan, lambda b: any(i in moved for i in b.items()))
    on = _board(job, board)
    segments = next((b.segments for b in rest.boards if b.board == board), ())
    laid = _laid(job, on, segments, _Piece(layers, _length(job, layers), wide), x, y)
    return _checked(job, _with_segments(rest, board, laid), board)


def swap(job: Job, plan: Plan, one: Item, other: Item) -> Plan:
    """Two blanks in each other's places, each as long as its own things ask."""
    a, b = _there(plan, one), _there(plan, other)
    if a.blank is b.blank:
        raise Refused("both lie in one blank; there is nothing to change over")
    if any(i.stave for blank in (a.blank, b.blank) for i in blank.items()):
        raise Refused("a stave fits its own strip; take the panel up and solve the rest instead")

    def fitted(at: Found, layers: Layers) -> Blank:
        return Blank(at.blank.x0, at.blank.x0 + _length(job, layers), layers)

    places = {id(a.blank): fitted(a, b.blank.layers), id(b.blank): fitted(b, a.blank.layers)}
    swapped = _mapped(plan, lambda blank: places.get(id(blank), blank))
    return _checked(job, _fitted(swapped), a.board, b.board)


def turn(job: Job, plan: Plan, item: Item) -> Plan:
    """The segment of this item turned end for end: what lay towards its far end lies towards its
    datum end.
    """
    found = _there(plan, item)
    s = found.segment
    turned = replace(
        s,
        strips=tuple(
            replace(
                t,
                blanks=tuple(
                    sorted(
                        (
                            replace(b, x0=s.x0 + s.x1 - b.x1, x1=s.x0 + s.x1 - b.x0)
                            for b in t.blanks
                        ),
                        key=lambda b: b.x0,
                    )
                ),
            )
            for t in s.strips
        ),
    )
    return _checked(job, _replaced(plan, found.board, [s], [turned]), found.board)


def recut(job: Job, plan: Plan, item: Item, x0: int, x1: int) -> Plan:
    """The segment of this item cut at other places."""
    found = _there(plan, item)
    return _checked(
        job,
        _replaced(plan, found.board, [found.segment], [_reset(found.segment, x0, x1)]),
        found.board,
    )


def split(job: Job, plan: Plan, item: Item) -> Plan:
    """A crosscut through the segment behind this item's blank, where no blank is in the way."""
    found = _there(plan, item)
    s, kerf, at = found.segment, job.shop.kerf.crosscut, found.blank.x1
    through = [i for _, b in s.blanks() if b.x0 < at + kerf and b.x1 > at for i in b.items()]
    if through:
        raise Refused(f"a cut at {_says(job, at)} would go through {through[0].name}")
    halves = []
    for low, high in ((s.x0, at), (at + kerf, s.x1)):
        strips = tuple(
            replace(t, blanks=inside)
            for t in s.strips
            if (inside := tuple(b for b in t.blanks if b.x0 >= low and b.x1 <= high))
        )
        if strips:
            halves.append(_reset(replace(s, strips=strips), low, high))
    if len(halves) < 2:
        raise Refused(
            f"nothing lies beyond {_says(job, at)} in this segment; there is nothing to split off"
        )
    return _checked(job, _replaced(plan, found.board, [s], halves), found.board)


def join(job: Job, plan: Plan, item: Item) -> Plan:
    """The segment of this item and the next one as one piece; strips that lie in one line become
    one.
    """
    found = _there(plan, item)
    segments = sorted(
        next(b.segments for b in plan.boards if b.board == found.board), key=lambda s: s.x0
    )
    at = segments.index(found.segment)
    if at + 1 == len(segments):
        raise Refused("no other segment follows on this board")
    following = segments[at + 1]
    moved = (
        following.y0 - found.segment.y0 - found.segment.slope * (following.x0 - found.segment.x0)
    )
    if abs(following.slope - found.segment.slope) > 1e-9 or moved != int(moved):
        raise Refused("the two are cut along different lines; laid level they could be one piece")
    strips = {(t.y0, t.y1): t for t in found.segment.strips}
    for t in following.strips:
        y0, y1 = t.y0 + int(moved), t.y1 + int(moved)
        same = strips.get((y0, y1))
        strips[y0, y1] = Strip(y0, y1, (*(same.blanks if same else ()), *t.blanks))
    joined = Segment(
        found.segment.x0,
        following.x1,
        found.segment.y0,
        found.segment.slope,
        tuple(strips[key] for key in sorted(strips)),
    )
    return _checked(
        job, _replaced(plan, found.board, [found.segment, following], [joined]), found.board
    )


@dataclass(frozen=True)
class Worth:
    """What a plan comes to: cost of the boards cut, and the share of their wood that becomes
    parts.
    """

    cost: Decimal
    yields: float
    boards: int


def worth(job: Job, plan: Plan) -> Worth:
    parts = {p.id: p for p in job.parts}
    boards = [job.board(b.board) for b in plan.boards]
    made = sum(parts[name].volume for name, _ in {(i.part, i.n) for *_, i in plan.items()})
    rough = float(sum(board_volume(b) for b in boards))
    return Worth(plan.cost, made / rough if rough else 0.0, len(boards))


@dataclass(frozen=True)
class _Piece:
    layers: Layers
    long: int
    wide: int


def _laid(
    job: Job, board: Board, segments: Sequence[Segment], piece: _Piece, x: int, y: int
) -> tuple[Segment, ...]:
    """The segments of a board with one blank more, near x, y."""
    for segment in segments:
        if segment.x0 <= x <= segment.x1:
            local = round(y - segment.y0 - segment.slope * (x - segment.x0))
            strip = next((t for t in segment.strips if t.y0 <= local <= t.y1), None)
            if strip is not None:
                fuller = replace(strip, blanks=_beside(job, segment, strip, piece, x))
                strips = tuple(fuller if t is strip else t for t in segment.strips)
            else:
                strips = _across(job, board, segment, piece, x, local)
            new = replace(segment, strips=strips)
            return tuple(new if s is segment else s for s in segments)
    return tuple(
        sorted((*segments, _cut_off(job, board, segments, piece, x, y)), key=lambda s: s.x0)
    )


def _beside(job: Job, segment: Segment, strip: Strip, piece: _Piece, x: int) -> tuple[Blank, ...]:
    """The blanks of a strip with one more, in the gap that is nearest."""
    if piece.wide > strip.y1 - strip.y0:
        raise Refused(
            f"it needs {_says(job, piece.wide)} of width; the strip has "
            f"{_says(job, strip.y1 - strip.y0)}"
        )
    kerf = job.shop.kerf.crosscut
    gaps = list(_gaps(segment.x0, segment.x1, [(b.x0, b.x1) for b in strip.blanks], kerf))
    x0 = _fit(gaps, piece.long, x - piece.long // 2)
    if x0 is None:
        raise Refused(
            f"it needs {_says(job, piece.long)} along the strip; {_most(job, gaps)} is free in it"
        )
    return tuple(
        sorted((*strip.blanks, Blank(x0, x0 + piece.long, piece.layers)), key=lambda b: b.x0)
    )


def _across(
    job: Job, board: Board, segment: Segment, piece: _Piece, x: int, local: int
) -> tuple[Strip, ...]:
    """The strips of a segment with one more, where its width is free."""
    if piece.long > segment.x1 - segment.x0:
        raise Refused(
            f"it needs {_says(job, piece.long)}; this segment is "
            f"{_says(job, segment.x1 - segment.x0)} long"
        )
    x0 = _fit([(segment.x0, segment.x1)], piece.long, x - piece.long // 2)
    assert x0 is not None
    low, high = board.reach(segment.y0, segment.slope, segment.x0, x0, x0 + piece.long)
    gaps = list(_gaps(low, high, [(t.y0, t.y1) for t in segment.strips], job.shop.kerf.rip))
    y0 = _fit(gaps, piece.wide, local - piece.wide // 2)
    if y0 is None:
        raise Refused(f"it needs {_says(job, piece.wide)} across; {_most(job, gaps)} is free there")
    strip = Strip(y0, y0 + piece.wide, (Blank(x0, x0 + piece.long, piece.layers),))
    return tuple(sorted((*segment.strips, strip), key=lambda t: t.y0))


def _cut_off(
    job: Job, board: Board, segments: Sequence[Segment], piece: _Piece, x: int, y: int
) -> Segment:
    """A new segment where the board is not cut yet."""
    trim, kerf = job.shop.end_trim, job.shop.kerf.crosscut
    gaps = list(_gaps(trim, board.length - trim, [(s.x0, s.x1) for s in segments], kerf))
    x0 = _fit(gaps, piece.long, x - piece.long // 2)
    if x0 is None:
        raise Refused(
            f"it needs {_says(job, piece.long)} of the board; {_most(job, gaps)} is free on "
            f"{board.id}"
        )
    x1 = x0 + piece.long
    (a, _), (b, _) = board.edges(x0), board.edges(x1)
    slope = max(-job.shop.max_slope, min(job.shop.max_slope, (b - a) / (x1 - x0)))
    line = math.ceil(a)
    low, high = board.reach(line, slope, x0, x0, x1)
    y0 = _fit([(low, high)], piece.wide, round(y - line - slope * (x - x0)) - piece.wide // 2)
    if y0 is None:
        raise Refused(
            f"it needs {_says(job, piece.wide)} across; {board.id} gives "
            f"{_says(job, max(0, high - low))} there"
        )
    return Segment(
        x0, x1, line, slope, (Strip(y0, y0 + piece.wide, (Blank(x0, x1, piece.layers),)),)
    )


def _gaps(
    start: int, end: int, taken: Sequence[tuple[int, int]], kerf: int
) -> Iterator[tuple[int, int]]:
    at = start
    for a, b in sorted(taken):
        yield at, a - kerf
        at = b + kerf
    yield at, end


def _fit(gaps: Sequence[tuple[int, int]], size: int, wish: int) -> int | None:
    """Where something of this size begins in the gap nearest to the wish, laid against an end of
    the gap if that is near.
    """
    places = [max(a, min(wish, b - size)) for a, b in gaps if b - a >= size]
    ends = [e for a, b in gaps if b - a >= size for e in (a, b - size) if abs(e - wish) <= _SNAP]
    return min(ends or places, key=lambda p: abs(p - wish), default=None)


def _reset(segment: Segment, x0: int, x1: int) -> Segment:
    """The same piece of wood cut at x0 and x1: its line begins elsewhere."""
    return replace(segment, x0=x0, x1=x1, y0=round(segment.y0 + segment.slope * (x0 - segment.x0)))


def _from_tray(job: Job, item: Item) -> Layers:
    part = next((p for p in job.parts if p.id == item.part), None)
    if part is None or not 1 <= item.n <= part.quantity:
        raise Refused(f"{item.name} is not on the list")
    if part.panel:
        raise Refused(
            f"{part.name or part.id} is glued from staves: solve the rest, and then move single "
            f"staves"
        )
    if part.run:
        return (
            tuple(
                Item(p.id, n)
                for p in job.parts
                if p.run == part.run
                for n in range(1, p.quantity + 1)
            ),
        )
    return ((Item(item.part, item.n),),)


def _length(job: Job, layers: Layers) -> int:
    longest = max(
        sum(job.part(i.part).length for i in layer) + (len(layer) - 1) * job.shop.apart
        for layer in layers
    )
    return max(longest + job.shop.allowance.length, job.shop.min_blank_length)


def _width(job: Job, layers: Layers) -> int:
    return max(job.part(i.part).width for layer in layers for i in layer) + job.shop.allowance.width


def _there(plan: Plan, item: Item) -> Found:
    found = where(plan, item)
    if found is None:
        raise Refused(f"{item.name} lies nowhere in this plan")
    return found


def _board(job: Job, id: str) -> Board:
    found = next((b for b in job.boards if b.id == id), None)
    if found is None:
        raise Refused(f"there is no board {id}")
    return found


def _without(plan: Plan, gone: Callable[[Blank], bool]) -> Plan:
    boards = []
    for board in plan.boards:
        segments = []
        for s in board.segments:
            strips = tuple(
                replace(t, blanks=left)
                for t in s.strips
                if (left := tuple(b for b in t.blanks if not gone(b)))
            )
            if strips:
                segments.append(replace(s, strips=strips))
        if segments:
            boards.append(BoardPlan(board.board, tuple(segments)))
    return replace(plan, boards=tuple(boards))


def _mapped(plan: Plan, change: Callable[[Blank], Blank]) -> Plan:
    def changed(s: Segment) -> Segment:
        return replace(
            s, strips=tuple(replace(t, blanks=tuple(change(k) for k in t.blanks)) for t in s.strips)
        )

    return replace(
        plan,
        boards=tuple(
            replace(b, segments=tuple(changed(s) for s in b.segments)) for b in plan.boards
        ),
    )


def _fitted(plan: Plan) -> Plan:
    """Segments made as long as their blanks where those have outgrown them."""
    return replace(
        plan,
        boards=tuple(
            replace(
                b,
                segments=tuple(
                    replace(s, x1=max(s.x1, *(k.x1 for _, k in s.blanks()))) for s in b.segments
                ),
            )
            for b in plan.boards
        ),
    )


def _replaced(plan: Plan, board: str, old: Sequence[Segment], new: Sequence[Segment]) -> Plan:
    segments = next(b.segments for b in plan.boards if b.board == board)
    kept = [s for s in segments if not any(s is o for o in old)]
    return _with_segments(plan, board, tuple(sorted((*kept, *new), key=lambda s: s.x0)))


def _with_segments(plan: Plan, board: str, segments: tuple[Segment, ...]) -> Plan:
    boards = [BoardPlan(board, segments) if b.board == board else b for b in plan.boards]
    if all(b.board != board for b in boards):
        boards.append(BoardPlan(board, segments))
    return replace(plan, boards=tuple(boards))


def _checked(job: Job, plan: Plan, *touched: str) -> Plan:
    for name in dict.fromkeys(touched):
        board = next((b for b in plan.boards if b.board == name), None)
        for violation in audit_board(job, board) if board else ():
            text = violation.what.replace(f"a {FORBIDDEN} (both)", "a forbidden place")
            raise Refused(f"rule {violation.rule}: {text}")
    return _told(job, plan)


def _told(job: Job, plan: Plan) -> Plan:
    """The plan with its cost, and everything that lies nowhere named as unplaced."""
    there = {(i.part, i.n) for *_, i in plan.items()}
    why = {(u.part, u.n): u.why for u in plan.unplaced}
    unplaced = tuple(
        Unplaced(p.id, n, why.get((p.id, n), IN_TRAY))
        for p in job.parts
        for n in range(1, p.quantity + 1)
        if (p.id, n) not in there
    )
    cost = sum((job.board(b.board).price for b in plan.boards), Decimal(0))
    return replace(plan, unplaced=unplaced, cost=cost)


def _most(job: Job, gaps: Sequence[tuple[int, int]]) -> str:
    most = max((b - a for a, b in gaps), default=0)
    return f"at most {_says(job, most)}" if most > 0 else "nothing"


def _says(job: Job, ticks: int) -> str:
    return about(ticks, job.unit, unit=True, down=True)
