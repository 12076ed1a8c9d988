"""Paper: the books of a shop, a bar and the figures for each group of boards."""

import io
from collections.abc import Sequence

from reportlab.lib import colors
from reportlab.lib.pagesizes import A4, landscape
from reportlab.lib.styles import getSampleStyleSheet
from reportlab.lib.units import mm
from reportlab.platypus import Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from vividplank.core.exchange.paper.cutlist_pdf import latin
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES
from vividplank.core.yields.books import Group


def books_pdf(shop: str, groups: Sequence[Group], whole: Group, currency: str = "") -> bytes:
    """Board feet by category, real above planned, and what was lost to error and why. `currency`
    is that of what was paid, by ISO 4217.
    """
    out = io.BytesIO()
    title = f"{shop}: where the wood went"
    page = SimpleDocTemplate(
        out, pagesize=landscape(A4), title=title, leftMargin=14 * mm, rightMargin=14 * mm
    )
    styles = getSampleStyleSheet()
    shown = [c for c in CATEGORIES if whole.real[c] or whole.planned[c]]
    rows = [["", "boards", f"paid {currency}".rstrip(), "rough", *shown, "yield"]]
    for group in (*groups, whole):
        name = Paragraph(_escaped(group.name), styles["BodyText"])
        price, rough = f"{group.price:.2f}", _feet(group.rough)
        real = [_feet(group.real[c]) for c in shown]
        planned = [_feet(group.planned[c]) for c in shown]
        rows.append([name, str(group.boards), price, rough, *real, _share(group.real_yield)])
        rows.append(["planned", "", "", "", *planned, _share(group.planned_yield)])
    heads = [Paragraph(f"<b>{h}</b>", styles["BodyText"]) for h in rows[0]]
    table = Table([heads, *rows[1:]], repeatRows=1)
    table.setStyle(
        TableStyle(
            [
                ("ALIGN", (1, 1), (-1, -1), "RIGHT"),
                ("VALIGN", (0, 0), (-1, -1), "TOP"),
                ("LINEBELOW", (0, 0), (-1, 0), 1, colors.black),
                *(("TEXTCOLOR", (0, n), (-1, n), colors.grey) for n in range(2, len(rows), 2)),
                ("LINEABOVE", (0, -2), (-1, -2), 1, colors.black),
            ]
        )
    )
    said = "Board feet of the boards that have been cut into; yield of those that are cut up."
    story = [
        Paragraph(_escaped(title), styles["Title"]),
        Paragraph(said, styles["BodyText"]),
        Spacer(0, 4 * mm),
        table,
    ]
    if whole.lost:
        story += [Spacer(0, 6 * mm), Paragraph("Lost to error", styles["Heading2"])]
        story += [
            Paragraph(_escaped(f"{x.piece}: {_feet(x.volume)} bd ft, {x.why}"), styles["BodyText"])
            for x in whole.lost
        ]
    page.build(story)
    return out.getvalue()


def _feet(cubic_ticks: int) -> str:
    return f"{float(cubic_board_feet(cubic_ticks)):.2f}"


def _share(share: float | None) -> str:
    return "" if share is None else f"{100 * share:.0f} %"


def _escaped(text: str) -> str:
    return latin(text).replace("&", "&amp;").replace("<", "&lt;")
