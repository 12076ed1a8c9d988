"""What the search makes of the settle in a given time, over seeds.

.plank/venv/bin/python -m bench.layout [seconds] [seeds]
"""

import sys
import time
from pathlib import Path

from vividplank.core.exchange import read_job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.search.search import Limits, Progress, search
from vividplank.core.layout.search.warm import warm

SETTLE = Path(__file__).parents[1] / "docs" / "examples" / "settle.job.json"


def main(seconds: float, seeds: int) -> None:
    warm()
    job = read_job(SETTLE.read_text(encoding="utf-8"))
    for seed in range(1, seeds + 1):
        whole: list[float] = []

        def watch(progress: Progress, whole: list[float] = whole) -> bool:
            if not progress.unplaced and not whole:
                whole.append(progress.seconds)
            return True

        plan = search(job, Limits(seconds, seed=seed, workers=2), time.monotonic, watch)
        first = f"whole after {whole[0]:.1f} s" if whole else "never whole"
        print(
            f"seed {seed}: cost {plan.cost}, bound {plan.lower_bound:.2f}, {len(plan.unplaced)} "
            f"left out, {first}, "
            f"{len(audit(job, plan))} violations"
        )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 10.0,
        int(sys.argv[2]) if len(sys.argv) > 2 else 3,
    )
