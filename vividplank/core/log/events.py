"""Events: what happened to a piece, in the order it happened; nothing is edited, only voided.

Lengths in ticks, places in the axes of the piece. The file of the exchange format holds the same
facts in its own unit (docs/exchange.md, "The log").
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from pydantic import Field, TypeAdapter

from vividplank.core.board import Defect
from vividplank.core.fields import Name, Note, NotNegativeTicks, Ticks

Quantity = Literal["thickness", "width", "length", "bow", "cup", "twist", "crook", "moisture"]
Size = Literal["thickness", "width", "length"]
Then = Literal["scrap", "stock"]
_Count = Annotated[int, Field(strict=True, ge=1, le=10**9)]


@dataclass(frozen=True, kw_only=True)
class _Event:
    n: _Count
    at: Annotated[str, Field(max_length=40)] = ""
    who: Name = ""
    note: Note = ""


@dataclass(frozen=True, kw_only=True)
class Did(_Event):
    """A step of the route was done as written, but for what is said here. `reading` is what was
    read of the dimension it changes.
    """

    step: Name
    reading: NotNegativeTicks | None = None
    passes: Annotated[int, Field(strict=True, ge=0, le=10_000)] | None = None
    minutes: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] | None = None
    kind: Literal["did"] = "did"


@dataclass(frozen=True)
class Span:
    """What lies between two places of a piece along it (crosscut) or across it (rip)."""

    piece: Name
    low: NotNegativeTicks
    high: NotNegativeTicks


@dataclass(frozen=True, kw_only=True)
class Cut(_Event):
    """A cut that no route asked for: what it gives is for nothing yet."""

    does: Literal["crosscut", "rip"]
    piece: Name
    gives: Annotated[tuple[Span, ...], Field(min_length=1, max_length=50)]
    kind: Literal["cut"] = "cut"


@dataclass(frozen=True, kw_only=True)
class Measured(_Event):
    """What a tool showed; lengths in ticks, moisture in percent."""

    piece: Name
    what: Quantity
    value: Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)]
    x: Ticks | None = None
    y: Ticks | None = None
    tool: Name = ""
    kind: Literal["measured"] = "measured"


@dataclass(frozen=True, kw_only=True)
class Found(_Event):
    """A fault that nobody had seen, in the axes of the piece."""

    piece: Name
    defect: Defect
    kind: Literal["found"] = "found"


@dataclass(frozen=True, kw_only=True)
class Spoiled(_Event):
    """A piece no longer serves for what it was for; what is left of it is scrap, or stock."""

    piece: Name
    why: Name
    then: Then
    kind: Literal["spoiled"] = "spoiled"


@dataclass(frozen=True, kw_only=True)
class Accepted(_Event):
    """A piece serves for what it was for as it is, whatever was seen of it before."""

    piece: Name
    kind: Literal["accepted"] = "accepted"


@dataclass(frozen=True, kw_only=True)
class Void(_Event):
    """An event taken back; one that voids another void lets that stand again."""

    event: _Count
    kind: Literal["void"] = "void"


#: What is said of one piece that is there.
Seen = Measured | Found | Spoiled | Accepted
Event = Did | Cut | Seen | Void
_EVENT: TypeAdapter[Event] = TypeAdapter(Annotated[Event, Field(discriminator="kind")])


class LogError(ValueError):
    """An event that cannot have happened: its number, and what was expected."""

    def __init__(self, n: int, why: str) -> None:
        super().__init__(f"event {n} {why}")
        self.n = n
        self.why = why


def event_from_document(document: dict[str, Any]) -> Event:
    return _EVENT.validate_python(document)


def event_to_document(event: Event) -> dict[str, Any]:
    """The event as JSON values, without what is as usual."""
    document: dict[str, Any] = _EVENT.dump_python(event, mode="json", exclude_defaults=True)
    return {"kind": event.kind, **document}


def standing(events: Iterable[Event]) -> tuple[Event, ...]:
    """The events that are not voided, in the order of their numbers; a LogError where two have one
    number, or a void names none before it.
    """
    ordered = sorted(events, key=lambda e: e.n)
    seen: set[int] = set()
    for event in ordered:
        if event.n in seen:
            raise LogError(event.n, "is there twice; expected every number once")
        if isinstance(event, Void) and event.event not in seen:
            raise LogError(event.n, f"voids {event.event}; expected an event before it")
        seen.add(event.n)
    gone: set[int] = set()
    for event in reversed(ordered):
        if isinstance(event, Void) and event.n not in gone:
            gone.add(event.event)
    return tuple(e for e in ordered if e.n not in gone and not isinstance(e, Void))
