"""A part of the piece: finished size, wood and how it must look."""

from dataclasses import dataclass, replace
from typing import Annotated, Literal, get_args

from pydantic import BeforeValidator, Field, PlainSerializer, WithJsonSchema

from vividplank.core.board.grain import Figure
from vividplank.core.fields import (
    BY_NAME,
    LOCAL,
    FormulaText,
    Name,
    Note,
    Number,
    Point,
    Ticks,
    pairs_of,
)
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.shop import Shop

Faces = Literal["clear-two", "clear-one", "sound"]
#: From the strictest to the most lenient.
FACES: tuple[Faces, ...] = ("clear-two", "clear-one", "sound")
#: How far an outline may be off its part's size and still be its outline.
_OUTLINE_SLACK = TICKS_PER_MM // 2
#: Cut from boards, cut from sheets, or bought finished by the running length.
Stock = Literal["board", "sheet", "bought"]
Grain = Literal["length", "width", "any"]
FormulaField = Literal["length", "width", "thickness", "joint_length", "quantity"]
#: (field, text) pairs; in JSON an object of texts by field.
Formulas = Annotated[
    tuple[tuple[FormulaField, FormulaText], ...],
    BY_NAME,
    BeforeValidator(pairs_of),
    Field(max_length=5),
    PlainSerializer(dict, return_type=dict, when_used="json"),
    WithJsonSchema(
        {
            "type": "object",
            "propertyNames": {"enum": list(get_args(FormulaField))},
            "additionalProperties": {"type": "string", "maxLength": 400},
            "maxProperties": 5,
        }
    ),
]


@dataclass(frozen=True)
class Panel:
    """Glued up from staves whose net widths lie between these."""

    stave_min: Ticks
    stave_max: Ticks


@dataclass(frozen=True)
class Edging:
    """Solid strips of this thickness on so many long edges and ends of a sheet part; the finished
    size includes them.
    """

    thickness: Ticks
    long_edges: int
    ends: int


@dataclass(frozen=True)
class GluedUp:
    """What a thin part is a layer of: so many of them are glued face to face and milled to this
    thickness.
    """

    layers: int
    thickness: int


@dataclass(frozen=True)
class Source:
    """Where the part was taken off: a drawing of the project, and the found thing's key in it."""

    drawing: Number
    key: Name


@dataclass(frozen=True)
class Part:
    """`length` lies along the grain. Parts of one `run` come end to end out of one blank.

    `fitted` parts are held long and cut to the work. `layers` of equal thickness are glued to make
    a thick part. Parts of one `match` are opened like a book, those of one `same_board` come from
    one board, one with a `from_board` out of the board or offcut of that mark; a part is to show
    its `figure` where a board has it. `joint_length` is what joinery
    (`joint`) has added to the length. `formulas` are (field, text) pairs over the project's
    measures; the sizes here are always their values. `outline` (ticks, in length × width) is kept
    where it is no rectangle. Of a job on its boards, layers are parts of their own, and `glued_up`
    says what of.
    """

    id: Name
    name: Name
    quantity: Annotated[int, Field(strict=True, ge=1, le=100_000)]
    species: Name
    length: Ticks
    width: Ticks
    thickness: Ticks
    faces: Faces = "clear-one"
    panel: Panel | None = None
    run: Name = ""
    note: Note = ""
    stock: Stock = "board"
    grain: Grain = "length"
    fitted: bool = False
    resawn: bool = False
    layers: Annotated[int, Field(strict=True)] = 1
    match: Name = ""
    same_board: Name = ""
    edging: Edging | None = None
    joint: Name = ""
    joint_length: Ticks = 0
    formulas: Formulas = ()
    source: Annotated[Source | None, LOCAL] = None
    outline: Annotated[tuple[Point, ...], Field(max_length=5000)] = ()
    glued_up: Annotated[GluedUp | None, LOCAL] = None
    figure: Figure | Literal[""] = ""
    from_board: Name = ""

    @property
    def volume(self) -> int:
        """Finished volume of one, in cubic ticks."""
        return self.length * self.width * self.thickness

    @property
    def is_mitred(self) -> bool:
        return self.joint.casefold().startswith("mitre")

    def fitting_outline(self) -> "Part":
        """The part; without its outline where that is of another size than the part has now, and so
        no longer true.
        """
        if not self.outline:
            return self
        reach = [
            max(point[k] for point in self.outline) - min(point[k] for point in self.outline)
            for k in (0, 1)
        ]
        true = all(
            abs(r - size) <= _OUTLINE_SLACK
            for r, size in zip(reach, (self.length, self.width), strict=True)
        )
        return self if true else replace(self, outline=())

    def cut_size(self) -> tuple[int, int]:
        """Length and width to cut: a sheet part's without its edging."""
        if not self.edging:
            return self.length, self.width
        e = self.edging
        return self.length - e.ends * e.thickness, self.width - e.long_edges * e.thickness


def blank_need(thicknesses: list[int], shop: Shop) -> int:
    """The flat thickness a blank must hold to give these layers, each with its face allowance."""
    return shop.flat_for(max(thicknesses), len(thicknesses))
