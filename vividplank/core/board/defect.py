"""A fault of a board: where it lies, on which face, what shape it has. Lengths in ticks."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from math import sqrt
from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.fields import Point, Ticks

DefectFace = Literal["A", "B", "both"]
DefectShape = Literal["rectangle", "ellipse", "outline"]
Severity = Literal["slight", "plain", "grave"]

#: Defects a part may carry where its quality allows; every other kind is unsound.
SOUND_KINDS = frozenset({"tight-knot", "pin-knot", "stain", "sapwood", "mineral"})
#: Ellipses and outlines are covered by so many rectangles along the board where a search asks for
#: rectangles.
_SLICES = 6


@dataclass(frozen=True)
class Region:
    """A strip of a board: x0..x1 along it, and h0..h1 above the line y = y0 + slope·(x − x0).

    Its ends are square to the board, its sides follow the line; with slope 0 it is a rectangle.
    """

    x0: int
    x1: int
    y0: float
    slope: float
    h0: int
    h1: int

    def line(self, x: float) -> float:
        """The height y of the reference line at x."""
        return self.y0 + self.slope * (x - self.x0)

    @property
    def corners(self) -> list[tuple[float, float]]:
        """In order round it."""
        ends = [(float(x), self.line(x)) for x in (self.x0, self.x1)]
        return [(x, y + self.h0) for x, y in ends] + [(x, y + self.h1) for x, y in reversed(ends)]


@dataclass(frozen=True)
class Defect:
    """A fault within x0..x1 by y0..y1 of one face, or of both where it goes through.

    A rectangle fills those bounds, an ellipse touches all four sides, an outline is the closed line
    through `points`.
    """

    kind: Annotated[str, Field(min_length=1, max_length=60)]
    face: DefectFace
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks
    shape: DefectShape = "rectangle"
    points: Annotated[tuple[Point, ...], Field(max_length=400)] = ()
    severity: Severity = "plain"

    @property
    def sound(self) -> bool:
        return self.kind in SOUND_KINDS

    def overlaps(self, region: Region) -> bool:
        """Whether it shares an area with the region, exactly; touching along a line is none."""
        if (
            self.x1 <= max(region.x0, self.x0)
            or region.x1 <= max(region.x0, self.x0)
            or self.y1 <= self.y0
        ):
            return False
        if self.shape == "ellipse":
            return self._ellipse_overlaps(region)
        if self.shape == "outline":
            from shapely import Polygon

            return bool(Polygon(self.points).intersection(Polygon(region.corners)).area > 1)
        left, right = max(self.x0, region.x0), min(self.x1, region.x1)
        lines = (region.line(left), region.line(right))
        return max(lines) + region.h1 > self.y0 and min(lines) + region.h0 < self.y1

    def _ellipse_overlaps(self, region: Region) -> bool:
        """With the ellipse made a unit circle, the region is a quadrangle: does it come nearer the
        middle than 1?
        """
        half_x, half_y = (self.x1 - self.x0) / 2, (self.y1 - self.y0) / 2
        at = [((x - self.x0) / half_x - 1, (y - self.y0) / half_y - 1) for x, y in region.corners]
        sides = list(zip(at, [*at[1:], at[0]], strict=True))
        if all((b[0] - a[0]) * -a[1] + (b[1] - a[1]) * a[0] > 0 for a, b in sides):
            return True  # the middle lies in it, to the left of every side
        return min(_distance(a, b) for a, b in sides) < 1 - 1e-12

    @cached_property
    def boxes(self) -> tuple["Defect", ...]:
        """Rectangles that together cover it: itself, or slices along the board."""
        if self.shape == "rectangle" or self.x1 - self.x0 < _SLICES:
            return (self._box(self.x0, self.x1, self.y0, self.y1),)
        marks = [self.x0 + (self.x1 - self.x0) * k // _SLICES for k in range(_SLICES + 1)]
        found = []
        for x0, x1 in pairwise(marks):
            ends = self._across(x0, x1)
            if ends:
                found.append(self._box(x0, x1, int(ends[0] // 1), int(-(-ends[1] // 1))))
        return tuple(found)

    def _box(self, x0: int, x1: int, y0: int, y1: int) -> "Defect":
        return replace(self, x0=x0, x1=x1, y0=y0, y1=y1, shape="rectangle", points=())

    def _across(self, x0: int, x1: int) -> tuple[float, float] | None:
        """How far it reaches across anywhere between x0 and x1."""
        if self.shape == "ellipse":
            middle, half = (self.x0 + self.x1) / 2, (self.x1 - self.x0) / 2
            nearest = min(max(middle, x0), x1)
            reach = (self.y1 - self.y0) / 2 * sqrt(max(0.0, 1 - ((nearest - middle) / half) ** 2))
            centre = (self.y0 + self.y1) / 2
            return centre - reach, centre + reach
        ys = [y for _, y in _cut(_cut(self.points, x0, 1), x1, -1)]
        return (min(ys), max(ys)) if ys else None


def _distance(a: tuple[float, float], b: tuple[float, float]) -> float:
    """From the origin to the stretch between two points."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    length = dx * dx + dy * dy
    t = min(max(-(a[0] * dx + a[1] * dy) / length, 0.0), 1.0) if length else 0.0
    return sqrt((a[0] + t * dx) ** 2 + (a[1] + t * dy) ** 2)


def _cut(points: Sequence[tuple[float, float]], x: float, side: int) -> list[tuple[float, float]]:
    """What of a closed outline lies to that side (1 beyond, −1 before) of x (Sutherland and
    Hodgman, 1974).
    """
    kept: list[tuple[float, float]] = []
    for (ax, ay), (bx, by) in zip(points, [*points[1:], *points[:1]], strict=True):
        inside, next_inside = side * (ax - x) >= 0, side * (bx - x) >= 0
        if inside:
            kept.append((ax, ay))
        if inside != next_inside:
            kept.append((x, ay + (by - ay) * (x - ax) / (bx - ax)))
    return kept
