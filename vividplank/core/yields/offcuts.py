"""What is left of a board once a plan has been cut from it, and which of it the shop keeps."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from vividplank.core.board import Board, Region, Warp
from vividplank.core.board.clear import clear_areas
from vividplank.core.board.piece import cut_out
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import BoardPlan, Segment
from vividplank.core.measure import LONGEST
from vividplank.core.milling.model.planed import segment_planed
from vividplank.core.shop import Keep


@dataclass(frozen=True)
class Leftover:
    """A place of a board that no blank takes, between the cuts made round it.

    `region` may reach beyond the outline; `end` lies between segments or at a board's end, `side`
    beside or between strips, `strip` between the blanks of one. `piece` is the wood there as a
    board, None where there is none to speak of; `planed` its thickness where it was milled with its
    segment, else 0.
    """

    kind: Literal["end", "side", "strip"]
    region: Region
    piece: Board | None
    planed: int = 0

    def kept(self, keep: Keep) -> bool:
        """Whether it goes to the rack."""
        return self.piece is not None and worth_keeping(self.piece, keep)


def offcuts(job: Job, plan: BoardPlan) -> tuple[Board, ...]:
    """The offcuts worth keeping by the shop's rule, with their faults, thickness and warp; the
    longest first.

    Out of a segment that was milled in one piece they come flat, dressed and as thick as it was
    planed.
    """
    board = job.board(plan.board)
    found = [left.piece for left in leftovers(job, plan) if left.piece and left.kept(job.shop.keep)]
    found.sort(key=lambda b: (-b.length, -b.mean_width))
    note = f"offcut of {board.id}" + (f", {job.name}" if job.name else "")
    return tuple(
        replace(b, id=f"{board.id}-{k}", note=note, quarter=board.quarter)
        for k, b in enumerate(found, 1)
    )


def worth_keeping(piece: Board, keep: Keep) -> bool:
    """Whether a rectangle free of unsound faults as large as the rule asks can be cut from it."""
    if piece.length < keep.length or piece.widest < keep.width:
        return False
    return bool(clear_areas(piece, "sound", 1, keep.length, keep.width))


def leftovers(job: Job, plan: BoardPlan) -> Iterator[Leftover]:
    """Every place of the board that no blank takes, the cuts beside it left out."""
    board, kerf = job.board(plan.board), job.shop.kerf.crosscut
    at = 0
    for segment in sorted(plan.segments, key=lambda s: s.x0):
        yield from _end(board, at, segment.x0 - kerf)
        yield from _of_segment(job, board, segment)
        at = segment.x1 + kerf
    yield from _end(board, at, board.length)


def _end(board: Board, x0: int, x1: int) -> Iterator[Leftover]:
    if x1 > x0:
        yield Leftover(
            "end", Region(x0, x1, 0.0, 0.0, -LONGEST, LONGEST), cut_out(board, board.id, x0, x1)
        )


def _of_segment(job: Job, board: Board, segment: Segment) -> Iterator[Leftover]:
    rip, kerf = job.shop.kerf.rip, job.shop.kerf.crosscut
    planed = segment_planed(job, segment) if job.shop.method == "mill-wide" else 0

    def left(
        kind: Literal["side", "strip"], x0: int, x1: int, h0: int, h1: int
    ) -> Iterator[Leftover]:
        if x1 <= x0 or h1 <= h0:
            return
        region = Region(
            x0, x1, segment.y0 + segment.slope * (x0 - segment.x0), segment.slope, h0, h1
        )
        low, high = (lambda x: region.line(x) + h0), (lambda x: region.line(x) + h1)
        piece = cut_out(
            board, board.id, x0, x1, low if h0 > -LONGEST else None, high if h1 < LONGEST else None
        )
        yield Leftover(kind, region, _dressed(piece, planed) if piece and planed else piece, planed)

    bottom = -LONGEST
    for strip in sorted(segment.strips, key=lambda s: s.y0):
        yield from left("side", segment.x0, segment.x1, bottom, strip.y0 - rip)
        at = segment.x0
        for blank in sorted(strip.blanks, key=lambda b: b.x0):
            yield from left("strip", at, blank.x0 - kerf, strip.y0, strip.y1)
            at = blank.x1 + kerf
        yield from left("strip", at, segment.x1, strip.y0, strip.y1)
        bottom = strip.y1 + rip
    yield from left("side", segment.x0, segment.x1, bottom, LONGEST)


def _dressed(piece: Board, planed: int) -> Board:
    stations = tuple(replace(s, t0=planed, t1=planed, between=()) for s in piece.stations)
    return replace(piece, stations=stations, warp=Warp(), surface=None, dressed=("A", "B"))
