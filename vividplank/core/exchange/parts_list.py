"""Parts lists as tables: CSV, TSV and what a spreadsheet puts on the clipboard."""

import csv
import io
import re
from dataclasses import dataclass, replace
from typing import Literal, TypeVar

from vividplank.core.board.grain import FIGURES, Figure
from vividplank.core.cutlist import Edging, Faces, Grain, Panel, Part, Stock
from vividplank.core.cutlist.headings import HEADINGS, TITLE_ROWS, USUAL, Headings, headings, repeated
from vividplank.core.cutlist.marks import mark_for
from vividplank.core.exchange.job_file import check_part
from vividplank.core.exchange.refusal import Refusal
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, MeasureError, System, parse, show

Known = TypeVar("Known")

#: What a spreadsheet may run as a formula: a sign at the start, whatever blanks stand before it.
_RUNS = re.compile(r"\s*[=+\-@]|[\t\r']")
_LONGEST_NOTE = 2000
#: What stands between columns that are lined up by blanks.
_BLANKS = re.compile(r"\s{2,}")
_SIZES = ("length", "width", "thickness")
#: Longer than boards come.
_LONGEST_BOARD = 240 * TICKS_PER_INCH
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

    Without headings the columns are: name, quantity, length, width, thickness, species, faces, where the sizes bear that
    out. No order is guessed for headings that are not known. Marks are made up where there are none, and never one of
    `taken`. `species` stands in where a row names none.
    """
    rows = _rows(text)
    if not rows:
        return PartsList((), ())
    at, known = next(
        ((i, h) for i, row in enumerate(rows[:TITLE_ROWS]) if (h := headings(row, rows[i - 1] if i else None))), (-1, USUAL)
    )
    lower = headings(rows[at + 1], rows[at]) if "size" in known.columns and at + 1 < len(rows) else None
    if lower and "length" in lower.columns:  # a size over the columns that name its three
        at, known = at + 1, lower
    if problem := _not_understood(rows, at, known):
        return PartsList((), (problem,))
    parts: list[Part] = []
    refused = [
        RowRefusal(i, " | ".join(row), "stands above the headings; expected below them")
        for i, row in enumerate(rows[: max(at, 0)], 1) if sum(bool(re.search(r"\d", cell)) for cell in row) >= 3
    ]
    noted: dict[str, None] = {}
    used = set(taken)
    for number, row in enumerate(rows[at + 1 :], at + 2):
        if not any(cell.strip() for cell in row):
            continue
        unknown = _unknown(row, known)
        try:
            part = _part(_cells(row, known), known, system, used, species)
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


def _not_understood(rows: list[list[str]], at: int, known: Headings) -> RowRefusal | None:
    """Headings that cannot be followed; None where they can, or where there are none."""
    if at >= 0:
        twice = repeated(known)
        why = f"two columns of {twice}; expected one: take the other out, or call it what it is"
        return RowRefusal(at + 1, " | ".join(rows[at]), why) if twice else None
    for i, row in enumerate(rows[:-1][:TITLE_ROWS]):
        words = [cell.strip() for cell in row if cell.strip()]
        if len(words) >= 3 and not any(re.search(r"\d", w) for w in words):
            return RowRefusal(
                i + 1, " | ".join(row),
                f"these headings are not understood: {', '.join(words)[:200]}; expected among them length, width and "
                "thickness, or a size such as Size (T x W x L)",
            )
    return None


def _cells(row: list[str], known: Headings) -> dict[str, str]:
    """The cells of a row by their columns, three sizes in one cell taken apart."""
    cells = dict(zip(known.columns, (c.strip() for c in row), strict=False))
    if cells.get("size") and not cells.get("length"):
        sizes = re.split(r"\s*[x×*]\s*", cells["size"])
        if len(sizes) != 3:
            raise ValueError(f"'{cells['size']}' is no size; expected length x width x thickness")
        cells.update(zip(known.order or ("length", "width", "thickness"), sizes, strict=True))
    return cells


def _unknown(row: list[str], known: Headings) -> list[tuple[str, str]]:
    """What stands in columns that are not known, or beyond the last heading, with the heading or the column's number."""
    found = []
    for k, cell in enumerate(row):
        taken = k < len(known.columns) and known.columns[k] in (*HEADINGS, "size", *_DERIVED)
        if cell.strip() and not taken:
            found.append(((known.written[k] if k < len(known.written) else "") or f"column {k + 1}", cell.strip()))
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
    lines = text.split("\n")
    # A quote mark is an inch mark here unless the table is a CSV that quotes its cells.
    if any("\t" in line for line in lines):
        return [line.split("\t") for line in lines]
    if all(line.strip().startswith("|") for line in lines if line.strip()):
        bars = [line.strip().strip("|").split("|") for line in lines if line.strip()]
        return [row for row in bars if not all(re.fullmatch(r"\s*:?-+:?\s*", cell) for cell in row)]
    semicolons, commas = (sum(mark in line for line in lines) for mark in ";,")
    if not semicolons and not commas and any(len(_BLANKS.split(line.strip())) > 2 for line in lines):
        return [_BLANKS.split(line.strip()) for line in lines]
    mark = ";" if semicolons >= max(commas, 1) or lines[0].count(";") > lines[0].count(",") else ","
    return list(csv.reader(io.StringIO(text), delimiter=mark, skipinitialspace=True))


