"""The heading row of a parts list: which column holds what, in which unit, by the words of several
languages.
"""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from itertools import pairwise

from vividplank.core.measure import System

#: Columns of a list as we write it.
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
    "from_board",
)
LENGTHS = ("length", "width", "thickness", "stave_min", "stave_max", "edging", "joint_length")
#: What else a column is called: English, German, French, Spanish, Italian, Dutch, Swedish; Danish
#: and Norwegian, Portuguese, : Polish.
_WORDS = {
    "id": "mark pos position nr",
    "name": "part parts component item description|bezeichnung benennung teil bauteil|"
    "désignation designation pièce "
    "nom|pieza descripción descripcion denominación|pezzo descrizione nome|onderdeel naam "
    "omschrijving|benämning del|"
    "benævnelse emne|peça|nazwa element część",
    "quantity": "qty count no pcs pieces amount number # each|stück stueck stk anzahl "
    "menge|quantité quantite qté "
    "qte|cantidad cant uds|quantità quantita qta|aantal stuks|antal st|antall|quantidade|ilość "
    "szt off nos",
    "length": "l len long|länge laenge|longueur long.|longitud "
    "largo|lunghezza|lengte|längd|længde lengde|"
    "comprimento|długość",
    "width": "w wide|breite b|largeur larg|ancho anchura|larghezza|breedte|bredd|bredde|szerokość",
    "thickness": "t thick thk th|dicke stärke staerke d|épaisseur epaisseur ép ep|espesor grosor "
    "grueso|spessore|dikte|tjocklek|tykkelse|"
    "espessura|grubość",
    "species": "wood material timber|holz holzart werkstoff|"
    "bois essence matière matériau|madera especie|legno essenza "
    "materiale|hout houtsoort materiaal|trä träslag|træ træsort tre treslag|"
    "madeira|materiał drewno gatunek",
    "faces": "face quality",
    "note": "notes comment comments remark remarks|bemerkung bemerkungen anmerkung "
    "hinweis|remarque remarques|nota notas "
    "observaciones|opmerking opmerkingen|anmärkning",
    "stock": "kind",
    "size": "size sizes dimension dimensions|abmessung abmessungen maß maße masse|"
    "medidas|misure dimensioni|afmeting afmetingen|mått",
}
_ALSO = {word: column for column, words in _WORDS.items() for word in re.split(r"[ |]", words)} | {
    "stave min": "stave_min",
    "stave max": "stave_max",
}
#: The unit a heading may name: Length (mm), Länge in mm.
_UNITS: dict[str, System] = {
    "mm": "mm",
    "cm": "cm",
    "m": "m",
    "in": "in",
    "inch": "in",
    "inches": "in",
    '"': "in",
}
_NAMED_UNIT = re.compile(r"(?:[(\[,/_]\s*|\s(?:in\s+)?)(mm|cm|m|in|inch|inches|\")\.?\s*[)\]]?\s*$")
_ORDER = re.compile(r"([^\W\d_]+)\.?\s*[x×*/]\s*([^\W\d_]+)\.?\s*[x×*/]\s*([^\W\d_]+)")
_SIZES = ("length", "width", "thickness")
#: Rows above the heading row that a spreadsheet may have: a title, a date, a drawing's data.
TITLE_ROWS = 40


@dataclass(frozen=True)
class Headings:
    """`columns` by their names here, unknown ones as they stand; `order` is that of three sizes in
    one cell, if said.
    """

    columns: tuple[str, ...]
    written: tuple[str, ...] = ()
    units: dict[str, System] = field(default_factory=dict)
    order: tuple[str, ...] = ()


#: What the columns of a table without headings are.
USUAL = Headings(("name", "quantity", *_SIZES, "species", "faces"))


def headings(
    row: list[str],
    above: list[str] | None = None,
    answered: Mapping[str, str] | None = None,
    *,
    every: bool = False,
) -> Headings | None:
    """What a row says of its columns; None where it is no heading row, unless `every` row is to be
    taken for one.

    Where it is the lower of two rows, whose upper one spans several columns, the upper one speaks
    for the cells left blank. `answered` says what columns hold by their headings, in lower case;
    that rules over the words known here.
    """
    told = answered or {}
    cells = [c.strip() for c in row]
    if above and sum(bool(_column(c)) for c in above) > 1:
        cells += [""] * (len(above) - len(cells))
        cells = [c or (above[k].strip() if k < len(above) else "") for k, c in enumerate(cells)]
    columns = tuple(told.get(c.casefold()) or _column(c) or c.casefold() for c in cells)
    if columns.count("quantity") > 1:  # then # is the number of the row
        columns = tuple("#" if c == "#" else name for c, name in zip(cells, columns, strict=True))
    if not every and not ({"length", "width"} <= set(columns) or "size" in columns):
        return None
    units: dict[str, System] = {}
    for cell, name in zip(cells, columns, strict=True):
        if name in (*LENGTHS, "size") and (unit := named_unit(cell)):
            units[name] = unit
    order = next((_order(c) for c, name in zip(cells, columns, strict=True) if name == "size"), ())
    return Headings(columns, tuple(cells), units, order)


def named_unit(heading: str) -> System | None:
    """The unit that a heading names."""
    found = _NAMED_UNIT.search(heading.casefold())
    return _UNITS[found[1]] if found else None


def repeated(found: Headings) -> str:
    """A column of a size that stands twice, so that neither can be taken; empty where there is
    none.
    """
    sizes = sorted(c for c in found.columns if c in (*_SIZES, "size", "quantity"))
    return next((a for a, b in pairwise(sizes) if a == b), "")


def _column(cell: str) -> str:
    """The column a heading stands for, or an empty text.

    >>> _column("Finished length (mm)"), _column("Stück"), _column("T x W x L"), _column("Colour")
    ('length', 'quantity', 'size', '')
    """
    said = cell.strip().casefold()
    if _order(said):
        return "size"
    said = _NAMED_UNIT.sub("", said) if said not in _UNITS else said
    said = re.sub(r"\s*[(\[,].*|[.:]", "", said).strip()
    for name in (said, re.sub(r"^(finished|finish|final|net|cut|fertig)[\s-]*", "", said)):
        if name in _ALSO or name.replace(" ", "_") in HEADINGS:
            return _ALSO.get(name) or name.replace(" ", "_")
    # Part name, wood species: words that all say the same.
    columns = {_ALSO.get(word) or (word if word in HEADINGS else "") for word in said.split()}
    return columns.pop() if len(columns) == 1 else ""


def _order(cell: str) -> tuple[str, ...]:
    """The order of three sizes in one cell, from its heading: Size (T x W x L)."""
    told = _ORDER.search(cell.casefold())
    order = tuple(_ALSO.get(w, w) for w in told.groups()) if told else ()
    return order if set(order) == set(_SIZES) else ()
