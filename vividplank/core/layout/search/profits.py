"""What a unit of each item type is worth at the start of a search, for its volume: the area it
takes, and how many boards can give it.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from decimal import Decimal

from vividplank.core.board import Board
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop

#: How much more an item type is worth that hardly any board can give.
_SCARCE = 0.1
#: Worth, in money, of every part showing the figure it is to show: less than a cent, so that it
#: never costs one.
_SHOWN = 0.005
#: How much more a part weighs that is placed before all others.
_FIRST = 1000.0


@dataclass(frozen=True)
class Profits:
    """What item types are worth, by their index: the room they take for their volume, what they are
    worth at the start (for their volume too), how much each weighs that is left out; and what is
    lost in money for the volume left out and for that which does not show the figure it is to show.
    """

    item_types: Sequence[ItemType]
    taken: Sequence[float]
    plain: Sequence[float]
    weights: Sequence[float]
    per_volume: float
    per_shown: float


def initial_profits(
    job: Job, wanted: Sequence[ItemType], holding: Sequence[Sequence[Board]], first: Collection[str]
) -> Profits:
    """Of what is wanted of a job; `holding` are the boards large enough for each item type, `first`
    names what is placed first.
    """
    taken = [area_taken(w, boards, job.shop) for w, boards in zip(wanted, holding, strict=True)]
    weights = [_FIRST if w.name in first else 1.0 for w in wanted]
    plain = [
        t * scarcity(boards, job.boards) * k
        for t, boards, k in zip(taken, holding, weights, strict=True)
    ]
    prices = sum((b.price for b in job.boards), Decimal(1))
    volume = sum(w.volume * (1 if w.is_panel else w.count) for w in wanted) or 1
    figured = sum(w.volume * (1 if w.is_panel else w.count) for w in wanted if w.figure)
    return Profits(
        wanted,
        taken,
        plain,
        weights,
        4 * float(prices) / volume,
        _SHOWN / figured if figured else 0.0,
    )


def area_taken(item_type: ItemType, boards: Sequence[Board], shop: Shop) -> float:
    """The area an item type takes with its kerfs, of a board of `boards` that may be resawn, for
    its volume (1/in).

    Boards that are cut into such item types without waste all give the same of it for their area.
    """
    layers = min((shop.layers_in(b.thickest, item_type.thickness) for b in boards), default=1) or 1
    staves = -(-item_type.width // item_type.stave_max) if item_type.is_panel else 1
    across = item_type.width + staves * (shop.allowance.width + shop.kerf.rip)
    return (
        (item_type.length + shop.kerf.crosscut)
        * across
        / layers
        / item_type.volume
        * TICKS_PER_INCH
    )


def scarcity(boards: Sequence[Board], everything: Sequence[Board]) -> float:
    """1 for what every board can give, up to a tenth more for what hardly any can; `boards` are
    those that can.
    """
    room = sum(b.length * b.widest for b in boards)
    return 1.0 + _SCARCE * (1 - room / (sum(b.length * b.widest for b in everything) or 1))


def rarity(boards: int, everything: int) -> float:
    """1 for what every board can give, up to twice as much for what one alone can; 1 as well for
    what none can.
    """
    return 1.0 + 1 / boards - 1 / everything if boards else 1.0
