"""The compiled heart of room.py where faults are in the way: a segment's strips laid from the bottom up, over all of them.

Heights are counted in steps (marks) over the lowest edge, as they are in the middle of the segment; a segment rises by a slope
between two that are told. All is rounded in favour of the plan: a strip that begins within a step may begin anywhere in it.
Kinds of strips and marks are those of room_kernel.py; faults are rows of bottom, top (ticks), beginning, end (cells) and what
they spoil: 1 face A, 2 face B, 3 both, `_UNSOUND` everything.

`tables`: what a strip holds of each kind, just below the next kind, and one of any width. `items`: of parts, then panels,
the length with a kerf (steps along), without (ticks), how many of its faces are to be clear, the worth of a piece or of a tick
of stave, how many there are; the first kind wide enough for each part; the net width of every panel's stave by kind, and just
below the next; the steps along in every number of cells; ticks of such a step. `board`: the lowest and the highest edge by
cell, its faults, the rip kerf (ticks), the crosscut kerf (cells), the least cells of a blank and the ticks of a cell. `sizes`:
the steps of every kind; for every step the kind of a strip of any width, and how far it is on the way to the next; the ticks
and the marks of a step.
"""

import math

import numpy as np
from numba import njit

from vividplank.core.layout.room_kernel import strip_counts

_UNSOUND = 4
#: A strip that may have any width is told apart in so many steps.
_COARSE = 1
#: How much may be asked in a round: places times strips, steps times parts.
_EFFORT = 1e6
#: Around a segment it is first asked to the next of so many cells.
_BLOCK = 4
#: Ranges of slopes a segment is asked about at most.
_RANGES = 96
#: More than there are cells and kinds, with the faults.
_MANY = 1 << 20
#: Places in the table of what is known of strips over sound faults, a power of two.
_KNOWN = 1 << 13


@njit(cache=True)
def workspace(cells, heights, faults, kinds, steps):  # type: ignore[no-untyped-def]
    """What `sweep` works in: the best to every height, and how; edges by cell; by height what is on the board, and over how
    many faults; faults, twice; what is known of strips over sound ones, and what that is told in; of strips between
    faults; what each of those takes; how much has been asked, and how much may be.
    """
    return (
        np.zeros(heights), np.zeros((heights, 2), dtype=np.int64), np.zeros((2, cells + 2)),
        np.zeros((6, heights), dtype=np.int64), np.zeros((faults, 6)), np.zeros((faults, 4)),
        np.zeros((_KNOWN, 2), dtype=np.int64), np.zeros(_KNOWN), np.zeros(steps + 1), np.zeros((2, steps + 1)),
        np.zeros((faults + 1, faults + 1, kinds, 2)), np.zeros(steps + 1, dtype=np.int64), np.zeros(2),
    )


@njit(cache=True)
def _each(kind, below, items):  # type: ignore[no-untyped-def]
    """How much one piece of each is in a strip of a kind, or just below the next: 1 of a part, its net width of a stave."""
    first, widths = items[5], items[6]
    found = np.zeros(items[0].shape[0])
    for i in range(found.shape[0]):
        found[i] = widths[kind, below, i - first.shape[0]] if i >= first.shape[0] else 1.0 if first[i] <= kind else 0.0
    return found


@njit(cache=True)
def _over_faults(room, hits, many, each, items, work):  # type: ignore[no-untyped-def]
    """What a strip holds in `room` steps, each part over no sound fault that it may not carry; `hits` are their beginnings and
    ends (ticks from the start) and the faces they spoil, `each` how much one piece of everything is. What it takes is written.
    """
    lengths, nets, clear, worth = items[:4]
    step = items[8]
    best, reach, took = work[8], work[9], work[11]
    reach[:, : room + 1] = 1e18
    for f in range(many):
        begins, ends, faces = hits[f, 0], hits[f, 1], int(hits[f, 2])
        for x in range(min(room, int(ends / step) - 1) + 1):
            if faces & 1:
                reach[0, x] = min(reach[0, x], begins)
            if faces & 2:
                reach[1, x] = min(reach[1, x], begins)
    best[: room + 1] = 0.0
    took[: room + 1] = -1
    for x in range(room + 1):
        if x and best[x - 1] >= best[x]:
            best[x], took[x] = best[x - 1], -1
            if reach[0, x] == reach[0, x - 1] and reach[1, x] == reach[1, x - 1]:
                continue  # what may begin here may begin before
        both, one = min(reach[0, x], reach[1, x]) - x * step, max(reach[0, x], reach[1, x]) - x * step
        for i in range(lengths.shape[0]):
            end, v = x + lengths[i], worth[i] * each[i]
            if v <= 0 or end > room or (clear[i] == 2 and nets[i] > both) or (clear[i] == 1 and nets[i] > one):
                continue
            if best[x] + v > best[end]:
                best[end], took[end] = best[x] + v, i
    return best[room]


