"""Whether a gap is the plan's or the bound's: every choice of boards that would cost less than the
plan, searched by itself.

Of choices only those are searched to which no board could be added; what they cannot hold fewer
boards cannot. A choice that holds everything makes the plan cheaper, and then only what is cheaper
yet is searched. That none holds all is no proof: a longer search may find that one does.

    .plank/venv/bin/python -m bench.cheaper [seconds] [parts] [seeds ...]
"""

import sys
import time
from collections.abc import Iterator
from dataclasses import replace
from itertools import combinations

from bench.shop_jobs import shop_job
from vividplank.core.board import Board
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm


def _choices(job: Job, plan: Plan) -> Iterator[tuple[Board, ...]]:
    """Choices of boards that cost less than the plan and no less than is proved, none of which
    could take one more.
    """
    for many in range(len(job.boards), 0, -1):
        for some in combinations(job.boards, many):
            price = sum(b.price for b in some)
            others = (b.price for b in job.boards if b not in some)
            if (
                plan.lower_bound
                <= float(price)
                < float(plan.cost)
                <= float(price + min(others, default=plan.cost))
            ):
                yield some


def _searched(job: Job, plan: Plan, seconds: float) -> tuple[Plan, list[int]]:
    """The cheapest plan that any choice holds, and how many parts each of those that are left
    leaves out.
    """
    out: list[int] = []
    for some in _choices(job, plan):
        found = search(replace(job, boards=some), Limits(seconds, workers=2), time.monotonic)
        if not found.unplaced:
            assert not audit(job, found)
            return _searched(job, replace(found, lower_bound=plan.lower_bound), seconds)
        out.append(len(found.unplaced))
    return plan, out


def main(seconds: float, parts: int, seeds: list[int]) -> None:
    warm()
    for seed in seeds:
        job = shop_job(parts, seed)
        first = search(job, Limits(2 * seconds, workers=2), time.monotonic)
        if first.unplaced:
            print(f"{job.name}: {len(first.unplaced)} left out", flush=True)
            continue
        plan, out = _searched(job, first, seconds)
        fewest = (
            f" in {seconds:g} s, {min(out)} to {max(out)} parts left out by each" if out else ""
        )
        print(
            f"{job.name}: {first.cost} found, {first.lower_bound:.2f} proved; {plan.cost} when "
            f"cheaper choices of boards were"
            f" searched; of the {len(out)} that are cheaper yet none holds all{fewest}",
            flush=True,
        )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 10.0,
        int(sys.argv[2]) if len(sys.argv) > 2 else 20,
        [int(a) for a in sys.argv[3:]] or [1, 2, 3],
    )
