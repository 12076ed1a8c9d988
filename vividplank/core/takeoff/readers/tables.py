"""Spreadsheets (XLSX, ODS) as the rows of a parts list."""

import io
import re
import zipfile

from vividplank.core.cutlist.headings import HEADINGS, TITLE_ROWS, headings
from vividplank.core.takeoff.model.found import Reading, Sheet, Unreadable

_MOST_ROWS = 5000
_MOST_COLUMNS = 60
#: Blanks before a tag of the table, and between one and the text in it.
_BETWEEN_CELLS = re.compile(
    rb"(?:(?<=>)\s+(?=</?(?:table|office|form):))|(</?(?:table|office):[^<>]*>)\s+(?=<)"
)


def read_workbook(content: bytes, kind: str) -> Reading:
    """The sheet that looks most like a parts list, as tab-separated text. Raises Unreadable where
    all are empty.
    """
    from python_calamine import CalamineError, CalamineWorkbook

    try:
        book = CalamineWorkbook.from_filelike(
            io.BytesIO(_without_blanks(content) if kind == "ods" else content)
        )
        sheets = [
            (name, book.get_sheet_by_name(name).to_python(skip_empty_area=True))
            for name in book.sheet_names
        ]
    except (CalamineError, ValueError, OSError, KeyError, zipfile.BadZipFile) as problem:
        raise Unreadable(f"this {kind.upper()} file cannot be read: {str(problem)[:160]}") from None
    tables = [
        (name, [[_cell(c) for c in row[:_MOST_COLUMNS]] for row in rows[:_MOST_ROWS]])
        for name, rows in sheets
        if rows
    ]
    if not tables:
        raise Unreadable(f"every sheet of this {kind.upper()} file is empty")
    name, rows = max(tables, key=lambda t: (_looks_like_parts(t[1]), len(t[1])))
    others = tuple(Sheet(n, _text(r)) for n, r in tables if n != name)
    return Reading("list", "in", table=_text(rows), sheet=name, others=others)


def _text(rows: list[list[str]]) -> str:
    return "\n".join("\t".join(row) for row in rows)


def _without_blanks(content: bytes) -> bytes:
    """An ODS without the blanks between its cells, which writers put there for people and the
    reader stumbles over.
    """
    out = io.BytesIO()
    with (
        zipfile.ZipFile(io.BytesIO(content)) as packed,
        zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as written,
    ):
        for name in packed.namelist():
            member = packed.read(name)
            written.writestr(
                name, _BETWEEN_CELLS.sub(rb"\1", member) if name == "content.xml" else member
            )
    return out.getvalue()


def _looks_like_parts(rows: list[list[str]]) -> int:
    """How many columns of a parts list the rows name in a heading row."""
    found = (headings(row, rows[i - 1] if i else None) for i, row in enumerate(rows[:TITLE_ROWS]))
    return max((len(set(h.columns) & {*HEADINGS, "size"}) for h in found if h), default=0)


def _cell(value: object) -> str:
    if isinstance(value, bool):
        return "yes" if value else ""
    if isinstance(value, float):
        return (
            str(int(value)) if value.is_integer() and abs(value) < 1e15 else repr(round(value, 6))
        )
    # A spreadsheet that took 3/4 for a date gives one; the list will refuse it by its row.
    return str(value).replace("\t", " ").replace("\r", " ").replace("\n", " ")