@njit(cache=True)
def _known_over_faults(place, start, cells, hits, many, mask, kind, below, items, cell, work):  # type: ignore[no-untyped-def]
    """As _over_faults, told from what is known where it was asked before: `place` stands for the start, `mask` for the hits."""
    keys, values = work[6], work[7]
    what = ((place * _MANY + cells) * _MANY + kind) * 2 + below + 1
    at = (mask * 0x9E3779B1 + what * 0x85EBCA77) & 0x7FFFFFFFFFFFFFFF
    at = (at ^ (at >> 29)) & (_KNOWN - 1)
    if keys[at, 0] != mask or keys[at, 1] != what:
        for f in range(many):
            hits[f, 0], hits[f, 1] = (hits[f, 0] - start) * cell, (hits[f, 1] - start) * cell
        keys[at, 0], keys[at, 1] = mask, what
        work[12][0] += items[7][cells] * items[0].shape[0]
        values[at] = _over_faults(items[7][cells], hits, many, _each(kind, below, items), items, work)
        for f in range(many):
            hits[f, 0], hits[f, 1] = hits[f, 0] / cell + start, hits[f, 1] / cell + start
    return values[at]


@njit(cache=True)
def _between_faults(kind, below, i, end, k, t, many, tables, items, board, work):  # type: ignore[no-untyped-def]
    """What a strip of a kind (or just below the next) between heights k and t holds over cells i to the end, for all the faults
    in its way.
    """
    _, _, _, _, late, least, cell = board
    faults, hits = work[4], work[5]
    start, place = float(i), i
    total, hit, mask = 0.0, 0, 0
    for f in range(many + 1):
        begins = ends = float(end)
        if f < many:
            if faults[f, 1] < k + 1 or t <= faults[f, 0] or faults[f, 3] <= start:
                continue
            begins, ends = faults[f, 2], faults[f, 3]
            if faults[f, 4] < _UNSOUND:
                hits[hit, 0], hits[hit, 1], hits[hit, 2] = begins, ends, faults[f, 4]
                hit += 1
                mask |= 1 << int(faults[f, 5])
                continue
        cells = min(end - i - 1, math.ceil(begins + late - start) - 1)
        if cells + 1 >= least:
            v = tables[below][kind, cells]
            if hit and v > 0:
                v = min(v, _known_over_faults(place, start, cells, hits, hit, mask, kind, below, items, cell, work))
            total += v
        if f < many and ends > start:
            start, place = ends, _MANY - 1 - int(faults[f, 5])
        hit, mask = 0, 0
    return total


@njit(cache=True)
def _edges(i, end, least_slope, most_slope, board, step, work):  # type: ignore[no-untyped-def]
    """Write for every height the first and last cell, from i on, at which a bottom, and a top with its kerf, may be on the
    board; the lowest edge, and the last height.
    """
    low, high, _, kerf = board[:4]
    edges, spans = work[2], work[3]
    middle, m = (i + end) / 2, end - i
    base, top = 1e18, -1e18
    for k in range(m):
        at0, at1 = i + k - middle, i + k + 1 - middle
        edges[0, k] = low[i + k] - max(max(least_slope * at0, least_slope * at1), max(most_slope * at0, most_slope * at1))
        edges[1, k] = high[i + k] - min(min(least_slope * at0, least_slope * at1), min(most_slope * at0, most_slope * at1))
        base, top = min(base, edges[0, k]), max(top, edges[1, k])
    last = min(spans.shape[1] - 1, int((top - base + kerf) / step))
    a, b = 0, m
    for k in range(last, -1, -1):
        while a < m and edges[0, a] >= base + (k + 1) * step:
            a += 1
        while b > a and edges[0, b - 1] >= base + (k + 1) * step:
            b -= 1
        spans[0, k], spans[1, k] = a, b
    a, b = 0, m
    for k in range(last + 1):
        while a < m and edges[1, a] < base + k * step - kerf:
            a += 1
        while b > a and edges[1, b - 1] < base + k * step - kerf:
            b -= 1
        spans[2, k], spans[3, k] = a, b
    return base, last


