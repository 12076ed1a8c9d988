"""Volume of a board and of regions of it, in cubic ticks."""

from fractions import Fraction
from itertools import pairwise

import numpy as np

from vividplank.core.board.board import Board, Region

_GAUSS_X, _GAUSS_W = np.polynomial.legendre.leggauss(6)


def board_volume(board: Board) -> Fraction:
    """The rough volume, exactly.

    Between stations width and mean thickness are linear along the board, so their product is
    integrated by Simpson's rule without error.
    """
    total = Fraction(0)
    for a, b in pairwise(board.stations):
        ends = [((s.y1 - s.y0), Fraction(s.t0 + s.t1, 2)) for s in (a, b)]
        middle = Fraction(ends[0][0] + ends[1][0], 2) * (ends[0][1] + ends[1][1]) / 2
        total += Fraction(b.x - a.x, 6) * (ends[0][0] * ends[0][1] + 4 * middle + ends[1][0] * ends[1][1])
    return total


def region_volume(board: Board, region: Region) -> float:
    """Volume of wood between the faces over a region, kept to the outline; by Gauss quadrature along x.

    Across the board thickness is linear, so the middle of what lies inside the outline is exact.
    """
    if region.x1 <= region.x0 or region.h1 <= region.h0:
        return 0.0
    places = [region.x0, *(s.x for s in board.stations if region.x0 < s.x < region.x1), region.x1]
    total = 0.0
    for a, b in pairwise(places):
        half = (b - a) / 2
        for node, weight in zip(_GAUSS_X, _GAUSS_W, strict=True):
            x = a + half * (1 + float(node))
            low, high = board.edges(x)
            line = region.line(x)
            y0, y1 = max(low, line + region.h0), min(high, line + region.h1)
            if y1 > y0:
                total += half * float(weight) * (y1 - y0) * board.thickness(x, (y0 + y1) / 2)
    return total


def stretch_volume(board: Board, x0: int, x1: int) -> float:
    """Volume of the whole width from x0 to x1."""
    far = 10 * board.length + 10 * max(abs(s.y0) + abs(s.y1) for s in board.stations)
    return region_volume(board, Region(x0, x1, 0, 0.0, -far, far))
