"""The cut list as a workbook: lengths as numbers in the project's unit, one row a part."""

import io

from openpyxl import Workbook
from openpyxl.styles import Alignment, Font
from openpyxl.utils import get_column_letter

from vividplank.core.cutlist.rough import rough_size
from vividplank.core.exchange.parts_list import plain_cell
from vividplank.core.job import Job
from vividplank.core.measure import System, show, to_number

_HEADINGS = (
    "Mark",
    "Part",
    "Quantity",
    "Length",
    "Width",
    "Thickness",
    "Wood",
    "Faces",
    "Stock",
    "Rough length",
    "Rough width",
    "Rough thickness",
    "Run",
    "Stave min",
    "Stave max",
    "Layers",
    "Joint",
    "As written",
    "Note",
)
_LENGTHS = {
    "Length",
    "Width",
    "Thickness",
    "Rough length",
    "Rough width",
    "Rough thickness",
    "Stave min",
    "Stave max",
}


def cutlist_xlsx(job: Job, system: System) -> bytes:
    """Readable back by the reader of parts lists; the unit stands in the headings."""
    book = Workbook()
    sheet = book.active
    assert sheet is not None  # a new workbook has one
    sheet.title = "Cut list"
    unit = job.unit
    sheet.append([f"{h} ({unit})" if h in _LENGTHS else h for h in _HEADINGS])
    for p in job.parts:
        rough = rough_size(p, job.shop)
        stave = (
            (to_number(p.panel.stave_min, unit), to_number(p.panel.stave_max, unit))
            if p.panel
            else (None, None)
        )
        written = " × ".join(show(t, system) for t in (p.length, p.width, p.thickness))
        sheet.append(
            [
                plain_cell(p.id),
                plain_cell(p.name),
                p.quantity,
                *(to_number(t, unit) for t in (p.length, p.width, p.thickness)),
                plain_cell(p.species),
                p.faces,
                p.stock,
                *(to_number(t, unit) for t in rough),
                plain_cell(p.run) or None,
                *stave,
                p.layers,
                plain_cell(p.joint) or None,
                written,
                plain_cell(p.note) or None,
            ]
        )
    for cell in sheet[1]:
        cell.font = Font(bold=True)
        cell.alignment = Alignment(wrap_text=True, vertical="top")
    for at, heading in enumerate(_HEADINGS, 1):
        sheet.column_dimensions[get_column_letter(at)].width = {
            "Part": 24,
            "As written": 24,
            "Note": 30,
        }.get(heading, 11)
    sheet.freeze_panes = "C2"
    sheet.page_setup.orientation = "landscape"
    sheet.page_setup.fitToWidth, sheet.page_setup.fitToHeight = 1, 0
    sheet.sheet_properties.pageSetUpPr.fitToPage = True
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()
