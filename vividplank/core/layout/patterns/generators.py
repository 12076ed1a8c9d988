"""The fillers of all boards: which of them is to hold what belongs together, and what the bound
counts on theirs, cut.
"""

import random
from collections.abc import Collection, Iterator, Sequence

from vividplank.core.layout.bound.relaxation import Floats, Rooms
from vividplank.core.layout.model.pattern import Fill
from vividplank.core.layout.patterns.generator import Filler


def keep_together(
    fillers: Sequence[Filler],
    group: set[int],
    begun: Collection[str],
    prices: Sequence[float],
    demand: Sequence[int],
    worth: Sequence[float],
    rng: random.Random,
) -> None:
    """Give the wants of a group to the board that holds them all for the least, of those where they
    are `begun` if they are; where none does they go where they can.
    """
    theirs = [n if k in group else 0 for k, n in enumerate(demand)]
    holding: list[tuple[float, int]] = []
    for i, filler in enumerate(fillers):
        if group <= filler.mine_indexes and (not begun or filler.board.id in begun):
            fills = filler.cut(theirs, worth, rng, 3, 4)
            if any(all(dict(f.taken).get(k, 0) >= theirs[k] for k in group) for f in fills):
                holding.append((prices[i], i))
    if holding:
        _, chosen = min(holding)
        for i, filler in enumerate(fillers):
            if i != chosen:
                filler.leave_to_others(group)


def cut_as_counted(
    fillers: Sequence[Filler],
    rooms: Rooms,
    worth: Floats,
    boards: Sequence[int],
    left: Sequence[int],
) -> Iterator[tuple[int, Fill]]:
    """Fills, by the place of their filler, of boards counted by these worths; none of boards where
    something is pinned.
    """
    free = {f.board.id: i for i, f in enumerate(fillers) if not f.pinned}
    for b in boards:
        i = free.get(rooms.boards[b].id)
        if i is not None:
            fill = fillers[i].tight.cut(
                rooms.counted.get(b, ()), left, rooms.for_wants(worth, fillers[i].wants)
            )
            if fill:
                yield i, fill
