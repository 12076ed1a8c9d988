"""The shop's machines and their limits. The machine's own manual rules; these are usual starting
values.
"""

from dataclasses import dataclass
from dataclasses import field as made
from typing import Annotated, Literal, get_args

from pydantic import BeforeValidator, Field, PlainSerializer, WithJsonSchema

from vividplank.core.fields import BY_NAME, Name, Ticks, pairs_of
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import TICKS_PER_MM, Unit
from vividplank.core.milling.model.step import Method, Task
from vividplank.core.milling.shop.dial import Dial

#: Machines that can be switched off.
Switched = Literal["jointer", "planer", "table saw", "bandsaw", "crosscut saw"]
#: (task, method) pairs; in JSON an object of methods by task.
Preferred = Annotated[
    tuple[tuple[Task, Method], ...],
    BY_NAME,
    BeforeValidator(pairs_of),
    Field(max_length=len(get_args(Task))),
    PlainSerializer(dict, return_type=dict, when_used="json"),
    WithJsonSchema(
        {
            "type": "object",
            "propertyNames": {"enum": list(get_args(Task))},
            "additionalProperties": {"enum": list(get_args(Method))},
        }
    ),
]
_FOOT = 12 * INCH
_SCALE = Dial("scale")
_WHEEL = Dial("wheel", INCH // 16)  # a half turn is often 1/32 in


@dataclass(frozen=True)
class Pace:
    """Minutes to set a machine up and to handle a piece once, and the feed in ticks a minute."""

    setup: float
    handling: float
    feed: Ticks


@dataclass(frozen=True)
class Jointer:
    """Its bed, the least it takes, and the longest edge its tables hold straight: beyond about
    twice their length none does.
    """

    bed_width: Ticks = 8 * INCH
    shortest: Ticks = 12 * INCH
    thinnest: Ticks = INCH // 2
    narrowest: Ticks = 2 * INCH
    longest: Ticks = 96 * INCH
    usual_pass: Ticks = INCH // 32
    dial: Dial = _SCALE
    pace: Pace = Pace(3, 0.3, 10 * _FOOT)


@dataclass(frozen=True)
class Planer:
    """The widest it takes, the least it feeds, and its usual and its last, lightest pass."""

    width: Ticks = 15 * INCH
    shortest: Ticks = 12 * INCH
    thinnest: Ticks = INCH // 4
    usual_pass: Ticks = INCH // 16
    last_pass: Ticks = INCH // 64
    dial: Dial = _WHEEL
    pace: Pace = Pace(2, 0.4, 16 * _FOOT)


@dataclass(frozen=True)
class TableSaw:
    """How high it cuts, and how far and how near its fence goes."""

    tallest: Ticks = 3 * INCH
    fence: Ticks = 24 * INCH
    narrowest: Ticks = INCH // 2
    pace: Pace = Pace(4, 0.4, 10 * _FOOT)


@dataclass(frozen=True)
class Bandsaw:
    """How high it cuts."""

    tallest: Ticks = 8 * INCH
    pace: Pace = Pace(5, 0.4, 5 * _FOOT)


@dataclass(frozen=True)
class CrosscutSaw:
    """How wide a piece it cuts across in one go."""

    widest: Ticks = 12 * INCH
    pace: Pace = Pace(2, 0.6, 1 * _FOOT)


@dataclass(frozen=True)
class Machines:
    """What the shop has. `carrier`: flat boards to plane on, `router_bridge`: the widest it takes,
    0 where there is none, `by_hand`: planes and winding sticks, `outside`: a shop with wider
    machines, empty where there is none; `off`: machines it does without; `preferred`: the way this
    shop does a task where it can.
    """

    jointer: Jointer = Jointer()
    planer: Planer = Planer()
    crosscut: CrosscutSaw = CrosscutSaw()
    lift_alone_kg: float = 25.0
    table_saw: TableSaw = made(default_factory=TableSaw)
    bandsaw: Bandsaw = made(default_factory=Bandsaw)
    carrier: bool = True
    router_bridge: Ticks = 0
    by_hand: bool = True
    outside: Name = ""
    off: Annotated[tuple[Switched, ...], Field(max_length=5)] = ()
    preferred: Preferred = ()

    def has(self, machine: str) -> bool:
        return machine not in self.off


def usual_machines(unit: Unit) -> Machines:
    """Starting values in the steps of the shop's own rule."""
    if unit == "in":
        return Machines()
    mm = TICKS_PER_MM
    return Machines(
        Jointer(200 * mm, 300 * mm, 12 * mm, 50 * mm, 2400 * mm, mm * 4 // 5),
        Planer(380 * mm, 300 * mm, 6 * mm, 3 * mm // 2, mm * 2 // 5, Dial("wheel", 2 * mm)),
        CrosscutSaw(300 * mm),
        table_saw=TableSaw(75 * mm, 600 * mm, 12 * mm),
        bandsaw=Bandsaw(200 * mm),
    )


def depth_of_pass(usual: int, width: int, bed: int, hardness: int | None, unit: float) -> int:
    """How deep to cut: the usual pass for a narrow piece of middling hardness, less the wider and
    the harder.

    A wide or hard face asks more of the motor and tears more: from half the bed on a quarter less,
    over three quarters of it half as much; over 1,500 lbf of side hardness a quarter less again.
    The usual pass is taken as the shop has set it, a lighter one in whole units of the dial, and
    never under one.
    """
    share = 0.5 if 4 * width > 3 * bed else 0.75 if 2 * width > bed else 1.0
    if hardness and hardness > 1500:
        share *= 0.75
    if share == 1.0:
        return usual
    return round(max(unit, int(usual * share / unit + 1e-9) * unit))
