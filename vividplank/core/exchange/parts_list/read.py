"""Parts lists as tables: CSV, TSV and what a spreadsheet puts on the clipboard; or as lines of one
part each.
"""

import re
from dataclasses import dataclass, field, replace
from typing import Literal, TypeVar

from vividplank.core.board.grain import FIGURES, Figure
from vividplank.core.cutlist import Edging, Faces, Grain, Panel, Part, Stock
from vividplank.core.cutlist.check import check_part
from vividplank.core.cutlist.headings import HEADINGS, USUAL, Headings, repeated
from vividplank.core.cutlist.marks import mark_for
from vividplank.core.exchange.parts_list.columns import SIZES, Column, Table, columns_of
from vividplank.core.exchange.parts_list.doubts import (
    ORDERS,
    Doubt,
    Kind,
    Question,
    doubtful,
    question,
    unmarked,
)
from vividplank.core.exchange.parts_list.rows import counted, rows_of
from vividplank.core.exchange.parts_list.write import taken_off
from vividplank.core.measure import MeasureError, System, parse
from vividplank.core.refusal import Refusal

Known = TypeVar("Known")

_LONGEST_NOTE = 2000
#: A unit in a figure.
_UNIT = re.compile(r"[^\W\d_]|[\"'′″]")
#: A unit behind the last of three sizes, which is that of all.
_UNIT_BEHIND = re.compile(r"(?<=[\d ])(mm|cm|m|in|inch|inches|ft)\.?\s*$", re.IGNORECASE)
#: Columns of our own workbook that say nothing of their own.
_DERIVED = frozenset({"rough length", "rough width", "rough thickness", "as written"})
_YES = ("yes", "y", "x", "1", "true")
_FACES: dict[str, Faces] = {
    "clear-two": "clear-two",
    "clear two": "clear-two",
    "both clear": "clear-two",
    "2": "clear-two",
    "clear-one": "clear-one",
    "clear one": "clear-one",
    "one clear": "clear-one",
    "1": "clear-one",
    "": "clear-one",
    "sound": "sound",
    "0": "sound",
}


@dataclass(frozen=True)
class RowRefusal:
    """A row that was not understood: its number from 1, its text, and why."""

    row: int
    text: str
    why: str


@dataclass(frozen=True)
class ListAnswers:
    """What a maker said of a list: the unit of bare figures, what columns hold by their headings
    (in lower case), the order of sizes, whether marks stand between thousands, and that the columns
    are as they were proposed.
    """

    unit: System | None = None
    columns: dict[str, str] = field(default_factory=dict)
    order: str = ""
    thousands: bool | None = None
    confirmed: bool = False


@dataclass(frozen=True)
class PartsList:
    """`noted` are headings of columns that are not known here; what stands in them goes into the
    notes. While there are `questions` the parts are only what the list would become.
    """

    parts: tuple[Part, ...]
    refused: tuple[RowRefusal, ...]
    noted: tuple[str, ...] = ()
    columns: tuple[Column, ...] = ()
    questions: tuple[Question, ...] = ()


def read_parts(
    text: str,
    system: System,
    taken: frozenset[str] = frozenset(),
    species: str = "",
    answers: ListAnswers | None = None,
) -> PartsList:
    """Parts of a table with or without a heading row; rows that cannot be read are told, not
    dropped.

    Without headings the columns are: name, quantity, length, width, thickness, species, faces,
    where the sizes bear that out. What is not sure is asked once for the whole list: the columns of
    headings that are not known, the unit of bare figures, the order of sizes, a mark between
    thousands. Marks are made up where there are none, and never one of `taken`. `species` stands in
    where a row names none.
    """
    answers = answers or ListAnswers()
    rows, free = rows_of(text)
    if not rows:
        return PartsList((), ())
    table = columns_of(rows, free, answers.columns)
    if table.at >= 0 and (twice := repeated(table.known)):
        why = f"two columns of {twice}; expected one: take the other out, or call it what it is"
        return PartsList(
            (), (RowRefusal(table.at + 1, " | ".join(rows[table.at]), why),), columns=table.columns
        )
    reader = _Reader(
        _ordered(table.known, answers.order), answers, answers.unit or system, species, set(taken)
    )
    at = table.at
    refused = [
        RowRefusal(i, " | ".join(row), "stands above the headings; expected below them")
        for i, row in enumerate(rows[: max(at, 0)], 1)
        if sum(bool(re.search(r"\d", cell)) for cell in row) >= 3
    ]
    for number, row in enumerate(rows[at + 1 :], at + 2):
        if any(cell.strip() for cell in row):
            reader.row(number, row)
    questions = [question(d) for d in reader.doubts.values()]
    if not table.sure and not answers.confirmed:
        questions.insert(0, _columns_asked(table))
    return PartsList(
        tuple(reader.parts),
        (*refused, *reader.refused),
        tuple(reader.noted),
        table.columns,
        tuple(questions),
    )


