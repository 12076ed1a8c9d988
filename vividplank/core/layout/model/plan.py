"""A plan: how every board is cut into segments, strips, blanks and layers. Lengths in ticks."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from vividplank.core.board import Region


@dataclass(frozen=True)
class Item:
    """Instance n (from 1) of a part; stave k (from 1) when the part is a panel."""

    part: str
    n: int
    stave: int = 0

    @property
    def name(self) -> str:
        """As it is written on the wood: A1, or SE1·2 for a stave."""
        return f"{self.part}{self.n}" + (f"·{self.stave}" if self.stave else "")


@dataclass(frozen=True)
class Blank:
    """A stretch of a strip; `layers` holds, for each piece it is resawn into, its items end to
    end.
    """

    x0: int
    x1: int
    layers: tuple[tuple[Item, ...], ...]

    def items(self) -> Iterator[Item]:
        for layer in self.layers:
            yield from layer

    @property
    def name(self) -> str:
        """What lies in it: end to end with +, layers with /."""
        return " / ".join(" + ".join(i.name for i in layer) for layer in self.layers)


@dataclass(frozen=True)
class Strip:
    """Local heights y0..y1 above the segment's reference line."""

    y0: int
    y1: int
    blanks: tuple[Blank, ...]


@dataclass(frozen=True)
class Segment:
    """A crosscut piece of a board with its own straight reference line."""

    x0: int
    x1: int
    y0: int
    slope: float
    strips: tuple[Strip, ...]

    def blank_region(self, strip: Strip, blank: Blank) -> Region:
        at = self.y0 + self.slope * (blank.x0 - self.x0)
        return Region(blank.x0, blank.x1, at, self.slope, strip.y0, strip.y1)

    def milled_region(self) -> Region:
        """From the lowest to the highest strip edge over the whole segment."""
        low = min(strip.y0 for strip in self.strips)
        high = max(strip.y1 for strip in self.strips)
        return Region(self.x0, self.x1, self.y0, self.slope, low, high)

    def blanks(self) -> Iterator[tuple[Strip, Blank]]:
        for strip in self.strips:
            for blank in strip.blanks:
                yield strip, blank


@dataclass(frozen=True)
class BoardPlan:
    board: str
    segments: tuple[Segment, ...]


@dataclass(frozen=True)
class Unplaced:
    part: str
    n: int
    why: str


@dataclass(frozen=True)
class Closed:
    """A piece that went another way than this plan had it, once step `after` was done: it is scrap,
    or stock, a board under the mark `board`. Its `items` are made of other wood.
    """

    piece: str
    after: str
    then: Literal["scrap", "stock"]
    items: tuple[Item, ...]
    board: str = ""


@dataclass(frozen=True)
class Made:
    """One of a part, or of its panels, that was made before the list wanted it smaller: the sizes
    (length, width, thickness) it was made to, one after the other. Its work ends at the list's.
    """

    part: str
    n: int
    sizes: tuple[tuple[int, int, int], ...]


@dataclass(frozen=True)
class Plan:
    """`cost` and `lower_bound` in the money of the shop. What is `closed` counts for nothing."""

    boards: tuple[BoardPlan, ...]
    unplaced: tuple[Unplaced, ...] = ()
    cost: Decimal = Decimal(0)
    lower_bound: float = 0.0
    seconds: float = 0.0
    closed: tuple[Closed, ...] = ()
    made: tuple[Made, ...] = ()

    def items(self) -> Iterator[tuple[BoardPlan, Segment, Strip, Blank, Item]]:
        for board_plan in self.boards:
            for segment in board_plan.segments:
                for strip, blank in segment.blanks():
                    for item in blank.items():
                        yield board_plan, segment, strip, blank, item
