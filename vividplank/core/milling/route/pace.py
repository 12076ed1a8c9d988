"""How long a step takes, from passes and feed; a shop's own history corrects it."""

from collections.abc import Mapping

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.ways import BRIDGE_MINUTES, hand_minutes
from vividplank.core.milling.shop.machines import Machines, Pace

#: What a machine's minutes are to be taken times, by machine; 1 where the shop has no history yet.
Factors = Mapping[str, float]

_HAND_SAW = Pace(0, 2.0, 12 * TICKS_PER_INCH)
_BENCH = Pace(0, 5.0, 1)
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
        narrow = step.kind.startswith(("edge", "saw-edge", "glue-edge", "taper-plane"))
        return hand_minutes((length, thick if narrow else width, 0))
    if step.machine == "router bridge":
        return hand_minutes(step.size, BRIDGE_MINUTES)
    if step.machine == "bench":
        return pace.handling + len(step.pieces)
    if step.machine in ("outside shop", "not here"):
        return 60.0 if step.machine == "outside shop" else 0.0
    over = width if step.dimension == "length" else length
    carried = 10.0 if step.obstacle and "carrier" in step.ways[0].do else 0.0
    return carried + times * (pace.handling + over / pace.feed)