def _columns_asked(table: Table) -> Question:
    unknown = ", ".join(f"'{c.heading}'" for c in table.columns if not c.sure)
    says = f"Are these columns right? What {unknown} hold is proposed from what stands in them."
    return Question("columns", says, (("yes", "They are right"),))


def _ordered(known: Headings, order: str) -> Headings:
    """The columns with the order of sizes that was told, where their headings do not say it."""
    told = ORDERS.get(order)
    if not told:
        return known
    if "size" in known.columns:
        return replace(known, order=known.order or told)
    if known is not USUAL:
        return known
    sizes = iter(told)
    return replace(
        known, columns=tuple(next(sizes) if c in SIZES else c for c in known.columns), order=told
    )


@dataclass
class _Reader:
    """Rows one by one, with what came of them."""

    known: Headings
    answers: ListAnswers
    system: System
    species: str
    used: set[str]
    parts: list[Part] = field(default_factory=list)
    refused: list[RowRefusal] = field(default_factory=list)
    noted: dict[str, None] = field(default_factory=dict)
    doubts: dict[Kind, Doubt] = field(default_factory=dict)

    def row(self, number: int, row: list[str]) -> None:
        unknown = _unknown(row, self.known)
        try:
            part = self._part(_cells(row, self.known))
            part = replace(
                part,
                note="; ".join([*filter(None, [part.note]), *(f"{h}: {c}" for h, c in unknown)]),
            )
            if len(part.note) > _LONGEST_NOTE:
                raise ValueError(
                    f"its notes would be {len(part.note)} letters; expected at most {_LONGEST_NOTE}"
                )
        except (MeasureError, Refusal, ValueError) as problem:
            if isinstance(problem, Doubt):
                self.doubts.setdefault(problem.kind, problem)
            self.refused.append(RowRefusal(number, " | ".join(row), str(problem)))
            return
        self.used.add(part.id)
        self.parts.append(part)
        self.noted.update(dict.fromkeys(heading for heading, _ in unknown))

    def _part(self, cells: dict[str, str]) -> Part:
        def text(name: str) -> str:
            return taken_off(cells.get(name, ""))

        for name in SIZES:
            if not text(name):
                raise ValueError(f"no {name}; expected a length")
        faces = _FACES.get(text("faces").casefold())
        if faces is None:
            raise ValueError(
                f"'{text('faces')}' is no quality of faces; expected clear-two, clear-one or sound"
            )

        in_one = bool(cells.get("size"))
        units = {
            **(
                dict.fromkeys(SIZES, self.known.units["size"])
                if in_one and "size" in self.known.units
                else {}
            ),
            **self.known.units,
        }

        def length(name: str) -> int:
            figure = text(name)
            if not figure:
                return 0
            unit = units.get(name, self.system)
            figure = (
                unmarked(figure, unit, self.answers.thousands, name) if name in SIZES else figure
            )
            try:
                return parse(figure, unit)
            except MeasureError:
                if unit == self.system and self.answers.unit is None and _is_length(figure, "in"):
                    raise Doubt(
                        "unit",
                        f"'{figure}' is no length in {unit}",
                        f"'{figure}' is none in {unit}.",
                    ) from None
                raise

        sizes = {n: length(n) for n in SIZES}
        told = self.answers.unit is not None or all(
            n in units or _UNIT.search(text(n)) for n in SIZES
        )
        ordered = bool(self.known.order) if in_one else bool(self.known.written or self.known.order)
        doubtful({n: text(n) for n in SIZES}, sizes, self.system, told=told, ordered=ordered)
        wood = text("species") or self.species
        if not wood:
            raise Doubt("wood", "no wood; expected a species such as white oak", "")
        panel = None
        if text("stave_min") or text("stave_max"):
            panel = Panel(length("stave_min"), length("stave_max"))
        edging = None
        if text("edging"):
            edging = Edging(
                length("edging"),
                _of(text("edged_long"), _SIDES, 2),
                _of(text("edged_ends"), _SIDES, 2),
            )
        name, quantity = text("name") or text("id"), text("quantity")
        if not quantity:
            name, quantity = counted(name)
        part = Part(
            text("id") or mark_for(name, self.used),
            name,
            _count(quantity),
            wood,
            sizes["length"],
            sizes["width"],
            sizes["thickness"],
            faces,
            panel,
            text("run"),
            text("note"),
            _of(text("stock"), _STOCKS, "board"),
            _of(text("grain"), _GRAINS, "length"),
            text("fitted").casefold() in _YES,
            text("resawn").casefold() in _YES,
            _count(text("layers")),
            text("match"),
            text("same_board"),
            edging,
            text("joint"),
            length("joint_length"),
            figure=_of(text("figure"), _FIGURES, ""),
            from_board=text("from_board"),
        )
        if part.id in self.used:
            raise ValueError(f"the mark '{part.id}' is taken; expected every mark once")
        return check_part(part, "part")


