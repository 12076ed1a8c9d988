"""The shop's machines and their limits. The machine's own manual rules; these are usual starting
values.
"""

from dataclasses import dataclass, field

from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import TICKS_PER_MM, Unit
from vividplank.core.milling.shop.dial import Dial

_FOOT = 12 * INCH
_SCALE = Dial("scale")
_WHEEL = Dial("wheel", INCH // 16)  # a half turn is often 1/32 in


@dataclass(frozen=True)
class Pace:
    """Minutes to set a machine up and to handle a piece once, and the feed in ticks a minute."""

    setup: float
    handling: float
    feed: int


@dataclass(frozen=True)
class Jointer:
    bed_width: int = 8 * INCH
    shortest: int = 12 * INCH
    thinnest: int = INCH // 2
    narrowest: int = 2 * INCH
    longest: int = 96 * INCH  # beyond about twice the tables an edge cannot be held straight
    usual_pass: int = INCH // 32
    dial: Dial = _SCALE
    pace: Pace = Pace(3, 0.3, 10 * _FOOT)


@dataclass(frozen=True)
class Planer:
    width: int = 15 * INCH
    shortest: int = 12 * INCH
    thinnest: int = INCH // 4
    usual_pass: int = INCH // 16
    last_pass: int = INCH // 64
    dial: Dial = _WHEEL
    pace: Pace = Pace(2, 0.4, 16 * _FOOT)


@dataclass(frozen=True)
class TableSaw:
    tallest: int = 3 * INCH
    fence: int = 24 * INCH
    narrowest: int = INCH // 2
    pace: Pace = Pace(4, 0.4, 10 * _FOOT)


@dataclass(frozen=True)
class Bandsaw:
    tallest: int = 8 * INCH
    pace: Pace = Pace(5, 0.4, 5 * _FOOT)


@dataclass(frozen=True)
class CrosscutSaw:
    widest: int = 12 * INCH
    pace: Pace = Pace(2, 0.6, 1 * _FOOT)


@dataclass(frozen=True)
class Machines:
    """What the shop has. `carrier`: flat boards to plane on, `router_bridge`: the widest it takes,
    0 where there is none, `by_hand`: planes and winding sticks, `outside`: a shop with wider
    machines, empty where there is none.
    """

    jointer: Jointer = Jointer()
    planer: Planer = Planer()
    crosscut: CrosscutSaw = CrosscutSaw()
    lift_alone_kg: float = 25.0
    table_saw: TableSaw = field(default_factory=TableSaw)
    bandsaw: Bandsaw = field(default_factory=Bandsaw)
    carrier: bool = True
    router_bridge: int = 0
    by_hand: bool = True
    outside: str = ""


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


def depth_of_pass(usual: int, width: int, bed: int, hardness: int | None, step: int) -> int:
    """How deep to cut: the usual pass for a narrow piece of middling hardness, less the wider and
    the harder.

    A wide or hard face asks more of the motor and tears more: from half the bed on a quarter less,
    over three quarters of it half as much; over 1,500 lbf of side hardness a quarter less again.
    Never under one step of the rule.
    """
    share = 0.5 if 4 * width > 3 * bed else 0.75 if 2 * width > bed else 1.0
    if hardness and hardness > 1500:
        share *= 0.75
    return max(step, int(usual * share) // step * step)
