"""A plan as DXF, true to size: boards one above the other, with their faults, cuts and pieces on
layers of their own.
"""

import io
from collections.abc import Sequence

from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment

from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM

#: Layer and its colour in the format's own index.
_LAYERS = {"board": 8, "fault": 30, "piece": 7, "cut": 1, "name": 5}


def plan_dxf(job: Job, plan: Plan) -> bytes:
    """All boards that are cut, in the project's unit; the datum end of every board is at x = 0."""
    document: Drawing = Drawing.new("R2010")
    per = TICKS_PER_MM if job.unit == "mm" else TICKS_PER_INCH
    document.header["$INSUNITS"] = 4 if job.unit == "mm" else 1
    document.header["$MEASUREMENT"] = 1 if job.unit == "mm" else 0
    for name, colour in _LAYERS.items():
        document.layers.add(name, color=colour)
    space = document.modelspace()
    base = 0.0

    def ring(points: Sequence[tuple[float, float]], layer: str) -> None:
        space.add_lwpolyline(
            [(x / per, base + y / per) for x, y in points], close=True, dxfattribs={"layer": layer}
        )

    def words(text: str, x: float, y: float, height: float) -> None:
        placed = space.add_text(text, height=height, dxfattribs={"layer": "name"})
        placed.set_placement((x / per, base + y / per), align=TextEntityAlignment.MIDDLE_CENTER)

    for cut in plan.boards:
        board = job.board(cut.board)
        low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
        base -= low / per
        ring(
            [(s.x, s.y0) for s in board.stations] + [(s.x, s.y1) for s in reversed(board.stations)],
            "board",
        )
        for d in board.defects:
            box = ((d.x0, d.y0), (d.x1, d.y0), (d.x1, d.y1), (d.x0, d.y1))
            ring(d.points if d.shape == "outline" else box, "fault")
        for segment in cut.segments:
            for x in (segment.x0, segment.x1):
                a, b = board.edges(x)
                space.add_line(
                    (x / per, base + a / per),
                    (x / per, base + b / per),
                    dxfattribs={"layer": "cut"},
                )
            for strip, blank in segment.blanks():
                region = segment.blank_region(strip, blank)
                ring(region.corners, "piece")
                middle = (region.x0 + region.x1) / 2
                at = region.line(middle) + (region.h0 + region.h1) / 2
                words(blank.name, middle, at, (region.h1 - region.h0) / per / 4)
        words(board.id, board.length / 2, high + (high - low) / 6, (high - low) / per / 6)
        base += (high / per) + (high - low) / per / 2
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8", "replace")
