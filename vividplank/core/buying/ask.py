"""What to ask the yard for, by wood and quarter: not only board feet, but the boards that the list
needs.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction
from statistics import median

from vividplank.core.buying.chance.purchase import on_hand, rough_feet
from vividplank.core.buying.groups import Group, groups
from vividplank.core.cutlist import Faces, Part
from vividplank.core.job import Job
from vividplank.core.timber import QUARTERS, board_feet, cubic_board_feet

#: Lengths as near as this to the longest of them are asked for together, unless one is so many
#: times as wide as the other.
_ALIKE, _WIDER = 0.85, 2
#: So many sorts of lengths are named.
_MOST_LENGTHS = 4
#: The rule of thumb of the trade: so much more than the rough blanks, for waste.
THUMB = Fraction(30, 100)


@dataclass(frozen=True)
class Lengths:
    """`pieces` that must come out of clear stretches up to `length` long and `width` wide."""

    length: int
    width: int
    pieces: int
    parts: tuple[str, ...]


@dataclass(frozen=True)
class OneBoard:
    """Parts that must come out of one board: a `run` (end to end), a `match` (opened like a book)
    or the `same` board; `length` is what a run takes.
    """

    why: str
    parts: tuple[str, ...]
    length: int


@dataclass(frozen=True)
class Staves:
    """A panel whose staves may be as narrow as this."""

    part: str
    least: int
    most: int


@dataclass(frozen=True)
class Ask:
    """One wood and quarter. `quarter` is empty where none gives the thickness: such parts are built
    up. `finished` are board feet of the parts as they will be, `blanks` of rough blanks, `thumb`
    these with the rule of thumb's waste, `on_hand` what is there already. `clear` and `sound` count
    pieces that must be clear, and that may have tight knots and sapwood. `resaw` names thin parts
    of which two come out of a thicker quarter. `price` a board foot is the median of the boards on
    hand that have one.
    """

    key: str
    species: str
    quarter: str
    rough: int
    parts: tuple[str, ...]
    pieces: int
    finished: float
    blanks: float
    thumb: float
    on_hand: float
    widest: int
    lengths: tuple[Lengths, ...]
    clear: int
    sound: int
    one_board: tuple[OneBoard, ...]
    staves: tuple[Staves, ...]
    resaw: tuple[str, ...]
    price: Decimal | None

    @property
    def longest(self) -> int:
        return self.lengths[0].length if self.lengths else 0


def asks(job: Job) -> tuple[Ask, ...]:
    """What to ask for, by wood and then by quarter."""
    return tuple(_ask(group, job) for group in groups(job))


def _ask(group: Group, job: Job) -> Ask:
    parts, shop = group.job.parts, job.shop
    stock = on_hand(job, group)
    blanks = rough_feet(group)
    held = [board_feet(b.nominal.rough, round(b.mean_width), b.length) for b in stock]
    prices = [
        b.price * feet.denominator / feet.numerator
        for b, feet in zip(stock, held, strict=True)
        if b.price
    ]
    free: dict[Faces, int] = {"clear-two": 0, "clear-one": 0, "sound": 0}
    for p in parts:
        free[p.faces] += p.quantity
    return Ask(
        group.key,
        group.species,
        group.quarter_name,
        group.quarter.rough if group.quarter else max(p.thickness for p in parts),
        tuple(p.id for p in parts),
        group.pieces,
        float(cubic_board_feet(sum(p.volume * p.quantity for p in parts))),
        blanks,
        float(Fraction(blanks) * (1 + THUMB)),
        float(sum(held)),
        max(map(_least_width, parts)) + shop.allowance.width,
        tuple(_lengths(group.job)),
        free["clear-one"] + free["clear-two"],
        free["sound"],
        tuple(_one_board(group.job)),
        tuple(Staves(p.id, p.panel.stave_min, p.panel.stave_max) for p in parts if p.panel),
        tuple(p.id for p in parts if _resawn(p, job, group)),
        Decimal(median(prices)).quantize(Decimal("0.01")) if prices else None,
    )


def _lengths(job: Job) -> Iterator[Lengths]:
    """The longest first; what is nearly as long and wide is one sort, and the last sort has all the
    rest.
    """
    allowance = job.shop.allowance
    left = sorted(job.parts, key=lambda p: -_unbroken(p, job))
    for n in range(_MOST_LENGTHS):
        if not left:
            return
        longest, width = _unbroken(left[0], job), _least_width(left[0])
        last = n == _MOST_LENGTHS - 1
        alike = [
            p
            for p in left
            if last
            or (
                _unbroken(p, job) >= _ALIKE * longest
                and width <= _WIDER * _least_width(p)
                and _least_width(p) <= _WIDER * width
            )
        ]
        left = [p for p in left if p not in alike]
        yield Lengths(
            longest + allowance.length,
            max(map(_least_width, alike)) + allowance.width,
            sum(p.quantity for p in alike),
            tuple(p.id for p in alike),
        )


def _least_width(part: Part) -> int:
    """The width that must come out of one piece: a part's, or the narrowest stave's of a panel."""
    return part.panel.stave_min if part.panel else part.width


def _unbroken(part: Part, job: Job) -> int:
    """The length that must come out of one piece: a part's, or its whole run's with the kerfs in
    it.
    """
    if not part.run:
        return part.length
    run = [p for p in job.parts if p.run == part.run]
    pieces = sum(p.quantity for p in run)
    return sum(p.length * p.quantity for p in run) + (pieces - 1) * job.shop.apart


def _one_board(job: Job) -> Iterator[OneBoard]:
    for why, name in (("run", "run"), ("match", "match"), ("same", "same_board")):
        named: dict[str, list[Part]] = {}
        for p in job.parts:
            if getattr(p, name):
                named.setdefault(getattr(p, name), []).append(p)
        for parts in named.values():
            if sum(p.quantity for p in parts) > 1:
                length = _unbroken(parts[0], job) + job.shop.allowance.length
                yield OneBoard(why, tuple(p.id for p in parts), length if why == "run" else 0)


def _resawn(part: Part, job: Job, group: Group) -> bool:
    """Whether two of it come out of the next quarters, which cost less than twice as much wood."""
    if part.panel or part.run or group.quarter is None or part.quantity < 2:
        return False
    two = job.shop.flat_for(part.thickness, 2)
    thicker = next((q.rough for q in QUARTERS if q.surfaced >= two), None)
    return thicker is not None and thicker < 2 * group.quarter.rough
