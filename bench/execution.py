"""Routes of random jobs in random shops, carried out on the wood: how many steps cannot be done as
they say.

    .plank/venv/bin/python -m bench.execution [jobs] [first seed]

Jobs as bench.shop_jobs makes them; every tenth has boards with more warp and more faults.
Every job is milled by a school and in a shop of its own: machines switched off, narrow jointers,
passes and dials of every kind.
"""

import random
import sys
import time
from collections import Counter
from dataclasses import replace

from bench.shop_jobs import shop_job
from tests.machine_shop import violations
from vividplank.core.board import Board, Defect
from vividplank.core.exchange.route_file import route_document
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.shop.dial import Dial
from vividplank.core.milling.shop.machines import (
    Bandsaw,
    CrosscutSaw,
    Jointer,
    Machines,
    Planer,
    Switched,
)
from vividplank.core.milling.shop.school import SCHOOLS

_NAMES: tuple[Switched, ...] = ("jointer", "planer", "table saw", "bandsaw", "crosscut saw")
_DIALS = (Dial(), Dial("readout"), Dial("wheel", INCH // 16))
_OWN_PASS = round(0.03 * INCH)


def shop(rng: random.Random) -> Machines:
    """A shop as one may be; half of them have what most have."""
    if rng.random() < 0.5:
        return Machines()
    return Machines(
        Jointer(
            rng.choice((6, 8, 8, 12)) * INCH,
            longest=rng.choice((96, 60, 40)) * INCH,
            usual_pass=rng.choice((INCH // 32, INCH // 64, _OWN_PASS, INCH // 16)),
            dial=rng.choice(_DIALS),
        ),
        Planer(
            rng.choice((12, 13, 15, 20)) * INCH,
            usual_pass=rng.choice((INCH // 16, INCH // 32, _OWN_PASS)),
            last_pass=rng.choice((INCH // 64, INCH // 32)),
            dial=rng.choice(_DIALS),
        ),
        CrosscutSaw(rng.choice((6, 12, 15)) * INCH),
        bandsaw=Bandsaw(rng.choice((6, 8, 12)) * INCH),
        carrier=rng.random() < 0.7,
        router_bridge=rng.choice((0, 0, 24)) * INCH,
        outside=rng.choice(("", "the mill down the road")),
        off=tuple(m for m in _NAMES if rng.random() < 0.12),
    )


def worse(board: Board, rng: random.Random) -> Board:
    """A board with half as much warp again, and faults wherever they may lie."""
    warp = replace(
        board.warp, **{name: round(1.5 * value) for name, value in vars(board.warp).items()}
    )
    faults = list(board.defects)
    for _ in range(3):
        x0, y0 = rng.randrange(board.length), rng.randrange(board.widest)
        kind = rng.choice(("loose-knot", "check", "pith", "wane", "tight-knot"))
        long = rng.randint(1, 10) * INCH
        faults.append(Defect(kind, "both", x0, x0 + long, y0, y0 + rng.randint(1, 6) * INCH // 4))
    return replace(board, warp=warp, defects=tuple(faults))


def main(jobs: int, first: int) -> None:
    warm()
    began = time.monotonic()
    steps, routed, wrong, nowhere = 0, 0, 0, 0
    rules: Counter[str] = Counter()
    for seed in range(first, first + jobs):
        rng = random.Random(f"execution {seed}")
        job: Job = shop_job((6, 10, 16, 24)[seed % 4], seed)
        if seed % 10 == 9:
            job = replace(job, boards=tuple(worse(b, rng) for b in job.boards))
        job = job.on_boards()
        plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
        milling = Milling(shop(rng), rng.choice(SCHOOLS))
        document = route_document(routes(job, plan, milling), job.unit)
        found = violations(job, plan, milling.machines, document)
        routed += 1
        steps += len(document["steps"])
        nowhere += any(s["machine"] == "not here" for s in document["steps"])
        wrong += bool(found)
        rules.update(v.rule for v in found)
        for violation in found[:3]:
            print(f"  seed {seed}, {milling.school}: {violation}")
    print(
        f"{routed} jobs, {steps} steps, {wrong} routes with violations {dict(rules)}, "
        f"{nowhere} with a step nothing there can do; {time.monotonic() - began:.0f} s"
    )


if __name__ == "__main__":
    main(*(int(a) for a in (sys.argv[1:] + ["500", "0"][len(sys.argv) - 1 :])))
