"""Paper: the cut list with a small drawing of each part, and labels for the parts with a code that
opens them.
"""

import io
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import segno
from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from vividplank.core.cutlist import Part
from vividplank.core.cutlist.rough import rough_size
from vividplank.core.job import Job
from vividplank.core.measure import System, Unit, show

_FACES = {"clear-two": "two faces clear", "clear-one": "one face clear", "sound": "sound"}
_MARGIN = 14 * mm
_ROW = 15 * mm


@dataclass(frozen=True)
class LabelSheet:
    """Labels on a sheet of paper, all in mm: how many across and down, their size, the margins and
    gaps.
    """

    columns: int
    rows: int
    width: float
    height: float
    left: float
    top: float
    gap_x: float
    gap_y: float


#: Starting values on the paper of each unit: A4, and letter.
USUAL_LABELS: dict[Unit, LabelSheet] = {
    "mm": LabelSheet(3, 8, 63.5, 33.9, 7.2, 13.0, 2.5, 0.0),
    "in": LabelSheet(3, 10, 66.7, 25.4, 4.8, 12.7, 3.1, 0.0),
}


class LabelTrouble(ValueError):
    """A sheet of labels that does not go on its paper."""


def cutlist_pdf(job: Job, system: System) -> bytes:
    """The cut list by wood and thickness, thickest first; finished sizes large, rough sizes
    beside.
    """
    page = LETTER if job.unit == "in" else A4
    out = io.BytesIO()
    canvas = canvas_for(out, page, f"{job.name}: cut list")
    width, height = page
    y, number = 0.0, 0

    def new_page() -> float:
        nonlocal number
        if number:
            canvas.showPage()
        number += 1
        canvas.setFont("Helvetica-Bold", 15)
        canvas.drawString(_MARGIN, height - _MARGIN, latin(job.name))
        canvas.setFont("Helvetica", 8)
        canvas.drawRightString(width - _MARGIN, height - _MARGIN, f"cut list, page {number}")
        return float(height - _MARGIN - 10 * mm)

    y = new_page()
    for wood, thickness, parts in _groups(job):
        if y < _MARGIN + 2 * _ROW:
            y = new_page()
        canvas.setFont("Helvetica-Bold", 11)
        canvas.drawString(_MARGIN, y, latin(f"{wood}, {show(thickness, system, unit=True)}"))
        canvas.setLineWidth(1.2)
        canvas.line(_MARGIN, y - 2 * mm, width - _MARGIN, y - 2 * mm)
        y -= 5 * mm
        for part in parts:
            if y < _MARGIN + _ROW:
                y = new_page()
            _row(canvas, part, job, system, y, width)
            y -= _ROW
        y -= 3 * mm
    if not job.parts:
        canvas.setFont("Helvetica", 10)
        canvas.drawString(_MARGIN, y, "There are no parts on the list.")
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def labels_pdf(
    job: Job, system: System, sheet: LabelSheet, address: Callable[[Part], str], skip: int = 0
) -> bytes:
    """One label a piece with mark, name, size, wood and a code of its `address`; `skip` labels are
    used up already.

    Raises LabelTrouble where the labels do not fit on the paper.
    """
    page = LETTER if job.unit == "in" else A4
    if (sheet.left + sheet.columns * sheet.width + (sheet.columns - 1) * sheet.gap_x) * mm > page[
        0
    ] + 1 or (sheet.top + sheet.rows * sheet.height + (sheet.rows - 1) * sheet.gap_y) * mm > page[
        1
    ] + 1:
        raise LabelTrouble(
            f"{sheet.columns} by {sheet.rows} labels of {sheet.width:g} by {sheet.height:g} mm "
            f"do not go on a sheet of "
            f"{page[0] / mm:.0f} by {page[1] / mm:.0f} mm; expected fewer or smaller ones"
        )
    out = io.BytesIO()
    canvas = canvas_for(out, page, f"{job.name}: labels")
    per_page = sheet.columns * sheet.rows
    pieces = [(p, n) for p in job.parts for n in range(1, p.quantity + 1)]
    for at, (part, n) in enumerate(pieces, skip):
        if at != skip and at % per_page == 0:
            canvas.showPage()
        column, row = at % per_page % sheet.columns, at % per_page // sheet.columns
        x = (sheet.left + column * (sheet.width + sheet.gap_x)) * mm
        y = page[1] - (sheet.top + (row + 1) * sheet.height + row * sheet.gap_y) * mm
        _label(canvas, part, n, system, (x, y, sheet.width * mm, sheet.height * mm), address(part))
    canvas.showPage()
    canvas.save()
    return out.getvalue()


def canvas_for(out: io.BytesIO, page: tuple[float, float], title: str) -> Any:
    canvas = Canvas(out, pagesize=page, invariant=1)
    canvas.setTitle(latin(title))
    return canvas


def _groups(job: Job) -> list[tuple[str, int, list[Part]]]:
    groups: dict[tuple[str, int], list[Part]] = {}
    for p in job.parts:
        groups.setdefault((p.species, p.thickness), []).append(p)
    ordered = sorted(groups.items(), key=lambda g: (g[0][0].casefold(), -g[0][1]))
    return [(wood, t, parts) for (wood, t), parts in ordered]


