"""How fast h(R) is: 10,000 random regions of one board with three stations and every warp.

    .plank/venv/bin/python -m bench.slab
"""

import random
import time

from vividplank.core.board import Board, Region, Station, Warp, flat_slab
from vividplank.core.board.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH


def main() -> None:
    warm()
    stations = (Station(0, 0, 7 * INCH, 8600, 8500), Station(50 * INCH, 300, 7 * INCH + 200, 8500, 8600),
                Station(100 * INCH, 0, 7 * INCH, 8400, 8500))
    board = Board("b", "oak", 100 * INCH, stations, Warp(2000, 400, 700))
    rng = random.Random(1)
    regions = []
    for _ in range(10_000):
        x0, h0 = rng.randrange(0, 90 * INCH), rng.randrange(300, 4 * INCH)
        regions.append(Region(x0, rng.randrange(x0 + 5 * INCH, 100 * INCH + 1), 0, rng.uniform(-0.01, 0.01), h0,
                              rng.randrange(h0 + INCH, 7 * INCH)))
    began = time.perf_counter()
    for region in regions:
        flat_slab(board, region)
    print(f"h(R): {len(regions)} regions in {time.perf_counter() - began:.2f} s")


if __name__ == "__main__":
    main()
