"""Jobs whose best cost is known: boards cut at random into blanks with no waste but kerf; each
blank becomes a part.

Every board is crosscut into segments, these into strips that fill the width exactly, some strips
into two blanks. A blank becomes a part, or is spoilt: then a fault covers it and leaves nothing
usable. A part is as thick as the warp of its place allows. A board costs what the grown area (a
kerf more along and across) of its good blanks comes to, and as many spare boards again of all sizes
cost that or a little more per area. The parts' grown areas add up to what the planted boards give,
and no board gives more per price: no plan is cheaper than the planted one.
"""

import random
from dataclasses import dataclass
from decimal import Decimal
from typing import Literal

from vividplank.core.board import Board, Defect, Region, Station, Warp, flat_slab
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Allowance, Kerf, Shop

Family = Literal["flat", "faults", "warped", "mixed"]
FAMILIES: tuple[Family, ...] = ("flat", "faults", "warped", "mixed")
_16TH = INCH // 16


@dataclass(frozen=True)
class Planted:
    """A job, its best plan and what that costs."""

    job: Job
    plan: Plan
    cost: Decimal


def planted(family: Family, boards: int, seed: int) -> Planted:
    """`boards` planted boards and as many spare ones."""
    rng = random.Random(f"{family} {boards} {seed}")
    method: Literal["mill-wide", "rough-rip"] = (
        "rough-rip" if family in ("warped", "mixed") else "mill-wide"
    )
    shop = Shop(
        method,
        Kerf(INCH // 8, INCH // 8, INCH // 16),
        Allowance(0, INCH // 8, INCH // 32, 0),
        INCH,
        12 * INCH,
        0.0,
    )
    made = [_board(rng, f"P{k + 1}", family, shop) for k in range(boards)]
    parts: list[Part] = []
    plans: list[BoardPlan] = []
    stock: list[Board] = []
    for board, segments in made:
        area = 0
        laid: list[Segment] = []
        faults: list[Defect] = []
        for x0, x1, strips in segments:
            rows: list[Strip] = []
            for y0, y1, blanks in strips:
                kept: list[Blank] = []
                for a, b, good in blanks:
                    if not good:
                        faults.append(Defect("rot", "both", a, b, y0, y1))
                        continue
                    area += (b - a + shop.kerf.crosscut) * (y1 - y0 + shop.kerf.rip)
                    part = _part(rng, f"Q{len(parts) + 1}", board, shop, a, b, y0, y1)
                    parts.append(part)
                    kept.append(Blank(a, b, ((Item(part.id, 1),),)))
                rows.append(Strip(y0, y1, tuple(kept)))
            laid.append(Segment(x0, x1, 0.0, 0.0, tuple(rows)))
        price = _price(area)
        stock.append(
            Board(board.id, "oak", board.length, board.stations, board.warp, tuple(faults), price)
        )
        plans.append(BoardPlan(board.id, tuple(laid)))
    for k in range(boards):
        spare, segments = _board(rng, f"S{k + 1}", family, shop)
        whole = (spare.length - 2 * shop.end_trim + shop.kerf.crosscut) * (
            spare.widest + shop.kerf.rip
        )
        more = Decimal(rng.choice(("1", "1.02", "1.05", "1.1")))
        stock.append(
            Board(
                spare.id, "oak", spare.length, spare.stations, spare.warp, (), _price(whole) * more
            )
        )
    rng.shuffle(stock)
    rng.shuffle(parts)
    cost = sum((b.price for b in stock if b.id.startswith("P")), Decimal(0))
    job = Job(f"{family}, {boards} boards, seed {seed}", shop, tuple(parts), tuple(stock))
    return Planted(job, Plan(tuple(plans), (), cost, float(cost), 0.0), cost)


def _price(area: int) -> Decimal:
    return Decimal(area) / (144 * INCH * INCH) * 10


Cut = list[tuple[int, int, list[tuple[int, int, list[tuple[int, int, bool]]]]]]


def _board(rng: random.Random, id: str, family: Family, shop: Shop) -> tuple[Board, Cut]:
    spoilt = {"flat": 0.0, "faults": 0.18, "warped": 0.0, "mixed": 0.12}[family]
    segments: Cut = []
    at = shop.end_trim
    width = rng.randint(5 * 16, 10 * 16) * _16TH
    for n in range(rng.randint(1, 4)):
        if n:
            at += shop.kerf.crosscut
        length = rng.randint(14 * 16, 52 * 16) * _16TH
        strips = []
        low = 0
        for w in _split(rng, width, shop.kerf.rip, 3 * INCH // 2, 5 * INCH):
            pieces = [(at, at + length)]
            if length > 30 * INCH and rng.random() < 0.3:
                cut = at + rng.randint(12 * 16, (length - 13 * INCH) // _16TH) * _16TH
                pieces = [(at, cut), (cut + shop.kerf.crosscut, at + length)]
            strips.append((low, low + w, [(a, b, rng.random() >= spoilt) for a, b in pieces]))
            low += w + shop.kerf.rip
        segments.append((at, at + length, strips))
        at += length
    long = at + shop.end_trim
    thick = round(1.03 * INCH)
    warp = Warp()
    if family in ("warped", "mixed"):
        share = long / (96 * INCH)
        warp = Warp(
            round(rng.uniform(-0.3, 0.3) * share**2 * INCH),
            round(rng.uniform(-0.06, 0.06) * INCH),
            round(rng.uniform(-0.25, 0.25) * share * INCH),
        )
    ends = (Station(0, 0, width, thick, thick), Station(long, 0, width, thick, thick))
    return Board(id, "oak", long, ends, warp), segments


def _split(rng: random.Random, width: int, kerf: int, least: int, most: int) -> list[int]:
    """Strips that fill the width exactly, a kerf between them."""
    found = []
    left = width
    while left > most or (left >= 2 * least + kerf and rng.random() < 0.6):
        high = min(most, left - kerf - least)
        if high < least:
            break
        w = rng.randint(least // _16TH, high // _16TH) * _16TH
        found.append(w)
        left -= w + kerf
    found.append(left)
    return found


def _part(
    rng: random.Random, id: str, board: Board, shop: Shop, a: int, b: int, y0: int, y1: int
) -> Part:
    slab = flat_slab(board, Region(a, b, 0, 0.0, y0, y1)).thickness - shop.allowance.face
    thickness = int(slab // (INCH // 64)) * (INCH // 64)
    return Part(
        id,
        id,
        1,
        "oak",
        b - a - shop.allowance.length,
        y1 - y0 - shop.allowance.width,
        thickness,
        rng.choice(("clear-one", "clear-two")),
    )
