"""Sizes that may well mean something else than they say: what must be asked once for the whole
list.
"""

import re
from dataclasses import dataclass
from typing import Literal

from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, System, unit_of

Kind = Literal["columns", "unit", "order", "thousands", "wood"]
Order = tuple[str, str, str]
#: Longer than boards come.
_LONGEST_BOARD = 240 * TICKS_PER_INCH
#: A figure of three digits behind its mark, which may stand between thousands.
_MARKED = re.compile(r"[1-9]\d{0,2}[.,]\d{3}")
#: A figure with both marks: 1.100,5 or 1,100.5.
_BOTH_MARKS = re.compile(r"(\d{1,3}(?:\.\d{3})+),(\d{1,3})|(\d{1,3}(?:,\d{3})+)\.(\d{1,3})")
#: No part is longer (mm).
_LONGEST_PART = 12_000
#: Orders of three sizes that people write.
ORDERS: dict[str, Order] = {
    "LWT": ("length", "width", "thickness"),
    "TWL": ("thickness", "width", "length"),
    "WTL": ("width", "thickness", "length"),
    "TLW": ("thickness", "length", "width"),
    "WLT": ("width", "length", "thickness"),
}


@dataclass(frozen=True)
class Question:
    """Asked once for a list: what is not sure of it, and the answers, each with its own word."""

    kind: Kind
    says: str
    options: tuple[tuple[str, str], ...]


class Doubt(ValueError):
    """A row that cannot be taken before a question about its list is answered, with an `example` of
    it.
    """

    def __init__(self, kind: Kind, why: str, example: str) -> None:
        super().__init__(why)
        self.kind = kind
        self.example = example


_WOODS = ("white oak", "red oak", "ash", "walnut", "cherry", "hard maple", "beech", "yellow poplar")
_UNITS = (("mm", "millimetres"), ("in", "inches"), ("cm", "centimetres"), ("m", "metres"))


def question(doubt: Doubt) -> Question:
    if doubt.kind == "unit":
        return Question("unit", f"In which unit is this list? {doubt.example}", _UNITS)
    if doubt.kind == "order":
        options = tuple((key, " × ".join(order)) for key, order in ORDERS.items())
        return Question("order", f"In which order are the sizes? {doubt.example}", options)
    if doubt.kind == "wood":
        return Question(
            "wood", "Which wood are the rows that name none?", tuple((w, w) for w in _WOODS)
        )
    says = f"What does the mark stand between? {doubt.example}"
    return Question("thousands", says, (("yes", "thousands"), ("no", "decimals")))


def doubtful(
    written: dict[str, str], sizes: dict[str, int], system: System, *, told: bool, ordered: bool
) -> None:
    """Raises Doubt where sizes may mean something else. `told` where their unit is known, `ordered`
    where their order is.
    """
    if min(sizes.values()) <= 0:
        return  # refused for that
    down = sizes["length"] >= sizes["width"] >= sizes["thickness"]
    if not ordered and not down:
        raise Doubt(
            "order",
            f"which of {', '.join(written.values())} is the thickness? Read as length, width, "
            f"thickness they do not go down; "
            "expected headings, such as length, width, thickness, or Size (T x W x L)",
            f"Such as {' × '.join(written.values())}.",
        )
    if told:
        return
    thickness = sizes["thickness"] / TICKS_PER_INCH
    if unit_of(system) == "in" and (
        thickness > 8 or (thickness >= 3 and sizes["length"] > _LONGEST_BOARD)
    ):
        why = "Where the figures are millimetres, let the headings say so: Length (mm)"
        raise Doubt(
            "unit",
            f"a thickness of {written['thickness']} in? {why}",
            f"A part {written['thickness']} in thick?",
        )
    if (
        system == "mm"
        and sizes["length"] < 150 * TICKS_PER_MM
        and sizes["thickness"] < 3 * TICKS_PER_MM
    ):
        why = "Where the figures are inches, let the headings say so: Length (in)"
        raise Doubt(
            "unit",
            f"a thickness of {written['thickness']} mm? {why}",
            f"A part {written['thickness']} mm thick?",
        )


def unmarked(figure: str, system: System, thousands: bool | None, name: str) -> str:
    """A figure without the mark between its thousands, where that was said. Raises Doubt where it
    must be.
    """
    if both := _BOTH_MARKS.fullmatch(figure):  # the last mark is the decimal one
        whole_part, decimals = (g for g in both.groups() if g)
        return re.sub("[.,]", "", whole_part) + "." + decimals
    if (
        system != "mm"
        or not _MARKED.fullmatch(figure)
        or (whole := int(re.sub("[.,]", "", figure))) > _LONGEST_PART
    ):
        return figure
    if thousands is None:
        raise Doubt(
            "thousands",
            f"'{figure}' is a {name} of {whole} mm or of {figure.replace(',', '.')} mm; expected "
            f"figures without a mark "
            "between the thousands",
            f"'{figure}' is {whole} mm or {figure.replace(',', '.')} mm.",
        )
    return str(whole) if thousands else figure
