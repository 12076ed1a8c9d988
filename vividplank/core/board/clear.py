"""What is clear on a board: the largest rectangles free of faults."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vividplank.core.board.board import Board
from vividplank.core.board.defect import Defect
from vividplank.core.measure import TICKS_PER_INCH

Quality = Literal["clear-two", "clear-one", "sound"]
SIDES: tuple[Literal["A", "B"], ...] = ("A", "B")
_INCH = TICKS_PER_INCH
#: Rectangles may begin and end at faults, at stations, and at so many places between.
_PLACES = 40


@dataclass(frozen=True)
class Area:
    """A rectangle of the board, in ticks; `face` is the one that is clear, "both" where both
    are.
    """

    x0: int
    x1: int
    y0: int
    y1: int
    face: Literal["A", "B", "both"] = "both"

    @property
    def size(self) -> int:
        return (self.x1 - self.x0) * (self.y1 - self.y0)


def clear_areas(
    board: Board,
    quality: Quality,
    most: int = 3,
    shortest: int = 12 * _INCH,
    narrowest: int = _INCH,
) -> tuple[Area, ...]:
    """The largest rectangle of that quality, the largest in what is left, and so on.

    Ends and edges lie on a grid of forty places along the board besides its faults and stations, so
    a rectangle is never larger than what is really clear, and rarely much smaller.
    """
    found: list[Area] = []
    for _ in range(most):
        best = _best(board, quality, found, shortest, narrowest)
        if best is None:
            break
        found.append(best)
    return tuple(found)


def clear_on(
    faults: Sequence[Defect],
    board: Board,
    face: Literal["A", "B"],
    taken: list[Area],
    shortest: int,
    narrowest: int,
) -> Area | None:
    """The largest rectangle clear on this face and sound behind, of those faults alone and outside
    what is taken.
    """
    bad = [d for d in faults if not d.sound or d.face in (face, "both")]
    return _largest(board, bad, taken, shortest, narrowest, face)


def _best(
    board: Board, quality: Quality, taken: list[Area], shortest: int, narrowest: int
) -> Area | None:
    if quality == "sound":
        return _largest(
            board, [d for d in board.boxed if not d.sound], taken, shortest, narrowest, "both"
        )
    if quality == "clear-two":
        return _largest(board, list(board.boxed), taken, shortest, narrowest, "both")
    found = [clear_on(board.boxed, board, side, taken, shortest, narrowest) for side in SIDES]
    return max((a for a in found if a), key=lambda a: a.size, default=None)


def _largest(
    board: Board,
    faults: list[Defect],
    taken: list[Area],
    shortest: int,
    narrowest: int,
    face: Literal["A", "B", "both"],
) -> Area | None:
    blocked = [(f.x0, f.x1, f.y0, f.y1) for f in faults] + [(a.x0, a.x1, a.y0, a.y1) for a in taken]
    places = {
        0,
        board.length,
        *(s.x for s in board.stations),
        *(board.length * k // _PLACES for k in range(1, _PLACES)),
    }
    places |= {x for b in blocked for x in b[:2] if 0 < x < board.length}
    xs = sorted(places)
    edges = [board.edges(x) for x in xs]
    best: Area | None = None
    for i, x0 in enumerate(xs):
        low, high = edges[i]
        for j in range(i + 1, len(xs)):
            low, high = max(low, edges[j][0]), min(high, edges[j][1])
            x1 = xs[j]
            if high - low < narrowest:
                break
            if x1 - x0 < shortest or (best and (x1 - x0) * (high - low) <= best.size):
                continue
            for y0, y1 in _gaps(
                low, high, [(b[2], b[3]) for b in blocked if b[0] < x1 and b[1] > x0]
            ):
                area = Area(x0, x1, -int(-y0 // 1), int(y1), face)
                if area.y1 - area.y0 >= narrowest and (best is None or area.size > best.size):
                    best = area
    return best


def _gaps(low: float, high: float, blocked: list[tuple[int, int]]) -> list[tuple[float, float]]:
    gaps, at = [], low
    for y0, y1 in sorted(blocked):
        if y0 > at:
            gaps.append((at, min(float(y0), high)))
        at = max(at, float(y1))
    gaps.append((at, high))
    return [g for g in gaps if g[1] > g[0]]
