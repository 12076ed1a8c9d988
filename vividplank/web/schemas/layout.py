"""What goes over the wire about layouts: searches, plans, moves by hand, what is held, marks,
reasons, what-ifs.
"""

from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.fields import Number, Ticks
from vividplank.core.layout.model.plan import BoardPlan, Closed, Segment, Unplaced
from vividplank.web.shapes import Body, SystemName


class AskLayout(Body):
    seconds: Annotated[float, Field(gt=0, le=600)] = 10.0


class ItemBody(Body):
    part: str
    n: Annotated[int, Field(ge=1, le=1_000_000)]
    stave: Annotated[int, Field(ge=0, le=1_000_000)] = 0


class ForbiddenBody(Body):
    board: str
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks


class FixingsBody(Body):
    """What stays as it is when the rest is solved. `begun`, boards that are being cut, follows from
    the steps done and is only answered.
    """

    pins: list[ItemBody] = []
    forbidden: list[ForbiddenBody] = []
    excluded: list[str] = []
    priority: list[str] = []
    begun: list[str] = []


class MoveBody(Body):
    """A move by hand. `lay-down` needs board, x and y (where the blank's middle goes), `swap` the
    other item, `recut` x0 and x1 of the segment.
    """

    kind: Literal["lay-down", "take-up", "swap", "turn", "recut", "split", "join"]
    item: ItemBody
    other: ItemBody | None = None
    board: str = ""
    x: Ticks = 0
    y: Ticks = 0
    x0: Ticks = 0
    x1: Ticks = 0


class TriedBody(Body):
    """What a move would come to; where it does not hold, `why` says what stands against it."""

    holds: bool
    why: str
    cost: float
    cost_before: float
    yields: float
    yields_before: float
    unplaced: int
    board: str
    segments: list[Segment]  # of the board it touches


class ChalkMarkBody(Body):
    key: str
    kind: Literal["crosscut", "line", "piece"]
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks
    words: str
    saw: str
    done: bool


class OffcutBody(Body):
    length: Ticks
    width: Ticks


class BoardMarksBody(Body):
    board: str
    marks: list[ChalkMarkBody]
    offcuts: list[OffcutBody]


class ChalkBody(Body):
    """The marks of every board that is cut, in the order they are drawn."""

    layout: Number
    boards: list[BoardMarksBody]


class ReasonBody(Body):
    about: str
    text: str
    wish: bool


class ReasonsBody(Body):
    """Sentences about boards (O1), cut pieces (O1.2), what lies in a blank (A1 + A2), and wishes
    that are not kept.
    """

    reasons: list[ReasonBody]


class WhatIfBody(Body):
    kind: Literal["shorter", "narrower", "lenient", "method", "board"]
    about: str
    words: str
    saves: float
    placed: int


class WhatIfsBody(Body):
    """What else might be cheaper, each idea confirmed by a solve. `asked` is false where nobody has
    asked yet.
    """

    asked: bool
    done: bool
    found: list[WhatIfBody]


class NameBody(Body):
    name: Annotated[str, Field(max_length=80)]


class NamedPlan(Body):
    pk: Number
    name: str
    cost: float
    unplaced: int
    boards: int
    yields: float
    stale: bool


class NamedPlans(Body):
    plans: list[NamedPlan]


class PlanBody(Body):
    """A plan as the screens draw it; what is `closed` is made of other wood."""

    boards: list[BoardPlan]
    unplaced: list[Unplaced]
    closed: list[Closed] = []


class LayoutBody(Body):
    pk: Number
    state: Literal["waiting", "searching", "done", "stopped", "failed"]
    stale: bool
    seconds: float
    spent: float
    rounds: int
    unplaced: int | None
    cost: float | None
    lower_bound: float | None
    trying: str
    trouble: str
    system: SystemName
    plan: PlanBody | None
    boards: list[Board]
    parts: list[Part]
    fixings: FixingsBody
    made_by: Literal["search", "hand", "file"]
    name: str
    yields: float  # share of the wood of the boards cut that becomes parts


class LayoutAnswer(Body):
    """The layout last asked for, and the newest one that has a plan (often the same); how often one
    can go back, and forth.
    """

    latest: LayoutBody | None
    standing: LayoutBody | None
    undos: int
    redos: int
