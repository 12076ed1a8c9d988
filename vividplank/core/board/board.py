"""A board on the bench: face B down, face A up, x along it, y across, z up. Lengths in ticks."""

from bisect import bisect_right
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from typing import Literal

import numpy as np
import numpy.typing as npt

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.timber.rest import Moisture

DefectFace = Literal["A", "B", "both"]

#: Defects a part may carry where its quality allows; every other kind is unsound.
SOUND_KINDS = frozenset({"tight-knot", "pin-knot", "stain", "sapwood", "mineral"})


@dataclass(frozen=True)
class Station:
    """At `x` the two edges `y0 < y1` and the thickness at each."""

    x: int
    y0: int
    y1: int
    t0: int
    t1: int


@dataclass(frozen=True)
class Warp:
    """How far the underside stands off the bench: zB = bow·4u(1−u) + cup·4v(1−v) + twist·u·v."""

    bow: int = 0
    cup: int = 0
    twist: int = 0


@dataclass(frozen=True)
class Defect:
    """A fault in the rectangle x0..x1 by y0..y1 of one face or both."""

    kind: str
    face: DefectFace
    x0: int
    x1: int
    y0: int
    y1: int

    @property
    def sound(self) -> bool:
        return self.kind in SOUND_KINDS


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


@dataclass(frozen=True)
class Board:
    """One rough board. `price` in the money of the shop, 0 when it is already owned."""

    id: str
    species: str
    length: int
    stations: tuple[Station, ...]
    warp: Warp = Warp()
    defects: tuple[Defect, ...] = ()
    price: Decimal = Decimal(0)
    quarter: str = ""
    note: str = ""
    moisture: tuple[Moisture, ...] = ()

    def edges(self, x: float) -> tuple[float, float]:
        """The two edges at x, linear between stations."""
        left, right, share = self._between(x)
        return (
            left.y0 + share * (right.y0 - left.y0),
            left.y1 + share * (right.y1 - left.y1),
        )

    def thickness(self, x: float, y: float) -> float:
        """Thickness at a place, linear between stations and across."""
        left, right, share = self._between(x)
        y0, y1 = self.edges(x)
        t0 = left.t0 + share * (right.t0 - left.t0)
        t1 = left.t1 + share * (right.t1 - left.t1)
        return t0 + (t1 - t0) * (y - y0) / (y1 - y0)

    @cached_property
    def thickest(self) -> int:
        return max(max(s.t0, s.t1) for s in self.stations)

    @property
    def thinnest(self) -> int:
        return min(min(s.t0, s.t1) for s in self.stations)

    @cached_property
    def widest(self) -> int:
        return max(s.y1 - s.y0 for s in self.stations)

    @property
    def mean_width(self) -> float:
        pairs = zip(self.stations, self.stations[1:], strict=False)
        area = sum((b.x - a.x) * (a.y1 - a.y0 + b.y1 - b.y0) / 2 for a, b in pairs)
        return area / self.length

    def within(self, region: Region, tolerance: float = 0.0) -> bool:
        """Whether the region lies inside the outline; exact, since both are straight between stations."""
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
        """Stations as rows x, y0, y1, t0, t1 in inches, for the compiled geometry."""
        rows = [(s.x, s.y0, s.y1, s.t0, s.t1) for s in self.stations]
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
