"""Volume of a board and of regions of it, in cubic ticks."""

from fractions import Fraction
from itertools import pairwise

import numpy as np

from vividplank.core.board.board import Board, Station
from vividplank.core.board.defect import Region

_GAUSS_X, _GAUSS_W = np.polynomial.legendre.leggauss(6)


def board_volume(board: Board) -> Fraction:
    """The rough volume, exactly.

    Between stations width and mean thickness are linear along the board, so their product is
    integrated by Simpson's rule without error. Over a scanned surface it is found by quadrature, to
    a cubic tick.
    """
    if board.surface:
        return Fraction(round(stretch_volume(board, 0, board.length)))
    total = Fraction(0)
    for a, b in pairwise(board.stations):
        ends = [((s.y1 - s.y0), _mean(s)) for s in (a, b)]
        middle = Fraction(ends[0][0] + ends[1][0], 2) * (ends[0][1] + ends[1][1]) / 2
        total += Fraction(b.x - a.x, 6) * (
            ends[0][0] * ends[0][1] + 4 * middle + ends[1][0] * ends[1][1]
        )
    return total


def region_volume(board: Board, region: Region) -> float:
    """Volume of wood between the faces over a region, kept to the outline; by Gauss quadrature
    along x.

    Across the board thickness is linear between readings, so the middles of what lies inside the
    outline are exact.
    """
    if region.x1 <= region.x0 or region.h1 <= region.h0:
        return 0.0
    inner = {s.x for s in board.stations} | set(board.surface.xs if board.surface else ())
    places = [region.x0, *sorted(x for x in inner if region.x0 < x < region.x1), region.x1]
    total = 0.0
    for a, b in pairwise(places):
        half = (b - a) / 2
        for node, weight in zip(_GAUSS_X, _GAUSS_W, strict=True):
            x = a + half * (1 + float(node))
            low, high = board.edges(x)
            line = region.line(x)
            y0, y1 = max(low, line + region.h0), min(high, line + region.h1)
            if y1 > y0:
                total += half * float(weight) * _across(board, x, y0, y1, low, high)
    return total


def _mean(station: Station) -> Fraction:
    """Mean thickness across: the readings lie evenly, so the two at the edges count half."""
    readings = station.readings
    return Fraction(2 * sum(readings) - readings[0] - readings[-1], 2 * (len(readings) - 1))


def _across(board: Board, x: float, y0: float, y1: float, low: float, high: float) -> float:
    """Area of the board's section at x from y0 to y1."""
    if board.surface:
        marks = [float(y) for y in board.surface.ys]
    else:
        gaps = board.readings - 1
        marks = [low + (high - low) * k / gaps for k in range(1, gaps)]
    places = [y0, *(y for y in marks if y0 < y < y1), y1]
    return sum((b - a) * board.thickness(x, (a + b) / 2) for a, b in pairwise(places))


def stretch_volume(board: Board, x0: int, x1: int) -> float:
    """Volume of the whole width from x0 to x1."""
    far = 10 * board.length + 10 * max(abs(s.y0) + abs(s.y1) for s in board.stations)
    return region_volume(board, Region(x0, x1, 0, 0.0, -far, far))
