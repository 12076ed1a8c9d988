"""How much wood is in a piece, and how much an operation took, in cubic ticks.

A board is counted in columns over a lattice that stays where it is in the board: every column has
one height of either face, and a cut through it shares its ground out exactly. So whatever is cut
out of a board, the parts, the kerfs and the chips add up to it again, whatever their order; only
the rounding of floats remains, under a cubic tick in 10^14.
"""

import numpy as np

from vividplank.core.board import Board
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.piece.field import Floats
from vividplank.core.piece.piece import Piece

_LONG, _WIDE = TICKS_PER_INCH // 2, TICKS_PER_INCH // 4


def volume(piece: Piece) -> float:
    xs, ys, ground = _columns(piece)
    lower, upper = piece.faces(xs, ys)
    return float((ground * np.maximum(0.0, upper - lower)).sum())


def chips(before: Piece, after: Piece) -> float:
    """What cutters took off the faces of a piece that kept its outline."""
    xs, ys, ground = _columns(before)
    (low0, high0), (low1, high1) = before.faces(xs, ys), after.faces(xs, ys)
    gone = np.minimum(low1, high0) - low0 + np.maximum(0.0, high0 - np.maximum(high1, low1))
    return float((ground * np.minimum(gone, high0 - low0)).sum())


def _columns(piece: Piece) -> tuple[Floats, Floats, Floats]:
    """Middles of the columns the piece stands on, and how much of each is its ground."""
    cells = _lattice(piece.board)
    inner = cells[(cells > piece.x0) & (cells < piece.x1)]
    breaks = np.unique(np.concatenate([piece.breaks, _crossings(piece), inner]))
    a, b = breaks[:-1], breaks[1:]
    k = np.clip(np.searchsorted(cells, (a + b) / 2, "right") - 1, 0, len(cells) - 2)
    middle = (cells[k] + cells[k + 1]) / 2
    near, far = _sides(piece, a), _sides(piece, b)
    top = float(np.maximum(near[1], far[1]).max())
    first = int(np.floor(min(near[0].min(), far[0].min()) / _WIDE))
    marks: Floats = np.arange(first, int(np.ceil(top / _WIDE)) + 1).astype(np.float64) * _WIDE
    below = _ground(near[1], far[1], marks) - _ground(near[0], far[0], marks)
    ground = np.maximum(0.0, below) * (b - a)[:, None]
    xs = np.broadcast_to(middle[:, None], ground.shape).copy()
    ys = np.broadcast_to(marks[:-1] + _WIDE / 2, ground.shape).copy()
    return xs, ys, ground


def _crossings(piece: Piece) -> Floats:
    """Where its two sides meet: what is left of a board beside a line may end there."""
    xs = piece.breaks
    low, high = piece.sides(xs)
    wide = high - low
    at = np.flatnonzero(wide[:-1] * wide[1:] < 0)
    found: Floats = xs[at] + (xs[at + 1] - xs[at]) * wide[at] / (wide[at] - wide[at + 1])
    return found


def _sides(piece: Piece, at: Floats) -> tuple[Floats, Floats]:
    """The sides there; no wood where they cross."""
    low, high = piece.sides(at)
    return low, np.maximum(high, low)


def _lattice(board: Board) -> Floats:
    marks = np.arange(0, board.length, _LONG, dtype=np.float64)
    stations = [float(s.x) for s in board.stations]
    return np.unique(np.concatenate([marks, stations, [float(board.length)]]))


def _ground(near: Floats, far: Floats, marks: Floats) -> Floats:
    """The mean share of every mark's stretch that lies under a line from `near` to `far`."""
    s0, s1 = near[:, None] - marks[:-1], far[:, None] - marks[:-1]
    return _mean_over(s0, s1) - _mean_over(s0 - _WIDE, s1 - _WIDE)


def _mean_over(s0: Floats, s1: Floats) -> Floats:
    """The mean of max(0, s) on the way from s0 to s1."""
    high, low = np.maximum(s0, s1), np.minimum(s0, s1)
    mixed = high * high / np.where(high > low, 2 * (high - low), 1.0)
    found: Floats = np.where(low >= 0, (s0 + s1) / 2, np.where(high <= 0, 0.0, mixed))
    return found
