"""The state of every piece: what its events make of it."""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from math import ceil, floor
from typing import Literal, get_args

from vividplank.core.board import Board, Defect, Warp, remeasured
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Item, Plan
from vividplank.core.log.events import (
    Accepted,
    Did,
    Event,
    Found,
    LogError,
    Measured,
    Seen,
    Size,
    Spoiled,
    Then,
)
from vividplank.core.log.events import (
    Cut as CutUp,
)
from vividplank.core.milling import Route
from vividplank.core.milling.model.step import Step
from vividplank.core.piece import Cut, Face, Piece, piece_of_board
from vividplank.core.piece import operations as op
from vividplank.core.yields.ledger import Ledger

#: `rack`: a board nobody has cut. `offcut`: for nothing yet. `cut`: into others, as no route asked.
PieceState = Literal["rack", "work", "finished", "offcut", "cut"]
_SIZES = get_args(Size)
_WARP = ("bow", "cup", "twist")
Lengths = Mapping[str, int]


@dataclass(frozen=True)
class Held:
    """A piece as it is now, the items it is for, and the step that gave it last (empty for a board
    nobody has cut). `measured` is what was read of it since; `accepted` that it serves in spite of
    what was seen.
    """

    piece: Piece
    items: tuple[Item, ...]
    state: PieceState
    step: str = ""
    measured: Lengths = field(default_factory=dict)
    found: tuple[Defect, ...] = ()
    spoiled: Then | None = None
    why: str = ""
    accepted: bool = False

    @property
    def moved(self) -> Lengths:
        """Its warp and crook as they were read since it was made flat and straight."""
        return {k: v for k, v in self.measured.items() if k in (*_WARP, "crook")}

    def as_moved(self, board: Board, crook: bool = True) -> Board:
        """The piece as this board, with the warp that was read of it, and with the crook unless
        the board has it already.
        """
        warp = Warp(*(self.moved.get(k, getattr(board.warp, k)) for k in _WARP))
        off = self.moved.get("crook", 0) if crook else 0
        return board if warp == board.warp and not off else remeasured(board, warp, off)

    @property
    def body(self) -> Piece:
        """The piece with the faults found in it, as thin, narrow and short as it was read."""
        piece = self.piece
        down = piece.datum.at(piece.x0)
        faults = tuple(_moved(d, piece.x0, down) for d in self.found)
        if faults:
            board = replace(piece.board, defects=(*piece.board.defects, *faults))
            piece = replace(piece, board=board)
        return _as_read(piece, self.measured)


@dataclass(frozen=True)
class Wood:
    """All pieces there are by their marks, the steps that are done, and the boards cut into."""

    pieces: Mapping[str, Held]
    done: frozenset[str]
    begun: frozenset[str]


def done_steps(routes: Iterable[Route], keys: Collection[str]) -> frozenset[str]:
    """These steps and those before them that made what they took: nobody can have done a step
    before them.
    """
    steps = {s.key: s for r in routes for s in r.steps}
    makers: dict[str, list[str]] = {}
    order = {key: k for k, key in enumerate(steps)}
    for step in steps.values():
        for given in step.gives:
            makers.setdefault(given.piece, []).append(step.key)
    found: set[str] = set()
    waiting = [key for key in keys if key in steps]
    while waiting:
        key = waiting.pop()
        if key in found:
            continue
        found.add(key)
        for mark in steps[key].takes:
            waiting += [k for k in makers.get(mark, ()) if order[k] < order[key]]
    return frozenset(found)


