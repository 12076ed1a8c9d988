"""What each part costs in wood: the price of its boards, shared out by volume.

An offcut that is kept carries its share of the board it came from as rough wood; the finished parts
of a board carry the rest, waste and all.
"""

from collections import defaultdict
from dataclasses import dataclass
from decimal import Decimal

from vividplank.core.yields.ledger import Account


@dataclass(frozen=True)
class PartCost:
    """All pieces of a part, by its id: cubic ticks as finished, and what their wood cost."""

    part: str
    volume: float
    cost: Decimal


@dataclass(frozen=True)
class Costs:
    """`kept` is what the offcuts are worth, `nothing` what was paid for boards that give no part.
    Parts, `kept` and `nothing` add up to the price of the boards.
    """

    parts: tuple[PartCost, ...]
    kept: Decimal
    nothing: Decimal


def costs(account: Account) -> Costs:
    volumes: defaultdict[str, dict[str, float]] = defaultdict(dict)
    for entry in account.entries:
        if entry.category == "parts":
            of_board = volumes[entry.board]
            of_board[entry.what] = of_board.get(entry.what, 0.0) + entry.volume
    volume: defaultdict[str, float] = defaultdict(float)
    cost: defaultdict[str, Decimal] = defaultdict(Decimal)
    kept = nothing = Decimal(0)
    for board in account.boards:
        spare = board.price * Decimal(board.where["offcuts kept"]) / Decimal(board.rough)
        kept += spare
        pieces = volumes[board.board]
        whole = Decimal(sum(pieces.values()))
        if not whole:
            nothing += board.price - spare
        for mark, taken in pieces.items():
            part = account.part_of.get(mark, mark)
            volume[part] += taken
            cost[part] += (board.price - spare) * Decimal(taken) / whole
    return Costs(tuple(PartCost(p, volume[p], cost[p]) for p in volume), kept, nothing)
