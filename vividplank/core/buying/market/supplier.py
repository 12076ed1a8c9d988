"""Suppliers of wood and their price books."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction
from math import exp
from random import Random
from typing import Annotated, Literal, get_args

from pydantic import Field

from vividplank.core.board import Board, same_species
from vividplank.core.buying.market.population import (
    Grade,
    Population,
    Range,
    Share,
    Straightness,
    draw,
)
from vividplank.core.fields import Money, Name, Note, NotNegativeTicks, PositiveTicks
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM
from vividplank.core.timber import QUARTERS, board_feet
from vividplank.core.timber.board_feet import TicketRule, cubic_board_feet

_INCH = TICKS_PER_INCH
#: A sawmill, a yard, a shop of finished sizes, and a shop that mills for others.
SupplierKind = Literal["sawmill", "yard", "finished", "milling"]
Surfacing = Literal["rough", "S1S", "S2S", "S2S1E", "S3S", "S4S"]
SURFACED: dict[Surfacing, tuple[str, ...]] = {
    "rough": (),
    "S1S": ("A",),
    "S2S": ("A", "B"),
    "S2S1E": ("A", "B", "datum-edge"),
    "S3S": ("A", "B", "datum-edge"),
    "S4S": ("A", "B", "datum-edge", "far-edge"),
}
#: What a price is asked for; a foot and a metre run along the board, at its own width.
Per = Literal["board foot", "cubic metre", "foot", "metre", "piece"]
PERS: tuple[Per, ...] = get_args(Per)
#: A metre in ticks, and board feet of 144 cubic inches in a cubic metre.
_METRE = 1000 * TICKS_PER_MM
_IN_CUBIC_METRE = cubic_board_feet(_METRE**3)
_FOOT = 12 * TICKS_PER_INCH
Amount = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]


@dataclass(frozen=True)
class Price:
    """One line of a price book: what is asked for wood of one quarter and grade, `per` what.

    `thickness` is how thick the supplier leaves it, `length` and `width` what its boards measure,
    `length_step` what lengths are cut to (0: any), `hidden` the share of its boards with a fault
    that shows only once they are skimmed.
    """

    species: Name
    quarter: Name
    grade: Grade
    asks: Money
    surfacing: Surfacing
    thickness: PositiveTicks
    length: Range
    width: Range
    length_step: NotNegativeTicks = 0
    hidden: Share = 0.1
    per: Per = "board foot"

    def of(self, board: Board, rule: TicketRule) -> Decimal:
        """What a board costs: by its ticket, its length, or as it stands there."""
        if self.per == "piece":
            return money(self.asks)
        if self.per in ("foot", "metre"):
            one = _FOOT if self.per == "foot" else _METRE
            return money(Decimal(board.length) / one * self.asks)
        return money(decimal(ticket_feet(board, rule)) * self.per_foot)

    @property
    def per_foot(self) -> Decimal:
        """Money for a board foot; where it is not asked by volume, of the usual board."""
        if self.per == "board foot":
            return self.asks
        if self.per == "cubic metre":
            return self.asks / decimal(_IN_CUBIC_METRE)
        long = self.length.mean
        of_one = {"piece": 1.0, "foot": long / _FOOT, "metre": long / _METRE}[self.per]
        return self.asks * Decimal(of_one) / Decimal(self.lot().mean_board_feet)

    def lot(self) -> Population:
        """Its boards, as far as the line says."""
        return Population(
            self.species,
            self.quarter,
            self.grade,
            self.length,
            self.width,
            self.thickness,
            self.length_step,
            dressed=SURFACED[self.surfacing],  # type: ignore[arg-type]
            hidden=self.hidden,
        )


@dataclass(frozen=True)
class FinishedStock:
    """Stock that is sold to size: a length of one section, or a sheet. Sizes are true and not those
    it is called by; `asks` is for one of them.
    """

    species: Name
    length: PositiveTicks
    width: PositiveTicks
    thickness: PositiveTicks
    asks: Money
    kind: Literal["length", "sheet"] = "length"


@dataclass(frozen=True)
class Supplier:
    """A place that sells wood.

    `trip` is the money and `trip_hours` the time that going there takes, `milling` what it asks a
    board foot for milling to a list (0: it does not). `moisture` and `straightness` say what its
    wood usually is.
    """

    id: Name
    name: Name
    kind: SupplierKind
    ticket: TicketRule = TicketRule()
    trip: Money = Decimal(0)
    trip_hours: Amount = 0.0
    milling: Money = Decimal(0)
    straightness: Straightness = "usual"
    moisture: Annotated[float, Field(ge=4, le=40, allow_inf_nan=False)] = 9.0
    note: Note = ""
    prices: Annotated[tuple[Price, ...], Field(max_length=500)] = ()
    finished: Annotated[tuple[FinishedStock, ...], Field(max_length=500)] = ()

    def price(self, species: str, quarter: str, grade: str = "") -> Price | None:
        """Its line for a wood and quarter; of several grades the one named, else the dearest."""
        fits = [
            p
            for p in self.prices
            if same_species(p.species, species)
            and p.quarter == quarter
            and (not grade or p.grade == grade)
        ]
        return max(fits, key=lambda p: p.per_foot, default=None)

    @property
    def grades(self) -> tuple[str, ...]:
        """The grades it sells, the dearest first."""
        dearest: dict[str, Decimal] = {}
        for p in self.prices:
            dearest[p.grade] = max(dearest.get(p.grade, p.per_foot), p.per_foot)
        return tuple(sorted(dearest, key=lambda g: -dearest[g]))

    def population(self, price: Price) -> Population:
        """Its boards of one line of the price book."""
        return replace(price.lot(), straightness=self.straightness, moisture=self.moisture)

    def with_hidden(self, rates: Mapping[str, float]) -> "Supplier":
        """As it is where woods have so many faults for each board foot that no survey knew of."""
        return replace(self, prices=tuple(self._with_hidden(p, rates) for p in self.prices))

    def _with_hidden(self, price: Price, rates: Mapping[str, float]) -> Price:
        rate = next((r for wood, r in rates.items() if same_species(wood, price.species)), None)
        if rate is None:
            return price
        none = exp(-rate * self.population(price).mean_board_feet)  # of a Poisson process
        return replace(price, hidden=round(1 - none, 3))

    def pile(self, price: Price, count: int, rng: Random, stem: str) -> tuple[Board, ...]:
        """So many of its boards, with what it asks for each."""
        lot = self.population(price)
        boards = (draw(lot, rng, f"{stem}{n}") for n in range(1, count + 1))
        return tuple(replace(b, price=price.of(b, self.ticket)) for b in boards)


def ticket_feet(board: Board, rule: TicketRule) -> Fraction:
    """Board feet on the ticket: at the rough thickness of its quarter, by the supplier's rule."""
    return board_feet(board.nominal.rough, round(board.mean_width), board.length, rule)


