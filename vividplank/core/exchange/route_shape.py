"""The shape of route files, as the exchange page describes them. Lengths in the file's unit."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.exchange.derived import Length, Shape
from vividplank.core.exchange.job_shape import ItemShape, Name
from vividplank.core.milling.model.step import Does, Machine, Method

Side = Literal["datum-edge", "far-edge"]
FaceName = Literal["A", "B"]
Share = Annotated[float, Field(ge=0, le=1)]
Slope = Annotated[float, Field(ge=-1, le=1, allow_inf_nan=False)]


class GivenShape(Shape):
    """A piece a step gives, and where it lies in the piece it takes."""

    piece: Name
    x0: Length | None = None
    x1: Length | None = None
    y0: Length = 0
    slope: Slope = 0.0
    h0: Length | None = None
    h1: Length | None = None
    z0: Length | None = None
    z1: Length | None = None
    items: list[ItemShape] = []


class SizeShape(Shape):
    length: Length
    width: Length
    thickness: Length


class PlaneShape(Shape):
    """z = a·x + b·y + c in the axes of the piece given."""

    a: Slope
    b: Slope
    c: Length


class KnockedShape(Shape):
    x: Length
    y: Length
    depth: Length


class ShimShape(Shape):
    x: Length
    y: Length
    height: Length


class FellowShape(Shape):
    piece: Name
    measure: Length


class StepShape(Shape):
    key: Name
    machine: Machine
    does: Does
    after: list[Name]
    takes: Annotated[list[Name], Field(min_length=1)]
    gives: Annotated[list[GivenShape], Field(min_length=1)]
    size_in: dict[Name, SizeShape]
    size_out: dict[Name, SizeShape]
    minutes: Annotated[float, Field(ge=0)]
    says: str
    because: str
    here: Literal[False] | None = None
    way: Method = "machine"
    danger: str = ""
    obstacle: str = ""
    cuts: FaceName | None = None
    face_down: FaceName | None = None
    end_first: Literal["datum", "far"] | None = None
    along: Side | Literal["line"] | None = None
    across: Literal["width", "thickness"] | None = None
    edges: list[Side] = []
    plane: PlaneShape | None = None
    clean: Share | None = None
    holds: Length | None = None
    knocked: list[KnockedShape] = []
    shims: list[ShimShape] = []
    depth: Length | None = None
    passes: int | list[Length] | None = None
    turned: Annotated[int, Field(ge=1)] | None = None
    setting: Length | None = None
    measure: Length | None = None
    fellows: list[FellowShape] = []
    hours: Annotated[float, Field(ge=0)] | None = None


class RouteShape(Shape):
    """A route: the steps of every piece, from the boards to finished parts."""

    format: Literal["vivid-plank/route"]
    version: Literal[1]
    unit: Literal["in", "mm"]
    steps: list[StepShape]