def _part(cells: dict[str, str], known: Headings, system: System, used: set[str], species: str) -> Part:
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

    in_one = bool(cells.get("size"))
    units = {**(dict.fromkeys(_SIZES, known.units["size"]) if in_one and "size" in known.units else {}), **known.units}

    def length(name: str) -> int:
        return parse(text(name), units.get(name, system)) if text(name) else 0

    sizes = {n: length(n) for n in _SIZES}
    told = all(n in units or re.search(r"[^\W\d_]|[\"'′″]", text(n)) for n in _SIZES)
    ordered = bool(known.order) if in_one else known is not USUAL
    _doubt({n: text(n) for n in _SIZES}, sizes, system, told=told, ordered=ordered)
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
    )
    if part.id in used:
        raise ValueError(f"the mark '{part.id}' is taken; expected every mark once")
    return check_part(part, "part")


def _doubt(written: dict[str, str], sizes: dict[str, int], system: System, *, told: bool, ordered: bool) -> None:
    """Raises where sizes may well mean something else than they say: a unit, an order or a thousands mark left open."""
    if min(sizes.values()) <= 0:
        return  # refused for that
    down = sizes["length"] >= sizes["width"] >= sizes["thickness"]
    if not ordered and not down:
        raise ValueError(
            f"which of {', '.join(written.values())} is the thickness? Read as length, width, thickness they do not go down; "
            "expected headings, such as length, width, thickness, or Size (T x W x L)"
        )
    if told:
        return
    thickness = sizes["thickness"] / TICKS_PER_INCH
    if system in ("in", "in-decimal", "ft-in") and (thickness > 8 or (thickness >= 3 and sizes["length"] > _LONGEST_BOARD)):
        raise ValueError(
            f"a thickness of {written['thickness']} in? Where the figures are millimetres, let the headings say so: Length (mm)"
        )
    if system == "mm" and sizes["length"] < 150 * TICKS_PER_MM and sizes["thickness"] < 3 * TICKS_PER_MM:
        raise ValueError(
            f"a thickness of {written['thickness']} mm? Where the figures are inches, let the headings say so: Length (in)"
        )
    for name, figure in written.items():
        if system == "mm" and not down and re.fullmatch(r"[1-9]\d{0,2}[.,]\d{3}", figure):
            raise ValueError(
                f"'{figure}' is a {name} of {re.sub('[.,]', '', figure)} mm or of {figure.replace(',', '.')} mm; "
                "expected figures without a mark between the thousands"
            )


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
