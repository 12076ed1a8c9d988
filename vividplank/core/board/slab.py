"""The flat board inside the warped one: the thickest slab between two parallel planes in a region.

h(R) is the largest h for which a plane p = a·x + b·y + c has zB ≤ p and p + h ≤ zA over all of R.
For given slopes (a, b) the best is h(a, b) = min over R of (zA − ax − by) − max over R of
(zB − ax − by), which is concave in (a, b). Every pair of a lowest point of the upper face and a
highest point of the lower one gives a linear upper bound on h, so the maximum is a linear program
in (h, a, b) whose constraints are found as they are needed: a dual simplex with three rows.
The two extremes are looked up on a grid with the stations among its lines and then refined, so
what is returned is the thickness of a slab that really fits.
"""

from dataclasses import dataclass

import numpy as np
from numba import njit

from vividplank.core.board.board import Board, Region
from vividplank.core.measure import TICKS_PER_INCH

_ALONG = 8  # grid steps between neighbouring stations
_ACROSS = 4
_HALVINGS = 11  # of the grid step while refining an extreme: (step / 2048)² leaves under 1e-7 of the bow
_ENOUGH = 1e-9  # inches between bound and slab at which the search stops
_ROUNDS = 120


@dataclass(frozen=True)
class Slab:
    """The thickest flat slab in a region, in ticks; its lower plane is z = a·x + b·y + c."""

    thickness: float
    a: float
    b: float
    c: float

    def lower(self, x: float, y: float) -> float:
        return self.a * x + self.b * y + self.c


def flat_slab(board: Board, region: Region) -> Slab:
    """h(R) and its plane. Never thicker than the truth by more than the refinement, 1e-6 in."""
    found = _flat_slab(
        board.station_table, board.warp_row, region.x0 / TICKS_PER_INCH, region.x1 / TICKS_PER_INCH,
        region.y0 / TICKS_PER_INCH, region.slope, region.h0 / TICKS_PER_INCH, region.h1 / TICKS_PER_INCH,
    )
    return Slab(found[0] * TICKS_PER_INCH, found[1], found[2], found[3] * TICKS_PER_INCH)


@njit(cache=True)
def _face(stations, warp, at, x, y, upper):  # type: ignore[no-untyped-def]
    """Height of the upper or lower face at (x, y), with the stations at-1 and at around x."""
    left = stations[at - 1]
    right = stations[at]
    share = (x - left[0]) / (right[0] - left[0])
    y0 = left[1] + share * (right[1] - left[1])
    y1 = left[2] + share * (right[2] - left[2])
    u = x / stations[-1, 0]
    v = (y - y0) / (y1 - y0)
    z = warp[0] * 4 * u * (1 - u) + warp[1] * 4 * v * (1 - v) + warp[2] * u * v
    if upper:
        t0 = left[3] + share * (right[3] - left[3])
        t1 = left[4] + share * (right[4] - left[4])
        z += t0 + (t1 - t0) * v
    return z


@njit(cache=True)
def _lowest(stations, warp, at, xa, xb, x0, y0, slope, h0, h1, a, b, upper):  # type: ignore[no-untyped-def]
    """Lowest (upper) or highest (lower face) point of face − ax − by for x in xa..xb, as value, x, y."""
    sign = 1.0 if upper else -1.0
    step_x = (xb - xa) / _ALONG
    step_h = (h1 - h0) / _ACROSS
    best = np.inf
    best_x = xa
    best_h = h0
    for i in range(_ALONG + 1):
        x = xa + i * step_x
        line = y0 + slope * (x - x0)
        for j in range(_ACROSS + 1):
            h = h0 + j * step_h
            value = sign * (_face(stations, warp, at, x, line + h, upper) - a * x - b * (line + h))
            if value < best:
                best = value
                best_x = x
                best_h = h
    for _ in range(_HALVINGS):
        step_x *= 0.5
        step_h *= 0.5
        centre_x = best_x
        centre_h = best_h
        for i in range(-1, 2):
            for j in range(-1, 2):
                if i == 0 and j == 0:
                    continue
                x = min(max(centre_x + i * step_x, xa), xb)
                h = min(max(centre_h + j * step_h, h0), h1)
                y = y0 + slope * (x - x0) + h
                value = sign * (_face(stations, warp, at, x, y, upper) - a * x - b * y)
                if value < best:
                    best = value
                    best_x = x
                    best_h = h
    return sign * best, best_x, y0 + slope * (best_x - x0) + best_h


