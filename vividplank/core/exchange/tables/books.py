"""The books of a shop as a table of boards: board feet by category, planned and real."""

import csv
import io
from collections.abc import Iterable, Iterator

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.utils import get_column_letter

from vividplank.core.exchange.parts_list import plain_cell
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES
from vividplank.core.yields.books import BoardBooks

HEADINGS = (
    "Project",
    "Board",
    "Wood",
    "Grade",
    "Month",
    "Price",
    "Rough (bd ft)",
    *(f"{c} (bd ft)" for c in CATEGORIES),
    *(f"{c} planned (bd ft)" for c in CATEGORIES),
    "Faults found",
    "Lost, why",
)


def _rows(boards: Iterable[BoardBooks]) -> Iterator[list[str | float | int]]:
    for b in boards:
        yield [
            plain_cell(b.project_name),
            plain_cell(b.board),
            plain_cell(b.wood),
            plain_cell(b.grade),
            b.month,
            float(b.price),
            _feet(b.rough),
            *(_feet(b.real[c]) for c in CATEGORIES),
            *(_feet(b.planned[c]) for c in CATEGORIES),
            b.faults,
            plain_cell("; ".join(f"{x.piece}: {x.why}" for x in b.lost)),
        ]


def books_csv(boards: Iterable[BoardBooks]) -> str:
    """One row a board, after a row of headings."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    writer.writerows(_rows(boards))
    return out.getvalue()


def books_xlsx(boards: Iterable[BoardBooks]) -> bytes:
    """The same as a workbook."""
    book = Workbook()
    sheet = book.active
    assert sheet is not None  # a new workbook has one
    sheet.title = "Books"
    sheet.append(list(HEADINGS))
    for row in _rows(boards):
        sheet.append(row)
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for column, heading in enumerate(HEADINGS, 1):
        sheet.column_dimensions[get_column_letter(column)].width = max(9, len(heading) + 1)
    sheet.freeze_panes = "C2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _feet(cubic_ticks: int) -> float:
    return round(float(cubic_board_feet(cubic_ticks)), 4)
