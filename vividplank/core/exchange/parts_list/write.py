"""Parts lists as CSV, that a spreadsheet opens without running anything in them."""

import csv
import io
import re

from vividplank.core.cutlist import Part
from vividplank.core.cutlist.headings import HEADINGS
from vividplank.core.measure import System, show

#: What a spreadsheet may run as a formula: a sign at the start, whatever blanks stand before it.
_RUNS = re.compile(r"\s*[=+\-@]|[\t\r']")


def write_parts(parts: tuple[Part, ...], system: System) -> str:
    """The list as CSV; reading it in the same system gives the same parts."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    for p in parts:
        stave = (
            (show(p.panel.stave_min, system), show(p.panel.stave_max, system))
            if p.panel
            else ("", "")
        )
        sizes = (show(p.length, system), show(p.width, system), show(p.thickness, system))
        edged = (
            (show(p.edging.thickness, system), p.edging.long_edges, p.edging.ends)
            if p.edging
            else ("", "", "")
        )
        cells = (
            p.id,
            p.name,
            p.quantity,
            *sizes,
            p.species,
            p.faces,
            p.run,
            *stave,
            p.note,
            p.stock,
            p.grain,
            "yes" if p.fitted else "",
            "yes" if p.resawn else "",
            p.layers,
            p.match,
            p.same_board,
            p.figure,
            *edged,
            p.joint,
            show(p.joint_length, system) if p.joint_length else "",
            p.from_board,
        )
        writer.writerow([plain_cell(str(c)) for c in cells])
    return out.getvalue()


def plain_cell(cell: str) -> str:
    """A cell that a spreadsheet would run as a formula gets an apostrophe, which reading takes
    off.
    """
    return "'" + cell if _RUNS.match(cell) else cell


def taken_off(cell: str) -> str:
    """A cell without the apostrophe that `plain_cell` put before it."""
    return cell[1:] if cell.startswith("'") and _RUNS.match(cell[1:]) else cell
