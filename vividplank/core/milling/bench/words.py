"""Settings and figures of a step in words, the same on screen and on paper."""

from vividplank.core.measure import System, written
from vividplank.core.milling.model.step import Step


def setting_name(first: Step, system: System) -> str:
    """What a machine is set to for a step, in words: "fence at 3 in", "13/16 in", "passes of 1/64
    in".
    """
    if first.way in ("carrier", "step-and-carrier", "straight-carrier"):
        return "on a flat carrier"
    if first.machine == "jointer":
        return f"passes of {written(first.setting, system, unit=True)}"
    if first.machine == "bandsaw" and first.does in ("rip", "shape"):
        return "freehand to the line"
    if first.machine == "crosscut saw":
        if first.does == "crosscut":
            return "rough crosscuts to the marks"
        if first.does == "square":
            return "square ends"
        if first.does == "shape":
            return "45° for mitres"
        if not first.setting:
            return "cut to the work"
    if first.machine == "handsaw":
        if first.does == "crosscut":
            return "to the marks"
        if not first.setting:
            return "to a square line"
        return f"to a line at {written(first.setting, system, unit=True)}"
    if not first.setting:
        return first.against if first.does == "own" and first.against else first.machine
    word = {"table saw": "fence at ", "crosscut saw": "stop at ", "bandsaw": "fence at "}.get(
        first.machine, ""
    )
    return word + written(first.setting, system, unit=True)


def figures(step: Step, system: System) -> str:
    """Setting, passes and readings in one line."""
    found = []
    if step.setting and step.does != "crosscut":
        word = "a line at" if step.machine == "handsaw" else "set to"
        found.append(f"{word} {written(step.setting, system, unit=True)}")
    if step.passes:
        found.append(f"{len(step.passes)} pass{'es' if len(step.passes) > 1 else ''}")
    if step.readings:
        found.append("readings " + ", ".join(written(r, system) for r in step.readings))
    if step.turn_over:
        found.append(f"turn it over after pass {step.turn_over}")
    if step.hold:
        found.append(f"then {_hours(step.hold)} before it is touched again")
    return "; ".join(found) or "to the marks"


def _hours(minutes: int) -> str:
    if minutes >= 2 * 1440:
        return f"{minutes // 1440} days"
    if minutes == 60:
        return "1 hour"
    return f"{minutes / 60:g} hours" if minutes > 60 else f"{minutes} minutes"
