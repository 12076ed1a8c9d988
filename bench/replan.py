"""The rest planned again half way: how long until there is a whole plan of it.

    .plank/venv/bin/python -m bench.replan [parts] [seeds] [seconds]

The settle, and jobs as bench.shop_jobs makes them; half of the steps are done, then a nail is found
in a piece in work.
"""

import os
import random
import sys
import time
from pathlib import Path

from bench.shop_jobs import shop_job
from tests.core.log.histories import Shop
from vividplank.core.board import Defect
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.fixings import Fixings
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.reoptimise import solve
from vividplank.core.layout.search.search import Limits, Progress, search
from vividplank.core.layout.search.warm import warm
from vividplank.core.log.events import Found
from vividplank.core.log.replan import remaining
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling.route.routes import usual_milling

EXAMPLES = Path(__file__).parents[1] / "docs" / "examples"


def half_way(name: str, job: Job, plan: Plan, seconds: float) -> None:
    shop = Shop(job, job, plan, usual_milling(job), [])
    steps = sum(len(r.steps) for r in shop.routes)
    shop.work(random.Random(name), steps // 2)
    at_work = [(m, h) for m, h in shop.wood.pieces.items() if h.state == "work"]
    mark, held = max(at_work, key=lambda one: len(one[1].items))
    x = held.piece.length // 2
    nail = Defect("metal", "both", x, x + INCH // 2, INCH // 2, INCH)
    shop.events.append(Found(n=len(shop.events) + 1, piece=mark, defect=nail))
    made = shop.routes

    began = time.monotonic()
    left = remaining(job, job, plan, made, shop.events)
    derived = time.monotonic() - began
    whole = [0.0, 1e9]  # when the fewest were first left out, and how many

    def watch(now: Progress) -> bool:
        if now.unplaced < whole[1]:
            whole[:] = [time.monotonic() - began, now.unplaced]
        return True

    limits = Limits(seconds, workers=len(os.sched_getaffinity(0)))
    found = solve(left.job, limits, time.monotonic, watch, left.task(Fixings()))
    wrong = len(audit(left.job, found)) + len(audit(left.whole, left.merged(found)))
    print(
        f"{name}: {steps} steps, half done; {sum(p.quantity for p in left.job.parts)} parts on "
        f"{len(left.job.boards)} boards left, {len(left.kept)} pieces kept, {len(left.freed)} "
        f"freed; derived in {derived:.2f} s, {len(found.unplaced)} left out, whole after "
        f"{whole[0]:.1f} s; {wrong} violations",
        flush=True,
    )


def main(parts: int, seeds: int, seconds: float) -> None:
    warm()
    job = read_job((EXAMPLES / "settle.job.json").read_bytes()).on_boards()
    plan = read_plan((EXAMPLES / "settle.plan.json").read_bytes())
    half_way("settle", job, plan, seconds)
    for seed in range(1, seeds + 1):
        job = shop_job(parts, seed).on_boards()
        plan = search(job, Limits(20, workers=len(os.sched_getaffinity(0))), time.monotonic)
        half_way(job.name, job, plan, seconds)


if __name__ == "__main__":
    given = sys.argv[1:] + ["170", "3", "10"][len(sys.argv) - 1 :]
    main(int(given[0]), int(given[1]), float(given[2]))
