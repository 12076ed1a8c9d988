"""How a face is made flat: what is knocked down by hand first, and what the jointer then takes,
foretold by simulation.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import ceil

import numpy as np

from vividplank.core.board import Board, Region, Slab, flat_slab
from vividplank.core.board.flat.depth import depths
from vividplank.core.milling.physics.orient import Face
from vividplank.core.milling.physics.simulate import (
    MOST_PASSES,
    Floats,
    Piece,
    joint,
    joint_until,
    knock_down,
    level,
    piece_of,
)

#: This much of a face clean is enough to go on to the planer where the other side still has wood
#: to give.
ENOUGH_CLEAN = 0.8
_CORNERS = (
    "datum end, datum edge",
    "far end, datum edge",
    "datum end, far edge",
    "far end, far edge",
)


@dataclass(frozen=True)
class Flattened:
    """`down` is the face on the table. `high` names corners to knock down first and by how much;
    `passes` of the jointer follow, `depth` each. Then it is `thickest` at its thickest place, and
    the planer can make it `thinnest` with both faces clean; `enough` says whether that holds the
    thickness asked for. `slab` is h(R), `off` the most that comes off the face, `clean` the share
    of it that is clean at the end.
    """

    down: Face
    high: tuple[tuple[str, int], ...]
    passes: int
    depth: int
    thickest: int
    thinnest: int
    clean: float
    enough: bool
    slab: float
    off: float


@lru_cache(maxsize=4096)
def flatten(board: Board, region: Region, finish: int, depth: int, show: bool) -> Flattened:
    """Face a piece for a thickness in passes of `depth`; a show face is cleaned fully.

    First as it lies, hollow side down. Where that takes too much of the wood (a twist laid on three
    corners costs all of it, split between two only half) the corners that stand lowest under the
    plane of the flat slab are knocked down by hand to within a pass of it first; where even that is
    too much, down to the plane itself.
    """
    slab = flat_slab(board, region)
    found = depths(board, region, slab)
    down: Face = "B" if found.hollow >= 0 else "A"
    off = found.below if down == "B" else found.above
    piece = piece_of(board, region, down)
    target = 1.0 if show or slab.thickness - finish < depth else ENOUGH_CLEAN

    under = _under(piece, region, slab, down)
    corners = _corners(under - piece.lower, down)
    for spare in (None, float(depth), 0.0):
        start = piece if spare is None else knock_down(piece, under - spare)
        once = joint(start, depth)
        *_, (passes, last) = enumerate((once, *joint_until(once, depth, target)), 1)
        enough = last.clean >= target and passes < MOST_PASSES and level(last) >= finish
        if enough:
            break
    high = (
        () if spare is None else tuple((name, ceil(d - spare)) for name, d in corners if d > spare)
    )
    return Flattened(
        down,
        high,
        passes,
        depth,
        round(float(last.thickness.max())),
        int(level(last)),
        last.clean,
        enough,
        slab.thickness,
        off,
    )


def _under(piece: Piece, region: Region, slab: Slab, down: Face) -> Floats:
    """The plane of the flat slab that the face on the table is cut down to, over the piece's
    grid.
    """
    xs, ys = np.meshgrid(piece.xs, piece.ys, indexing="ij")
    x = xs + region.x0
    if down == "B":
        return np.asarray(
            slab.a * x + slab.b * (region.y0 + region.slope * xs + region.h0 + ys) + slab.c
        )
    # Turned over about its length: widths run from the other edge, heights are counted from above.
    return np.asarray(
        -(
            slab.a * x
            + slab.b * (region.y0 + region.slope * xs + region.h1 - ys)
            + slab.c
            + slab.thickness
        )
    )


def _corners(under: Floats, down: Face) -> list[tuple[str, float]]:
    """How far each corner stands under the slab's plane, where it does, the most first."""
    ys = (0, -1) if down == "B" else (-1, 0)
    found = zip(_CORNERS, (float(under[x, y]) for y in ys for x in (0, -1)), strict=True)
    return sorted(((name, d) for name, d in found if d > 0), key=lambda c: -c[1])
