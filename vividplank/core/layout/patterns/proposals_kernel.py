"""Kernels of proposing how to cut a board; see proposals.py for what it computes.

A lead is a way to begin a strip: an item type, or a stave of some width. `stock` is how many of
every item type there are. Lengths are in steps of the rule, widths in grains.

A way to fill a strip is a row of six: how many of the lead, the companion laid behind it and how
many, a second companion and how many, and whether it holds anything.
"""

import numpy as np
from numba import njit

from vividplank.core.layout.patterns.leads import Companions

#: Strips looked at for one width, the densest of them.
_STRIPS = 48
#: Most strips across a board.
ACROSS = 16
#: Depth and trials of the search for lengths that go together.
_DEPTH, _TRIALS = 4, 600
#: Companions remembered for a place.
_COMPANIONS = 3


@njit(cache=True)
def _most(j, rest, kerf, blank, there):  # type: ignore[no-untyped-def]
    many, long = 0, blank[j]
    while long <= rest and many < there[j]:
        many += 1
        long += blank[j] + kerf
    return many


@njit(cache=True)
def still_there(leads, stock):  # type: ignore[no-untyped-def]
    """How many of every lead the stock gives; the last stave of a panel may be wider than what is
    left.
    """
    return (stock[leads.owner] + leads.unit - 1) // leads.unit


@njit(cache=True)
def companions(longest, cap, leads, there):  # type: ignore[no-untyped-def]
    """Which leads fill the rest of a strip best, of _COMPANIONS different item types (-1: none): by
    row and column.

    Also the column of every rest of a length up to `longest` (-1: no lead fits), and the row of
    every lead's width.
    """
    blank, wide, profits, need = leads.blank, leads.wide, leads.profits, leads.need
    owner, kerf = leads.owner, leads.kerf
    n = blank.shape[0]
    marks = np.zeros(4 * n, dtype=np.int64)
    k = 0
    for j in range(n):
        if need[j] <= cap:
            for m in range(1, min(there[j], 4) + 1):
                mark = m * (blank[j] + kerf) - kerf
                if mark <= longest:
                    marks[k] = mark
                    k += 1
    marks = np.unique(marks[:k])
    places = marks.shape[0]
    column = np.full(longest + 1, -1, dtype=np.int64)
    for p in range(places):
        column[marks[p] : marks[p + 1] if p + 1 < places else longest + 1] = p
    which = np.full((np.unique(wide).shape[0], places, _COMPANIONS), -1, dtype=np.int16)
    gain = np.zeros((places, _COMPANIONS))
    row = np.zeros(n, dtype=np.int64)
    order = np.argsort(wide)
    at = 0
    for o in range(n):
        j = order[o]
        if o and wide[j] > wide[order[o - 1]]:
            at += 1
            which[at] = which[at - 1]
        row[j] = at
        if need[j] > cap or there[j] <= 0 or blank[j] > longest:
            continue
        many, more = 0, blank[j]
        for p in range(column[blank[j]], places):
            while many < there[j] and more <= marks[p]:
                many += 1
                more += blank[j] + kerf
            _insert(which[at, p], gain[p], j, many * profits[j], owner)
    return column, which, row


@njit(cache=True)
def _insert(best, gain, j, value, owner):  # type: ignore[no-untyped-def]
    """Put a lead in its place among the best, in favour of which another of the same want gives
    way.
    """
    at = 0
    while at < _COMPANIONS and gain[at] >= value:
        if best[at] >= 0 and owner[best[at]] == owner[j]:
            return
        at += 1
    if at == _COMPANIONS:
        return
    last = at
    while last < _COMPANIONS - 1 and best[last] >= 0 and owner[best[last]] != owner[j]:
        last += 1
    for k in range(last, at, -1):
        best[k], gain[k] = best[k - 1], gain[k - 1]
    best[at], gain[at] = j, value


@njit(cache=True)
def _companion(rest, row, avoid, also, table, owner, there):  # type: ignore[no-untyped-def]
    """The best companion still there for the rest of a strip that is of neither of two item types;
    -1 for none.
    """
    if rest >= 0 and table.column[rest] >= 0:
        for k in range(_COMPANIONS):
            j = table.which[row, table.column[rest], k]
            if j >= 0 and owner[j] != avoid and owner[j] != also and there[j] > 0:
                return j
    return -1


