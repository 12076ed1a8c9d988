"""Parts lists as tables: CSV, TSV and what a spreadsheet puts on the clipboard."""

import csv
import io
import re
from dataclasses import dataclass, replace
from typing import Literal, TypeVar

from vividplank.core.board.grain import FIGURES, Figure
from vividplank.core.cutlist import Edging, Faces, Grain, Panel, Part, Stock
from vividplank.core.cutlist.marks import mark_for
from vividplank.core.exchange.job_file import check_part
from vividplank.core.exchange.refusal import Refusal
from vividplank.core.measure import MeasureError, System, parse, show

Known = TypeVar("Known")

HEADINGS = (
    "id",
    "name",
    "quantity",
    "length",
    "width",
    "thickness",
    "species",
    "faces",
    "run",
    "stave_min",
    "stave_max",
    "note",
    "stock",
    "grain",
    "fitted",
    "resawn",
    "layers",
    "match",
    "same_board",
    "figure",
    "edging",
    "edged_long",
    "edged_ends",
    "joint",
    "joint_length",
)
_LENGTHS = ("length", "width", "thickness", "stave_min", "stave_max", "edging", "joint_length")
_ALSO = {
    "mark": "id",
    "part": "name",
    "description": "name",
    "qty": "quantity",
    "count": "quantity",
    "no": "quantity",
    "pcs": "quantity",
    "pieces": "quantity",
    "l": "length",
    "w": "width",
    "t": "thickness",
    "thick": "thickness",
    "wood": "species",
    "material": "species",
    "timber": "species",
    "face": "faces",
    "quality": "faces",
    "stave min": "stave_min",
    "stave max": "stave_max",
    "notes": "note",
    "comment": "note",
    "component": "name",
    "item": "name",
    "len": "length",
    "long": "length",
    "wide": "width",
    "thk": "thickness",
    "th": "thickness",
    "amount": "quantity",
    "number": "quantity",
    "#": "quantity",
    "each": "quantity",
    "size": "size",
    "sizes": "size",
    "dimensions": "size",
    "l x w x t": "size",
    "kind": "stock",
}
#: The unit a heading may name in brackets: Length (mm).
_UNITS: dict[str, System] = {"mm": "mm", "cm": "cm", "m": "m", "in": "in", "inch": "in", "inches": "in", '"': "in"}
#: Rows above the heading row that a spreadsheet may have: a title, a date.
_TITLE_ROWS = 12
#: What a spreadsheet may run as a formula: a sign at the start, whatever blanks stand before it.
_RUNS = re.compile(r"\s*[=+\-@]|[\t\r']")
_LONGEST_NOTE = 2000
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
class PartsList:
    """`noted` are headings of columns that are not known here; what stands in them goes into the notes."""

    parts: tuple[Part, ...]
    refused: tuple[RowRefusal, ...]
    noted: tuple[str, ...] = ()


def read_parts(text: str, system: System, taken: frozenset[str] = frozenset(), species: str = "") -> PartsList:
    """Parts of a table with or without a heading row; rows that cannot be read are told, not dropped.

    Without headings the columns are: name, quantity, length, width, thickness, species, faces. Marks are
    made up where there are none, and never one of `taken`. `species` stands in where a row names none.
    """
    rows = _rows(text)
    if not rows:
        return PartsList((), ())
    at = next((i for i, row in enumerate(rows[:_TITLE_ROWS]) if _headings(row)), None)
    columns = (
        _headings(rows[at]) if at is not None else ["name", "quantity", "length", "width", "thickness", "species", "faces"]
    )
    units = _units(rows[at], columns) if at is not None else {}
    body = rows[at + 1 :] if at is not None else rows
    first = at + 2 if at is not None else 1
    headings = [cell.strip() for cell in rows[at]] if at is not None else []
    parts: list[Part] = []
    refused: list[RowRefusal] = []
    noted: dict[str, None] = {}
    used = set(taken)
    for number, row in enumerate(body, first):
        if not any(cell.strip() for cell in row):
            continue
        cells = dict(zip(columns, (c.strip() for c in row), strict=False))
        unknown = _unknown(row, columns, headings)
        try:
            part = _part(cells, system, units, used, species)
            part = replace(part, note="; ".join([*filter(None, [part.note]), *(f"{h}: {c}" for h, c in unknown)]))
            if len(part.note) > _LONGEST_NOTE:
                raise ValueError(f"its notes would be {len(part.note)} letters; expected at most {_LONGEST_NOTE}")
        except (MeasureError, Refusal, ValueError) as problem:
            refused.append(RowRefusal(number, " | ".join(row), str(problem)))
            continue
        used.add(part.id)
        parts.append(part)
        noted.update(dict.fromkeys(heading for heading, _ in unknown))
    return PartsList(tuple(parts), tuple(refused), tuple(noted))


