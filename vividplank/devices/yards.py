"""Simulated yards: boards drawn from what a supplier says it has, the same all day, and tickets by
its rule. Now and then a ticket says a board foot too much.
"""

from dataclasses import replace
from random import Random

from vividplank.core.buying.market.offer import OfferedBoard
from vividplank.core.buying.market.supplier import Price, Supplier, ticket_feet

#: One ticket of so many is wrong.
_WRONG = 8


class SimulatedYard:
    def pile(
        self, supplier: Supplier, price: Price, count: int, day: int
    ) -> tuple[OfferedBoard, ...]:
        rng = Random(f"{supplier.id} {price.species} {price.quarter} {price.grade} {day}")
        stem = "".join(word[0] for word in supplier.name.split()[:2]).upper()
        found = []
        for board in supplier.pile(price, count, rng, stem):
            feet = ticket_feet(board, supplier.ticket) + (rng.randrange(_WRONG) == 0)
            by_volume = price.per in ("board foot", "cubic metre")
            read = tuple(replace(m, day=day) for m in board.moisture)
            offer = OfferedBoard(
                replace(
                    board, grade="" if price.grade == "ungraded" else price.grade, moisture=read
                ),
                supplier.id,
                round(price.per_foot, 4),
                round(float(feet), 2),
                None if by_volume else board.price,
            )
            found.append(offer.priced(supplier.ticket))
        return tuple(found)
