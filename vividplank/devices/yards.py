"""Simulated yards: boards drawn from what a source says it has, the same all day, and tickets by
its rule. Now and then a ticket says a board foot too much.
"""

from dataclasses import replace
from random import Random

from vividplank.core.buying.market.offer import Offer
from vividplank.core.buying.market.source import Price, Source, ticket_feet

#: One ticket of so many is wrong.
_WRONG = 8


class SimulatedYard:
    def pile(self, source: Source, price: Price, count: int, day: int) -> tuple[Offer, ...]:
        rng = Random(f"{source.id} {price.species} {price.quarter} {price.grade} {day}")
        stem = "".join(word[0] for word in source.name.split()[:2]).upper()
        found = []
        for board in source.pile(price, count, rng, stem):
            feet = ticket_feet(board, source.ticket) + (rng.randrange(_WRONG) == 0)
            offer = Offer(
                replace(board, grade="" if price.grade == "ungraded" else price.grade),
                source.id,
                price.per_foot,
                round(float(feet), 2),
            )
            found.append(offer.priced(source.ticket))
        return tuple(found)
