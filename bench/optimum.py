"""How near the search comes to costs that are known: planted jobs of every family.

.plank/venv/bin/python -m bench.optimum [seconds] [seeds] [boards ...]
"""

import statistics
import sys
import time

from bench.planted import FAMILIES, planted
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm


def main(seconds: float, seeds: int, sizes: list[int]) -> None:
    warm()
    ratios: list[float] = []
    for boards in sizes:
        for family in FAMILIES:
            row = []
            for seed in range(1, seeds + 1):
                made = planted(family, boards, seed)
                assert not audit(made.job, made.plan), "the planted plan itself must be right"
                plan = search(made.job, Limits(seconds, seed=1, workers=2), time.monotonic)
                wrong = len(audit(made.job, plan))
                left = len(plan.unplaced)
                ratio = float(plan.cost / made.cost)
                # What is left out saves nothing: only whole plans count.
                if left == 0:
                    ratios.append(ratio)
                row.append(
                    f"{ratio:.3f}"
                    + (f" ({left} of {len(made.job.parts)} out)" if left else "")
                    + ("!" * wrong)
                )
                assert plan.lower_bound <= float(made.cost) + 1e-6, "the bound is over the truth"
            print(f"{boards:3d} boards, {family:7s}: {'  '.join(row)}", flush=True)
    if ratios:
        middle = statistics.median(ratios)
        print(
            f"whole plans: {len(ratios)}, cost over the optimum: median {middle:.3f}, worst "
            f"{max(ratios):.3f}"
        )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 10.0,
        int(sys.argv[2]) if len(sys.argv) > 2 else 3,
        [int(a) for a in sys.argv[3:]] or [3, 6, 12],
    )
