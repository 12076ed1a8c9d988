"""Random jobs for the properties of the layout: every rule of the exchange page turns up in
them.
"""

import random
from dataclasses import replace
from decimal import Decimal

from hypothesis import strategies as st

from vividplank.core.board import Board, Defect, Station, Surface, Warp
from vividplank.core.cutlist import Panel, Part
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Allowance, Kerf, Shop


def inches(low: float, high: float) -> st.SearchStrategy[int]:
    """Lengths in 64ths between two figures in inches."""
    return st.integers(round(low * 64), round(high * 64)).map(lambda n: n * TICKS_PER_INCH // 64)


@st.composite
def boards(draw: st.DrawFn, id: str) -> Board:
    length = draw(inches(20, 130))
    cuts = sorted(set(draw(st.lists(st.integers(1, 9), max_size=2))))
    xs = [0, *(length * c // 10 for c in cuts), length]
    width = draw(inches(3, 11))
    thickness = draw(
        st.sampled_from([0.85, 1.05, 1.3, 2.05]).map(lambda t: round(t * TICKS_PER_INCH))
    )
    wiggle = inches(0, 0.5)
    stations = tuple(
        Station(
            x,
            draw(wiggle),
            width + draw(wiggle),
            thickness - draw(inches(0, 0.06)),
            thickness - draw(inches(0, 0.06)),
        )
        for x in xs
    )
    warp = Warp(
        *(draw(st.sampled_from([-1, 1])) * draw(inches(0, most)) for most in (0.4, 0.15, 0.25))
    )
    defects = []
    for _ in range(draw(st.integers(0, 3))):
        x0, y0 = draw(inches(0, 100)) % length, draw(inches(0, 8)) % width
        kind = draw(
            st.sampled_from(["tight-knot", "sapwood", "check", "loose-knot", "wane", "bee nest"])
        )
        face = draw(st.sampled_from(["A", "B", "both"]))
        x1, y1 = x0 + draw(inches(0.25, 20)), y0 + draw(inches(0.25, 2))
        shape = draw(st.sampled_from(["rectangle", "rectangle", "ellipse", "outline"]))
        points = ((x0, y0), (x1, (y0 + y1) // 2), (x0, y1)) if shape == "outline" else ()
        defects.append(Defect(kind, face, x0, x1, y0, y1, shape, points))
    price = Decimal(draw(st.integers(0, 9000))) / 100
    board = Board(
        id,
        draw(st.sampled_from(["oak", "oak", "ash"])),
        length,
        stations,
        warp,
        tuple(defects),
        price,
    )
    known = draw(st.sampled_from(["plain", "plain", "plain", "grid", "scanned"]))
    if known == "grid":
        return replace(
            board,
            stations=tuple(
                replace(s, between=(thickness - draw(inches(0, 0.06)),)) for s in stations
            ),
        )
    if known == "scanned":
        return scanned(
            board, draw(st.integers(2, 7)), draw(st.integers(2, 4)), draw(st.integers(0, 9))
        )
    return board


def scanned(board: Board, along: int, across: int, seed: int, rough: int = 60) -> Board:
    """The board's faces as heights at along × across places, each off by up to `rough` ticks."""
    rng = random.Random(seed)
    low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
    xs = tuple(round(board.length * i / (along - 1)) for i in range(along))
    ys = tuple(low + round((high - low) * j / (across - 1)) for j in range(across))
    lower = [[board.underside(x, y) for y in ys] for x in xs]
    upper = [
        [z + board.thickness(x, y) for z, y in zip(row, ys, strict=True)]
        for x, row in zip(xs, lower, strict=True)
    ]

    def read(face: list[list[float]]) -> tuple[tuple[int, ...], ...]:
        return tuple(tuple(round(z) + rng.randint(-rough, rough) for z in row) for row in face)

    return replace(board, surface=Surface(xs, ys, read(lower), read(upper)), warp=Warp())


@st.composite
def jobs(draw: st.DrawFn) -> Job:
    shop = Shop(
        draw(st.sampled_from(["mill-wide", "rough-rip"])),
        Kerf(*(draw(inches(0, 0.25)) for _ in range(3))),
        Allowance(
            draw(inches(0, 1)),
            draw(inches(0, 0.375)),
            draw(inches(0, 0.0625)),
            draw(inches(0, 0.5)),
            draw(st.sampled_from([0, 0, 1])) * draw(inches(0, 1)),
            draw(st.sampled_from([0, 1])) * draw(inches(0, 0.0625)),
        ),
        draw(inches(0, 2)),
        draw(inches(6, 14)),
        draw(st.sampled_from([0.0, 0.004, 0.02])),
    )
    parts: list[Part] = []
    for i in range(draw(st.integers(1, 6))):
        kind = draw(st.sampled_from(["plain", "plain", "plain", "panel", "run"]))
        stave = draw(inches(1, 3))
        parts.append(
            Part(
                f"P{i}",
                "",
                draw(st.integers(1, 4 if kind == "plain" else 2)),
                draw(st.sampled_from(["oak", "oak", "ash"])),
                draw(inches(3, 50)),
                draw(inches(6, 16) if kind == "panel" else inches(0.75, 6)),
                draw(
                    st.sampled_from([0.25, 0.375, 0.5, 0.8125, 1.5]).map(
                        lambda t: round(t * TICKS_PER_INCH)
                    )
                ),
                draw(st.sampled_from(["clear-two", "clear-one", "sound"])),
                Panel(stave, stave + draw(inches(0, 4))) if kind == "panel" else None,
                "row" + str(i) if kind == "run" else "",
            )
        )
    stock = tuple(draw(boards(f"B{i}")) for i in range(draw(st.integers(1, 4))))
    return Job("random", shop, tuple(parts), stock)
