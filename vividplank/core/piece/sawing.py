"""What a saw leaves beside the pieces that are wanted: kerfs and offcuts, which are pieces too."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal, Protocol

from vividplank.core.piece import operations as op
from vividplank.core.piece.piece import Edge, Piece

#: Along the grain at a crosscut, across it at a rip, through the thickness at a resaw.
Axis = Literal["crosscut", "rip", "resaw"]
Span = tuple[float | None, float | None]
_HAIR = 0.5


class Place(Protocol):
    """Where a wanted piece lies in the one that is sawn, in the axes of that one: between x0 and
    x1, between the lines y0 + slope·x + h0 and + h1, between z0 and z1 over its reference face.
    """

    @property
    def x0(self) -> int | None: ...
    @property
    def x1(self) -> int | None: ...
    @property
    def y0(self) -> int: ...
    @property
    def slope(self) -> float: ...
    @property
    def h0(self) -> int | None: ...
    @property
    def h1(self) -> int | None: ...
    @property
    def z0(self) -> int | None: ...
    @property
    def z1(self) -> int | None: ...


@dataclass(frozen=True)
class Sawn:
    """With the wanted pieces, all of what was sawn: volumes add up to it."""

    axis: Axis
    kerfs: tuple[Piece, ...]
    offcuts: tuple[Piece, ...]


def axis_of(places: Sequence[Place]) -> Axis | None:
    """Which way it is sawn; None where the pieces are as large as the one taken."""
    if any(p.x0 is not None or p.x1 is not None for p in places):
        return "crosscut"
    if any(p.h0 is not None or p.h1 is not None for p in places):
        return "rip"
    if any(p.z0 is not None or p.z1 is not None for p in places):
        return "resaw"
    return None


def beside(
    piece: Piece, places: Sequence[Place], kerf: float, edge: Edge = "straight"
) -> Sawn | None:
    """The kerfs and offcuts of one way of sawing; a saw takes `kerf` beside every cut. `edge` is
    how it leaves an edge.
    """
    axis = axis_of(places)
    if axis is None:
        return None
    low: float | None = None if axis == "rip" else 0.0
    high = {"crosscut": piece.x1 - piece.x0, "rip": None, "resaw": float(piece.thick)}[axis]
    ends = {"crosscut": ("x0", "x1"), "rip": ("h0", "h1"), "resaw": ("z0", "z1")}[axis]
    spans: list[Span] = [(getattr(p, ends[0]), getattr(p, ends[1])) for p in places]

    def out_of(a: float | None, b: float | None) -> Piece:
        if axis == "rip":
            at = places[0]
            lines = [None if h is None else op.along(piece, at.y0 + h, at.slope) for h in (a, b)]
            return op.rip(piece, "", lines[0], lines[1], edge)
        cut = op.crosscut if axis == "crosscut" else op.resaw
        return cut(piece, "", a or 0.0, float(high or 0.0) if b is None else b)

    kerfs, offcuts = _gaps(spans, kerf, low, high)
    kerfs = kerfs if kerf else []
    return Sawn(axis, tuple(out_of(*k) for k in kerfs), tuple(out_of(*o) for o in offcuts))


def _gaps(
    spans: Sequence[Span], kerf: float, low: float | None, high: float | None
) -> tuple[list[Span], list[Span]]:
    """Kerfs and what is left between and beside the spans that are wanted; None is its own side."""
    ordered = sorted(spans, key=lambda s: float("-inf") if s[0] is None else s[0])
    kerfs: list[Span] = []
    offcuts: list[Span] = []
    start, end = ordered[0][0], ordered[-1][1]
    if start is not None and (low is None or start - low > _HAIR):
        cut = start - kerf if low is None else max(low, start - kerf)
        kerfs.append((cut, start))
        if low is None or cut > low:
            offcuts.append((low, cut))
    for (_, a), (b, _) in pairwise(ordered):
        if a is None or b is None or b - a <= 0:
            continue
        one = min(kerf, b - a)
        two = min(kerf, b - a - one)
        kerfs.append((a, a + one))
        if two > 0:
            kerfs.append((b - two, b))
        if b - two > a + one:
            offcuts.append((a + one, b - two))
    if end is not None and (high is None or high - end > _HAIR):
        cut = end + kerf if high is None else min(high, end + kerf)
        kerfs.append((end, cut))
        if high is None or cut < high:
            offcuts.append((cut, high))
    return kerfs, offcuts
