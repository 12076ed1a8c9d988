"""Kernels of the pass simulation; see simulate.py for what it computes."""

import numpy as np
from numba import njit

_ROUNDS = 80
#: Ticks; a point this little under the plane counts as touching it.
_TOUCH = 1e-6


@njit(cache=True)
def _rest(xs, ys, heights, first, last, xq):  # type: ignore[no-untyped-def]
    """The highest plane under all heights of columns first..last, measured at xq in the middle of
    the width.

    That is how a rigid piece pressed down there rests. A dual simplex with three touching points
    round the pressed one. Gives value at the middle of the width in xq, slopes along and across.
    """
    m = len(ys)
    yq = (ys[0] + ys[m - 1]) / 2
    on = first
    for k in range(first, last + 1):
        if abs(xs[k] - xq) < abs(xs[on] - xq):
            on = k
    px = np.array([xs[first], xs[last], xs[on]])
    py = np.array([ys[0], ys[0], ys[m - 1]])
    pz = np.array([heights[first, 0], heights[last, 0], heights[on, m - 1]])
    if on in (first, last):  # pressed at an end: lean on the far corner of that end
        px[2] = xs[on]
    c = a = b = 0.0
    for _ in range(_ROUNDS):
        det = (px[1] - px[0]) * (py[2] - py[0]) - (px[2] - px[0]) * (py[1] - py[0])
        a = ((pz[1] - pz[0]) * (py[2] - py[0]) - (pz[2] - pz[0]) * (py[1] - py[0])) / det
        b = ((px[1] - px[0]) * (pz[2] - pz[0]) - (px[2] - px[0]) * (pz[1] - pz[0])) / det
        c = pz[0] + a * (xq - px[0]) + b * (yq - py[0])
        worst, wi, wj = -_TOUCH, -1, -1
        for i in range(first, last + 1):
            line = c + a * (xs[i] - xq)
            for j in range(m):
                gap = heights[i, j] - line - b * (ys[j] - yq)
                if gap < worst:
                    worst, wi, wj = gap, i, j
        if wi < 0:
            return c, a, b
        nx, ny = xs[wi], ys[wj]
        leave, least = -1, 1e300
        for k in range(3):
            u, v = (k + 1) % 3, (k + 2) % 3
            mine = ((px[v] - px[u]) * (yq - py[u]) - (xq - px[u]) * (py[v] - py[u])) / det
            new = ((px[v] - px[u]) * (ny - py[u]) - (nx - px[u]) * (py[v] - py[u])) / det
            if new > 1e-12 and mine / new < least:
                leave, least = k, mine / new
        if leave < 0:
            break
        px[leave], py[leave], pz[leave] = nx, ny, heights[wi, wj]
    # Not settled: let it down until nothing stands in it.
    drop = 0.0
    for i in range(first, last + 1):
        for j in range(m):
            drop = min(drop, heights[i, j] - c - a * (xs[i] - xq) - b * (ys[j] - yq))
    return c + drop, a, b


@njit(cache=True)
def joint(xs, ys, lower, depth, hand, outfeed):  # type: ignore[no-untyped-def]
    """The underside after one pass over a jointer, the end xs[0] first.

    What has passed the cutter rests on the outfeed table, level with the cutter; the rest on the
    infeed table, lower by depth. `hand` is how far from the cutter it is pressed: over the outfeed
    table as soon as that much has passed, or over the infeed table to the end.
    """
    n, m = lower.shape
    done = lower.copy()
    heights = lower + depth
    last = n - 1
    for i in range(n):
        over_outfeed = outfeed and xs[i] - xs[0] > 2 * hand
        xq = xs[i] - hand if over_outfeed else min(xs[i] + hand, xs[last])
        c, a, b = _rest(xs, ys, heights, 0, last, xq)
        for j in range(m):
            cutter = c + a * (xs[i] - xq) + b * (ys[j] - (ys[0] + ys[m - 1]) / 2)
            done[i, j] = max(lower[i, j], cutter)
            heights[i, j] = done[i, j]
    return done


@njit(cache=True)
def plane(xs, ys, lower, upper, setting, span):  # type: ignore[no-untyped-def]
    """The upper face after one pass through a thickness planer: between its rollers, `span` apart,
    the piece is pressed onto the bed and what stands higher over the bed than the setting is cut;
    beyond them it may bend as it likes.
    """
    n, m = lower.shape
    done = upper.copy()
    first = last = 0
    for i in range(n):
        while xs[i] - xs[first] > span / 2:
            first += 1
        while last < n - 1 and xs[last + 1] - xs[i] <= span / 2:
            last += 1
        a0, a1 = (first, last) if last > first else (max(0, i - 1), min(n - 1, i + 1))
        c, _, b = _rest(xs, ys, lower, a0, a1, xs[i])
        for j in range(m):
            done[i, j] = min(upper[i, j], c + b * (ys[j] - (ys[0] + ys[m - 1]) / 2) + setting)
    return done


@njit(cache=True)
def level(xs, ys, lower, upper):  # type: ignore[no-untyped-def]
    """Thickness between the highest place of the underside and the lowest of the upperside, over
    the bed it rests on.
    """
    n, m = lower.shape
    xq = (xs[0] + xs[n - 1]) / 2
    c, a, b = _rest(xs, ys, lower, 0, n - 1, xq)
    high, low = -1e300, 1e300
    for i in range(n):
        for j in range(m):
            bed = c + a * (xs[i] - xq) + b * (ys[j] - (ys[0] + ys[m - 1]) / 2)
            high = max(high, lower[i, j] - bed)
            low = min(low, upper[i, j] - bed)
    return low - high
