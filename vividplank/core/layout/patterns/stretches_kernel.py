"""The compiled geometry of stretches of a board: how wide each is clear, which faults lie in it,
how much of it they leave.

`outline` has rows x, y0, y1 for every station, `faults` rows x0, x1, y0, y1 for every unsound
fault, in ticks, sorted by x0.
"""

import math

import numpy as np
from numba import njit


@njit(cache=True)
def _edges(outline, x):  # type: ignore[no-untyped-def]
    at = 1
    while at < outline.shape[0] - 1 and outline[at, 0] <= x:
        at += 1
    share = (x - outline[at - 1, 0]) / (outline[at, 0] - outline[at - 1, 0])
    low = outline[at - 1, 1] + share * (outline[at, 1] - outline[at - 1, 1])
    return low, outline[at - 1, 2] + share * (outline[at, 2] - outline[at - 1, 2])


@njit(cache=True)
def _reach(outline, y0, slope, x0, x1):  # type: ignore[no-untyped-def]
    """From where to where over a line that passes y0 at x0 the board reaches, all the way to x1."""
    low, high = -np.inf, np.inf
    for k in range(-2, outline.shape[0]):
        x = x0 if k == -2 else (x1 if k == -1 else outline[k, 0])
        if k >= 0 and not x0 < x < x1:
            continue
        lower, upper = _edges(outline, x)
        line = y0 + slope * (x - x0)
        low, high = max(low, lower - line), min(high, upper - line)
    return math.ceil(low), math.floor(high)


@njit(cache=True)
def widest_bands(outline, x0, ends, most):  # type: ignore[no-untyped-def]
    """For stretches from x0 to each of `ends` the reference line (y0, slope) over which each is
    widest, and that width; of equals the flattest. A width of 0 says that nothing is clear. No
    slope is more than `most`.
    """
    lines = np.zeros(ends.shape[0], dtype=np.int64)
    slopes = np.zeros(ends.shape[0])
    highs = np.zeros(ends.shape[0], dtype=np.int64)
    low0, high0 = _edges(outline, x0)
    for r in range(ends.shape[0]):
        low1, high1 = _edges(outline, ends[r])
        lower, upper = (low1 - low0) / (ends[r] - x0), (high1 - high0) / (ends[r] - x0)
        for slope in (0.0, lower, upper, (lower + upper) / 2):
            slope = min(max(slope, -most), most)
            if abs(slope) < most:  # as it is written in a plan
                slope = round(slope * 1e6) / 1e6
            y0, _ = _reach(outline, 0.0, slope, x0, ends[r])
            _, high = _reach(outline, float(y0), slope, x0, ends[r])
            if high > highs[r] or (high == highs[r] > 0 and abs(slope) < abs(slopes[r])):
                lines[r], slopes[r], highs[r] = y0, slope, high
    return lines, slopes, highs


@njit(cache=True)
def faults_over(faults, x0, ends, lines, slopes, highs, mark, step, most):  # type: ignore[no-untyped-def]
    """Unsound faults within every stretch, at most `most` of them: bottom and top over its line in
    grains of `mark`, beginning and end in steps from x0.
    """
    found = np.zeros((ends.shape[0], most, 4), dtype=np.int64)
    for r in range(ends.shape[0]):
        k = 0
        if highs[r] <= 0:
            continue
        for f in range(faults.shape[0]):
            fx0, fx1, fy0, fy1 = faults[f]
            if fx1 <= x0:
                continue
            if fx0 >= ends[r] or k >= most:
                break
            one = lines[r] + slopes[r] * (max(fx0, x0) - x0)
            two = lines[r] + slopes[r] * (min(fx1, ends[r]) - x0)
            low, high = (
                math.floor((fy0 - max(one, two)) / mark),
                math.ceil((fy1 - min(one, two)) / mark),
            )
            if high > 0:
                found[r, k, 0], found[r, k, 1] = max(low, -1), high
                found[r, k, 2], found[r, k, 3] = (
                    max(0, math.floor((fx0 - x0) / step)),
                    math.ceil((fx1 - x0) / step),
                )
                k += 1
    return found


@njit(cache=True)
def free_areas(outline, faults, starts, end, kerf):  # type: ignore[no-untyped-def]
    """Area from each of `starts` to `end` that no fault spoils, with a kerf at its upper side."""
    found = np.zeros(starts.shape[0])
    for r in range(starts.shape[0]):
        x0 = starts[r]
        if end <= x0:
            continue
        low, high = _edges(outline, (x0 + end) // 2)
        area = (end - x0) * (high - low + kerf)
        for f in range(faults.shape[0]):
            fx0, fx1, fy0, fy1 = faults[f]
            if fx1 > x0 and fx0 < end:
                area -= (min(fx1, end) - max(fx0, x0)) * max(0.0, min(fy1, high) - max(fy0, low))
        found[r] = max(0.0, area)
    return found