def _unknown(row: list[str], columns: list[str], headings: list[str]) -> list[tuple[str, str]]:
    """What stands in columns that are not known, or beyond the last heading, with the heading or the column's number."""
    found = []
    for k, cell in enumerate(row):
        known = k < len(columns) and columns[k] in (*HEADINGS, "size", *_DERIVED)
        if cell.strip() and not known:
            found.append(((headings[k] if k < len(headings) else "") or f"column {k + 1}", cell.strip()))
    return found


def write_parts(parts: tuple[Part, ...], system: System) -> str:
    """The list as CSV; reading it in the same system gives the same parts."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    for p in parts:
        stave = (show(p.panel.stave_min, system), show(p.panel.stave_max, system)) if p.panel else ("", "")
        sizes = (show(p.length, system), show(p.width, system), show(p.thickness, system))
        edged = (show(p.edging.thickness, system), p.edging.long_edges, p.edging.ends) if p.edging else ("", "", "")
        cells = (
            p.id,
            p.name,
            p.quantity,
            *sizes,
            p.species,
            p.faces,
            p.run,
            *stave,
            p.note,
            p.stock,
            p.grain,
            "yes" if p.fitted else "",
            "yes" if p.resawn else "",
            p.layers,
            p.match,
            p.same_board,
            p.figure,
            *edged,
            p.joint,
            show(p.joint_length, system) if p.joint_length else "",
        )
        writer.writerow([plain_cell(str(c)) for c in cells])
    return out.getvalue()


def plain_cell(cell: str) -> str:
    """A cell that a spreadsheet would run as a formula gets an apostrophe, which reading takes off."""
    return "'" + cell if _RUNS.match(cell) else cell


def _rows(text: str) -> list[list[str]]:
    text = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").strip("\n")
    if not text.strip():
        return []
    head = text.split("\n", 1)[0]
    # A quote mark is an inch mark here unless the table is a CSV that quotes its cells.
    if "\t" in head:
        return [line.split("\t") for line in text.split("\n")]
    mark = ";" if head.count(";") > head.count(",") else ","
    return list(csv.reader(io.StringIO(text), delimiter=mark, skipinitialspace=True))


def _headings(row: list[str]) -> list[str]:
    names = [re.sub(r"\s*[(\[,].*|[.:]", "", c.strip().casefold()).strip() for c in row]
    names = [_ALSO.get(n, n.replace(" ", "_") if n.replace(" ", "_") in HEADINGS else n) for n in names]
    return names if {"length", "width"} <= set(names) or "size" in names else []


def _units(row: list[str], columns: list[str]) -> dict[str, System]:
    """The columns whose heading names a unit of its own."""
    found: dict[str, System] = {}
    for cell, name in zip(row, columns, strict=True):
        told = re.search(r"[(\[,]\s*([a-z\"]+)\.?\s*[)\]]?\s*$", cell.strip().casefold())
        if told and told[1] in _UNITS and name in (*_LENGTHS, "size"):
            found[name] = _UNITS[told[1]]
    return found


def _part(cells: dict[str, str], system: System, units: dict[str, System], used: set[str], species: str) -> Part:
    if cells.get("size") and not cells.get("length"):
        sizes = re.split(r"\s*[x×*]\s*", cells["size"])
        if len(sizes) != 3:
            raise ValueError(f"'{cells['size']}' is no size; expected length x width x thickness")
        cells = {**cells, **dict(zip(("length", "width", "thickness"), sizes, strict=True))}
        units = {**{n: units["size"] for n in ("length", "width", "thickness") if "size" in units}, **units}

    def text(name: str) -> str:
        value = cells.get(name, "")
        return value[1:] if value.startswith("'") and _RUNS.match(value[1:]) else value

    for name in ("length", "width", "thickness"):
        if not text(name):
            raise ValueError(f"no {name}; expected a length")
    faces = _FACES.get(text("faces").casefold())
    if faces is None:
        raise ValueError(f"'{text('faces')}' is no quality of faces; expected clear-two, clear-one or sound")
    wood = text("species") or species
    if not wood:
        raise ValueError("no wood; expected a species such as white oak")

    def length(name: str) -> int:
        return parse(text(name), units.get(name, system)) if text(name) else 0

    panel = None
    if text("stave_min") or text("stave_max"):
        panel = Panel(length("stave_min"), length("stave_max"))
    edging = None
    if text("edging"):
        edging = Edging(length("edging"), _of(text("edged_long"), _SIDES, 2), _of(text("edged_ends"), _SIDES, 2))
    name, quantity = text("name") or text("id"), text("quantity")
    counted = re.match(r"(\d{1,3})\s*[x×]\s+(?=\S)", name)
    if counted and not quantity:
        name, quantity = name[counted.end() :], counted[1]
    part = Part(
        text("id") or mark_for(name, used),
        name,
        _count(quantity),
        wood,
        length("length"),
        length("width"),
        length("thickness"),
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
    )
    if part.id in used:
        raise ValueError(f"the mark '{part.id}' is taken; expected every mark once")
    return check_part(part, "part")


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
