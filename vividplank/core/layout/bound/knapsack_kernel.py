"""Kernels of relaxation.py: knapsacks that are never below the truth, and what they chose.

Lengths are in steps, widths in grains and in marks, of which a grain has a whole number; those of
parts are rounded down. A kind of strip has the width of some part, or the least or greatest of some
panel's staves; `first` is the first kind that is wide enough for each part. Between two kinds a
strip may have any width: what it holds then grows with the width, faster and faster, so of two such
strips one may give width to the other until one of them is of some kind, and nothing is lost. One
of any width to a segment is enough.
"""

import math

import numpy as np
from numba import njit

#: Levels of the shares of a segment's length over which two strips that stand out over its edges
#: are on the board.
LEVELS = 6


@njit(cache=True)
def along(long, profits, most, first, staves, relaxation):  # type: ignore[no-untyped-def]
    """What a strip of every kind holds at most in every room: kinds × rooms; and what just below
    the next kind's width.

    One of each part is `worth` so much, there are so many at `most`; `staves` says what one stave
    of every panel is worth in every kind, and just below the next: kinds × 2 × panels. The panels'
    lengths come behind those of the parts.
    """
    kinds, _, panels = staves.shape
    parts = profits.shape[0]
    steps = relaxation[-1]
    found = np.zeros((2, kinds, relaxation.shape[0]))
    best = np.zeros(steps + 1)
    at = 0
    for c in range(kinds):
        while at < parts and first[at] <= c:
            left, many = most[at], 1
            while left > 0 and profits[at] > 0:  # by twos: bounded, and as quick as unbounded
                many = min(many, left)
                for x in range(steps, many * long[at] - 1, -1):
                    best[x] = max(best[x], best[x - many * long[at]] + many * profits[at])
                left -= many
                many *= 2
            at += 1
        for below in range(2):
            with_staves = best.copy()
            for p in range(panels):
                if staves[c, below, p] > 0:
                    for x in range(long[parts + p], steps + 1):
                        with_staves[x] = max(
                            with_staves[x], with_staves[x - long[parts + p]] + staves[c, below, p]
                        )
            for r in range(relaxation.shape[0]):
                found[below, c, r] = with_staves[relaxation[r]]
    return found[0], found[1]


@njit(cache=True)
def across(sizes, values, room):  # type: ignore[no-untyped-def]
    """What strips of these kinds beside each other are worth in every length and every width up to
    `room`: lengths × widths; `values` is kinds × lengths.
    """
    found = np.zeros((values.shape[1], room + 1))
    for n in range(values.shape[1]):
        best, before = found[n], 0.0
        for c in range(sizes.shape[0]):
            v, wide = values[c, n], sizes[c]
            if v > before:  # a narrower kind gives as much
                before = v
                for x in range(wide, room + 1):
                    best[x] = max(best[x], best[x - wide] + v)
    return found


@njit(cache=True)
def any_width(found, below, wide, free, room):  # type: ignore[no-untyped-def]
    """What one strip of any width holds at most: lengths × widths up to `room`, in marks as `wide`
    is, that of every kind. At x stands what it holds if it is narrower than x + 1. No stave is
    narrower than kind `free`.
    """
    kinds, lengths = found.shape
    values = np.zeros((lengths, room + 1))
    for c in range(free, kinds):
        end = min(room, int(wide[c + 1]) if c + 1 < kinds else room)
        for x in range(int(wide[c]), end + 1):
            share = min(1.0, (x + 1 - wide[c]) / (wide[c + 1] - wide[c])) if c + 1 < kinds else 0.0
            for n in range(lengths):
                values[n, x] = max(values[n, x], found[c, n] + share * (below[c, n] - found[c, n]))
    for x in range(1, room + 1):
        values[:, x] = np.maximum(values[:, x], values[:, x - 1])
    return values


@njit(cache=True)
def jumps(full):  # type: ignore[no-untyped-def]
    """For every length the widths at which strips beside each other become worth more (the rest:
    -1).
    """
    lengths, room = full.shape
    found = np.full((lengths, room + 1), -1, dtype=np.int64)
    for n in range(lengths):
        k = 0
        for u in range(room):
            if u == 0 or full[n, u] > full[n, u - 1]:
                found[n, k] = u
                k += 1
    return found


