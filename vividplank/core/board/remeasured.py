"""A board that moved since it was last flat: its warp and crook as they are read now."""

from dataclasses import replace
from math import ceil, floor

import numpy as np

from vividplank.core.board.board import Board, Station, Warp

#: Places along a straight board at which a crook is told.
_ALONG = 9


def remeasured(board: Board, warp: Warp, crook: int = 0) -> Board:
    """The board with this warp, in ticks, and edges that stand this much off straight in the
    middle. A face is no longer dressed where it is warped, nor an edge where it is crooked; the
    thickness stays, a scanned surface, which is of before, goes, and a fault reaches across as far
    as a crook may have carried it.
    """
    faces = ("A", "B") if warp != Warp() else ()
    edges = ("datum-edge", "far-edge") if crook else ()
    if crook:
        low, high = min(0, crook), max(0, crook)
        faults = tuple(replace(d, y0=d.y0 + low, y1=d.y1 + high) for d in board.boxed)
        board = replace(board, stations=_crooked(board, crook), defects=faults)
    return replace(
        board,
        warp=warp,
        surface=None,
        dressed=tuple(side for side in board.dressed if side not in (*faces, *edges)),
    )


def _crooked(board: Board, crook: int) -> tuple[Station, ...]:
    """Both edges moved across by a parabola, `crook` high in the middle."""
    places = {s.x for s in board.stations}
    places |= {round(x) for x in np.linspace(0, board.length, _ALONG)}
    found = []
    for x in sorted(places):
        off = round(crook * 4 * x * (board.length - x) / board.length**2)
        low, high = board.edges(x)
        y0, y1 = ceil(low), floor(high)
        ys = np.linspace(y0, y1, board.readings)
        read = [round(board.thickness(x, float(y))) for y in ys]
        found.append(Station(x, y0 + off, y1 + off, read[0], read[-1], tuple(read[1:-1])))
    return tuple(found)
