"""The boards a supplier has, described as a population from which boards can be drawn.

Sizes are triangular, warp is normal and grows with length (bow with its square, for a board that
bends evenly), faults come as a Poisson process over the face. The figures of the grades are from
the NHLA rules (least sizes, clear share of the face) and common descriptions of them.
"""

import math
from dataclasses import dataclass
from decimal import Decimal
from random import Random
from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.board import Board, Defect, Station, Warp
from vividplank.core.board.board import Side
from vividplank.core.fields import Name, NotNegativeTicks, PositiveTicks, Ticks
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.timber import QUARTERS
from vividplank.core.timber.rest import Moisture

Grade = Literal["FAS", "Selects", "No. 1 Common", "No. 2A Common", "ungraded"]
#: How boards usually lie: what a supplier is asked of its wood.
Straightness = Literal["straight", "usual", "wild"]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
_INCH = TICKS_PER_INCH
#: A tape in the aisle is read to 1/8 in.
_READ = _INCH // 8
_FOOT = 12 * TICKS_PER_INCH
#: Standard deviations of bow and twist at 8 ft, and of cup at 8 in, in inches.
_WARP: dict[Straightness, tuple[float, float, float]] = {
    "straight": (0.06, 0.04, 0.02),
    "usual": (0.15, 0.10, 0.05),
    "wild": (0.35, 0.25, 0.10),
}
#: Knots for ten square feet of one face, and the share of boards with sapwood, wane and pith.
_FAULTS: dict[Grade, tuple[float, float, float, float]] = {
    "FAS": (0.4, 0.20, 0.05, 0.0),
    "Selects": (0.7, 0.30, 0.10, 0.0),
    "No. 1 Common": (2.2, 0.45, 0.15, 0.05),
    "No. 2A Common": (4.5, 0.55, 0.25, 0.10),
    "ungraded": (2.8, 0.55, 0.50, 0.15),
}


@dataclass(frozen=True)
class Range:
    """Least, most usual and most of a length in ticks: a triangular distribution."""

    least: PositiveTicks
    usual: PositiveTicks
    most: PositiveTicks

    def draw(self, rng: Random) -> int:
        if self.least >= self.most:
            return self.least
        return round(rng.triangular(self.least, self.most, min(self.most, self.usual)))

    @property
    def mean(self) -> float:
        return (self.least + self.usual + self.most) / 3


@dataclass(frozen=True)
class Population:
    """Boards of one wood, quarter and grade as a supplier has them.

    `length_step` is what lengths are cut to (0: any), `dressed` which faces and edges the supplier
    has planed, `thickness` how thick the boards then are in the middle; `end_checks` is the chance
    that an end is checked, `hidden` that a board has a fault that shows only once it is skimmed.
    """

    species: Name
    quarter: Name
    grade: Grade
    length: Range
    width: Range
    thickness: PositiveTicks
    length_step: NotNegativeTicks = 0
    taper: NotNegativeTicks = TICKS_PER_INCH // 2
    straightness: Straightness = "usual"
    dressed: Annotated[tuple[Side, ...], Field(max_length=4)] = ()
    end_checks: Share = 0.35
    hidden: Share = 0.1
    moisture: Annotated[float, Field(ge=4, le=40, allow_inf_nan=False)] = 9.0

    @property
    def mean_board_feet(self) -> float:
        """What a board holds on the average, at rough thickness."""
        rough = next((q.rough for q in QUARTERS if q.name == self.quarter), self.thickness)
        width = self.width.mean - self.taper / 4
        return self.length.mean * width * max(rough, _INCH) / (144 * _INCH**3)


