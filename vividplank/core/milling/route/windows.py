"""Where each strip of a segment is really cut: one after the other from the true edge, each bounded
by cuts that can be made.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from vividplank.core.board import Board, Defect, Region
from vividplank.core.layout.model.plan import Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH

#: What may fly apart at a cutter head, or spoil it.
DANGEROUS = ("loose-knot", "check", "split", "shake", "metal", "rot")
#: A natural edge may lie so far under the line that is jointed into it.
REACH = TICKS_PER_INCH // 4


@dataclass(frozen=True)
class Window:
    """A strip between two heights over the segment's line. It is first ripped as wide as `first`
    where that is more than its width, so that the next strip begins where it should; what lies
    between is waste, ripped off after.
    """

    strip: Strip
    low: int
    high: int
    first: int

    @property
    def width(self) -> int:
        return self.high - self.low


def windows(
    board: Board, segment: Segment, edge: int, widths: Sequence[int], kerf: int
) -> list[Window]:
    """Windows for the strips in the order they lie, from a true edge at height `edge` on.

    A strip begins where the one before it was sawn off. Where a fault, or wood that is not there,
    would come into it so, the one before is left wider and the strip begins at its own line; the
    waste then comes off the wider one, whose true edge is at the fence.
    """
    strips = sorted(segment.strips, key=lambda s: s.y0)
    found: list[Window] = []
    at = edge
    for strip, width in zip(strips, widths, strict=True):
        start = at
        if found and not _free(board, segment, strip, at, at + width):
            start = strip.y0
            before = found[-1]
            found[-1] = Window(before.strip, before.low, before.high, start - kerf - before.low)
        found.append(Window(strip, start, start + width, width))
        at = start + width + kerf
    return found


def _free(board: Board, segment: Segment, strip: Strip, low: int, high: int) -> bool:
    """Whether nothing is in the strip there that is not in it where it was laid out."""
    for blank in strip.blanks:
        planned = segment.blank_region(strip, blank)
        here = Region(planned.x0, planned.x1, planned.y0, planned.slope, low, high)
        if not board.within(here, 1.0):
            return False
        if any(d.overlaps(here) and not d.overlaps(planned) for d in board.boxed):
            return False
    return True


def dangers(board: Board, region: Region) -> list[Defect]:
    """Faults in a region that must not meet a cutter head."""
    return [d for d in board.boxed if d.kind in DANGEROUS and d.overlaps(region)]
