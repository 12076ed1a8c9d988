"""The compiled heart of room.py: the most that segments hold, aslant between slanted edges and with faults in their way.

Kinds of strips, grains and marks are those of room_kernel.py. `tables` are what strips hold of each kind, kinds beside each
other, one of any width, all together, the jumps of the second, pairs of short strips, strips with a part over a fault (by what
may lie there) of each kind and of any width; and the sizes of the kinds.
"""

import math

import numpy as np
from numba import njit

from vividplank.core.layout.room_kernel import LEVELS, short, with_any

#: In how many steps it is told for what share of a segment's length a strip that stands out over the board's edge is on it.
_SHARES = 8
#: How a segment is filled, and what stands in its `way` then (cells, how, a, b, c, cells):
#: strips beside each other within a marks;
PLAIN = -2
#: and one of a kind (how is the kind) that stands out, over so many cells; or one of any width, of b marks less a grains;
_ANY = -1
#: and two that stand out, of level b and c grains;
_PAIR = -3
#: below a fault within a marks, above it within c, and in its way within b, over the cells before and the cells behind it;
_SPLIT = -4
#: with one of kind b (or _ANY, of c marks) in which a part lies over a fault.
_OVER = -6


@njit(cache=True)
def _standing_out(n, n1, x, tables, marks):  # type: ignore[no-untyped-def]
    """One strip over n1 cells, the others over n, all within x marks: their worth, the kind of the one (_ANY: of any width, and
    so none of the others), and the marks (then the grains) of the others.
    """
    values, full, one, both, at, _, _, _, sizes = tables
    best, kind, rest = 0.0, PLAIN, 0
    for c in range(sizes.shape[0]):
        left = x - sizes[c] * marks
        if left < 0:
            break
        if values[c, n1] + both[n, left] > best:
            best, kind, rest = values[c, n1] + both[n, left], c, left
    if one[n1, -1] > 0:
        for u in at[n]:
            left = x - u * marks
            if u < 0 or left < 0 or one[n1, left] <= 0:  # there is one
                break
            if full[n, u] + one[n1, left] > best:
                best, kind, rest = full[n, u] + one[n1, left], _ANY, u
    return best, kind, rest


