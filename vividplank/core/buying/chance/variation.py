"""How an amount moves with one change of the list or of the grade, over the same simulated trips.

The same seeds draw the same boards (common random numbers; A. M. Law, Simulation Modeling and
Analysis, 5th edition, 11.2), so that a difference of a few trips says more than the amounts do.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from statistics import fmean, stdev
from typing import Literal

from scipy.stats import t as student

from vividplank.core.buying.chance.estimate import SURE, Amount
from vividplank.core.buying.chance.purchase import Purchase
from vividplank.core.buying.market.population import Grade
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM

Kind = Literal["grade", "stave", "joined"]
#: A finger joint takes so much of either piece.
_FINGER = TICKS_PER_INCH // 2
#: A part shorter than this is not joined of two lengths.
_LONG = 24 * TICKS_PER_INCH


@dataclass(frozen=True)
class Variation:
    """One thing changed: the grade that is bought (`grade`), the widest stave of a panel, or a part
    that does not show glued up of two lengths by a finger joint (`part`); `to` is the stave, or the
    length of either piece.
    """

    kind: Kind
    part: str = ""
    to: int = 0
    grade: Grade | Literal[""] = ""


def variations(job: Job, supplier: Supplier, grade: str) -> tuple[Variation, ...]:
    """What is worth asking of this list there: one grade up, the widest panel's staves a little
    wider, the longest part that does not show joined.
    """
    found = []
    grades = supplier.grades
    at = grades.index(grade) if grade in grades else 0
    if at > 0:
        found.append(Variation("grade", grade=grades[at - 1]))  # type: ignore[arg-type]
    parts = job.on_boards().parts
    panels = [p for p in parts if p.panel and p.panel.stave_max < p.width]
    if panels:
        widest = max(panels, key=lambda p: p.width)
        more = 25 * TICKS_PER_MM if job.unit == "mm" else TICKS_PER_INCH
        if widest.panel:
            found.append(Variation("stave", widest.id, widest.panel.stave_max + more))
    hidden = [p for p in parts if _can_be_joined(p)]
    if hidden:
        longest = max(hidden, key=lambda p: p.length)
        found.append(Variation("joined", longest.id, (longest.length + _FINGER + 1) // 2))
    return tuple(found)


def _can_be_joined(part: Part) -> bool:
    alone = not (part.panel or part.run or part.match or part.same_board or part.from_board)
    return part.faces == "sound" and part.length >= _LONG and alone


def varied(job: Job, variation: Variation) -> Job:
    """The list with it; as it is where only the grade differs."""

    def part(p: Part) -> Part:
        if p.id != variation.part:
            return p
        if variation.kind == "stave" and p.panel:
            return replace(p, panel=replace(p.panel, stave_max=variation.to))
        return replace(p, length=variation.to, quantity=2 * p.quantity, formulas=())

    return replace(job, parts=tuple(part(p) for p in job.parts))


@dataclass(frozen=True)
class Moved:
    """By how much board feet (as they come, and picked) and money for picked boards move over
    `trips` trips.
    """

    trips: int
    come: Amount
    picked: Amount
    money: Amount


def moved(before: Sequence[Purchase], after: Sequence[Purchase]) -> Moved | None:
    """Over the trips of the same seeds that gave the whole list both times; None for less than
    two.
    """
    then = {p.seed: p for p in after}
    pairs = [
        (p, then[p.seed]) for p in before if p.seed in then and _whole(p) and _whole(then[p.seed])
    ]
    if len(pairs) < 2:
        return None

    def difference(of: str) -> Amount:
        return _mean([_sums(b)[of] - _sums(a)[of] for a, b in pairs])

    return Moved(len(pairs), difference("come"), difference("picked"), difference("money"))


def _whole(trip: Purchase) -> bool:
    return all(b.taken.whole and not b.picked.left_out for b in trip.bought) and not trip.lacking


def _sums(trip: Purchase) -> dict[str, float]:
    return {
        "come": sum(b.taken.feet for b in trip.bought),
        "picked": sum(b.picked.feet for b in trip.bought),
        "money": sum(b.picked.cost for b in trip.bought),
    }


def _mean(values: Sequence[float]) -> Amount:
    """With Student's interval."""
    n = len(values)
    wide = float(student.ppf((1 + SURE) / 2, n - 1))
    return Amount(fmean(values), wide * stdev(values) / math.sqrt(n))