def state(
    job: Job,
    plan: Plan,
    routes: Sequence[Route],
    events: Sequence[Event],
    strict: bool = True,
) -> Wood:
    """The pieces there are once these (standing) events have happened to what `routes` make of the
    plan; a LogError names the first that cannot have. Where it is not `strict`, what is about
    another plan is passed over.
    """
    steps = {s.key: s for r in routes for s in r.steps}
    did = [e for e in events if isinstance(e, Did)]
    for event in did:
        if strict and event.step not in steps:
            raise LogError(event.n, f"did {event.step}; expected a step of the route")
    done = done_steps(routes, [e.step for e in did])
    pieces = {b.id: Held(piece_of_board(b), (), "rack") for b in job.boards}
    items = _items_of(routes)
    boards = dict(pieces)
    closed = {(c.piece, c.after): c.board for c in plan.closed}
    ledger = Ledger(job, plan.closed)
    spare: list[Piece] = []
    for route in routes:
        for step in route.steps:
            if step.key not in done:
                continue
            ledger.enter(step)
            for mark in step.takes:
                pieces.pop(mark, None)
            for given, wood in zip(step.gives, step.wood_out, strict=True):
                for_what = items.get((step.key, given.piece), ())
                mark = given.piece
                pieces[mark] = Held(wood, for_what, "work", step.key)
                if (mark, step.key) in closed:  # it goes on as a board of its own, or not at all
                    pieces.pop(mark)
                    board = closed[mark, step.key]
                    if board in boards:
                        pieces[board] = boards[board]
        spare += route.kept
    _finished(pieces, steps.values(), done, {p.mark for p in spare})
    for piece in ledger.kept:
        if (piece.mark, ledger.left_by[piece.mark]) in closed:
            continue
        pieces.setdefault(piece.mark, Held(piece, (), "offcut", ledger.left_by[piece.mark]))
    known = {mark for s in steps.values() for mark in s.takes} | {c.piece for c in plan.closed}
    known |= {g.piece for s in steps.values() for g in s.gives} | set(pieces)
    known |= {span.piece for e in events if isinstance(e, CutUp) for span in e.gives}
    for seen in events:
        if isinstance(seen, Seen) and seen.piece not in known and strict:
            raise LogError(seen.n, f"is about {seen.piece}; expected a piece there is")
    _cut_up(pieces, events, {c.piece for c in plan.closed}, strict)
    _observed(pieces, steps, events, {c.board for c in plan.closed})
    whole = {mark for mark, held in pieces.items() if held.state == "rack"}
    return Wood(pieces, done, frozenset(b.id for b in job.boards if b.id not in whole))


def _items_of(routes: Iterable[Route]) -> dict[tuple[str, str], tuple[Item, ...]]:
    """For every step and piece it gives, the items that come, or have come, out of that piece."""
    steps = [s for r in routes for s in r.steps]
    found: dict[tuple[str, str], tuple[Item, ...]] = {}
    ahead: dict[str, tuple[Item, ...]] = {}  # by mark: what later steps make of it
    for step in reversed(steps):
        given = [tuple(dict.fromkeys((*g.items, *ahead.pop(g.piece, ())))) for g in step.gives]
        for g, wanted in zip(step.gives, given, strict=True):
            found[step.key, g.piece] = wanted
        born = [i for g in step.gives for i in g.items]
        for k, mark in enumerate(step.takes):
            one_each = step.does == "glue" and len(born) == len(step.takes)
            ahead[mark] = (born[k],) if one_each else tuple(i for w in given for i in w)
    held: dict[str, tuple[Item, ...]] = {}  # by mark: what has come out already
    for step in steps:
        before = tuple(dict.fromkeys(i for mark in step.takes for i in held.pop(mark, ())))
        for g in step.gives:
            there = found[step.key, g.piece]
            now = there or (before if len(step.gives) == 1 else ())
            found[step.key, g.piece] = now
            if g.items or (now and not there):
                held[g.piece] = now
    return found


def _finished(
    pieces: dict[str, Held], steps: Iterable[Step], done: frozenset[str], spare: set[str]
) -> None:
    wanted = {mark for s in steps if s.key not in done for mark in s.takes}
    for mark, held in pieces.items():
        if held.state == "work" and mark not in wanted:
            ended: PieceState = "offcut" if mark in spare or not held.items else "finished"
            pieces[mark] = replace(held, state=ended)


def _cut_up(
    pieces: dict[str, Held], events: Iterable[Event], closed: Collection[str], strict: bool
) -> None:
    """Cuts beside every route, on the pieces that are there."""
    for event in events:
        if not isinstance(event, CutUp):
            continue
        held = pieces.get(event.piece)
        if held is None or held.state == "cut":
            if strict and event.piece not in closed:
                raise LogError(event.n, f"cuts {event.piece}; expected a piece there is")
            continue
        pieces[event.piece] = replace(held, state="cut")
        wood = held.body
        for span in event.gives:
            if event.does == "crosscut":
                made = op.crosscut(wood, span.piece, span.low, span.high)
            else:
                lines = [op.along(wood, h, 0.0) for h in (span.low, span.high)]
                made = op.rip(wood, span.piece, lines[0], lines[1])
            pieces[span.piece] = Held(made, (), "offcut", held.step)


