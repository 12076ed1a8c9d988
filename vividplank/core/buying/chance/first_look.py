"""A first answer while trips are not simulated yet: boards as they come, laid out at once without
any search. It says a little too much, for a search finds room for some parts more.
"""

from dataclasses import dataclass
from random import Random
from statistics import fmean

from vividplank.core.buying.chance.estimate import Amount, Estimate, each_of
from vividplank.core.buying.chance.purchase import FILLED, first_guess, groups_at, rough_feet
from vividplank.core.buying.chance.sample import Taken, as_they_come
from vividplank.core.buying.groups import Group
from vividplank.core.buying.market.supplier import Price, Supplier
from vividplank.core.job import Job
from vividplank.core.layout.model.limits import Clock

#: Trips at most, for each group.
_TRIPS = 6


@dataclass(frozen=True)
class FirstLook:
    """Of one group: what covers it as it comes with the chance that was asked, from so many trips;
    of a list too large for one in the time there is (0 trips) from its rough blanks alone. `amount`
    is None where no board gives some part. `cost` is the usual amount at its price.
    """

    key: str
    trips: int
    amount: Amount | None
    cost: float


def first_look(
    job: Job,
    supplier: Supplier,
    chance: float,
    clock: Clock,
    seconds: float,
    grade: str = "",
) -> tuple[FirstLook, ...]:
    """Of the groups that are sold there, each in its share of the time."""
    sold = [
        (group, price)
        for group in groups_at(job, supplier)
        if (price := supplier.price(group.species, group.quarter_name, grade))
    ]
    each = each_of(chance, len(sold))
    return tuple(
        _look(group, supplier, price, each, clock, clock() + seconds / len(sold))
        for group, price in sold
    )


def _look(
    group: Group, supplier: Supplier, price: Price, chance: float, clock: Clock, until: float
) -> FirstLook:
    lot = supplier.population(price)
    guess = first_guess(group, lot.mean_board_feet)
    trips: list[Taken] = []

    def in_time() -> bool:
        return clock() < until

    while len(trips) < _TRIPS and in_time():
        rng = Random(f"first look {supplier.id} {group.key} {len(trips)}")
        taken = as_they_come(group.job, (), lot, rng, guess, clock, in_time, rounds=0)
        if taken is None:
            break
        if not taken.whole:
            return FirstLook(group.key, 1, None, 0.0)
        trips.append(taken)
        guess = taken.boards
    amounts = [t.before for t in trips] or [rough_feet(group) / FILLED]
    usual = fmean(t.feet for t in trips) if trips else amounts[0]
    one = fmean(t.feet / t.boards for t in trips) if trips else lot.mean_board_feet
    amount = Estimate(tuple(amounts), one).amount(chance).at_least(one)
    return FirstLook(group.key, len(trips), amount, usual * float(price.per_foot))
