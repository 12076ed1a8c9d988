"""What a drawing holds, whatever its format: parts, where each is seen on it, what must be asked,
what was wrong.
"""

from dataclasses import dataclass
from typing import Literal

Point = tuple[float, float]
FileUnit = Literal["mm", "cm", "m", "in", "ft"]
FILE_UNITS: dict[FileUnit, float] = {"mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4, "ft": 304.8}


class Unreadable(ValueError):
    """A file that cannot be read at all: one sentence, with what was expected."""


class Stumbled(Unreadable):
    """A file that our reader failed on: its fault, not the file's; with what may be tried in its
    place.
    """

    def __init__(self, kind: str, told: str = "") -> None:
        tries = {
            "step": "Export it without colours, as STL or 3MF, or part by part",
            "dxf": "Save it as an older DXF, or as SVG",
            "svg": "Save it as plain SVG, or as DXF",
            "pdf": "Print it to a new PDF, or take a picture of the page",
            "xlsx": "Save the sheet as CSV, or paste its rows",
            "ods": "Save the sheet as CSV, or paste its rows",
        }
        also = f" ({told})" if told else ""
        what = (
            f"The reader failed on this {kind.upper()} file{also}. That is our fault, unless "
            f"the file is damaged"
        )
        super().__init__(
            f"{what}. {tries.get(kind, 'Export it anew, in another format, or part by part')}"
        )


@dataclass(frozen=True)
class Seen:
    """A shape on a view that belongs to one piece (`ref`), in mm, y down. `shade` 0 dark to 1
    light.
    """

    ref: str
    outline: tuple[Point, ...]
    shade: float = 1.0


@dataclass(frozen=True)
class Words:
    """Text on a view, its lower left corner in mm."""

    at: Point
    text: str


@dataclass(frozen=True)
class View:
    """One picture of the drawing; shapes that come later lie above earlier ones. `lines` belong to
    no part.
    """

    name: str
    width: float
    height: float
    shapes: tuple[Seen, ...] = ()
    lines: tuple[tuple[Point, ...], ...] = ()
    words: tuple[Words, ...] = ()


@dataclass(frozen=True)
class Found:
    """Like pieces counted together. Sizes in ticks, length the longest; 0 where the drawing does
    not say.

    `mirrored` of the `quantity` are mirror images of the others. `outline` (ticks, in length ×
    width) is kept where the piece is no plain box, of which it fills the share `fill`. `refs` are
    its pieces on the views.
    """

    key: str
    name: str
    quantity: int
    length: int
    width: int
    thickness: int
    species: str = ""
    layer: str = ""
    mirrored: int = 0
    fill: float = 1.0
    outline: tuple[tuple[int, int], ...] = ()
    refs: tuple[str, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class LayerMeaning:
    """What a layer of a drawing stands for; thickness in ticks, 0 where it says nothing."""

    species: str = ""
    thickness: int = 0
    ignore: bool = False


def counted(many: int, thing: str, things: str = "") -> str:
    """
    >>> counted(1, "outline"), counted(3, "outline"), counted(2, "body", "bodies")
    ('1 outline', '3 outlines', '2 bodies')
    """
    return f"{many} {thing if many == 1 else things or thing + 's'}"


@dataclass(frozen=True)
class Decision:
    """Something decided in reading about some pieces on the views (`refs`), and what turning it
    round makes of them.

    `key` names the same thing in a newer version of the drawing. `turn` is empty where it cannot be
    turned round; where it was, `turned` says so.
    """

    key: str
    kind: str
    refs: tuple[str, ...]
    what: str
    turn: str = ""
    turned: bool = False


@dataclass(frozen=True)
class Sheet:
    """A sheet of a workbook as tab-separated text."""

    name: str
    table: str


@dataclass(frozen=True)
class Settings:
    """What the maker has answered about a file; unit None: take the file's word or the best guess.

    `turned` are the keys of decisions turned round.
    """

    unit: FileUnit | None = None
    layers: tuple[tuple[str, LayerMeaning], ...] = ()
    turned: frozenset[str] = frozenset()

    def meaning(self, layer: str) -> LayerMeaning:
        return dict(self.layers).get(layer, LayerMeaning())


@dataclass(frozen=True)
class Reading:
    """A drawing as read. `asks` is the question about its unit, empty where the file says it.

    `troubles` name what could not be taken, `decisions` what was taken for something else than a
    part: nothing is dropped without one of them. `missing` are files that parts of it lie in. A
    list comes as `table`, tab-separated, for the reader of parts lists.
    """

    kind: str
    unit: FileUnit
    parts: tuple[Found, ...] = ()
    views: tuple[View, ...] = ()
    asks: str = ""
    troubles: tuple[str, ...] = ()
    layers: tuple[str, ...] = ()
    pieces: int = 0
    table: str = ""
    decisions: tuple[Decision, ...] = ()
    missing: tuple[str, ...] = ()
    sheet: str = ""
    others: tuple[Sheet, ...] = ()
