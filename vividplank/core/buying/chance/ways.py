"""Ways to get the wood of a list compared: what each supplier costs in money and hours, and with
what chance.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean
from typing import Annotated

from pydantic import WithJsonSchema

from vividplank.core.buying.chance.estimate import Amount, Estimate, curve, each_of
from vividplank.core.buying.chance.purchase import Bought, Purchase
from vividplank.core.buying.market.supplier import Supplier

#: Minutes a piece takes that comes milled: looked over, and cut to length.
MILLED_MINUTES = 2.0
#: A supplier that lacks a part in more than this share of the trips does not have the wood for it.
MOSTLY = 0.5


#: (amount, chance) pairs.
Curve = Annotated[
    tuple[tuple[float, float], ...],
    WithJsonSchema({"type": "array", "items": {"type": "array", "items": {"type": "number"}}}),
]


@dataclass(frozen=True)
class GroupAmount:
    """Of one group at one supplier, from `trips` simulated ones: board feet and boards taken as
    they come and picked from a pile of `pile`, for the chance that was asked; `left_out` counts the
    trips that missed a part. Curves are (amount, chance).
    """

    key: str
    trips: int
    pile: int
    come: Amount | None
    come_boards: Amount | None
    come_curve: Curve
    picked: Amount | None
    picked_boards: float
    picked_curve: Curve
    cost: float
    left_out: dict[str, int]


@dataclass(frozen=True)
class SupplierWay:
    """`money` is what picking costs on the average with the trip there, `milled` what of it is for
    milling; `hours` is the time at the machines and on the road. `risk` is the chance that a pile
    does not give the whole list, that is, of a second trip. `cannot` are parts that it mostly does
    not give, `lacking` groups it does not sell, `elsewhere` steps that no machine of the shop does.
    """

    supplier: str
    grade: str
    groups: tuple[GroupAmount, ...]
    money: float
    milled: float
    hours: float
    machine_hours: dict[str, float]
    risk: float
    cannot: tuple[str, ...]
    lacking: tuple[str, ...]
    elsewhere: float

    @property
    def possible(self) -> bool:
        return not self.cannot and not self.lacking and self.elsewhere < 1


def supplier_way(
    supplier: Supplier,
    purchases: Sequence[Purchase],
    pieces: int,
    chance: float,
    *,
    grade: str = "",
    milled: bool = False,
) -> SupplierWay:
    """What the trips to one supplier for one of its grades say; `milled` has the wood milled to the
    list there.
    """
    keys = list(dict.fromkeys(b.key for p in purchases for b in p.bought))
    each = each_of(chance, len(keys))
    trips = [{b.key: b for b in p.bought} for p in purchases]
    amounts = tuple(_amount(key, [t[key] for t in trips if key in t], each) for key in keys)
    feet = fmean(sum(b.picked.feet for b in t.values()) for t in trips)
    cost = fmean(sum(b.picked.cost for b in t.values()) for t in trips)
    extra = float(supplier.milling) * feet if milled else 0.0
    machines: dict[str, float] = {}
    for t in trips:
        for b in t.values():
            for machine, minutes in b.picked.minutes.items():
                machines[machine] = machines.get(machine, 0.0) + minutes / 60 / len(trips)
    if milled:
        machines = {"crosscut saw": pieces * MILLED_MINUTES / 60}
    left: dict[str, int] = {}
    for amount in amounts:
        for part, count in amount.left_out.items():
            left[part] = left.get(part, 0) + count
    short = sum(any(b.picked.left_out for b in t.values()) for t in trips)
    return SupplierWay(
        supplier.id,
        grade,
        amounts,
        cost + float(supplier.trip) + extra,
        extra,
        sum(machines.values()) + supplier.trip_hours,
        {m: round(h, 2) for m, h in sorted(machines.items(), key=lambda m: -m[1])},
        short / len(trips),
        tuple(p for p, count in left.items() if count > MOSTLY * len(trips)),
        purchases[0].lacking,
        0.0 if milled else fmean(sum(b.picked.elsewhere for b in t.values()) for t in trips),
    )


def _amount(key: str, bought: Sequence[Bought], chance: float) -> GroupAmount:
    taken = [b.taken for b in bought]  # where none did, what was given up at
    picked = [b.picked for b in bought if not b.picked.left_out]
    left: dict[str, int] = {}
    for b in bought:
        for part in b.picked.left_out:
            left[part] = left.get(part, 0) + 1
    one = [t.feet / t.boards for t in taken if t.boards] or [1.0]
    come = Estimate(tuple(t.before for t in taken), fmean(one)) if taken else None
    # Who buys at all buys a board.
    least = fmean(one) if all(t.boards for t in taken) else 0.0
    # A number of boards covers the list from the last board on: half a board less is the middle.
    boards = Estimate(tuple(t.boards - 0.5 for t in taken), 1.0) if taken else None
    pick = Estimate(tuple(p.feet for p in picked), fmean(one)) if picked else None
    return GroupAmount(
        key,
        len(bought),
        bought[0].picked.pile if bought else 0,
        come.amount(chance).at_least(least) if come else None,
        boards.amount(chance) if boards else None,
        tuple(curve(come)) if come else (),
        pick.amount(chance) if pick else None,
        fmean(p.boards for p in picked) if picked else 0.0,
        tuple(curve(pick)) if pick else (),
        fmean(b.picked.cost for b in bought),
        left,
    )


@dataclass(frozen=True)
class Recommendation:
    """The supplier that is cheapest with an hour at its price, and the next; `saves` is the
    difference. `only` where no other way is possible.
    """

    supplier: str
    grade: str
    milled: bool
    next: str
    next_grade: str
    saves: float
    only: bool


def recommended(ways: Sequence[tuple[SupplierWay, bool]], an_hour: float) -> Recommendation | None:
    """Of ways, each with whether it is milled there; None where none is possible."""
    able = sorted(
        (w.money + an_hour * w.hours, w.supplier, w.grade, milled)
        for w, milled in ways
        if w.possible
    )
    if not able:
        return None
    cost, supplier, grade, milled = able[0]
    if len(able) == 1:
        return Recommendation(supplier, grade, milled, "", "", 0.0, True)
    then, next_, next_grade, _ = able[1]
    return Recommendation(supplier, grade, milled, next_, next_grade, then - cost, False)
