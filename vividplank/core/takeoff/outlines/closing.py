"""Closed rings out of loose lines: those that meet exactly, then those whose ends nearly meet."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from vividplank.core.takeoff.model.found import Decision, Point, Settings, counted

Points = tuple[Point, ...]

#: More lines than this are a picture, not parts.
_MOST_LINES = 4000
#: Ends are one point where they are nearer than this share of the drawing, and are brought
#: together up to the other.
_GRID, _GAP = 1e-6, 1e-3
#: No gap is closed that is more than this share of the shorter line beside it.
_OF_LINE = 0.1


@dataclass(frozen=True)
class Ring:
    """`gap` is the widest that was closed to make it, 0 where its lines meet."""

    points: Points
    gap: float = 0.0


class Areas:
    """What loose lines enclose, drawing by drawing; the gaps that were closed and the areas that
    lie side by side are told.
    """

    def __init__(self, settings: Settings) -> None:
        self.settings = settings
        self.gaps: list[tuple[str, float]] = []  # refs that were closed, and how far they were open
        self._across: dict[str, tuple[int, list[str]]] = {}

    def take(self, lines: Sequence[Points], layer: str, add: Callable[[Ring], str]) -> list[Points]:
        """`add` makes an outline of a ring and names it; the lines that enclose nothing come
        back.
        """
        rings, rest = loops(lines)
        groups = {}
        for members in side_by_side(rings):
            whole = together([rings[k] for k in members])
            key = f"across:{layer}:" + "x".join(f"{_extent(whole.points, k):.0f}" for k in (0, 1))
            if key in self.settings.turned:
                for k in members[1:]:
                    rings[k] = Ring(())
                rings[members[0]] = whole
            groups.update(dict.fromkeys(members, key))
            self._across.setdefault(key, (len(members), []))
        for k, ring in enumerate(rings):
            if ring.points and (ref := add(ring)):
                if ring.gap:
                    self.gaps.append((ref, ring.gap))
                if k in groups:
                    self._across[groups[k]][1].append(ref)
        return rest

    def decisions(self, scale: float) -> list[Decision]:
        """`scale` makes mm of the file's unit."""
        found = []
        for key, (many, refs) in self._across.items():
            what = (
                f"Parts by themselves: {many} areas that lie side by side, with a line between them"
            )
            turned = key in self.settings.turned
            found.append(
                Decision(
                    key, "across", tuple(refs), what, "They are one part with lines across", turned
                )
            )
        if self.gaps:
            widest = max(gap for _, gap in self.gaps) * scale
            refs = [ref for ref, _ in self.gaps]
            told = f"Closed: {counted(len(refs), 'outline')}, open by {widest:.2g} mm at most"
            found.append(Decision("gaps", "gap", tuple(refs), told))
        return found


def loops(lines: Sequence[Points]) -> tuple[list[Ring], list[Points]]:
    """The areas that lines enclose (each as small as can be), and the lines that enclose
    nothing.
    """
    if len(lines) > _MOST_LINES:
        return [], list(lines)
    span = _width([p for line in lines for p in line])
    rings, left = _enclosed(lines, span)
    found = [Ring(r) for r in rings]
    if left:
        joined, gaps = _joined(left, span * _GAP)
        more, still = _enclosed(joined, span) if gaps else ([], left)
        found += [
            Ring(r, max((gap for p, gap in gaps.items() if _near(p, r, span)), default=0.0))
            for r in more
        ]
        left = still if more else left
    return found, left


def side_by_side(rings: Sequence[Ring]) -> list[list[int]]:
    """Which rings have a piece of line in common: boards drawn against each other, or one board
    with lines across.
    """
    from shapely import STRtree
    from shapely.geometry import Polygon

    shapes = [Polygon(r.points) for r in rings]
    index, group = STRtree(shapes), list(range(len(shapes)))
    for k, shape in enumerate(shapes):
        for j in index.query(shape):
            if j > k and shape.exterior.intersection(shapes[j].exterior).length > 0.01 * min(
                shape.length, shapes[j].length
            ):
                low, high = sorted((group[k], group[j]))
                group = [low if g == high else g for g in group]
    return [
        members
        for g in dict.fromkeys(group)
        if len(members := [k for k, own in enumerate(group) if own == g]) > 1
    ]


def together(rings: Sequence[Ring]) -> Ring:
    """The one outline round rings that lie side by side."""
    from shapely import unary_union
    from shapely.geometry import Polygon

    whole = unary_union([Polygon(r.points).buffer(0) for r in rings])
    outer = max(getattr(whole, "geoms", [whole]), key=lambda g: float(g.area))
    points = tuple((float(x), float(y)) for x, y in outer.simplify(0).exterior.coords[:-1])
    return Ring(points, max(r.gap for r in rings))


def _enclosed(lines: Sequence[Points], span: float) -> tuple[list[Points], list[Points]]:
    from shapely import node, polygonize_full
    from shapely.geometry import LineString, MultiLineString

    grid = max(span * _GRID, 1e-9)
    snapped = [
        LineString([(round(x / grid) * grid, round(y / grid) * grid) for x, y in line])
        for line in lines
    ]
    areas, cuts, dangles, invalid = polygonize_full(
        [node(MultiLineString([s for s in snapped if s.length > 0]))]
    )
    rings = [tuple((float(x), float(y)) for x, y in a.exterior.coords[:-1]) for a in areas.geoms]
    rest = [
        tuple((float(x), float(y)) for x, y in g.coords)
        for c in (cuts, dangles, invalid)
        for g in c.geoms
    ]
    return rings, rest


def _joined(lines: Sequence[Points], most: float) -> tuple[list[Points], dict[Point, float]]:
    """The lines with ends that nearly meet brought to one point, and how far each such point's ends
    were apart.
    """
    ends = [(line[0], k, 0) for k, line in enumerate(lines)] + [
        (line[-1], k, -1) for k, line in enumerate(lines)
    ]
    lengths = [sum(math.dist(a, b) for a, b in pairwise(line)) for line in lines]
    moved: dict[tuple[int, int], Point] = {}
    gaps: dict[Point, float] = {}
    for at, k, side in ends:
        if (k, side) in moved:
            continue
        near = [
            (math.dist(at, other), j, end)
            for other, j, end in ends
            if (j, end) not in moved
            and (j, end) != (k, side)
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
    return max(_extent(points, k) for k in (0, 1)) if points else 0.0


def _extent(points: Sequence[Point], k: int) -> float:
    return max(p[k] for p in points) - min(p[k] for p in points)
