"""Milling over the wire: steps, settings, schools, days, passes and readings. Lengths in ticks."""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.fields import Name, Number, Ticks
from vividplank.core.milling.days.resting import Resting
from vividplank.core.milling.model.step import Does, Method, Task
from vividplank.core.milling.shop.school import Milling
from vividplank.web.shapes import Body, SystemName


class WayBody(Body):
    machine: str
    method: Method
    do: str
    costs: str
    danger: str
    guard_off: bool


class CornerBody(Body):
    x: Ticks
    y: Ticks
    depth: Ticks


class ShimBody(Body):
    x: Ticks
    y: Ticks
    height: Ticks


class FellowBody(Body):
    piece: str
    measure: Ticks


class StepBody(Body):
    """A step; `usual_passes` is how many it usually takes in this workshop."""

    key: str
    kind: str
    machine: str
    board: str
    piece: str
    do: str
    down: str
    against: str
    first: str
    setting: Ticks
    set_to: str
    dimension: str
    passes: list[Ticks]
    usual_passes: int
    turns: list[str]
    readings: list[Ticks]
    stock_in: Ticks
    stock_out: Ticks
    tolerance: Ticks
    turn_over: int
    size: list[Ticks]
    leaves: str
    check: str
    why: str
    obstacle: str
    ways: list[WayBody]
    pieces: list[str]
    marks: list[str]
    setup: str
    after: list[str]
    hold: int
    minutes: float
    people: int
    does: Does
    way: Method
    takes: list[str]
    gives: list[str]
    cuts: Literal["", "A", "B"]
    face_down: Literal["", "A", "B"]
    along: Literal["", "line", "datum-edge", "far-edge"]
    edge: list[Literal["datum-edge", "far-edge"]]
    knocked: list[CornerBody]
    shims: list[ShimBody]
    fellows: list[FellowBody]
    spare: int
    clean: float
    holds: Ticks
    task: Task | None
    done: bool
    reading: Ticks | None
    ready: bool
    rests_until: str


class RouteBody(Body):
    board: str
    steps: list[StepBody]


class WhereBody(Body):
    mark: str
    name: str
    board: str
    piece: str
    place: str


class MillingBody(Body):
    layout: Number
    stale: bool
    system: SystemName
    routes: list[RouteBody]
    cautions: dict[str, list[str]]
    where: list[WhereBody]


class MillingSettings(Body):
    """`version` counts how often they were set; a change names the one it was made from."""

    milling: Milling
    version: Number


class SchoolBody(Body):
    school: str
    title: str
    steps: str
    good_for: str
    minutes: float
    passes: int
    setups: int
    rest: int
    spare: int
    by_hand: int
    not_here: int


class SchoolsBody(Body):
    schools: list[SchoolBody]
    advised: str
    why: str
    chosen: str


class StepDone(Body):
    key: Annotated[str, Field(max_length=200)]
    done: bool
    reading: Ticks | None = None
    minutes: Annotated[float, Field(ge=0, le=100_000)] | None = None
    passes: Annotated[int, Field(ge=0, le=10_000)] | None = None
    who: Name = ""


class MeasuredBody(Body):
    key: Annotated[str, Field(max_length=200)]
    reading: Ticks


class InstrumentBody(MeasuredBody):
    """`reading` is what the passes so far should have left."""

    instrument: Literal["caliper", "readout"] = "caliper"


class CaliperBody(Body):
    reading: Ticks | None
    trouble: str


class VerdictBody(Body):
    state: Literal["done", "go on", "stop"]
    says: str
    passes: list[Ticks]
    turns: list[str]
    ways: list[str]


class PassesBody(Body):
    piece: Name
    machine: Literal["jointer", "planer"] = "jointer"
    down: Literal["", "A", "B"] = ""
    press: Literal["outfeed", "infeed"] = "outfeed"
    far_end_first: bool = False


class FrameBody(Body):
    clean: float
    lines: list[list[bool]]
    thickest: Ticks
    thinnest: Ticks
    level: int
    bent: Ticks


class WatchedBody(Body):
    piece: str
    length: Ticks
    width: Ticks
    down: str
    depth: Ticks
    frames: list[FrameBody]
    enough: int
    says: str


class AskDays(Body):
    begins: Annotated[str, Field(pattern=r"^\d{4}-\d{2}-\d{2}$")]
    on_day: dict[str, Annotated[int, Field(ge=0, le=365)]] = {}


class SetupBody(Body):
    machine: str
    setup: str
    number: int
    set_to: str
    steps: list[str]
    begins: int
    ends: int
    day: int
    from_clock: int
    to_clock: int
    people: int


class DaysBody(Body):
    """`resting` are boards that wait until they have come near the moisture of the shop's air."""

    state: Literal["none", "asked", "done", "failed"]
    begins: str
    on_day: dict[str, int]
    trouble: str
    setups: list[SetupBody]
    minutes: int
    changes: int
    least: int
    piece_by_piece: int
    proved: bool
    resting: list[Resting]
    day_minutes: int
    opens: int
    stale: bool
