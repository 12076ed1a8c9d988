"""Labels for boards and offcuts, with a QR code that opens the board: PDF, on sheets of
self-adhesive labels.
"""

import io
from collections.abc import Sequence

from reportlab.lib.units import mm

from vividplank.core.board import Board
from vividplank.core.exchange.paper.cutlist_pdf import canvas_for, cut_text, latin, qr_code
from vividplank.core.measure import show

_PAGE = (210 * mm, 297 * mm)
_COLUMNS, _ROWS = 2, 7
_LEFT, _TOP, _WIDE, _HIGH, _GAP = 5 * mm, 15 * mm, 99 * mm, 38 * mm, 2 * mm


def board_labels(boards: Sequence[tuple[Board, str, str]]) -> bytes:
    """A label for each board with where it belongs and the address its code opens; a sheet that
    says so where there is none.
    """
    out = io.BytesIO()
    canvas = canvas_for(out, _PAGE, "Board labels")
    if not boards:
        canvas.setFont("Helvetica", 11)
        canvas.drawString(20 * mm, 270 * mm, "No boards in the stock room yet.")
        canvas.showPage()
    for k, (board, home, address) in enumerate(boards):
        place = k % (_COLUMNS * _ROWS)
        if k and place == 0:
            canvas.showPage()
        x = _LEFT + place % _COLUMNS * (_WIDE + _GAP)
        y = _PAGE[1] - _TOP - (place // _COLUMNS + 1) * _HIGH
        side = 30 * mm
        qr_code(canvas, address, x + _WIDE - side - 2 * mm, y + 4 * mm, side)
        room = _WIDE - side - 8 * mm
        canvas.setFont("Helvetica-Bold", 24)
        canvas.drawString(
            x + 3 * mm, y + _HIGH - 12 * mm, cut_text(board.id, "Helvetica-Bold", 24, room)
        )
        size = (
            f"{show(board.length, 'in', unit=True)} x "
            f"{show(round(board.mean_width), 'in', unit=True)}"
        )
        metric = f"{board.length / 320:.0f} x {board.mean_width / 320:.0f} mm"
        lines = [
            f"{board.species}  {board.quarter}".strip(),
            f"{size}   {metric}",
            home,
            board.note,
        ]
        for n, line in enumerate(lines):
            canvas.setFont("Helvetica-Bold" if n == 1 else "Helvetica", 8.5)
            canvas.drawString(
                x + 3 * mm,
                y + _HIGH - 17.5 * mm - n * 4.4 * mm,
                cut_text(latin(line), "Helvetica", 8.5, room),
            )
    if boards:
        canvas.showPage()
    canvas.save()
    return out.getvalue()
