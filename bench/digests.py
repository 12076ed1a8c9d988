"""A digest of each plan of a fixed number of rounds, to tell whether a change keeps all plans.

The settle and planted jobs of every family; the same seed and rounds always give the same plan.

    .plank/venv/bin/python -m bench.digests [rounds]
"""

import hashlib
import json
import sys
import time
from pathlib import Path

from bench.planted import FAMILIES, planted
from vividplank.core.exchange import plan_document, read_job
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search

SETTLE = Path(__file__).parents[1] / "vividplank" / "demo" / "settle.job.json"


def digest(job: Job, rounds: int) -> str:
    """Cost and digest of the plan after so many rounds with seed 1."""
    plan = search(job, Limits(seconds=3600, rounds=rounds, seed=1), time.monotonic)
    document = plan_document(plan, job.unit)
    document["summary"].pop("seconds")
    text = json.dumps(document, sort_keys=True)
    return f"{plan.cost} {len(plan.unplaced)} {hashlib.sha256(text.encode()).hexdigest()[:16]}"


def main(rounds: int) -> None:
    print("settle", digest(read_job(SETTLE.read_bytes()), rounds), flush=True)
    for family in FAMILIES:
        for boards in (3, 6):
            print(family, boards, digest(planted(family, boards, 1).job, rounds), flush=True)


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 30)