@njit(cache=True)
def _extreme(stations, warp, x0, x1, y0, slope, h0, h1, a, b, upper):  # type: ignore[no-untyped-def]
    """As `_lowest`, over all the intervals between stations that the region touches."""
    best = np.inf if upper else -np.inf
    best_x = x0
    best_y = y0 + h0
    last = stations.shape[0] - 1
    for at in range(1, last + 1):
        xa = x0 if at == 1 else max(x0, stations[at - 1, 0])
        xb = x1 if at == last else min(x1, stations[at, 0])
        if xa > xb or (xa == xb and x1 > x0):
            continue
        value, x, y = _lowest(stations, warp, at, xa, xb, x0, y0, slope, h0, h1, a, b, upper)
        if (upper and value < best) or (not upper and value > best):
            best = value
            best_x = x
            best_y = y
    return best, best_x, best_y


@njit(cache=True)
def _det3(m):  # type: ignore[no-untyped-def]
    return (
        m[0, 0] * (m[1, 1] * m[2, 2] - m[1, 2] * m[2, 1])
        - m[0, 1] * (m[1, 0] * m[2, 2] - m[1, 2] * m[2, 0])
        + m[0, 2] * (m[1, 0] * m[2, 1] - m[1, 1] * m[2, 0])
    )


@njit(cache=True)
def _solve3(m, right):  # type: ignore[no-untyped-def]
    """Cramer's rule: three unknowns, and a linear-algebra library takes seconds to compile in."""
    det = _det3(m)
    solved = np.empty(3)
    for k in range(3):
        changed = m.copy()
        changed[:, k] = right
        solved[k] = _det3(changed) / det
    return solved


@njit(cache=True)
def _flat_slab(stations, warp, x0, x1, y0, slope, h0, h1):  # type: ignore[no-untyped-def]
    """Thickness and plane (h, a, b, c) in inches."""
    # Columns (1, dx, dy) with cost c; the artificial ones enclose the origin and are driven out.
    far = 10.0 * (x1 - x0 + h1 - h0 + 1.0)
    basis = np.array([[1.0, 1.0, 1.0], [far, -far, -far], [0.0, far, -far]])
    cost = np.array([1e6, 1e6, 1e6])
    best = -np.inf
    best_a = 0.0
    best_b = 0.0
    best_c = 0.0
    for _ in range(_ROUNDS):
        prices = _solve3(basis.T, cost)
        a = prices[1]
        b = prices[2]
        top, xt, yt = _extreme(stations, warp, x0, x1, y0, slope, h0, h1, a, b, True)
        low, xl, yl = _extreme(stations, warp, x0, x1, y0, slope, h0, h1, a, b, False)
        if top - low > best:
            best = top - low
            best_a = a
            best_b = b
            best_c = low
        if prices[0] - best < _ENOUGH:
            break
        column = np.array([1.0, xt - xl, yt - yl])
        share = _solve3(basis, np.array([1.0, 0.0, 0.0]))
        move = _solve3(basis, column)
        leaving = -1
        ratio = np.inf
        for i in range(3):
            if move[i] > 1e-12:
                r = max(share[i], 0.0) / move[i]
                if r < ratio:
                    ratio = r
                    leaving = i
        if leaving < 0:
            break
        basis[:, leaving] = column
        cost[leaving] = top - low + a * (xt - xl) + b * (yt - yl)
        if abs(_det3(basis)) < 1e-14:
            break
    return best, best_a, best_b, best_c


