"""The compiled heart of h(R), in inches; see slab.py for what it computes."""

import numpy as np
from numba import njit

_ALONG = 7  # samples between neighbouring stations
_GOLDEN = 0.6180339887498949
_SHRINKINGS = 14  # of a step around a dip: (0.618^14 / 3.5)² leaves under 1e-7 of the bow
_ENOUGH = 1e-9  # inches between bound and slab at which the search stops
_ROUNDS = 120


@njit(cache=True)
def _across(stations, warp, at, x, x0, y0, slope, h0, h1, a, b, upper, side):  # type: ignore[no-untyped-def]
    """Least (upper) or greatest (lower face) of face − ax − by across the region at x, as value, y.

    At one x the face is a parabola in the share v across: hollow, its extreme is known exactly;
    crowned, it is at one of the sides, and `side` says which is asked for (0 low, 1 high). The value
    of the lower face comes negated: for both faces the least is looked for.
    """
    left = stations[at - 1]
    right = stations[at]
    share = (x - left[0]) / (right[0] - left[0])
    e0 = left[1] + share * (right[1] - left[1])
    wide = left[2] + share * (right[2] - left[2]) - e0
    u = x / stations[-1, 0]
    fixed = warp[0] * 4 * u * (1 - u) - a * x - b * e0
    p = 4 * warp[1] + warp[2] * u - b * wide
    q = -4 * warp[1]
    if upper:
        t0 = left[3] + share * (right[3] - left[3])
        fixed += t0
        p += left[4] + share * (right[4] - left[4]) - t0
    else:
        fixed, p, q = -fixed, -p, -q
    line = y0 + slope * (x - x0) - e0
    low = (line + h0) / wide
    high = (line + h1) / wide
    v = high if side == 1 else low
    if q > 0:
        v = min(max(-p / (2 * q), low), high)
    return fixed + p * v + q * v * v, e0 + v * wide


@njit(cache=True)
def _between(stations, warp, at, xa, xb, x0, y0, slope, h0, h1, a, b, upper, side):  # type: ignore[no-untyped-def]
    """As `_across`, over x from xa to xb between two stations: every dip of a row of samples is refined."""
    step = (xb - xa) / _ALONG
    values = np.empty(_ALONG + 1)
    best = np.inf
    best_x = xa
    best_y = 0.0
    for i in range(_ALONG + 1):
        x = xa + i * step
        value, y = _across(stations, warp, at, x, x0, y0, slope, h0, h1, a, b, upper, side)
        values[i] = value
        if value < best:
            best = value
            best_x = x
            best_y = y
    for i in range(_ALONG + 1):
        if (i > 0 and values[i - 1] < values[i]) or (i < _ALONG and values[i + 1] < values[i]):
            continue
        low = xa + max(i - 1, 0) * step
        high = xa + min(i + 1, _ALONG) * step
        m1 = high - _GOLDEN * (high - low)
        m2 = low + _GOLDEN * (high - low)
        f1, y1 = _across(stations, warp, at, m1, x0, y0, slope, h0, h1, a, b, upper, side)
        f2, y2 = _across(stations, warp, at, m2, x0, y0, slope, h0, h1, a, b, upper, side)
        for _ in range(_SHRINKINGS):
            if f1 < f2:
                high, m2, f2, y2 = m2, m1, f1, y1
                m1 = high - _GOLDEN * (high - low)
                f1, y1 = _across(stations, warp, at, m1, x0, y0, slope, h0, h1, a, b, upper, side)
            else:
                low, m1, f1, y1 = m1, m2, f2, y2
                m2 = low + _GOLDEN * (high - low)
                f2, y2 = _across(stations, warp, at, m2, x0, y0, slope, h0, h1, a, b, upper, side)
        if f1 < best:
            best = f1
            best_x = m1
            best_y = y1
        if f2 < best:
            best = f2
            best_x = m2
            best_y = y2
    return best, best_x, best_y


@njit(cache=True)
def _extreme(stations, warp, x0, x1, y0, slope, h0, h1, a, b, upper):  # type: ignore[no-untyped-def]
    """Least of the upper, greatest of the lower face less ax + by over the region, as value, x, y."""
    best = np.inf
    best_x = x0
    best_y = y0 + h0
    last = stations.shape[0] - 1
    for at in range(1, last + 1):
        xa = x0 if at == 1 else max(x0, stations[at - 1, 0])
        xb = x1 if at == last else min(x1, stations[at, 0])
        if xa > xb or (xa == xb and x1 > x0):
            continue
        # A crowned face is least at its sides, each looked along by itself so that neither hides the other.
        hollow = (warp[1] < 0) == upper and warp[1] != 0
        for side in range(1 if hollow else 2):
            value, x, y = _between(stations, warp, at, xa, xb, x0, y0, slope, h0, h1, a, b, upper, side)
            if value < best:
                best = value
                best_x = x
                best_y = y
    return (best if upper else -best), best_x, best_y


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
def flat_slab_inches(stations, warp, x0, x1, y0, slope, h0, h1):  # type: ignore[no-untyped-def]
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


