"""What flattening takes from each face: between the faces of the board and the planes of its flat
slab.
"""

from dataclasses import dataclass

from vividplank.core.board.board import Board
from vividplank.core.board.defect import Region
from vividplank.core.board.flat.slab import Slab

_STEPS_ALONG = 32
_STEPS_ACROSS = 8


@dataclass(frozen=True)
class Depths:
    """In ticks. `below` and `above` are the most to take from face B and face A until all of it is
    flat.
    """

    below: float
    above: float
    # how far the middle of face B stands above its ends; negative when face A is the hollow one
    hollow: float
    corners_below: tuple[float, float, float, float]  # at (x0,h0) (x1,h0) (x0,h1) (x1,h1)


def depths(board: Board, region: Region, slab: Slab) -> Depths:
    """How deep the cuts go that free the slab, on a grid of the region."""

    def gaps(x: float, h: float) -> tuple[float, float]:
        y = region.line(x) + h
        lower = slab.lower(x, y)
        below = board.underside(x, y)
        above = below + board.thickness(x, y) - lower - slab.thickness
        return lower - below, above

    xs = [region.x0 + (region.x1 - region.x0) * i / _STEPS_ALONG for i in range(_STEPS_ALONG + 1)]
    hs = [region.h0 + (region.h1 - region.h0) * j / _STEPS_ACROSS for j in range(_STEPS_ACROSS + 1)]
    found = [gaps(x, h) for x in xs for h in hs]
    middle = (region.h0 + region.h1) / 2

    def height(x: float, h: float) -> float:
        return board.underside(x, region.line(x) + h)

    centre = (region.x0 + region.x1) / 2
    along = height(centre, middle) - (height(region.x0, middle) + height(region.x1, middle)) / 2
    across = height(centre, middle) - (height(centre, region.h0) + height(centre, region.h1)) / 2
    corners = tuple(
        max(0.0, gaps(x, h)[0]) for h in (region.h0, region.h1) for x in (region.x0, region.x1)
    )
    return Depths(
        max(0.0, max(b for b, _ in found)),
        max(0.0, max(a for _, a in found)),
        along + across,
        (corners[0], corners[1], corners[2], corners[3]),
    )


Map = list[list[int]]


def depth_maps(
    board: Board, region: Region, slab: Slab, along: int = 40, across: int = 8
) -> tuple[Map, Map]:
    """What comes off face B and off face A at along × across places of the region, row by row along
    it, in ticks.
    """
    below: Map = []
    above: Map = []
    for i in range(along):
        x = region.x0 + (region.x1 - region.x0) * (i + 0.5) / along
        rows: tuple[list[int], list[int]] = ([], [])
        for j in range(across):
            y = region.line(x) + region.h0 + (region.h1 - region.h0) * (j + 0.5) / across
            low = board.underside(x, y)
            rows[0].append(max(0, round(slab.lower(x, y) - low)))
            rows[1].append(
                max(0, round(low + board.thickness(x, y) - slab.lower(x, y) - slab.thickness))
            )
        below.append(rows[0])
        above.append(rows[1])
    return below, above