def draw(population: Population, rng: Random, mark: str) -> Board:
    """A board of this population; its price is left open."""
    p = population
    step = p.length_step or _READ
    length = max(p.length.least, p.length.draw(rng) // step * step)
    width = max(p.width.least, p.width.draw(rng) // _READ * _READ)
    narrower = min(width // 3, rng.randint(0, p.taper)) // _READ * _READ if p.taper else 0
    skimmed = {"A", "B"} <= set(p.dressed)
    uneven = 0 if skimmed else _INCH // 32
    thick = p.thickness + (0 if skimmed else round(rng.gauss(0, _INCH / 48)))

    def edge() -> int:
        return max(_INCH // 8, thick - (rng.randint(0, uneven) if uneven else 0))

    stations = (
        Station(0, 0, width, edge(), edge()),
        Station(length, 0, width - narrower, edge(), edge()),
    )
    bow, twist, cup = _WARP[p.straightness]
    share = length / (8 * _FOOT)
    warp = Warp(
        _nearest(rng.gauss(0, bow) * share**2),
        _nearest(rng.gauss(0, cup) * width / (8 * _INCH)),
        _nearest(rng.gauss(0, twist) * share),
    )
    return Board(
        mark,
        p.species,
        length,
        stations,
        warp,
        tuple(_faults(p, rng, length, width - narrower)),
        Decimal(0),
        p.quarter,
        dressed=p.dressed,
        grade="" if p.grade == "ungraded" else p.grade,
        moisture=(Moisture(round(max(4.0, rng.gauss(p.moisture, 1.0)), 1), 0),),
    )


def hidden_fault(population: Population, rng: Random, board: Board) -> Defect | None:
    """A knot or pocket that shows only once the board is skimmed, where this one has any."""
    if rng.random() >= population.hidden:
        return None
    size = rng.randint(_INCH // 2, 2 * _INCH)
    width = min(s.y1 - s.y0 for s in board.stations)
    x = rng.randint(0, max(1, board.length - size))
    y = rng.randint(0, max(1, width - size))
    return Defect("loose-knot", "both", x, min(board.length, x + size), y, min(width, y + size))


def _faults(p: Population, rng: Random, length: int, width: int) -> list[Defect]:
    knots, sapwood, wane, pith = _FAULTS[p.grade]
    found = []
    for _ in range(_poisson(rng, knots * length * width / (1440 * _INCH**2))):
        size = rng.randint(_INCH // 2, 5 * _INCH // 2)
        kind = rng.choice(("tight-knot", "tight-knot", "pin-knot", "loose-knot"))
        size = min(size, _INCH // 2 if kind == "pin-knot" else size, width)
        x, y = rng.randint(0, length - size), rng.randint(0, width - size)
        face = "both" if kind == "loose-knot" else rng.choice(("A", "B", "both"))
        found.append(Defect(kind, face, x, x + size, y, y + size))  # type: ignore[arg-type]
    for end in (0, 1):
        if rng.random() < p.end_checks:
            long = min(length // 4, rng.randint(_INCH, 10 * _INCH))
            at = rng.randint(width // 5, 4 * width // 5)
            x0, x1 = (0, long) if end == 0 else (length - long, length)
            found.append(Defect("check", "both", x0, x1, at, min(width, at + _INCH // 8)))
    for kind, chance, widest in (("sapwood", sapwood, width // 3), ("wane", wane, width // 6)):
        if rng.random() < chance:
            long = rng.randint(length // 4, length)
            x0 = rng.choice((0, length - long))
            deep = rng.randint(_INCH // 4, max(_INCH // 2, widest))
            y0, y1 = (0, deep) if rng.random() < 0.5 else (width - deep, width)
            face = "A" if kind == "sapwood" else "both"
            found.append(Defect(kind, face, x0, x0 + long, max(0, y0), y1))  # type: ignore[arg-type]
    if rng.random() < pith:
        at = rng.randint(width // 3, 2 * width // 3)
        long = rng.randint(length // 3, length)
        found.append(Defect("pith", "both", 0, long, at, min(width, at + _INCH)))
    return found


def _poisson(rng: Random, mean: float) -> int:
    """Knuth's method; the means here are a few knots."""
    least, product, count = math.exp(-mean), rng.random(), 0
    while product > least:
        product *= rng.random()
        count += 1
    return count


def _nearest(inches: float) -> Ticks:
    """To 1/32 in, as gaps are read with a rule."""
    return round(inches * 32) * _INCH // 32