@njit(cache=True)
def strip_values(run, cap, leads, there, table):  # type: ignore[no-untyped-def]
    """What a strip led by each lead is worth over a length `run`, and the way it is filled."""
    blank, profits, need = leads.blank, leads.profits, leads.need
    owner, kerf = leads.owner, leads.kerf
    n = blank.shape[0]
    values = np.zeros(n)
    ways = np.zeros((n, 5), dtype=np.int64)
    for i in range(n):
        if blank[i] > run or need[i] > cap or there[i] <= 0:
            continue
        ways[i, 0] = _most(i, run, kerf, blank, there)
        values[i] = ways[i, 0] * profits[i]
        rest = run - ways[i, 0] * (blank[i] + kerf)
        also = -1
        for c in (1, 3):
            j = _companion(rest, table.row[i], owner[i], also, table, owner, there)
            if j < 0:
                break
            many = _most(j, rest, kerf, blank, there)
            ways[i, c], ways[i, c + 1] = j, many
            values[i] += many * profits[j]
            rest -= many * (blank[j] + kerf)
            also = owner[j]
    return values, ways


@njit(cache=True)
def _use(i, ways, leads, stock, sign):  # type: ignore[no-untyped-def]
    """Take what a strip holds from the stock, or give it back."""
    owner, unit = leads.owner, leads.unit
    stock[owner[i]] -= sign * ways[i, 0] * unit[i]
    if ways[i, 2] > 0:
        stock[owner[ways[i, 1]]] -= sign * ways[i, 2] * unit[ways[i, 1]]
    if ways[i, 4] > 0:
        stock[owner[ways[i, 3]]] -= sign * ways[i, 4] * unit[ways[i, 3]]


@njit(cache=True)
def _there(i, ways, leads, stock):  # type: ignore[no-untyped-def]
    """Whether the stock still has what a strip holds (the last stave of a panel may be too
    wide).
    """
    owner, unit = leads.owner, leads.unit
    if stock[owner[i]] <= (ways[i, 0] - 1) * unit[i]:
        return False
    j, k = ways[i, 1], ways[i, 3]
    if ways[i, 2] > 0 and stock[owner[j]] <= (ways[i, 2] - 1) * unit[j]:
        return False
    return not (ways[i, 4] > 0 and stock[owner[k]] <= (ways[i, 4] - 1) * unit[k])


@njit(cache=True)
def _write(strip, low, i, ways):  # type: ignore[no-untyped-def]
    """How high a strip begins, its lead and its companions (-1: none)."""
    strip[0], strip[1] = low, i
    strip[2] = ways[i, 1] if ways[i, 2] > 0 else -1
    strip[3] = ways[i, 3] if ways[i, 4] > 0 else -1


@njit(cache=True)
def _densest(values, wide, room):  # type: ignore[no-untyped-def]
    """The strips that are worth most for their width, at most _STRIPS of them."""
    dense = np.zeros(values.shape[0])
    for i in range(values.shape[0]):
        if values[i] > 0 and wide[i] <= room:
            dense[i] = values[i] / wide[i]
    order = np.argsort(-dense)
    many = 0
    while many < min(_STRIPS, order.shape[0]) and dense[order[many]] > 0:
        many += 1
    return order[:many]


