"""Parts lists as tables: CSV, TSV and what a spreadsheet puts on the clipboard."""

import csv
import io
import re
from dataclasses import dataclass

from vividplank.core.cutlist import Faces, Panel, Part
from vividplank.core.exchange.job_file import check_part
from vividplank.core.exchange.refusal import Refusal
from vividplank.core.measure import MeasureError, System, parse, show

HEADINGS = ("id", "name", "quantity", "length", "width", "thickness", "species", "faces", "run", "stave_min", "stave_max",
            "note")
_ALSO = {
    "mark": "id", "part": "name", "description": "name", "qty": "quantity", "count": "quantity", "no": "quantity",
    "pcs": "quantity", "pieces": "quantity", "l": "length", "w": "width", "t": "thickness", "thick": "thickness",
    "wood": "species", "material": "species", "timber": "species", "face": "faces", "quality": "faces",
    "stave min": "stave_min", "stave max": "stave_max", "notes": "note",
}
_FACES: dict[str, Faces] = {
    "clear-two": "clear-two", "clear two": "clear-two", "both clear": "clear-two", "2": "clear-two",
    "clear-one": "clear-one", "clear one": "clear-one", "one clear": "clear-one", "1": "clear-one", "": "clear-one",
    "sound": "sound", "0": "sound",
}


@dataclass(frozen=True)
class RowRefusal:
    """A row that was not understood: its number from 1, its text, and why."""

    row: int
    text: str
    why: str


@dataclass(frozen=True)
class PartsList:
    parts: tuple[Part, ...]
    refused: tuple[RowRefusal, ...]


def read_parts(text: str, system: System, taken: frozenset[str] = frozenset(), species: str = "") -> PartsList:
    """Parts of a table with or without a heading row; rows that cannot be read are told, not dropped.

    Without headings the columns are: name, quantity, length, width, thickness, species, faces. Marks are
    made up where there are none, and never one of `taken`. `species` stands in where a row names none.
    """
    rows = _rows(text)
    if not rows:
        return PartsList((), ())
    columns = _headings(rows[0])
    body = rows[1:] if columns else rows
    first = 2 if columns else 1
    columns = columns or ["name", "quantity", "length", "width", "thickness", "species", "faces"]
    parts: list[Part] = []
    refused: list[RowRefusal] = []
    used = set(taken)
    for number, row in enumerate(body, first):
        if not any(cell.strip() for cell in row):
            continue
        cells = dict(zip(columns, (c.strip() for c in row), strict=False))
        try:
            part = _part(cells, system, used, species)
        except (MeasureError, Refusal, ValueError) as problem:
            refused.append(RowRefusal(number, " | ".join(row), str(problem)))
            continue
        used.add(part.id)
        parts.append(part)
    return PartsList(tuple(parts), tuple(refused))


def write_parts(parts: tuple[Part, ...], system: System) -> str:
    """The list as CSV; reading it in the same system gives the same parts."""
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(HEADINGS)
    for p in parts:
        stave = (show(p.panel.stave_min, system), show(p.panel.stave_max, system)) if p.panel else ("", "")
        sizes = (show(p.length, system), show(p.width, system), show(p.thickness, system))
        cells = (p.id, p.name, p.quantity, *sizes, p.species, p.faces, p.run, *stave, p.note)
        writer.writerow([_plain(str(c)) for c in cells])
    return out.getvalue()


def _plain(cell: str) -> str:
    """A cell that a spreadsheet would run as a formula gets an apostrophe, which reading takes off."""
    return "'" + cell if cell[:1] in "=+-@\t'" and cell else cell


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
    names = [re.sub(r"\s*\(.*\)|[.:]", "", c.strip().casefold()).strip() for c in row]
    names = [_ALSO.get(n, n.replace(" ", "_") if n.replace(" ", "_") in HEADINGS else n) for n in names]
    return names if {"length", "width"} <= set(names) else []


def _part(cells: dict[str, str], system: System, used: set[str], species: str) -> Part:
    def text(name: str) -> str:
        value = cells.get(name, "")
        return value[1:] if value.startswith("'") and value[1:2] in "=+-@\t'" and value[1:] else value

    for name in ("length", "width", "thickness"):
        if not text(name):
            raise ValueError(f"no {name}; expected a length")
    faces = _FACES.get(text("faces").casefold())
    if faces is None:
        raise ValueError(f"'{text('faces')}' is no quality of faces; expected clear-two, clear-one or sound")
    wood = text("species") or species
    if not wood:
        raise ValueError("no wood; expected a species such as white oak")
    panel = None
    if text("stave_min") or text("stave_max"):
        panel = Panel(parse(text("stave_min"), system), parse(text("stave_max"), system))
    name = text("name") or text("id")
    part = Part(
        text("id") or _mark(name, used), name, _count(text("quantity")), wood, parse(text("length"), system),
        parse(text("width"), system), parse(text("thickness"), system), faces, panel, text("run"), text("note"),
    )
    if part.id in used:
        raise ValueError(f"the mark '{part.id}' is taken; expected every mark once")
    return check_part(part, "part")


def _count(text: str) -> int:
    if not text:
        return 1
    found = re.fullmatch(r"[x×]?\s*(\d{1,5})(?:\.0*)?\s*(?:x|×|off|pcs?)?", text.casefold())
    if not found or int(found[1]) < 1:
        raise ValueError(f"'{text}' is no count; expected a whole number such as 2 or 2x")
    return int(found[1])


def _mark(name: str, used: set[str]) -> str:
    """Initials of the name, with a number where they are taken: Back post is BP, the next one BP2."""
    words = re.findall(r"[A-Za-z0-9]+", name)
    stem = "".join(w[0] for w in words[:3]).upper() if len(words) > 1 else "".join(words)[:2].upper()
    stem = stem or "P"
    if stem not in used:
        return stem
    return next(f"{stem}{n}" for n in range(2, 10**6) if f"{stem}{n}" not in used)
