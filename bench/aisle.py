"""Buying by the program against what is done without it.

`thumb`: 300 purchases of boards taken as they come: what the program says covers with nine chances
of ten, against rough blanks with 20 and 30 % more; money spent, and how often a second trip is
needed.
`pile`: 50 lists bought out of piles of 60 boards looked at one after another: by the verdicts
and by a greedy picker (whatever gives a part that is still wanted), against the cheapest set in
hindsight. What is passed by is gone; what is missing at the end takes a second trip.
`verdict`: seconds for a verdict on a list of 170 parts with 20 boards in the cart, and its worth
and stated error against full solves of what completing the list costs, with the board and without.
Two searches for the same list differ by more than a board is worth (by 28 of 480, seen): all
searches put the patterns they end with into one pool, and what is compared are the linear
relaxations of the covering programs over that pool, which have no such noise.

    .plank/venv/bin/python -m bench.aisle thumb|pile|verdict [number]
"""

import sys
import time
from collections import defaultdict
from dataclasses import replace
from decimal import Decimal
from random import Random
from statistics import fmean, median

import numpy as np
from scipy.optimize import linprog
from scipy.sparse import lil_array, vstack

from bench.buying import Case, cases, estimate, wilson
from bench.shop_jobs import shop_job
from vividplank.core.board import Board
from vividplank.core.buying.aisle import Aisle, Looked
from vividplank.core.buying.chance.purchase import Bought, Purchase, first_guess, rough_feet
from vividplank.core.buying.chance.sample import Taken, boards_of, feet_of, missing, picked
from vividplank.core.buying.chance.worth import Patterns
from vividplank.core.buying.groups import groups
from vividplank.core.buying.market.population import Population, Range
from vividplank.core.buying.market.supplier import Price, Supplier, money
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.limits import Limits
from vividplank.core.layout.search.search import search, search_valued
from vividplank.core.layout.search.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Shop

_PER_FOOT = Decimal(8)
_THUMBS = (0.2, 0.3)
_PILE = 60
#: What a second trip costs.
_TRIP = 25.0
#: Rounds of the search for what is cheapest: the same on a busy machine.
_ROUNDS = 60
#: And of each of the searches that fill the pool of patterns.
_FULL_ROUNDS = 10


