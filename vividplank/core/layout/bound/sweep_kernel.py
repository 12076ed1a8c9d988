"""Kernels of relaxation.py where faults are in the way: a segment's strips laid from the
bottom up, over all of them.

Heights are counted in steps (marks) over the lowest edge, as they are in the middle of the segment;
a segment rises by a slope between two that are told. All is rounded in favour of the plan: a strip
that begins within a step may begin anywhere in it. Kinds of strips and marks are those of
knapsack_kernel.py; faults are rows of bottom, top (ticks), beginning, end (cells) and what they
spoil, as faces.py numbers it.
"""

import math
from typing import Any, NamedTuple

import numpy as np
from numba import njit

from vividplank.core.layout.bound.knapsack_kernel import strip_counts
from vividplank.core.layout.model.faces import UNSOUND

#: Ranges of slopes a segment is asked about at most.
_RANGES = 96
#: More than there are cells and kinds, with the faults.
_MANY = 1 << 20
#: Places in the table of what is known of strips over sound faults, a power of two.
_KNOWN = 1 << 13


class Stock(NamedTuple):
    """A board: the lowest and the highest edge by cell, its faults, the rip kerf (ticks), the
    crosscut kerf (cells), the least cells of a blank, and the ticks of a cell.
    """

    low: Any
    high: Any
    faults: Any
    rip: float
    crosscut: float
    least: int
    cell: float


class Held(NamedTuple):
    """What a strip holds: of every kind, of just below the next kind, of any width; kinds (or
    marks) by lengths.
    """

    found: Any
    below: Any
    any_width: Any


class Items(NamedTuple):
    """Parts, then panels: the length with a kerf (steps along) and without (ticks), how many faces
    are to be clear, the profit of a piece or of a tick of stave, how many there are. Of parts the
    first kind wide enough; of panels the net width of a stave by kind, and just below the next. The
    steps along in every number of cells, and the ticks of one.
    """

    lengths: Any
    nets: Any
    clear: Any
    profits: Any
    counts: Any
    first: Any
    staves: Any
    relaxation: Any
    step: float


class Sizes(NamedTuple):
    """The steps up of every kind; of every step the kind that a strip of any width is no narrower
    than (-1: there is none), and how far it is on its way to the next; the ticks and the marks of a
    step.
    """

    kinds: Any
    any_width: Any
    shares: Any
    step: float
    marks: int


class Work(NamedTuple):
    """What is written on: the best to every height, and how; edges by cell; by height what is on
    the board, and over how many faults; the faults of a segment, and of a strip; what is known of
    strips over sound faults, by key; in what that is told, and what is taken; what is known of
    strips between faults; how much has been asked, and how much may be.
    """

    best: Any
    how: Any
    edges: Any
    spans: Any
    faults: Any
    hits: Any
    keys: Any
    values: Any
    along: Any
    reach: Any
    took: Any
    between: Any
    effort: Any


@njit(cache=True)
def workspace(cells, heights, faults, kinds, steps):  # type: ignore[no-untyped-def]
    return Work(
        np.zeros(heights),
        np.zeros((heights, 2), dtype=np.int64),
        np.zeros((2, cells + 2)),
        np.zeros((6, heights), dtype=np.int64),
        np.zeros((faults, 6)),
        np.zeros((faults, 4)),
        np.zeros((_KNOWN, 2), dtype=np.int64),
        np.zeros(_KNOWN),
        np.zeros(steps + 1),
        np.zeros((2, steps + 1)),
        np.zeros(steps + 1, dtype=np.int64),
        np.zeros((faults + 1, faults + 1, kinds, 2)),
        np.zeros(2),
    )


@njit(cache=True)
def _each(kind, below, items):  # type: ignore[no-untyped-def]
    """How much one piece of each is in a strip of a kind, or just below the next: 1 of a part, its
    net width of a stave.
    """
    first, widths = items.first, items.staves
    found = np.zeros(items.lengths.shape[0])
    for i in range(found.shape[0]):
        found[i] = (
            widths[kind, below, i - first.shape[0]]
            if i >= first.shape[0]
            else 1.0
            if first[i] <= kind
            else 0.0
        )
    return found


