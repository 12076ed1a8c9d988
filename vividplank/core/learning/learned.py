"""All figures a shop learns, from what its projects have seen."""

from collections import defaultdict
from collections.abc import Collection, Iterable, Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

from vividplank.core.learning.figure import Figure, Seen, allowance, rate, ratio
from vividplank.core.learning.needed import Need, Needed
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Allowance

#: `minutes` and `passes`: how many times the foretold, by machine. `wood`: rough over parts, by
#: wood. `faults`: those no survey knew of, for each board foot, by wood. `movement`: what is enough
#: for a face that has rested, by wood, and `allowance` for the size of that name, in ticks.
Kind = Literal["minutes", "passes", "wood", "faults", "movement", "allowance"]
#: So much rough wood for one of parts: an inch for three quarters, and the trade's 30 % for waste.
USUAL_WOOD = 4 / 3 * 1.3
#: Faults no survey knew of, for each board foot (one board of ten, of eight board feet), and how
#: many board feet that counts for.
USUAL_FAULTS = 0.1 / 8
_FAULTS_WORTH = 100.0
#: Allowances to begin with, in ticks, and what no straightedge shows.
_ALLOWANCE = Allowance()
USUAL_NEEDS: dict[Need, int] = {
    "movement": TICKS_PER_INCH // 8,
    "face": _ALLOWANCE.face,
    "width": _ALLOWANCE.width,
    "length": _ALLOWANCE.length,
}
_LEAST_SEEN = TICKS_PER_INCH / 128


@dataclass(frozen=True)
class StepSeen:
    """A step that was done; nothing is 0 or None where it is not known."""

    project: int
    machine: str
    foretold: float | None = None
    minutes: float | None = None
    passes_foretold: int | None = None
    passes: int | None = None


@dataclass(frozen=True)
class WoodSeen:
    """Boards of one wood in one project that are cut up: cubic board feet of rough wood, of the
    parts they gave, and the faults found in them that no survey knew of.
    """

    project: int
    wood: str
    rough: float
    parts: float
    faults: int = 0


@dataclass(frozen=True)
class NeedSeen:
    """What a piece of one project needed."""

    project: int
    needed: Needed


@dataclass(frozen=True)
class Learned:
    """A figure and whether it is used; `of` is a machine, a wood or an allowance."""

    kind: Kind
    of: str
    figure: Figure
    used: bool

    @property
    def key(self) -> str:
        return f"{self.kind}:{self.of}"


def learned(
    steps: Iterable[StepSeen],
    woods: Sequence[WoodSeen],
    off: Collection[str] = (),
    needs: Iterable[NeedSeen] = (),
) -> tuple[Learned, ...]:
    """What has been learned of each machine, wood and allowance that was seen; `off` are keys of
    figures that are not to be used.
    """
    minutes: defaultdict[str, list[Seen]] = defaultdict(list)
    passes: defaultdict[str, list[Seen]] = defaultdict(list)
    for step in steps:
        if step.foretold and step.minutes:
            minutes[step.machine].append(Seen(step.project, step.minutes / step.foretold))
        if step.passes_foretold and step.passes:
            passes[step.machine].append(Seen(step.project, step.passes / step.passes_foretold))
    figures: list[tuple[Kind, str, Figure]] = []
    figures += [("minutes", machine, ratio(seen)) for machine, seen in sorted(minutes.items())]
    figures += [("passes", machine, ratio(seen)) for machine, seen in sorted(passes.items())]
    for wood in sorted({w.wood for w in woods}):
        of = [w for w in woods if w.wood == wood]
        used = [Seen(w.project, w.rough / w.parts) for w in of if w.rough > 0 and w.parts > 0]
        if used:
            figures.append(("wood", wood, ratio(used, USUAL_WOOD)))
        if feet := sum(w.rough for w in of):
            count, projects = sum(w.faults for w in of), len({w.project for w in of})
            figures.append(
                ("faults", wood, rate(count, feet, USUAL_FAULTS, _FAULTS_WORTH, projects))
            )
    figures += _allowances(needs)
    return tuple(Learned(k, of, f, f"{k}:{of}" not in off) for k, of, f in figures)


def _allowances(needs: Iterable[NeedSeen]) -> Iterator[tuple[Kind, str, Figure]]:
    by: defaultdict[tuple[Need, str], list[Seen]] = defaultdict(list)
    for seen in needs:
        one = seen.needed
        of = one.wood if one.what == "movement" else one.what
        by[one.what, of].append(Seen(seen.project, one.ticks))
    for (what, of), found in sorted(by.items()):
        kind: Kind = "movement" if what == "movement" else "allowance"
        yield kind, of, allowance(found, USUAL_NEEDS[what], _LEAST_SEEN)


def in_use(figures: Iterable[Learned], kind: Kind) -> dict[str, float]:
    """The learned values of one kind that are in use, by machine or wood."""
    return {f.of: f.figure.value for f in figures if f.kind == kind and f.used}
