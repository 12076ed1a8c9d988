"""What each column of a list holds: by its heading, by what was answered about it, else proposed
from what stands in it.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from statistics import median

from vividplank.core.cutlist.headings import (
    HEADINGS,
    TITLE_ROWS,
    USUAL,
    Headings,
    headings,
    named_unit,
)
from vividplank.core.exchange.parts_list.rows import SIZE
from vividplank.core.timber import wood_named

SIZES = ("length", "width", "thickness")
#: What a maker may say that a column holds; "note" is where all else goes.
MEANINGS = ("name", "quantity", *SIZES, "size", "species", "id", "faces", "note")
_FIGURE = re.compile(
    r"\s*(\d+(?:[.,]\d+)?)(?:\s*(\d+)/(\d+))?\s*(?:mm|cm|m|in|\"|')?\s*", re.IGNORECASE
)
#: More than so many of one part are no count.
_MOST = 60


@dataclass(frozen=True)
class Column:
    """`meaning` is one of MEANINGS or of the columns of a list as we write it; not `sure` where it
    is only proposed.
    """

    heading: str
    meaning: str
    sure: bool
    example: str


@dataclass(frozen=True)
class Table:
    """`at` is the row of the headings, -1 where there are none; `known` says what its columns
    hold.
    """

    at: int
    known: Headings
    columns: tuple[Column, ...] = ()

    @property
    def sure(self) -> bool:
        return all(c.sure for c in self.columns)


def columns_of(rows: list[list[str]], free: bool, answered: Mapping[str, str]) -> Table:
    """`answered` are meanings by heading, in lower case: they rule over the words that are known
    here.
    """
    if free:
        return Table(-1, Headings(("name", "quantity", "size", "species")))
    at, known = -1, USUAL
    for i, row in enumerate(rows[:TITLE_ROWS]):
        found = headings(row, rows[i - 1] if i else None, answered)
        if found:
            at, known = i, found
            break
    lower = (
        headings(rows[at + 1], rows[at], answered)
        if "size" in known.columns and at >= 0 and at + 1 < len(rows)
        else None
    )
    if lower and "length" in lower.columns:  # a size over the columns that name its three
        at, known = at + 1, lower
    if at < 0:
        at = next((i for i, row in enumerate(rows[:-1][:TITLE_ROWS]) if _words(row)), -1)
        if at < 0:
            return Table(-1, _without_headings(rows))
        known = headings(rows[at], None, answered, every=True) or USUAL
    return _proposed(at, known, rows[at + 1 :], answered)


def _words(row: list[str]) -> bool:
    """Whether a row may be headings that nobody here knows: words, and no figures."""
    filled = [cell for cell in row if cell.strip()]
    return len(filled) >= 3 and not any(re.search(r"\d", cell) for cell in filled)


def _without_headings(rows: list[list[str]]) -> Headings:
    """The usual order, or with three sizes in one cell."""
    for row in rows:
        k = next((k for k, cell in enumerate(row) if SIZE.fullmatch(cell.strip())), -1)
        if k == 1:
            behind = ("quantity",) if len(row) > 2 and row[2].strip().isdigit() else ()
            return Headings(("name", "size", *behind, "species", "faces"))
        if k == 2:
            return Headings(("name", "quantity", "size", "species", "faces"))
    return USUAL


def _proposed(
    at: int, known: Headings, below: list[list[str]], answered: Mapping[str, str]
) -> Table:
    """The table with a proposal for those of its columns without which no part can be read."""
    meanings = list(known.columns)
    unknown = [
        k for k, m in enumerate(meanings) if known.written[k] and m not in (*HEADINGS, "size")
    ]
    if (
        not {"length", "thickness", "size"} & set(meanings)
        and "width" in meanings
        and len(unknown) > 1
    ):
        # Width, height and depth are those of the piece as it stands, and say nothing of the grain.
        unknown.append(meanings.index("width"))
        meanings[unknown[-1]] = "?"
    missing = [] if "size" in meanings else [s for s in SIZES if s not in meanings]
    proposed: dict[int, str] = {}
    if missing or "quantity" not in meanings or not {"name", "id"} & set(meanings):
        figures = {
            k: [
                f
                for f in (_figure(row[k]) for row in below if k < len(row) and row[k].strip())
                if f
            ]
            for k in unknown
        }
        figured = [k for k in unknown if figures[k]]
        if "quantity" not in meanings:
            counts = [k for k in figured if all(f <= _MOST and f == int(f) for f in figures[k])]
            if counts and len(figured) > len(missing):
                count = min(counts, key=lambda k: median(figures[k]))
                proposed[count] = "quantity"
                figured.remove(count)
        # The longest is the length, the least the thickness: proposed, never taken without being
        # asked.
        by_size = sorted(figured, key=lambda k: -median(figures[k]))
        proposed |= dict(zip(by_size, missing, strict=False))
        for k in unknown:
            texts = [row[k].strip() for row in below if k < len(row) and row[k].strip()]
            if k in proposed or figures[k] or not texts:
                continue
            if (
                "species" not in meanings
                and "species" not in proposed.values()
                and any(_a_wood(t) for t in texts)
            ):
                proposed[k] = "species"
            elif not {"name", "id"} & set(meanings) and "name" not in proposed.values():
                proposed[k] = "name"
    units = dict(known.units)
    for k, meaning in proposed.items():
        meanings[k] = meaning
        if meaning in SIZES and (unit := named_unit(known.written[k])):
            units[meaning] = unit
    columns = tuple(
        Column(
            heading,
            meanings[k] if meanings[k] in (*HEADINGS, "size") else "note",
            k not in proposed,
            next((row[k].strip()[:60] for row in below if k < len(row) and row[k].strip()), ""),
        )
        for k, heading in enumerate(known.written)
        if heading
    )
    return Table(at, replace(known, columns=tuple(meanings), units=units), columns)


def _figure(cell: str) -> float:
    """What a cell measures or counts, whatever its unit; 0 where it is no figure."""
    found = _FIGURE.fullmatch(cell)
    if not found:
        return 0.0
    return float(found[1].replace(",", ".")) + (
        int(found[2]) / max(1, int(found[3])) if found[2] else 0.0
    )


def _a_wood(text: str) -> bool:
    return wood_named(text) is not None
