"""The chalk list: for each board the marks to draw, in order, every measure from its datum end and
its datum edge.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

from vividplank.core.board import Board
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import BoardPlan, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM, System, show
from vividplank.core.yields.offcuts import offcuts

Kind = Literal["crosscut", "line", "piece"]


@dataclass(frozen=True)
class Mark:
    """One mark: a crosscut square across at x0, a line from x0 to x1, the name of a piece between
    x0 and x1.

    The heights of a line, y0 at x0 and y1 at x1, are measured from the datum edge of the board as
    it is there. `saw` says on which side of the mark the blade goes.
    """

    key: str
    kind: Kind
    x0: int
    x1: int
    y0: int
    y1: int
    words: str
    saw: str = ""


@dataclass(frozen=True)
class BoardMarks:
    board: str
    marks: tuple[Mark, ...]
    offcuts: tuple[Board, ...]


def chalk_list(job: Job, plan: Plan, system: System) -> tuple[BoardMarks, ...]:
    """The marks of all boards of a plan."""
    return tuple(_board(job, b, system) for b in plan.boards)


def _board(job: Job, plan: BoardPlan, system: System) -> BoardMarks:
    board = job.board(plan.board)
    marks: list[Mark] = []
    for n, segment in enumerate(sorted(plan.segments, key=lambda s: s.x0), 1):
        marks += _segment(job, board, segment, n, system)
    kept = offcuts(job, plan)
    return BoardMarks(board.id, tuple(marks), kept)


def _segment(job: Job, board: Board, segment: Segment, n: int, system: System) -> Iterator[Mark]:
    def says(ticks: float) -> str:
        return to_rule(ticks, job, system)

    key = f"chalk {board.id} {n}"
    begins = f"Square across at {says(segment.x0)}: piece {n} begins"
    yield Mark(f"{key} from", "crosscut", segment.x0, segment.x0, 0, 0, begins, "before it")
    yield Mark(
        f"{key} to",
        "crosscut",
        segment.x1,
        segment.x1,
        0,
        0,
        f"Square across at {says(segment.x1)}: piece {n} ends, {says(segment.x1 - segment.x0)} "
        f"long",
        "beyond it",
    )
    for k, strip in enumerate(segment.strips, 1):
        for height, side, saw in ((strip.y0, "lower", "below it"), (strip.y1, "upper", "above it")):
            y0, y1 = (_from_edge(board, segment, x, height) for x in (segment.x0, segment.x1))
            if side == "lower" and k == 1 and y0 == 0 == y1:
                continue  # the datum edge itself
            words = f"Strip {k}, {side} line: {says(y0)} from the edge at {says(segment.x0)}"
            words += (
                f", {says(y1)} at {says(segment.x1)}"
                if y0 != y1
                else f", the same at {says(segment.x1)}"
            )
            yield Mark(f"{key} {k} {side}", "line", segment.x0, segment.x1, y0, y1, words, saw)
        yield from _blanks(segment, strip, f"{key} {k}", says)


def _blanks(
    segment: Segment, strip: Strip, key: str, says: Callable[[float], str]
) -> Iterator[Mark]:
    for m, blank in enumerate(strip.blanks, 1):
        names = blank.name
        begins = "" if blank.x0 == segment.x0 else f" from {says(blank.x0)}"
        ends = "" if blank.x1 == segment.x1 else f" to {says(blank.x1)}"
        wide = says(strip.y1 - strip.y0)
        resawn = f", to be resawn in {len(blank.layers)}" if len(blank.layers) > 1 else ""
        words = f"Write {names} in it{begins}{ends}: {says(blank.x1 - blank.x0)} by {wide}{resawn}"
        yield Mark(f"{key} {m}", "piece", blank.x0, blank.x1, strip.y0, strip.y1, words)


def to_rule(ticks: float, job: Job, system: System) -> str:
    """A measure as a rule shows it: to the next 64th of an inch, or half millimetre."""
    mark = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 2
    return show(round(ticks / mark) * mark, system, unit=True)


def _from_edge(board: Board, segment: Segment, x: int, height: int) -> int:
    """How far a height over the segment's line is from the board's datum edge at x."""
    return round(segment.y0 + segment.slope * (x - segment.x0) + height - board.edges(x)[0])
