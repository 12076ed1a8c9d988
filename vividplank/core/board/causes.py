"""Why a board yields less than its thickness: bent, tapered or uneven, told apart with their
figures.

The faces are read on a grid. Half way between them the board is bent or not; how thick it is falls
evenly (taper) or not (unevenness). Each is asked alone what it costs.
"""

from dataclasses import dataclass

import numpy as np

from vividplank.core.board.board import Board, Station
from vividplank.core.board.defect import Region
from vividplank.core.board.flat.slab import flat_slab
from vividplank.core.board.surface import Surface
from vividplank.core.measure import TICKS_PER_64TH, System, about

_ALONG, _ACROSS = 33, 9


@dataclass(frozen=True)
class Causes:
    """What each costs of the mean thickness in the region, in ticks; together they come near what
    is really lost.
    """

    bent: float
    tapered: float
    uneven: float


def causes(board: Board, region: Region) -> Causes:
    xs = np.linspace(region.x0, region.x1, _ALONG)
    hs = np.linspace(region.h0, region.h1, _ACROSS)
    low = np.array(
        [[board.underside(float(x), region.line(float(x)) + float(h)) for h in hs] for x in xs]
    )
    thick = np.array(
        [[board.thickness(float(x), region.line(float(x)) + float(h)) for h in hs] for x in xs]
    )
    u, v = np.meshgrid(np.linspace(-1, 1, _ALONG), np.linspace(-1, 1, _ACROSS), indexing="ij")
    terms = np.column_stack([np.ones(u.size), u.ravel(), v.ravel()])
    even = (terms @ np.linalg.lstsq(terms, thick.ravel(), rcond=None)[0]).reshape(u.shape)
    mean = float(thick.mean())
    middle = low + thick / 2
    flat = flat_slab(*_as_board(middle - mean / 2, middle + mean / 2, region)).thickness
    return Causes(
        max(0.0, mean - flat), float(mean - even.min()), float(max(0.0, (even - thick).max()))
    )


def said_of_causes(found: Causes, system: System) -> str:
    """One sentence with what helps against each that matters; empty where none does."""

    told = [
        (found.bent, "bent", "shorter or narrower pieces lose less of it"),
        (found.tapered, "tapered", "cutting does not help, the planer makes it even"),
        (found.uneven, "uneven", "a low place: lay it out around it or use that length thinner"),
    ]
    matter = [(ticks, word, help_) for ticks, word, help_ in told if ticks >= TICKS_PER_64TH]
    if not matter:
        return ""
    parts = [
        f"{about(ticks, system, unit=True)} because it is {word} ({help_})"
        for ticks, word, help_ in sorted(matter, reverse=True)
    ]
    return "It loses " + "; ".join(parts) + "."


def _as_board(low: np.ndarray, high: np.ndarray, region: Region) -> tuple[Board, Region]:
    """The grid as a board lying straight, in ticks of whole numbers, and the whole of it."""
    long, wide = region.x1 - region.x0, region.h1 - region.h0
    xs = tuple(round(long * i / (_ALONG - 1)) for i in range(_ALONG))
    ys = tuple(round(wide * j / (_ACROSS - 1)) for j in range(_ACROSS))
    faces = [tuple(tuple(round(float(z)) for z in row) for row in face) for face in (low, high)]
    ends = (Station(0, 0, wide, 1, 1), Station(long, 0, wide, 1, 1))
    return Board("", "", long, ends, surface=Surface(xs, ys, faces[0], faces[1])), Region(
        0, long, 0, 0.0, 0, wide
    )
