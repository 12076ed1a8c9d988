"""The chalk list: for each board the marks to draw, in order, every measure from its datum end and
its datum edge.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from vividplank.core.board import Board, Region
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import BoardPlan, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_INCH, TICKS_PER_MM, System, show

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


def chalk_list(
    job: Job, plan: Plan, system: System, kept: Mapping[str, tuple[Board, ...]] | None = None
) -> tuple[BoardMarks, ...]:
    """The marks of all boards of a plan; `kept` are the offcuts of each that go to the rack."""
    return tuple(_board(job, b, system, (kept or {}).get(b.board, ())) for b in plan.boards)


def _board(job: Job, plan: BoardPlan, system: System, kept: tuple[Board, ...]) -> BoardMarks:
    board = job.board(plan.board)
    marks: list[Mark] = []
    ordered = sorted(plan.segments, key=lambda s: s.x0)
    rough = _Rough(job, board)
    for n, segment in enumerate(ordered, 1):
        ends = rough.ends(segment, ordered[n - 2 : n - 1], ordered[n : n + 1])
        marks += _segment(board, segment, n, ends, rough, lambda t: to_rule(t, job, system))
    return BoardMarks(board.id, tuple(marks), kept)


class _Rough:
    """Marks of a rough cut: to a sixteenth of an inch or a millimetre, or to what the shop says,
    rounded to the waste side; finer where a neighbour is too near for that, or a fault that may be
    in no blank.
    """

    def __init__(self, job: Job, board: Board) -> None:
        self.kerf = job.shop.kerf
        usual = TICKS_PER_INCH // 16 if job.unit == "in" else TICKS_PER_MM
        self.mark = job.shop.chalk or usual
        self.faults = [d for d in board.boxed if not d.sound]
        self.length = board.length

    def ends(
        self, segment: Segment, before: Sequence[Segment], after: Sequence[Segment]
    ) -> tuple[int, int]:
        """Where a segment's crosscuts are marked, between those of its neighbours."""
        least = self._up(before[0].x1) + self.kerf.crosscut if before else 0
        most = self._down(after[0].x0) - self.kerf.crosscut if after else self.length
        x0, x1 = self._down(segment.x0), self._up(segment.x1)
        whole = segment.milled_region()
        low = x0 if x0 >= least and self._clear(replace(whole, x0=x0), whole) else segment.x0
        high = x1 if x1 <= most and self._clear(replace(whole, x1=x1), whole) else segment.x1
        return low, high

    def height(self, segment: Segment, height: int, at: int, up: bool) -> int:
        """A line's height over the board's edge at one end of a segment (`at` the edge has), marked
        above where `up`, else below.
        """
        found = self._up(at) if up else self._down(at)
        strips = [s for s in segment.strips if (s.y0 > height if up else s.y1 < height)]
        gaps = [s.y0 - height if up else height - s.y1 for s in strips]
        whole = segment.milled_region()
        moved = height + found - at
        wider = replace(whole, h0=height, h1=moved) if up else replace(whole, h0=moved, h1=height)
        near = any(gap - self.mark < self.kerf.rip for gap in gaps)
        return at if near or any(d.overlaps(wider) for d in self.faults) else found

    def _clear(self, wider: Region, whole: Region) -> bool:
        return not any(d.overlaps(wider) and not d.overlaps(whole) for d in self.faults)

    def _down(self, ticks: int) -> int:
        return ticks // self.mark * self.mark

    def _up(self, ticks: int) -> int:
        return -(-ticks // self.mark) * self.mark


def _segment(
    board: Board,
    segment: Segment,
    n: int,
    ends: tuple[int, int],
    rough: _Rough,
    says: Callable[[float], str],
) -> Iterator[Mark]:
    key = f"chalk {board.id} {n}"
    x0, x1 = ends
    begins = f"Square across at {says(x0)}: piece {n} begins"
    yield Mark(f"{key} from", "crosscut", x0, x0, 0, 0, begins, "before it")
    yield Mark(
        f"{key} to",
        "crosscut",
        x1,
        x1,
        0,
        0,
        f"Square across at {says(x1)}: piece {n} ends, {says(x1 - x0)} long",
        "beyond it",
    )
    for k, strip in enumerate(segment.strips, 1):
        for height, side, saw in ((strip.y0, "lower", "below it"), (strip.y1, "upper", "above it")):
            y0, y1 = (
                rough.height(
                    segment, height, _from_edge(board, segment, x, height), side == "upper"
                )
                for x in (segment.x0, segment.x1)
            )
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
