"""Paper: a page for each board with its picture to scale and the marks to draw on it, in order, to
be ticked.
"""

import io
from collections.abc import Collection, Mapping

from reportlab.lib.pagesizes import A4, LETTER, landscape
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from vividplank.core.board import Board
from vividplank.core.exchange.paper.cutlist_pdf import canvas_for, latin
from vividplank.core.job import Job
from vividplank.core.layout.explain.chalk import BoardMarks, chalk_list, to_rule
from vividplank.core.layout.model.plan import BoardPlan, Plan
from vividplank.core.measure import TICKS_PER_MM, System, show

_MARGIN = 12 * mm
_LINE = 6.2 * mm
#: Scales a maker can measure by.
_SCALES = (2, 4, 5, 8, 10, 12, 16, 20, 25, 32, 50, 100)


def chalk_pdf(
    job: Job,
    plan: Plan,
    system: System,
    kept: Mapping[str, tuple[Board, ...]] | None = None,
    begun: Collection[str] = (),
) -> bytes:
    """The chalk list of a plan; every board begins a page. Those `begun` have none: their datum end
    is cut off, and nothing can be measured from it.
    """
    out = io.BytesIO()
    page = landscape(LETTER if job.unit == "in" else A4)
    canvas = canvas_for(out, page, f"{job.name}: chalk list")
    boards = {b.board: b for b in plan.boards}
    marked = [m for m in chalk_list(job, plan, system, kept) if m.board not in begun]
    for number, marks in enumerate(marked):
        if number:
            canvas.showPage()
        _page(canvas, page, job, boards[marks.board], marks, system)
    if not marked:
        nothing = "Every board is being cut: there is nothing to mark any more."
        canvas.setFont("Helvetica", 12)
        canvas.drawString(
            _MARGIN,
            page[1] - 2 * _MARGIN,
            nothing if plan.boards else "No board is cut in this plan.",
        )
    canvas.save()
    return out.getvalue()


def _page(
    canvas: Canvas,
    page: tuple[float, float],
    job: Job,
    plan: BoardPlan,
    marks: BoardMarks,
    system: System,
) -> None:
    width, height = page
    board = job.board(plan.board)
    low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
    room = (width - 2 * _MARGIN) / mm
    scale = next((s for s in _SCALES if board.length / TICKS_PER_MM / s <= room), _SCALES[-1])
    canvas.setFont("Helvetica-Bold", 18)
    canvas.drawString(_MARGIN, height - _MARGIN - 4 * mm, latin(board.id))
    canvas.setFont("Helvetica", 9)
    size = (
        f"{board.species}, {show(board.length, system, unit=True)} long, drawn 1 : {scale}, "
        f"face A up, datum end at the left"
    )
    canvas.drawString(_MARGIN + 30 * mm, height - _MARGIN - 4 * mm, latin(size))
    canvas.drawRightString(
        width - _MARGIN, height - _MARGIN - 4 * mm, latin(f"{job.name}: chalk list")
    )
    per = mm / (TICKS_PER_MM * scale)
    bottom = height - _MARGIN - 12 * mm - (high - low) * per
    canvas.saveState()
    canvas.translate(_MARGIN, bottom - low * per)
    _drawing(canvas, board, plan, per)
    canvas.restoreState()
    y = bottom - 10 * mm
    canvas.setFont("Helvetica", 9.5)
    for mark in marks.marks:
        if y < _MARGIN + _LINE:
            canvas.showPage()
            canvas.setFont("Helvetica-Bold", 12)
            canvas.drawString(_MARGIN, height - _MARGIN, latin(f"{board.id}, further"))
            canvas.setFont("Helvetica", 9.5)
            y = height - _MARGIN - 8 * mm
        canvas.rect(
            _MARGIN + (4 * mm if mark.kind != "crosscut" else 0), y - 0.6 * mm, 3 * mm, 3 * mm
        )
        saw = f"; saw {mark.saw}" if mark.saw else ""
        canvas.drawString(
            _MARGIN + (10 * mm if mark.kind != "crosscut" else 6 * mm), y, latin(mark.words + saw)
        )
        y -= _LINE
    sizes = (
        (to_rule(o.length, job, system), to_rule(o.mean_width, job, system)) for o in marks.offcuts
    )
    kept = ", ".join(f"{long} by {wide}" for long, wide in sizes)
    canvas.setFont("Helvetica-Bold", 9.5)
    canvas.drawString(
        _MARGIN,
        max(y, _MARGIN),
        latin(f"Keep: {kept}" if kept else "Nothing of it is worth keeping."),
    )


def _drawing(canvas: Canvas, board: Board, plan: BoardPlan, per: float) -> None:
    outline = [(s.x, s.y0) for s in board.stations] + [
        (s.x, s.y1) for s in reversed(board.stations)
    ]
    _polygon(canvas, [(x * per, y * per) for x, y in outline])
    canvas.setFillGray(0.75)
    for d in board.defects:
        canvas.rect(
            d.x0 * per, d.y0 * per, (d.x1 - d.x0) * per, (d.y1 - d.y0) * per, stroke=0, fill=1
        )
    canvas.setFillGray(0)
    for segment in plan.segments:
        for strip, blank in segment.blanks():
            region = segment.blank_region(strip, blank)
            _polygon(canvas, [(x * per, y * per) for x, y in region.corners])
            middle = (region.x0 + region.x1) / 2
            at = region.line(middle) + (region.h0 + region.h1) / 2
            words = latin(blank.name)
            font = min(
                10.0,
                (region.h1 - region.h0) * per * 0.6,
                (region.x1 - region.x0) * per / (0.6 * max(1, len(words))),
            )
            canvas.setFont("Helvetica-Bold", max(3.0, font))
            canvas.drawCentredString(middle * per, at * per - font / 3, words)
        canvas.setLineWidth(1.4)
        for x in (segment.x0, segment.x1):
            a, b = board.edges(x)
            canvas.line(x * per, a * per - 2 * mm, x * per, b * per + 2 * mm)
        canvas.setLineWidth(0.6)


def _polygon(canvas: Canvas, points: list[tuple[float, float]]) -> None:
    path = canvas.beginPath()
    path.moveTo(*points[0])
    for point in points[1:]:
        path.lineTo(*point)
    path.close()
    canvas.setLineWidth(0.6)
    canvas.drawPath(path)
