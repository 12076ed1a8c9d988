"""Paper: what to ask the yard for, as a card to take along."""

import io
from collections.abc import Iterator, Sequence

from reportlab.lib.pagesizes import A5
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth

from vividplank.core.buying.ask import Ask
from vividplank.core.exchange.paper.cutlist_pdf import canvas_for, latin
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, System, show

_MARGIN = 10 * mm
_LINE = 5.4 * mm
_FONT, _BOLD = "Helvetica", "Helvetica-Bold"
#: Cubic metres in a board foot.
_CUBIC_METRES = 144 * (TICKS_PER_INCH / TICKS_PER_MM) ** 3 / 1e9
_TOGETHER = {
    "run": "end to end out of one board",
    "match": "opened like a book out of one thick board",
    "same": "out of one board",
}


def wood(feet: float, system: System) -> str:
    """Board feet, or cubic metres where the reader is metric."""
    if system in ("mm", "cm", "m"):
        return f"{feet * _CUBIC_METRES:.3f} m³"
    return f"{feet:.1f} bd ft"


def shopping_pdf(job: Job, asks: Sequence[Ask], system: System) -> bytes:
    """A card of every wood and quarter, each line with a box to tick."""
    out = io.BytesIO()
    canvas = canvas_for(out, A5, f"{job.name}: what to ask for")
    width, height = A5
    y = height - _MARGIN - 5 * mm
    canvas.setFont(_BOLD, 14)
    canvas.drawString(_MARGIN, y, latin(f"{job.name}: what to ask for"))
    y -= 2 * _LINE
    for ask in asks:
        lines = list(_lines(job, ask, system))
        if y - (len(lines) + 2) * _LINE < _MARGIN:
            canvas.showPage()
            y = height - _MARGIN - 5 * mm
        canvas.setFont(_BOLD, 12)
        canvas.drawString(_MARGIN, y, latin(f"{ask.species} {ask.quarter or 'built up'}"))
        canvas.setFont(_FONT, 9)
        feet = f"{wood(ask.blanks, system)} of blanks, {wood(ask.thumb, system)} by thumb"
        canvas.drawRightString(width - _MARGIN, y, latin(feet))
        y -= _LINE
        for line in lines:
            canvas.rect(_MARGIN, y - 0.6 * mm, 3 * mm, 3 * mm)
            for text in _wrapped(line, width - 2 * _MARGIN - 6 * mm):
                canvas.drawString(_MARGIN + 6 * mm, y, latin(text))
                y -= _LINE
        y -= _LINE / 2
    if not asks:
        canvas.setFont(_FONT, 11)
        canvas.drawString(_MARGIN, y, "The list has no part that is cut from boards.")
    canvas.save()
    return out.getvalue()


def _lines(job: Job, ask: Ask, system: System) -> Iterator[str]:
    step = TICKS_PER_MM if system in ("mm", "cm", "m") else TICKS_PER_INCH // 16

    def length(ticks: int) -> str:
        return show(-(-ticks // step) * step, system, unit=True)

    def names(parts: Sequence[str]) -> str:
        return ", ".join(dict.fromkeys(job.part(p).name or p for p in parts))

    for n in ask.lengths:
        many = "1 piece" if n.pieces == 1 else f"{n.pieces} pieces"
        clear = f"clear up to {length(n.length)} long and {length(n.width)} wide"
        yield f"{many}, {clear}: {names(n.parts)}"
    for one in ask.one_board:
        much = f", {length(one.length)} of it" if one.length else ""
        yield f"{names(one.parts)}: {_TOGETHER[one.why]}{much}"
    for s in ask.staves:
        yield f"{names([s.part])} is glued up: boards from {length(s.least)} wide will do"
    if ask.resaw:
        yield f"{names(ask.resaw)}: two come out of one thickness resawn"
    if ask.sound:
        yield f"{ask.sound} of the pieces may have tight knots and sapwood"


def _wrapped(line: str, room: float) -> Iterator[str]:
    text = ""
    for word in line.split():
        longer = f"{text} {word}".strip()
        if text and stringWidth(latin(longer), _FONT, 9) > room:
            yield text
            longer = word
        text = longer
    yield text
