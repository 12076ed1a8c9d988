"""What a board will yield in thickness, left whole or cut in two or three, and what that
advises.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vividplank.core.board.board import Board
from vividplank.core.board.defect import Region
from vividplank.core.board.flat.depth import depths
from vividplank.core.board.flat.slab import Slab, flat_slab
from vividplank.core.board.flat.thick import region, straight_width, unshimmed
from vividplank.core.measure import TICKS_PER_64TH, System, about

CutName = Literal["whole", "halved", "in thirds"]


@dataclass(frozen=True)
class Piece:
    """A length of the board: its flat thickness, and what flattening takes from face B and face A
    at most.

    `corners` is what to take off face B at each corner, datum edge first, near end first; `saved`
    what shimming it so gains over facing it as it lies on the bench.
    """

    x0: int
    x1: int
    flat: float
    takes_below: float
    takes_above: float
    slab: Slab
    corners: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    saved: float = 0.0


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
        pieces = tuple(
            _piece(board, i * (share + kerf), i * (share + kerf) + share) for i in range(count)
        )
        found.append(Cut(name, pieces))  # type: ignore[arg-type]
    return tuple(found)


def advice(board: Board, found: tuple[Cut, ...], system: System) -> str:
    """Crosscut first, rip first or neither, in one sentence with its figures."""

    def say(ticks: float) -> str:
        return about(ticks, system, unit=True, down=True)

    whole, halved = found[0].flat, found[1].flat
    low, high = straight_width(board, 0, board.length)
    ripped = min(
        flat_slab(board, Region(0, board.length, y0, 0.0, 0, (high - low) // 2)).thickness
        for y0 in (low, low + (high - low) // 2)
    )
    gain_cross, gain_rip = halved - whole, ripped - whole
    smallest = 2 * TICKS_PER_64TH
    if max(gain_cross, gain_rip) < smallest:
        return (
            f"Lies nearly flat: {say(whole)} whole, and cutting it first gains less than "
            f"{say(smallest)}."
        )
    if gain_cross >= gain_rip:
        return (
            f"Crosscut first: halved, its pieces give {say(halved)} instead of {say(whole)}. "
            "Its bow and twist are what cost."
        )
    return (
        f"Rip first: at half its width it gives {say(ripped)} instead of {say(whole)}; halved in "
        f"length only {say(halved)}. Its cup is what costs."
    )


def pieces_at(board: Board, places: Sequence[int], kerf: int) -> tuple[Piece, ...]:
    """The board crosscut at these places along it, the kerf taken beyond each mark."""
    marks = sorted({p for p in places if kerf < p < board.length - kerf})
    starts = [0, *(m + kerf for m in marks)]
    return tuple(
        _piece(board, a, b) for a, b in zip(starts, [*marks, board.length], strict=True) if b > a
    )


def _piece(board: Board, x0: int, x1: int) -> Piece:
    place = region(board, x0, x1)
    slab = flat_slab(board, place)
    off = depths(board, place, slab)
    return Piece(
        x0,
        x1,
        slab.thickness,
        off.below,
        off.above,
        slab,
        off.corners_below,
        slab.thickness - unshimmed(board, place),
    )
