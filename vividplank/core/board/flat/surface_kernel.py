"""Kernels of h(R) over a scanned surface, in inches; see slab.py for what it computes.

A bilinear face less a plane has neither a highest nor a lowest point inside a cell of its grid, and
along the grid's own lines it is straight: its extremes over a region lie at grid places, where the
region's sides cross the grid, or along a side that runs at a slope, where it is a parabola. All of
these are looked at, so what comes out is exact.
"""

import numpy as np
from numba import njit

from vividplank.core.board.flat.slab_kernel import ENOUGH, ROUNDS, begun, entered, prices


@njit(cache=True)
def _cell(places, at):  # type: ignore[no-untyped-def]
    """The index of the cell that holds this place."""
    low = 0
    high = places.shape[0] - 1
    while high - low > 1:
        middle = (low + high) // 2
        if places[middle] <= at:
            low = middle
        else:
            high = middle
    return low


@njit(cache=True)
def _bilinear(face, i, j, s, t):  # type: ignore[no-untyped-def]
    low = face[i, j] + s * (face[i + 1, j] - face[i, j])
    high = face[i, j + 1] + s * (face[i + 1, j + 1] - face[i, j + 1])
    return low + t * (high - low)


@njit(cache=True)
def _gathered(xs, ys, lower, upper, x0, x1, y0, slope, h0, h1):  # type: ignore[no-untyped-def]
    """Points (x, y, lower, upper) that may be extreme, and pieces of sloped sides with a parabola
    over each.
    """
    first = _cell(xs, x0)
    last = _cell(xs, x1)
    columns = last - first + 2
    points = np.empty((columns * (ys.shape[0] + 2) + 4 * ys.shape[0] + 8, 4))
    # Each arc: where it begins and ends along x, y at its begin, how far the middle of the lower
    # and the upper face lie above the chord, and which point is its end.
    arcs = np.empty((2 * (columns + ys.shape[0]) + 4, 6))
    n = 0
    m = 0
    for k in range(columns):
        x = x0 if k == 0 else (x1 if k == columns - 1 else xs[first + k])
        if k > 0 and k < columns - 1 and (x <= x0 or x >= x1):
            continue
        i = _cell(xs, x)
        s = (x - xs[i]) / (xs[i + 1] - xs[i])
        line = y0 + slope * (x - x0)
        bottom = line + h0
        top = line + h1
        j0 = _cell(ys, bottom)
        j1 = _cell(ys, top)
        for j in range(j0, j1 + 2):
            y = bottom if j == j0 else (top if j == j1 + 1 else ys[j])
            row = j0 if j == j0 else (j1 if j == j1 + 1 else j)
            t = (y - ys[row]) / (ys[row + 1] - ys[row])
            points[n, 0] = x
            points[n, 1] = y
            points[n, 2] = _bilinear(lower, i, row, s, t)
            points[n, 3] = _bilinear(upper, i, row, s, t)
            n += 1
    if slope != 0.0:
        for side in range(2):
            h = h1 if side else h0
            i = first
            x = x0
            while x < x1:
                y = y0 + slope * (x - x0) + h
                j = _cell(
                    ys, y + (1e-9 if slope > 0 else -1e-9)
                )  # the cell ahead, where it begins on a row
                # Out of this cell by its end, or over the row the side climbs or falls to.
                edge = ys[j + 1] if slope > 0 else ys[j]
                out = (
                    x + (edge - y) / slope if (j + 2 < ys.shape[0] if slope > 0 else j > 0) else x1
                )
                end = min(x1, xs[i + 1] if i + 2 < xs.shape[0] else x1)
                if out > x + 1e-12 and out < end:
                    end = out
                for at in range(2):
                    px = end if at else (x + end) / 2
                    py = y0 + slope * (px - x0) + h
                    s = (px - xs[i]) / (xs[i + 1] - xs[i])
                    t = (py - ys[j]) / (ys[j + 1] - ys[j])
                    low = _bilinear(lower, i, j, s, t)
                    high = _bilinear(upper, i, j, s, t)
                    if at == 0:
                        arcs[m, 3] = low
                        arcs[m, 4] = high
                    else:
                        s = (x - xs[i]) / (xs[i + 1] - xs[i])
                        t = (y - ys[j]) / (ys[j + 1] - ys[j])
                        # How far the middle of the arc lies from its chord.
                        arcs[m, 3] -= (low + _bilinear(lower, i, j, s, t)) / 2
                        arcs[m, 4] -= (high + _bilinear(upper, i, j, s, t)) / 2
                        points[n, 0] = px
                        points[n, 1] = py
                        points[n, 2] = low
                        points[n, 3] = high
                        n += 1
                arcs[m, 0] = x
                arcs[m, 1] = end
                arcs[m, 2] = y
                arcs[m, 5] = n - 1
                m += 1
                if end >= xs[i + 1] - 1e-12 and i + 2 < xs.shape[0]:
                    i += 1
                x = end
    return points[:n], arcs[:m]


