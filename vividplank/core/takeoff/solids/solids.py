"""From the solids of a model to its parts: like ones counted together, mirrored ones as pairs."""

import re
from collections import Counter
from dataclasses import dataclass, field

import numpy as np

from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff.model.found import Decision, Found, Settings, counted
from vividplank.core.takeoff.solids.fused import boards_in
from vividplank.core.takeoff.solids.oriented_box import Box, Solid, oriented_box, outline, same

#: Names that programs give when nobody has named the thing.
_NAMELESS = re.compile(
    r"(solid|body|mesh|shape|object|part|compound|component|product|geometry|group|default|node|"
    r"open cascade.*|step.*translator.*|.*model|cadquery shape|brep|feature|created by.*|unnamed|"
    r"none|world|scene|root)?[\s_.:#-]*\d*(\.\d+)*",
    re.IGNORECASE,
)
_COPY = re.compile(
    r"(?:[\s_]*[:#]\s*\d+|\.\d{3,}|[\s_]*\(\d+\)|[_\s-]+\d{1,3}|\s+copy(\s*\d+)?)$", re.IGNORECASE
)
_SIDE = re.compile(
    r"\b(left|right|l|r|lh|rh|front|back|rear|upper|lower|top|bottom)\b[\s_-]*", re.IGNORECASE
)


#: No board is thicker (mm, 16/4), and a thing of one piece fills at least this share of its box.
_THICKEST, _FULL = 102.0, 0.6
#: A room has at least so many bodies within it.
_OTHERS = 3


@dataclass
class _Kind:
    box: Box
    names: list[str]
    solids: list[Solid]
    mirrored: list[Solid] = field(default_factory=list)


def plain_name(name: str) -> str:
    """A piece's name without the counter a program hangs on copies; empty where nobody named it.

    >>> [plain_name(name) for name in ("Rail:2", "Seat rail.003", "SOLID 4", "Shelf 2")]
    ['Rail', 'Seat rail', '', 'Shelf']
    """
    name = re.sub(r"\s+", " ", name.replace("\u0000", "")).strip()
    shorter = _COPY.sub("", name).strip() or name
    return "" if _NAMELESS.fullmatch(shorter) else shorter


@dataclass(frozen=True)
class Taken:
    """Parts in the order they first come, what is wrong with a body, by its name, what was decided,
    and the bodies that were taken: fused ones parted, where that was asked for.
    """

    parts: tuple[Found, ...]
    troubles: tuple[str, ...]
    decisions: tuple[Decision, ...]
    solids: tuple[Solid, ...]


def parts_of(solids: list[Solid], settings: Settings) -> Taken:
    """What the bodies of a model are as parts."""
    kinds: list[_Kind] = []
    troubles: list[str] = []
    decisions: list[Decision] = []
    taken: list[Solid] = []
    room = _round_all(solids)
    for solid in solids:
        if settings.meaning(solid.layer).ignore:
            taken.append(solid)
            continue
        if solid is room:
            key = f"room:{plain_name(solid.name)}"
            what = (
                f"No part: '{plain_name(solid.name) or solid.ref}' holds all "
                f"{len(solids) - 1} others within it"
            )
            decisions.append(
                Decision(key, "room", (solid.ref,), what, "It is a part", key in settings.turned)
            )
            if key not in settings.turned:
                taken.insert(0, solid)
                continue
        box, name = oriented_box(solid), plain_name(solid.name) or solid.ref
        if not solid.closed:
            troubles.append(
                f"'{name}' is open or broken: its surface does not close. Its size was taken "
                f"from what is there; check it"
            )
        pieces = [(solid, box)]
        if box.size[2] > _THICKEST and solid.closed and solid.volume < _FULL * box.volume:
            pieces = _fused(solid, box, name, settings, troubles, decisions)
        for piece, its_box in pieces:
            taken.append(piece)
            if its_box.size[2] < 0.05:
                troubles.append(f"'{name}' has no thickness and was left out; expected a solid")
                continue
            _sort_in(kinds, piece, its_box)
    ignored = [
        Decision(
            f"layer:{layer}",
            "layer",
            refs,
            f"Left out, as you said: {counted(len(refs), 'body', 'bodies')} on '{layer}'",
        )
        for layer in dict.fromkeys(s.layer for s in solids if settings.meaning(s.layer).ignore)
        for refs in [tuple(s.ref for s in solids if s.layer == layer)]
    ]
    parts = tuple(_found(k, i, settings) for i, k in enumerate(kinds))
    return Taken(parts, tuple(troubles), (*decisions, *ignored), tuple(taken))


