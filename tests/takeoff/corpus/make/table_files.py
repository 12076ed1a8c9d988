"""Lists by xlsxwriter, openpyxl, pandas, odfpy, tabulate, LibreOffice and Gnumeric, and as people
type them.
"""

import csv
import io
import subprocess
from pathlib import Path

import openpyxl
import pandas
import xlsxwriter
from corpus import Row, Writer
from odf.opendocument import OpenDocumentSpreadsheet
from odf.table import Table, TableCell, TableRow
from odf.text import P
from tabulate import tabulate

w = Writer("tables")
ROWS: list[Row] = [
    ("Seat rail", 2, 1118, 82, 21),
    ("Leg", 4, 430, 45, 45),
    ("Slat", 7, 380, 60, 12),
]
IN = 25.4


def as_typed(
    name: str,
    text: str,
    rows: list[Row] = ROWS,
    unit: str = "",
    says: str = "",
    encoding: str = "utf-8",
) -> None:
    (w.folder / name).write_bytes(text.encode(encoding))
    w.holds(name, rows, unit, says)


def workbooks() -> None:
    book = xlsxwriter.Workbook(w.path("xlsxwriter.xlsx"))
    sheet = book.add_worksheet("Parts")
    bold = book.add_format({"bold": True, "text_wrap": True})
    for k, head in enumerate(
        (
            "Description",
            "Quantity",
            "Finished\nlength in",
            "Finished\nwidth in",
            "Finished\nthickness in",
            "Wood",
        )
    ):
        sheet.write(0, k, head, bold)
    fraction = book.add_format({"num_format": "# ??/16"})
    inches = [
        ("Seat rail", 2, 44, 3.25, 0.8125),
        ("Leg", 4, 17, 1.75, 1.75),
        ("Slat", 7, 15, 2.375, 0.5),
    ]
    for n, (name, many, *sizes) in enumerate(inches, 1):
        sheet.write_row(n, 0, [name, many])
        for k, size in enumerate(sizes):
            sheet.write_number(n, 2 + k, size, fraction)
        sheet.write(n, 5, "white oak")
    book.close()
    w.holds(
        "xlsxwriter.xlsx",
        [(n, m, a * IN, b * IN, c * IN) for n, m, a, b, c in inches],
        says="numbers shown as fractions, headings in two lines",
    )
    made = openpyxl.Workbook()
    page = made.active
    page.title = "Liste de débit"
    page.append(["Désignation", "Qté", "Épaisseur", "Largeur", "Longueur", "Essence"])
    for name, many, a, b, c in ROWS:
        page.append([name, f"{many} pcs", f"{c} mm", f"{b} mm", f"{a} mm", "chêne"])
    made.save(w.path("debit.xlsx"))
    w.holds("debit.xlsx", ROWS, says="French, thickness first, units and counts with words")
    frame = pandas.DataFrame(
        [(n, "oak", m, a, b, c) for n, m, a, b, c in ROWS],
        columns=["part", "wood", "qty", "length_mm", "width_mm", "thickness_mm"],
    )
    frame.to_excel(w.path("pandas.xlsx"))
    w.holds("pandas.xlsx", ROWS, says="an index column without a heading, units in the headings")
    frame.to_csv(w.path("pandas.csv"))
    w.holds("pandas.csv", ROWS)
    as_typed(
        "markdown.txt",
        tabulate(frame.drop(columns="wood"), headers="keys", tablefmt="github", showindex=False),
    )
    as_typed(
        "grid.txt",
        tabulate(
            [(n, m, a, b, c) for n, m, a, b, c in ROWS],
            headers=["Part", "Qty", "Length", "Width", "Thickness"],
            tablefmt="simple",
        ),
        unit="mm",
        says="columns lined up, ruled with hyphens",
    )


def open_documents() -> None:
    doc = OpenDocumentSpreadsheet()
    table = Table(name="Lista")
    for row in [
        ("Pieza", "Cantidad", "Largo", "Ancho", "Grueso", "Madera"),
        *((n, m, a, b, c, "roble") for n, m, a, b, c in ROWS),
    ]:
        line = TableRow()
        for value in row:
            cell = (
                TableCell(valuetype="float", value=str(value))
                if isinstance(value, int)
                else TableCell(valuetype="string")
            )
            cell.addElement(P(text=str(value)))
            line.addElement(cell)
        table.addElement(line)
    doc.spreadsheet.addElement(table)
    doc.save(w.path("lista.ods"))
    w.holds("lista.ods", ROWS, "mm", says="Spanish")
    out = io.StringIO()
    csv.writer(out, delimiter=";").writerows(
        [
            ("Teil", "Stück", "Stärke (mm)", "Breite (mm)", "Länge (mm)", "Holz"),
            *((n, m, f"{c},0", f"{b},0", f"{a},0", "Eiche") for n, m, a, b, c in ROWS),
        ]
    )
    as_typed(
        "stueckliste.csv",
        out.getvalue(),
        encoding="cp1252",
        says="German, decimal commas, the letters of an older system",
    )
    source = w.folder / "stueckliste.csv"
    for kind in ("ods", "xlsx"):
        subprocess.run(
            [
                "soffice",
                "--headless",
                "--infilter=CSV:59,34,1,1",
                "--convert-to",
                kind,
                "--outdir",
                str(w.folder),
                str(source),
            ],
            check=True,
            capture_output=True,
        )
        Path(w.path(f"stueckliste.{kind}")).rename(w.path(f"office.{kind}"))
        w.holds(f"office.{kind}", ROWS, says="by an office program from the list in German")
    subprocess.run(
        ["ssconvert", w.path("pandas.csv"), w.path("gnumeric.xlsx")],
        check=True,
        capture_output=True,
    )
    w.holds("gnumeric.xlsx", ROWS)
    subprocess.run(
        ["ssconvert", w.path("pandas.csv"), w.path("gnumeric.ods")], check=True, capture_output=True
    )
    w.holds("gnumeric.ods", ROWS)


