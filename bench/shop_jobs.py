"""Jobs as a shop has them, how near the search comes to the bound, and what the rest of the gap is
made of.

Parts of every kind (plain, panels, runs, three qualities) on random boards of a stock as a yard
would describe it: warped, tapered, with knots, checks and sapwood, priced by the board foot.

    .plank/venv/bin/python -m bench.shop_jobs [seconds] [seeds] [parts ...]
"""

import random
import statistics
import sys
import time
from dataclasses import replace
from decimal import Decimal

from vividplank.core.board import Board, Defect, Station, Warp
from vividplank.core.cutlist import Faces, Panel, Part
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Shop

_4TH = INCH // 4
#: A gap that needs no reason.
_ENOUGH = 0.03


def shop_job(parts: int, seed: int) -> Job:
    """About `parts` parts and boards enough for them, half as many again."""
    rng = random.Random(f"shop {parts} {seed}")
    listed: list[Part] = []
    while (count := sum(p.quantity for p in listed)) < parts:
        listed += _group(rng, len(listed), parts - count)
    volume = sum(p.volume * p.quantity for p in listed)
    boards: list[Board] = []
    got = 0.0
    while got < 2.6 * volume or len(boards) < 4:
        board = _board(rng, f"B{len(boards) + 1}")
        boards.append(board)
        got += board.length * board.mean_width * board.thinnest
    method = rng.choice(("mill-wide", "mill-wide", "rough-rip"))
    return Job(f"{parts} parts, seed {seed}", Shop(method=method), tuple(listed), tuple(boards))


def _group(rng: random.Random, n: int, most: int) -> list[Part]:
    """One line of a list: rails, a panel, a run of fronts."""
    kind = rng.choice(("plain",) * 6 + ("panel", "run"))
    thickness = rng.choice((13, 13, 13, 12, 8)) * INCH // 16
    faces: Faces = rng.choice(("clear-one", "clear-one", "clear-two", "sound"))
    if kind == "panel":
        size = rng.randint(60, 200) * _4TH, rng.randint(36, 80) * _4TH
        return [
            Part(
                f"Q{n}", "Panel", 1, "oak", *size, thickness, faces, Panel(2 * INCH, 11 * INCH // 2)
            )
        ]
    if kind == "run":
        width = rng.randint(16, 28) * _4TH
        return [
            Part(
                f"Q{n}.{k}",
                "Front",
                1,
                "oak",
                rng.randint(32, 60) * _4TH,
                width,
                thickness,
                "clear-one",
                None,
                f"run {n}",
            )
            for k in range(rng.randint(2, 3))
        ]
    quantity = min(most, rng.choice((1, 2, 2, 4, 4, 6, 8)))
    size = rng.randint(36, 200) * _4TH, rng.randint(6, 20) * _4TH
    return [Part(f"Q{n}", "Rail", quantity, "oak", *size, thickness, faces)]


def _board(rng: random.Random, id: str) -> Board:
    length = rng.randint(6 * 12, 12 * 12) * INCH
    width, taper = rng.randint(20, 40) * _4TH, rng.randint(0, 3) * _4TH
    thick = round((1.06 + rng.uniform(-0.04, 0.04)) * INCH)
    ends = (
        Station(0, 0, width, thick, thick - rng.randint(0, INCH // 32)),
        Station(length, 0, width - taper, thick - rng.randint(0, INCH // 32), thick),
    )
    share = length / (96 * INCH)
    warp = Warp(
        round(rng.uniform(-0.3, 0.3) * share**2 * INCH),
        round(rng.uniform(-0.1, 0.1) * INCH),
        round(rng.uniform(-0.2, 0.2) * share * INCH),
    )
    faults = []
    for _ in range(rng.randint(0, 4)):
        kind = rng.choice(("tight-knot", "loose-knot", "sapwood", "pin-knot"))
        x, y = rng.randint(4 * INCH, length - 8 * INCH), rng.randint(0, width - 2 * INCH)
        long, wide = (
            (rng.randint(12, 30) * INCH, INCH)
            if kind == "sapwood"
            else (rng.randint(1, 3) * INCH,) * 2
        )
        faults.append(
            Defect(
                kind,
                rng.choice(("A", "B", "both")),
                x,
                min(length, x + long),
                y,
                min(width, y + wide),
            )
        )
    if rng.random() < 0.6:
        faults.append(
            Defect(
                "check",
                "both",
                length - rng.randint(2, 9) * INCH,
                length,
                width // 3,
                width // 3 + INCH // 4,
            )
        )
    feet = Decimal(length * round((2 * width - taper) / 2)) / (144 * INCH * INCH)
    return Board(id, "oak", length, ends, warp, tuple(faults), (feet * 9).quantize(Decimal("0.01")))


def _by_faults(job: Job, plan: Plan, seconds: float) -> float:
    """The share of the bound that the parts cost less on the same boards without a fault."""
    clear = replace(job, boards=tuple(replace(b, defects=()) for b in job.boards))
    there = search(clear, Limits(seconds, workers=2), time.monotonic)
    return max(0.0, float(plan.cost - there.cost)) / plan.lower_bound if not there.unplaced else 0.0


def main(seconds: float, seeds: int, sizes: list[int]) -> None:
    warm()
    gaps: list[float] = []
    by_faults: list[float] = []
    for size in sizes:
        for seed in range(1, seeds + 1):
            job = shop_job(size, seed)
            plan = search(job, Limits(seconds, workers=2), time.monotonic)
            wrong = audit(job, plan)
            gap = float(plan.cost) / plan.lower_bound - 1 if plan.lower_bound else float("inf")
            why = ""
            if not plan.unplaced:
                gaps.append(gap)
                if gap > _ENOUGH:
                    by_faults.append(_by_faults(job, plan, seconds / 2))
                    why = f" (faults {100 * by_faults[-1]:.1f})"
            print(
                f"{size} parts, seed {seed}, {job.shop.method}: {len(plan.boards)} of "
                f"{len(job.boards)} boards,"
                f" cost {plan.cost}, bound {plan.lower_bound:.2f}, gap {100 * gap:.1f} %{why}, "
                f"{len(plan.unplaced)} left out,"
                f" {len(wrong)} violations",
                flush=True,
            )
    if gaps:
        print(
            f"whole plans: {len(gaps)}, gap to the bound: median "
            f"{100 * statistics.median(gaps):.1f} %"
        )
    if by_faults:
        print(
            f"where it is over {100 * _ENOUGH:.0f} %: faults cost "
            f"{100 * statistics.median(by_faults):.1f} in the median; the"
            " bound lets several boards share one part, and mixes ways to cut one"
        )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 10.0,
        int(sys.argv[2]) if len(sys.argv) > 2 else 3,
        [int(a) for a in sys.argv[3:]] or [20, 40, 80],
    )
