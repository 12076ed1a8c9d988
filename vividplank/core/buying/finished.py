"""What lengths and sheets cost at each supplier that has them, by their true sizes."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cache

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from vividplank.core.board import same_species
from vividplank.core.buying.lengths import (
    LengthNeed,
    SheetNeed,
    Wanted,
    cut_lengths,
    full_patterns,
    pieces_of,
    sheets_of,
)
from vividplank.core.buying.market.supplier import FinishedStock, Supplier, money
from vividplank.core.cutlist import Part
from vividplank.core.job import Job

#: What several sizes must save, as a share, to be offered beside one; nearer to the optimum their
#: program is not solved, and it may take so long.
_WORTH, _SECONDS = 0.01, 1.0
#: Stock with how many strips it is ripped to, and what is cut out of each strip.
_Size = tuple[FinishedStock, int]
_Cuts = list[list[Wanted]]


@dataclass(frozen=True)
class FinishedItem:
    """So many `pieces` of one size; a length is ripped to `across` strips side by side, and `cuts`
    are the parts that come out of each strip.
    """

    length: int
    width: int
    pieces: int
    across: int
    cuts: tuple[tuple[str, ...], ...] = ()


@dataclass(frozen=True)
class FinishedOffer:
    """What of a supplier's lengths or sheets gives all that is wanted of one section."""

    supplier: str
    items: tuple[FinishedItem, ...]
    cost: Decimal


def length_offers(
    job: Job, need: LengthNeed, suppliers: Sequence[Supplier]
) -> tuple[FinishedOffer, ...]:
    """The cheapest first: lengths of the section, and of broader ones that are ripped to it; of one
    size, or of several where that saves something against the best one.

    Seven pieces of 2 1/2 x 12 in out of lengths of 6 ft that are 5 1/2 wide: of two strips, each
    ripped out beside an eighth of kerf, a strip gives five pieces: two strips, one length.

    >>> from vividplank.core.buying.lengths import length_needs
    >>> from vividplank.core.measure import TICKS_PER_INCH as inch
    >>> from vividplank.core.shop import Shop
    >>> size = 12 * inch, 5 * inch // 2, 3 * inch // 4
    >>> job = Job("", Shop(), (Part("R", "Rail", 7, "pine", *size, stock="bought"),), ())
    >>> broad = FinishedStock("pine", 72 * inch, 11 * inch // 2, 3 * inch // 4, Decimal(9))
    >>> yard = Supplier("y", "Yard", "yard", finished=(broad,))
    >>> length_offers(job, length_needs(job, 72 * inch)[0], [yard])[0].items[0].pieces
    1
    """
    wanted = Counter({(p.length, p.id): p.quantity for p in _parts(job, need.parts)})
    kerf = job.shop.kerf
    found = []
    by_supplier: dict[str, list[tuple[FinishedStock, int]]] = {}
    for supplier, stock in _of_kind(suppliers, need.species, need.thickness, "length"):
        across = (stock.width + kerf.rip) // (need.width + kerf.rip)
        if across:
            by_supplier.setdefault(supplier, []).append((stock, across))
    longest = max(length for length, _ in wanted)
    cuts = cache(lambda length: cut_lengths(wanted, length, kerf.crosscut)[0])
    for supplier, sizes in by_supplier.items():
        offers = [
            _offer(supplier, [(size, cuts(size[0].length))])
            for size in sizes
            if size[0].length >= longest
        ]
        mixed = _mixed(wanted, sizes, kerf.crosscut) if len(sizes) > 1 else None
        if mixed:
            offer = _offer(supplier, mixed)
            most = min((o.cost for o in offers), default=Decimal("Infinity"))
            if float(offer.cost) <= (1 - _WORTH) * float(most):
                offers.append(offer)
        found += offers
    return tuple(sorted(found, key=lambda o: (o.cost, sum(i.pieces for i in o.items))))


def _offer(supplier: str, taken: Iterable[tuple[_Size, _Cuts]]) -> FinishedOffer:
    items: list[FinishedItem] = []
    cost = Decimal(0)
    for (stock, across), cuts in taken:
        pieces = -(-len(cuts) // across)
        parts = tuple(tuple(part for _, part in cut) for cut in cuts)
        items.append(FinishedItem(stock.length, stock.width, pieces, across, parts))
        cost += pieces * stock.asks
    return FinishedOffer(supplier, tuple(items), money(cost))


def _mixed(
    wanted: Mapping[Wanted, int], sizes: Sequence[_Size], kerf: int
) -> list[tuple[_Size, _Cuts]] | None:
    """The cheapest lengths of several sizes: cutting stock of several lengths (Gilmore and Gomory,
    1961) over all full patterns, by HiGHS; None where there are too many patterns, or something is
    longer than all stock.

    Variables: how often each pattern is cut out of a strip of its length, and how many of each size
    are bought, which is ripped to so many strips.
    """
    lengths = sorted({stock.length for stock, _ in sizes})
    ways: list[tuple[int, tuple[int, ...]]] = []
    for length in lengths:
        patterns = full_patterns(wanted, length, kerf)
        if patterns is None:
            return None
        ways += [(length, pattern) for pattern in patterns if any(pattern)]
    if not ways:
        return None
    given = np.array([pattern for _, pattern in ways], float).T
    demand = np.array([wanted[p] for p in sorted(wanted, reverse=True)], float)
    needs = np.array([[of == length for of, _ in ways] for length in lengths], float)
    gives = np.array([[n * (s.length == length) for s, n in sizes] for length in lengths], float)
    solved = milp(
        np.concatenate([np.zeros(len(ways)), [float(stock.asks) for stock, _ in sizes]]),
        integrality=np.ones(len(ways) + len(sizes)),
        constraints=[
            LinearConstraint(np.hstack([given, np.zeros((len(demand), len(sizes)))]), lb=demand),
            LinearConstraint(np.hstack([-needs, gives]), lb=0),
        ],
        bounds=Bounds(0, demand.sum()),
        options={"time_limit": _SECONDS, "mip_rel_gap": _WORTH},
    )
    if solved.x is None:
        return None
    used = [way for way, n in zip(ways, solved.x, strict=False) for _ in range(round(n))]
    strips: dict[int, _Cuts] = {length: [] for length in lengths}
    for (length, _), cut in zip(used, pieces_of([p for _, p in used], wanted), strict=True):
        if cut:
            strips[length].append(cut)
    found: list[tuple[_Size, _Cuts]] = []
    for (stock, across), bought in zip(sizes, solved.x[len(ways) :], strict=True):
        there = round(bought) * across
        taken, strips[stock.length] = strips[stock.length][:there], strips[stock.length][there:]
        if taken:
            found.append(((stock, across), taken))
    return found


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
            found.append(FinishedOffer(supplier, (FinishedItem(*cut.sheet, cut.sheets, 1),), cost))
    return tuple(sorted(found, key=lambda o: (o.cost, o.items[0].pieces)))


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
