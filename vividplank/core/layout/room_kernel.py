"""The compiled heart of room.py: knapsacks that are never below the truth, and what they chose.

Lengths are in steps (those of parts rounded down, rooms up), widths in grains likewise; a kind of strip is a size across and
what one of each want is worth in it.
"""

import numpy as np
from numba import njit


@njit(cache=True)
def along(lengths, values, rooms):  # type: ignore[no-untyped-def]
    """What a strip of every kind holds at most in every room (both in steps): kinds × rooms. `values` is kinds × wants.

    Also the length at which that is reached, and the want laid last at every length (-1: none).
    """
    kinds, wants = values.shape
    most = rooms[-1]
    found = np.zeros((kinds, rooms.shape[0]))
    ends = np.zeros((kinds, rooms.shape[0]), dtype=np.int64)
    last = np.full((kinds, most + 1), -1, dtype=np.int16)
    best = np.zeros(most + 1)
    for c in range(kinds):
        best[:] = 0.0
        for i in range(wants):
            v, long = values[c, i], lengths[i]
            if v <= 0:
                continue
            for at in range(long, most + 1):
                if best[at - long] + v > best[at]:
                    best[at] = best[at - long] + v
                    last[c, at] = i
        at, top = 0, 0
        for r in range(rooms.shape[0]):
            while at <= rooms[r]:
                if best[at] > best[top]:
                    top = at
                at += 1
            found[c, r], ends[c, r] = best[top], top
    return found, ends, last


@njit(cache=True)
def across(sizes, values, room):  # type: ignore[no-untyped-def]
    """What strips beside each other are worth at most in every width up to `room`, and the kind laid last (-1: none)."""
    best = np.zeros(room + 1)
    last = np.full(room + 1, -1, dtype=np.int16)
    before = 0.0
    for c in range(sizes.shape[0]):
        v, wide = values[c], sizes[c]
        if v <= before or wide > room:  # a narrower kind gives as much
            continue
        before = v
        for at in range(wide, room + 1):
            if best[at - wide] + v > best[at]:
                best[at] = best[at - wide] + v
                last[at] = c
    for at in range(1, room + 1):
        if best[at - 1] > best[at]:
            best[at] = best[at - 1]
            last[at] = -1
    return best, last


@njit(cache=True)
def tables(sizes, values, room):  # type: ignore[no-untyped-def]
    """`across` for every length: lengths × widths; `values` is kinds × lengths."""
    found = np.zeros((values.shape[1], room + 1))
    last = np.zeros((values.shape[1], room + 1), dtype=np.int16)
    for r in range(values.shape[1]):
        found[r], last[r] = across(sizes, values[:, r], room)
    return found, last


@njit(cache=True)
def best_segments(table, line, low, high, tilt, shortest, kerf, grain):  # type: ignore[no-untyped-def]
    """The most that segments in a row are worth, and for every cell where the segment that ends there begins (-1: none does),
    how wide it is in grains (0: its lines tell).

    A segment over cells i..j is worth no more than its strips (`table`, by cells and grains, with one cell to spare) nor than
    what every line across it crosses (`line`, summed). `low` and `high` are the outline by cell, `tilt` how much wider a
    slanted segment can be by its cells; widths in ticks.
    """
    cells = low.shape[0]
    best = np.zeros(cells + 1)
    came = np.full((cells + 1, 2), -1, dtype=np.int64)
    room = table.shape[1] - 1
    for j in range(1, cells + 1):
        best[j] = best[j - 1]
        top, bottom = -1e18, 1e18
        for i in range(j - 1, -1, -1):
            top, bottom = max(top, high[i]), min(bottom, low[i])
            n = j - i
            if n < shortest:
                continue
            wide = min(room, int((top - bottom + tilt[n] + kerf) // grain) + 1)
            crossed = line[min(j + 1, cells)] - line[i]
            here = min(table[n, wide], crossed)
            if best[i] + here > best[j]:
                best[j] = best[i] + here
                came[j] = i, (wide if table[n, wide] <= crossed else 0)
    return best[cells], came


@njit(cache=True)
def line_counts(sizes, last, shares, room):  # type: ignore[no-untyped-def]
    """How much of each want a line of every width crosses: widths × wants; `shares` is kinds × wants."""
    found = np.zeros((room + 1, shares.shape[1]))
    for at in range(1, room + 1):
        if last[at] < 0:
            found[at] = found[at - 1]
        else:
            found[at] = found[at - sizes[last[at]]] + shares[last[at]]
    return found


@njit(cache=True)
def strip_counts(n, wide, sizes, table_last, ends, along_last, lengths, amounts):  # type: ignore[no-untyped-def]
    """How much of each want the strips of one segment hold; `amounts` is kinds × wants."""
    found = np.zeros(amounts.shape[1])
    at = wide
    while at > 0:
        c = table_last[n, at]
        if c < 0:
            at -= 1
            continue
        on = ends[c, n]
        while on > 0 and along_last[c, on] >= 0:
            i = along_last[c, on]
            found[i] += amounts[c, i]
            on -= lengths[i]
        at -= sizes[c]
    return found
