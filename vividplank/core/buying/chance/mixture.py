"""The list bought at several suppliers: which group of it where, with the trips that takes.

A set partitioning program with fixed charges (HiGHS): each part is bought in one group at one
supplier, a supplier that is gone to costs its trip. Groups are those of each supplier: of skimmed
wood a part may take another quarter than of rough.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import prod
from statistics import fmean

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from vividplank.core.buying.chance.purchase import Purchase, groups_at
from vividplank.core.buying.chance.ways import MILLED_MINUTES, MOSTLY
from vividplank.core.buying.groups import groups
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.job import Job


@dataclass(frozen=True)
class Place:
    """A way to buy, with the trips that were simulated: a supplier, one of its grades, and whether
    the wood is milled there.
    """

    supplier: Supplier
    grade: str
    milled: bool
    purchases: tuple[Purchase, ...]


@dataclass(frozen=True)
class Share:
    """Groups of the list that are bought at one place."""

    supplier: str
    grade: str
    milled: bool
    groups: tuple[str, ...]


@dataclass(frozen=True)
class Mixture:
    """What buying in shares costs with all trips there; `risk` is the chance that one of the piles
    lacks a part.
    """

    shares: tuple[Share, ...]
    money: float
    hours: float
    risk: float


@dataclass(frozen=True)
class _Block:
    """One group at one place, on the average of its trips."""

    place: int
    key: str
    parts: frozenset[str]
    money: float
    hours: float
    risk: float


def mixture(job: Job, places: Sequence[Place], an_hour: float) -> Mixture | None:
    """The cheapest with an hour at its price; None where no choice of groups gives the whole list,
    or one supplier alone is the cheapest.
    """
    blocks = [b for n, place in enumerate(places) for b in _blocks(job, n, place)]
    parts = sorted({p.id for g in groups(job) for p in g.job.parts})
    suppliers = list(dict.fromkeys(p.supplier.id for p in places))
    if not blocks or not parts:
        return None
    trips = [next(p.supplier for p in places if p.supplier.id == s) for s in suppliers]
    cost = [b.money + an_hour * b.hours for b in blocks]
    cost += [float(s.trip) + an_hour * s.trip_hours for s in trips]
    once = np.zeros((len(parts), len(cost)))
    gone_to = np.zeros((len(blocks), len(cost)))
    for k, block in enumerate(blocks):
        for part in block.parts:
            once[parts.index(part), k] = 1
        gone_to[k, k] = 1
        gone_to[k, len(blocks) + suppliers.index(places[block.place].supplier.id)] = -1
    solved = milp(
        np.array(cost),
        integrality=np.ones(len(cost)),
        constraints=[LinearConstraint(once, 1, 1), LinearConstraint(gone_to, ub=0)],
        bounds=Bounds(0, 1),
        options={"time_limit": 2.0},
    )
    if solved.x is None:
        return None
    chosen = [b for k, b in enumerate(blocks) if solved.x[k] > 0.5]
    used = [s for k, s in enumerate(trips) if solved.x[len(blocks) + k] > 0.5]
    if len(used) < 2:
        return None
    shares = tuple(
        Share(
            place.supplier.id,
            place.grade,
            place.milled,
            tuple(b.key for b in chosen if b.place == n),
        )
        for n, place in enumerate(places)
        if any(b.place == n for b in chosen)
    )
    return Mixture(
        shares,
        sum(b.money for b in chosen) + sum(float(s.trip) for s in used),
        sum(b.hours for b in chosen) + sum(s.trip_hours for s in used),
        1 - prod(1 - b.risk for b in chosen),
    )


def _blocks(job: Job, n: int, place: Place) -> list[_Block]:
    """The groups of a place that its piles mostly give whole, with the machines there are."""
    found = []
    for group in groups_at(job, place.supplier):
        bought = [b.picked for p in place.purchases for b in p.bought if b.key == group.key]
        if not bought or (not place.milled and fmean(b.elsewhere for b in bought) >= 1):
            continue
        short = fmean(bool(b.left_out) for b in bought)
        if any(fmean(part.id in b.left_out for b in bought) > MOSTLY for part in group.job.parts):
            continue
        money = fmean(b.cost for b in bought)
        hours = fmean(sum(b.minutes.values()) for b in bought) / 60
        if place.milled:
            money += float(place.supplier.milling) * fmean(b.feet for b in bought)
            hours = group.pieces * MILLED_MINUTES / 60
        ids = frozenset(p.id for p in group.job.parts)
        found.append(_Block(n, group.key, ids, money, hours, short))
    return found
