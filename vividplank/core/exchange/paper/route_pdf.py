"""Paper for a shop without a screen: a route card for each board and panel, and a setting sheet for
each machine.
"""

import io
from collections.abc import Mapping, Sequence

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.units import mm
from reportlab.lib.utils import simpleSplit
from reportlab.pdfgen.canvas import Canvas

from vividplank.core.exchange.paper.cutlist_pdf import canvas_for, latin
from vividplank.core.job import Job
from vividplank.core.measure import System
from vividplank.core.milling.bench.words import figures, setting_name
from vividplank.core.milling.days.day import Days
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.routes import Route
from vividplank.core.milling.shop.cautions import CAUTIONS
from vividplank.core.milling.shop.school import Hours

_MARGIN = 14 * mm
_LINE = 4.6 * mm


class _Page:
    """A page that goes on to the next when it is full, its heading repeated."""

    def __init__(self, canvas: Canvas, size: tuple[float, float], heading: str, small: str) -> None:
        self.canvas, self.size, self.heading, self.small = canvas, size, heading, small
        self.y = 0.0
        self.begin()

    def begin(self, more: str = "") -> None:
        width, height = self.size
        self.canvas.setFont("Helvetica-Bold", 20)
        self.canvas.drawString(_MARGIN, height - _MARGIN - 5 * mm, latin(self.heading + more))
        self.canvas.setFont("Helvetica", 9)
        self.canvas.drawRightString(width - _MARGIN, height - _MARGIN - 5 * mm, latin(self.small))
        self.y = height - _MARGIN - 15 * mm

    def room(self, lines: float) -> None:
        """Turn the page unless so many lines still fit."""
        if self.y - lines * _LINE < _MARGIN:
            self.canvas.showPage()
            self.begin(", further")

    def write(
        self, text: str, font: str = "Helvetica", size: float = 9.5, indent: float = 0.0
    ) -> None:
        width = self.size[0] - 2 * _MARGIN - indent
        for line in simpleSplit(latin(text), font, size, width):
            self.room(1)
            self.canvas.setFont(font, size)
            self.canvas.drawString(_MARGIN + indent, self.y, line)
            self.y -= _LINE * max(1.0, size / 9.5)

    def tick(self) -> None:
        self.canvas.rect(_MARGIN, self.y - 0.8 * mm, 4 * mm, 4 * mm)


def route_cards(job: Job, routes: Sequence[Route], system: System) -> bytes:
    """A card for each board and panel: its steps in order, to be ticked off."""
    out = io.BytesIO()
    size = LETTER if job.unit == "in" else A4
    canvas = canvas_for(out, size, f"{job.name}: route cards")
    for n, route in enumerate(routes):
        if n:
            canvas.showPage()
        species = next((b.species for b in job.boards if b.id == route.board), "panel")
        page = _Page(canvas, size, f"{route.board}", f"{species}; {job.name}: route card")
        for step in route.steps:
            _step(page, step, system)
    canvas.save()
    return out.getvalue()


def _step(page: _Page, step: Step, system: System) -> None:
    page.room(5)
    page.tick()
    page.write(f"{step.machine}: {step.do}", "Helvetica-Bold", 10.5, 7 * mm)
    page.write(figures(step, system), "Helvetica", 9.5, 7 * mm)
    how = [f"down: {step.down}"] if step.down else []
    how += [f"fence: {step.against}"] if step.against else []
    how += [f"{step.first} first"] if step.first else []
    if how:
        page.write("; ".join(how), "Helvetica", 9, 7 * mm)
    if step.obstacle:
        way = step.ways[0]
        mind = f"; mind: {way.danger}" if way.danger else ""
        page.write(f"! {step.obstacle}. Here: {way.do}{mind}", "Helvetica-Oblique", 9, 7 * mm)
    if step.check:
        page.write(f"check: {step.check}", "Helvetica", 9, 7 * mm)
    page.y -= _LINE * 0.5


def setting_sheets(
    job: Job, routes: Sequence[Route], days: Days, hours: Hours, system: System
) -> bytes:
    """A sheet for each machine: its settings in the order of the shop's days, the pieces of each
    with what to do.
    """
    out = io.BytesIO()
    size = LETTER if job.unit == "in" else A4
    canvas = canvas_for(out, size, f"{job.name}: setting sheets")
    steps: Mapping[str, Step] = {s.key: s for r in routes for s in r.steps}
    for n, machine in enumerate(dict.fromkeys(s.machine for s in days.setups)):
        if n:
            canvas.showPage()
        page = _Page(canvas, size, machine, f"{job.name}: setting sheet")
        for line in CAUTIONS[machine]:
            page.write(line, "Helvetica-Oblique", 8.5)
        page.y -= _LINE
        for setup in days.setups:
            if setup.machine == machine:
                listed = [steps[k] for k in setup.steps]
                page.room(4)
                page.tick()
                page.write(
                    f"day {setup.day(hours) + 1}: {setting_name(listed[0], system)}",
                    "Helvetica-Bold",
                    10.5,
                    7 * mm,
                )
                for step in listed:
                    page.write(
                        f"{step.piece or step.board}: {step.do}; {figures(step, system)}",
                        "Helvetica",
                        9,
                        7 * mm,
                    )
                page.y -= _LINE * 0.5
    canvas.save()
    return out.getvalue()
