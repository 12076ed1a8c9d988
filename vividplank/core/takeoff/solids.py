"""From the solids of a model to its parts: like ones counted together, mirrored ones as pairs."""

import re
from dataclasses import dataclass, field, replace

from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff.box import Box, Solid, outline, same, tight_box
from vividplank.core.takeoff.found import Found, Settings

#: Names that programs give when nobody has named the thing.
_NAMELESS = re.compile(
    r"(solid|body|mesh|shape|object|part|compound|component|product|geometry|group|default|node|brep|feature|open cascade.*|"
    r"step.*translator.*|.*model|created by.*|unnamed|none|world|scene|root)?[\s_.:#-]*\d*(\.\d+)*",
    re.I,
)
_COPY = re.compile(r"(?:[\s_]*[:#]\s*\d+|\.\d{3,}|[\s_]*\(\d+\)|[_\s-]+\d{1,3}|\s+copy(\s*\d+)?)$", re.I)
_SIDE = re.compile(r"\b(left|right|l|r|lh|rh|front|back|rear|upper|lower|top|bottom)\b[\s_-]*", re.I)


#: No board is thicker (mm, 16/4), and a thing of one piece fills at least this share of its box.
_THICKEST, _FULL = 102.0, 0.6


@dataclass
class _Kind:
    box: Box
    names: list[str]
    solids: list[Solid]
    mirrored: list[Solid] = field(default_factory=list)


def plain_name(name: str) -> str:
    """A piece's name without the counter a program hangs on copies; empty where nobody named it.

    >>> plain_name("Rail:2"), plain_name("Seat rail.003"), plain_name("SOLID 4"), plain_name("Shelf 2")
    ('Rail', 'Seat rail', '', 'Shelf')
    """
    name = re.sub(r"\s+", " ", name.replace("\u0000", "")).strip()
    shorter = _COPY.sub("", name).strip() or name
    return "" if _NAMELESS.fullmatch(shorter) else shorter


def parts_of(solids: list[Solid], settings: Settings) -> tuple[tuple[Found, ...], tuple[str, ...]]:
    """Parts in the order they first come, and what is wrong with a body, by its name."""
    kinds: list[_Kind] = []
    troubles: list[str] = []
    for solid in solids:
        if settings.meaning(solid.layer).ignore:
            continue
        box = tight_box(solid)
        if not solid.closed:
            troubles.append(
                f"'{solid.name or solid.ref}' is open or broken: its surface does not close. Its size was taken "
                "from what is there; check it"
            )
        if box.size[2] > _THICKEST and solid.closed and solid.volume < _FULL * box.volume:
            size = " × ".join(f"{s:.0f}" for s in box.size)
            troubles.append(
                f"'{solid.name or solid.ref}' measures {size} mm and fills {100 * solid.volume / box.volume:.0f} % of that: is "
                "it several boards in one body? Part it where it was drawn, or take it off by its own parts"
            )
        if box.size[2] < 0.05:
            troubles.append(f"'{solid.name or solid.ref}' has no thickness and was left out; expected a solid")
            continue
        _sort_in(kinds, solid, box)
    return tuple(_found(k, i, settings) for i, k in enumerate(kinds)), tuple(troubles)


def numbered(parts: tuple[Found, ...]) -> tuple[Found, ...]:
    """Every part with a key and a name of its own: a second Rail is Rail 2."""
    counts: dict[str, int] = {}
    named = []
    for i, part in enumerate(parts, 1):
        name = part.name or f"Part {i}"
        counts[name.casefold()] = n = counts.get(name.casefold(), 0) + 1
        named.append(replace(part, name=name if n == 1 else f"{name} {n}", key=name if n == 1 else f"{name} {n}"))
    return tuple(named)


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
    return _SIDE.sub("", name).casefold().strip() in {_SIDE.sub("", n).casefold().strip() for n in names}


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
