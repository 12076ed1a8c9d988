"""A board surveyed before any cut, over the wire. Lengths in ticks."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.board import Board, Surface, Warp
from vividplank.core.fields import Name, Number, Ticks
from vividplank.web.schemas.board import PieceBody
from vividplank.web.shapes import Body


class CutPieceBody(PieceBody):
    """`corners` to take off face B first: datum edge near and far, then the other edge; `saved` by
    shimming it so.

    `below` and `above`: what comes off face B and face A, row by row along x0..x1, each from y0 to
    y1.
    """

    corners: list[Ticks]
    saved: Ticks
    y0: Ticks
    y1: Ticks
    below: list[list[Ticks]]
    above: list[list[Ticks]]


class AreaBody(Body):
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks
    face: Literal["A", "B", "both"]


class TryCuts(Body):
    board: Board
    places: Annotated[list[Ticks], Field(max_length=20)] = []


class TriedCuts(Body):
    pieces: list[CutPieceBody]


class SurveyAsk(Body):
    """A board; a thickness wanted of it; a quality looked for."""

    board: Board
    wanted: Annotated[Ticks, Field(gt=0)] | None = None
    quality: Literal["clear-two", "clear-one", "sound"] = "clear-one"


class RestBody(Body):
    """`away` from equilibrium in points; `shrinks` in ticks of its width until then, quarter-sawn
    and flat-sawn.
    """

    equilibrium: float
    away: float
    days: float
    least: float
    most: float
    own: bool
    uneven: float
    workable: float
    work_now: bool
    shrinks: list[Ticks] | None
    coefficients_hold: bool


class SurveyBody(Body):
    said: str
    rest: RestBody | None
    areas: list[AreaBody]
    grade: str
    share: float
    surface: int
    about: bool
    clear_feet: float


class Offer(Body):
    name: Name
    says: str


class OfferList(Body):
    """What instruments can be connected, by kind."""

    caliper: list[Offer]
    readout: list[Offer]
    moisture: list[Offer]
    metal: list[Offer]
    scanner: list[Offer]


class ReadAt(Body):
    board: Board
    x: Ticks
    y: Ticks
    day: Annotated[int, Field(ge=0, le=100_000)] = 0


class ReadBody(Body):
    """`thickness` or `percent`, or neither and `trouble` says why; `question` where the reading is
    odd.
    """

    thickness: Ticks | None = None
    percent: Annotated[float, Field(ge=0, le=100, allow_inf_nan=False)] | None = None
    question: str = ""
    trouble: str = ""


class BoardAlone(Body):
    board: Board


class SweepBody(Body):
    places: list[list[Ticks]]
    said: str


class ScanBody(Body):
    """The surface found, its warp in words' figures, and how sure it is; or `trouble`."""

    surface: Surface | None = None
    warp: Warp = Warp()
    sure: Ticks = 0
    lost: float = 0.0
    said: str = ""
    questions: list[str] = []
    trouble: str = ""


class StraightenBody(Body):
    """Corners as shares of the photograph's width and height: datum end and edge, far end, its far
    edge, datum end again.
    """

    board: Board
    face: Literal["A", "B"]
    corners: Annotated[
        list[Annotated[list[float], Field(min_length=2, max_length=2)]],
        Field(min_length=4, max_length=4),
    ]


class PictureBody(Body):
    picture: Number
    straight: bool
    corners: list[list[float]]


class PicturePath(Body):
    picture: Number


class StockQuery(Body):
    wood: Name = ""
    thickness: Annotated[int, Field(ge=0, le=10**8)] = 0
    length: Annotated[int, Field(ge=0, le=10**8)] = 0
    width: Annotated[int, Field(ge=0, le=10**8)] = 0


class StockEntryBody(Body):
    """`flat` is what lies in it whole; `place` where the piece asked for comes out; `clear` its
    longest sound length.
    """

    project: Number
    project_name: str
    rack: bool
    version: Number
    id: Name
    species: Name
    quarter: str
    length: Ticks
    width: Ticks
    flat: Ticks
    clear: Ticks
    board_feet: float
    weight_kg: float | None
    price: float
    note: str
    state: Literal["free", "planned", "cut"]
    used_for: list[str]
    place: AreaBody | None


class StockList(Body):
    boards: list[StockEntryBody]
    rack: Number


class CarryBody(Body):
    project: Number
    version: Number
    board: Name
    to_project: Number


class CarriedBody(Body):
    id: Name
