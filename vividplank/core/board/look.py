"""What a board will yield in thickness, left whole or cut in two or three, and what that advises."""

from dataclasses import dataclass
from typing import Literal

from vividplank.core.board.board import Board, Region
from vividplank.core.board.depth import depths
from vividplank.core.board.slab import Slab, flat_slab
from vividplank.core.measure import TICKS_PER_64TH, Unit, show

CutName = Literal["whole", "halved", "in thirds"]


@dataclass(frozen=True)
class Piece:
    """A length of the board: its flat thickness, and what flattening takes from face B and face A at most."""

    x0: int
    x1: int
    flat: float
    takes_below: float
    takes_above: float
    slab: Slab


@dataclass(frozen=True)
class Cut:
    name: CutName
    pieces: tuple[Piece, ...]

    @property
    def flat(self) -> float:
        """The thickness all its pieces have."""
        return min(p.flat for p in self.pieces)


def cuts(board: Board, kerf: int) -> tuple[Cut, ...]:
    """The board whole, halved and in thirds, at the full width that is there."""
    found = []
    for name, count in (("whole", 1), ("halved", 2), ("in thirds", 3)):
        share = (board.length - (count - 1) * kerf) // count
        pieces = tuple(_piece(board, i * (share + kerf), i * (share + kerf) + share) for i in range(count))
        found.append(Cut(name, pieces))  # type: ignore[arg-type]
    return tuple(found)


def advice(board: Board, found: tuple[Cut, ...], unit: Unit) -> str:
    """Crosscut first, rip first or neither, in one sentence with its figures."""
    whole, halved = found[0].flat, found[1].flat
    low, high = _straight_width(board, 0, board.length)
    ripped = min(
        flat_slab(board, Region(0, board.length, y0, 0.0, 0, (high - low) // 2)).thickness
        for y0 in (low, low + (high - low) // 2)
    )
    gain_cross, gain_rip = halved - whole, ripped - whole
    smallest = 2 * TICKS_PER_64TH
    if max(gain_cross, gain_rip) < smallest:
        return (f"Lies nearly flat: {_about(whole, unit)} whole, and cutting it first gains less than "
                f"{_about(smallest, unit)}.")
    if gain_cross >= gain_rip:
        return (f"Crosscut first: halved, its pieces give {_about(halved, unit)} instead of {_about(whole, unit)}. "
                "Its bow and twist are what cost.")
    return (f"Rip first: at half its width it gives {_about(ripped, unit)} instead of {_about(whole, unit)}; halved in "
            f"length only {_about(halved, unit)}. Its cup is what costs.")


def _piece(board: Board, x0: int, x1: int) -> Piece:
    low, high = _straight_width(board, x0, x1)
    region = Region(x0, x1, low, 0.0, 0, high - low)
    slab = flat_slab(board, region)
    off = depths(board, region, slab)
    return Piece(x0, x1, slab.thickness, off.below, off.above, slab)


def _straight_width(board: Board, x0: int, x1: int) -> tuple[int, int]:
    """The edges of the widest straight strip along x0..x1; its middle half where a crook leaves none."""
    places = [x0, *(s.x for s in board.stations if x0 < s.x < x1), x1]
    edges = [board.edges(x) for x in places]
    low, high = max(e[0] for e in edges), min(e[1] for e in edges)
    if high - low < board.widest / 4:
        low, high = edges[0][0], edges[0][1]
    return int(-(-low // 1)), int(high)


def _about(ticks: float, unit: Unit) -> str:
    step = TICKS_PER_64TH if unit == "in" else 32
    return show(int((ticks + 0.01) // step) * step, unit, unit=True)
