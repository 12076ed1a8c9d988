"""The wood of a board as two fields of heights over its plan, at many places at once. Ticks."""

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from vividplank.core.board import Board

Floats = npt.NDArray[np.float64]


@dataclass(frozen=True)
class Line:
    """y = y0 + slope · x in the axes of a board."""

    y0: float
    slope: float = 0.0

    def at(self, x: float) -> float:
        return self.y0 + self.slope * x

    def over(self, xs: Floats) -> Floats:
        return self.y0 + self.slope * xs


@dataclass(frozen=True)
class Plane:
    """z = a · x + b · y + c in the axes of a board."""

    a: float
    b: float
    c: float

    def over(self, xs: Floats, ys: Floats) -> Floats:
        return self.a * xs + self.b * ys + self.c

    def raised(self, by: float) -> "Plane":
        return Plane(self.a, self.b, self.c + by)


def edges(board: Board, xs: Floats) -> tuple[Floats, Floats]:
    """The two edges of a board at these x."""
    at = [s.x for s in board.stations]
    low = np.interp(xs, at, [s.y0 for s in board.stations])
    return low, np.interp(xs, at, [s.y1 for s in board.stations])


def kinks_across(board: Board, xs: Floats) -> Floats:
    """The y at which thickness may change its slope across, at each x: along × readings."""
    if board.surface:
        ys = np.array(board.surface.ys, float)
        return np.broadcast_to(ys, (len(xs), len(ys))).copy()
    low, high = edges(board, xs)
    share = np.linspace(0.0, 1.0, board.readings)[1:-1]
    found: Floats = low[:, None] + (high - low)[:, None] * share
    return found


def heights(board: Board, xs: Floats, ys: Floats) -> tuple[Floats, Floats]:
    """Faces B and A above the bench at places (arrays of one shape); beside the outline, what the
    nearest edge has.
    """
    low, high = edges(board, xs)
    if board.surface:
        lower, upper = _scanned(board, xs, np.clip(ys, low, high))
        return lower, upper
    v = np.clip((ys - low) / (high - low), 0.0, 1.0)
    u = xs / board.length
    warp = board.warp
    lower = warp.bow * 4 * u * (1 - u) + warp.cup * 4 * v * (1 - v) + warp.twist * u * v
    at = [s.x for s in board.stations]
    count = board.readings
    columns = np.array([s.spread(count) for s in board.stations])
    read = np.stack([np.interp(xs, at, columns[:, k]) for k in range(count)])
    place = v * (count - 1)
    k = np.minimum(place.astype(np.int64), count - 2)
    left = np.take_along_axis(read, k[None], 0)[0]
    right = np.take_along_axis(read, k[None] + 1, 0)[0]
    return lower, lower + left + (place - k) * (right - left)


def _scanned(board: Board, xs: Floats, ys: Floats) -> tuple[Floats, Floats]:
    assert board.surface
    gx, gy = np.array(board.surface.xs, float), np.array(board.surface.ys, float)
    i = np.clip(np.searchsorted(gx, xs, "right") - 1, 0, len(gx) - 2)
    j = np.clip(np.searchsorted(gy, ys, "right") - 1, 0, len(gy) - 2)
    s, t = (xs - gx[i]) / (gx[i + 1] - gx[i]), (ys - gy[j]) / (gy[j + 1] - gy[j])

    def at(face: tuple[tuple[int, ...], ...]) -> Floats:
        z = np.array(face, float)
        near = z[i, j] + s * (z[i + 1, j] - z[i, j])
        far = z[i, j + 1] + s * (z[i + 1, j + 1] - z[i, j + 1])
        found: Floats = near + t * (far - near)
        return found

    return at(board.surface.lower), at(board.surface.upper)
