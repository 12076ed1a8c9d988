"""The shape of plan files, as the exchange page describes them. Lengths in the file's unit."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.exchange.derived import Length, Shape
from vividplank.core.exchange.job_shape import Count, ItemShape, Name, NotNegative


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


class ClosedShape(Shape):
    piece: Name
    after: Name
    then: Literal["scrap", "stock"]
    items: list[ItemShape]
    board: str = ""


class SummaryShape(Shape):
    cost: Annotated[float, Field(strict=True, ge=0, allow_inf_nan=False)]
    lower_bound: Annotated[float, Field(strict=True, ge=0, allow_inf_nan=False)]
    seconds: Annotated[float, Field(strict=True, ge=0, allow_inf_nan=False)] = 0.0


_Size = tuple[NotNegative, NotNegative, NotNegative]


class MadeShape(Shape):
    """Sizes (length, width, thickness) in the order they were made."""

    part: Name
    n: Annotated[int, Field(strict=True, ge=1)]
    sizes: Annotated[list[_Size], Field(min_length=1, max_length=50)]


class PlanShape(Shape):
    """A plan: how every board is cut."""

    format: Literal["vivid-plank/plan"]
    version: Literal[1]
    unit: Literal["in", "mm"]
    boards: list[BoardPlanShape]
    unplaced: list[UnplacedShape] = []
    closed: list[ClosedShape] = []
    made: list[MadeShape] = []
    summary: SummaryShape