def typed() -> None:
    as_typed(
        "lines.txt",
        "Seat rail 1118 x 82 x 21\n2 Legs 430 x 45 x 45\nSlats (7) 380 x 60 x 12\n",
        [("Seat rail", 1, 1118, 82, 21), ("Legs", 2, 430, 45, 45), ("Slats", 7, 380, 60, 12)],
        "mm",
        says="free lines, a count before or behind",
    )
    as_typed(
        "bullets.txt",
        "Stool\n- 1 seat: 400 x 300 x 30 mm\n- 4 legs: 420 x 40 x 40 mm\n* 2x rail 300 x 60 x 20 "
        "mm\n",
        [("seat", 1, 400, 300, 30), ("legs", 4, 420, 40, 40), ("rail", 2, 300, 60, 20)],
        says="bullets under a title",
    )
    as_typed(
        "inches.txt",
        'Top, 1, 3/4" x 14" x 36"\nAprons, 2, 3/4" x 4" x 30"\n',
        [("Top", 1, 36 * IN, 14 * IN, 0.75 * IN), ("Aprons", 2, 30 * IN, 4 * IN, 0.75 * IN)],
        says="thickness first, by custom, with inch marks",
    )
    as_typed(
        "txwxl.csv",
        "Name,Dimensions (T x W x L),Count\nSeat rail,21 x 82 x 1118,2\nLeg,45 x 45 x "
        "430,4\nSlat,12 x 60 x 380,7\n",
        unit="mm",
    )
    as_typed(
        "pasted.tsv",
        "Part\tQty\tL\tW\tT\nSeat rail\t2\t44\t3 1/4\t13/16\nLeg\t4\t17\t1 3/4\t1 3/4\n",
        [
            ("Seat rail", 2, 44 * IN, 3.25 * IN, 0.8125 * IN),
            ("Leg", 4, 17 * IN, 1.75 * IN, 1.75 * IN),
        ],
        "in",
        says="fractions, which are inches",
    )
    as_typed(
        "unknown.csv",
        "Ding;Zahl;Erste;Zweite;Dritte\nZarge;2;1118;82;21\nBein;4;430;45;45\n",
        [("Zarge", 2, 1118, 82, 21), ("Bein", 4, 430, 45, 45)],
        "mm",
        says="headings of no language we read",
    )
    as_typed(
        "thousands.csv",
        "Part;Qty;Length (mm);Width (mm);Thickness (mm)\nRail;2;2.400;82;21\nLeg;4;1.430;45;45\n",
        [("Rail", 2, 2400, 82, 21), ("Leg", 4, 1430, 45, 45)],
        says="a point in thousands",
    )
    as_typed(
        "metres.csv",
        "Part,Qty,Length m,Width mm,Thickness mm\nRail,2,2.4,82,21\nLeg,4,0.43,45,45\n",
        [("Rail", 2, 2400, 82, 21), ("Leg", 4, 430, 45, 45)],
        says="each column in its own unit",
    )
    as_typed(
        "thick-first.csv",
        "Part,Qty,Thickness,Width,Length,Wood\nRail,2,7/8,3 1/4,44,ash\nPanel,1,1/2,12,26 "
        "5/8,ash\n",
        [("Rail", 2, 44 * IN, 3.25 * IN, 0.875 * IN), ("Panel", 1, 26.625 * IN, 12 * IN, 0.5 * IN)],
        "in",
    )
    as_typed(
        "legs-count.csv",
        "Part,Length,Width,Thickness\nLegs (4),430 mm,45 mm,45 mm\nRail x2,1118 mm,82 mm,21 mm\n",
        [("Legs", 4, 430, 45, 45), ("Rail", 2, 1118, 82, 21)],
        says="counts in the names",
    )


workbooks()
open_documents()
typed()
w.done()
