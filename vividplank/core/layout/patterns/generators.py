"""The generators of all boards: which of them is to hold what belongs together, and what the bound
counts on theirs, cut.
"""

import random
from collections.abc import Collection, Iterator, Sequence

from vividplank.core.layout.bound.relaxation import BoardRelaxation, Floats
from vividplank.core.layout.model.pattern import CuttingPattern
from vividplank.core.layout.patterns.generator import PatternGenerator


def keep_together(
    generators: Sequence[PatternGenerator],
    group: set[int],
    begun: Collection[str],
    prices: Sequence[float],
    demand: Sequence[int],
    profits: Sequence[float],
    rng: random.Random,
) -> None:
    """Give the wants of a group to the board that holds them all for the least, of those where they
    are `begun` if they are; where none does they go where they can.
    """
    theirs = [n if k in group else 0 for k, n in enumerate(demand)]
    holding: list[tuple[float, int]] = []
    for i, generator in enumerate(generators):
        if group <= generator.mine_indexes and (not begun or generator.board.id in begun):
            patterns = generator.cut(theirs, profits, rng, 3, 4)
            if any(all(dict(f.taken).get(k, 0) >= theirs[k] for k in group) for f in patterns):
                holding.append((prices[i], i))
    if holding:
        _, chosen = min(holding)
        for i, generator in enumerate(generators):
            if i != chosen:
                generator.leave_to_others(group)


def round_relaxation(
    generators: Sequence[PatternGenerator],
    relaxation: BoardRelaxation,
    profits: Floats,
    boards: Sequence[int],
    remaining: Sequence[int],
) -> Iterator[tuple[int, CuttingPattern]]:
    """Patterns, by the place of their generator, of boards counted by these profits; none of boards
    where something is pinned.
    """
    free = {f.board.id: i for i, f in enumerate(generators) if not f.pinned}
    for b in boards:
        i = free.get(relaxation.boards[b].id)
        if i is not None:
            pattern = generators[i].rounding.cut(
                relaxation.counted.get(b, ()),
                remaining,
                relaxation.for_item_types(profits, generators[i].item_types),
            )
            if pattern:
                yield i, pattern
