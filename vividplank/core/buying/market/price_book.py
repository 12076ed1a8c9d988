"""Price books in and out as tables: a row for every wood, quarter and grade of a supplier, lengths
in inches. Finished stock has `length` or `sheet` for a quarter, and its true size.
"""

import csv
import io
import re
from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Any, TypeVar

from openpyxl import Workbook
from openpyxl.styles import Font
from pydantic import TypeAdapter, ValidationError

from vividplank.core.buying.market.population import Range
from vividplank.core.buying.market.supplier import FinishedStock, Price, Supplier
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.refusal import Refusal

_COLUMNS = (
    "Supplier",
    "Kind",
    "Wood",
    "Quarter",
    "Grade",
    "Surfacing",
    "Price",
    "Per",
    "Thickness",
    "Length least",
    "Length usual",
    "Length most",
    "Width least",
    "Width usual",
    "Width most",
    "Length step",
)
_LENGTHS = frozenset(_COLUMNS[8:])
#: What stood for price and what it is for, before prices were asked for anything but a board foot.
_OLD_PRICE = "Price a board foot"
_PRICE = TypeAdapter(Price)
_FINISHED = TypeAdapter(FinishedStock)
_SUPPLIER = TypeAdapter(Supplier)
Line = TypeVar("Line", Price, FinishedStock)
#: Rows of a price book that are read at most.
_MOST = 5000


def price_book_csv(suppliers: Iterable[Supplier]) -> str:
    """All price lines of all suppliers."""
    out = io.StringIO()
    table = csv.writer(out, lineterminator="\n")
    table.writerow(_COLUMNS)
    for row in _rows(suppliers):
        table.writerow(row)
    return out.getvalue()


def price_book_xlsx(suppliers: Iterable[Supplier]) -> bytes:
    """The same as a workbook."""
    book = Workbook()
    sheet = book.active
    assert sheet is not None
    sheet.title = "Price book"
    sheet.append(_COLUMNS)
    for cell in sheet[1]:
        cell.font = Font(bold=True)
    for row in _rows(suppliers):
        sheet.append(row)
    sheet.freeze_panes = "A2"
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _rows(suppliers: Iterable[Supplier]) -> Iterable[list[Any]]:
    for s in suppliers:
        for p in s.prices:
            lengths = (
                p.thickness,
                *(getattr(p.length, n) for n in ("least", "usual", "most")),
                *(getattr(p.width, n) for n in ("least", "usual", "most")),
                p.length_step,
            )
            yield [
                s.name,
                s.kind,
                p.species,
                p.quarter,
                p.grade,
                p.surfacing,
                float(p.asks),
                p.per,
                *(round(n / TICKS_PER_INCH, 5) for n in lengths),
            ]

        for f in s.finished:
            thick, long, wide = (
                round(n / TICKS_PER_INCH, 5) for n in (f.thickness, f.length, f.width)
            )
            sizes = (thick, long, long, long, wide, wide, wide, 0)
            yield [s.name, s.kind, f.species, f.kind, "", "", float(f.asks), "piece", *sizes]


