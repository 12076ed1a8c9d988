"""Parts as outlines in a DXF, true to size, one layer a wood and thickness."""

import io
import re

from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment

from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, System, show


def outlines_dxf(job: Job, system: System) -> bytes:
    """Each part once, one above the other, its mark, count and name written in it; in the project's
    unit.
    """
    document: Drawing = Drawing.new("R2010")
    per = TICKS_PER_MM if job.unit == "mm" else TICKS_PER_INCH
    document.header["$INSUNITS"] = 4 if job.unit == "mm" else 1
    document.header["$MEASUREMENT"] = 1 if job.unit == "mm" else 0
    space = document.modelspace()
    y = 0.0
    for part in job.parts:
        layer = _layer(f"{part.species} {show(part.thickness, system, unit=True)}")
        if layer not in document.layers:
            document.layers.add(layer)
        width, height = part.length / per, part.width / per
        ring = [(x / per, v / per) for x, v in part.outline] or [
            (0.0, 0.0),
            (width, 0.0),
            (width, height),
            (0.0, height),
        ]
        space.add_lwpolyline(
            [(px, y + py) for px, py in ring], close=True, dxfattribs={"layer": layer}
        )
        words = f"{part.quantity}x {part.name}, t {show(part.thickness, system, unit=True)}"
        text = space.add_text(
            words, height=min(height / 4, width / (len(words) + 1)), dxfattribs={"layer": layer}
        )
        text.set_placement((width / 2, y + height / 2), align=TextEntityAlignment.MIDDLE_CENTER)
        y += height * 1.25
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode("utf-8", "replace")


def _layer(name: str) -> str:
    """Names of layers hold no slashes or quotes."""
    return re.sub(r"[<>/\\\":;?*|=‘’,`]", "-", name)[:200]
