"""The shape of job and plan files, as the exchange page describes them. Lengths in the file's
unit.
"""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

# A length of a kilometre or more is a slip; the bound also keeps ticks far inside 64 bits.
Length = Annotated[float, Field(strict=True, ge=-1e6, le=1e6, allow_inf_nan=False)]
Positive = Annotated[float, Field(strict=True, gt=0, le=1e6, allow_inf_nan=False)]
NotNegative = Annotated[float, Field(strict=True, ge=0, le=1e6, allow_inf_nan=False)]
Count = Annotated[int, Field(strict=True, ge=1, le=100_000)]
Name = Annotated[str, Field(strict=True, min_length=1, max_length=200)]


class Shape(BaseModel):
    model_config = ConfigDict(extra="forbid")


class KerfShape(Shape):
    crosscut: NotNegative
    rip: NotNegative
    resaw: NotNegative


class AllowanceShape(Shape):
    length: NotNegative
    width: NotNegative
    face: NotNegative
    panel_width: NotNegative
    between: NotNegative = 0


class ShopShape(Shape):
    method: Literal["mill-wide", "rough-rip"]
    kerf: KerfShape
    allowance: AllowanceShape
    end_trim: NotNegative
    min_blank_length: NotNegative
    max_slope: Annotated[float, Field(strict=True, ge=0, le=1, allow_inf_nan=False)]


class PanelShape(Shape):
    stave_min: Positive
    stave_max: Positive


class PartShape(Shape):
    id: Name
    name: str = ""
    quantity: Count
    species: Name
    length: Positive
    width: Positive
    thickness: Positive
    faces: Literal["clear-two", "clear-one", "sound"]
    panel: PanelShape | None = None
    run: Name | None = None
    figure: Literal["", "straight", "cathedral", "quarter", "curly"] = ""
    same_board: Annotated[str, Field(strict=True, max_length=200)] = ""
    match: Annotated[str, Field(strict=True, max_length=200)] = ""
    resawn: Annotated[bool, Field(strict=True)] = False


class StationShape(Shape):
    x: NotNegative
    y0: Length
    y1: Length
    t0: Positive
    t1: Positive
    between: Annotated[list[Positive], Field(max_length=20)] = []


class WarpShape(Shape):
    bow: Length = 0
    cup: Length = 0
    twist: Length = 0


class DefectShape(Shape):
    kind: Name
    face: Literal["A", "B", "both"]
    x0: Length
    x1: Length
    y0: Length
    y1: Length
    shape: Literal["rectangle", "ellipse", "outline"] = "rectangle"
    points: Annotated[
        list[Annotated[list[Length], Field(min_length=2, max_length=2)]], Field(max_length=400)
    ] = []
    severity: Literal["slight", "plain", "grave"] = "plain"


Row = Annotated[list[Length], Field(min_length=2, max_length=500)]


class SurfaceShape(Shape):
    xs: Row
    ys: Row
    lower: Annotated[list[Row], Field(min_length=2, max_length=500)]
    upper: Annotated[list[Row], Field(min_length=2, max_length=500)]


class ZoneShape(Shape):
    figure: Literal["straight", "cathedral", "quarter", "curly"]
    x0: Length
    x1: Length
    y0: Length
    y1: Length


Slope = Annotated[float, Field(strict=True, ge=-1, le=1, allow_inf_nan=False)]


class GrainShape(Shape):
    datum_edge: Slope | None = None
    far_edge: Slope | None = None
    across: Slope = 0.0
    rings: Annotated[int, Field(strict=True, ge=0, le=90)] | None = None
    heart: Literal["", "A", "B"] = ""
    zones: Annotated[list[ZoneShape], Field(max_length=50)] = []


class MoistureShape(Shape):
    percent: Annotated[float, Field(strict=True, gt=0, le=100, allow_inf_nan=False)]
    day: Annotated[int, Field(strict=True, ge=0, le=100_000)]
    x: Length | None = None
    y: Length | None = None


