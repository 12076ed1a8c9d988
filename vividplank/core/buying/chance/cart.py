"""The chance that a cart covers its list, with the faults that nobody sees before skimming."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from random import Random

from scipy.stats import norm

from vividplank.core.board import Board
from vividplank.core.buying.chance.estimate import SURE
from vividplank.core.buying.chance.sample import as_they_come
from vividplank.core.buying.groups import Group
from vividplank.core.buying.market.population import Population, hidden_fault
from vividplank.core.layout.model.limits import Clock


@dataclass(frozen=True)
class CartChance:
    """`chance` that the boards cover the list, give or take `error` with nine chances of ten, from
    so many samples of unseen faults. `more` boards as they come cover it in nine samples of ten.
    """

    samples: int
    chance: float
    error: float
    more: int


def cart_chance(
    carts: Sequence[tuple[Group, Population, Sequence[Board]]],
    samples: int,
    clock: Clock,
    seed: int = 1,
    go_on: Callable[[], bool] = lambda: True,
) -> CartChance | None:
    """Of the groups of a list, each with what the supplier has of it and what is in the cart; None
    where not one sample was done before it was told to stop.
    """
    more: list[int] = []
    guesses = {group.key: 0 for group, _, _ in carts}
    for n in range(samples):
        wanted = 0
        for group, lot, boards in carts:
            rng = Random(f"cart {seed} {n} {group.key}")
            seen = [_as_it_is(b, lot, rng) for b in boards]
            taken = as_they_come(group.job, seen, lot, rng, guesses[group.key], clock, go_on)
            if taken is None:
                break
            guesses[group.key] = taken.boards
            wanted += taken.boards
        else:
            more.append(wanted)
            continue
        break
    if not more:
        return None
    # The mean of the posterior from Jeffreys' prior: half a success, half a failure.
    count = len(more)
    chance = (sum(m == 0 for m in more) + 0.5) / (count + 1)
    wide = float(norm.ppf((1 + SURE) / 2))
    return CartChance(
        count,
        chance,
        wide * math.sqrt(chance * (1 - chance) / (count + 1)),
        sorted(more)[min(count - 1, math.ceil(0.9 * count) - 1)],
    )


def _as_it_is(board: Board, lot: Population, rng: Random) -> Board:
    unseen = hidden_fault(lot, rng, board)
    return replace(board, defects=(*board.defects, unseen)) if unseen else board
