"""How fast h(R) is: 10,000 random regions of one board, with every warp by its figures and as a
scanned surface.

.plank/venv/bin/python -m bench.slab
"""

import random
import time
from dataclasses import replace

from vividplank.core.board import Board, Region, Station, Surface, Warp, flat_slab
from vividplank.core.board.flat.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH


def scanned(board: Board, along: int, across: int) -> Board:
    """The board as a scanner sees it: heights at along × across places, each off by up to 0.004
    in.
    """
    rng = random.Random(2)
    xs = tuple(round(board.length * i / (along - 1)) for i in range(along))
    low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
    ys = tuple(round(low + (high - low) * j / (across - 1)) for j in range(across))
    lower = [[round(board.underside(x, y)) + rng.randrange(-32, 33) for y in ys] for x in xs]
    upper = [
        [round(board.underside(x, y) + board.thickness(x, y)) + rng.randrange(-32, 33) for y in ys]
        for x in xs
    ]
    return replace(
        board,
        surface=Surface(xs, ys, tuple(map(tuple, lower)), tuple(map(tuple, upper))),
        warp=Warp(),
    )


def main() -> None:
    warm()
    stations = (
        Station(0, 0, 7 * INCH, 8600, 8500),
        Station(50 * INCH, 300, 7 * INCH + 200, 8500, 8600),
        Station(100 * INCH, 0, 7 * INCH, 8400, 8500),
    )
    board = Board("b", "oak", 100 * INCH, stations, Warp(2000, 400, 700))
    rng = random.Random(1)
    regions = []
    for _ in range(10_000):
        x0, h0 = rng.randrange(0, 90 * INCH), rng.randrange(300, 4 * INCH)
        regions.append(
            Region(
                x0,
                rng.randrange(x0 + 5 * INCH, 100 * INCH + 1),
                0,
                rng.uniform(-0.01, 0.01),
                h0,
                rng.randrange(h0 + INCH, 7 * INCH),
            )
        )
    grid = tuple(replace(s, between=(s.t0 + 40, s.t0 + 20, s.t1 + 30)) for s in stations)
    straight = [replace(r, slope=0.0) for r in regions]
    of_scan = scanned(board, 200, 16)
    for name, of, asked in (
        ("by its figures", board, regions),
        ("five readings across", replace(board, stations=grid), regions),
        ("scanned 200 x 16", of_scan, regions),
        ("scanned 200 x 16, rectangles", of_scan, straight),
        ("scanned 64 x 9", scanned(board, 64, 9), regions),
    ):
        flat_slab(of, asked[0])
        began = time.perf_counter()
        for region in asked:
            flat_slab(of, region)
        print(f"h(R), {name}: {len(asked)} regions in {time.perf_counter() - began:.2f} s")


if __name__ == "__main__":
    main()
