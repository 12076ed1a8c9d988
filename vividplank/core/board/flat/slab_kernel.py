"""Kernels of h(R), in inches; see slab.py for what it computes."""

import numpy as np
from numba import njit

_ALONG = 7  # samples between neighbouring stations
_GOLDEN = 0.6180339887498949
_SHRINKINGS = 14  # of a step around a dip: (0.618^14 / 3.5)² leaves under 1e-7 of the bow
ENOUGH = 1e-9  # inches between bound and slab at which the search stops
ROUNDS = 120


@njit(cache=True)
def _across(stations, warp, at, x, x0, y0, slope, h0, h1, a, b, upper, side):  # type: ignore[no-untyped-def]
    """Least (upper) or greatest (lower face) of face − ax − by across the region at x, as value, y.

    At one x the face is a parabola in the share v across, one between every two neighbouring
    thickness readings of the stations: hollow, the extreme of each is known exactly; crowned, it is
    at a reading or at the region's sides. `side` says which parabola, or which reading, is asked
    for. The value of the lower face comes negated: for both faces the least is looked for.
    """
    left = stations[at - 1]
    right = stations[at]
    readings = stations.shape[1] - 3
    share = (x - left[0]) / (right[0] - left[0])
    e0 = left[1] + share * (right[1] - left[1])
    wide = left[2] + share * (right[2] - left[2]) - e0
    u = x / stations[-1, 0]
    fixed = warp[0] * 4 * u * (1 - u) - a * x - b * e0
    p = 4 * warp[1] + warp[2] * u - b * wide
    q = -4 * warp[1]
    if not upper:
        fixed, p, q = -fixed, -p, -q
    line = y0 + slope * (x - x0) - e0
    low = (line + h0) / wide
    high = (line + h1) / wide
    gaps = readings - 1 if upper else 1
    if q > 0:
        k = side
        begin = low if k == 0 else max(low, k / gaps)
        end = high if k == gaps - 1 else min(high, (k + 1) / gaps)
        rise = p
        if upper:
            rise += gaps * _thicker(left, right, share, k)
        v = min(max(-rise / (2 * q), begin), end) if begin <= end else low
    else:
        v = low if side == 0 else (high if side == gaps else min(max(side / gaps, low), high))
    value = fixed + p * v + q * v * v
    if upper:
        k = min(max(int(v * gaps), 0), gaps - 1)
        t = left[3 + k] + share * (right[3 + k] - left[3 + k])
        value += t + (v * gaps - k) * _thicker(left, right, share, k)
    return value, e0 + v * wide


@njit(cache=True)
def _thicker(left, right, share, k):  # type: ignore[no-untyped-def]
    """How much thicker the board is at reading k + 1 across than at reading k."""
    one = left[3 + k] + share * (right[3 + k] - left[3 + k])
    return left[4 + k] + share * (right[4 + k] - left[4 + k]) - one


@njit(cache=True)
def _bend(stations, warp, at, xa, xb, x0, y0, slope, h0, h1):  # type: ignore[no-untyped-def]
    """No less than the second derivative of a face along any side of the region between xa and xb.

    Along a side the share across v runs with v' = (slope − e0' − v·wide') / wide, and a face is a
    polynomial in u and v.
    """
    left = stations[at - 1]
    right = stations[at]
    run = right[0] - left[0]
    e0_rise = (right[1] - left[1]) / run
    wide_rise = (right[2] - left[2]) / run - e0_rise
    narrow = np.inf
    far = 1.0  # the greatest |v|, within the board or, where a region reaches over it, beyond
    for k in range(2):
        x = xb if k else xa
        share = (x - left[0]) / run
        e0 = left[1] + share * (right[1] - left[1])
        wide = left[2] + share * (right[2] - left[2]) - e0
        line = y0 + slope * (x - x0) - e0
        narrow = min(narrow, wide)
        far = max(far, abs(line + h0) / wide, abs(line + h1) / wide)
    turn = (abs(slope - e0_rise) + far * abs(wide_rise)) / narrow
    turning = 2 * turn * abs(wide_rise) / narrow
    long = stations[-1, 0]
    rises = 0.0  # of thickness along, and across from reading to reading
    across = 0.0
    gaps = stations.shape[1] - 4
    for k in range(gaps + 1):
        rises = max(rises, abs(right[3 + k] - left[3 + k]) / run)
        if k:
            across = max(
                across,
                abs(left[3 + k] - left[2 + k]) * gaps,
                abs(right[3 + k] - right[2 + k]) * gaps,
            )
    sloped = (
        4 * abs(warp[1]) * (1 + 2 * far) + abs(warp[2]) + across
    )  # the greatest first derivative in v
    return (
        8 * abs(warp[0]) / long**2
        + 8 * abs(warp[1]) * turn**2
        + 2 * abs(warp[2]) * turn / long
        + 2 * rises * gaps * 2 * turn
        + sloped * turning
    )


