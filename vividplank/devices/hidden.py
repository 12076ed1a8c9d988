"""The true board that simulated instruments read: what lies on the bench, unknown to whoever
surveys it.
"""

import hashlib
from dataclasses import dataclass, replace
from math import exp, hypot
from random import Random

from vividplank.core.board import Board, Warp
from vividplank.core.measure import TICKS_PER_INCH as INCH


@dataclass(frozen=True)
class Nail:
    """Metal at a place, and how much the wood has swollen over it on face A."""

    x: int
    y: int
    swelling: float

    def rise(self, x: float, y: float) -> float:
        return self.swelling * exp(-((hypot(x - self.x, y - self.y) / (0.9 * INCH)) ** 2))


@dataclass(frozen=True)
class HiddenBoard:
    """`board` gives outline, thickness and warp; moisture rises by `damp` from the middle toward
    the ends or falls.
    """

    board: Board
    nails: tuple[Nail, ...]
    percent: float
    damp: float

    def heights(self, x: float, y: float) -> tuple[float, float]:
        """Faces B and A above the bench, in ticks."""
        low = self.board.underside(x, y)
        return low, low + self.board.thickness(x, y) + sum(n.rise(x, y) for n in self.nails)

    def moisture(self, x: float) -> float:
        return self.percent + self.damp * (2 * x / self.board.length - 1) ** 2


def hidden_board(board: Board) -> HiddenBoard:
    """The same for the same mark, wood and length: near what was recorded, warped where nothing
    was, a nail in every third.

    A board that was scanned is what the scan says: an instrument finds it again within its noise.
    """
    random = random_of(board)
    usual = [random.uniform(-most, most) * INCH for most in (0.3, 0.08, 0.2)]
    near = [random.uniform(0.85, 1.15) for _ in usual]
    planed = [random.randint(-120, 120) for _ in range(2)]
    if board.surface is None:
        warp = Warp(
            *(
                round(known * share) if known else round(else_it)
                for known, share, else_it in zip(
                    (board.warp.bow, board.warp.cup, board.warp.twist), near, usual, strict=True
                )
            )
        )
        stations = tuple(
            replace(s, t0=max(1, s.t0 + planed[0]), t1=max(1, s.t1 + planed[1]))
            for s in board.stations
        )
        board = replace(board, warp=warp, stations=stations)
    nails = []
    if random.randrange(3) == 0:
        x = random.randint(board.length // 10, board.length * 9 // 10)
        low, high = board.edges(x)
        nails.append(
            Nail(
                x,
                round(low + (high - low) * random.uniform(0.2, 0.8)),
                random.uniform(0.03, 0.06) * INCH,
            )
        )
    return HiddenBoard(board, tuple(nails), random.uniform(7, 13), random.uniform(-2, 1))


def random_of(board: Board, more: str = "") -> Random:
    """Chance that belongs to this board (its mark, wood and length) and to `more`."""
    text = f"{board.id}|{board.species}|{board.length}|{more}"
    return Random(int.from_bytes(hashlib.sha256(text.encode()).digest()[:8]))
