"""The orders of milling that shops work in, and what a shop has set for its own milling."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.fields import Name
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Method
from vividplank.core.milling.shop.machines import Machines

School = Literal[
    "plane-then-rip",
    "seven-steps",
    "jointed-saw-edge",
    "rough-rip-first",
    "look-first",
    "two-visits",
    "by-hand",
]


@dataclass(frozen=True)
class Order:
    """A school's name as the shop says it, its steps, and when it is worth its time."""

    school: School
    title: str
    steps: str
    good_for: str


ORDERS: tuple[Order, ...] = (
    Order(
        "plane-then-rip",
        "Plane, then rip",
        "rough length, face, edge, plane, rip, ends",
        "the wide board is milled in one go: fewest pieces in hand",
    ),
    Order(
        "seven-steps",
        "Seven steps",
        "rough length, face, edge, rip, plane, one end square, final length",
        "wide boards whose strips a smaller planer still takes",
    ),
    Order(
        "jointed-saw-edge",
        "Seven steps and a jointed saw edge",
        "as the seven steps, ripped 1/16 wide and the sawn edge jointed",
        "edges that show or are glued: no saw marks, no burns",
    ),
    Order(
        "rough-rip-first",
        "Rough-rip first",
        "rough length, rough width at the bandsaw, then face, edge, plane, rip, ends",
        "cupped and crooked boards and narrow jointers: each strip has only its own share of the "
        "cup",
    ),
    Order(
        "look-first",
        "Look first",
        "a light skim on both faces, high corners by hand, then plane and rip",
        "rough faces that hide their grain and faults",
    ),
    Order(
        "two-visits",
        "Two visits",
        "rough-mill a little over, sticker for days, flatten and thickness again",
        "doors, tops and whatever must stay flat",
    ),
    Order(
        "by-hand",
        "By hand",
        "handsaw, winding sticks and planes, a long plane for the edge",
        "what no machine here can take, and quiet mornings",
    ),
)
SCHOOLS: tuple[School, ...] = tuple(order.school for order in ORDERS)


@dataclass(frozen=True)
class Waits:
    """Minutes that pass with nobody at work: glue in clamps, glue before it is machined, sawn or
    milled wood on stickers.
    """

    clamped: int = 60
    glue: int = 12 * 60
    resawn: int = 24 * 60
    rested: int = 3 * 24 * 60


@dataclass(frozen=True)
class Hours:
    """The shop's day: minutes after midnight, people at work, floor for stickers in square feet."""

    begins: int = 8 * 60
    ends: int = 16 * 60
    people: int = 1
    floor: float = 60.0

    @property
    def minutes(self) -> int:
        return self.ends - self.begins


@dataclass(frozen=True)
class OwnStep:
    """A step the maker adds to the route of a part: a groove, a rebate, a round-over. `before` its
    ends are cut, or after all of the part's other steps.
    """

    part: Name
    name: Annotated[str, Field(min_length=1, max_length=200)]
    machine: Annotated[str, Field(min_length=1, max_length=60)] = "bench"
    setting: Annotated[str, Field(max_length=200)] = ""
    before: bool = False
    minutes: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)] = 5.0


@dataclass(frozen=True)
class Milling:
    """How this shop mills. `exceptions` names a board, a part's id or a piece ("O3.1") and its own
    school; `fitted` the lengths measured from the work, by piece; `over` is what the first of two
    visits leaves; `enough` the share of a face that must be clean to go to the planer; `chosen` the
    way picked for one step, by its key; `own` the maker's own steps.
    """

    machines: Machines = field(default_factory=Machines)
    school: School = "plane-then-rip"
    exceptions: Mapping[str, School] = field(default_factory=dict)
    fitted: Mapping[str, int] = field(default_factory=dict)
    waits: Waits = field(default_factory=Waits)
    hours: Hours = field(default_factory=Hours)
    over: int = TICKS_PER_INCH // 8
    enough: Annotated[float, Field(gt=0, le=1)] = 0.8
    chosen: Mapping[str, Method] = field(default_factory=dict)
    own: Annotated[tuple[OwnStep, ...], Field(max_length=200)] = ()

    def school_of(self, *names: str) -> School | None:
        """The exception for the first of these names that has one."""
        return next((self.exceptions[name] for name in names if name in self.exceptions), None)
