"""Does what is said to cover a list with nine chances of ten do so? Purchases are drawn anew from
populations that the program does not ship, and laid out by the engine.

For each case several estimates are made, each from its own simulated purchases; for each estimate
so many purchases of the amount it names are drawn and laid out, with three times the search that
the estimate gives a layout.

    .plank/venv/bin/python -m bench.buying [trials] [purchases] [case ...]
"""

import math
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass
from random import Random
from statistics import fmean

from vividplank.core.buying.chance.estimate import Estimate
from vividplank.core.buying.chance.purchase import first_guess
from vividplank.core.buying.chance.sample import as_they_come, boards_of, feet_of, missing
from vividplank.core.buying.groups import groups
from vividplank.core.buying.market.population import Grade, Population, Range, Straightness
from vividplank.core.cutlist import Faces, Panel, Part
from vividplank.core.job import Job
from vividplank.core.layout.search.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Shop

_CHANCE = 0.9
_ESTIMATES = 10
#: A layout is given three times the rounds that the estimate gives one.
_ROUNDS = 24
_THICK = 3 * INCH // 4


@dataclass(frozen=True)
class Case:
    """A list and the population it is bought from."""

    name: str
    parts: tuple[Part, ...]
    population: Population


def _part(
    id: str, quantity: int, length: float, width: float, faces: Faces, **more: object
) -> Part:
    size = round(length * INCH), round(width * INCH), _THICK
    return Part(id, id, quantity, "elm", *size, faces, **more)  # type: ignore[arg-type]


def _lot(
    grade: Grade,
    lengths: tuple[int, int, int],
    widths: tuple[int, int, int],
    straightness: Straightness = "usual",
    hidden: float = 0.15,
) -> Population:
    return Population(
        "elm",
        "4/4",
        grade,
        Range(*(n * INCH for n in lengths)),
        Range(*(n * INCH for n in widths)),
        INCH + INCH // 20,
        straightness=straightness,
        hidden=hidden,
    )


def cases() -> tuple[Case, ...]:
    one, two, sound = "clear-one", "clear-two", "sound"
    easy = (_part("R", 36, 20, 2.5, one), _part("S", 30, 14, 1.75, sound))
    long = (_part("L", 6, 64, 3, one), _part("R", 12, 24, 3, one))
    wide = (
        _part("P", 4, 34, 16, one, panel=Panel(3 * INCH, 8 * INCH)),
        _part("R", 10, 26, 3, one),
    )
    runs = (
        *(_part(f"F{k}", 1, 17, 6, two, run="fronts") for k in range(3)),
        *(_part(f"G{k}", 1, 12, 5, one, run="ends") for k in range(2)),
        *(_part(f"H{k}", 1, 15, 6, one, run="drawers") for k in range(4)),
        _part("R", 20, 22, 2.5, one),
    )
    short = (_part("R", 24, 15, 2.5, one), _part("S", 12, 24, 2, sound))
    mixed = (
        _part("P", 1, 30, 14, one, panel=Panel(2 * INCH, 6 * INCH)),
        _part("L", 2, 52, 3.5, two),
        _part("R", 8, 20, 3, one),
        _part("S", 8, 12, 1.5, sound),
        *(_part(f"F{k}", 1, 15, 5, one, run="fronts") for k in range(2)),
    )
    return (
        Case("easy", easy, _lot("FAS", (80, 110, 150), (5, 7, 11))),
        Case("long parts", long, _lot("Selects", (70, 100, 160), (4, 6, 10))),
        Case("wide panels", wide, _lot("FAS", (72, 100, 140), (5, 8, 14), "wild")),
        Case("runs", runs, _lot("Selects", (80, 115, 168), (6, 8, 12))),
        Case("short grade", short, _lot("No. 2A Common", (48, 76, 120), (3, 5, 9), hidden=0.3)),
        Case("mixed", mixed, _lot("No. 1 Common", (60, 96, 144), (4, 6, 11))),
    )


def estimate(job: Job, case: Case, purchases: int, seed: int) -> Estimate:
    group = groups(job)[0]
    guess = first_guess(group, case.population.mean_board_feet)
    before, one = [], []
    for n in range(purchases):
        rng = Random(f"{case.name} estimate {seed} {n}")
        taken = as_they_come(group.job, (), case.population, rng, guess, time.monotonic)
        assert taken
        before.append(taken.before)
        one.append(taken.feet / taken.boards)
        guess = max(1, round(fmean(b / o + 1 for b, o in zip(before, one, strict=True))))
    return Estimate(tuple(before), fmean(one))


def covers(job: Job, case: Case, feet: float, seed: str) -> bool:
    bought, got = [], 0.0
    coming = boards_of(case.population, Random(seed))
    while got < feet:
        bought.append(next(coming))
        got += feet_of(bought[-1])
    return not missing(groups(job)[0].job, bought, time.monotonic, _ROUNDS)


def wilson(hits: int, of: int) -> tuple[float, float]:
    """Bounds of a share with nineteen chances of twenty (E. B. Wilson, 1927)."""
    z = 1.96
    p, n = hits / of, of
    middle = (p + z * z / (2 * n)) / (1 + z * z / n)
    half = z * math.sqrt(p * (1 - p) / n + z * z / (4 * n * n)) / (1 + z * z / n)
    return middle - half, middle + half


def run(case: Case, trials: int, purchases: int, say: Callable[[str], None]) -> None:
    job = Job(case.name, Shop(), case.parts, ())
    hits, done, amounts = 0, 0, []
    for k in range(_ESTIMATES):
        amount = estimate(job, case, purchases, k).amount(_CHANCE)
        amounts.append(amount.value)
        for n in range(trials // _ESTIMATES):
            hits += covers(job, case, amount.value, f"{case.name} trial {k} {n}")
            done += 1
    low, high = wilson(hits, done)
    say(
        f"{case.name}: {fmean(amounts):.1f} board feet (from {min(amounts):.1f} to "
        f"{max(amounts):.1f}) said to cover with {100 * _CHANCE:.0f} %; {hits} of {done} did, "
        f"{100 * hits / done:.1f} % ({100 * low:.1f} to {100 * high:.1f})"
    )


def main(trials: int, purchases: int, names: list[str]) -> None:
    warm()
    for case in cases():
        if not names or case.name in names:
            run(case, trials, purchases, lambda line: print(line, flush=True))


if __name__ == "__main__":
    main(
        int(sys.argv[1]) if len(sys.argv) > 1 else 200,
        int(sys.argv[2]) if len(sys.argv) > 2 else 20,
        sys.argv[3:],
    )
