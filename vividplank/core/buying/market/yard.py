"""What a place that sells wood is asked: which boards it has. A yard with a catalogue of its own
would answer behind this.
"""

from typing import Protocol

from vividplank.core.buying.market.offer import OfferedBoard
from vividplank.core.buying.market.supplier import Price, Supplier


class Yard(Protocol):
    def pile(
        self, supplier: Supplier, price: Price, count: int, day: int
    ) -> tuple[OfferedBoard, ...]:
        """Boards of one line of its price book that lie there on a day, counted from 1970-01-01,
        with their tickets.
        """
        ...


class NoYard:
    """Where every board is written down by hand."""

    def pile(
        self, supplier: Supplier, price: Price, count: int, day: int
    ) -> tuple[OfferedBoard, ...]:
        return ()
