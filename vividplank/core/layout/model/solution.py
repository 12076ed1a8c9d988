"""A solution of the search, a pattern for each board, and its objective."""

from dataclasses import dataclass, field
from decimal import Decimal

from vividplank.core.board import Board
from vividplank.core.layout.model.pattern import CuttingPattern
from vividplank.core.shop import Shop


@dataclass(frozen=True)
class Objective:
    """How good an arrangement is; smaller is better, compared in this order."""

    unplaced: int
    cost: Decimal
    leftover: int
    shown: float = 0.0  # volume that shows the figure it is to show

    def better(self, other: "Objective") -> bool:
        mine, theirs = ((s.unplaced, s.cost, -s.shown, -s.leftover) for s in (self, other))
        return mine < theirs


@dataclass
class Solution:
    """What every board holds, and what is left of each item type."""

    patterns: list[CuttingPattern]
    remaining: list[int] = field(default_factory=list)


def leftover(pattern: CuttingPattern, board: Board, shop: Shop) -> int:
    """Length left of a board in full-width pieces long enough to use again."""
    if not pattern.segments:
        return board.length
    ends = [
        shop.end_trim,
        *(x for s in pattern.segments for x in (s.x0, s.x1)),
        board.length - shop.end_trim,
    ]
    gaps = [b - a - shop.kerf.crosscut for a, b in zip(ends[::2], ends[1::2], strict=True)]
    return sum(g for g in gaps if g >= shop.min_blank_length)
