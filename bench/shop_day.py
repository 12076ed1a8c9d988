"""The shop's days: settings against piece by piece and against the bound, the end of the work, and
the solver's time.

.plank/venv/bin/python -m bench.shop_day [seconds] [parts ...]
"""

import sys
import time
from dataclasses import replace
from pathlib import Path

from bench.shop_jobs import shop_job
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm
from vividplank.core.milling import routes
from vividplank.core.milling.days.day_solver import plan_days
from vividplank.core.milling.route.routes import usual_milling

EXAMPLES = Path(__file__).parents[1] / "docs" / "examples"


def told(name: str, job: Job, plan: Plan, seconds: float, people: int) -> None:
    milling = usual_milling(job)
    milling = replace(milling, hours=replace(milling.hours, people=people))
    began = time.monotonic()
    steps = [s for r in routes(job, plan, milling) for s in r.steps]
    written = time.monotonic() - began
    began = time.monotonic()
    days = plan_days(steps, milling, seconds)
    spent = time.monotonic() - began
    last = days.setups[-1].day(milling.hours) + 1
    print(
        f"{name}, {people} at work: {len(steps)} steps in {written:.2f} s; settings "
        f"{days.changes}, bound {days.least},"
        f" piece by piece {days.piece_by_piece}; done on day {last} after {days.minutes} minutes,"
        f" {'proved' if days.proved else 'not proved'}, {spent:.1f} s",
        flush=True,
    )


def main(seconds: float, sizes: list[int]) -> None:
    warm()
    job = read_job((EXAMPLES / "settle.job.json").read_text(encoding="utf-8"))
    plan = read_plan((EXAMPLES / "settle.plan.json").read_text(encoding="utf-8"))
    routes(job, plan)  # the compiled part is loaded
    for people in (1, 2):
        told("the settle", job, plan, seconds, people)
        for size in sizes:
            random = shop_job(size, 1)
            told(
                f"{size} pieces",
                random,
                search(random, Limits(10.0, workers=2), time.monotonic),
                seconds,
                people,
            )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 7.0,
        [int(a) for a in sys.argv[2:]] or [10, 60, 300],
    )