def thumb(purchases: int) -> None:
    """Ours and the rules of thumb, case by case."""
    total: dict[str, list[tuple[float, bool]]] = {}
    for case in cases():
        job = Job(case.name, Shop(), case.parts, ())
        (group,) = groups(job)
        blanks = rough_feet(group)
        ours = estimate(job, case, 20, 1).amount(0.9).value
        amounts = {"ours": ours} | {f"{t:.0%} more": blanks * (1 + t) for t in _THUMBS}
        for name, feet in amounts.items():
            tried = []
            for n in range(purchases // 6):
                bought, got = [], 0.0
                coming = boards_of(case.population, Random(f"{case.name} thumb {n}"))
                while got < feet:
                    bought.append(next(coming))
                    got += feet_of(bought[-1])
                tried.append((got, missing(group.job, bought, time.monotonic) > 0))
            total.setdefault(name, []).extend(tried)
            print(
                f"{case.name}, {name}: {feet:.1f} board feet, {fmean(f for f, _ in tried):.1f} "
                f"bought, second trip {fmean(s for _, s in tried):.0%}",
                flush=True,
            )
    for name, tried in total.items():
        print(
            f"{name}: {len(tried)} purchases, {fmean(f for f, _ in tried):.1f} board feet each, "
            f"second trip in {fmean(s for _, s in tried):.1%}",
            flush=True,
        )


def supplier_of(case: Case) -> Supplier:
    """A place that sells the case's population."""
    p = case.population
    price = Price(p.species, p.quarter, p.grade, _PER_FOOT, "rough", p.thickness, p.length, p.width)
    trip = Decimal(_TRIP)
    straight = p.straightness
    return Supplier("here", "Here", "sawmill", straightness=straight, trip=trip, prices=(price,))


def _priced(boards: list[Board]) -> list[Board]:
    return [replace(b, price=money(Decimal(feet_of(b)) * _PER_FOOT)) for b in boards]


def _aisle(job: Job, lot: Population, at: Supplier, seed: int) -> Aisle:
    (group,) = groups(job)
    pile = max(24, 3 * first_guess(group, lot.mean_board_feet))
    trips = []
    for n in range(6):
        rng = Random(f"values {seed} {n}")
        found = picked(group.job, (), lot, _PER_FOOT, pile, rng, time.monotonic)
        trips.append(Purchase(n, (Bought(group.key, Taken(1, 0.0, 1.0), found),)))
    return Aisle(job, at, trips)


def _complete(job: Job, cart: list[Board], rest: list[Board]) -> float:
    """What completing the list costs out of the rest, at best; what cannot be had counts double."""
    boards = tuple(replace(b, price=Decimal(0)) for b in cart) + tuple(rest)
    limits = Limits(3600.0, _ROUNDS, prove=False)
    plan = search(replace(job, boards=boards), limits, time.monotonic)
    volume = {p.id: p.volume for p in job.parts}
    short = sum(volume[u.part] for u in plan.unplaced) / sum(
        p.volume * p.quantity for p in job.parts
    )
    return float(plan.cost) + 2 * short * sum(float(b.price) for b in rest)


def pile(lists: int) -> None:
    """Ours, greedy and hindsight, over all cases in turn."""
    ratios: dict[str, list[float]] = {"verdicts": [], "greedy": []}
    second = dict.fromkeys(ratios, 0)
    for n in range(lists):
        case = cases()[n % 6]
        job = Job(case.name, Shop(), case.parts, ())
        (group,) = groups(job)
        at = supplier_of(case)
        aisle = _aisle(job, case.population, at, n)
        coming = boards_of(case.population, Random(f"{case.name} pile {n}"))
        boards = _priced([replace(next(coming), id=f"Y{k}") for k in range(_PILE)])
        best = _complete(group.job, [], boards)
        told = f"{case.name} {n}: hindsight {best:.2f}"
        for name in ratios:
            cart: list[Looked] = []
            for board in boards:
                patterns, verdict = aisle.look(board, cart, why=False)
                gives = verdict is not None and verdict.word != "not-wanted"
                if gives and (name == "greedy" or (verdict and verdict.word == "take")):
                    cart.append(Looked(board, patterns))
                    if verdict and verdict.completes:
                        break
            taken = [k.board for k in cart]
            cost = sum(float(b.price) for b in taken)
            if missing(group.job, taken, time.monotonic):  # what was passed by is gone
                again = boards_of(case.population, Random(f"{case.name} second trip {n}"))
                fresh = _priced([replace(next(again), id=f"Z{k}") for k in range(_PILE)])
                cost += _TRIP + _complete(group.job, taken, fresh)
                second[name] += 1
            ratios[name].append(cost / best)
            told += f", {name} {cost:.2f}"
        print(told, flush=True)
    for name, found in ratios.items():
        print(
            f"{name}: {fmean(found):.3f} times hindsight on the average, {median(found):.3f} median"
        )


def verdict(boards: int) -> None:
    """Seconds, and worth against full solves."""
    job = shop_job(170, 1)
    parts = tuple(replace(p, species="elm") for p in job.parts)
    job = replace(job, parts=parts, boards=())
    lot = Population(
        "elm",
        "4/4",
        "No. 1 Common",
        Range(72 * INCH, 100 * INCH, 144 * INCH),
        Range(5 * INCH, 7 * INCH, 11 * INCH),
        INCH + INCH // 16,
    )
    price = Price("elm", "4/4", lot.grade, _PER_FOOT, "rough", lot.thickness, lot.length, lot.width)
    at = Supplier("here", "Here", "sawmill", prices=(price,))
    (group,) = groups(job)
    aisle = _aisle(job, lot, at, 1)
    coming = boards_of(lot, Random("verdicts"))
    cart: list[Looked] = []
    for k in range(20):
        board = _priced([replace(next(coming), id=f"C{k}")])[0]
        cart.append(Looked(board, aisle.look(board, cart, why=False)[0]))
    rest = _priced([replace(next(coming), id=f"R{k}") for k in range(40)])
    owned = [replace(k.board, price=Decimal(0)) for k in cart]
    pool = _Pool(aisle, group.job, cart, rest)
    pool.search([*owned, *rest])
    seconds, offered = [], []
    for k in range(boards):
        board = _priced([replace(next(coming), id=f"N{k}")])[0]
        began = time.perf_counter()
        patterns, found = aisle.look(board, cart)
        seconds.append(time.perf_counter() - began)
        assert found and found.error is not None
        pool.add(board, patterns)
        pool.search([*owned, replace(board, price=Decimal(0)), *rest])
        offered.append((board, found))
    without = pool.cost([*owned, *rest])
    off, held = [], 0
    for board, found in offered:
        assert found.error is not None
        saved = without - pool.cost([*owned, replace(board, price=Decimal(0)), *rest])
        off.append(found.worth - saved)
        held += abs(off[-1]) <= found.error
        print(
            f"{board.id}: worth {found.worth:.2f} ± {found.error:.2f}, asked {found.price:.2f}, "
            f"a full solve saves {saved:.2f}",
            flush=True,
        )
    low, high = wilson(held, boards)
    print(
        f"{sum(p.quantity for p in job.parts)} parts, {len(cart)} boards in the cart: verdict in "
        f"{median(seconds):.2f} s in the median, {max(seconds):.2f} at most; worth less full solve "
        f"{fmean(off):.2f} on the average, {fmean(abs(o) for o in off):.2f} in amount; within the "
        f"stated error {held} of {boards} ({100 * low:.0f} to {100 * high:.0f} %)"
    )


class _Pool:
    """What patterns give, by board, of all that was found; and the covering program over them."""

    def __init__(self, aisle: Aisle, job: Job, cart: list[Looked], rest: list[Board]) -> None:
        self.job = job
        self.types = item_types(job)
        self.given: dict[str, set[tuple[tuple[int, int], ...]]] = defaultdict(set)
        for k in cart:
            self.add(k.board, k.patterns)
        for board in rest:
            self.add(board, aisle.look(board, cart, why=False)[0])

    def add(self, board: Board, patterns: Patterns) -> None:
        self.given[board.id] |= {p.taken for p in patterns}

    def search(self, boards: list[Board]) -> None:
        job = replace(self.job, boards=tuple(boards))
        limits = Limits(3600.0, _FULL_ROUNDS, prove=False)
        for mark, taken in search_valued(job, limits, time.monotonic).taken.items():
            self.given[mark].add(taken)

    def cost(self, boards: list[Board]) -> float:
        """The least money for boards, each cut by a mixture of its patterns, for the whole list."""
        columns = [(b, taken) for b in boards for taken in self.given[b.id]]
        demand = np.array([w.width if w.is_panel else w.count for w in self.types], dtype=float)
        gives = lil_array((len(demand), len(columns)))
        once = lil_array((len(boards), len(columns)))
        at = {b.id: n for n, b in enumerate(boards)}
        for k, (board, taken) in enumerate(columns):
            once[at[board.id], k] = 1
            for index, amount in taken:
                gives[index, k] = amount
        solved = linprog(
            np.array([float(b.price) for b, _ in columns]),
            A_ub=vstack([-gives, once]).tocsr(),
            b_ub=np.concatenate([-demand, np.ones(len(boards))]),
            bounds=(0, 1),
        )
        assert solved.x is not None, "the pool does not give the list"
        return float(solved.fun)


if __name__ == "__main__":
    warm()
    number = int(sys.argv[2]) if len(sys.argv) > 2 else 0
    {
        "thumb": lambda: thumb(number or 300),
        "pile": lambda: pile(number or 50),
        "verdict": lambda: verdict(number or 20),
    }[sys.argv[1]]()