SideName = Literal["A", "B", "datum-edge", "far-edge"]


class BoardShape(Shape):
    id: Name
    species: Name
    length: Positive
    price: NotNegative = 0
    stations: Annotated[list[StationShape], Field(min_length=2)]
    warp: WarpShape = WarpShape()
    defects: list[DefectShape] = []
    surface: SurfaceShape | None = None
    grain: GrainShape | None = None
    dressed: Annotated[list[SideName], Field(max_length=4)] = []
    moisture: Annotated[list[MoistureShape], Field(max_length=400)] = []
    grade: Annotated[str, Field(strict=True, max_length=40)] = ""
    searched: Annotated[bool, Field(strict=True)] = False
    quarter: Annotated[str, Field(strict=True, max_length=10)] = ""
    note: Annotated[str, Field(strict=True, max_length=2000)] = ""


#: What versions added, by the version and the shape it was added to.
ADDED: dict[int, dict[type[Shape], frozenset[str]]] = {
    2: {
        StationShape: frozenset({"between"}),
        DefectShape: frozenset({"shape", "points", "severity"}),
        BoardShape: frozenset(
            {"surface", "grain", "dressed", "moisture", "grade", "searched", "quarter", "note"}
        ),
    },
    3: {
        AllowanceShape: frozenset({"between"}),
        PartShape: frozenset({"figure", "same_board", "match", "resawn"}),
    },
}


def newer_names(shape: Shape, version: int, path: str = "$") -> Iterator[tuple[str, int]]:
    """Names that a file of this version uses and only a later one knows: where, and of which."""
    for later in (v for v in ADDED if v > version):
        for name in sorted(shape.model_fields_set & ADDED[later].get(type(shape), frozenset())):
            yield f"{path}.{name}", later
    for name in shape.model_fields_set:
        value = getattr(shape, name)
        for at, each in enumerate(value) if isinstance(value, list) else [(-1, value)]:
            if isinstance(each, Shape):
                yield from newer_names(
                    each, version, f"{path}.{name}" + (f"[{at}]" if at >= 0 else "")
                )


class JobShape(Shape):
    """A job: what is wanted and what stock there is. A version knows nothing of what ADDED lists
    for later ones.
    """

    format: Literal["vivid-plank/job"]
    version: Literal[1, 2, 3]
    unit: Literal["in", "mm"]
    name: str = ""
    shop: ShopShape
    parts: list[PartShape]
    boards: list[BoardShape]


class ItemShape(Shape):
    part: Name
    n: Count
    stave: Count | None = None


class BlankShape(Shape):
    x0: Length
    x1: Length
    layers: Annotated[list[Annotated[list[ItemShape], Field(min_length=1)]], Field(min_length=1)]


class StripShape(Shape):
    y0: Length
    y1: Length
    blanks: list[BlankShape]


class SegmentShape(Shape):
    x0: Length
    x1: Length
    y0: Length
    slope: Annotated[float, Field(strict=True, ge=-1, le=1, allow_inf_nan=False)] = 0.0
    strips: list[StripShape]


class BoardPlanShape(Shape):
    board: Name
    segments: list[SegmentShape]


class UnplacedShape(Shape):
    part: Name
    n: Count
    why: str = ""


class SummaryShape(Shape):
    cost: Annotated[float, Field(strict=True, ge=0, allow_inf_nan=False)]
    lower_bound: Annotated[float, Field(strict=True, ge=0, allow_inf_nan=False)]
    seconds: Annotated[float, Field(strict=True, ge=0, allow_inf_nan=False)] = 0.0


class PlanShape(Shape):
    """A plan: how every board is cut."""

    format: Literal["vivid-plank/plan"]
    version: Literal[1]
    unit: Literal["in", "mm"]
    boards: list[BoardPlanShape]
    unplaced: list[UnplacedShape] = []
    summary: SummaryShape
