"""Board feet to buy, by wood and quarter, from the list alone: the estimate before any board is
seen.
"""

from collections import defaultdict
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from statistics import median

from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.shop import Shop
from vividplank.core.timber import QUARTERS, board_feet, quarter_for


@dataclass(frozen=True)
class Need:
    """`net` is the parts with their roughing allowances at rough thickness; `to_buy` adds the share
    for waste.

    `quarter` is empty where no quarter gives the thickness: such parts are built up. `price` per
    board foot is the median of the boards on hand of this wood and quarter, None without any that
    has one.
    """

    species: str
    quarter: str
    parts: tuple[str, ...]
    pieces: int
    net: Fraction
    waste_share: Fraction
    longest: int
    widest: int
    on_hand: Fraction
    price: Decimal | None

    @property
    def to_buy(self) -> Fraction:
        return self.net * (1 + self.waste_share)

    @property
    def cost(self) -> Decimal | None:
        if self.price is None:
            return None
        amount = Decimal(self.to_buy.numerator) / Decimal(self.to_buy.denominator) * self.price
        return amount.quantize(Decimal("0.01"), ROUND_HALF_UP)


def needs(job: Job, waste_share: Fraction = Fraction(30, 100)) -> tuple[Need, ...]:
    """The needs of the list, by wood and then by quarter.

    `waste_share` is the rule of thumb of the trade, 20 to 30 % extra and more for short grades.
    """
    job = job.on_boards()
    grouped: defaultdict[tuple[str, int], list[Part]] = defaultdict(list)
    names: dict[str, str] = {}
    for part in job.parts:
        quarter = quarter_for(part.thickness)
        wood = " ".join(part.species.casefold().split())
        names.setdefault(wood, part.species)
        grouped[wood, QUARTERS.index(quarter) if quarter else len(QUARTERS)].append(part)
    found = []
    for (wood, at), parts in sorted(grouped.items(), key=lambda entry: entry[0]):
        name = QUARTERS[at].name if at < len(QUARTERS) else ""
        rough = QUARTERS[at].rough if name else max(p.thickness for p in parts)
        net = sum((_rough_feet(p, rough, job.shop) for p in parts), Fraction(0))
        stock = [
            b
            for b in job.boards
            if " ".join(b.species.casefold().split()) == wood
            and (b.quarter or b.nominal.name) == name
        ]
        prices = [b.price / _decimal(_bought_feet(b)) for b in stock if b.price]
        found.append(
            Need(
                names[wood],
                name,
                tuple(p.id for p in parts),
                sum(p.quantity for p in parts),
                net,
                waste_share,
                max(_unbroken(p, job) for p in parts) + job.shop.allowance.length,
                max(p.panel.stave_min if p.panel else p.width for p in parts)
                + job.shop.allowance.width,
                sum((_bought_feet(b) for b in stock), Fraction(0)),
                Decimal(median(prices)).quantize(Decimal("0.01")) if prices else None,
            )
        )
    return tuple(found)


def _bought_feet(board: Board) -> Fraction:
    """As it was bought: at the rough thickness of its quarter, skimmed or not, exactly."""
    return board_feet(board.nominal.rough, round(board.mean_width), board.length)


def _rough_feet(part: Part, rough: int, shop: Shop) -> Fraction:
    """Board feet of one part's blanks: a run as its blanks end to end, a panel with a seam every
    widest stave.
    """
    length = part.length + shop.allowance.length
    if part.panel:
        net = part.width + shop.allowance.panel_width
        width = net + -(-net // part.panel.stave_max) * shop.allowance.width
    else:
        width = part.width + shop.allowance.width
    return part.quantity * board_feet(rough, width, length)


def _unbroken(part: Part, job: Job) -> int:
    """The length that must come out of one piece: a part's, or its whole run's with the kerfs in
    it.
    """
    if not part.run:
        return part.length
    run = [p for p in job.parts if p.run == part.run]
    pieces = sum(p.quantity for p in run)
    return sum(p.length * p.quantity for p in run) + (pieces - 1) * job.shop.apart


def _decimal(value: Fraction) -> Decimal:
    return Decimal(value.numerator) / Decimal(value.denominator)
