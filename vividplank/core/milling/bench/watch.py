"""A run of passes to look at: what each leaves, and what to learn of it."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from vividplank.core import piece as core
from vividplank.core.measure import System, about
from vividplank.core.milling.physics.flatten import ENOUGH_CLEAN, Flattened, as_laid
from vividplank.core.milling.physics.simulate import (
    MOST_PASSES,
    Piece,
    Press,
    joint,
    level,
    piece_of,
    plane,
)
from vividplank.core.piece import Face

#: A face is looked at over so many places along and across.
ALONG, ACROSS = 57, 7
#: What is called bent: more than a sheet of paper or two.
_PAPER = 60


@dataclass(frozen=True)
class Frame:
    """After one pass (0: before the first): the share clean of the face that is cut, place by place
    along and across; the thickest and thinnest place; what the planer could make of it; and how far
    it is bent along its length. Ticks.
    """

    clean: float
    lines: tuple[tuple[bool, ...], ...]
    thickest: int
    thinnest: int
    level: int
    bent: int


@dataclass(frozen=True)
class Watched:
    """`enough` is the pass after which one may go on to the planer, 0 where that never comes."""

    frames: tuple[Frame, ...]
    enough: int
    says: str


def watch(
    wood: core.Piece,
    foretold: Flattened,
    machine: Literal["jointer", "planer"],
    system: System,
    down: Face | None = None,
    press: Press = "outfeed",
    far_end_first: bool = False,
    enough_clean: float = ENOUGH_CLEAN,
) -> Watched:
    """Pass after pass of the depth foretold until the face is clean or the piece is hardly there:
    with the face down that the route lays down, its corners knocked down as it says, or another
    way.
    """
    box = wood.box
    if machine == "jointer" and down in (None, foretold.down):
        start = as_laid(wood.board, box, foretold, ALONG, ACROSS, wood.cuts)
    else:
        start = piece_of(wood.board, box, down or foretold.down, ALONG, ACROSS, wood.cuts)
    if far_end_first:
        start = start.turned_round()
    frames = [_frame(start, machine, far_end_first)]
    enough = 0
    for n, piece in enumerate(_passes(start, machine, foretold.depth, press), 1):
        frames.append(_frame(piece, machine, far_end_first))
        if not enough and frames[-1].clean >= enough_clean:
            enough = n
    hollow = down in (None, foretold.down)
    return Watched(tuple(frames), enough, _says(frames, enough, machine, hollow, system))


def _passes(piece: Piece, machine: str, depth: int, press: Press) -> Iterator[Piece]:
    setting = float(piece.thickness.max())
    for _ in range(MOST_PASSES):
        if piece.thickness.min() <= 2 * depth:
            return
        if machine == "jointer":
            piece = joint(piece, depth, press)
            clean = piece.clean
        else:
            setting -= depth
            piece = plane(piece, setting)
            clean = float(piece.clean_upper.mean())
        yield piece
        if clean >= 1.0:
            return


def _frame(piece: Piece, machine: str, turned: bool) -> Frame:
    lines = piece.clean_lower if machine == "jointer" else piece.clean_upper
    if turned:
        lines = lines[::-1, ::-1]
    return Frame(
        float(lines.mean()),
        tuple(tuple(bool(c) for c in row) for row in lines),
        round(float(piece.thickness.max())),
        round(float(piece.thickness.min())),
        int(level(piece)),
        round(piece.bent()),
    )


def _says(frames: list[Frame], enough: int, machine: str, hollow: bool, system: System) -> str:
    def say(ticks: int) -> str:
        return about(ticks, system, unit=True)

    first, last = frames[0], frames[-1]
    passes = len(frames) - 1
    if machine == "planer":
        if last.bent > max(_PAPER, first.bent // 2):
            return (
                f"even in thickness after {passes} passes, and still {say(last.bent)} bent: the "
                f"rollers press the bend out "
                "and let it spring back. Face it first"
            )
        return f"clean after {passes} passes: it lies flat, so it comes out parallel"
    if last.bent > max(_PAPER, first.bent // 2):
        return (
            f"clean after {passes} pass{'es' if passes > 1 else ''} and still {say(last.bent)} "
            f"bent: it rocked over the cutter and kept its curve. "
            + ("Press it over the outfeed table" if hollow else "Turn it hollow side down")
        )
    if not enough:
        return (
            f"after {passes} passes only {round(100 * last.clean)} % is clean: knock the high "
            f"corners down first, or cut "
            "it shorter"
        )
    return (
        f"{round(100 * frames[enough].clean)} % clean after {enough} "
        f"pass{'es' if enough > 1 else ''}: on to the planer, "
        f"which can make it {say(frames[enough].level)}; a show face is clean after {passes}"
    )