def _is_length(text: str, system: System) -> bool:
    try:
        return parse(text, system) > 0
    except MeasureError:
        return False


def _cells(row: list[str], known: Headings) -> dict[str, str]:
    """The cells of a row by their columns, three sizes in one cell taken apart."""
    cells = dict(zip(known.columns, (c.strip() for c in row), strict=False))
    if cells.get("size") and not cells.get("length"):
        sizes = re.split(r"\s*[x×*]\s*", cells["size"])
        if len(sizes) != 3:
            raise ValueError(f"'{cells['size']}' is no size; expected length x width x thickness")
        if unit := _UNIT_BEHIND.search(sizes[2]):
            sizes = [s if _UNIT.search(s) else f"{s} {unit[1]}" for s in sizes]
        cells.update(zip(known.order or SIZES, sizes, strict=True))
    return cells


def _unknown(row: list[str], known: Headings) -> list[tuple[str, str]]:
    """What stands in columns that are not known, or beyond the last heading, with the heading or
    the column's number.
    """
    found = []
    for k, cell in enumerate(row):
        taken = k < len(known.columns) and known.columns[k] in (*HEADINGS, "size", *_DERIVED)
        if cell.strip() and not taken:
            found.append(
                (
                    (known.written[k] if k < len(known.written) else "") or f"column {k + 1}",
                    cell.strip(),
                )
            )
    return found


_STOCKS: dict[str, Stock] = {
    "board": "board",
    "solid": "board",
    "sheet": "sheet",
    "ply": "sheet",
    "plywood": "sheet",
    "bought": "bought",
}
_FIGURES: dict[str, Figure | Literal[""]] = {figure: figure for figure in FIGURES}
_GRAINS: dict[str, Grain] = {
    "length": "length",
    "along": "length",
    "width": "width",
    "across": "width",
    "any": "any",
    "none": "any",
}
_SIDES = {"0": 0, "1": 1, "2": 2}


def _of(text: str, known: dict[str, Known], otherwise: Known) -> Known:
    if not text:
        return otherwise
    found = known.get(text.casefold())
    if found is None:
        raise ValueError(f"'{text}' is not known here; expected one of {', '.join(known)}")
    return found


def _count(text: str) -> int:
    if not text:
        return 1
    found = re.fullmatch(r"[x×]?\s*(\d{1,5})(?:\.0*)?\s*(?:x|×|off|pcs?)?", text.casefold())
    if not found or int(found[1]) < 1:
        raise ValueError(f"'{text}' is no count; expected a whole number such as 2 or 2x")
    return int(found[1])
