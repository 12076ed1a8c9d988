"""How soon simulated trips for the settle are there, by processes that share them.

For each of the made-up suppliers, in turn, as the queue does it, but without its database.

    .plank/venv/bin/python -m bench.trips [trips for each] [processes ...]
"""

import sys
import time
from concurrent.futures import as_completed
from pathlib import Path

from vividplank.core.buying.chance.purchase import guesses
from vividplank.core.buying.market.supplier import usual_suppliers
from vividplank.core.exchange.job_file import read_job
from vividplank.core.milling import Milling
from vividplank.jobs.processes import make_ready
from vividplank.jobs.trips import GUESSED_FROM, Processes, make_trip

SETTLE = Path(__file__).parents[1] / "vividplank" / "demo" / "settle.job.json"


def main(trips: int, processes: list[int]) -> None:
    job = read_job(SETTLE.read_bytes())
    make_ready()
    for workers in processes:
        with Processes(workers) as pool:
            pool.submit(int).result()  # a worker has been there for a while
            began = time.monotonic()
            made = {}
            for seeds in (range(GUESSED_FROM), range(GUESSED_FROM, trips)):
                guess = {
                    s.id: guesses([made[s.id, n] for n in range(GUESSED_FROM) if made])
                    for s in usual_suppliers()
                }
                asked = {
                    pool.submit(make_trip, job, s, n, guess[s.id], "", False, Milling()): (s.id, n)
                    for n in seeds
                    for s in usual_suppliers()
                }
                for trip in as_completed(asked):
                    made[asked[trip]] = trip.result()
                    if len(made) in (1, 3, 3 * trips // 2, 3 * trips):
                        seconds = time.monotonic() - began
                        print(f"{workers} processes: {len(made)} trips in {seconds:.1f} s")


if __name__ == "__main__":
    main(
        int(sys.argv[1]) if len(sys.argv) > 1 else 8,
        [int(n) for n in sys.argv[2:]] or [1, 2],
    )
