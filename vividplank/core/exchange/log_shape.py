"""The shape of log files, as the exchange page describes them. Lengths in the file's unit."""

from typing import Annotated, Literal

from pydantic import Field

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


class VoidShape(EventShape):
    kind: Literal["void"]
    event: _Number


class LogShape(Shape):
    """A log: what happened to the wood of a job, in order."""

    format: Literal["vivid-plank/log"]
    version: Literal[1]
    unit: Literal["in", "mm"]
    events: list[
        Annotated[
            DidShape | MeasuredShape | FoundShape | SpoiledShape | VoidShape,
            Field(discriminator="kind"),
        ]
    ]
