"""A piece cut out of a board, as a board of its own: its outline, thickness, warp and faults."""

from collections.abc import Callable
from dataclasses import replace
from decimal import Decimal
from math import ceil

import numpy as np

from vividplank.core.board.board import Board, Station, Warp
from vividplank.core.board.defect import Defect
from vividplank.core.board.grain import Grain, Zone
from vividplank.core.board.surface import Surface

Line = Callable[[float], float]


def cut_out(
    board: Board, id: str, x0: int, x1: int, low: Line | None = None, high: Line | None = None
) -> Board | None:
    """What lies between x0 and x1, above the line `low` and below the line `high`; None where
    nothing is left.

    Warp that was given by figures is fitted anew; for a rectangle out of a rectangle that is exact.
    """
    places = [x0, *(s.x for s in board.stations if x0 < s.x < x1), x1]
    if x1 <= x0:
        return None
    outline = []
    for x in places:
        below, above = board.edges(x)
        below, above = max(below, low(x)) if low else below, min(above, high(x)) if high else above
        if above - below < 2:
            return None
        outline.append((x, below, above))
    down = ceil(min(below for _, below, _ in outline))
    stations = tuple(_station(board, x, below, above, x0, down) for x, below, above in outline)
    return replace(
        board,
        id=id,
        length=x1 - x0,
        stations=stations,
        price=Decimal(0),
        defects=_faults(board, x0, x1, down, stations),
        warp=_warp(board, outline),
        surface=_crop(board, x0, x1, down, stations),
        photos=(),
        moisture=tuple(replace(m, x=None, y=None) for m in board.moisture[-1:]),
        grain=_grain(board.grain, x0, x1, down),
    )


def _station(board: Board, x: float, below: float, above: float, x0: int, down: int) -> Station:
    count = board.readings
    across = [
        round(board.thickness(x, below + (above - below) * k / (count - 1))) for k in range(count)
    ]
    across = [max(1, t) for t in across]
    y0, y1 = ceil(below) - down, int(above) - down
    return Station(round(x) - x0, y0, max(y1, y0 + 1), across[0], across[-1], tuple(across[1:-1]))


def _warp(board: Board, outline: list[tuple[int, float, float]]) -> Warp:
    if board.surface or board.warp == Warp():
        return Warp()
    x0, x1 = outline[0][0], outline[-1][0]
    rows, heights = [], []
    for x in np.linspace(x0, x1, 9):
        below, above = (
            float(np.interp(x, [o[0] for o in outline], [o[k] for o in outline])) for k in (1, 2)
        )
        for v in np.linspace(0, 1, 5):
            u = (x - x0) / (x1 - x0)
            rows.append((4 * u * (1 - u), 4 * v * (1 - v), u * v, 1.0, u, v))
            heights.append(board.underside(float(x), below + (above - below) * float(v)))
    found = np.linalg.lstsq(np.array(rows), np.array(heights), rcond=None)[0]
    return Warp(*(round(float(t)) for t in found[:3]))


def _faults(
    board: Board, x0: int, x1: int, down: int, stations: tuple[Station, ...]
) -> tuple[Defect, ...]:
    top = max(s.y1 for s in stations)
    found = []
    for d in board.defects:
        if d.x1 <= x0 or d.x0 >= x1 or d.y1 <= down or d.y0 >= down + top:
            continue
        whole = d.x0 >= x0 and d.x1 <= x1
        for each in (d,) if whole or d.shape == "rectangle" else d.boxes:
            left, right = max(each.x0, x0), min(each.x1, x1)
            if right > left:
                points = tuple((x - x0, y - down) for x, y in each.points)
                found.append(
                    replace(
                        each,
                        x0=left - x0,
                        x1=right - x0,
                        y0=each.y0 - down,
                        y1=each.y1 - down,
                        points=points,
                    )
                )
    return tuple(found)


def _crop(
    board: Board, x0: int, x1: int, down: int, stations: tuple[Station, ...]
) -> Surface | None:
    if board.surface is None:
        return None
    top = down + max(s.y1 for s in stations)
    xs = sorted({x0, x1, *(x for x in board.surface.xs if x0 < x < x1)})
    ys = sorted({down, top, *(y for y in board.surface.ys if down < y < top)})
    heights = [[board.surface.heights(x, y) for y in ys] for x in xs]
    lower, upper = (tuple(tuple(round(h[k]) for h in row) for row in heights) for k in (0, 1))
    return Surface(tuple(x - x0 for x in xs), tuple(y - down for y in ys), lower, upper)


def _grain(grain: Grain, x0: int, x1: int, down: int) -> Grain:
    zones = tuple(
        Zone(z.figure, max(z.x0, x0) - x0, min(z.x1, x1) - x0, z.y0 - down, z.y1 - down)
        for z in grain.zones
        if z.x1 > x0 and z.x0 < x1
    )
    return replace(grain, zones=zones)
