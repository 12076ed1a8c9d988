"""Kernels of rounding.py: what patterns one strip best, blank by blank, round all that is
in its way.

Places are counted in steps from the strip's beginning. A blank is cut for a mode: that both its
faces are clear, face A, face B, or neither need be; parts end to end in it share one allowance.
"""

import numpy as np
from numba import njit

from vividplank.core.layout.model.faces import UNSOUND

#: What spoils a blank of each mode: faults of face A, of B, and what is unsound, as faces.py
#: numbers them.
_SPOILED_BY = (3 | UNSOUND, 1 | UNSOUND, 2 | UNSOUND, UNSOUND)
#: How many clear faces a blank of each mode has.
_CLEAR = (2, 1, 1, 0)
_MODES = 4


@njit(cache=True)
def fill_strip(  # type: ignore[no-untyped-def]
    room, step, in_the_way, lengths, profits, most, clear, alone, kerf, allowance, least
):
    """The best filling of `room` steps, in rows of place (-1: on with the blank before) and part.
    `in_the_way` has rows of beginning, end (ticks) and what they spoil; of parts are told the
    length (ticks), the profit, how many there are, how many of their faces are to be clear, and
    whether each has a blank `alone`.

    The best way to every place is kept, with what it has used: a way that used less is not looked
    for.
    """
    parts = lengths.shape[0]
    reach = np.full((_MODES, room + 1), room * float(step))
    for m in range(_MODES):
        for f in range(in_the_way.shape[0]):
            if int(in_the_way[f, 2]) & _SPOILED_BY[m]:
                for x in range(room + 1):
                    if in_the_way[f, 1] > x * step:
                        reach[m, x] = min(reach[m, x], in_the_way[f, 0])
                    else:
                        break
    best = np.full((_MODES + 1, room + 1), -1.0)  # the last: no blank goes on
    came = np.full((_MODES + 1, room + 1, 3), -1, dtype=np.int64)
    used = np.zeros((_MODES + 1, room + 1, parts), dtype=np.int16)
    best[_MODES, 0] = 0.0
    for x in range(room + 1):
        if x and best[_MODES, x - 1] > best[_MODES, x]:  # the sooner, the better
            best[_MODES, x] = best[_MODES, x - 1]
            came[_MODES, x, 0], came[_MODES, x, 1], came[_MODES, x, 2] = x - 1, _MODES, -1
            used[_MODES, x] = used[_MODES, x - 1]
        for m in range(_MODES):
            if best[m, x] > best[_MODES, x]:
                best[_MODES, x] = best[m, x]
                came[_MODES, x, 0], came[_MODES, x, 1], came[_MODES, x, 2] = x, m, -1
                used[_MODES, x] = used[m, x]
        for before in range(_MODES + 1):
            if best[before, x] < 0 or (before < _MODES and x * step < kerf):
                continue
            begins = before == _MODES
            start = (
                x if begins else int((x * step - kerf) / step)
            )  # a blank that goes on has no kerf there
            for i in range(parts):
                if profits[i] <= 0 or used[before, x, i] >= most[i] or (alone[i] and not begins):
                    continue
                long = max(lengths[i] + allowance, least) if begins else lengths[i]
                end = int(np.ceil(x + (long + kerf) / step - 1e-9))
                if end > room:
                    continue
                for m in range(_MODES):
                    if (
                        (not begins and m != before)
                        or _CLEAR[m] < clear[i]
                        or reach[m, start] < x * step + long
                    ):
                        continue
                    if best[before, x] + profits[i] > best[m, end]:
                        best[m, end] = best[before, x] + profits[i]
                        came[m, end, 0], came[m, end, 1], came[m, end, 2] = x, before, i
                        used[m, end] = used[before, x]
                        used[m, end, i] += 1
    rows = np.zeros((room + 1, 2), dtype=np.int64)
    k, x, m = 0, room, _MODES
    while x > 0 or came[m, x, 0] >= 0:
        at, before, i = came[m, x]
        if at < 0:
            break
        if i >= 0:
            rows[k, 0], rows[k, 1] = at if before == _MODES else -1, i
            k += 1
        x, m = at, before
    return rows[:k][::-1].copy()
