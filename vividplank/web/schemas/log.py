"""The log over the wire: pieces as they are, and what happened to them. Lengths in ticks."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.board import Defect
from vividplank.core.fields import MOST, Name, Note, Number, Ticks
from vividplank.core.log.events import Quantity, Size, Then
from vividplank.core.log.state import PieceState
from vividplank.web.shapes import Body


class FaultBody(Body):
    kind: str
    face: str
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks


class HeldBody(Body):
    """A piece as it is: `items` are what it is for, `names` how the list calls these, `outline` its
    sides (x, low, high) along it, in its own axes; `found` counts the faults found since.
    """

    mark: str
    board: str
    state: PieceState
    length: Ticks
    width: Ticks
    thickness: Ticks
    items: list[str]
    names: list[str]
    outline: list[list[Ticks]]
    faults: list[FaultBody]
    found: int
    spoiled: str


class HeldBodies(Body):
    pieces: list[HeldBody]


class FoundEvent(Body):
    kind: Literal["found"]
    piece: Name
    defect: Defect
    note: Note = ""


class SpoiledEvent(Body):
    kind: Literal["spoiled"]
    piece: Name
    why: Name
    then: Then
    note: Note = ""


class MeasuredEvent(Body):
    kind: Literal["measured"]
    piece: Name
    what: Quantity
    value: Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)]
    note: Note = ""


class AcceptedEvent(Body):
    kind: Literal["accepted"]
    piece: Name
    note: Note = ""


class HappenedBody(Body):
    """`at` is when it happened, in ISO 8601. The same again, at the same moment, is written once:
    it may be sent twice where the answer did not come through.
    """

    event: Annotated[
        FoundEvent | SpoiledEvent | MeasuredEvent | AcceptedEvent, Field(discriminator="kind")
    ]
    who: Name = ""
    at: Annotated[str, Field(max_length=40)] = ""


class ShortBody(Body):
    """A part that a piece is a hair too small for: what of it, what is wanted, and what there is,
    in ticks.
    """

    part: Name
    name: str
    what: Size
    wanted: Ticks
    there: Ticks


class HappenedAnswer(Body):
    """The event's number; whether the piece still fits what it is for, and else what it would
    make. `short` names the parts that would fit it were they a hair smaller.
    """

    n: int
    says: str
    fits: bool
    serves: list[str]
    short: list[ShortBody]


class EventBody(Body):
    """An event, and what it says in a sentence; `stands` unless it was taken back."""

    n: int
    at: str
    who: str
    kind: str
    piece: str
    says: str
    note: str
    stands: bool


class LogBody(Body):
    """`open` when something happened that the standing plan does not know of."""

    events: list[EventBody]
    open: bool


class FreedBody(Body):
    piece: str
    items: list[str]
    says: str


class RemainingBody(Body):
    """What planning the rest again would find: what is freed and why, what stands, and how many
    parts are to be laid out on how many boards and pieces.
    """

    begun: list[str]
    freed: list[FreedBody]
    kept: int
    finished: int
    parts: int
    boards: int
    pieces: list[str]


class EventPath(Body):
    project: Number
    n: Annotated[int, Field(ge=1, le=MOST)]


class TakenInBody(Body):
    """How many events of a log from elsewhere were written."""

    events: int