@njit(cache=True)
def _over_faults(room, hits, many, each, items, work):  # type: ignore[no-untyped-def]
    """What a strip holds in `room` steps, each part over no sound fault that it may not carry;
    `hits` are their beginnings and ends (ticks from the start) and the faces they spoil, `each` how
    much one piece of everything is. What it takes is written.
    """
    lengths, nets, clear, profits, step = (
        items.lengths,
        items.nets,
        items.clear,
        items.profits,
        items.step,
    )
    best, reach, took = work.along, work.reach, work.took
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
        both, one = (
            min(reach[0, x], reach[1, x]) - x * step,
            max(reach[0, x], reach[1, x]) - x * step,
        )
        for i in range(lengths.shape[0]):
            end, v = x + lengths[i], profits[i] * each[i]
            if (
                v <= 0
                or end > room
                or (clear[i] == 2 and nets[i] > both)
                or (clear[i] == 1 and nets[i] > one)
            ):
                continue
            if best[x] + v > best[end]:
                best[end], took[end] = best[x] + v, i
    return best[room]


@njit(cache=True)
def _known_over_faults(place, start, cells, hits, many, mask, kind, below, items, cell, work):  # type: ignore[no-untyped-def]
    """As _over_faults, told from what is known where it was asked before: `place` stands for the
    start, `mask` for the hits.
    """
    keys, values = work.keys, work.values
    what = ((place * _MANY + cells) * _MANY + kind) * 2 + below + 1
    at = (mask * 0x9E3779B1 + what * 0x85EBCA77) & 0x7FFFFFFFFFFFFFFF
    at = (at ^ (at >> 29)) & (_KNOWN - 1)
    if keys[at, 0] != mask or keys[at, 1] != what:
        for f in range(many):
            hits[f, 0], hits[f, 1] = (hits[f, 0] - start) * cell, (hits[f, 1] - start) * cell
        keys[at, 0], keys[at, 1] = mask, what
        work.effort[0] += items.relaxation[cells] * items.lengths.shape[0]
        values[at] = _over_faults(
            items.relaxation[cells], hits, many, _each(kind, below, items), items, work
        )
        for f in range(many):
            hits[f, 0], hits[f, 1] = hits[f, 0] / cell + start, hits[f, 1] / cell + start
    return values[at]


@njit(cache=True)
def _between_faults(kind, below, i, end, k, t, many, held, items, stock, work):  # type: ignore[no-untyped-def]
    """What a strip of a kind (or just below the next) between heights k and t holds over cells i to
    the end, for all the faults in its way.
    """
    late, faults, hits = stock.crosscut, work.faults, work.hits
    start, place = float(i), i
    total, hit, mask = 0.0, 0, 0
    for f in range(many + 1):
        begins = ends = float(end)
        if f < many:
            if faults[f, 1] < k + 1 or t <= faults[f, 0] or faults[f, 3] <= start:
                continue
            begins, ends = faults[f, 2], faults[f, 3]
            if faults[f, 4] < UNSOUND:
                hits[hit, 0], hits[hit, 1], hits[hit, 2] = begins, ends, faults[f, 4]
                hit += 1
                mask |= 1 << int(faults[f, 5])
                continue
        cells = min(end - i - 1, math.ceil(begins + late - start) - 1)
        if cells + 1 >= stock.least:
            v = (held.below if below else held.found)[kind, cells]
            if hit and v > 0:
                v = min(
                    v,
                    _known_over_faults(
                        place, start, cells, hits, hit, mask, kind, below, items, stock.cell, work
                    ),
                )
            total += v
        if f < many and ends > start:
            start, place = ends, _MANY - 1 - int(faults[f, 5])
        hit, mask = 0, 0
    return total