def _round_all(solids: list[Solid]) -> Solid | None:
    """The one body that all others lie within: the room they stand in, or a box drawn round the
    whole.
    """
    if len(solids) < _OTHERS + 1:
        return None
    lows = np.array([s.vertices.min(axis=0) for s in solids])
    highs = np.array([s.vertices.max(axis=0) for s in solids])
    largest = int(np.argmax(np.prod(highs - lows, axis=1)))
    within = np.all(lows >= lows[largest] - 0.1, axis=1) & np.all(
        highs <= highs[largest] + 0.1, axis=1
    )
    thick = float((highs - lows)[largest].min())
    return solids[largest] if within.all() and thick > _THICKEST else None


def _fused(
    solid: Solid,
    box: Box,
    name: str,
    settings: Settings,
    troubles: list[str],
    decisions: list[Decision],
) -> list[tuple[Solid, Box]]:
    """A body that is plainly several boards: as it is, or parted where a proposal to do so was
    taken up.
    """
    size = _size(box.size)
    called = f"'{name}'" if name != solid.ref else "A body"
    fills = 100 * solid.volume / box.volume
    told = (
        f"{called} measures {size} and fills {fills:.0f} % of that: is it several boards in "
        f"one body?"
    )
    boards = [(board, oriented_box(board)) for board in boards_in(solid, box)]
    if not boards:
        troubles.append(f"{told} Part it where it was drawn, or take it off by its own parts")
        return [(solid, box)]
    key = f"fused:{plain_name(solid.name)}:{size}"
    turned = key in settings.turned
    sizes = Counter(_size(b.size) for _, b in boards)
    proposal = "; ".join(f"{many} of {each}" for each, many in sizes.items())
    refs = tuple(board.ref for board, _ in boards) if turned else (solid.ref,)
    decisions.append(
        Decision(key, "fused", refs, told, f"Part it into {len(boards)} boards: {proposal}", turned)
    )
    return boards if turned else [(solid, box)]


def _size(size: tuple[float, float, float]) -> str:
    return " × ".join(f"{s:.4g}" for s in size) + " mm"


def _sort_in(kinds: list[_Kind], solid: Solid, box: Box) -> None:
    name = plain_name(solid.name)
    for kind in kinds:
        if not _may_be_one(name, kind.names) or kind.solids[0].layer != solid.layer:
            continue
        how = same(kind.solids[0], solid, kind.box, box)
        if how:
            (kind.solids if how == "same" else kind.mirrored).append(solid)
            if name and name not in kind.names:
                kind.names.append(name)
            return
    kinds.append(_Kind(box, [name] if name else [], [solid]))


def _may_be_one(name: str, names: list[str]) -> bool:
    """Pieces with names of their own stay apart, unless the names differ in a side only."""
    if not name or not names:
        return True
    return _SIDE.sub("", name).casefold().strip() in {
        _SIDE.sub("", n).casefold().strip() for n in names
    }


def _found(kind: _Kind, number: int, settings: Settings) -> Found:
    first, box = kind.solids[0], kind.box
    fill = min(1.0, first.volume / box.volume) if first.closed else 1.0
    line = outline(first, box) if fill < 0.999 else []
    meaning = settings.meaning(first.layer)
    length, width, thickness = (round(s * TICKS_PER_MM) for s in box.size)
    note = f"{len(kind.mirrored)} of them mirrored: make as pairs" if kind.mirrored else ""
    return Found(
        str(number),
        " / ".join(kind.names[:3]),
        len(kind.solids) + len(kind.mirrored),
        length,
        width,
        thickness,
        meaning.species,
        first.layer,
        len(kind.mirrored),
        round(fill, 4),
        tuple((round(x * TICKS_PER_MM), round(y * TICKS_PER_MM)) for x, y in line),
        tuple(s.ref for s in (*kind.solids, *kind.mirrored)),
        note,
    )