@njit(cache=True)
def _faults_between(i, end, least_slope, most_slope, board, step, base, last, work):  # type: ignore[no-untyped-def]
    """Write the faults over cells i to the end, for every height how many of them end below a bottom there, and begin below a
    top there; how many they are.
    """
    faults, kerf = board[2], board[3]
    spans, ours = work[3], work[4]
    middle, many = (i + end) / 2, 0
    spans[4:, : last + 1] = 0
    for f in range(faults.shape[0]):
        y0, y1, begins, ends, spoils = faults[f]
        begins, ends = max(begins, float(i)), min(ends, float(end))
        if ends <= begins:
            continue
        at0, at1 = begins - middle, ends - middle
        y0 -= min(min(least_slope * at0, least_slope * at1), min(most_slope * at0, most_slope * at1))
        y1 -= max(max(least_slope * at0, least_slope * at1), max(most_slope * at0, most_slope * at1))
        if y1 > y0:
            first, second = (y0 - base + kerf) / step, (y1 - base) / step
            ours[many, 0], ours[many, 1], ours[many, 2], ours[many, 3] = first, second, begins, ends
            ours[many, 4], ours[many, 5] = spoils, f
            many += 1
            for k in range(max(0, math.floor(second)), last + 1):
                spans[4, k] += 1
            for k in range(max(0, math.floor(first) + 1), last + 1):
                spans[5, k] += 1
    return many


@njit(cache=True)
def sweep(i, j, least_slope, most_slope, board, tables, items, sizes, work):  # type: ignore[no-untyped-def]
    """The most that a segment over cells i..j holds that rises by a slope (ticks a cell) between two; with the last height, and
    how many faults are in its way.
    """
    late, least = board[4], board[5]
    wide, kinds_any, shares, step, marks = sizes
    found, _, one = tables
    best, how, spans, known = work[0], work[1], work[3], work[10]
    end, n, kinds = min(j + 1, board[0].shape[0]), j - i, wide.shape[0]
    base, last = _edges(i, end, least_slope, most_slope, board, step, work)
    many = _faults_between(i, end, least_slope, most_slope, board, step, base, last, work)
    # Strips over the same faults and under the same have the same in their way.
    known[: many + 1, : many + 1] = -1.0
    kerf_cells = math.ceil(late) - 1
    narrowest = kinds_any.shape[0]
    for w in range(kinds_any.shape[0] - 1, -1, -1):
        if kinds_any[w] >= 0:
            narrowest = w
    best[: last + 1] = 0.0
    how[: last + 1, 0] = -1
    work[12][0] += last * (kinds + kinds_any.shape[0] - narrowest)
    for k in range(last + 1):
        if k and best[k - 1] >= best[k]:
            best[k], how[k, 0] = best[k - 1], -1
        for c in range(kinds + max(0, min(last - k + 1, kinds_any.shape[0]) - narrowest)):
            w = wide[c] if c < kinds else narrowest + c - kinds
            t = k + w
            if t > last:
                continue
            cells = min(n, min(spans[1, k], spans[3, t]) - max(spans[0, k], spans[2, t]) + kerf_cells)
            if cells + 1 < least:
                continue
            v = found[c, cells] if c < kinds else one[cells, min((w + 1) * marks, one.shape[1]) - 1]
            if best[k] + v <= best[t]:
                continue
            under, over = spans[4, k], spans[5, t]
            if over > under:
                kind = c if c < kinds else kinds_any[w]
                if known[under, over, kind, 0] < 0:
                    known[under, over, kind, 0] = _between_faults(kind, 0, i, end, k, t, many, tables, items, board, work)
                between = known[under, over, kind, 0]
                if c >= kinds and shares[w] > 0:
                    if known[under, over, kind, 1] < 0:
                        known[under, over, kind, 1] = _between_faults(kind, 1, i, end, k, t, many, tables, items, board, work)
                    between += shares[w] * (known[under, over, kind, 1] - between)
                v = min(v, between)
            if best[k] + v > best[t]:
                best[t], how[t, 0], how[t, 1] = best[k] + v, k, c
    return best[last], last, many