@njit(cache=True)
def with_any(n, x, full, one, at, marks):  # type: ignore[no-untyped-def]
    """Strips over n cells, one of them of any width, within x marks: their worth, and the grains of
    the others.
    """
    best, grains = 0.0, 0
    for u in at[n]:
        if u < 0 or u * marks > x:
            break
        v = full[n, u] + one[n, x - u * marks]
        if v > best:
            best, grains = v, u
    return best, grains


@njit(cache=True)
def side_by_side(full, one, at, marks):  # type: ignore[no-untyped-def]
    """What strips beside each other hold, one of them perhaps of any width: lengths × widths in
    marks.
    """
    found = np.zeros(one.shape)
    for n in range(one.shape[0]):
        any_has = one[n, -1] > 0
        for x in range(one.shape[1]):
            found[n, x] = full[n, x // marks]
            if any_has:
                found[n, x] = max(found[n, x], with_any(n, x, full, one, at, marks)[0])
    return found


@njit(cache=True)
def short(n, level, least):  # type: ignore[no-untyped-def]
    """Two strips, each over an edge of its own and not on the board over the whole length together:
    the least shares of a segment's length over which they are on it, and over how many cells at
    most (0: no blank goes in).
    """
    one, two = ((0, 0), (0, 1), (0, 2), (0, 3), (1, 1), (1, 2))[level]
    shortest = max(0.0, (least - 2.0) / n)
    share1, share2 = max(one / 4, shortest), max(two / 4, shortest)
    n1 = min(n, math.ceil((one + 1) / 4 * n) + 1)
    n2 = min(n, math.ceil(min((two + 1) / 4, 1 - share1) * n) + 1)
    fits = n1 >= least and n2 >= least and share1 + share2 < 1
    return share1, share2, (n1 if fits else 0), n2


@njit(cache=True)
def short_pairs(values, one, sizes, marks, least, room):  # type: ignore[no-untyped-def]
    """What two such strips hold: lengths × levels × grains."""
    kinds, lengths = values.shape
    found = np.zeros((lengths, LEVELS, room + 1))
    for n in range(1, lengths):
        for level in range(LEVELS):
            _, _, n1, n2 = short(n, level, least)
            if not n1:
                continue
            best = found[n, level]
            for k, m in ((n1, n2), (n2, n1)):
                any_has = one[m, -1] > 0
                for c in range(kinds):
                    if values[c, k] <= 0:
                        continue
                    for d in range(kinds):
                        if sizes[c] + sizes[d] <= room and values[d, m] > 0:
                            best[sizes[c] + sizes[d]] = max(
                                best[sizes[c] + sizes[d]], values[c, k] + values[d, m]
                            )
                    if any_has:
                        for u in range(sizes[c], room + 1):  # of any width, to the grain
                            if one[m, (u - sizes[c] + 1) * marks - 1] > 0:
                                best[u] = max(
                                    best[u], values[c, k] + one[m, (u - sizes[c] + 1) * marks - 1]
                                )
    return found


@njit(cache=True)
def strip_counts(long, profits, most, room):  # type: ignore[no-untyped-def]
    """How many of each are in the best strip of one kind, `room` steps long."""
    things = long.shape[0]
    best = np.zeros((things + 1, room + 1))
    many = np.zeros((things, room + 1), dtype=np.int64)
    for i in range(things):
        best[i + 1] = best[i]
        if profits[i] <= 0:
            continue
        for x in range(long[i], room + 1):
            for m in range(1, min(most[i], x // long[i]) + 1):
                if best[i, x - m * long[i]] + m * profits[i] > best[i + 1, x]:
                    best[i + 1, x] = best[i, x - m * long[i]] + m * profits[i]
                    many[i, x] = m
    found = np.zeros(things, dtype=np.int64)
    x = room
    for i in range(things - 1, -1, -1):
        found[i] = many[i, x]
        x -= many[i, x] * long[i]
    return found
