"""Sheets laid out by the engine that lays out boards: a sheet is a flat, faultless board of one
price.

Its grain runs along it. A part whose grain may run either way is tried both ways, kind by kind.
"""

import random
from collections.abc import Iterable
from dataclasses import dataclass, replace
from decimal import Decimal
from itertools import product

from vividplank.core.board import Board, Station
from vividplank.core.buying.lengths import SheetNeed, ways_laid
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.limits import Clock, Limits
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import search
from vividplank.core.shop import Allowance, Kerf, Shop

#: Ways of turning parts that are tried.
_TURNINGS = 8


@dataclass(frozen=True)
class SheetPlan:
    """How the sheets of one kind are cut: a job of sheets as boards, `need` of them at most, and
    its plan. `least` is a number of sheets that no cutting undercuts.
    """

    species: str
    thickness: int
    job: Job
    plan: Plan
    least: int

    @property
    def sheets(self) -> int:
        return sum(1 for b in self.plan.boards if b.segments)


def lay_sheets(job: Job, need: SheetNeed, seconds: float, clock: Clock) -> SheetPlan:
    """The fewest sheets found within the time, never more than cutting in rows needs."""
    parts = [p for p in job.parts if p.id in need.parts and p.id not in need.too_large]
    rng = random.Random(1)
    choices = [ways_laid(p, need.sheet) for p in parts]
    turnings = (
        list(product(*choices))
        if _product(len(c) for c in choices) <= _TURNINGS
        else [
            tuple(c[0] for c in choices),
            *(tuple(rng.choice(c) for c in choices) for _ in range(_TURNINGS - 1)),
        ]
    )
    best: SheetPlan | None = None
    began = clock()
    for n, turning in enumerate(turnings):
        sheets = _job(job, need, parts, turning, best.sheets - 1 if best else need.sheets)
        remaining = seconds - (clock() - began)
        if remaining <= 0 and best:
            break
        plan = search(sheets, Limits(max(0.2, remaining / (len(turnings) - n)), rounds=400), clock)
        found = SheetPlan(need.species, need.thickness, sheets, plan, need.least)
        if best is None or (not plan.unplaced and found.sheets < best.sheets):
            best = found
        if best.sheets <= need.least and not best.plan.unplaced:
            break
    assert best
    return best


def _product(counts: Iterable[int]) -> int:
    total = 1
    for n in counts:
        total = min(total * n, _TURNINGS + 1)
    return total


def _job(
    job: Job, need: SheetNeed, parts: list[Part], turning: tuple[tuple[int, int], ...], most: int
) -> Job:
    kerf = job.shop.kerf.rip
    # No blank is shorter than the shortest part, so the least length of a blank forbids nothing.
    shop = Shop(
        "mill-wide",
        Kerf(kerf, kerf, kerf),
        Allowance(0, 0, 0, 0),
        end_trim=0,
        min_blank_length=min(length for length, _ in turning),
        max_slope=0.0,
        ticket=job.shop.ticket,
        keep=job.shop.keep,
    )
    along, across = need.sheet
    ends = (
        Station(0, 0, across, need.thickness, need.thickness),
        Station(along, 0, across, need.thickness, need.thickness),
    )
    boards = tuple(
        Board(f"sheet {n}", need.species, along, ends, price=Decimal(1)) for n in range(1, most + 1)
    )
    turned = tuple(
        replace(
            p,
            length=size[0],
            width=size[1],
            faces="sound",
            stock="board",
            edging=None,
            match="",
            same_board="",
            from_board="",
            figure="",
            run="",
            resawn=False,
            panel=None,
            species=need.species,
        )
        for p, size in zip(parts, turning, strict=True)
    )
    return Job(job.name, shop, turned, boards, job.unit)
