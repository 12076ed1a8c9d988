"""A board on the bench: face B down, face A up, x along it, y across, z up. Lengths in ticks."""

from bisect import bisect_right
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import cached_property
from math import ceil, floor
from typing import Annotated, Literal

import numpy as np
import numpy.typing as npt
from pydantic import Field

from vividplank.core.board.defect import Defect, Region
from vividplank.core.board.grain import Grain
from vividplank.core.board.photo import Photo
from vividplank.core.board.surface import Surface
from vividplank.core.fields import LOCAL, Money, Name, Note, Ticks
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.timber.quarters import QUARTERS, Quarter, quarter_of
from vividplank.core.timber.rest import Moisture

#: The faces and edges of a board; the datum edge is the one at small y.
Side = Literal["A", "B", "datum-edge", "far-edge"]


@dataclass(frozen=True)
class Station:
    """At `x` the two edges `y0 < y1`, the thickness at each, and readings evenly spread between
    them.
    """

    x: Ticks
    y0: Ticks
    y1: Ticks
    t0: Ticks
    t1: Ticks
    between: Annotated[tuple[Ticks, ...], Field(max_length=20)] = ()

    @property
    def readings(self) -> tuple[int, ...]:
        """Thickness from the datum edge to the far edge."""
        return (self.t0, *self.between, self.t1)

    def spread(self, count: int) -> list[float]:
        """`count` thicknesses evenly across, straight between the readings."""
        places = np.linspace(0, 1, len(self.readings))
        return [float(t) for t in np.interp(np.linspace(0, 1, count), places, self.readings)]


@dataclass(frozen=True)
class Warp:
    """How far the underside stands off the bench: zB = bow·4u(1−u) + cup·4v(1−v) + twist·u·v."""

    bow: Ticks = 0
    cup: Ticks = 0
    twist: Ticks = 0


