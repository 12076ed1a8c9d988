"""Kernels of relaxation.py: the most that segments hold for their width, aslant between
slanted edges, faults apart.

Kinds of strips, grains and marks are those of knapsack_kernel.py. `tables` are what strips hold of
each kind, kinds beside each other, one of any width, all together, the jumps of the second, pairs
of short strips; and the sizes of the kinds.
"""

import math

import numpy as np
from numba import njit

from vividplank.core.layout.bound.knapsack_kernel import LEVELS, short

#: In how many steps it is told for what share of a segment's length a strip that stands out over
#: the board's edge is on it.
_SHARES = 8


@njit(cache=True)
def _standing_out(n, n1, x, tables, marks):  # type: ignore[no-untyped-def]
    """What one strip over n1 cells and others over n hold, all within x marks; one at most is of
    any width.
    """
    values, full, one, both, at, _, sizes = tables
    best = 0.0
    for c in range(sizes.shape[0]):
        left = x - sizes[c] * marks
        if left < 0:
            break
        best = max(best, values[c, n1] + both[n, left])
    if one[n1, -1] > 0:
        for u in at[n]:
            left = x - u * marks
            if u < 0 or left < 0 or one[n1, left] <= 0:  # there is one
                break
            best = max(best, full[n, u] + one[n1, left])
    return best


@njit(cache=True)
def segment(n, x, tapered, sloped, least, tables, marks):  # type: ignore[no-untyped-def]
    """The most that a segment over n cells holds, however it is cut aslant; it is narrower than x +
    1 marks in the middle, with a kerf, between edges that may be slanted themselves.

    A strip that is on the board for a share s of the length, at an edge that departs from the
    segment's by d over it, gives (1/2 - s) d of room. `tapered` is how much the edges depart from
    each other over a cell: if that is all, the room is what the narrow end leaves and (1 - s) of
    the taper; a strip at the other edge, which is on it for no less, gives no more. `sloped` is the
    most that an edge can depart from a segment: so much is gained only by two strips whose shares
    come to less than 1. Beside two the others have what the narrow end leaves; more only where the
    outmost strips are narrower than an edge departs, so that they stand out as well. No blank, and
    so no strip, is over fewer than `least` cells.
    """
    both, pairs, sizes = tables[3], tables[5], tables[6]
    most = both.shape[1] - 1
    taper = tapered * max(0, n - 2)
    narrow_end = min(most, max(0, math.ceil(x - taper / 2)))
    best = both[n, narrow_end]
    for q in range(_SHARES if tapered > 0 else 0):
        share = max(q / _SHARES, (least - 2.0) / n)
        n1 = min(n, math.ceil((q + 1) / _SHARES * n) + 1)
        if n1 < least or share >= 1:
            continue
        room = min(
            most,
            max(0, math.ceil(x + (0.5 - share) * (taper if share >= 0.5 else tapered * (n + 1)))),
        )
        best = max(best, _standing_out(n, n1, room, tables, marks))
    for level in range(LEVELS if n >= 2 * least - 2 else 0):
        share1, share2, n1, _ = short(n, level, least)
        if not n1:
            continue
        room = math.ceil(x + (tapered / 2 + (1 - share1 - share2) * sloped) * (n + 1))
        outmost = math.ceil(x + sloped * (n + 1))
        beside_narrowest = math.ceil(x + tapered * (n + 1) / 2) - sizes[0] * marks
        for u in range(pairs.shape[2]):
            left = min(room - u * marks, max(narrow_end, beside_narrowest, outmost - u * marks))
            if left < 0:
                break
            if pairs[n, level, u] > 0:
                best = max(best, pairs[n, level, u] + both[n, left])
    return best


@njit(cache=True)
def segments(low, high, slopes, line, shortest, mark, kerf, tapered, sloped, least, tables, marks):  # type: ignore[no-untyped-def]
    """The most that segments over cells i..j hold: no more than their strips, nor than every line
    across them crosses (`line`, summed). `low` and `high` are the outline by cell over lines with
    these `slopes` (a cell), those of the edges as a whole.
    """
    cells = low.shape[0]
    found = np.zeros((cells + 1, cells + 1))
    known = np.full(tables[3].shape, -1.0)
    most = known.shape[1] - 1
    for j in range(1, cells + 1):
        end = min(j + 1, cells)
        top, bottom = high[end - 1], low[end - 1]
        for i in range(end - 2, -1, -1):
            top, bottom = max(top, high[i]), min(bottom, low[i])
            n = j - i
            if n < shortest:
                continue
            # It may lie a cell further on than from where its cells begin.
            middle = (slopes[1] - slopes[0]) * (i + end) / 2
            x = min(most, math.floor((top - bottom + middle + tapered * mark + kerf) / mark))
            if x < 0:
                continue
            if known[n, x] < 0:
                known[n, x] = segment(n, x, tapered, sloped, least, tables, marks)
            found[i, j] = min(known[n, x], line[end] - line[i])
    return found
