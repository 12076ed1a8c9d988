"""What lengths and sheets cost at each supplier that has them, by their true sizes."""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from decimal import Decimal

from vividplank.core.board import same_species
from vividplank.core.buying.lengths import LengthNeed, SheetNeed, cut_lengths, sheets_of
from vividplank.core.buying.market.supplier import FinishedStock, Supplier, money
from vividplank.core.cutlist import Part
from vividplank.core.job import Job


@dataclass(frozen=True)
class FinishedOffer:
    """So many `pieces` of one size at a supplier; a length is ripped to `across` strips side by
    side.
    """

    supplier: str
    length: int
    width: int
    pieces: int
    across: int
    cost: Decimal


def length_offers(
    job: Job, need: LengthNeed, suppliers: Sequence[Supplier]
) -> tuple[FinishedOffer, ...]:
    """The cheapest first: lengths of the section, and of broader ones that are ripped to it.

    Seven pieces of 2 1/2 x 12 in out of lengths of 6 ft that are 5 1/2 wide: of two strips, each
    ripped out beside an eighth of kerf, a strip gives five pieces: two strips, one length.

    >>> from vividplank.core.buying.lengths import length_needs
    >>> from vividplank.core.measure import TICKS_PER_INCH as inch
    >>> from vividplank.core.shop import Shop
    >>> size = 12 * inch, 5 * inch // 2, 3 * inch // 4
    >>> job = Job("", Shop(), (Part("R", "Rail", 7, "pine", *size, stock="bought"),), ())
    >>> broad = FinishedStock("pine", 72 * inch, 11 * inch // 2, 3 * inch // 4, Decimal(9))
    >>> yard = Supplier("y", "Yard", "yard", finished=(broad,))
    >>> length_offers(job, length_needs(job, 72 * inch)[0], [yard])[0].pieces
    1
    """
    wanted = Counter({(p.length, p.id): p.quantity for p in _parts(job, need.parts)})
    kerf = job.shop.kerf
    found = []
    for supplier, stock in _of_kind(suppliers, need.species, need.thickness, "length"):
        across = (stock.width + kerf.rip) // (need.width + kerf.rip)
        if across < 1 or any(length > stock.length for length, _ in wanted):
            continue
        strips, _ = cut_lengths(wanted, stock.length, kerf.crosscut)
        pieces = -(-len(strips) // across)
        cost = money(pieces * stock.asks)
        found.append(FinishedOffer(supplier, stock.length, stock.width, pieces, across, cost))
    return tuple(sorted(found, key=lambda o: (o.cost, o.pieces)))


def sheet_offers(
    job: Job, need: SheetNeed, suppliers: Sequence[Supplier]
) -> tuple[FinishedOffer, ...]:
    """The cheapest first: sheets of the kind, cut in rows along them."""
    parts = _parts(job, need.parts)
    found = []
    for supplier, stock in _of_kind(suppliers, need.species, need.thickness, "sheet"):
        cut = sheets_of(parts, (stock.length, stock.width), job.shop)
        if not cut.too_large:
            cost = money(cut.sheets * stock.asks)
            found.append(FinishedOffer(supplier, *cut.sheet, cut.sheets, 1, cost))
    return tuple(sorted(found, key=lambda o: (o.cost, o.pieces)))


def _parts(job: Job, ids: Iterable[str]) -> list[Part]:
    return [job.part(id) for id in ids]


def _of_kind(
    suppliers: Sequence[Supplier], species: str, thickness: int, kind: str
) -> list[tuple[str, FinishedStock]]:
    return [
        (s.name, stock)
        for s in suppliers
        for stock in s.finished
        if (stock.kind, stock.thickness) == (kind, thickness)
        and same_species(stock.species, species)
    ]