@njit(cache=True)
def _edges(i, end, least_slope, most_slope, stock, step, work):  # type: ignore[no-untyped-def]
    """Write for every height the first and last cell, from i on, at which a bottom, and a top with
    its kerf, may be on the board; the lowest edge, and the last height.
    """
    low, high, kerf = stock.low, stock.high, stock.rip
    edges, spans = work.edges, work.spans
    middle, m = (i + end) / 2, end - i
    base, top = 1e18, -1e18
    for k in range(m):
        at0, at1 = i + k - middle, i + k + 1 - middle
        edges[0, k] = low[i + k] - max(
            max(least_slope * at0, least_slope * at1), max(most_slope * at0, most_slope * at1)
        )
        edges[1, k] = high[i + k] - min(
            min(least_slope * at0, least_slope * at1), min(most_slope * at0, most_slope * at1)
        )
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
def _faults_between(i, end, least_slope, most_slope, stock, step, base, last, work):  # type: ignore[no-untyped-def]
    """Write the faults over cells i to the end, for every height how many of them end below a
    bottom there, and begin below a top there; how many they are.
    """
    faults, kerf = stock.faults, stock.rip
    spans, ours = work.spans, work.faults
    middle, many = (i + end) / 2, 0
    spans[4:, : last + 1] = 0
    for f in range(faults.shape[0]):
        y0, y1, begins, ends, spoils = faults[f]
        begins, ends = max(begins, float(i)), min(ends, float(end))
        if ends <= begins:
            continue
        at0, at1 = begins - middle, ends - middle
        y0 -= min(
            min(least_slope * at0, least_slope * at1), min(most_slope * at0, most_slope * at1)
        )
        y1 -= max(
            max(least_slope * at0, least_slope * at1), max(most_slope * at0, most_slope * at1)
        )
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
def sweep(i, j, least_slope, most_slope, stock, held, items, sizes, work):  # type: ignore[no-untyped-def]
    """The most that a segment over cells i..j holds that rises by a slope (ticks a cell) between
    two; with the last height, and how many faults are in its way.
    """
    wide, kinds_any, shares, step, marks = sizes
    found, _, one = held
    best, how, spans, known = work.best, work.how, work.spans, work.between
    end, n, kinds = min(j + 1, stock.low.shape[0]), j - i, wide.shape[0]
    base, last = _edges(i, end, least_slope, most_slope, stock, step, work)
    many = _faults_between(i, end, least_slope, most_slope, stock, step, base, last, work)
    # Strips over the same faults and under the same have the same in their way.
    known[: many + 1, : many + 1] = -1.0
    kerf_cells = math.ceil(stock.crosscut) - 1
    narrowest = kinds_any.shape[0]
    for w in range(kinds_any.shape[0] - 1, -1, -1):
        if kinds_any[w] >= 0:
            narrowest = w
    best[: last + 1] = 0.0
    how[: last + 1, 0] = -1
    work.effort[0] += last * (kinds + kinds_any.shape[0] - narrowest)
    for k in range(last + 1):
        if k and best[k - 1] >= best[k]:
            best[k], how[k, 0] = best[k - 1], -1
        for c in range(kinds + max(0, min(last - k + 1, kinds_any.shape[0]) - narrowest)):
            w = wide[c] if c < kinds else narrowest + c - kinds
            t = k + w
            if t > last:
                continue
            cells = min(
                n, min(spans[1, k], spans[3, t]) - max(spans[0, k], spans[2, t]) + kerf_cells
            )
            if cells + 1 < stock.least:
                continue
            v = found[c, cells] if c < kinds else one[cells, min((w + 1) * marks, one.shape[1]) - 1]
            if best[k] + v <= best[t]:
                continue
            under, over = spans[4, k], spans[5, t]
            if over > under:
                kind = c if c < kinds else kinds_any[w]
                if known[under, over, kind, 0] < 0:
                    known[under, over, kind, 0] = _between_faults(
                        kind, 0, i, end, k, t, many, held, items, stock, work
                    )
                between = known[under, over, kind, 0]
                if c >= kinds and shares[w] > 0:
                    if known[under, over, kind, 1] < 0:
                        known[under, over, kind, 1] = _between_faults(
                            kind, 1, i, end, k, t, many, held, items, stock, work
                        )
                    between += shares[w] * (known[under, over, kind, 1] - between)
                v = min(v, between)
            if best[k] + v > best[t]:
                best[t], how[t, 0], how[t, 1] = best[k] + v, k, c
    return best[last], last, many


