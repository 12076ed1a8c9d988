"""How the search grows: time to a whole plan and to within 2 % of the final cost, and memory, over
parts.

.plank/venv/bin/python -m bench.growth [seconds] [parts ...]
"""

import resource
import sys
import time

from bench.shop_jobs import shop_job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.search.search import Limits, Progress, search
from vividplank.core.layout.search.warm import warm


def main(seconds: float, sizes: list[int]) -> None:
    warm()
    for parts in sizes:
        job = shop_job(parts, 1)
        told: list[Progress] = []

        def watch(progress: Progress, told: list[Progress] = told) -> bool:
            told.append(progress)
            return True

        plan = search(job, Limits(seconds, workers=2), time.monotonic, watch)
        left = len(plan.unplaced)
        whole = next((p.seconds for p in told if p.unplaced == told[-1].unplaced), seconds)
        near = next(
            (
                p.seconds
                for p in told
                if p.unplaced == told[-1].unplaced and float(p.cost) <= 1.02 * float(plan.cost)
            ),
            seconds,
        )
        used = (
            max(
                resource.getrusage(who).ru_maxrss
                for who in (resource.RUSAGE_SELF, resource.RUSAGE_CHILDREN)
            )
            / 1024
        )
        print(
            f"{parts} parts, {len(job.boards)} boards: cost {plan.cost}, {left} left out; as "
            f"many placed after {whole:.1f} s,"
            f" within 2 % after {near:.1f} s of {plan.seconds:.1f}; at most {used:.0f} MiB so far;"
            f" {len(audit(job, plan))} violations",
            flush=True,
        )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 30.0,
        [int(a) for a in sys.argv[2:]] or [10, 30, 100, 300, 1000],
    )