def asked(board: Board, per_foot: Decimal, rule: TicketRule) -> Decimal:
    """What a board costs by its ticket."""
    feet = ticket_feet(board, rule)
    return money(decimal(feet) * per_foot)


def decimal(value: Fraction) -> Decimal:
    return Decimal(value.numerator) / Decimal(value.denominator)


def money(amount: Decimal) -> Decimal:
    return amount.quantize(Decimal("0.01"), ROUND_HALF_UP)


@dataclass(frozen=True)
class _Wood:
    species: str
    dearness: Decimal
    quarters: tuple[str, ...] = field(default=("4/4", "5/4", "8/4"))


#: Woods of the made-up suppliers, and what they cost beside each other.
_WOODS = (
    _Wood("white oak", Decimal("1.00"), ("4/4", "5/4", "6/4", "8/4", "12/4")),
    _Wood("ash", Decimal("0.62"), ("4/4", "5/4", "6/4", "8/4")),
    _Wood("red oak", Decimal("0.66")),
    _Wood("cherry", Decimal("0.95")),
    _Wood("walnut", Decimal("1.55")),
    _Wood("hard maple", Decimal("0.85")),
    _Wood("poplar", Decimal("0.45")),
)


def usual_suppliers() -> tuple[Supplier, ...]:
    """Three made-up suppliers: a sawmill, a yard, and a shop that sells finished sizes."""
    return (
        Supplier(
            "otter-bend",
            "Otter Bend sawmill",
            "sawmill",
            TicketRule("surface"),
            Decimal(28),
            2.5,
            straightness="wild",
            moisture=11.0,
            note="Rough from the saw, ungraded; bring your own tape.",
            prices=_book(Decimal("5.20"), "ungraded", "rough", (72, 108, 168), (5, 7, 13)),
        ),
        Supplier(
            "lantern-yard",
            "Lantern Street yard",
            "yard",
            TicketRule("surface", half_inches_up=True),
            Decimal(9),
            1.0,
            straightness="usual",
            moisture=8.0,
            note="Skimmed on two faces; boards may be picked.",
            prices=_book(Decimal("9.80"), "FAS", "S2S", (84, 108, 156), (5, 7, 11))
            + _book(Decimal("7.40"), "No. 1 Common", "S2S", (60, 90, 132), (4, 6, 10)),
        ),
        Supplier(
            "quill-dressed",
            "Quill & Son, dressed stock",
            "finished",
            trip=Decimal(6),
            trip_hours=0.8,
            milling=Decimal("4.50"),
            straightness="straight",
            moisture=8.0,
            note="Planed all round in fixed lengths; mills to a list as well.",
            prices=_book(Decimal("13.90"), "FAS", "S4S", (72, 96, 120), (4, 6, 8), 24),
            finished=_lengths() + _sheets(),
        ),
    )