@njit(cache=True)
def aslant(i, j, known, floor, steepest, stock, held, items, coarse, fine, work):  # type: ignore[no-untyped-def]
    """The most that a segment over cells i..j holds at any slope, no more than is `known`, told no
    closer than `floor`; and the slopes between which it does. The range of slopes is split where
    most may be, in `coarse` sizes and then in `fine` ones, until that moves no edge by a step.
    """
    ranges = np.empty((_RANGES, 4))
    ranges[0] = (
        min(known, sweep(i, j, -steepest, steepest, stock, held, items, coarse, work)[0]),
        -steepest,
        steepest,
        0.0,
    )
    count = 1
    while True:
        at = 0
        for k in range(1, count):
            if ranges[k, 0] > ranges[at, 0]:
                at = k
        value, least_slope, most_slope, finely = ranges[at]
        moves = (most_slope - least_slope) * (j - i + 1)
        if (
            value <= floor
            or count == _RANGES
            or (finely and moves < fine.step)
            or work.effort[0] > work.effort[1]
        ):
            return value, least_slope, most_slope
        if not finely and moves < coarse.step:
            ranges[at, 0] = min(
                value, sweep(i, j, least_slope, most_slope, stock, held, items, fine, work)[0]
            )
            ranges[at, 3] = 1.0
            continue
        sizes = fine if finely else coarse
        middle = (least_slope + most_slope) / 2
        below = sweep(i, j, least_slope, middle, stock, held, items, sizes, work)[0]
        above = sweep(i, j, middle, most_slope, stock, held, items, sizes, work)[0]
        ranges[at] = min(value, below), least_slope, middle, finely
        ranges[count] = min(value, above), middle, most_slope, finely
        count += 1


@njit(cache=True)
def fullest(i, j, known, steepest, stock, held, items, coarse, fine, work):  # type: ignore[no-untyped-def]
    """How much of each is in the segment that `aslant` tells of; between which slopes it is cut,
    the lowest edge in its middle, and its strips from the bottom up: in rows bottom and top with a
    kerf (steps), kind (-1: any width).
    """
    work.effort[0] = 0.0
    _, least_slope, most_slope = aslant(
        i, j, known, 0.0, steepest, stock, held, items, coarse, fine, work
    )
    t, many = sweep(i, j, least_slope, most_slope, stock, held, items, fine, work)[1:]
    wide, kinds_any, shares = fine.kinds, fine.any_width, fine.shares
    how, spans = work.how, work.spans
    base, _ = _edges(
        i, min(j + 1, stock.low.shape[0]), least_slope, most_slope, stock, fine.step, work
    )
    taken = np.zeros(items.lengths.shape[0])
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
            _hold(taken, j - i, start, stop, k, t, many, each, items, stock, work)
        t = k if k >= 0 else t - 1
    return taken, least_slope, most_slope, base, rows[strips:]


@njit(cache=True)
def _hold(taken, n, start, stop, k, t, many, each, items, stock, work):  # type: ignore[no-untyped-def]
    """Add what a strip between heights k and t holds over these cells."""
    cell, faults, hits, took = stock.cell, work.faults, work.hits, work.took
    at, hit = float(start), 0
    for f in range(many + 1):
        begins = ends = float(stop)
        if f < many:
            if (
                faults[f, 1] < k + 1
                or t <= faults[f, 0]
                or faults[f, 3] <= at
                or faults[f, 2] >= stop
            ):
                continue
            begins, ends = faults[f, 2], faults[f, 3]
            if faults[f, 4] < UNSOUND:
                hits[hit, 0], hits[hit, 1], hits[hit, 2] = (
                    (begins - at) * cell,
                    (ends - at) * cell,
                    faults[f, 4],
                )
                hit += 1
                continue
        cells = min(n, math.ceil(begins + stock.crosscut - at) - 1)
        if cells + 1 >= stock.least:
            room = items.relaxation[cells]
            if hit:
                _over_faults(room, hits, hit, each, items, work)
                x = room
                while x > 0:
                    if took[x] >= 0:
                        taken[took[x]] += each[took[x]]
                    x -= items.lengths[took[x]] if took[x] >= 0 else 1
            else:
                taken += each * strip_counts(
                    items.lengths, items.profits * each, items.counts, room
                )
        at, hit = max(at, ends), 0