@dataclass(frozen=True)
class Board:
    """One rough board. `price` in the money of the shop, 0 when it is already owned.

    Where a `surface` was scanned it says how thick and how warped the board is; the stations then
    only give its outline. `dressed` are the faces and edges the yard has planed, `grade` the one it
    was sold as, `supplier` the name of who sold it, `searched` whether somebody has looked for
    metal, `came_from` the board it was cut out of.
    """

    id: Name
    species: Name
    length: Ticks
    stations: Annotated[tuple[Station, ...], Field(min_length=2, max_length=200)]
    warp: Warp = Warp()
    defects: Annotated[tuple[Defect, ...], Field(max_length=500)] = ()
    price: Money = Decimal(0)
    quarter: Annotated[str, Field(max_length=10)] = ""
    note: Note = ""
    moisture: Annotated[tuple[Moisture, ...], Field(max_length=400)] = ()
    surface: Surface | None = None
    grain: Grain = Grain()
    dressed: Annotated[tuple[Side, ...], Field(max_length=4)] = ()
    grade: Annotated[str, Field(max_length=40)] = ""
    searched: bool = False
    supplier: Annotated[str, Field(max_length=200)] = ""
    photos: Annotated[tuple[Photo, ...], LOCAL, Field(max_length=2)] = ()
    came_from: Annotated[Name, LOCAL] = ""

    def comes_from(self, mark: str) -> bool:
        """Whether it is the board of this mark or was cut out of it; so is every board where the
        mark is empty.
        """
        return mark in ("", self.id, self.came_from)

    def edges(self, x: float) -> tuple[float, float]:
        """The two edges at x, linear between stations."""
        left, right, share = self._between(x)
        return (
            left.y0 + share * (right.y0 - left.y0),
            left.y1 + share * (right.y1 - left.y1),
        )

    def thickness(self, x: float, y: float) -> float:
        """Thickness at a place, linear between stations and between the readings across."""
        if self.surface:
            low, high = self.surface.heights(x, y)
            return high - low
        left, right, share = self._between(x)
        y0, y1 = self.edges(x)
        if not (left.between or right.between):
            t0 = left.t0 + share * (right.t0 - left.t0)
            t1 = left.t1 + share * (right.t1 - left.t1)
            return t0 + (t1 - t0) * (y - y0) / (y1 - y0)
        gaps = self.readings - 1
        at = (y - y0) / (y1 - y0) * gaps
        k = min(max(int(at), 0), gaps - 1)
        one, two = (
            [
                a + share * (b - a)
                for a, b in zip(left.spread(gaps + 1), right.spread(gaps + 1), strict=True)
            ]
        )[k : k + 2]
        return one + (at - k) * (two - one)

    def underside(self, x: float, y: float) -> float:
        """Height zB of face B above the bench."""
        if self.surface:
            return self.surface.heights(x, y)[0]
        y0, y1 = self.edges(x)
        u, v = x / self.length, (y - y0) / (y1 - y0)
        return (
            self.warp.bow * 4 * u * (1 - u)
            + self.warp.cup * 4 * v * (1 - v)
            + self.warp.twist * u * v
        )

    @cached_property
    def readings(self) -> int:
        """Thickness readings across at a station, where one has more than its two edges."""
        return max(len(s.readings) for s in self.stations)

    @cached_property
    def thickest(self) -> int:
        if self.surface:
            return max(self._scanned)
        return max(max(s.readings) for s in self.stations)

    @cached_property
    def thinnest(self) -> int:
        if self.surface:
            return min(self._scanned)
        return min(min(s.readings) for s in self.stations)

    @cached_property
    def _scanned(self) -> list[int]:
        """Thicknesses at the places of the surface within the outline or next to it."""
        assert self.surface
        xs, ys = self.surface.xs, self.surface.ys
        found = []
        for i, x in enumerate(xs):
            low, high = self.edges(min(max(x, 0), self.length))
            below = max((j for j, y in enumerate(ys) if y <= low), default=0)
            above = min((j for j, y in enumerate(ys) if y >= high), default=len(ys) - 1)
            found += [
                self.surface.upper[i][j] - self.surface.lower[i][j] for j in range(below, above + 1)
            ]
        return found

    @cached_property
    def boxed(self) -> tuple[Defect, ...]:
        """Its defects as rectangles that cover them."""
        return tuple(box for d in self.defects for box in d.boxes)

    def to_marks(self, mark: int) -> "Board":
        """The same board with faults that begin and end along it at marks of the rule, each box a
        hair longer where need be.
        """
        longer = tuple(
            replace(d, x0=d.x0 // mark * mark, x1=-(-d.x1 // mark) * mark) for d in self.boxed
        )
        return self if longer == self.defects else replace(self, defects=longer)

    def reach(self, y0: float, slope: float, start: float, x0: int, x1: int) -> tuple[int, int]:
        """From where to where over the line y = y0 + slope·(x − start) the board reaches, all the
        way from x0 to x1.
        """
        xs = [x0, *(s.x for s in self.stations if x0 < s.x < x1), x1]
        lines = [y0 + slope * (x - start) for x in xs]
        edges = [self.edges(x) for x in xs]
        return (
            ceil(max(low - line for (low, _), line in zip(edges, lines, strict=True))),
            floor(min(high - line for (_, high), line in zip(edges, lines, strict=True))),
        )

    @cached_property
    def even(self) -> bool:
        """Whether width and thickness are the same everywhere: then warp costs a place what it
        costs any other of its size.
        """
        first = self.stations[0]
        return self.surface is None and all(
            not s.between and (s.y0, s.y1, s.t0, s.t1) == (first.y0, first.y1, first.t0, first.t1)
            for s in self.stations
        )

    @cached_property
    def lies_flat(self) -> bool:
        """Whether both faces are dressed and nobody found it bent or uneven: such a board is used
        as thick as it is.
        """
        return {"A", "B"} <= set(self.dressed) and self.even and self.warp == Warp()

    def thickened(self, by: int) -> "Board":
        """The board as thick as one with rough faces would have to be to give the same parts."""
        stations = tuple(replace(s, t0=s.t0 + by, t1=s.t1 + by) for s in self.stations)
        return replace(self, stations=stations)

    @property
    def nominal(self) -> Quarter:
        """The quarter it was sold at: as named, else judged from its thickness and the faces that
        are dressed.
        """
        named = next((q for q in QUARTERS if q.name == self.quarter), None)
        return named or quarter_of(self.thickest, len({"A", "B"} & set(self.dressed)))

    @cached_property
    def widest(self) -> int:
        return max(s.y1 - s.y0 for s in self.stations)

    @property
    def mean_width(self) -> float:
        pairs = zip(self.stations, self.stations[1:], strict=False)
        area = sum((b.x - a.x) * (a.y1 - a.y0 + b.y1 - b.y0) / 2 for a, b in pairs)
        return area / self.length

    def within(self, region: Region, tolerance: float = 0.0) -> bool:
        """Whether the region lies inside the outline; exact, since both are straight between
        stations.
        """
        places = [region.x0, region.x1]
        places += [s.x for s in self.stations if region.x0 < s.x < region.x1]
        for x in places:
            low, high = self.edges(x)
            line = region.line(x)
            if line + region.h0 < low - tolerance or line + region.h1 > high + tolerance:
                return False
        return True

    @cached_property
    def station_table(self) -> npt.NDArray[np.float64]:
        """Stations as rows x, y0, y1 and the thickness readings across in inches, for the compiled
        geometry.
        """
        rows = [(s.x, s.y0, s.y1, *s.spread(self.readings)) for s in self.stations]
        return np.array(rows, dtype=np.float64) / TICKS_PER_INCH

    @cached_property
    def warp_row(self) -> npt.NDArray[np.float64]:
        """Bow, cup, twist in inches."""
        return np.array([self.warp.bow, self.warp.cup, self.warp.twist]) / TICKS_PER_INCH

    @cached_property
    def _station_xs(self) -> list[int]:
        return [s.x for s in self.stations]

    def _between(self, x: float) -> tuple[Station, Station, float]:
        at = min(max(bisect_right(self._station_xs, x), 1), len(self.stations) - 1)
        left, right = self.stations[at - 1], self.stations[at]
        return left, right, (x - left.x) / (right.x - left.x)