@njit(cache=True)
def _between(stations, warp, at, xa, xb, x0, y0, slope, h0, h1, a, b, upper, side, bend, known):  # type: ignore[no-untyped-def]
    """As `_across`, over x from xa to xb between two stations: every dip of a row of samples is
    refined.

    Between two samples a face that bends by no more than `bend` dips by no more than bend · step² /
    8 under the lower of them: where that cannot come under what is `known`, nothing is refined.
    """
    step = (xb - xa) / _ALONG
    dip = bend * step * step / 8
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
        if values[i] - dip >= min(best, known):
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
    """Least of the upper, greatest of the lower face less ax + by over the region, as value, x,
    y.
    """
    best = np.inf
    best_x = x0
    best_y = y0 + h0
    last = stations.shape[0] - 1
    for at in range(1, last + 1):
        xa = x0 if at == 1 else max(x0, stations[at - 1, 0])
        xb = x1 if at == last else min(x1, stations[at, 0])
        if xa > xb or (xa == xb and x1 > x0):
            continue
        # Each place across that may be the least is looked along by itself, so that none hides
        # another.
        hollow = (warp[1] < 0) == upper and warp[1] != 0
        readings = stations.shape[1] - 3 if upper else 2
        bend = np.inf if hollow else _bend(stations, warp, at, xa, xb, x0, y0, slope, h0, h1)
        for side in range(readings - 1 if hollow else readings):
            value, x, y = _between(
                stations, warp, at, xa, xb, x0, y0, slope, h0, h1, a, b, upper, side, bend, best
            )
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
def solve3(m, right):  # type: ignore[no-untyped-def]
    """Cramer's rule: three unknowns, and a linear-algebra library takes seconds to compile in."""
    det = _det3(m)
    solved = np.empty(3)
    for k in range(3):
        changed = m.copy()
        changed[:, k] = right
        solved[k] = _det3(changed) / det
    return solved


@njit(cache=True)
def begun(far):  # type: ignore[no-untyped-def]
    """The first basis: columns (1, dx, dy) with their cost; artificial ones that enclose the origin
    and are driven out.
    """
    return np.array([[1.0, 1.0, 1.0], [far, -far, -far], [0.0, far, -far]]), np.array(
        [1e6, 1e6, 1e6]
    )


@njit(cache=True)
def prices(basis, cost):  # type: ignore[no-untyped-def]
    """The bound on h and the slopes (a, b) this basis asks about."""
    return solve3(basis.T, cost)


@njit(cache=True)
def entered(basis, cost, a, b, top, xt, yt, low, xl, yl):  # type: ignore[no-untyped-def]
    """Take the pair of points that limits these slopes into the basis; whether the search goes
    on.
    """
    column = np.array([1.0, xt - xl, yt - yl])
    share = solve3(basis, np.array([1.0, 0.0, 0.0]))
    move = solve3(basis, column)
    leaving = -1
    ratio = np.inf
    for i in range(3):
        if move[i] > 1e-12:
            r = max(share[i], 0.0) / move[i]
            if r < ratio:
                ratio = r
                leaving = i
    if leaving < 0:
        return False
    basis[:, leaving] = column
    cost[leaving] = top - low + a * (xt - xl) + b * (yt - yl)
    return abs(_det3(basis)) >= 1e-14


@njit(cache=True)
def flat_slab_inches(stations, warp, x0, x1, y0, slope, h0, h1):  # type: ignore[no-untyped-def]
    """Thickness and plane (h, a, b, c) in inches."""
    basis, cost = begun(10.0 * (x1 - x0 + h1 - h0 + 1.0))
    best = -np.inf
    best_a = 0.0
    best_b = 0.0
    best_c = 0.0
    for _ in range(ROUNDS):
        bound, a, b = prices(basis, cost)
        top, xt, yt = _extreme(stations, warp, x0, x1, y0, slope, h0, h1, a, b, True)
        low, xl, yl = _extreme(stations, warp, x0, x1, y0, slope, h0, h1, a, b, False)
        if top - low > best:
            best = top - low
            best_a = a
            best_b = b
            best_c = low
        if bound - best < ENOUGH or not entered(basis, cost, a, b, top, xt, yt, low, xl, yl):
            break
    return best, best_a, best_b, best_c
