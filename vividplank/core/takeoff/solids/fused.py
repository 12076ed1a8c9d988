"""Boards that were joined into one body where it was drawn: how it may be parted again.

The planes of its faces cut its box into cells; the largest whole block of filled cells is a board,
then the largest of those left, and so on. Which of two boards runs through at a corner nobody can
tell from the body: the larger one does.
"""

from dataclasses import dataclass

import numpy as np

from vividplank.core.takeoff.solids.oriented_box import Array, Box, Solid

#: Planes nearer than this are one (mm); a face is square to an axis where its normal leans by less
#: than this share.
_ONE_PLANE, _SQUARE = 0.05, 0.999
#: Planes along one axis; boards in one body; faces square to the axes as a share of the surface.
_MOST_PLANES, _MOST_BOARDS, _MOSTLY_SQUARE = 14, 24, 0.85
#: A board is no thicker than this (mm) and is at least this share of the body; less is a tenon or
#: a tongue of one.
_THICKEST, _LEAST = 80.0, 0.02


@dataclass(frozen=True)
class _Block:
    low: tuple[int, int, int]
    high: tuple[int, int, int]


def boards_in(solid: Solid, box: Box) -> list[Solid]:
    """The boards of a fused body as solids of their own; empty where it cannot be parted along its
    faces.
    """
    points = (solid.vertices - box.centre) @ box.axes.T + np.array(box.size) / 2
    planes = _planes(points, solid)
    if not planes:
        return []
    filled = _filled(points, solid, planes)
    sizes = [np.diff(p) for p in planes]
    volumes = sizes[0][:, None, None] * sizes[1][None, :, None] * sizes[2][None, None, :]
    whole = float(volumes[filled].sum())
    boards: list[Array] = []
    while filled.any() and len(boards) < _MOST_BOARDS:
        block = _largest(filled, planes)
        if block is None:
            break
        (x0, y0, z0), (x1, y1, z1) = block.low, block.high
        if float(volumes[x0:x1, y0:y1, z0:z1].sum()) < _LEAST * whole:
            break
        filled[x0:x1, y0:y1, z0:z1] = False
        boards.append(
            np.array(
                [
                    [planes[k][a] for k, a in enumerate(block.low)],
                    [planes[k][b] for k, b in enumerate(block.high)],
                ]
            )
        )
    if len(boards) < 2 or float(volumes[filled].sum()) > 3 * _LEAST * whole:
        return []
    return [_solid(solid, box, ends, k) for k, ends in enumerate(boards, 1)]


def _planes(points: Array, solid: Solid) -> list[Array]:
    """Where faces stand square to each axis; empty where too few do, or too many planes are
    needed.
    """
    a, b, c = np.moveaxis(points[solid.faces], 1, 0)
    normals = np.cross(b - a, c - a)
    areas = np.linalg.norm(normals, axis=1)
    square = np.abs(normals) > _SQUARE * areas[:, None]
    if float(areas[square.any(axis=1)].sum()) < _MOSTLY_SQUARE * float(areas.sum()):
        return []
    found = []
    for axis in range(3):
        at = np.sort(a[square[:, axis], axis])
        if not len(at):
            return []
        planes = at[np.r_[True, np.diff(at) > _ONE_PLANE]]
        if not 2 <= len(planes) <= _MOST_PLANES:
            return []
        found.append(planes)
    return found


def _filled(
    points: Array, solid: Solid, planes: list[Array]
) -> np.ndarray[tuple[int, ...], np.dtype[np.bool_]]:
    """Which cells between the planes are wood: by how many faces lie over their middle."""
    # Not quite the middles, so that none lies on an edge between two triangles.
    middles = [
        p[:-1] + share * np.diff(p) for p, share in zip(planes, (0.5013, 0.4969, 0.5), strict=True)
    ]
    a, b, c = np.moveaxis(points[solid.faces], 1, 0)
    filled = np.zeros(tuple(len(m) for m in middles), bool)
    turn = (b[:, 0] - a[:, 0]) * (c[:, 1] - a[:, 1]) - (b[:, 1] - a[:, 1]) * (c[:, 0] - a[:, 0])
    level = np.abs(turn) > 1e-9  # the others are seen from their edge
    a, b, c, turn = a[level], b[level], c[level], turn[level]
    for i, x in enumerate(middles[0]):
        for j, y in enumerate(middles[1]):
            u = ((x - a[:, 0]) * (c[:, 1] - a[:, 1]) - (y - a[:, 1]) * (c[:, 0] - a[:, 0])) / turn
            v = ((b[:, 0] - a[:, 0]) * (y - a[:, 1]) - (b[:, 1] - a[:, 1]) * (x - a[:, 0])) / turn
            over = (u >= 0) & (v >= 0) & (u + v <= 1)
            heights = np.sort((a[:, 2] + u * (b[:, 2] - a[:, 2]) + v * (c[:, 2] - a[:, 2]))[over])
            filled[i, j] = np.searchsorted(heights, middles[2]) % 2 == 1
    return filled


def _largest(
    filled: np.ndarray[tuple[int, ...], np.dtype[np.bool_]], planes: list[Array]
) -> _Block | None:
    """The largest block of filled cells that is thin enough for a board."""
    counts = np.pad(filled.astype(np.int64), ((1, 0),) * 3).cumsum(0).cumsum(1).cumsum(2)
    best: tuple[float, _Block] | None = None
    n = filled.shape
    ranges = [[(a, b) for a in range(n[k]) for b in range(a + 1, n[k] + 1)] for k in range(3)]
    z0, z1 = np.array(ranges[2]).T
    deep = planes[2][z1] - planes[2][z0]
    for x0, x1 in ranges[0]:
        for y0, y1 in ranges[1]:
            face = counts[x1, y1] - counts[x0, y1] - counts[x1, y0] + counts[x0, y0]
            full = face[z1] - face[z0] == (x1 - x0) * (y1 - y0) * (z1 - z0)
            wide, high = float(planes[0][x1] - planes[0][x0]), float(planes[1][y1] - planes[1][y0])
            fit = full & (np.minimum(deep, min(wide, high)) <= _THICKEST)
            if fit.any():
                k = int(np.argmax(np.where(fit, deep, 0.0)))
                volume = wide * high * float(deep[k])
                if best is None or volume > best[0]:
                    best = volume, _Block((x0, y0, int(z0[k])), (x1, y1, int(z1[k])))
    return best[1] if best else None


def _solid(solid: Solid, box: Box, ends: Array, k: int) -> Solid:
    corners = np.array(
        [[ends[x][0], ends[y][1], ends[z][2]] for x in (0, 1) for y in (0, 1) for z in (0, 1)]
    )
    faces = [
        (0, 1, 3),
        (0, 3, 2),
        (4, 6, 7),
        (4, 7, 5),
        (0, 4, 5),
        (0, 5, 1),
        (2, 3, 7),
        (2, 7, 6),
        (0, 2, 6),
        (0, 6, 4),
        (1, 5, 7),
        (1, 7, 3),
    ]
    placed = (corners - np.array(box.size) / 2) @ box.axes + box.centre
    return Solid(f"{solid.ref}.{k}", solid.name, placed, np.array(faces, np.int64), solid.layer)
