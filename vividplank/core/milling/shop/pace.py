"""How long a step takes, from passes and feed; a shop's own history corrects it."""

from collections.abc import Mapping
from typing import get_args

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Machine, Step
from vividplank.core.milling.shop.machines import Machines, Pace
from vividplank.core.milling.shop.ways import BRIDGE_MINUTES, hand_minutes

#: What a machine's minutes are to be taken times, by machine; 1 where the shop has no history yet.
Factors = Mapping[str, float]

#: Every machine by its name.
BY_NAME: Mapping[str, Machine] = {m: m for m in get_args(Machine)}

_HAND_SAW = Pace(0, 2.0, 12 * TICKS_PER_INCH)
_BENCH = Pace(0, 5.0, 1)
#: Minutes to fix a piece to a carrier.
_CARRIED = {"carrier": 10.0, "step-and-carrier": 10.0, "straight-carrier": 5.0}
_SETUP = {
    "hand plane": 2.0,
    "handsaw": 1.0,
    "router bridge": 10.0,
    "bench": 5.0,
    "outside shop": 30.0,
    "not here": 0.0,
}


def pace_at(machine: str, machines: Machines) -> Pace:
    """What the shop has entered for a machine; handwork and the bench have usual figures."""
    return {
        "jointer": machines.jointer.pace,
        "planer": machines.planer.pace,
        "table saw": machines.table_saw.pace,
        "bandsaw": machines.bandsaw.pace,
        "crosscut saw": machines.crosscut.pace,
        "handsaw": _HAND_SAW,
    }.get(machine, _BENCH)


def setup_minutes(machine: str, machines: Machines) -> float:
    return _SETUP.get(machine, pace_at(machine, machines).setup)


def minutes(step: Step, machines: Machines) -> float:
    """Minutes at the machine, without setting it up: for every pass one handling and the feed over
    what is cut.
    """
    length, width, thick = step.size
    pace = pace_at(step.machine, machines)
    times = max(1, len(step.passes))
    if step.machine == "hand plane":
        # A face by its area; an edge is a narrow face.
        narrow = step.does in ("joint-edge", "glue-edge", "shape")
        return hand_minutes((length, thick if narrow else width, 0)) * max(1, len(step.edge))
    if step.machine == "router bridge":
        return hand_minutes(step.size, BRIDGE_MINUTES)
    if step.does == "check":
        return 1.0
    if step.machine == "bench":
        return pace.handling + len(step.pieces)
    if step.machine in ("outside shop", "not here"):
        return 60.0 if step.machine == "outside shop" else 0.0
    over = width if step.dimension == "length" else length
    carried = _CARRIED.get(step.way, 0.0)
    return carried + times * (pace.handling + over / pace.feed)
