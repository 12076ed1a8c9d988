"""What is cut after a piece has its size: mitred ends, tapers, outlines. Joinery itself is not
planned here.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from vividplank.core.cutlist import Part
from vividplank.core.layout.model.plan import Item
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.planner import Planner
from vividplank.core.milling.route.writer import Stock

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


def shape(
    planner: Planner, stock: Stock, part: Part, items: Sequence[Item], called: str = ""
) -> None:
    """The steps after the last cut of some pieces of one part; `called` is what they are together
    where they are one.
    """
    who = called or " and ".join(i.name for i in items)
    names = (called,) if called else tuple(f"{part.name or part.id} {i.name}" for i in items)
    marks = tuple(i.name for i in items)
    last = stock.last
    measured = (
        [planner.milling.fitted[i.name] for i in items if i.name in planner.milling.fitted]
        if part.fitted
        else []
    )
    length = min(measured, default=part.length)
    if part.is_mitred and (
        measured or not part.fitted
    ):  # one that waits for its measure is mitred as it is cut to the work
        last = planner.write(
            Step(
                f"{stock.name}/mitre-{part.id}",
                "crosscut saw",
                f"Mitre both ends of {who} at 45°",
                "the better face up",
                "the same edge for both ends, a stop for the second",
                0,
                "none",
                (),
                length,
                length,
                f"{planner.say(length)} from long point to long point; opposite sides held "
                f"together are equally long",
                "try the angle on two offcuts first: their corner must be square. Short ends are "
                "held by a clamp, not by "
                "fingers",
                pieces=names,
                marks=marks,
                setup="crosscut mitre",
                after=(last,),
                tolerance=planner.step,
            ),
            stock,
        )
    taper = taper_of(part)
    if taper:
        narrow, end = min((taper.start, "datum end"), (taper.end, "far end"))
        side = "both edges" if taper.sides == 2 else "one edge"
        sawn = planner.write(
            Step(
                f"{stock.name}/taper-{part.id}",
                "bandsaw",
                f"Saw the taper of {who}: {planner.say(taper.start)} at the datum end, "
                f"{planner.say(taper.end)} at the far end",
                "the better face up",
                f"no fence: outside the line, on {side}",
                narrow,
                "none",
                (),
                max(taper.start, taper.end),
                narrow,
                f"a hair outside the line; {planner.say(narrow)} at the {end}",
                "after joints are cut, as long as its edges are square to each other; a tapering "
                "carrier at the table saw is "
                "the other way, its stop and hold-down first",
                pieces=names,
                marks=marks,
                setup="bandsaw freehand",
                after=(last,),
                tolerance=2 * planner.step,
            ),
            stock,
        )
        planner.write(
            Step(
                f"{stock.name}/taper-plane-{part.id}",
                "hand plane",
                f"Plane the tapered edges of {who} to the line",
                "in the vice, thin end away from the plane",
                "",
                0,
                "none",
                (),
                0,
                0,
                "straight under a straightedge, square to the face",
                "the saw leaves marks; plane toward the thin end, with the fibres",
                pieces=names,
                marks=marks,
                after=(sawn,),
                tolerance=planner.step,
            ),
            stock,
        )
    elif part.outline and not _square(part):
        corners = " · ".join(f"{planner.say(x)}, {planner.say(y)}" for x, y in part.outline)
        planner.write(
            Step(
                f"{stock.name}/outline-{part.id}",
                "bandsaw",
                f"Saw {who} to its outline",
                "the better face up",
                "no fence: outside the line",
                0,
                "none",
                (),
                0,
                0,
                "outside the line everywhere; then plane or spokeshave to it",
                f"corners along and across from the datum corner: {corners}"
                if len(part.outline) <= 8
                else f"{len(part.outline)} points: draw it from the drawing's own outline",
                pieces=names,
                marks=marks,
                setup="bandsaw freehand",
                after=(last,),
                tolerance=2 * planner.step,
            ),
            stock,
        )


def _square(part: Part) -> bool:
    """Whether the outline is the rectangle of its size after all."""
    corners = {(x, y) for x in (0, part.length) for y in (0, part.width)}
    left, low = min(x for x, _ in part.outline), min(y for _, y in part.outline)
    return len(part.outline) == 4 and all(
        any(abs(x - left - a) <= _SLACK and abs(y - low - b) <= _SLACK for a, b in corners)
        for x, y in part.outline
    )
