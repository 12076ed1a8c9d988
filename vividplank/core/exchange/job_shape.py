"""The shape of job files, as the exchange page describes them. Lengths in the file's unit."""

from collections.abc import Iterator
from typing import Annotated, Literal

from pydantic import Field, create_model

from vividplank.core.board import Board
from vividplank.core.cutlist import Measure, Part
from vividplank.core.exchange.derived import Length, Shape, shape_of
from vividplank.core.milling.shop.machines import Machines
from vividplank.core.milling.shop.workshop import Instruments
from vividplank.core.shop import Shop
from vividplank.core.timber.rest import Climate

Positive = Annotated[float, Field(strict=True, gt=0, le=1e6, allow_inf_nan=False)]
NotNegative = Annotated[float, Field(strict=True, ge=0, le=1e6, allow_inf_nan=False)]
Count = Annotated[int, Field(strict=True, ge=1, le=100_000)]
Name = Annotated[str, Field(strict=True, min_length=1, max_length=200)]


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
    layer: NotNegative = 0


class PlainShopShape(Shape):
    method: Literal["mill-wide", "rough-rip"]
    kerf: KerfShape
    allowance: AllowanceShape
    end_trim: NotNegative
    min_blank_length: NotNegative
    max_slope: Annotated[float, Field(strict=True, ge=0, le=1, allow_inf_nan=False)]


class OfWorkshopShape(PlainShopShape):
    """What a file says under `shop` that is the workshop's, beside how it cuts."""

    climate: shape_of(Climate, Shape) | None = None  # type: ignore[valid-type]
    instruments: shape_of(Instruments, Shape) | None = None  # type: ignore[valid-type]


ShopShape = shape_of(Shop, OfWorkshopShape)


class PanelShape(Shape):
    stave_min: Positive
    stave_max: Positive


class PlainPartShape(Shape):
    """What the first version says of a part; all else is derived from the core's Part."""

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


PartShape = shape_of(Part, PlainPartShape)


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


class PlainBoardShape(Shape):
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
    supplier: Annotated[str, Field(strict=True, max_length=200)] = ""
    from_: Annotated[Name | None, Field(alias="from")] = None


class ItemShape(Shape):
    """An instance of a part, or a stave of one."""

    part: Name
    n: Count
    stave: Count | None = None


class KeptShape(Shape):
    """A piece whose work goes on, and what it is for; its items are not wanted again."""

    piece: Name
    items: list[ItemShape]


#: What a board has beyond that comes with version 3.
BoardShape = shape_of(Board, PlainBoardShape)
MeasureShape = shape_of(Measure, Shape)
MachinesShape = shape_of(Machines, Shape)


def _beyond(shape: type[Shape], plain: type[Shape]) -> frozenset[str]:
    return frozenset(shape.model_fields) - frozenset(plain.model_fields)


class PlainJobShape(Shape):
    """A job: what is wanted and what stock there is. A version knows nothing of what ADDED lists
    for later ones.
    """

    format: Literal["vivid-plank/job"]
    version: Literal[1, 2, 3]
    unit: Literal["in", "mm"]
    name: str = ""
    shop: PlainShopShape
    parts: list[PlainPartShape]
    boards: list[PlainBoardShape]


JobShape = create_model(
    "JobShape",
    __base__=PlainJobShape,
    shop=(ShopShape, ...),
    parts=(list[PartShape], ...),  # type: ignore[valid-type]
    boards=(list[BoardShape], ...),  # type: ignore[valid-type]
    measures=(list[MeasureShape], Field(default=[], max_length=300)),  # type: ignore[valid-type]
    machines=(MachinesShape | None, None),  # type: ignore[arg-type]
    kept=(list[KeptShape], []),
)
JobShape.__doc__ = PlainJobShape.__doc__


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
        AllowanceShape: frozenset({"between", "layer"}),
        PartShape: _beyond(PartShape, PlainPartShape),
        ShopShape: _beyond(ShopShape, PlainShopShape),
        BoardShape: _beyond(BoardShape, PlainBoardShape) | {"supplier", "from_"},
        JobShape: frozenset({"measures", "machines", "kept"}),
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
