"""What goes over the wire. Lengths in whole ticks, money as decimal numbers, names as in the
exchange page.
"""

from typing import Annotated, Literal

from pydantic import BaseModel, Field

from vividplank.web.schemas.board import BoardBody
from vividplank.web.shapes import (
    Body,
    Corner,
    FormulaField,
    FormulaTextual,
    Name,
    Note,
    Number,
    SystemName,
    Ticks,
)


class PanelBody(Body):
    stave_min: Ticks
    stave_max: Ticks


class EdgingBody(Body):
    thickness: Ticks
    long_edges: int
    ends: int


class SourceBody(Body):
    drawing: Number
    key: Name


class PartBody(Body):
    id: Name
    name: Name = ""
    quantity: Annotated[int, Field(strict=True, ge=1, le=100_000)]
    species: Name
    length: Ticks
    width: Ticks
    thickness: Ticks
    faces: Literal["clear-two", "clear-one", "sound"] = "clear-one"
    panel: PanelBody | None = None
    run: Name = ""
    note: Note = ""
    stock: Literal["board", "sheet", "bought"] = "board"
    grain: Literal["length", "width", "any"] = "length"
    fitted: bool = False
    resawn: bool = False
    layers: Annotated[int, Field(strict=True)] = 1
    match: Name = ""
    same_board: Name = ""
    figure: Literal["", "straight", "cathedral", "quarter", "curly"] = ""
    edging: EdgingBody | None = None
    joint: Name = ""
    joint_length: Ticks = 0
    formulas: Annotated[dict[FormulaField, FormulaTextual], Field(max_length=5)] = {}
    source: SourceBody | None = None
    outline: Annotated[list[Corner], Field(max_length=5000)] = []


class MeasureBody(Body):
    name: Name
    text: Annotated[str, Field(max_length=400)]
    kind: Literal["length", "number"] = "length"
    note: Note = ""


class MeasureValueBody(MeasureBody):
    """With its value: ticks of a length, or a plain number."""

    ticks: int | None
    number: float | None


class ClimateBody(Body):
    celsius: Annotated[float, Field(ge=-20, le=60, allow_inf_nan=False)] = 20
    humidity: Annotated[float, Field(ge=0, lt=1, allow_inf_nan=False)] = 0.5


class KerfBody(Body):
    crosscut: Annotated[Ticks, Field(ge=0)]
    rip: Annotated[Ticks, Field(ge=0)]
    resaw: Annotated[Ticks, Field(ge=0)]


class AllowanceBody(Body):
    length: Annotated[Ticks, Field(ge=0)]
    width: Annotated[Ticks, Field(ge=0)]
    face: Annotated[Ticks, Field(ge=0)]
    panel_width: Annotated[Ticks, Field(ge=0)]
    between: Annotated[Ticks, Field(ge=0)] = 0


class TicketBody(Body):
    """How the yard's ticket rounds board feet."""

    method: Literal["exact", "surface"] = "exact"
    whole_feet: bool = False
    half_inches_up: bool = False


class KeepBody(Body):
    """An offcut is kept when a sound piece this long and wide can be cut from it."""

    length: Annotated[Ticks, Field(gt=0)] = 16 * 8128
    width: Annotated[Ticks, Field(gt=0)] = 2 * 8128


class InstrumentsBody(Body):
    """The connected instrument of each kind by name, empty where figures are typed."""

    caliper: Name = ""
    readout: Name = ""
    moisture: Name = ""
    metal: Name = ""
    scanner: Name = ""


class ShopBody(Body):
    method: Literal["mill-wide", "rough-rip"]
    kerf: KerfBody
    allowance: AllowanceBody
    end_trim: Annotated[Ticks, Field(ge=0)]
    min_blank_length: Annotated[Ticks, Field(ge=0)]
    max_slope: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
    climate: ClimateBody = ClimateBody()
    ticket: TicketBody = TicketBody()
    keep: KeepBody = KeepBody()
    instruments: InstrumentsBody = InstrumentsBody()


class ProjectBody(Body):
    pk: Number
    name: str
    system: SystemName
    version: Number
    shop: ShopBody
    parts: list[PartBody]
    boards: list[BoardBody]
    measures: list[MeasureValueBody]
    undo: str
    redo: str
    rack: bool


class ShelfBody(Body):
    pk: Number
    name: str
    system: SystemName
    edited: str
    parts: int
    boards: int
    demo: bool
    laid_out: bool


