"""Kernels of relaxation.py: the segments in a row that hold most, each asked closely only
where that may matter.
"""

import numpy as np
from numba import njit

from vividplank.core.layout.bound.sweep_kernel import aslant

#: How much may be asked in a round: places times strips, steps times parts.
_EFFORT = 1e6
#: Around a segment it is first asked to the next of so many cells.
_BLOCK = 4


@njit(cache=True)
def _chain(most, told, shortest, best, came):  # type: ignore[no-untyped-def]
    """Write the segments in a row that may hold most, and answer what those hold of which it is
    told closely.
    """
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
def lower(most, shortest, rounds, near, steepest, stock, held, items, coarse, fine, work):  # type: ignore[no-untyped-def]
    """Lower what segments over cells i..j hold at `most` where a row of them holds most, until that
    is told as closely as `near` or so many times; answer what a row holds at most, and where the
    segment begins that ends at every cell.

    What is told of a segment that could hold most is true of all that lie within the same cells: it
    is asked first of some that are a little longer, roughly.
    """
    cells = most.shape[0] - 1
    told, asked = np.zeros(most.shape, dtype=np.bool_), np.zeros(most.shape, dtype=np.bool_)
    best, came = np.zeros(cells + 1), np.full(cells + 1, -1, dtype=np.int64)
    work.effort[:] = 0.0, rounds * _EFFORT
    for _ in range(rounds):
        sure = _chain(most, told, shortest, best, came)
        if best[cells] <= sure * (1 + near) or work.effort[0] > work.effort[1]:
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
                        first * _BLOCK,
                        around,
                        1e300,
                        floor,
                        steepest,
                        stock,
                        held,
                        items,
                        coarse,
                        coarse,
                        work,
                    )
                    _no_more(most, first * _BLOCK, around, value)
                else:
                    value, _, _ = aslant(
                        i, j, was, floor, steepest, stock, held, items, coarse, fine, work
                    )
                    told[i, j] = True
                    most[i, j] = value
                    _no_more(most, i, j, value)
                total -= was - most[i, j]
            j = i
    _chain(most, told, shortest, best, came)
    return best[cells], came
