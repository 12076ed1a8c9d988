"""Workbooks: the sheet that is a parts list is found among others, whatever its language and
place.
"""

import io

import pytest
from openpyxl import Workbook

from vividplank.core.exchange.parts_list import read_parts
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff import Settings, read

Row = list[str | int | float | None]


def workbook(sheets: dict[str, list[Row]]) -> bytes:
    book = Workbook()
    for k, (name, rows) in enumerate(sheets.items()):
        sheet = book.active if k == 0 else book.create_sheet()
        assert sheet is not None
        sheet.title = name
        for row in rows:
            sheet.append(row)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


@pytest.mark.parametrize("above", [0, 3, 20])
def test_the_parts_list_is_found_among_longer_sheets(above: int) -> None:
    prices: list[Row] = [
        ["Eintrag", "Preis", "Ort"],
        *([f"Posten {k}", 3.5 * k, "Halle"] for k in range(80)),
    ]
    blank: list[Row] = [["Lesesaal"]] + [["Blatt 3", k] for k in range(above)]
    parts: list[Row] = [
        ["Bauteil", "Anzahl", "Holz", "Dicke (mm)", "Breite", "Länge"],
        ["Seite", 2, "Esche", 19, 286, 762],
    ]
    reading, _ = read(
        workbook({"Preise": prices, "Liste": [*blank, *parts]}), "lesesaal.xlsx", Settings()
    )
    found = read_parts(reading.table, "mm")
    assert [
        (p.name, p.quantity, p.species, p.length, p.width, p.thickness) for p in found.parts
    ] == [("Seite", 2, "Esche", 762 * TICKS_PER_MM, 286 * TICKS_PER_MM, 19 * TICKS_PER_MM)]
    assert (
        found.refused == ()
        and reading.sheet == "Liste"
        and [o.name for o in reading.others] == ["Preise"]
    )
