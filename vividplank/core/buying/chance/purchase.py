"""One simulated trip to a supplier for a whole list."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from random import Random
from statistics import median

from vividplank.core.board import Board, same_species
from vividplank.core.buying.chance.sample import (
    LEAST_PILE,
    PILE,
    Picked,
    Taken,
    as_they_come,
    picked,
)
from vividplank.core.buying.groups import Group, groups
from vividplank.core.buying.market.supplier import SURFACED, Price, Supplier
from vividplank.core.job import Job
from vividplank.core.layout.model.limits import Clock
from vividplank.core.milling import Milling
from vividplank.core.timber import QUARTERS, board_feet

#: A first guess: rough blanks fill about so large a share of the boards.
FILLED = 0.6


@dataclass(frozen=True)
class Bought:
    """What a trip bought for one group of the list: taken as it comes, and picked."""

    key: str
    taken: Taken
    picked: Picked


@dataclass(frozen=True)
class Purchase:
    """A trip; `lacking` are the groups that the supplier does not sell."""

    seed: int
    bought: tuple[Bought, ...]
    lacking: tuple[str, ...] = ()


def guesses(purchases: Sequence[Purchase]) -> dict[str, int]:
    """How many boards each group took on the average, to begin the next trip with."""
    counts: dict[str, list[int]] = {}
    for p in purchases:
        for b in p.bought:
            if b.taken.whole:
                counts.setdefault(b.key, []).append(b.taken.boards)
    return {key: round(median(c)) for key, c in counts.items()}


def groups_at(job: Job, supplier: Supplier) -> tuple[Group, ...]:
    """The groups of a list as they are bought there: of skimmed wood a part takes the quarter that
    leaves it a facing, for skimmed boards are not flat.
    """
    skimmed = any({"A", "B"} <= set(SURFACED[p.surfacing]) for p in supplier.prices)
    surfaced = {q.name: q.surfaced - job.shop.allowance.face for q in QUARTERS} if skimmed else None
    return groups(job, surfaced)


def on_hand(job: Job, group: Group) -> tuple[Board, ...]:
    """The boards of the job of this wood and quarter."""
    return tuple(
        b
        for b in job.boards
        if same_species(b.species, group.species)
        and (b.quarter or b.nominal.name) == group.quarter_name
    )


def purchase(
    job: Job,
    supplier: Supplier,
    seed: int,
    clock: Clock,
    guesses: Mapping[str, int],
    *,
    grade: str = "",
    use_hand: bool = False,
    milling: Milling | None = None,
    go_on: Callable[[], bool] = lambda: True,
) -> Purchase | None:
    """Buy the whole list once; None where it was told to stop.

    `guesses` says how many boards each group took before, by key. The same seed draws the same
    boards, whatever the list asks for: two lists are compared over the same wood.
    """
    found, lacking = [], []
    for group in groups_at(job, supplier):
        price = supplier.price(group.species, group.quarter_name, grade)
        if price is None:
            lacking.append(group.key)
            continue
        if not go_on():
            return None
        hand = on_hand(job, group) if use_hand else ()
        bought = _buy(group, supplier, price, seed, clock, guesses, hand, milling, go_on)
        if bought is None:
            return None
        found.append(bought)
    return Purchase(seed, tuple(found), tuple(lacking))


def _buy(
    group: Group,
    supplier: Supplier,
    price: Price,
    seed: int,
    clock: Clock,
    guesses: Mapping[str, int],
    hand: Sequence[Board],
    milling: Milling | None,
    go_on: Callable[[], bool],
) -> Bought | None:
    lot = supplier.population(price)
    guess = guesses.get(group.key) or first_guess(group, lot.mean_board_feet)
    name = f"{supplier.id} {group.key} {seed}"
    pile = max(LEAST_PILE, round(PILE * guess))
    best = picked(
        group.job, hand, lot, price.per_foot, pile, Random(f"pile {name}"), clock, milling
    )
    taken = as_they_come(group.job, hand, lot, Random(f"trip {name}"), guess, clock, go_on)
    return Bought(group.key, taken, best) if taken else None


def first_guess(group: Group, mean_board_feet: float) -> int:
    """Boards that the group may take, from its rough blanks alone."""
    return max(1, round(rough_feet(group) / FILLED / mean_board_feet))


def rough_feet(group: Group) -> float:
    """Board feet of the group's rough blanks; a run as its blanks end to end, a panel with a seam
    every widest stave.
    """
    shop = group.job.shop
    total = 0.0
    for part in group.job.parts:
        rough = group.quarter.rough if group.quarter else part.thickness
        width = part.width + shop.allowance.width
        if part.panel:
            net = part.width + shop.allowance.panel_width
            width = net + -(-net // part.panel.stave_max) * shop.allowance.width
        each = board_feet(rough, width, part.length + shop.allowance.length)
        total += float(part.quantity * each)
    return total
