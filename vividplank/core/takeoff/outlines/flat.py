"""Closed outlines on a flat drawing become parts: sizes, names from the words beside them, like
ones together.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from shapely.affinity import scale
from shapely.geometry import MultiPoint, Polygon
from shapely.geometry import Point as Place

from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM, System, show
from vividplank.core.takeoff.model.found import (
    Decision,
    FileUnit,
    Found,
    Point,
    Seen,
    Settings,
    View,
    Words,
    counted,
)
from vividplank.core.takeoff.model.words import SYSTEM_OF, Said, understand
from vividplank.core.takeoff.outlines.inside import sort_out
from vividplank.core.takeoff.outlines.outline import Outline, Written
from vividplank.core.takeoff.outlines.twice import drawn_once

#: Text farther from an outline than this share of its longer side does not belong to it.
_BESIDE = 0.35
#: Outlines are one shape where what sticks out of either, laid on the other, is less than this
#: share of it.
_SAME_SHAPE = 2e-3
#: And their sizes differ by no more (ticks; 0.1 mm).
_SAME_SIZE = TICKS_PER_MM // 10


@dataclass(frozen=True)
class _Piece:
    outline: Outline
    length: int
    width: int
    said: Said
    fill: float
    ring: tuple[tuple[int, int], ...]


@dataclass
class _Kind:
    """Pieces that are one part, some of them mirrored."""

    pieces: list[_Piece]
    mirrored: list[_Piece] = field(default_factory=list)


def parts_of_outlines(
    outlines: Sequence[Outline],
    words: Sequence[Words],
    written: Sequence[Written],
    unit: FileUnit,
    settings: Settings,
) -> tuple[tuple[Found, ...], tuple[str, ...], tuple[Decision, ...]]:
    """Parts of a flat drawing, what did not agree in it, and what was not taken as a part. Written
    figures rule over measured ones.
    """
    system: System = SYSTEM_OF[unit]
    meant, doubles = drawn_once(
        [o for o in outlines if not settings.meaning(o.layer).ignore], settings
    )
    kept, decisions, titles = sort_out(meant, words, settings, system)
    beside = _words_beside(kept, [w for w in words if w not in titles])
    spanned = _spanned(kept, written)
    troubles: list[str] = []
    pieces = [
        _piece(o, beside.get(o.ref, ""), spanned.get(o.ref, {}), unit, system, troubles)
        for o in kept
    ]
    groups: dict[tuple[object, ...], list[_Kind]] = {}
    for piece in pieces:
        thickness = piece.said.thickness or piece.outline.thickness
        key = (piece.said.name.casefold(), piece.outline.layer, thickness)
        _sort_in(groups.setdefault(key, []), piece)
    troubles.extend(_sums(written, unit, system))
    ignored = [
        Decision(
            f"layer:{layer}",
            "layer",
            refs,
            f"Left out, as you said: {counted(len(refs), 'outline')} on '{layer}'",
        )
        for layer in dict.fromkeys(o.layer for o in outlines if settings.meaning(o.layer).ignore)
        for refs in [tuple(o.ref for o in outlines if o.layer == layer)]
    ]
    found = tuple(_found(kind, settings) for kinds in groups.values() for kind in kinds)
    return found, tuple(troubles), (*doubles, *decisions, *ignored)


def _sort_in(kinds: list["_Kind"], piece: _Piece) -> None:
    """With those of its shape; turned over it is the same shape, mirrored."""
    for kind in kinds:
        how = _same_shape(kind.pieces[0], piece)
        if how:
            (kind.pieces if how == "same" else kind.mirrored).append(piece)
            return
    kinds.append(_Kind([piece]))


def _same_shape(one: _Piece, other: _Piece) -> str:
    """ "same", "mirrored" or "": whether one covers the other, laid on it as it is, turned by half,
    or turned over.
    """
    if max(abs(one.length - other.length), abs(one.width - other.width)) > _SAME_SIZE:
        return ""
    if not one.ring or not other.ring:
        return "same" if not one.ring and not other.ring else ""
    if abs(one.fill - other.fill) > 2e-3:
        return ""
    here, there = Polygon(one.ring).buffer(0), Polygon(other.ring).buffer(0)
    x0, y0, x1, y1 = here.bounds
    for flip_x, flip_y, how in (
        (1, 1, "same"),
        (-1, -1, "same"),
        (1, -1, "mirrored"),
        (-1, 1, "mirrored"),
    ):
        laid = scale(there, flip_x, flip_y, origin=((x0 + x1) / 2, (y0 + y1) / 2))
        if here.symmetric_difference(laid).area < _SAME_SHAPE * here.area:
            return how
    return ""


def view_of(
    outlines: Sequence[Outline],
    words: Sequence[Words],
    lines: Sequence[tuple[Point, ...]] = (),
    name: str = "drawing",
) -> View:
    """The drawing itself, moved to the origin and turned to y down."""
    points = (
        [p for o in outlines for p in o.points]
        + [p for line in lines for p in line]
        + [w.at for w in words]
    )
    x0, y1 = min(p[0] for p in points), max(p[1] for p in points)
    width, height = max(p[0] for p in points) - x0, y1 - min(p[1] for p in points)

    def down(p: Point) -> Point:
        return (round(p[0] - x0, 3), round(y1 - p[1], 3))

    large_first = sorted(outlines, key=lambda o: -Polygon(o.points).area)
    return View(
        name,
        width,
        height,
        tuple(Seen(o.ref, tuple(down(p) for p in o.points)) for o in large_first),
        tuple(tuple(down(p) for p in line) for line in lines),
        tuple(Words(down(w.at), w.text) for w in words),
    )


def _words_beside(outlines: Sequence[Outline], words: Sequence[Words]) -> dict[str, str]:
    """Each text goes to the smallest outline it lies in, else to the nearest one close enough."""
    shapes = [(o, Polygon(o.points).buffer(0)) for o in outlines]
    given: dict[str, list[str]] = {}
    for word in words:
        at = Place(word.at)
        inside = [(s.area, o.ref) for o, s in shapes if s.contains(at)]
        if inside:
            given.setdefault(min(inside)[1], []).append(word.text)
            continue
        near = [
            (s.distance(at), o.ref)
            for o, s in shapes
            if s.distance(at) <= _BESIDE * max(s.bounds[2] - s.bounds[0], s.bounds[3] - s.bounds[1])
        ]
        if near:
            given.setdefault(min(near)[1], []).append(word.text)
    return {ref: "\n".join(texts) for ref, texts in given.items()}


def _piece(
    o: Outline,
    text: str,
    told: Mapping[str, int],
    unit: FileUnit,
    system: System,
    troubles: list[str],
) -> _Piece:
    box, angle, sides = _least_rectangle(o.points)
    said = understand(text, unit) if text else Said()
    said = replace(said, name=o.name or said.name, quantity=max(o.quantity, said.quantity))
    measured = [round(s * TICKS_PER_MM) for s in sides]
    sizes = []
    for size, figure in zip(measured, (told.get("long", 0), told.get("short", 0)), strict=True):
        if figure and abs(figure - size) > 0.01 * size:
            troubles.append(
                f"'{said.name or o.layer or o.ref}': written {show(figure, system, unit=True)}, "
                f"drawn "
                f"{show(round(size / 32) * 32, system, unit=True)}; the written figure was taken"
            )
        sizes.append(figure or size)
    if said.sizes:
        wanted = sorted(said.sizes, reverse=True)[:2]
        for size, figure in zip(sorted(sizes, reverse=True), wanted, strict=True):
            if abs(figure - size) > 0.01 * size:
                troubles.append(
                    f"'{said.name or o.ref}': the words beside it say "
                    f"{show(figure, system, unit=True)}, the drawing "
                    f"{show(round(size / 32) * 32, system, unit=True)}; the words were taken"
                )
        sizes = wanted
    fill = Polygon(o.points).buffer(0).area / (sides[0] * sides[1])
    ring = (
        ()
        if fill > 0.999
        else tuple(
            (round(x * TICKS_PER_MM), round(y * TICKS_PER_MM))
            for x, y in _turned(o.points, box, angle, sides)
        )
    )
    return _Piece(o, max(sizes), min(sizes), said, min(1.0, fill), ring)


def _found(kind: _Kind, settings: Settings) -> Found:
    first, group = kind.pieces[0], [*kind.pieces, *kind.mirrored]
    mirrored = sum(p.said.quantity for p in kind.mirrored)
    meaning = settings.meaning(first.outline.layer)
    return Found(
        "",
        first.said.name,
        sum(p.said.quantity for p in group),
        first.length,
        first.width,
        first.said.thickness or first.outline.thickness or meaning.thickness,
        first.outline.species or meaning.species,
        first.outline.layer,
        mirrored,
        round(first.fill, 4),
        first.ring,
        tuple(p.outline.ref for p in group),
        f"{mirrored} of them mirrored: turned over where both faces may show, else make as pairs"
        if mirrored
        else "",
    )


def _sums(written: Sequence[Written], unit: FileUnit, system: System) -> list[str]:
    """Rows of figures that do not add up to the overall figure over the same length."""
    found = []
    for whole in written:
        ux, uy = math.cos(whole.angle), math.sin(whole.angle)

        def ends(w: Written, ux: float = ux, uy: float = uy) -> tuple[float, float]:
            a, b = sorted((w.a[0] * ux + w.a[1] * uy, w.b[0] * ux + w.b[1] * uy))
            return a, b

        low, high = ends(whole)
        slack = max(0.002 * (high - low), 0.05)
        row = sorted(
            (ends(w), w.figure)
            for w in written
            if w is not whole and abs(math.sin(w.angle - whole.angle)) < 0.01
        )
        at, total, count = low, 0, 0
        for (a, b), figure in row:
            if abs(a - at) <= slack and b <= high + slack and b - a < (high - low) - slack:
                at, total, count = b, total + figure, count + 1
        if (
            count > 1
            and abs(at - high) <= slack
            and abs(total - whole.figure) > max(TICKS_PER_64TH, whole.figure // 1000)
        ):
            found.append(
                f"the {count} figures in a row add up to {show(total, system, unit=True)}, the "
                f"overall one says "
                f"{show(whole.figure, system, unit=True)}"
            )
    return found


def _least_rectangle(points: Sequence[Point]) -> tuple[Point, float, tuple[float, float]]:
    """A corner, the angle of the first side and both sides (longer first) of the least rectangle
    round the points.
    """
    rectangle = MultiPoint(points).minimum_rotated_rectangle
    corners = list(rectangle.exterior.coords)[:4]
    edges = [(corners[k], corners[(k + 1) % 4]) for k in range(2)]
    lengths = [math.dist(a, b) for a, b in edges]
    k = 0 if lengths[0] >= lengths[1] else 1
    a, b = edges[k]
    angle = math.atan2(b[1] - a[1], b[0] - a[0]) % math.pi
    return (corners[0][0], corners[0][1]), angle, (lengths[k], lengths[1 - k])


def _turned(
    points: Sequence[Point], box: Point, angle: float, sides: tuple[float, float]
) -> list[Point]:
    c, s = math.cos(-angle), math.sin(-angle)
    turned = [
        ((x - box[0]) * c - (y - box[1]) * s, (x - box[0]) * s + (y - box[1]) * c)
        for x, y in points
    ]
    x0, y0 = min(p[0] for p in turned), min(p[1] for p in turned)
    return [(x - x0, y - y0) for x, y in turned]


def _spanned(outlines: Sequence[Outline], written: Sequence[Written]) -> dict[str, dict[str, int]]:
    """The figure of a dimension that runs from end to end of an outline, for its long and short
    side.

    Of several outlines that it would fit, it belongs to the nearest; to all of them where they are
    as near.
    """
    frames = [(o, _least_rectangle(o.points)) for o in outlines]
    best: dict[tuple[str, str], tuple[float, int]] = {}
    for w in written:
        fits: list[tuple[float, str, str]] = []
        for o, (_, angle, sides) in frames:
            for name, turn, side in (("long", 0.0, sides[0]), ("short", math.pi / 2, sides[1])):
                off = _off(o, angle + turn, side, w)
                if off is not None:
                    fits.append((off, o.ref, name))
        nearest = min((off for off, _, _ in fits), default=0.0)
        for off, ref, name in fits:
            if off <= nearest + 1e-6 and off < best.get((ref, name), (math.inf, 0))[0]:
                best[ref, name] = off, w.figure
    found: dict[str, dict[str, int]] = {}
    for (ref, name), (_, figure) in best.items():
        found.setdefault(ref, {})[name] = figure
    return found


def _off(o: Outline, angle: float, side: float, w: Written) -> float | None:
    """How far beside the outline a dimension measures that runs from end to end of it in this
    direction; None for others.
    """
    if abs(math.sin(w.angle - angle)) > 0.01:
        return None
    ux, uy = math.cos(angle), math.sin(angle)
    along = [p[0] * ux + p[1] * uy for p in o.points]
    across = [-p[0] * uy + p[1] * ux for p in o.points]
    slack = max(0.002 * side, 0.05)
    ends = sorted((w.a[0] * ux + w.a[1] * uy, w.b[0] * ux + w.b[1] * uy))
    if abs(ends[0] - min(along)) > slack or abs(ends[1] - max(along)) > slack:
        return None
    beside = (-w.a[0] * uy + w.a[1] * ux, -w.b[0] * uy + w.b[1] * ux)
    off = max(0.0, *(max(min(across) - c, c - max(across)) for c in beside))
    return off if off <= side else None
