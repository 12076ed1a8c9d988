"""What is cut after a piece has its size: mitred ends, tapers, outlines. Joinery itself is not
planned here.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from vividplank.core.cutlist import Part
from vividplank.core.layout.model.plan import Item
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.milling.model.step import Machine, Step
from vividplank.core.milling.route.writer import Writer
from vividplank.core.milling.shop import ways
from vividplank.core.piece import Piece

#: As much as a drawing may be off a straight line or a size.
_SLACK = TICKS_PER_MM // 2


@dataclass(frozen=True)
class Taper:
    """How wide a piece is at its two ends, and how far each edge comes in from its side: positive
    at the end of greater x.
    """

    start: int
    end: int
    low: int
    high: int

    @property
    def sides(self) -> int:
        return 2 if min(abs(self.low), abs(self.high)) > _SLACK else 1


def taper_of(part: Part) -> Taper | None:
    """The taper of an outline of four corners with square ends; None where it is something else, or
    no taper.
    """
    points = part.outline
    if len(points) != 4:
        return None
    left, right = min(x for x, _ in points), max(x for x, _ in points)
    ends = [sorted(y for x, y in points if abs(x - at) <= _SLACK) for at in (left, right)]
    if any(len(end) != 2 for end in ends):
        return None
    (low0, high0), (low1, high1) = ends
    found = Taper(high0 - low0, high1 - low1, low1 - low0, high0 - high1)
    return found if abs(found.start - found.end) > _SLACK else None


def shape(plan: Writer, piece: Piece, part: Part, items: Sequence[Item], called: str = "") -> Piece:
    """The steps after the last cut of one piece; `called` is what the items are together where they
    are one. One that is fitted is mitred once it has its measure.
    """
    who = called or items[0].name
    names = (called,) if called else tuple(f"{part.name or part.id} {i.name}" for i in items)
    marks = tuple(i.name for i in items)
    measures = (plan.milling.fitted.get(i.name, 0) for i in items if part.fitted)
    measured = next((m for m in measures if m), 0)
    length = measured or part.length
    shaped = _Shaping(plan, piece, names, marks)
    if part.is_mitred and (measured or not part.fitted):
        shaped.step(
            f"mitre-{part.id}",
            "crosscut saw",
            f"Mitre both ends of {who} at 45°",
            "the same edge for both ends, a stop for the second",
            f"{plan.say(length)} from long point to long point; opposite sides held "
            "together are equally long",
            "try the angle on two offcuts first: their corner must be square. Short ends are "
            "held by a clamp, not by fingers",
            setup="crosscut mitre",
            stock_in=length,
            stock_out=length,
        )
    taper = taper_of(part)
    if taper:
        narrow, end = min((taper.start, "datum end"), (taper.end, "far end"))
        side = "both edges" if taper.sides == 2 else "one edge"
        shaped.step(
            f"taper-{part.id}",
            "bandsaw",
            f"Saw the taper of {who}: {plan.say(taper.start)} at the datum end, "
            f"{plan.say(taper.end)} at the far end",
            f"no fence: outside the line, on {side}",
            f"a hair outside the line; {plan.say(narrow)} at the {end}",
            "after joints are cut, as long as its edges are square to each other; a tapering "
            "carrier at the table saw is the other way, its stop and hold-down first",
            setup="bandsaw freehand",
            setting=narrow,
            stock_in=max(taper.start, taper.end),
            stock_out=narrow,
        )
        shaped.step(
            f"taper-plane-{part.id}",
            "hand plane",
            f"Plane the tapered edges of {who} to the line",
            "",
            "straight under a straightedge, square to the face",
            "the saw leaves marks; plane toward the thin end, with the fibres",
            down="in the vice, thin end away from the plane",
        )
    elif part.outline and not _square(part):
        corners = " · ".join(f"{plan.say(x)}, {plan.say(y)}" for x, y in part.outline)
        shaped.step(
            f"outline-{part.id}",
            "bandsaw",
            f"Saw {who} to its outline",
            "no fence: outside the line",
            "outside the line everywhere; then plane or spokeshave to it",
            f"corners along and across from the datum corner: {corners}"
            if len(part.outline) <= 8
            else f"{len(part.outline)} points: draw it from the drawing's own outline",
            setup="bandsaw freehand",
        )
    return piece


@dataclass(frozen=True)
class _Shaping:
    """Writes the shaping of one piece down."""

    plan: Writer
    piece: Piece
    names: tuple[str, ...]
    marks: tuple[str, ...]

    def step(
        self,
        kind: str,
        machine: Machine,
        do: str,
        against: str,
        check: str,
        why: str,
        *,
        down: str = "the better face up",
        setup: str = "",
        setting: int = 0,
        stock_in: int = 0,
        stock_out: int = 0,
    ) -> None:
        plan, piece = self.plan, self.piece
        step = Step(
            f"{piece.mark}/{kind}",
            machine,
            do,
            down,
            against,
            setting,
            "none",
            (),
            stock_in,
            stock_out,
            check,
            why,
            pieces=self.names,
            marks=self.marks,
            setup=setup,
            tolerance=plan.step if machine != "bandsaw" else 2 * plan.step,
            does="shape",
        )
        found = None
        if machine == "crosscut saw":
            ways_across = ways.crosscut(plan.machines, piece.size, plan.say)
            found = plan.pick(step.key, "crosscut", ways_across)
        elif machine == "bandsaw":
            ways_along = ways.saw_out(plan.machines, piece.size, plan.say)
            found = plan.pick(step.key, "saw-out", ways_along)
        plan.on_wood(step, piece, piece, found)


def _square(part: Part) -> bool:
    """Whether the outline is the rectangle of its size after all."""
    corners = {(x, y) for x in (0, part.length) for y in (0, part.width)}
    left, low = min(x for x, _ in part.outline), min(y for _, y in part.outline)
    return len(part.outline) == 4 and all(
        any(abs(x - left - a) <= _SLACK and abs(y - low - b) <= _SLACK for a, b in corners)
        for x, y in part.outline
    )
