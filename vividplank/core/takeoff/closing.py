"""Closed rings out of loose lines: those that meet exactly, then those whose ends nearly meet."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from vividplank.core.takeoff.found import Point

Points = tuple[Point, ...]

#: More lines than this are a picture, not parts.
_MOST_LINES = 4000
#: Ends are one point where they are nearer than this share of the drawing, and are brought together up to the other.
_GRID, _GAP = 1e-6, 1e-3
#: No gap is closed that is more than this share of the shorter line beside it.
_OF_LINE = 0.1


@dataclass(frozen=True)
class Ring:
    """`gap` is the widest that was closed to make it, 0 where its lines meet."""

    points: Points
    gap: float = 0.0


def loops(lines: Sequence[Points]) -> tuple[list[Ring], list[Points]]:
    """The areas that lines enclose (each as small as can be), and the lines that enclose nothing."""
    if len(lines) > _MOST_LINES:
        return [], list(lines)
    span = _width([p for line in lines for p in line])
    rings, left = _enclosed(lines, span)
    found = [Ring(r) for r in rings]
    if left:
        joined, gaps = _joined(left, span * _GAP)
        more, still = _enclosed(joined, span) if gaps else ([], left)
        found += [Ring(r, max((gap for p, gap in gaps.items() if _near(p, r, span)), default=0.0)) for r in more]
        left = still if more else left
    return found, left


def _enclosed(lines: Sequence[Points], span: float) -> tuple[list[Points], list[Points]]:
    from shapely import node, polygonize_full
    from shapely.geometry import LineString, MultiLineString

    grid = max(span * _GRID, 1e-9)
    snapped = [LineString([(round(x / grid) * grid, round(y / grid) * grid) for x, y in line]) for line in lines]
    areas, cuts, dangles, invalid = polygonize_full([node(MultiLineString([s for s in snapped if s.length > 0]))])
    rings = [tuple((float(x), float(y)) for x, y in a.exterior.coords[:-1]) for a in areas.geoms]
    rest = [tuple((float(x), float(y)) for x, y in g.coords) for c in (cuts, dangles, invalid) for g in c.geoms]
    return rings, rest


def _joined(lines: Sequence[Points], most: float) -> tuple[list[Points], dict[Point, float]]:
    """The lines with ends that nearly meet brought to one point, and how far each such point's ends were apart."""
    ends = [(line[0], k, 0) for k, line in enumerate(lines)] + [(line[-1], k, -1) for k, line in enumerate(lines)]
    lengths = [sum(math.dist(a, b) for a, b in pairwise(line)) for line in lines]
    moved: dict[tuple[int, int], Point] = {}
    gaps: dict[Point, float] = {}
    for at, k, side in ends:
        if (k, side) in moved:
            continue
        near = [
            (math.dist(at, other), j, end)
            for other, j, end in ends
            if (j, end) not in moved and (j, end) != (k, side)
            and 0 < math.dist(at, other) <= min(most, _OF_LINE * min(lengths[k], lengths[j]))
        ]
        if near:
            gap, j, end = min(near)
            moved[k, side] = moved[j, end] = at
            gaps[at] = max(gap, gaps.get(at, 0.0))
    found = []
    for k, line in enumerate(lines):
        points = list(line)
        for side in (0, -1):
            if (k, side) in moved:
                points[side] = moved[k, side]
        found.append(tuple(points))
    return found, gaps


def _near(point: Point, ring: Points, span: float) -> bool:
    return any(math.dist(point, p) <= 2 * span * _GRID for p in ring)


def _width(points: Sequence[Point]) -> float:
    return max((max(p[k] for p in points) - min(p[k] for p in points) for k in (0, 1)), default=0.0) if points else 0.0
