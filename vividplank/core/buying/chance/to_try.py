"""Boards to try a list with, before any are bought: as many as cover it, as a supplier has them."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from decimal import Decimal
from itertools import count, islice
from random import Random

from vividplank.core.board import Board
from vividplank.core.buying.chance.purchase import first_guess, groups_at
from vividplank.core.buying.chance.sample import as_they_come, boards_of, feet_of
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.job import Job
from vividplank.core.layout.model.limits import Clock

#: So many times what rough blanks fill, where there is no time to find out how many it takes.
_MORE = 2


def lacking(job: Job, supplier: Supplier) -> tuple[str, ...]:
    """The groups of a list that a supplier does not sell."""
    return tuple(
        g.key for g in groups_at(job, supplier) if supplier.price(g.species, g.quarter_name) is None
    )


def boards_to_try(
    job: Job, suppliers: Sequence[Supplier], clock: Clock, seconds: float
) -> tuple[Board, ...]:
    """Boards at the first supplier that lacks least of the list, marked T1 and on, but for marks
    that boards of the job have. None for what it does not sell; of what is not found out within
    the time a good deal more than its rough blanks.
    """
    if not suppliers:
        return ()
    supplier = min(suppliers, key=lambda s: len(lacking(job, s)))
    until = clock() + seconds
    taken = {b.id for b in job.boards}
    marks = (mark for n in count(1) if (mark := f"T{n}") not in taken)
    return tuple(replace(b, id=next(marks)) for b in _drawn(job, supplier, clock, until))


def _drawn(job: Job, supplier: Supplier, clock: Clock, until: float) -> Iterator[Board]:
    for group in groups_at(job, supplier):
        price = supplier.price(group.species, group.quarter_name)
        if price is None:
            continue
        lot = supplier.population(price)
        seed = f"try {supplier.id} {group.key}"
        guess = first_guess(group, lot.mean_board_feet)
        taken = as_they_come(
            group.job, (), lot, Random(seed), guess, clock, lambda: clock() < until, rounds=0
        )
        enough = taken.boards if taken else _MORE * guess
        for board in islice(boards_of(lot, Random(seed)), enough):
            cost = round(Decimal(feet_of(board)) * price.per_foot, 2)
            yield replace(board, price=cost, supplier=supplier.name)