@njit(cache=True)
def _spoilt(n, x, out, most, spoils, spoilt, tables, marks, way):  # type: ignore[no-untyped-def]
    """The most that a segment over n cells and x marks holds for the faults in its way, one at a time; a strip stands out over
    its edges by `out` marks at most, and without faults it holds `most`. Of every fault it is told how many marks are below and
    above it, how many cells before and behind it, and what parts may lie over it (-1: none; else a place in `over`).

    Some strips lie below and above the fault; the others hold what goes before and behind it. Or a part lies over it.
    """
    _, full, _, both, at, _, over, one_over, sizes = tables
    least = most
    for f in range(spoils):
        below, above, before, behind, may = spoilt[f]
        low, high = min(x, below + out), min(x, above + out)
        clear = (both[n, low] if low >= 0 else 0.0) + (both[n, high] if high >= 0 else 0.0)
        best, how, rest, kind, wide = 0.0, _SPLIT, 0, 0, 0
        beside = min(x, max(0, low) + max(0, high) + 1)
        all_clear = min(beside, np.searchsorted(both[n, : x + 1], clear))  # more room beside the fault gives no more
        # Worths grow by pieces that bend upward, between grains from either side: at one of these is the most.
        for u in range(-2, 2 * (x // marks + 1)):
            room = u // 2 * marks if u % 2 else x - u // 2 * marks
            if u < 0:
                room = beside if u % 2 else all_clear
            if room > beside or best >= least:
                continue
            left = x - room
            v = (both[before, left] if before >= 0 else 0.0) + (both[behind, left] if behind >= 0 else 0.0)
            v += min(clear, both[n, room])
            if v > best:
                best, rest, kind, wide = v, room, left, 1 if both[n, room] > clear else 0
        if wide:
            rest, wide = low, max(0, high)
        if may >= 0 and best < least:
            for c in range(sizes.shape[0]):
                left = x - sizes[c] * marks
                if left < 0:
                    break
                v = over[may, c, n] + both[n, left]
                if over[may, c, n] > 0 and v > best:
                    best, how, rest, kind, wide = v, _OVER, left, c, 0
            if one_over[may, n, -1] > 0:
                for u in at[n]:
                    left = x - u * marks
                    if u < 0 or left < 0:
                        break
                    v = one_over[may, n, left] + full[n, u]
                    if one_over[may, n, left] > 0 and v > best:
                        best, how, rest, kind, wide = v, _OVER, u * marks, _ANY, left
        if best < least:
            least = best
            way[0], way[1], way[2], way[3], way[4], way[5] = before, how, rest, kind, wide, behind
    return least


@njit(cache=True)
def segment(n, x, tapered, sloped, least, spoils, spoilt, floor, tables, marks, way):  # type: ignore[no-untyped-def]
    """The most that a segment over n cells holds, however it is cut aslant; it is narrower than x + 1 marks in the middle, with
    a kerf, between edges that may be slanted themselves. What is no more than `floor` is not told apart. `way` is written, for
    strips_of.

    A strip that is on the board for a share s of the length, at an edge that departs from the segment's by d over it, gives
    (1/2 - s) d of room. `tapered` is how much the edges depart from each other over a cell: if that is all, the room is what
    the narrow end leaves and (1 - s) of the taper; a strip at the other edge, which is on it for no less, gives no more.
    `sloped` is the most that an edge can depart from a segment: so much is gained only by two strips whose shares come to less
    than 1. Beside two the others have what the narrow end leaves; more only where the outmost strips are narrower than an edge
    departs, so that they stand out as well. No blank, and so no strip, is over fewer than `least` cells.
    """
    both, pairs, sizes = tables[3], tables[5], tables[8]
    most = both.shape[1] - 1
    taper = tapered * max(0, n - 2)
    room = min(most, max(0, math.ceil(x - taper / 2)))
    best = both[n, room]
    way[0], way[1], way[2], way[3], way[4] = 0, PLAIN, room, room, 0
    spoilt_way = way.copy()
    if best <= floor:
        best = floor
    elif spoils:
        v = _spoilt(n, room, 0, best, spoils, spoilt, tables, marks, spoilt_way)
        if v < best:
            best = max(floor, v)
            way[:] = spoilt_way
    narrow_end = room
    for q in range(_SHARES if tapered > 0 or spoils else 0):
        share = max(q / _SHARES, (least - 2.0) / n)
        n1 = min(n, math.ceil((q + 1) / _SHARES * n) + 1)
        if n1 < least or share >= 1:
            continue
        room = min(most, max(0, math.ceil(x + (0.5 - share) * (taper if share >= 0.5 else tapered * (n + 1)))))
        v, kind, rest = _standing_out(n, n1, room, tables, marks)
        if v <= best:
            continue
        if spoils:
            out = math.ceil((1 - share) * sloped * (n + 1))
            most_here = _spoilt(n, room, out, v, spoils, spoilt, tables, marks, spoilt_way)
            if most_here < v:
                if most_here > best:
                    best = most_here
                    way[:] = spoilt_way
                continue
        best = v
        way[0], way[1], way[2], way[3], way[4] = n1, kind, rest, room, 0
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
            if pairs[n, level, u] > 0 and pairs[n, level, u] + both[n, left] > best:
                best = pairs[n, level, u] + both[n, left]
                way[0], way[1], way[2], way[3], way[4] = 0, _PAIR, left, level, u
    return best


@njit(cache=True)
def in_the_way(i, j, low, high, slopes, faults, mark, kerf, slope, late, least, spoilt):  # type: ignore[no-untyped-def]
    """Write of every fault that lies within a segment over cells i..j, wherever in them it begins and ends, what _spoilt asks;
    how many they are. `faults` has rows of bottom, top, beginning and end (in cells), and what may lie over it; `kerf` is in
    ticks, `late` that of crosscuts in cells, and the segment rises by `slope` ticks a cell at most.
    """
    many = 0
    for f in range(faults.shape[0]):
        y0, y1, begins, ends, may = faults[f]
        begins, ends = max(begins, i + 1.0), min(ends, j - late)
        if ends <= begins:
            continue
        # A strip in the way of what is left of the fault at this line is so all along it.
        cell = min(max(int((begins + ends) / 2), 0), low.shape[0] - 1)
        lean = slope * max(cell + 1 - begins, ends - cell)
        y0, y1 = y0 + lean, y1 - lean
        if y1 <= y0:
            continue
        bottom = low[cell] + min(slopes[0] * cell, slopes[0] * (cell + 1))
        top = high[cell] + max(slopes[1] * cell, slopes[1] * (cell + 1))
        spoilt[many, 0] = math.floor((y0 - bottom + kerf) / mark)
        spoilt[many, 1] = math.floor((top - y1 + kerf) / mark)
        before, behind = math.ceil(begins + late - i) - 1, math.ceil(j + 1 - ends) - 1
        spoilt[many, 2] = before if before + 1 >= least else -1  # no blank is shorter
        spoilt[many, 3] = behind if behind + 1 >= least else -1
        spoilt[many, 4] = int(may)
        many += 1
    return many


@njit(cache=True)
def segments(  # type: ignore[no-untyped-def]
    low, high, slopes, faults, line, shortest, mark, kerf, late, slope, tapered, sloped, least, tables, marks,
):
    """The most that segments in a row are worth, and for every cell where the segment that ends there begins (-1: none does)
    and its width in the middle in marks (-1: its lines tell).

    A segment over cells i..j is worth no more than its strips, nor than what every line across it crosses (`line`, summed).
    `low` and `high` are the outline by cell over lines with these `slopes` (a cell), which are those of the edges as a whole.
    """
    cells = low.shape[0]
    best = np.zeros(cells + 1)
    came = np.full((cells + 1, 2), -1, dtype=np.int64)
    known = np.full(tables[3].shape, -1.0)
    way = np.zeros(6, dtype=np.int64)
    spoilt = np.zeros((faults.shape[0], 5), dtype=np.int64)
    most = known.shape[1] - 1
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
            x = min(most, math.floor((top - bottom + middle + tapered * mark + kerf) / mark))
            if x < 0:
                continue
            if known[n, x] < 0:
                known[n, x] = segment(n, x, tapered, sloped, least, 0, spoilt, 0.0, tables, marks, way)
            here = min(known[n, x], crossed)
            if best[i] + here <= best[j]:
                continue
            spoils = in_the_way(i, j, low, high, slopes, faults, mark, kerf, slope, late, least, spoilt)
            if spoils:
                here = min(crossed, segment(
                    n, x, tapered, sloped, least, spoils, spoilt, best[j] - best[i], tables, marks, way))
            if best[i] + here > best[j]:
                best[j] = best[i] + here
                came[j] = i, (x if here < crossed else -1)
    return best[cells], came


@njit(cache=True)
def strips_of(n, least, way, values, full, one, at, sizes, marks):  # type: ignore[no-untyped-def]
    """The strips of a segment: rows of kind (_ANY: any width), cells and, for any width, marks."""
    found = np.zeros((4 * full.shape[1] + 8, 3), dtype=np.int64)
    k = 0
    if way[1] == _PAIR:
        k = _pair_of(found, n, way[3], way[4], least, values, one, sizes, marks)
    elif way[1] == _SPLIT:
        for cells, x in ((way[0], way[3]), (way[5], way[3]), (n, way[4])):
            if cells >= 0:
                k = _beside(found, k, cells, x, full, one, at, values, sizes, marks)
    elif way[1] == _OVER:
        found[0] = (way[3], n, way[4])
        k = 1
    elif way[1] >= _ANY:
        found[0] = (way[1], way[0], way[3] - way[2] * marks if way[1] == _ANY else 0)
        k = 1
    if way[1] == _ANY:
        k = _kinds(found, k, n, way[2], full, values, sizes)
    elif way[2] >= 0:
        k = _beside(found, k, n, way[2], full, one, at, values, sizes, marks)
    return found[:k]


@njit(cache=True)
def _beside(found, k, n, x, full, one, at, values, sizes, marks):  # type: ignore[no-untyped-def]
    """Write the strips beside each other within x marks, one of them perhaps of any width; how many there are then."""
    if x < 0:
        return k
    grains = x // marks
    v, u = with_any(n, x, full, one, at, marks)
    if v > full[n, grains]:
        found[k], grains = (_ANY, n, x - u * marks), u
        k += 1
    return _kinds(found, k, n, grains, full, values, sizes)


@njit(cache=True)
def _kinds(found, k, n, grains, full, values, sizes):  # type: ignore[no-untyped-def]
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
    return k


@njit(cache=True)
def _pair_of(found, n, level, grains, least, values, one, sizes, marks):  # type: ignore[no-untyped-def]
    """Write the two strips of short_pairs that are worth most in so many grains; how many they are."""
    _, _, n1, n2 = short(n, level, least)
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
                found[0], found[1] = (c, k, 0), (_ANY, m, left)
    return 2


