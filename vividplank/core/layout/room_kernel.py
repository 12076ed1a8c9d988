"""The compiled heart of room.py: knapsacks that are never below the truth, and what they chose.

Lengths are in steps, widths in grains and in marks, of which a grain has a whole number; those of parts are rounded down. A
kind of strip has the width of some part, or the least or greatest of some panel's staves; `first` is the first kind that is
wide enough for each part. Between two kinds a strip may have any width: what it holds then grows with the width, faster and
faster, so of two such strips one may give width to the other until one of them is of some kind, and nothing is lost. One of
any width to a segment is enough.
"""

import math

import numpy as np
from numba import njit

#: In how many steps it is told for what share of a segment's length a strip that stands out over the board's edge is on it.
_SHARES = 8
#: And for two strips that do, each over another edge.
_LEVELS = 6


@njit(cache=True)
def along(long, worth, most, first, staves, rooms):  # type: ignore[no-untyped-def]
    """What a strip of every kind holds at most in every room: kinds × rooms; and what it would just below the next kind's width.

    One of each part is `worth` so much, there are so many at `most`; `staves` says what one stave of every panel is worth in
    every kind, and just below the next: kinds × 2 × panels. The panels' lengths come behind those of the parts.
    """
    kinds, _, panels = staves.shape
    parts = worth.shape[0]
    steps = rooms[-1]
    found = np.zeros((2, kinds, rooms.shape[0]))
    best = np.zeros(steps + 1)
    at = 0
    for c in range(kinds):
        while at < parts and first[at] <= c:
            left, many = most[at], 1
            while left > 0 and worth[at] > 0:  # by twos: bounded, and as quick as unbounded
                many = min(many, left)
                for x in range(steps, many * long[at] - 1, -1):
                    best[x] = max(best[x], best[x - many * long[at]] + many * worth[at])
                left -= many
                many *= 2
            at += 1
        for below in range(2):
            with_staves = best.copy()
            for p in range(panels):
                if staves[c, below, p] > 0:
                    for x in range(long[parts + p], steps + 1):
                        with_staves[x] = max(with_staves[x], with_staves[x - long[parts + p]] + staves[c, below, p])
            for r in range(rooms.shape[0]):
                found[below, c, r] = with_staves[rooms[r]]
    return found[0], found[1]


@njit(cache=True)
def across(sizes, values, room):  # type: ignore[no-untyped-def]
    """What strips of these kinds beside each other are worth in every length and every width up to `room`: lengths × widths;
    `values` is kinds × lengths.
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
    """What one strip of any width holds at most: lengths × widths up to `room`, in marks as `wide` is, that of every kind. At
    x stands what it holds if it is narrower than x + 1. No stave is narrower than kind `free`.
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
    """For every length the widths at which strips beside each other become worth more (the rest: -1)."""
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
def _with_any(n, n1, x, others, full, one, at, marks):  # type: ignore[no-untyped-def]
    """Strips over n cells within `others` marks, and one of any width over n1, all within x: their worth, and the grains of the
    strips.
    """
    best, grains = 0.0, 0
    for u in at[n]:
        if u < 0 or u * marks > others:
            break
        v = full[n, u] + one[n1, x - u * marks]
        if v > best:
            best, grains = v, u
    return best, grains


