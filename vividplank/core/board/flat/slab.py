"""The flat board inside the warped one: the thickest slab between two parallel planes in a region.

h(R) is the largest h for which a plane p = a·x + b·y + c has zB ≤ p and p + h ≤ zA over all of R.
For given slopes (a, b) the best is h(a, b) = min over R of (zA − ax − by) − max over R of
(zB − ax − by), which is concave in (a, b). Every pair of a lowest point of the upper face and a
highest point of the lower one gives a linear upper bound on h, so the maximum is a linear program
in (h, a, b) whose constraints are found as they are needed: a dual simplex with three rows.
The two extremes are found across the board in closed form and along it by sampling and golden
section, so what is returned is the thickness of a slab that really fits.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import cache
from typing import Any

from vividplank.core.board.board import Board
from vividplank.core.board.defect import Region
from vividplank.core.measure import TICKS_PER_INCH


@dataclass(frozen=True)
class Slab:
    """The thickest flat slab in a region, in ticks; its lower plane is z = a·x + b·y + c."""

    thickness: float
    a: float
    b: float
    c: float

    def lower(self, x: float, y: float) -> float:
        return self.a * x + self.b * y + self.c


def flat_slab(board: Board, region: Region) -> Slab:
    """h(R) and its plane. Never thicker than the truth by more than the refinement, 1e-6 in; exact
    over a scanned surface.
    """
    place = (
        region.x0 / TICKS_PER_INCH,
        region.x1 / TICKS_PER_INCH,
        region.y0 / TICKS_PER_INCH,
        region.slope,
        region.h0 / TICKS_PER_INCH,
        region.h1 / TICKS_PER_INCH,
    )
    warped, scanned = _kernels()
    found = (
        scanned(*board.surface.tables, *place)
        if board.surface
        else warped(board.station_table, board.warp_row, *place)
    )
    return Slab(found[0] * TICKS_PER_INCH, found[1], found[2], found[3] * TICKS_PER_INCH)


@cache
def _kernels() -> tuple[Callable[..., Any], Callable[..., Any]]:
    """The compiled part, loaded when a slab is first asked for: the compiler takes a second to
    import.
    """
    from vividplank.core.board.flat.slab_kernel import flat_slab_inches
    from vividplank.core.board.flat.surface_kernel import surface_slab_inches

    return flat_slab_inches, surface_slab_inches
