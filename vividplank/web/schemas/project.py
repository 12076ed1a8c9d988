"""What goes over the wire. Lengths in whole ticks, money as decimal numbers, names as in the
exchange page.
"""

from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import BaseModel, BeforeValidator, Field

from vividplank.core.board import Board
from vividplank.core.cutlist import Measure, Part
from vividplank.core.fields import FormulaText, Name, Note, Number, Ticks
from vividplank.core.layout.model.plan import Segment
from vividplank.core.shop import Shop
from vividplank.web.shapes import Body, Corner, SystemName


class MeasureValueBody(Body):
    """A measure with its value: ticks of a length, or a plain number."""

    name: Name
    text: FormulaText
    kind: Literal["length", "number"]
    note: Note
    ticks: int | None
    number: float | None


class ProjectBody(Body):
    pk: Number
    name: str
    system: SystemName
    version: Number
    shop: Shop
    parts: list[Part]
    boards: list[Board]
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


@dataclass(frozen=True)
class PutPart(Part):
    """A part as it is to be; `was` is the id it had, empty for a new one or an unchanged id."""

    was: Name = ""


@dataclass(frozen=True)
class PutBoard(Board):
    """A board as it is to be; `was` as for parts."""

    was: Name = ""


def _whole(value: Any) -> Any:
    """A shop is sent with all that a plan depends on: what is left out would be lost."""
    needed = ("method", "kerf", "allowance", "end_trim", "min_blank_length", "max_slope")
    absent = [name for name in needed if isinstance(value, dict) and name not in value]
    if absent:
        raise ValueError(f"{absent[0]} is missing; expected all settings of the shop")
    return value


class EditBody(Body):
    """One edit: what is put and what is removed, made from `version`."""

    version: Number
    label: Annotated[str, Field(min_length=1, max_length=200)]
    name: Name | None = None
    system: SystemName | None = None
    shop: Annotated[Shop, BeforeValidator(_whole)] | None = None
    put_parts: Annotated[list[PutPart], Field(max_length=2000)] = []
    remove_parts: Annotated[list[Name], Field(max_length=2000)] = []
    put_boards: Annotated[list[PutBoard], Field(max_length=500)] = []
    remove_boards: Annotated[list[Name], Field(max_length=500)] = []
    measures: Annotated[list[Measure], Field(max_length=300)] | None = None


class VersionBody(Body):
    version: Number


class FinishedItemBody(Body):
    """So many `pieces` by their true size; a length is ripped to `across` strips, and `cuts` are
    the parts out of each.
    """

    length: Ticks
    width: Ticks
    pieces: int
    across: int
    cuts: list[list[str]]


class FinishedOfferBody(Body):
    """What of a supplier's lengths or sheets gives all that is wanted."""

    supplier: str
    items: list[FinishedItemBody]
    cost: float


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
    offers: list[FinishedOfferBody]


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
    shorter: Ticks
    then: int
    offers: list[FinishedOfferBody]


class SheetPlanBody(Body):
    species: str
    thickness: Ticks
    sheets: int
    least: int
    unplaced: int
    boards: list[Board]
    parts: list[Part]
    cut: list[list[Segment]]


class SheetPlans(Body):
    plans: list[SheetPlanBody]


class BoardAccountBody(Body):
    board: str
    species: str
    rough: float
    price: float
    share: float
    where: dict[str, float]
    chips: dict[str, float]


class LabourBody(Body):
    """Minutes at a machine: planned for all steps, foretold for those whose time is known, and
    taken for these.
    """

    machine: str
    planned: float
    foretold: float
    taken: float


class SoFarBody(Body):
    """What has really happened to the boards that have been cut into, beside what was planned for
    all of them; board feet by category.
    """

    boards: list[str]
    rough: float
    planned: dict[str, float]
    where: dict[str, float]
    labour: list[LabourBody]


class PartCostBody(Body):
    """All pieces of a part: board feet as finished, and what their wood cost."""

    part: str
    name: str
    pieces: int
    feet: float
    cost: float


class AccountBody(Body):
    """Board feet by category, the chips of them by operation; `per_foot_bought`,
    `per_foot_of_parts` in the shop's money. What the parts cost, `kept_worth` (offcuts) and
    `for_nothing` (boards that give no part) add up to `price`.
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
    parts: list[PartCostBody]
    kept_worth: float
    for_nothing: float
    so_far: SoFarBody | None


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