def _observed(
    pieces: dict[str, Held],
    steps: Mapping[str, Step],
    events: Iterable[Event],
    freed: Collection[str],
) -> None:
    """Readings, faults and mishaps of the pieces that are still there. What was seen of a piece
    before it was cut up went with it; what was seen of one that has been `freed` is in the board
    it has become.
    """
    for event in events:
        if isinstance(event, Did):
            if event.step in steps:
                _made_true(pieces, steps[event.step])
                _read_at(pieces, steps[event.step], event)
            continue
        held = pieces.get(event.piece) if isinstance(event, Seen) else None
        if held is None or (held.state == "rack" and held.piece.mark in freed):
            continue
        if isinstance(event, Measured):
            if event.what in (*_SIZES, *_WARP, "crook"):
                read = {**held.measured, event.what: round(event.value)}
                pieces[event.piece] = replace(held, measured=read, accepted=False)
        elif isinstance(event, Found):
            found = (*held.found, event.defect)
            pieces[event.piece] = replace(held, found=found, accepted=False)
        elif isinstance(event, Accepted):
            pieces[event.piece] = replace(held, accepted=True)
        elif isinstance(event, Spoiled):
            pieces[event.piece] = replace(held, spoiled=event.then, why=event.why)


def _made_true(pieces: dict[str, Held], step: Step) -> None:
    """A face that was flattened is warped no more, an edge that was jointed no more crooked."""
    true = _WARP if step.does == "flatten" else ("crook",) if step.does == "joint-edge" else ()
    for given in step.gives:
        held = pieces.get(given.piece)
        if held and true:
            read = {name: value for name, value in held.measured.items() if name not in true}
            pieces[given.piece] = replace(held, measured=read)


def _read_at(pieces: dict[str, Held], step: Step, event: Did) -> None:
    """What was read as a step was done, unless it is what the step was to give; and what passes
    beyond those foretold left of a face, where that is too thin.
    """
    over = (event.passes or 0) - len(step.passes)
    deep = over * step.passes[-1] if step.does == "flatten" and step.passes else 0
    if over > 0 and deep > step.spare:
        for given in step.gives:
            if held := pieces.get(given.piece):
                read = {**held.measured, "thickness": max(1, step.holds - deep)}
                pieces[given.piece] = replace(held, measured=read)
    if event.reading is None or step.dimension not in _SIZES:
        return
    if abs(event.reading - step.stock_out) <= max(step.tolerance, 1):
        return
    for given in step.gives:
        held = pieces.get(given.piece)
        if held and held.step == step.key and len(step.gives) == 1:
            read = {**held.measured, step.dimension: event.reading}
            pieces[given.piece] = replace(held, measured=read)


def _moved(defect: Defect, x: float, y: float) -> Defect:
    """A fault in the axes of a piece, in those of its board; rounded outward."""
    return replace(
        defect,
        x0=floor(defect.x0 + x),
        x1=ceil(defect.x1 + x),
        y0=floor(defect.y0 + y),
        y1=ceil(defect.y1 + y),
        points=tuple((round(px + x), round(py + y)) for px, py in defect.points),
    )


def _as_read(piece: Piece, measured: Lengths) -> Piece:
    if (long := measured.get("length")) and long < piece.length:
        piece = replace(piece, x1=piece.x0 + long)
    if (wide := measured.get("width")) and wide < piece.width:
        line = piece.datum
        top = replace(line, y0=line.y0 + wide)
        piece = replace(piece, high=(*piece.high, top))
    thick = measured.get("thickness")
    if thick and thick < piece.thick and (down := piece.reference):
        base = piece.face(down).plane
        up: Face = "A" if down == "B" else "B"
        if base is not None:
            to = base.raised(thick if up == "A" else -thick)
            was = piece.face(up)
            piece = replace(piece, cuts=(*piece.cuts, Cut(up, to)))
            piece = piece.with_face(up, replace(was, plane=to) if was.flat else was)
    return piece
