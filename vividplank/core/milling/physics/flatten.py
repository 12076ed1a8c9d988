"""How a face is made flat: what is knocked down by hand first, and what the jointer then takes,
foretold by simulation.
"""

from dataclasses import dataclass
from functools import lru_cache
from math import ceil

import numpy as np

from vividplank.core.board import Board, Region, Slab, flat_slab
from vividplank.core.board.flat.depth import depths
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
from vividplank.core.piece import Cut, Face, Plane

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
    """`down` is the face on the table. `high` are corners to knock down first: their name, where
    they lie in the region (along it, and from its line), and by how much; `passes` of the jointer
    follow, `depth` each. Then it is `thickest` at its thickest place, and the planer can make it
    `thinnest` with both faces clean; `enough` says whether that holds the thickness asked for.
    `slab` is h(R), `off` the most that comes off the face, `clean` the share of it that is clean at
    the end, `plane` where it then lies, in the axes of the board. `left` is how far under the plane
    of the slab knocking down stops; None where nothing is knocked down.
    """

    down: Face
    high: tuple[tuple[str, int, int, int], ...]
    passes: int
    depth: int
    thickest: int
    thinnest: int
    clean: float
    enough: bool
    slab: float
    off: float
    plane: Plane
    left: float | None = None


@lru_cache(maxsize=4096)
def flatten(
    board: Board,
    region: Region,
    finish: int,
    depth: int,
    show: bool,
    enough_clean: float = ENOUGH_CLEAN,
    cuts: tuple[Cut, ...] = (),
) -> Flattened:
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
    piece = piece_of(board, region, down, cuts=cuts)
    target = 1.0 if show or slab.thickness - finish < depth else enough_clean

    under = _under(piece, region, slab, down)
    corners = _corners(under - piece.lower, down, region)
    for spare in (None, float(depth), 0.0):
        start = piece if spare is None else knock_down(piece, under - spare)
        once = joint(start, depth)
        *_, (passes, last) = enumerate((once, *joint_until(once, depth, target)), 1)
        enough = last.clean >= target and passes < MOST_PASSES and level(last) >= finish
        if enough:
            break
    high = (
        ()
        if spare is None
        else tuple((name, x, y, ceil(d - spare)) for (name, x, y), d in corners if d > spare)
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
        _plane(last, region, down),
        spare,
    )


def as_laid(
    board: Board,
    region: Region,
    found: Flattened,
    along: int,
    across: int,
    cuts: tuple[Cut, ...] = (),
) -> Piece:
    """The piece as it first goes over the jointer: its high corners knocked down as foretold."""
    piece = piece_of(board, region, found.down, along, across, cuts)
    if found.left is None:
        return piece
    return knock_down(
        piece, _under(piece, region, flat_slab(board, region), found.down) - found.left
    )


def _plane(piece: Piece, region: Region, down: Face) -> Plane:
    """The plane through what the cutter has cut of the underside, by least squares; the piece is as
    thick over it as at its thickest place.
    """
    clean = piece.clean_lower
    heights = piece.lower
    xs, ys = np.meshgrid(piece.xs, piece.ys, indexing="ij")
    x = xs + region.x0
    line = region.y0 + region.slope * xs
    y = line + region.h0 + ys if down == "B" else line + region.h1 - ys
    if clean.sum() < 3:
        clean = np.ones_like(clean)
    rows = np.column_stack([x[clean], y[clean], np.ones(int(clean.sum()))])
    a, b, c = (float(v) for v in np.linalg.lstsq(rows, heights[clean], rcond=None)[0])
    if down == "B":
        return Plane(a, b, c)
    return Plane(-a, -b, -c)


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


def _corners(under: Floats, down: Face, region: Region) -> list[tuple[tuple[str, int, int], float]]:
    """How far each corner stands under the slab's plane, where it does, the most first."""
    length = region.x1 - region.x0
    places = [(x, h) for h in (region.h0, region.h1) for x in (0, length)]
    named = [(name, *place) for name, place in zip(_CORNERS, places, strict=True)]
    ys = (0, -1) if down == "B" else (-1, 0)
    found = zip(named, (float(under[x, y]) for y in ys for x in (0, -1)), strict=True)
    return sorted(((name, d) for name, d in found if d > 0), key=lambda c: -c[1])