@njit(cache=True)
def aslant(i, j, known, floor, steepest, board, tables, items, coarse, fine, work):  # type: ignore[no-untyped-def]
    """The most that a segment over cells i..j holds at any slope, no more than is `known`, told no closer than `floor`; and
    the slopes between which it does. The range of slopes is split where most may be, in `coarse` sizes and then in `fine` ones,
    until that moves no edge by a step.
    """
    ranges = np.empty((_RANGES, 4))
    ranges[0] = min(known, sweep(i, j, -steepest, steepest, board, tables, items, coarse, work)[0]), -steepest, steepest, 0.0
    count = 1
    while True:
        at = 0
        for k in range(1, count):
            if ranges[k, 0] > ranges[at, 0]:
                at = k
        value, least_slope, most_slope, finely = ranges[at]
        moves = (most_slope - least_slope) * (j - i + 1)
        if value <= floor or count == _RANGES or (finely and moves < fine[3]) or work[12][0] > work[12][1]:
            return value, least_slope, most_slope
        if not finely and moves < coarse[3]:
            ranges[at, 0] = min(value, sweep(i, j, least_slope, most_slope, board, tables, items, fine, work)[0])
            ranges[at, 3] = 1.0
            continue
        sizes = fine if finely else coarse
        middle = (least_slope + most_slope) / 2
        below = sweep(i, j, least_slope, middle, board, tables, items, sizes, work)[0]
        above = sweep(i, j, middle, most_slope, board, tables, items, sizes, work)[0]
        ranges[at] = min(value, below), least_slope, middle, finely
        ranges[count] = min(value, above), middle, most_slope, finely
        count += 1


@njit(cache=True)
def fullest(i, j, known, steepest, board, tables, items, coarse, fine, work):  # type: ignore[no-untyped-def]
    """How much of each is in the segment that `aslant` tells of; between which slopes it is cut, the lowest edge in its
    middle, and its strips from the bottom up: in rows bottom and top with a kerf (steps), kind (-1: any width).
    """
    work[12][0] = 0.0
    _, least_slope, most_slope = aslant(i, j, known, 0.0, steepest, board, tables, items, coarse, fine, work)
    t, many = sweep(i, j, least_slope, most_slope, board, tables, items, fine, work)[1:]
    wide, kinds_any, shares = fine[:3]
    how, spans = work[1], work[3]
    base, _ = _edges(i, min(j + 1, board[0].shape[0]), least_slope, most_slope, board, fine[3], work)
    held = np.zeros(items[0].shape[0])
    rows = np.zeros((t + 1, 3), dtype=np.int64)
    strips = t + 1
    while t > 0:
        k, c = how[t]
        if k >= 0:
            kind, share = (c, 0.0) if c < wide.shape[0] else (kinds_any[t - k], shares[t - k])
            strips -= 1
            rows[strips] = k, t, c if c < wide.shape[0] else -1
            each = _each(kind, 0, items)
            if share > 0:
                each += share * (_each(kind, 1, items) - each)
            start, stop = i + max(spans[0, k], spans[2, t]), i + min(spans[1, k], spans[3, t])
            _hold(held, j - i, start, stop, k, t, many, each, items, board, work)
        t = k if k >= 0 else t - 1
    return held, least_slope, most_slope, base, rows[strips:]