@njit(cache=True)
def knapsack(room, values, wide, copies, among):  # type: ignore[no-untyped-def]
    """How many of each strip fill a width best."""
    chosen = np.zeros(values.shape[0], dtype=np.int64)
    best = np.zeros(room + 1)
    steps = 0
    for i in among:
        steps += min(room // wide[i], copies[i], 6)
    took = np.zeros((steps, room + 1), dtype=np.bool_)
    which = np.zeros(steps, dtype=np.int64)
    k = 0
    for i in among:
        w, v = wide[i], values[i]
        for _ in range(min(room // w, copies[i], 6)):
            which[k] = i
            for at in range(room, w - 1, -1):
                with_it = best[at - w] + v
                if with_it > best[at] + 1e-12:
                    best[at] = with_it
                    took[k, at] = True
            k += 1
    at = room
    for s in range(k - 1, -1, -1):
        if took[s, at]:
            chosen[which[s]] += 1
            at -= wide[which[s]]
    return chosen


@njit(cache=True)
def fill_width(  # type: ignore[no-untyped-def]
    room, run, cap, leads, stock, strips, table
):
    """The strips that fill a free width best: written to `strips` and taken from the stock; how
    many, what they are worth.

    Two strips may want the same companion: then the better one has it, and the width that is left
    is asked again.
    """
    many, total = 0, 0.0
    wide = leads.wide
    for _ in range(4):
        there = still_there(leads, stock)
        values, ways = strip_values(run, cap, leads, there, table)
        among = _densest(values, wide, room)
        if among.shape[0] == 0:
            break
        copies = np.zeros(values.shape[0], dtype=np.int64)
        for i in among:
            copies[i] = (there[i] + ways[i, 0] - 1) // ways[i, 0]
        chosen = knapsack(room, values, wide, copies, among)
        clash, took = False, False
        for i in among:
            for _ in range(chosen[i]):
                if many < ACROSS and _there(i, ways, leads, stock):
                    _use(i, ways, leads, stock, 1)
                    room -= wide[i]
                    total += values[i]
                    _write(strips[many], 0, i, ways)
                    many += 1
                    took = True
                else:
                    clash = True
        if not (clash and took):
            break
    return many, total


@njit(cache=True)
def _clear(low, high, run, faults):  # type: ignore[no-untyped-def]
    """The longest stretch of a strip from `low` to `high` without a fault; `faults` are sorted by
    where they begin.
    """
    at, longest = 0, 0
    for f in range(faults.shape[0]):
        if faults[f, 0] < high and faults[f, 1] > low:
            longest = max(longest, min(faults[f, 2], run) - at)
            at = max(at, faults[f, 3])
    return max(longest, run - at)


@njit(cache=True)
def fill_between(  # type: ignore[no-untyped-def]
    room, rip, run, cap, faults, leads, stock, strips, table
):
    """Like fill_width where faults are in the way: strips from the bottom up, each as long as it is
    clear there.

    The best way to every height is kept, with what it has used.
    """
    lengths = np.zeros(2 * faults.shape[0] + 1, dtype=np.int64)
    lengths[0] = run
    for f in range(faults.shape[0]):
        lengths[2 * f + 1] = max(0, faults[f, 2])
        lengths[2 * f + 2] = max(0, run - faults[f, 3])
    lengths = np.unique(lengths)
    wide = leads.wide
    n, classes = wide.shape[0], lengths.shape[0]
    there = still_there(leads, stock)
    values = np.zeros((classes, n))
    ways = np.zeros((classes, n, 5), dtype=np.int64)
    among = np.zeros(n, dtype=np.bool_)
    for c in range(classes):
        values[c], ways[c] = strip_values(lengths[c] - leads.shared, cap, leads, there, table)
        for i in _densest(values[c], wide, room):
            among[i] = True
    led = np.flatnonzero(among)
    most = values[classes - 1]
    best = np.full(room + 1, -1.0)
    best[0] = 0.0
    came = np.zeros(
        (room + 1, 3), dtype=np.int64
    )  # from which height, led by which lead (-1: nothing), clear class
    begins = np.zeros(room + 1, dtype=np.bool_)  # a strip lies on the edge or on another strip
    begins[0] = True
    ends = np.zeros(room + 1, dtype=np.bool_)  # a fault does
    for f in range(faults.shape[0]):
        if 0 < faults[f, 1] <= room:
            ends[faults[f, 1]] = True
    remaining = stock.copy()
    for y in range(room):
        if best[y] >= best[y + 1]:  # what begins there may begin below
            best[y + 1] = best[y]
            came[y + 1] = y, -1, 0
            begins[y + 1] = False
        if not (begins[y] or ends[y]):
            continue
        remaining[:] = stock
        at = y
        while at > 0:
            if came[at, 1] >= 0:
                _use(came[at, 1], ways[came[at, 2]], leads, remaining, 1)
            at = came[at, 0]
        for i in led:
            top = y + wide[i]
            if top > room or best[y] + most[i] <= best[top] + 1e-12:
                continue
            c = np.searchsorted(lengths, _clear(y, top - rip, run, faults), side="right") - 1
            if c < 0 or values[c, i] <= 0 or best[y] + values[c, i] <= best[top] + 1e-12:
                continue
            if _there(i, ways[c], leads, remaining):
                best[top] = best[y] + values[c, i]
                came[top] = y, i, c
                begins[top] = True
    many, at = 0, room
    while at > 0:
        if came[at, 1] >= 0 and many < ACROSS:
            _write(strips[many], came[at, 0], came[at, 1], ways[came[at, 2]])
            _use(came[at, 1], ways[came[at, 2]], leads, stock, 1)
            many += 1
        at = came[at, 0]
    return many, best[room]


@njit(cache=True)
def _at_most(values, wide, room, there):  # type: ignore[no-untyped-def]
    """No filling of the width is worth more: the densest strips, the last of them in part."""
    total = 0.0
    dense = np.where(wide <= room, values / wide, 0.0)
    for _ in range(_STRIPS):
        i = np.argmax(dense)
        if room <= 0 or dense[i] <= 0:
            break
        total += dense[i] * min(room, wide[i] * there[i])
        room -= wide[i] * there[i]
        dense[i] = 0.0
    return total


@njit(cache=True)
def _firsts(level):  # type: ignore[no-untyped-def]
    """One length of every level."""
    return [np.flatnonzero(level == each)[0] for each in np.unique(level)]


@njit(cache=True)
def run_strips(  # type: ignore[no-untyped-def]
    runs, caps, widths, clear, rip, faults, leads, stock, weighed
):
    """For the `weighed` most promising lengths the strips that fill their width best: height, lead
    and companions of each, how many, their worth, what they use; nothing for the others. Those
    promise most that may fill best what is `clear` of their width on the average.

    `faults` holds for every length bottom, top (grains over its line), beginning and end (steps
    from its start).
    """
    many = np.zeros(runs.shape[0], dtype=np.int64)
    values = np.zeros(runs.shape[0])
    strips = np.zeros((runs.shape[0], ACROSS, 4), dtype=np.int64)
    used = np.zeros((runs.shape[0], stock.shape[0]), dtype=np.int64)
    level = np.searchsorted(
        np.unique(leads.need), caps, side="right"
    )  # lengths that are flat for the same leads
    there = still_there(leads, stock)
    tables = [Companions(*companions(runs.max(), caps[r], leads, there)) for r in _firsts(level)]
    most = np.zeros(runs.shape[0])
    kind = np.searchsorted(np.unique(level), level)
    for r in range(runs.shape[0]):
        if widths[r] > 0:
            table = tables[kind[r]]
            each, _ = strip_values(runs[r] - leads.shared, caps[r], leads, there, table)
            most[r] = _at_most(each, leads.wide, clear[r], there)
            most[r] /= (runs[r] + leads.kerf) * max(1, clear[r])
    for r in np.argsort(-most)[:weighed]:
        if most[r] <= 0:
            break
        table = tables[kind[r]]
        mine = stock.copy()
        some = 0
        while some < faults.shape[1] and faults[r, some, 1] > faults[r, some, 0]:
            some += 1
        if some:
            here = faults[r, :some]
            many[r], values[r] = fill_between(
                widths[r], rip, runs[r], caps[r], here, leads, mine, strips[r], table
            )
        else:
            many[r], values[r] = fill_width(
                widths[r], runs[r] - leads.shared, caps[r], leads, mine, strips[r], table
            )
        used[r] = stock - np.maximum(mine, 0)  # a last stave may be wider than what is left
    return many, values, strips, used


@njit(cache=True)
def together(room, remaining, runs, values, used, order, kerf):  # type: ignore[no-untyped-def]
    """The most that lengths within `room` are worth which leave parts enough to one another; `left`
    is what there is.

    `order` names the lengths tried, the densest first.
    """
    widths = np.zeros(_DEPTH + 1, dtype=np.int64)
    initial = np.zeros(_DEPTH + 1)
    at = np.zeros(_DEPTH + 1, dtype=np.int64)
    chosen = np.zeros(_DEPTH + 1, dtype=np.int64)
    widths[0] = room
    best, depth, trials = 0.0, 0, _TRIALS
    while depth >= 0:
        if at[depth] >= order.shape[0] or trials <= 0:
            depth -= 1
            if depth >= 0:
                remaining += used[chosen[depth]]
            continue
        s = order[at[depth]]
        at[depth] += 1
        trials -= 1
        if initial[depth] + (widths[depth] + kerf) * values[s] / (runs[s] + kerf) <= best:
            at[depth] = order.shape[0]
            continue
        if runs[s] > widths[depth]:
            continue
        fits = True
        for w in range(remaining.shape[0]):
            if used[s, w] > remaining[w]:
                fits = False
                break
        if not fits:
            continue
        profits = initial[depth] + values[s]
        best = max(best, profits)
        if depth < _DEPTH - 1:
            chosen[depth] = s
            remaining -= used[s]
            depth += 1
            at[depth] = at[depth - 1] - 1
            widths[depth] = widths[depth - 1] - runs[s] - kerf
            initial[depth] = profits
    return best


@njit(cache=True)
def length_values(long, values, copies, most):  # type: ignore[no-untyped-def]
    """The most that lengths (each with its kerf) are worth together in every length up to `most`,
    each so many times.
    """
    found = np.zeros(most + 1)
    for r in range(long.shape[0]):
        if values[r] <= 0:
            continue
        for _ in range(copies[r]):
            for at in range(most, long[r] - 1, -1):
                value = values[r] + found[at - long[r]]
                if value > found[at]:
                    found[at] = value
    return found