class ShelfList(Body):
    projects: list[ShelfBody]


class NewProject(Body):
    name: Annotated[str, Field(min_length=1, max_length=200)]
    system: SystemName = "in"


class PutPart(PartBody):
    was: Name = ""


class PutBoard(BoardBody):
    was: Name = ""


class EditBody(Body):
    """One edit: what is put and what is removed, made from `version`."""

    version: Number
    label: Annotated[str, Field(min_length=1, max_length=200)]
    name: Name | None = None
    system: SystemName | None = None
    shop: ShopBody | None = None
    put_parts: Annotated[list[PutPart], Field(max_length=2000)] = []
    remove_parts: Annotated[list[Name], Field(max_length=2000)] = []
    put_boards: Annotated[list[PutBoard], Field(max_length=500)] = []
    remove_boards: Annotated[list[Name], Field(max_length=500)] = []
    measures: Annotated[list[MeasureBody], Field(max_length=300)] | None = None


class VersionBody(Body):
    version: Number


class NeedBody(Body):
    species: str
    quarter: str
    parts: list[str]
    pieces: int
    net: float
    to_buy: float
    longest: Ticks
    widest: Ticks
    on_hand: float
    price: float | None
    cost: float | None


class SheetNeedBody(Body):
    species: str
    thickness: Ticks
    parts: list[str]
    pieces: int
    grained: int
    sheet: Corner
    sheets: int
    least: int
    too_large: list[str]


class LengthNeedBody(Body):
    species: str
    width: Ticks
    thickness: Ticks
    parts: list[str]
    pieces: int
    stock_length: Ticks
    lengths: int
    least: int
    spare: int
    too_long: list[str]
    cuts: list[list[str]]


class SheetPlanBody(Body):
    species: str
    thickness: Ticks
    sheets: int
    least: int
    unplaced: int
    boards: list[BoardBody]
    parts: list[PartBody]
    cut: list[list[dict[str, object]]]


class SheetPlans(Body):
    plans: list[SheetPlanBody]


class NeedList(Body):
    waste: float
    needs: list[NeedBody]
    sheets: list[SheetNeedBody]
    lengths: list[LengthNeedBody]


class BoardAccountBody(Body):
    board: str
    species: str
    rough: float
    price: float
    share: float
    where: dict[str, float]
    chips: dict[str, float]


class AccountBody(Body):
    """Board feet by category, the chips of them by operation; `per_foot_bought`,
    `per_foot_of_parts` in the shop's money.
    """

    layout: Number
    stale: bool
    categories: list[str]
    boards: list[BoardAccountBody]
    rough: float
    price: float
    share: float
    where: dict[str, float]
    chips: dict[str, float]
    per_foot_bought: float | None
    per_foot_of_parts: float | None


class WoodBody(Body):
    name: str
    specific_gravity: float
    coef_tangential: float
    coef_radial: float


class WoodList(Body):
    woods: list[WoodBody]


class Health(Body):
    name: str
    database: bool


class TroubleBody(Body):
    """What went wrong, in a sentence; `where` is a path in what was sent, `found` lists several."""

    what: str
    where: str = ""
    found: list[str] = []
    version: Number | None = None


class ProjectPath(BaseModel):
    project: Number


class LayoutPath(BaseModel):
    layout: Number


class DrawingPath(BaseModel):
    drawing: Number


class WasteQuery(BaseModel):
    waste: Annotated[float, Field(ge=0, le=3)] = 0.3
    stock_length: Annotated[int, Field(gt=0, le=10**8)] | None = None


class LabelQuery(BaseModel):
    """Sizes of a sheet of labels in mm, each the usual one of the paper if left out; `skip` labels
    are used up.
    """

    columns: Annotated[int | None, Field(ge=1, le=12)] = None
    rows: Annotated[int | None, Field(ge=1, le=40)] = None
    width: Annotated[float | None, Field(ge=20, le=300)] = None
    height: Annotated[float | None, Field(ge=18, le=300)] = None
    left: Annotated[float | None, Field(ge=0, le=100)] = None
    top: Annotated[float | None, Field(ge=0, le=100)] = None
    gap_x: Annotated[float | None, Field(ge=0, le=50)] = None
    gap_y: Annotated[float | None, Field(ge=0, le=50)] = None
    skip: Annotated[int, Field(ge=0, le=479)] = 0
