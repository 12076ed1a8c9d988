"""An arrangement in the search, and how good it is."""

from dataclasses import dataclass, field
from decimal import Decimal

from vividplank.core.layout.filled import Fill


@dataclass(frozen=True)
class Standing:
    """How good an arrangement is; smaller is better, compared in this order."""

    unplaced: int
    cost: Decimal
    leftover: int

    def better(self, other: "Standing") -> bool:
        return (self.unplaced, self.cost, -self.leftover) < (other.unplaced, other.cost, -other.leftover)


@dataclass
class State:
    """What every board holds, and what is left of each want."""

    fills: list[Fill]
    left: list[int] = field(default_factory=list)