def _book(
    oak: Decimal,
    grade: Grade,
    surfacing: Surfacing,
    lengths: Sequence[int],
    widths: Sequence[int],
    step: int = 0,
) -> tuple[Price, ...]:
    """All woods, priced beside white oak; sizes in inches."""
    found = []
    skimmed = len(set(SURFACED[surfacing]) & {"A", "B"}) == 2
    for wood in _WOODS:
        for quarter in QUARTERS:
            if quarter.name in wood.quarters:
                thicker = 1 + Decimal(quarter.rough - QUARTERS[0].rough) / (8 * _INCH)
                found.append(
                    Price(
                        wood.species,
                        quarter.name,
                        grade,
                        money(oak * wood.dearness * thicker),
                        surfacing,
                        quarter.surfaced if skimmed else quarter.rough + _INCH // 16,
                        Range(*(n * _INCH for n in lengths)),
                        Range(*(n * _INCH for n in widths)),
                        step * _INCH,
                    )
                )
    return tuple(found)


def _lengths() -> tuple[FinishedStock, ...]:
    """Lengths of a few sections, planed all round; a broad one costs a little less for its wood."""
    quarter_inch = _INCH // 4
    return tuple(
        FinishedStock(
            wood.species,
            feet * 12 * _INCH,
            wide * quarter_inch,
            3 * quarter_inch,
            money(Decimal("0.34") * wood.dearness * feet * wide * (1 - Decimal(wide) / 100)),
        )
        for wood in _WOODS
        for wide in (6, 10, 14, 22)
        for feet in (4, 6, 8)
    )


def _sheets() -> tuple[FinishedStock, ...]:
    """Plywood faced with a few woods, in two sizes of sheet."""
    found = []
    for wood in _WOODS:
        for thick in (_INCH // 4, _INCH // 2, 3 * _INCH // 4):
            for long, wide in ((96, 48), (48, 48)):
                share = Decimal(long * wide) / (96 * 48) + Decimal("0.05") * (long < 96)
                asks = money((30 + 80 * Decimal(thick) / _INCH) * wood.dearness * share)
                size = long * _INCH, wide * _INCH, thick
                found.append(FinishedStock(f"{wood.species} plywood", *size, asks, "sheet"))
    return tuple(found)