@njit(cache=True)
def _extreme(points, arcs, xs, ys, face, slope, a, b, column):  # type: ignore[no-untyped-def]
    """Least of the upper, greatest of the lower face less ax + by, as value, x, y."""
    sign = 1.0 if column == 3 else -1.0
    best = np.inf
    at = 0
    for k in range(points.shape[0]):
        value = sign * (points[k, column] - a * points[k, 0] - b * points[k, 1])
        if value < best:
            best = value
            at = k
    best_x = points[at, 0]
    best_y = points[at, 1]
    for k in range(arcs.shape[0]):
        bend = sign * (arcs[k, 4] if column == 3 else arcs[k, 3])
        if bend >= -1e-12:  # at most straight: its ends are among the points
            continue
        end = int(arcs[k, 5])
        i = _cell(xs, (arcs[k, 0] + arcs[k, 1]) / 2)
        j = _cell(ys, (arcs[k, 2] + points[end, 1]) / 2)
        s = (arcs[k, 0] - xs[i]) / (xs[i + 1] - xs[i])
        t = (arcs[k, 2] - ys[j]) / (ys[j + 1] - ys[j])
        begin = sign * (_bilinear(face, i, j, s, t) - a * arcs[k, 0] - b * arcs[k, 2])
        ended = sign * (points[end, column] - a * points[end, 0] - b * points[end, 1])
        # f(w) = begin + (ended − begin)·w + 4·bend·w·(1 − w), least where its slope is nought.
        w = (ended - begin + 4 * bend) / (8 * bend)
        if 0.0 < w < 1.0:
            value = begin + (ended - begin) * w + 4 * bend * w * (1 - w)
            if value < best:
                best = value
                best_x = arcs[k, 0] + w * (arcs[k, 1] - arcs[k, 0])
                best_y = arcs[k, 2] + slope * (best_x - arcs[k, 0])
    return sign * best, best_x, best_y


@njit(cache=True)
def surface_slab_inches(xs, ys, lower, upper, x0, x1, y0, slope, h0, h1):  # type: ignore[no-untyped-def]
    """Thickness and plane (h, a, b, c) in inches."""
    points, arcs = _gathered(xs, ys, lower, upper, x0, x1, y0, slope, h0, h1)
    basis, cost = begun(10.0 * (x1 - x0 + h1 - h0 + 1.0))
    best = -np.inf
    best_a = 0.0
    best_b = 0.0
    best_c = 0.0
    for _ in range(ROUNDS):
        bound, a, b = prices(basis, cost)
        top, xt, yt = _extreme(points, arcs, xs, ys, upper, slope, a, b, 3)
        low, xl, yl = _extreme(points, arcs, xs, ys, lower, slope, a, b, 2)
        if top - low > best:
            best = top - low
            best_a = a
            best_b = b
            best_c = low
        if bound - best < ENOUGH or not entered(basis, cost, a, b, top, xt, yt, low, xl, yl):
            break
    return best, best_a, best_b, best_c
