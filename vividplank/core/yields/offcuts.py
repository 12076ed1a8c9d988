"""What is left of a board once a plan has been cut from it, and which of it the shop keeps."""

from collections.abc import Iterator
from dataclasses import replace

from vividplank.core.board import Board, Warp
from vividplank.core.board.clear import clear_areas
from vividplank.core.board.piece import cut_out
from vividplank.core.job import Job
from vividplank.core.layout.plan import BoardPlan, Segment, Strip
from vividplank.core.milling.planed import segment_planed
from vividplank.core.shop import Keep


def offcuts(job: Job, plan: BoardPlan) -> tuple[Board, ...]:
    """The offcuts worth keeping by the shop's rule, with their faults, thickness and warp; the longest first.

    Out of a segment that was milled in one piece they come flat, dressed and as thick as it was planed.
    """
    board = job.board(plan.board)
    found = [piece for piece in _pieces(job, board, plan) if worth_keeping(piece, job.shop.keep)]
    found.sort(key=lambda b: (-b.length, -b.mean_width))
    note = f"offcut of {board.id}" + (f", {job.name}" if job.name else "")
    return tuple(replace(b, id=f"{board.id}-{k}", note=note, quarter=board.quarter) for k, b in enumerate(found, 1))


def worth_keeping(piece: Board, keep: Keep) -> bool:
    """Whether a rectangle free of unsound faults as large as the rule asks can be cut from it."""
    if piece.length < keep.length or piece.widest < keep.width:
        return False
    return bool(clear_areas(piece, "sound", 1, keep.length, keep.width))


def _pieces(job: Job, board: Board, plan: BoardPlan) -> Iterator[Board]:
    kerf = job.shop.kerf.crosscut
    at = 0
    for segment in sorted(plan.segments, key=lambda s: s.x0):
        yield from _some(cut_out(board, board.id, at, segment.x0 - kerf))
        yield from _of_segment(job, board, segment)
        at = segment.x1 + kerf
    yield from _some(cut_out(board, board.id, at, board.length))


def _of_segment(job: Job, board: Board, segment: Segment) -> Iterator[Board]:
    rip = job.shop.kerf.rip
    planed = segment_planed(job, segment) if job.shop.method == "mill-wide" else 0

    def line(h: float) -> "_Line":
        return _Line(segment, h)

    bottom: _Line | None = None
    for strip in sorted(segment.strips, key=lambda s: s.y0):
        yield from _some(cut_out(board, board.id, segment.x0, segment.x1, bottom, line(strip.y0 - rip)), planed)
        yield from _of_strip(job, board, segment, strip, planed)
        bottom = line(strip.y1 + rip)
    yield from _some(cut_out(board, board.id, segment.x0, segment.x1, bottom, None), planed)


def _of_strip(job: Job, board: Board, segment: Segment, strip: Strip, planed: int) -> Iterator[Board]:
    kerf = job.shop.kerf.crosscut
    low, high = _Line(segment, strip.y0), _Line(segment, strip.y1)
    at = segment.x0
    for blank in sorted(strip.blanks, key=lambda b: b.x0):
        yield from _some(cut_out(board, board.id, at, blank.x0 - kerf, low, high), planed)
        at = blank.x1 + kerf
    yield from _some(cut_out(board, board.id, at, segment.x1, low, high), planed)


class _Line:
    """A line along a segment at a height above its reference line."""

    def __init__(self, segment: Segment, h: float) -> None:
        self.segment = segment
        self.h = h

    def __call__(self, x: float) -> float:
        s = self.segment
        return s.y0 + s.slope * (x - s.x0) + self.h


def _some(piece: Board | None, planed: int = 0) -> Iterator[Board]:
    if piece is None:
        return
    if planed:
        stations = tuple(replace(s, t0=planed, t1=planed, between=()) for s in piece.stations)
        piece = replace(piece, stations=stations, warp=Warp(), surface=None, dressed=("A", "B"))
    yield piece
