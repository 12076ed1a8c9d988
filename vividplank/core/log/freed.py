"""Which pieces no longer serve for what they were for, and why."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from vividplank.core.board import same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Item, Plan
from vividplank.core.log.events import Size, Then
from vividplank.core.log.state import Held
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.route.built import whole_of

#: Why a piece is not what it was for any more.
Reason = Literal["spoiled", "cut", "fault", "size", "moved", "list", "with"]
#: What a piece measures may be so many ticks under what is wanted: a sheet of paper.
_PAPER = 32
#: A part may be made smaller by so many ticks without being another part: 1/8 in.
_HAIR = TICKS_PER_INCH // 8


@dataclass(frozen=True)
class Freed:
    """A piece that is taken off its items: `then` says whether what is left of it may serve.
    "moved": it is not flat or straight any more, which is milled again where it is laid out anew;
    "with": it was for a panel or built-up piece of which another piece is lost.
    """

    piece: str
    reason: Reason
    then: Then
    items: tuple[Item, ...]
    why: str = ""


def freed_pieces(now: Job, before: Job, plan: Plan, there: Mapping[str, Held]) -> tuple[Freed, ...]:
    """The pieces that no longer serve for what they were for."""
    found: dict[str, Freed] = {}
    room = {p.id: p.quantity for p in now.parts}
    counted: set[tuple[str, int]] = set()
    for mark, held in there.items():
        reason, then, why = _reason(now, before, held)
        if reason is None and held.items:
            for i in dict.fromkeys((i.part, i.n) for i in held.items):
                if i not in counted:
                    counted.add(i)
                    room[i[0]] = room.get(i[0], 0) - 1
                if room[i[0]] < 0:
                    reason, then, why = "list", "stock", ""
        if reason and held.state != "rack":
            found[mark] = Freed(mark, reason, then, held.items, why)
    parts = {p.id: p for p in before.parts}
    lost_items = [i for f in found.values() for i in f.items]
    lost_items += [i for c in plan.closed for i in c.items]
    lost = {glue_up_of(i, parts[i.part]) for i in lost_items}
    for mark, held in there.items():
        units = {glue_up_of(i, parts[i.part]) for i in held.items} - {None}
        if mark not in found and units & lost:
            found[mark] = Freed(mark, "with", "stock", held.items)
    return tuple(found.values())


def _reason(now: Job, before: Job, held: Held) -> tuple[Reason | None, Then, str]:
    if held.state == "cut":
        return "cut", "stock", ""
    if held.spoiled:
        return "spoiled", held.spoiled, held.why
    if held.state in ("rack", "offcut") or held.accepted:
        return None, "stock", ""
    if held.found and held.state != "rack":
        return "fault", "stock", held.found[-1].kind
    if any(abs(read) > _PAPER for read in held.moved.values()):
        return "moved", "stock", ""
    parts = {p.id: p for p in now.parts}
    old = {p.id: p for p in before.parts}
    for item in held.items:
        part = parts.get(item.part)
        if part is None or not same_species(part.species, held.piece.board.species):
            return "list", "stock", ""
        if not _still(part, old[item.part]) and not _large_enough(part, held):
            return "list", "stock", ""
        if held.measured and not _large_enough(part, held, held.measured):
            return "size", "stock", ""
    return None, "stock", ""


def _still(part: Part, old: Part) -> bool:
    """Whether what was laid out for a part serves for what it is now."""
    smaller = (
        part.length <= old.length and part.width <= old.width and part.thickness <= old.thickness
    )
    return smaller and (part.faces, part.panel) == (old.faces, old.panel)


def _large_enough(part: Part, held: Held, only: Collection[str] | None = None) -> bool:
    """Whether the piece, by itself, is as large as the part; with `only`, in these dimensions."""
    if len(held.items) != 1 or held.items[0].stave:
        only = {"thickness"}.intersection(("thickness",) if only is None else only)
    body = held.body
    wanted = {"length": part.length, "width": part.width, "thickness": part.thickness}
    if part.fitted:  # it is as long as the work asks
        wanted["length"] = 0
    real = {"length": body.length, "width": body.width, "thickness": body.thick}
    asked = wanted.keys() if only is None else wanted.keys() & only
    return all(real[name] >= wanted[name] - _PAPER for name in asked)


def a_hair_short(now: Job, held: Held) -> tuple[tuple[Part, Size], ...]:
    """The parts a piece is for, and the dimension in which it was read a hair too small for them:
    were all of the part that small, it would serve.
    """
    found = []
    for part in now.parts:
        if not any(i.part == part.id for i in held.items):
            continue
        for what in get_args(Size):
            lacks = getattr(part, what) - held.measured.get(what, getattr(part, what))
            if _PAPER < lacks <= _HAIR:
                found.append((part, what))
    return tuple(found)


def glue_up_of(item: Item, part: Part) -> tuple[str, int] | None:
    """What its staves or layers are glued up to; None for a part that is of one piece."""
    if item.stave:
        return item.part, item.n
    return (item.part, whole_of(part, item)) if part.glued_up else None