@njit(cache=True)
def side_by_side(full, one, at, marks):  # type: ignore[no-untyped-def]
    """What strips beside each other hold, one of them perhaps of any width: lengths × widths in marks."""
    found = np.zeros(one.shape)
    for n in range(one.shape[0]):
        any_has = one[n, -1] > 0
        for x in range(one.shape[1]):
            found[n, x] = full[n, x // marks]
            if any_has:
                found[n, x] = max(found[n, x], _with_any(n, n, x, x, full, one, at, marks)[0])
    return found


@njit(cache=True)
def _standing_out(n, n1, x, others, values, full, one, both, at, sizes, marks):  # type: ignore[no-untyped-def]
    """One strip over n1 cells, the others over n within `others` marks, all within x: their worth, the kind of the one (-1: of
    any width), and the marks (then the grains) of the others.
    """
    best, kind, rest = 0.0, -2, 0
    for c in range(sizes.shape[0]):
        left = min(others, x - sizes[c] * marks)
        if left < 0:
            break
        if values[c, n1] + both[n, left] > best:
            best, kind, rest = values[c, n1] + both[n, left], c, left
    if one[n1, -1] > 0:
        v, grains = _with_any(n, n1, x, min(others, x), full, one, at, marks)
        if v > best:
            best, kind, rest = v, -1, grains
    return best, kind, rest


@njit(cache=True)
def _short(n, level, least):  # type: ignore[no-untyped-def]
    """Two strips, each over an edge of its own and not on the board over the whole length together: the least shares of a
    segment's length over which they are on it, and over how many cells at most (0: no blank goes in).
    """
    one, two = ((0, 0), (0, 1), (0, 2), (0, 3), (1, 1), (1, 2))[level]
    shortest = max(0.0, (least - 2.0) / n)
    share1, share2 = max(one / 4, shortest), max(two / 4, shortest)
    n1 = min(n, int(math.ceil((one + 1) / 4 * n)) + 1)
    n2 = min(n, int(math.ceil(min((two + 1) / 4, 1 - share1) * n)) + 1)
    fits = n1 >= least and n2 >= least and share1 + share2 < 1
    return share1, share2, (n1 if fits else 0), n2


@njit(cache=True)
def short_pairs(values, one, sizes, marks, least, room):  # type: ignore[no-untyped-def]
    """What two such strips hold: lengths × levels × grains."""
    kinds, lengths = values.shape
    found = np.zeros((lengths, _LEVELS, room + 1))
    for n in range(1, lengths):
        for level in range(_LEVELS):
            _, _, n1, n2 = _short(n, level, least)
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
                            best[sizes[c] + sizes[d]] = max(best[sizes[c] + sizes[d]], values[c, k] + values[d, m])
                    if any_has:
                        for u in range(sizes[c], room + 1):  # of any width, to the grain
                            if one[m, (u - sizes[c] + 1) * marks - 1] > 0:
                                best[u] = max(best[u], values[c, k] + one[m, (u - sizes[c] + 1) * marks - 1])
    return found


@njit(cache=True)
def segment(  # type: ignore[no-untyped-def]
    n, x, tapered, sloped, least, values, full, one, both, at, pairs, sizes, marks, way,
):
    """The most that a segment over n cells holds, however it is cut aslant; it is narrower than x + 1 marks in the middle, with
    a kerf, between edges that may be slanted themselves. `way` is written: over how many cells a strip that stands out over an
    edge is on the board, its kind (-2: none, -1: any width, -3: two of them), what is left for the others, and the marks for
    all (or the level and the grains of the two).

    A strip that is on the board for a share s of the length, at an edge that departs from the segment's by d over it, gives
    (1/2 - s) d of room. `tapered` is how much the edges depart from each other over a cell: if that is all, the room is what
    the narrow end leaves and (1 - s) of the taper; a strip at the other edge gives no more. `sloped` is the most that an edge
    can depart from a segment: so much is gained only by two strips whose shares come to less than 1. The others have what the
    narrow end leaves, or what the wide one does beside the narrowest strip. No blank, and so no strip, is over fewer than
    `least` cells.
    """
    most = both.shape[1] - 1
    taper = tapered * max(0, n - 2)
    room = min(most, max(0, int(math.ceil(x - taper / 2))))
    best = both[n, room]
    way[0], way[1], way[2], way[3], way[4] = 0, -2, room, room, 0
    wide_end = min(most, int(math.ceil(x + tapered * (n + 1) / 2)))
    others = max(room, wide_end - sizes[0] * marks)
    for q in range(_SHARES if tapered > 0 else 0):
        share = max(q / _SHARES, (least - 2.0) / n)
        n1 = min(n, int(math.ceil((q + 1) / _SHARES * n)) + 1)
        if n1 < least or share >= 1:
            continue
        room = min(most, max(0, int(math.ceil(x + (0.5 - share) * (taper if share >= 0.5 else tapered * (n + 1))))))
        v, kind, rest = _standing_out(n, n1, room, others, values, full, one, both, at, sizes, marks)
        if v > best:
            best = v
            way[0], way[1], way[2], way[3], way[4] = n1, kind, rest, room, 0
    for level in range(_LEVELS if n >= 2 * least - 2 else 0):
        share1, share2, n1, _ = _short(n, level, least)
        if not n1:
            continue
        room = int(math.ceil(x + (tapered / 2 + (1 - share1 - share2) * sloped) * (n + 1)))
        outmost = int(math.ceil(x + sloped * (n + 1)))
        for u in range(pairs.shape[2]):
            # Somewhere between the two a line crosses only the others; they stand out where the two are narrower than that.
            left = min(wide_end, room - u * marks, max(others, outmost - u * marks))
            if left < 0:
                break
            if pairs[n, level, u] > 0 and pairs[n, level, u] + both[n, left] > best:
                best = pairs[n, level, u] + both[n, left]
                way[0], way[1], way[2], way[3], way[4] = 0, -3, left, level, u
    return best


@njit(cache=True)
def segments(  # type: ignore[no-untyped-def]
    low, high, slopes, line, shortest, mark, kerf, tapered, sloped, least, values, full, one, both, at, pairs,
    sizes, marks,
):
    """The most that segments in a row are worth, and for every cell where the segment that ends there begins (-1: none does)
    and its width in the middle in marks (-1: its lines tell).

    A segment over cells i..j is worth no more than its strips, nor than what every line across it crosses (`line`, summed).
    `low` and `high` are the outline by cell over lines with these `slopes` (a cell), which are those of the edges as a whole.
    """
    cells = low.shape[0]
    best = np.zeros(cells + 1)
    came = np.full((cells + 1, 2), -1, dtype=np.int64)
    known = np.full((values.shape[1], both.shape[1]), -1.0)
    way = np.zeros(5, dtype=np.int64)
    most = both.shape[1] - 1
    for j in range(1, cells + 1):
        best[j] = best[j - 1]
        end = min(j + 1, cells)
        top, bottom = high[end - 1], low[end - 1]
        for i in range(end - 2, -1, -1):
            top, bottom = max(top, high[i]), min(bottom, low[i])
            n = j - i
            crossed = line[end] - line[i]
            if n < shortest or best[i] + crossed <= best[j]:
                continue
            # It may lie a cell further on than from where its cells begin.
            middle = (slopes[1] - slopes[0]) * (i + end) / 2
            x = min(most, int(math.floor((top - bottom + middle + tapered * mark + kerf) / mark)))
            if x < 0:
                continue
            if known[n, x] < 0:
                known[n, x] = segment(n, x, tapered, sloped, least, values, full, one, both, at, pairs, sizes, marks, way)
            here = min(known[n, x], crossed)
            if best[i] + here > best[j]:
                best[j] = best[i] + here
                came[j] = i, (x if known[n, x] <= crossed else -1)
    return best[cells], came


@njit(cache=True)
def strips_of(n, least, way, values, full, one, at, sizes, marks):  # type: ignore[no-untyped-def]
    """The strips of a segment: rows of kind (-1: any width), cells and, for any width, marks."""
    found = np.zeros((full.shape[1] + 3, 3), dtype=np.int64)
    k, grains = 0, way[2]
    if way[1] == -3:
        k = _pair_of(found, n, way[3], way[4], least, values, one, sizes, marks)
    elif way[1] == -1:
        found[0] = (-1, way[0], way[3] - way[2] * marks)
        k = 1
    elif way[1] >= 0:
        found[0] = (way[1], way[0], 0)
        k = 1
    if way[1] != -1:
        grains = way[2] // marks
        v, u = _with_any(n, n, way[2], way[2], full, one, at, marks)
        if v > full[n, grains]:
            found[k], grains = (-1, n, way[2] - u * marks), u
            k += 1
    while grains > 0 and full[n, grains] > 0:
        # the last strip that reaches this worth, in the least width
        while grains > 0 and full[n, grains - 1] == full[n, grains]:
            grains -= 1
        for c in range(sizes.shape[0]):
            if sizes[c] <= grains and full[n, grains - sizes[c]] + values[c, n] == full[n, grains]:
                found[k, 0], found[k, 1] = c, n
                k += 1
                grains -= sizes[c]
                break
        else:
            break
    return found[:k]


@njit(cache=True)
def _pair_of(found, n, level, grains, least, values, one, sizes, marks):  # type: ignore[no-untyped-def]
    """Write the two strips of short_pairs that are worth most in so many grains; how many they are."""
    _, _, n1, n2 = _short(n, level, least)
    best = 0.0
    for k, m in ((n1, n2), (n2, n1)):
        for c in range(sizes.shape[0]):
            for d in range(sizes.shape[0]):
                if sizes[c] + sizes[d] == grains and values[c, k] + values[d, m] > best:
                    best = values[c, k] + values[d, m]
                    found[0], found[1] = (c, k, 0), (d, m, 0)
            left = (grains - sizes[c] + 1) * marks - 1
            if left > 0 and one[m, left] > 0 and values[c, k] + one[m, left] > best:
                best = values[c, k] + one[m, left]
                found[0], found[1] = (c, k, 0), (-1, m, left)
    return 2


@njit(cache=True)
def strip_counts(long, worth, most, room):  # type: ignore[no-untyped-def]
    """How many of each are in the best strip of one kind, `room` steps long."""
    things = long.shape[0]
    best = np.zeros((things + 1, room + 1))
    many = np.zeros((things, room + 1), dtype=np.int64)
    for i in range(things):
        best[i + 1] = best[i]
        if worth[i] <= 0:
            continue
        for x in range(long[i], room + 1):
            for m in range(1, min(most[i], x // long[i]) + 1):
                if best[i, x - m * long[i]] + m * worth[i] > best[i + 1, x]:
                    best[i + 1, x] = best[i, x - m * long[i]] + m * worth[i]
                    many[i, x] = m
    found = np.zeros(things, dtype=np.int64)
    x = room
    for i in range(things - 1, -1, -1):
        found[i] = many[i, x]
        x -= many[i, x] * long[i]
    return found
