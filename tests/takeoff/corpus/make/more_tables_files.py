"""Lists as people keep them: totals, group headings, waste columns, mixed units, two lists side by
side, other languages, odd files.
"""

import io

import openpyxl
from corpus import Row, Writer

w = Writer("more-tables")
ROWS: list[Row] = [("Rail", 2, 1100, 82, 22), ("Stile", 4, 760, 60, 22), ("Panel", 2, 640, 310, 12)]


def text(
    name: str,
    content: str,
    rows: list[Row] = ROWS,
    unit: str = "",
    says: str = "",
    encoding: str = "utf-8",
) -> None:
    (w.folder / name).write_bytes(content.encode(encoding))
    w.holds(name, rows, unit, says)


def book(
    name: str, rows: list[list[object]], parts: list[Row] = ROWS, unit: str = "", says: str = ""
) -> None:
    made = openpyxl.Workbook()
    for row in rows:
        made.active.append(row)
    out = io.BytesIO()
    made.save(out)
    (w.folder / name).write_bytes(out.getvalue())
    w.holds(name, parts, unit, says)


text(
    "groups.csv",
    "Part,Qty,Length mm,Width mm,Thickness "
    "mm,Wood\nDoor,,,,,\nRail,2,1100,82,22,oak\nStile,4,760,60,22,oak\nInfill,,,,,\nPanel,2,640,310,12,ash\nTotal,8,,,,\n",
    says="headings of groups between, a total",
)
text(
    "semicolon-decimals.csv",
    "Nr;Teil;Stk;L;B;D;Material\n1;Rail;2;1100,0;82,0;22,0;Eiche\n2;Stile;4;760,0;60,0;22,0;Eiche\n3;Panel;2;640,0;310,0;12,0;Esche\n",
    unit="mm",
    says="German letters for the sizes, decimal commas",
)
text(
    "quoted.csv",
    '"Part Name","Quantity","Length (in)","Width (in)","Thickness (in)"\n"Rail, top","2","43 '
    '5/16""","3 1/4""","7/8"""\n"Stile","4","29 15/16","2 3/8","7/8"\n',
    [("Rail, top", 2, 43.3125 * 25.4, 82.55, 22.225), ("Stile", 4, 29.9375 * 25.4, 60.325, 22.225)],
    says="quoted cells with commas and inch marks",
)
text(
    "feet.txt",
    'Rail\t2\t3\' 6"\t3"\t3/4"\nStile\t4\t2\' 5 1/2"\t2 1/4"\t3/4"\n',
    [("Rail", 2, 1066.8, 76.2, 19.05), ("Stile", 4, 749.3, 57.15, 19.05)],
    says="feet and inches, no headings",
)
text(
    "dutch.csv",
    "Onderdeel;Aantal;Lengte (mm);Breedte (mm);Dikte "
    "(mm);Houtsoort\nRail;2;1100;82;22;eiken\nStile;4;760;60;22;eiken\nPanel;2;640;310;12;essen\n",
    says="Dutch",
)
text(
    "polish.csv",
    "Nazwa;Ilość;Długość;Szerokość;Grubość;Materiał\nRail;2;1100;82;22;dąb\nStile;4;760;60;22;dąb\nPanel;2;640;310;12;jesion\n",
    unit="mm",
    says="Polish",
)
text(
    "danish.csv",
    "Del;Antal;Længde;Bredde;Tykkelse;Træ\nRail;2;1100;82;22;eg\nStile;4;760;60;22;eg\nPanel;2;640;310;12;ask\n",
    unit="mm",
    says="Danish",
)
text(
    "portuguese.csv",
    "Peça;Quantidade;Comprimento;Largura;Espessura;Madeira\nRail;2;1100;82;22;carvalho\nStile;4;760;60;22;carvalho\nPanel;2;640;310;12;freixo\n",
    unit="mm",
    says="Portuguese",
)
text(
    "final-rough.csv",
    "Part,Qty,Rough length,Rough width,Rough thickness,Finished length,Finished width,Finished "
    "thickness,Wood\nRail,2,1125,90,26,1100,82,22,oak\nStile,4,785,68,26,760,60,22,oak\nPanel,2,665,318,16,640,310,12,oak\n",
    unit="mm",
    says="rough and finished sizes side by side",
)
text(
    "wxlxt.csv",
    "Item,W x L x T (mm),No. off\nRail,82 x 1100 x 22,2\nStile,60 x 760 x 22,4\nPanel,310 x 640 "
    "x 12,2\n",
    says="width before length, in one cell",
)
text(
    "at-sign.txt",
    "2 @ 1100 x 82 x 22 Rail\n4 @ 760 x 60 x 22 Stile\n2 @ 640 x 310 x 12 Panel\n",
    unit="mm",
    says="the name last, counts with an at sign",
)
text(
    "colons.txt",
    "Rail: 2 pcs, 1100 x 82 x 22 mm, oak\nStile: 4 pcs, 760 x 60 x 22 mm, oak\nPanel: 2 pcs, 640 "
    "x 310 x 12 mm, ash\n",
    says="counts between name and sizes, the wood last",
)
text(
    "utf16.csv",
    "Part;Qty;Length (mm);Width (mm);Thickness (mm);Wood\n"
    + "".join(f"{n};{m};{a};{b};{c};oak\n" for n, m, a, b, c in ROWS),
    encoding="utf-16",
    says="UTF-16",
)
text(
    "panel-short.csv",
    "Part,Qty,Length,Width,Thickness,Wood\nDrawer bottom,2,300,420,6,ash\nRail,2,1100,82,22,oak\n",
    [("Drawer bottom", 2, 300, 420, 6), ("Rail", 2, 1100, 82, 22)],
    "mm",
    says="grain across the longer side",
)
book(
    "blank-columns.xlsx",
    [
        ["", "", ""],
        ["", "Cupboard", "", "", "", "", ""],
        ["", "Part", "", "Qty", "L", "W", "T", "", "Wood"],
        *[["", n, "", m, a, b, c, "", "oak"] for n, m, a, b, c in ROWS],
    ],
    unit="mm",
    says="blank rows and columns",
)
book(
    "waste.xlsx",
    [
        [
            "Mark",
            "Part",
            "Qty",
            "Length (mm)",
            "Width (mm)",
            "Thick (mm)",
            "Board feet",
            "Price",
            "Wood",
        ],
        *[[f"P{k}", n, m, a, b, c, 1.2 * k, 9.5, "oak"] for k, (n, m, a, b, c) in enumerate(ROWS)],
    ],
    says="columns of volume and price",
)
book(
    "metres.xlsx",
    [
        ["Teil", "Anzahl", "Länge [m]", "Breite [cm]", "Dicke [mm]", "Holzart"],
        *[[n, m, a / 1000, b / 10, c, "Eiche"] for n, m, a, b, c in ROWS],
    ],
    says="each size in another unit",
)
book(
    "late.xlsx",
    [
        *[[f"note {k}"] for k in range(25)],
        ["Part", "Qty", "Length", "Width", "Thickness", "Wood"],
        *[[n, m, a, b, c, "oak"] for n, m, a, b, c in ROWS],
    ],
    unit="mm",
    says="headings in row 26",
)
w.done()
