"""What flattening takes from each face: between the faces of the board and the planes of its flat slab."""

from dataclasses import dataclass

from vividplank.core.board.board import Board, Region
from vividplank.core.board.slab import Slab

_STEPS_ALONG = 32
_STEPS_ACROSS = 8


@dataclass(frozen=True)
class Depths:
    """In ticks. `below` and `above` are the most to take from face B and face A until all of it is flat."""

    below: float
    above: float
    hollow: float  # how far the middle of face B stands above its ends; negative when face A is the hollow one
    corners_below: tuple[float, float, float, float]  # at (x0,h0) (x1,h0) (x0,h1) (x1,h1)


def underside(board: Board, x: float, y: float) -> float:
    """Height zB of face B above the bench, in ticks."""
    y0, y1 = board.edges(x)
    u, v = x / board.length, (y - y0) / (y1 - y0)
    return board.warp.bow * 4 * u * (1 - u) + board.warp.cup * 4 * v * (1 - v) + board.warp.twist * u * v


def depths(board: Board, region: Region, slab: Slab) -> Depths:
    """How deep the cuts go that free the slab, on a grid of the region."""
    def gaps(x: float, h: float) -> tuple[float, float]:
        y = region.line(x) + h
        lower = slab.lower(x, y)
        below = underside(board, x, y)
        above = below + board.thickness(x, y) - lower - slab.thickness
        return lower - below, above

    xs = [region.x0 + (region.x1 - region.x0) * i / _STEPS_ALONG for i in range(_STEPS_ALONG + 1)]
    hs = [region.h0 + (region.h1 - region.h0) * j / _STEPS_ACROSS for j in range(_STEPS_ACROSS + 1)]
    found = [gaps(x, h) for x in xs for h in hs]
    middle = (region.h0 + region.h1) / 2

    def height(x: float, h: float) -> float:
        return underside(board, x, region.line(x) + h)

    centre = (region.x0 + region.x1) / 2
    along = height(centre, middle) - (height(region.x0, middle) + height(region.x1, middle)) / 2
    across = height(centre, middle) - (height(centre, region.h0) + height(centre, region.h1)) / 2
    corners = tuple(max(0.0, gaps(x, h)[0]) for h in (region.h0, region.h1) for x in (region.x0, region.x1))
    return Depths(
        max(0.0, max(b for b, _ in found)), max(0.0, max(a for _, a in found)), along + across,
        (corners[0], corners[1], corners[2], corners[3]),
    )
