"""What a reading at the machine means: done, so many passes to go, or stop, and what can be done
then.
"""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Literal

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.measure import System, rule_step, written
from vividplank.core.milling.model.passes import depths, equal_passes, settings
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.shop.machines import Machines


@dataclass(frozen=True)
class Verdict:
    """`state`: "done", "go on" (passes to take are in `passes`) or "stop". `says` is the sentence
    for the machine's screen, `ways` what can be done where it stops.
    """

    state: Literal["done", "go on", "stop"]
    says: str
    passes: tuple[int, ...] = ()
    ways: tuple[str, ...] = ()


def judge(
    step: Step,
    reading: int,
    job: Job,
    machines: Machines,
    thickness_wanted: int = 0,
    system: System | None = None,
) -> Verdict:
    """A caliper's, rule's or square's reading of what a step changes, against what it should come
    out at.

    Thickness, width and length are read as they are; of an edge the gap under a square is read.
    `thickness_wanted` is what the piece must still hold after a face has been made flat.
    """
    system = system or job.unit
    if step.kind in ("edge", "glue-edge", "saw-edge") and step.dimension == "straight":
        return _square(step, reading, system)
    if step.kind in ("face", "face-again"):
        return _faced(step, reading, job, thickness_wanted, system)
    over = reading - step.stock_out
    tolerance = max(step.tolerance, 1)
    if abs(over) <= tolerance:
        return Verdict("done", f"{_say(reading, system)}: that is it")
    if over > 0:
        return _more(step, reading, over, machines, system)
    return _too_small(step, reading, -over, job, system)


def _square(step: Step, gap: int, system: System) -> Verdict:
    if gap <= step.tolerance:
        return Verdict(
            "done",
            "square: that is it"
            if gap == 0
            else f"out by {_say(gap, system)}, within what a joint takes",
        )
    return Verdict(
        "stop",
        f"out of square by {_say(gap, system)}",
        (),
        (
            "check the fence against a square and joint it again, one light pass",
            "press the face to the fence, not the edge to the table",
            "if the face moved, face it again first",
        ),
    )


def _faced(step: Step, reading: int, job: Job, wanted: int, system: System) -> Verdict:
    if wanted and reading < wanted:
        return _too_small(step, reading, wanted - reading, job, system, wanted)
    spare = reading - wanted if wanted else reading - step.stock_out
    if reading > step.stock_in + step.tolerance:
        return Verdict(
            "stop",
            f"{_say(reading, system)} is more than the {_say(step.stock_in, system)} it came in "
            f"with",
            (),
            (
                "read it again at another place",
                "look for metal where it is thick, before it meets a knife",
            ),
        )
    return Verdict(
        "done",
        f"{_say(reading, system)} at its thickest: {_say(max(0, spare), system)} for the planer",
    )


def _more(step: Step, reading: int, over: int, machines: Machines, system: System) -> Verdict:
    if step.dimension == "thickness" and step.machine in ("planer", "hand plane"):
        planer = machines.planer
        most = max(step.passes, default=planer.usual_pass)
        unit = planer.dial.step(rule_step(system))
        made = settings(reading, step.stock_out, most, planer.usual_pass, planer.last_pass, unit)
        passes = depths(reading, made)
        turns = _turns([machines.planer.dial.says(p, system) for p in passes])
        return Verdict("go on", f"{_say(over, system)} to go: {turns}", passes)
    if step.machine == "jointer":
        passes = equal_passes(over, machines.jointer.usual_pass)
        return Verdict(
            "go on",
            f"{_say(over, system)} to go: {len(passes)} pass{'es' if len(passes) > 1 else ''} more",
            passes,
        )
    if step.dimension == "length":
        return Verdict(
            "go on", f"{_say(over, system)} too long: against the stop once more", (over,)
        )
    return Verdict(
        "go on",
        f"{_say(over, system)} too wide: set the fence to {_say(step.stock_out, system)} and rip "
        f"it again",
        (over,),
    )


def _turns(each: list[str]) -> str:
    """Passes in words: "one pass at half a turn, then one at a quarter turn"."""
    told: list[list[str]] = []
    for words in each:
        if told and told[-1][0] == words:
            told[-1].append(words)
        else:
            told.append([words])
    count = {1: "one", 2: "two", 3: "three", 4: "four", 5: "five", 6: "six"}
    listed = []
    for n, g in enumerate(told):
        noun = "" if n else " passes" if len(g) > 1 else " pass"
        listed.append(f"{count.get(len(g), len(g))}{noun} at {g[0]}")
    return ", then ".join(listed)


def _too_small(
    step: Step, reading: int, under: int, job: Job, system: System, wanted: int = 0
) -> Verdict:
    word = {"thickness": "thin", "width": "narrow", "length": "short"}.get(step.dimension, "thin")
    want = wanted or step.stock_out
    ways = ["read it again at another place, the jaws closed to nothing first"]
    ways += [
        f"make {p.name or p.id} ({p.id}) of it: "
        + " × ".join(_say(size, system) for size in (p.length, p.width, p.thickness))
        for p in _others(step, reading, job)
    ][:3]
    if step.dimension == "thickness" or wanted:
        ways.append(
            "where it does not show, glue a thin piece behind it or let it into a deeper housing"
        )
    ways.append("write it off, and lay its parts out again on what is left in the rack")
    return Verdict(
        "stop",
        f"{_say(reading, system)} is {_say(under, system)} too {word}: {_say(want, system)} was "
        f"wanted",
        (),
        tuple(ways),
    )


def _others(step: Step, reading: int, job: Job) -> Iterable[Part]:
    """Smaller parts of the same wood that the piece, as it is, would still make; the largest
    first.
    """
    length, width, thick = step.size
    if step.dimension == "width":
        width = reading
    elif step.dimension == "length":
        length = reading
    else:
        thick = reading
    species = {b.id: b.species for b in job.boards}.get(step.board, "")
    fitting = [
        p
        for p in job.parts
        if p.panel is None
        and p.species.casefold() == species.casefold()
        and p.length <= length
        and p.width <= width
        and p.thickness <= thick
    ]
    return sorted(fitting, key=lambda p: -p.volume)


def _say(ticks: int, system: System) -> str:
    return written(ticks, system, unit=True)