def _row(canvas: Any, p: Part, job: Job, system: System, y: float, width: float) -> None:
    canvas.rect(_MARGIN, y - 6 * mm, 4 * mm, 4 * mm)  # to tick off at the bench
    _small_drawing(canvas, p, _MARGIN + 7 * mm, y - _ROW + 4 * mm, 34 * mm, _ROW - 5 * mm)
    x = _MARGIN + 46 * mm
    canvas.setFont("Helvetica-Bold", 11)
    canvas.drawString(x, y - 5 * mm, latin(f"{p.quantity} x {p.id}  {p.name}"))
    canvas.setFont("Helvetica", 8)
    told = [_FACES[p.faces]] if p.stock == "board" else [p.stock]
    told += [
        word
        for word, on in (
            ("fit to the work, hold long", p.fitted),
            ("resawn", p.resawn),
            (f"run {p.run}", p.run),
            (f"{p.layers} layers", p.layers > 1),
            (f"book-matched {p.match}", p.match),
            (f"one board: {p.same_board}", p.same_board),
            (f"out of {p.from_board}", p.from_board),
            (f"{p.figure} figure", p.figure),
            (p.joint, p.joint),
        )
        if on
    ]
    if p.panel:
        told.append(
            f"staves {show(p.panel.stave_min, system)} to "
            f"{show(p.panel.stave_max, system, unit=True)}"
        )
    canvas.drawString(x, y - 9 * mm, latin(", ".join(told)))
    if p.note:
        canvas.drawString(
            x, y - 12.5 * mm, latin(cut_text(p.note, "Helvetica", 8, width - x - _MARGIN))
        )
    canvas.setFont("Helvetica-Bold", 12)
    finished = " x ".join(show(t, system) for t in (p.length, p.width, p.thickness))
    canvas.drawRightString(width - _MARGIN, y - 5 * mm, finished)
    canvas.setFont("Helvetica", 8)
    canvas.drawRightString(
        width - _MARGIN,
        y - 9 * mm,
        "rough " + " x ".join(show(t, system) for t in rough_size(p, job.shop)),
    )
    canvas.setLineWidth(0.3)
    canvas.line(_MARGIN, y - _ROW + 1.5 * mm, width - _MARGIN, y - _ROW + 1.5 * mm)


def _small_drawing(canvas: Any, p: Part, x: float, y: float, w: float, h: float) -> None:
    """The part to scale in its own box, with an arrow along the grain."""
    scale = min(w / p.length, h / p.width)
    across, up = p.length * scale, max(p.width * scale, 0.8)
    y += (h - up) / 2
    canvas.setLineWidth(0.8)
    if p.outline:
        path = canvas.beginPath()
        for k, (px, py) in enumerate(p.outline):
            (path.moveTo if k == 0 else path.lineTo)(x + px * scale, y + py * scale)
        path.close()
        canvas.drawPath(path)
    else:
        canvas.rect(x, y, across, up)
    if up > 3 * mm:
        middle = y + up / 2
        canvas.setLineWidth(0.4)
        canvas.line(x + across * 0.2, middle, x + across * 0.8, middle)
        canvas.line(x + across * 0.8, middle, x + across * 0.8 - 1.5 * mm, middle + 0.8 * mm)
        canvas.line(x + across * 0.8, middle, x + across * 0.8 - 1.5 * mm, middle - 0.8 * mm)


def _label(
    canvas: Any,
    p: Part,
    n: int,
    system: System,
    box: tuple[float, float, float, float],
    address: str,
) -> None:
    x, y, w, h = box
    side = min(h - 6 * mm, w * 0.36)
    qr_code(canvas, address, x + w - side - 2 * mm, y + (h - side) / 2, side)
    room = w - side - 7 * mm
    canvas.setFont("Helvetica-Bold", 20)
    canvas.drawString(x + 3 * mm, y + h - 9 * mm, latin(cut_text(p.id, "Helvetica-Bold", 20, room)))
    canvas.setFont("Helvetica", 8)
    canvas.drawString(x + 3 * mm, y + h - 13.5 * mm, latin(cut_text(p.name, "Helvetica", 8, room)))
    canvas.drawString(
        x + 3 * mm,
        y + h - 17 * mm,
        latin(cut_text(f"{n} of {p.quantity}, {p.species}", "Helvetica", 8, room)),
    )
    canvas.setFont("Helvetica-Bold", 9)
    size = " x ".join(show(t, system) for t in (p.length, p.width, p.thickness))
    canvas.drawString(x + 3 * mm, y + 4 * mm, latin(cut_text(size, "Helvetica-Bold", 9, room)))


def qr_code(canvas: Any, address: str, x: float, y: float, side: float) -> None:
    """A QR code as squares, its quiet zone included."""
    matrix = list(segno.make(address, error="m", micro=False).matrix_iter(border=2))
    step = side / len(matrix)
    for r, line in enumerate(matrix):
        for c, dark in enumerate(line):
            if dark:
                canvas.rect(
                    x + c * step,
                    y + side - (r + 1) * step,
                    step * 1.02,
                    step * 1.02,
                    stroke=0,
                    fill=1,
                )


def cut_text(text: str, font: str, size: float, room: float) -> str:
    while text and stringWidth(latin(text), font, size) > room:
        text = text[:-1]
    return text


def latin(text: str) -> str:
    """What the fonts every PDF reader has can write."""
    return text.encode("latin-1", "replace").decode("latin-1")
