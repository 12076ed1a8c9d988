"""What jointer and planer do to a piece, pass by pass: rigid wood on flat tables.

Jointer: at every place of the feed the piece rests as a rigid body on both tables, pressed down by
a hand near the cutter: among all ways to lie without sinking into a table it takes the one that is
lowest under the hand. What then reaches below the cutter is gone. Planer: its rollers press the
piece flat onto the bed over the short way between them, so a bend along it passes under the cutter
and springs back behind; what stands higher over the bed than the setting is gone.

No wood bends at the jointer and none but a bow bends at the planer: a thin piece under a heavy hand
comes out worse.
"""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import cache
from typing import Any, Literal

import numpy as np
import numpy.typing as npt

from vividplank.core import piece as core
from vividplank.core.board import Board, Region
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.piece import Cut
from vividplank.core.piece.field import edges

Floats = npt.NDArray[np.float64]
Press = Literal["outfeed", "infeed"]
#: A place is clean where this much has gone: a pencil line is.
_LINE = TICKS_PER_INCH / 1000
#: How far from the cutter the hand presses, and the planer's rollers are apart.
_HAND = 4.0 * TICKS_PER_INCH
_ROLLERS = 5.0 * TICKS_PER_INCH
_ALONG, _ACROSS = 57, 7
#: Nobody feeds a piece more often than this; past it the way is wrong.
MOST_PASSES = 40


@dataclass(frozen=True)
class Piece:
    """A piece on the table, over a grid: places along (n) and across (m), undersides and uppersides
    (n × m), in ticks.

    `clean` says of every place of the underside and of the upperside whether a cutter has been
    there.
    """

    xs: Floats
    ys: Floats
    lower: Floats
    upper: Floats
    clean_lower: npt.NDArray[np.bool_]
    clean_upper: npt.NDArray[np.bool_]

    @property
    def thickness(self) -> Floats:
        return self.upper - self.lower

    @property
    def clean(self) -> float:
        """Share of the underside that is clean."""
        return float(self.clean_lower.mean())

    def turned_over(self) -> "Piece":
        """The other face down, turned about its length: the ends stay where they are."""
        return replace(
            self,
            lower=-self.upper[:, ::-1],
            upper=-self.lower[:, ::-1],
            clean_lower=self.clean_upper[:, ::-1],
            clean_upper=self.clean_lower[:, ::-1],
        )

    def turned_round(self) -> "Piece":
        """The other end first, the same face down."""
        return Piece(
            self.xs[-1] - self.xs[::-1],
            self.ys[-1] - self.ys[::-1],
            self.lower[::-1, ::-1],
            self.upper[::-1, ::-1],
            self.clean_lower[::-1, ::-1],
            self.clean_upper[::-1, ::-1],
        )

    def bent(self) -> float:
        """How far the underside's middle line strays from the straight line through its ends, most;
        in ticks.
        """
        middle = self.lower[:, self.lower.shape[1] // 2]
        line = np.interp(self.xs, self.xs[[0, -1]], middle[[0, -1]])
        return float(np.abs(middle - line).max())


def piece_of(
    board: Board,
    region: Region,
    down: Literal["A", "B"] = "B",
    along: int = _ALONG,
    across: int = _ACROSS,
    cuts: tuple[Cut, ...] = (),
) -> Piece:
    """The piece that is cut out of a board there, with that face on the table; `cuts` is what
    cutters have left of its faces before.
    """
    xs = np.linspace(0, region.x1 - region.x0, along)
    hs = np.linspace(region.h0, region.h1, across)
    x = np.broadcast_to((xs + region.x0)[:, None], (along, across)).copy()
    y = region.y0 + region.slope * (x - region.x0) + hs
    # Where wane or crook leave no wood the nearest there is stands for it.
    low, high = edges(board, x)
    whole = core.Piece("", board, region.x0, region.x1, cuts=cuts)
    lower, upper = whole.faces(x, np.clip(y, low, high))
    none = np.zeros((along, across), dtype=np.bool_)
    found = Piece(xs, hs - region.h0, lower, upper, none, none)
    return found if down == "B" else found.turned_over()


def joint(piece: Piece, depth: float, press: Press = "outfeed") -> Piece:
    """One pass over the jointer, the end at 0 first."""
    done = _kernel().joint(
        piece.xs,
        piece.ys,
        piece.lower,
        float(depth),
        min(_HAND, piece.xs[-1] / 6),
        press == "outfeed",
    )
    return replace(piece, lower=done, clean_lower=piece.clean_lower | (done - piece.lower > _LINE))


def plane(piece: Piece, setting: float) -> Piece:
    """One pass through the thickness planer, the upperside under the cutter."""
    done = _kernel().plane(
        piece.xs, piece.ys, piece.lower, piece.upper, float(setting), 2 * _ROLLERS
    )
    return replace(piece, upper=done, clean_upper=piece.clean_upper | (piece.upper - done > _LINE))


def knock_down(piece: Piece, heights: Floats) -> Piece:
    """What reaches below these heights (n × m) taken off by hand."""
    done = np.maximum(piece.lower, heights)
    return replace(piece, lower=done, clean_lower=piece.clean_lower | (done - piece.lower > _LINE))


def joint_until(
    piece: Piece, depth: float, clean: float = 1.0, press: Press = "outfeed"
) -> Iterator[Piece]:
    """The piece after each pass, until that share of the face is clean; at most MOST_PASSES, and
    none once it is cut " "through.
    """
    for _ in range(MOST_PASSES):
        if piece.clean >= clean or piece.thickness.min() <= depth:
            return
        piece = joint(piece, depth, press)
        yield piece


def level(piece: Piece) -> float:
    """How thick the planer can make it, both faces clean: what lies between two planes parallel to
    how it rests.
    """
    return float(_kernel().level(piece.xs, piece.ys, piece.lower, piece.upper))


@cache
def _kernel() -> Any:
    """The compiled part, loaded when it is first needed."""
    from vividplank.core.milling.physics import pass_kernel

    return pass_kernel
