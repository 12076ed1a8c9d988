"""The shape of log files, as the exchange page describes them. Lengths in the file's unit."""

from typing import Annotated, Any, Literal

from pydantic import Discriminator, Field, Tag

from vividplank.core.exchange.derived import Length, Shape
from vividplank.core.exchange.job_shape import DefectShape, Name, NotNegative
from vividplank.core.log.events import Quantity, Then

_Number = Annotated[int, Field(strict=True, ge=1, le=10**9)]


class EventShape(Shape):
    n: _Number
    at: Annotated[str, Field(strict=True, max_length=40)] = ""
    who: Annotated[str, Field(strict=True, max_length=200)] = ""
    note: Annotated[str, Field(strict=True, max_length=2000)] = ""


class DidShape(EventShape):
    kind: Literal["did"]
    step: Name
    reading: NotNegative | None = None
    passes: Annotated[int, Field(strict=True, ge=0, le=10_000)] | None = None
    minutes: NotNegative | None = None


class CutPieceShape(Shape):
    piece: Name
    x0: NotNegative | None = None
    x1: NotNegative | None = None
    h0: NotNegative | None = None
    h1: NotNegative | None = None


class CutShape(EventShape):
    """A cut no route asked for: pieces by x0, x1 of a crosscut, by h0, h1 of a rip."""

    kind: Literal["did"]
    does: Literal["crosscut", "rip"]
    takes: Annotated[list[Name], Field(min_length=1, max_length=1)]
    gives: Annotated[list[CutPieceShape], Field(min_length=1, max_length=50)]


class MeasuredShape(EventShape):
    kind: Literal["measured"]
    piece: Name
    what: Quantity
    value: Length
    x: Length | None = None
    y: Length | None = None
    with_: Annotated[str, Field(alias="with", max_length=200)] = ""


class FoundShape(EventShape):
    kind: Literal["found"]
    piece: Name
    defect: DefectShape


class SpoiledShape(EventShape):
    kind: Literal["spoiled"]
    piece: Name
    why: Name
    then: Then


class AcceptedShape(EventShape):
    kind: Literal["accepted"]
    piece: Name


class VoidShape(EventShape):
    kind: Literal["void"]
    event: _Number


def _kind(event: Any) -> str | None:
    """A step of the route that was done, or a cut that no route asked for, are both `did`."""
    said = event if isinstance(event, dict) else vars(event)
    kind = said.get("kind")
    return "cut" if kind == "did" and "does" in said else kind


class LogShape(Shape):
    """A log: what happened to the wood of a job, in order."""

    format: Literal["vivid-plank/log"]
    version: Literal[1]
    unit: Literal["in", "mm"]
    events: list[
        Annotated[
            Annotated[DidShape, Tag("did")]
            | Annotated[CutShape, Tag("cut")]
            | Annotated[MeasuredShape, Tag("measured")]
            | Annotated[FoundShape, Tag("found")]
            | Annotated[SpoiledShape, Tag("spoiled")]
            | Annotated[AcceptedShape, Tag("accepted")]
            | Annotated[VoidShape, Tag("void")],
            Discriminator(_kind),
        ]
    ]
