"""Paper: what to ask the yard for, and what is bought besides boards, as a card to take along."""

import io
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal

from reportlab.lib.pagesizes import A5
from reportlab.lib.units import mm
from reportlab.pdfbase.pdfmetrics import stringWidth
from reportlab.pdfgen.canvas import Canvas

from vividplank.core.buying.ask import Ask
from vividplank.core.buying.lengths import (
    LengthNeed,
    SheetNeed,
    length_needs,
    sheet_needs,
    usual_length,
)
from vividplank.core.buying.material import Material, cost_of
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


@dataclass(frozen=True)
class _Section:
    """A heading with what stands beside it at the right, and lines to tick."""

    heading: str
    beside: str
    lines: tuple[str, ...]


def money(amount: Decimal, currency: str) -> str:
    """With its currency by ISO 4217, where the workshop has named one."""
    return f"{amount:.2f} {currency}".rstrip()


def shopping_pdf(
    job: Job,
    asks: Sequence[Ask],
    system: System,
    materials: Sequence[Material] = (),
    currency: str = "",
) -> bytes:
    """A card of every wood and quarter and of what is bought besides, each line with a box to
    tick.
    """
    out = io.BytesIO()
    canvas = canvas_for(out, A5, f"{job.name}: what to ask for")
    width, height = A5
    y = height - _MARGIN - 5 * mm
    canvas.setFont(_BOLD, 14)
    canvas.drawString(_MARGIN, y, latin(f"{job.name}: what to ask for"))
    y -= 2 * _LINE
    sections = [_wood_section(job, ask, system) for ask in asks]
    besides = _besides(job, materials, system, currency)
    for section in sections + ([besides] if besides.lines else []):
        wrapped = [list(_wrapped(line, width - 2 * _MARGIN - 6 * mm)) for line in section.lines]
        if y - (min(3, sum(len(w) for w in wrapped)) + 2) * _LINE < _MARGIN:
            y = _next_page(canvas)
        canvas.setFont(_BOLD, 12)
        canvas.drawString(_MARGIN, y, latin(section.heading))
        canvas.setFont(_FONT, 9)
        canvas.drawRightString(width - _MARGIN, y, latin(section.beside))
        y -= _LINE
        for texts in wrapped:
            if y - len(texts) * _LINE < _MARGIN:
                y = _next_page(canvas)
                canvas.setFont(_FONT, 9)
            canvas.rect(_MARGIN, y - 0.6 * mm, 3 * mm, 3 * mm)
            for text in texts:
                canvas.drawString(_MARGIN + 6 * mm, y, latin(text))
                y -= _LINE
        y -= _LINE / 2
    if not sections and not besides.lines:
        canvas.setFont(_FONT, 11)
        canvas.drawString(_MARGIN, y, "The list has no part that is bought.")
    canvas.save()
    return out.getvalue()


def _next_page(canvas: Canvas) -> float:
    canvas.showPage()
    return float(A5[1] - _MARGIN - 5 * mm)


def _wood_section(job: Job, ask: Ask, system: System) -> _Section:
    feet = f"{wood(ask.blanks, system)} of blanks, {wood(ask.thumb, system)} by thumb"
    heading = f"{ask.species} {ask.quarter or 'built up'}"
    return _Section(heading, feet, tuple(_lines(job, ask, system)))


def _besides(job: Job, materials: Sequence[Material], system: System, currency: str) -> _Section:
    """Sheets and lengths as the list asks for them, where no line of the materials names them."""
    kinds = {m.kind for m in materials}
    lines: list[str] = []
    if "sheets" not in kinds:
        lines += [_sheets(n, system) for n in sheet_needs(job)]
    if "lengths" not in kinds:
        lines += [_lengths(n, system) for n in length_needs(job, usual_length(job))]
    lines += [
        f"{m.count:g} {m.name}"
        + (f", {money(m.each, currency)} each: {money(m.cost, currency)}" if m.each else "")
        + (f" ({m.note})" if m.note else "")
        for m in materials
    ]
    cost = cost_of(materials)
    beside = f"{money(cost, currency)} in all" if cost else ""
    return _Section("Besides boards", beside, tuple(lines))


def _sheets(need: SheetNeed, system: System) -> str:
    many = "1 sheet" if need.sheets == 1 else f"{need.sheets} sheets"
    long, wide = (show(n, system) for n in need.sheet)
    thick = show(need.thickness, system, unit=True)
    return f"{many} of {need.species} {thick} thick, {long} x {wide}: {', '.join(need.parts)}"


def _lengths(need: LengthNeed, system: System) -> str:
    many = "1 length" if need.lengths == 1 else f"{need.lengths} lengths"
    section = f"{show(need.width, system)} x {show(need.thickness, system, unit=True)}"
    of = show(need.stock_length, system, unit=True)
    return f"{many} of {need.species} {section}, {of} long: {', '.join(need.parts)}"


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
