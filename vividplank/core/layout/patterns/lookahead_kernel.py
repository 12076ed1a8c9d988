"""The compiled look ahead along a board: which lengths are worth asking about, and which of them
promise most.

Leads, steps and grains are those of proposals_kernel.py; proposals.py says what it is for.
"""

import numpy as np
from numba import njit

from vividplank.core.layout.patterns.proposals_kernel import length_values, run_strips, together

#: Steps counted as one where it is only guessed what lengths together are worth.
_COARSE = 4


@njit(cache=True)
def lengths(leads, stock, pairs, least, total, most, seed):  # type: ignore[no-untyped-def]
    """About `most` lengths that some parts fill exactly: one, several end to end, two different
    ones; and all there is.

    `pairs` has rows of two leads and the length both take, those that waste least beside each other
    first.
    """
    np.random.seed(seed)
    blank, owner, unit = leads.blank, leads.owner, leads.unit
    kerf, shared = leads.kerf, leads.shared
    n = blank.shape[0]
    count = np.zeros(n, dtype=np.int64)
    single = np.zeros(5 * n, dtype=np.int64)
    k = 0
    for i in range(n):
        count[i] = (stock[owner[i]] + unit[i] - 1) // unit[i]
        for m in range(1, min(count[i], 5) + 1):
            run = max(m * (blank[i] + kerf) - kerf + shared, least)
            if run <= total:
                single[k] = run
                k += 1
    single = np.unique(single[:k])
    if single.shape[0] > most:
        single = np.random.permutation(single)[:most]
    both = np.zeros(most // 3 + most // 6, dtype=np.int64)
    k = 0
    for p in range(pairs.shape[0]):
        if k >= most // 3:
            break
        run = pairs[p, 2]
        if (
            least <= run <= total
            and count[pairs[p, 0]] > 0
            and count[pairs[p, 1]] > 0
            and not np.any(both[:k] == run)
        ):
            both[k] = run
            k += 1
    for _ in range(2 * most if pairs.shape[0] else 0):
        if k >= both.shape[0]:
            break
        p = np.random.randint(pairs.shape[0])
        if least <= pairs[p, 2] <= total and count[pairs[p, 0]] > 0 and count[pairs[p, 1]] > 0:
            both[k] = pairs[p, 2]
            k += 1
    return np.unique(np.concatenate((single, both[:k], np.array([total]))))


@njit(cache=True)
def promising(  # type: ignore[no-untyped-def]
    runs, caps, widths, clear, free, faults, total, rip, leads, stock, breadth, chance, most, seed
):
    """The `most` lengths that promise most, how many strips each has, these, their worth, and that
    of the rest of the board.

    `clear` is how wide every length is without its faults, in grains on the average, `free` the
    room beyond it, in steps by grains; of the first best it is asked what goes together with them,
    as `breadth` says. `chance` lets the foremost change places.
    """
    np.random.seed(seed)
    profits, kerf = leads.profits, leads.kerf
    weighed = breadth.weighed
    many, values, strips, used = run_strips(
        runs, caps, widths, clear, rip, faults, leads, stock, weighed
    )
    after, uses = values, used
    if faults.any():  # beyond a length the faults of this place are passed
        none = np.zeros_like(faults)
        _, after, _, uses = run_strips(runs, caps, widths, widths, rip, none, leads, stock, weighed)
    dense = (profits / ((leads.blank + kerf) * leads.wide)).max()
    everything = (profits * (stock[leads.owner] / leads.unit)).sum()
    often = np.full(runs.shape[0], 4, dtype=np.int64)
    for r in range(runs.shape[0]):
        for w in range(stock.shape[0]):
            if uses[r, w] > 0:
                often[r] = min(often[r], stock[w] // uses[r, w])
        often[r] = max(often[r], 1)
    beyond = length_values((runs + kerf) // _COARSE, after, often, (total + kerf) // _COARSE)
    rest = np.zeros(runs.shape[0])
    for r in range(runs.shape[0]):
        # What is laid here is not laid there.
        rest[r] = breadth.hope * min(beyond[max(0, total - runs[r]) // _COARSE], dense * free[r])
        rest[r] = min(rest[r], max(0.0, everything - values[r]))
    along = np.argsort(-after / (runs + kerf))[: breadth.others]
    for r in np.argsort(-(values + rest))[: breadth.first]:
        reached = together(total - runs[r] - kerf, stock - used[r], runs, after, uses, along, kerf)
        rest[r] = max(rest[r], min(reached, dense * free[r]))
    promise = (values + rest) * (1 + chance * np.random.random(runs.shape[0]))
    best = np.argsort(-promise)[:most]
    return best, many[best], strips[best], values[best], rest[best]
