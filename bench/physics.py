"""What it is worth to know the warp: the same jobs solved as if boards were flat, and as if every
board were flattened whole.

.plank/venv/bin/python -m bench.physics [seconds] [seeds] [parts] [so many times as warped as the
stock of bench.shop_jobs]
"""

import sys
import time
from dataclasses import replace

from bench.shop_jobs import shop_job
from vividplank.core.board import Board, Warp
from vividplank.core.board.flat.thick import flat_between
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm


def warped(job: Job, times: int) -> Job:
    """The job with its boards so many times as warped."""
    boards = (
        replace(b, warp=Warp(b.warp.bow * times, b.warp.cup * times, b.warp.twist * times))
        for b in job.boards
    )
    return replace(job, boards=tuple(boards))


def flat(job: Job) -> Job:
    """The job as somebody sees it who does not measure warp."""
    return replace(job, boards=tuple(replace(b, warp=Warp(), surface=None) for b in job.boards))


def flattened(job: Job) -> Job:
    """The job with every board flattened in one piece before anything is cut from it."""
    return replace(job, boards=tuple(_flattened(b) for b in job.boards))


def _flattened(board: Board) -> Board:
    thick = max(1, int(flat_between(board, 0, board.length)))
    stations = tuple(replace(s, t0=thick, t1=thick, between=()) for s in board.stations)
    return replace(board, warp=Warp(), surface=None, stations=stations)


def main(seconds: float, seeds: int, parts: int, times: int) -> None:
    warm()
    failed = 0
    for seed in range(1, seeds + 1):
        job = warped(shop_job(parts, seed), times)
        limits = Limits(seconds, workers=2)
        right = search(job, limits, time.monotonic)
        blind = search(flat(job), limits, time.monotonic)
        too_thin = [v for v in audit(job, blind) if v.rule == 5]
        whole = search(flattened(job), limits, time.monotonic)
        failed += bool(too_thin)
        print(
            f"{job.name}: knowing the warp {right.cost}, {len(right.unplaced)} left out; as if "
            f"flat {blind.cost}, but"
            f" {len(too_thin)} segments or blanks come out too thin; every board flattened whole "
            f"{whole.cost},"
            f" {len(whole.unplaced)} left out",
            flush=True,
        )
    print(f"{failed} of {seeds} plans made as if boards were flat fail at the planer")


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 10.0,
        int(sys.argv[2]) if len(sys.argv) > 2 else 4,
        int(sys.argv[3]) if len(sys.argv) > 3 else 40,
        int(sys.argv[4]) if len(sys.argv) > 4 else 1,
    )
