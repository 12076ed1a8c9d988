"""Boards over the wire, and what a look at one tells. Lengths in ticks."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.web.shapes import Body, Corner, Name, Note, Number, Ticks

Slope = Annotated[float, Field(ge=-1, le=1, allow_inf_nan=False)]
Heights = Annotated[
    list[Annotated[list[Ticks], Field(min_length=2, max_length=500)]],
    Field(min_length=2, max_length=500),
]
Places = Annotated[list[Ticks], Field(min_length=2, max_length=500)]


class StationBody(Body):
    x: Ticks
    y0: Ticks
    y1: Ticks
    t0: Ticks
    t1: Ticks
    between: Annotated[list[Ticks], Field(max_length=20)] = []


class WarpBody(Body):
    bow: Ticks = 0
    cup: Ticks = 0
    twist: Ticks = 0


class DefectBody(Body):
    kind: Annotated[str, Field(min_length=1, max_length=60)]
    face: Literal["A", "B", "both"]
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks
    shape: Literal["rectangle", "ellipse", "outline"] = "rectangle"
    points: Annotated[list[Corner], Field(max_length=400)] = []
    severity: Literal["slight", "plain", "grave"] = "plain"


class MoistureBody(Body):
    """`day` counts from 1970-01-01; `x`, `y` where on the board, if anyone noted it."""

    percent: Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)]
    day: Annotated[int, Field(strict=True, ge=0, le=100_000)]
    x: Ticks | None = None
    y: Ticks | None = None


class SurfaceBody(Body):
    """Heights of faces B and A at every xs[i], ys[j]."""

    xs: Places
    ys: Places
    lower: Heights
    upper: Heights


class ZoneBody(Body):
    figure: Literal["straight", "cathedral", "quarter", "curly"]
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks


class GrainBody(Body):
    datum_edge: Slope | None = None
    far_edge: Slope | None = None
    across: Slope = 0.0
    rings: Annotated[int, Field(ge=0, le=90)] | None = None
    heart: Literal["", "A", "B"] = ""
    zones: Annotated[list[ZoneBody], Field(max_length=50)] = []


class PhotoBody(Body):
    face: Literal["A", "B"]
    picture: Number


class BoardBody(Body):
    id: Name
    species: Name
    length: Ticks
    price: Annotated[float, Field(ge=0, le=1e7, allow_inf_nan=False)] = 0
    quarter: Annotated[str, Field(max_length=10)] = ""
    note: Note = ""
    stations: Annotated[list[StationBody], Field(min_length=2, max_length=200)]
    warp: WarpBody = WarpBody()
    defects: Annotated[list[DefectBody], Field(max_length=500)] = []
    moisture: Annotated[list[MoistureBody], Field(max_length=400)] = []
    surface: SurfaceBody | None = None
    grain: GrainBody = GrainBody()
    dressed: Annotated[list[Literal["A", "B", "datum-edge", "far-edge"]], Field(max_length=4)] = []
    grade: Annotated[str, Field(max_length=40)] = ""
    searched: bool = False
    photos: Annotated[list[PhotoBody], Field(max_length=2)] = []


class PieceBody(Body):
    """A length of the board laid flat: its slab lies between z = a·x + b·y + c and that plus
    `flat`.
    """

    x0: Ticks
    x1: Ticks
    flat: Ticks
    takes_below: Ticks
    takes_above: Ticks
    a: float
    b: float
    c: float


class CutBody(Body):
    name: Literal["whole", "halved", "in thirds"]
    flat: Ticks
    pieces: list[PieceBody]


class LookBody(Body):
    """What a board is and will yield. Board feet by the tape and by the ticket's rule; `causes`
    tells why it yields less.

    `warp` is that of its figures, or what comes nearest to its scanned underside; `outside` are
    faults wholly off the board.
    """

    quarter: str
    board_feet: float
    ticket_feet: float
    weight_kg: float | None
    alone: bool
    cuts: list[CutBody]
    advice: str
    causes: str
    sawn: str
    warp: WarpBody
    feed: list[str]
    outside: list[int]