def read_price_book(content: str | bytes, known: Sequence[Supplier]) -> list[Supplier]:
    """The suppliers a price book names, with its prices in place of those they had (and its
    finished stock, where it has any); `content` is a CSV as text, or the bytes of a workbook, of
    which the first sheet is read.

    A supplier is known by its name; a new one starts with the usual ticket rule and no trip.

    Raises
    ------
    Refusal
        Where a column is missing or a row is not a price, naming the row.
    """
    text = content if isinstance(content, str) else _first_sheet(content)
    rows = list(csv.DictReader(io.StringIO(text.removeprefix("\ufeff"))))
    if not rows:
        raise Refusal("$", "has no row; expected a heading and a row for every price")
    if len(rows) > _MOST:
        raise Refusal("$", f"has {len(rows)} rows; expected {_MOST} at most")
    for row in rows:
        if _OLD_PRICE in row:
            row.setdefault("Price", row[_OLD_PRICE])
            row.setdefault("Per", "board foot")
    missing = [c for c in _COLUMNS if c not in rows[0]]
    if missing:
        raise Refusal("$", f"has no column {missing[0]!r}")
    by_name = {s.name.casefold(): s for s in known}
    prices: dict[str, list[Price]] = {}
    finished: dict[str, list[FinishedStock]] = {}
    named: dict[str, tuple[str, str]] = {}
    for n, row in enumerate(rows, 2):
        name = (row["Supplier"] or "").strip()
        if not name:
            raise Refusal(f"row {n}", "names no supplier")
        named.setdefault(name.casefold(), (name, (row["Kind"] or "yard").strip()))
        prices.setdefault(name.casefold(), [])
        finished.setdefault(name.casefold(), [])
        if (row["Quarter"] or "").strip() in ("length", "sheet"):
            finished[name.casefold()].append(_finished(row, n))
        else:
            prices[name.casefold()].append(_price(row, n))
    found = []
    for key, lines in prices.items():
        name, kind = named[key]
        supplier = by_name.get(key)
        if supplier is None:
            id = re.sub(r"[^a-z0-9]+", "-", key).strip("-") or "supplier"
            try:
                supplier = _SUPPLIER.validate_python({"id": id, "name": name, "kind": kind})
            except ValidationError:
                raise Refusal(
                    "Kind", f"is {kind!r}; expected sawmill, yard, finished or milling"
                ) from None
        found.append(
            replace(
                supplier,
                prices=tuple(lines) or supplier.prices,
                finished=tuple(finished[key]) or supplier.finished,
            )
        )
    return found


def _first_sheet(content: bytes) -> str:
    """A workbook's first sheet as CSV."""
    from python_calamine import CalamineError, CalamineWorkbook

    try:
        rows = CalamineWorkbook.from_filelike(io.BytesIO(content)).get_sheet_by_index(0).to_python()
    except (CalamineError, ValueError, OSError, KeyError, IndexError) as problem:
        raise Refusal("$", f"is no workbook that can be read: {str(problem)[:160]}") from None
    out = io.StringIO()
    csv.writer(out, lineterminator="\n").writerows(rows[: _MOST + 2])
    return out.getvalue()


def _price(row: dict[str, str], n: int) -> Price:
    sizes = {c: _ticks(row, n, c) for c in _COLUMNS if c in _LENGTHS}
    values = {
        "species": (row["Wood"] or "").strip(),
        "quarter": (row["Quarter"] or "").strip(),
        "grade": (row["Grade"] or "").strip(),
        "asks": (row["Price"] or "").strip(),
        "per": (row["Per"] or "").strip() or "board foot",
        "surfacing": (row["Surfacing"] or "").strip(),
        "thickness": sizes["Thickness"],
        "length": Range(*(sizes[f"Length {w}"] for w in ("least", "usual", "most"))),
        "width": Range(*(sizes[f"Width {w}"] for w in ("least", "usual", "most"))),
        "length_step": sizes["Length step"],
    }
    return _read(_PRICE, values, n)


def _finished(row: dict[str, str], n: int) -> FinishedStock:
    values = {
        "species": (row["Wood"] or "").strip(),
        "kind": (row["Quarter"] or "").strip(),
        "asks": (row["Price"] or "").strip(),
        "thickness": _ticks(row, n, "Thickness"),
        "length": _ticks(row, n, "Length usual"),
        "width": _ticks(row, n, "Width usual"),
    }
    return _read(_FINISHED, values, n)


def _ticks(row: dict[str, str], n: int, column: str) -> int:
    try:
        return round(float(row[column]) * TICKS_PER_INCH)
    except (TypeError, ValueError, OverflowError):
        raise Refusal(
            f"row {n}, {column}", f"is {row[column]!r}; expected inches as a number"
        ) from None


def _read(of: TypeAdapter[Line], values: dict[str, Any], n: int) -> Line:
    try:
        return of.validate_python(values)
    except ValidationError as problem:
        first = problem.errors(include_url=False)[0]
        where = ".".join(str(p) for p in first["loc"])
        said = first["msg"].replace("Input should be", "expected")
        raise Refusal(f"row {n}, {where}", said) from None