@njit(cache=True)
def _hold(held, n, start, stop, k, t, many, each, items, board, work):  # type: ignore[no-untyped-def]
    """Add what a strip between heights k and t holds over these cells."""
    least, cell = board[5], board[6]
    faults, hits, took = work[4], work[5], work[11]
    at, hit = float(start), 0
    for f in range(many + 1):
        begins = ends = float(stop)
        if f < many:
            if faults[f, 1] < k + 1 or t <= faults[f, 0] or faults[f, 3] <= at or faults[f, 2] >= stop:
                continue
            begins, ends = faults[f, 2], faults[f, 3]
            if faults[f, 4] < _UNSOUND:
                hits[hit, 0], hits[hit, 1], hits[hit, 2] = (begins - at) * cell, (ends - at) * cell, faults[f, 4]
                hit += 1
                continue
        cells = min(n, math.ceil(begins + board[4] - at) - 1)
        if cells + 1 >= least:
            room = items[7][cells]
            if hit:
                _over_faults(room, hits, hit, each, items, work)
                x = room
                while x > 0:
                    if took[x] >= 0:
                        held[took[x]] += each[took[x]]
                    x -= items[0][took[x]] if took[x] >= 0 else 1
            else:
                held += each * strip_counts(items[0], items[3] * each, items[4], room)
        at, hit = max(at, ends), 0


@njit(cache=True)
def _chain(most, told, shortest, best, came):  # type: ignore[no-untyped-def]
    """Write the segments in a row that may hold most, and answer what those hold of which it is told closely."""
    cells = most.shape[0] - 1
    sure = np.zeros(cells + 1)
    for j in range(1, cells + 1):
        best[j], came[j], sure[j] = best[j - 1], -1, sure[j - 1]
        for i in range(j - shortest + 1):
            if best[i] + most[i, j] > best[j]:
                best[j], came[j] = best[i] + most[i, j], i
            if told[i, j] and sure[i] + most[i, j] > sure[j]:
                sure[j] = sure[i] + most[i, j]
    return sure[cells]


@njit(cache=True)
def _no_more(most, i, j, value):  # type: ignore[no-untyped-def]
    """What lies within cells i..j holds no more than those."""
    for p in range(i, j):
        for q in range(j, p, -1):
            most[p, q] = min(most[p, q], value)


@njit(cache=True)
def lower(most, shortest, rounds, near, steepest, board, tables, items, coarse, fine, work):  # type: ignore[no-untyped-def]
    """Lower what segments over cells i..j hold at `most` where a row of them holds most, until that is told as closely as
    `near` or so many times; answer what a row holds at most, and where the segment begins that ends at every cell.

    What is told of a segment that could hold most is true of all that lie within the same cells: it is asked first of some that
    are a little longer, roughly.
    """
    cells = most.shape[0] - 1
    told, asked = np.zeros(most.shape, dtype=np.bool_), np.zeros(most.shape, dtype=np.bool_)
    best, came = np.zeros(cells + 1), np.full(cells + 1, -1, dtype=np.int64)
    work[12][:] = 0.0, rounds * _EFFORT
    for _ in range(rounds):
        sure = _chain(most, told, shortest, best, came)
        if best[cells] <= sure * (1 + near) or work[12][0] > work[12][1]:
            break
        total, j = best[cells], cells
        while j > 0:
            i = came[j]
            if i < 0:
                j -= 1
                continue
            if not told[i, j]:
                was = most[i, j]
                floor = max(0.0, sure - (total - was))
                first, last = i // _BLOCK, -(-j // _BLOCK)
                if not asked[first, last]:  # roughly, of what lies around it and a little further
                    asked[first, last] = True
                    around = min(cells, last * _BLOCK)
                    value, _, _ = aslant(
                        first * _BLOCK, around, 1e300, floor, steepest, board, tables, items, coarse, coarse, work)
                    _no_more(most, first * _BLOCK, around, value)
                else:
                    value, _, _ = aslant(i, j, was, floor, steepest, board, tables, items, coarse, fine, work)
                    told[i, j] = True
                    most[i, j] = value
                    _no_more(most, i, j, value)
                total -= was - most[i, j]
            j = i
    _chain(most, told, shortest, best, came)
    return best[cells], came
