"""Drawings over the wire: what was read in them, what was taken off by eye. Places on a view in mm,
sizes in ticks.
"""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field

from vividplank.core.cutlist import Part
from vividplank.core.fields import Name, Number, Ticks
from vividplank.web.shapes import Body, SystemName

FileUnitName = Literal["mm", "cm", "m", "in", "ft"]
State = Literal["waiting", "reading", "done", "failed"]
Place = Annotated[list[float], Field(min_length=2, max_length=2)]


class DrawingBody(Body):
    pk: Number
    name: str
    media_type: str
    size: int
    state: State
    trouble: str
    replaces: Number | None
    replaced: bool


class DrawingList(Body):
    drawings: list[DrawingBody]


class SeenBody(Body):
    ref: str
    outline: list[Place]
    shade: float


class WordsBody(Body):
    at: Place
    text: str


class ViewBody(Body):
    name: str
    width: float
    height: float
    shapes: list[SeenBody]
    lines: list[list[Place]]
    words: list[WordsBody]


class FoundBody(Body):
    key: str
    name: str
    quantity: int
    length: Ticks
    width: Ticks
    thickness: Ticks
    species: str
    layer: str
    mirrored: int
    fill: float
    outline: list[list[int]]
    refs: list[str]
    note: str


class MeaningBody(Body):
    species: Name = ""
    thickness: Annotated[Ticks, Field(ge=0)] = 0
    ignore: bool = False


class AnswersBody(Body):
    """What the maker says of a file; unit None: take its own word or the guess. `turned`: decisions
    turned round.
    """

    unit: FileUnitName | None = None
    layers: Annotated[dict[str, MeaningBody], Field(max_length=500)] = {}
    turned: Annotated[list[Annotated[str, Field(max_length=400)]], Field(max_length=500)] = []


class DecisionBody(Body):
    """Something that was taken for something else than a part, and what turning that round makes of
    it.
    """

    key: str
    kind: str
    refs: list[str]
    what: str
    turn: str
    turned: bool


class SheetBody(Body):
    name: str
    table: str


class ReadingBody(Body):
    kind: Literal["model", "flat", "sheet", "list"]
    unit: FileUnitName
    asks: str
    parts: list[FoundBody]
    views: list[ViewBody]
    troubles: list[str]
    layers: list[str]
    pieces: int
    table: str
    decisions: list[DecisionBody]
    missing: list[str]
    sheet: str
    others: list[SheetBody]
    answers: AnswersBody


class DifferenceBody(Body):
    what: list[Literal["same", "size", "count", "name", "new", "gone"]]
    before: FoundBody | None
    after: FoundBody | None
    part: str  # the mark of the part on the list that came from `before`


class DifferenceList(Body):
    differences: list[DifferenceBody]


class ScaleBody(Body):
    """Two points of a known distance on one view."""

    id: Name
    page: Annotated[int, Field(ge=0, le=100)]
    name: Name = ""
    a: Place
    b: Place
    distance: Annotated[Ticks, Field(gt=0)]


class MarkBody(Body):
    """A part drawn on a sheet: a rectangle in one view, its sides by the scale or as written
    there.
    """

    id: Name
    page: Annotated[int, Field(ge=0, le=100)]
    scale: Name
    a: Place
    b: Place
    part: Name = ""
    along: Annotated[Ticks, Field(ge=0)] = 0
    across: Annotated[Ticks, Field(ge=0)] = 0


class MarksBody(Body):
    version: Number
    scales: Annotated[list[ScaleBody], Field(max_length=200)] = []
    marks: Annotated[list[MarkBody], Field(max_length=2000)] = []


class PagePath(BaseModel):
    drawing: Number
    n: Number


class DrawingQuery(BaseModel):
    replaces: Number | None = None


class NewPattern(Body):
    pattern: Name
    values: dict[str, Annotated[str, Field(max_length=300)]] = {}
    choices: dict[str, Name] = {}
    species: Name = "white oak"


class PatternMeasureBody(Body):
    """`key` is the pattern's own word for it, `name` what it is called in the project."""

    key: str
    name: str
    says: str
    kind: Literal["length", "number"]
    text: str
    ticks: int | None
    number: float | None
    own: bool  # the maker's to choose; else it follows from others


class PatternChoiceBody(Body):
    name: str
    says: str
    options: list[str]
    chosen: str


class SketchBody(Body):
    """A view in mm, y down: rectangles of parts, and dimension lines with their figures in
    ticks.
    """

    name: str
    width: float
    height: float
    rects: list[dict[str, Any]]
    dims: list[dict[str, Any]]


class PatternBody(Body):
    pattern: str
    title: str
    says: str
    measures: list[PatternMeasureBody]
    choices: list[PatternChoiceBody]
    parts: list[Part]
    sketches: list[SketchBody]
    arithmetic: list[str]
    warnings: list[str]
    trouble: str


class PatternName(Body):
    pattern: str
    title: str
    says: str


class PatternList(Body):
    patterns: list[PatternName]


class FormulaText(Body):
    text: Annotated[str, Field(max_length=400)]
    kind: Literal["length", "number"] = "length"


class FormulaValue(Body):
    ticks: int | None
    number: float | None
    why: str


class CheckBody(Body):
    parts: list[str]
    what: str
    why: str
    fix: str
    put_parts: list[Part]


class CheckList(Body):
    checks: list[CheckBody]


class DivideBody(Body):
    """Items along a length: what is to stand there, and the stock between."""

    kind: Literal["shelves", "drawers-equal", "drawers-graded", "slats-count", "slats-gap"]
    span: Annotated[Ticks, Field(gt=0)]
    stock: Annotated[Ticks, Field(ge=0)] = 0
    room: Annotated[Ticks, Field(ge=0)] = 0
    heights: Annotated[list[Ticks], Field(max_length=60)] = []
    count: Annotated[int, Field(ge=1, le=200)] = 1
    gap: Annotated[Ticks, Field(ge=0)] = 0
    growth: Annotated[float, Field(ge=1, le=2)] = 1.25
    system: SystemName = "in"


class DividedBody(Body):
    openings: list[int]
    at: list[int]
    left: int
    said: str
