"""The restricted master problem: the cutting patterns met so far, and the best choice of them.

A search by ruin and recreate forgets good patterns of single boards when they do not go together
at once. Here they are kept as columns of a set covering program with at most one pattern for each
board. Its integer solution (HiGHS) is a plan; the dual prices of its linear relaxation say what a
unit of each item type is worth at the margin, and lead the next patterns to what is hard to place.

References
----------
P. C. Gilmore, R. E. Gomory: A linear programming approach to the cutting-stock problem.
Operations Research 9 (1961), 849-859. There new columns solve the pricing problem exactly; here
they come from a heuristic, so the program gives no bound, only plans.
R. Baldacci, N. Christofides, A. Mingozzi: An exact algorithm for the vehicle routing problem based
on the set partitioning formulation. Mathematical Programming 115 (2008), 351-385, and others since:
a set covering program over the routes (here patterns) that a heuristic has met.
"""

import math
from collections.abc import Callable, Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import coo_matrix, csr_matrix, vstack

from vividplank.core.layout.model.pattern import (
    CuttingPattern,
    PatternBlank,
    PatternSegment,
    PatternStrip,
)
from vividplank.core.layout.search.portfolio import CostBounds, Exchange

_MOST = 3000
#: A board by its place, and what it gives.
Key = tuple[int, tuple[tuple[int, int], ...]]


class RestrictedMaster:
    """Patterns by board, and the covering program over them.

    Parameters
    ----------
    prices
        Price of each board, in money.
    demand
        Units wanted of each item type; net ticks of width for a panel.
    penalty
        Money for each unit (tick) of an item type that is left out.
    bonus
        Of a board and a pattern, in money: of patterns that cost the same those with more are
        chosen.
        For all boards together less than the least difference in price.
    """

    def __init__(
        self,
        prices: Sequence[float],
        demand: Sequence[int],
        penalty: Sequence[float],
        bonus: Callable[[int, CuttingPattern], float] = lambda board, pattern: 0.0,
    ) -> None:
        """See the class."""
        self.prices = np.array(prices, dtype=float)
        self.demand = np.array(demand, dtype=float)
        self.penalty = np.array(penalty, dtype=float)  # for each unit of an item type left out
        self.bonus = bonus
        self.bonuses: dict[Key, float] = {}
        self.columns: dict[Key, CuttingPattern] = {}
        self.fresh: list[tuple[int, CuttingPattern]] = []  # not told to others yet

    def add(self, board: int, pattern: CuttingPattern) -> None:
        if pattern.segments and self._keep(board, pattern):
            self.fresh.append((board, pattern))

    def _keep(self, board: int, pattern: CuttingPattern) -> bool:
        """Whether it is new, or has a larger bonus than one that gives the same; the oldest goes
        where there are too many.
        """
        key, bonus = (board, pattern.taken), self.bonus(board, pattern)
        if key in self.columns and bonus <= self.bonuses[key]:
            return False
        self.columns[key], self.bonuses[key] = pattern, bonus
        if len(self.columns) > _MOST:
            del self.bonuses[oldest := next(iter(self.columns))]
            del self.columns[oldest]
        return True

    def with_bonus(self, board: int, pattern: CuttingPattern) -> CuttingPattern:
        """The pattern, or one that gives the same and has a larger bonus."""
        known = self.columns.get(key := (board, pattern.taken))
        return known if known and self.bonuses[key] > self.bonus(board, pattern) else pattern

    def exchange(self, exchange: Exchange, known: CostBounds) -> CostBounds:
        """Tell others what is new, and take in what they have found; what all of them know of the
        cost.
        """
        sent, self.fresh = self.fresh, []
        found, best = exchange(sent, known)
        for board, pattern in found:
            self._keep(board, pattern)
        return best

    def dual_prices(self, seconds: float = 2.0) -> np.ndarray | None:
        """Dual prices of the linear relaxation, for one unit of each item type; None if not
        solved in that many seconds.
        """
        if not self.columns:
            return None
        cover, once, cost = self._program(list(self.columns), self.penalty)
        limits = vstack([-cover, once])
        right = np.concatenate([-self.demand, np.ones(len(self.prices))])
        solved = linprog(
            cost,
            A_ub=limits,
            b_ub=right,
            bounds=(0, None),
            method="highs",
            options={"time_limit": seconds},
        )
        return (
            None
            if solved.status != 0
            else np.maximum(0.0, -solved.ineqlin.marginals[: len(self.demand)])
        )

    def solve(
        self, seconds: float, penalty: Sequence[float] | None = None, gap: float = 1e-4
    ) -> dict[int, CuttingPattern] | None:
        """The best choice of patterns, by board; surplus is still in them.

        Parameters
        ----------
        seconds
            Time limit of the integer program.
        penalty
            Where given, in place of the usual penalty: then only patterns that cost less than what
            they place are used.
        gap
            Share of the cost by which the choice may be off the best one.

        Returns
        -------
        None where there is no pattern to choose from, or no solution in time.
        """
        keys = list(self.columns)
        owed = self.penalty if penalty is None else np.array(penalty, dtype=float)
        if penalty is not None:
            keys = [k for k in keys if self.prices[k[0]] < sum(owed[w] * n for w, n in k[1])]
        if not keys:
            return None
        cover, once, cost = self._program(keys, owed)
        whole = np.concatenate([np.ones(len(keys)), np.zeros(len(self.demand))])
        upper = np.concatenate([np.ones(len(keys)), self.demand])
        solved = milp(
            cost,
            integrality=whole,
            bounds=Bounds(0, upper),
            constraints=[LinearConstraint(cover, lb=self.demand), LinearConstraint(once, ub=1)],
            options={"time_limit": max(0.05, seconds), "mip_rel_gap": gap},
        )
        if solved.x is None:
            return None
        return {
            keys[k][0]: self.columns[keys[k]] for k in np.flatnonzero(solved.x[: len(keys)] > 0.5)
        }

    def cheapest(self, units: Sequence[float]) -> list[float]:
        """What a unit of profit costs at least on every board, from the lowest up; `units` is what
        one of each item type is worth.
        """
        least: dict[int, float] = {}
        for b, taken in self.columns:
            profits = sum(units[w] * n for w, n in taken)
            if self.prices[b] > 0 and profits > 0:
                least[b] = min(least.get(b, math.inf), float(self.prices[b]) / profits)
        return sorted(least.values())

    def _program(
        self, keys: Sequence[Key], penalty: np.ndarray
    ) -> tuple[csr_matrix, csr_matrix, np.ndarray]:
        """Cover matrix (with a column for what each item type leaves out), one-fill-a-board matrix,
        costs.
        """
        rows, columns, values, boards = [], [], [], []
        for k, (board, taken) in enumerate(keys):
            boards.append(board)
            for item_type, amount in taken:
                rows.append(item_type)
                columns.append(k)
                values.append(min(float(amount), self.demand[item_type]))
        n, w = len(keys), len(self.demand)
        rows += range(w)
        columns += range(n, n + w)
        values += [1.0] * w
        cover = coo_matrix((values, (rows, columns)), shape=(w, n + w)).tocsr()
        once = coo_matrix((np.ones(n), (boards, range(n))), shape=(len(self.prices), n + w)).tocsr()
        # A hair for every board, so that of two equal choices the one with fewer boards is taken.
        please = np.array([self.bonuses[k] for k in keys])
        cost = np.concatenate(
            [self.prices[boards] + 1e-6 * (1 + self.prices.max()) - please, penalty]
        )
        return cover, once, cost


class SharedBounds:
    """What is known of the cost, and the others that search."""

    def __init__(self, bound: float, exchange: Exchange | None = None) -> None:
        self.bounds = CostBounds(bound)
        self.exchange_with = exchange

    @property
    def bound(self) -> float:
        return self.bounds.lower

    def learn(self, bounds: CostBounds) -> None:
        self.bounds &= bounds

    def exchange(self, master: RestrictedMaster) -> None:
        """Tell the others of this and of patterns, and take in theirs."""
        if self.exchange_with:
            self.bounds = master.exchange(self.exchange_with, self.bounds)


def without_surplus(
    pattern: CuttingPattern, surplus: list[int], panels: Sequence[bool], allowance: int
) -> CuttingPattern:
    """The pattern with units taken out that are placed elsewhere too; `surplus` is lowered by what
    was.

    A stave goes only where the panel keeps enough without it. Empty blanks, strips and segments go
    with them.
    """
    taken: dict[int, int] = {}
    segments: list[PatternSegment] = []
    for segment in pattern.segments:
        strips: list[PatternStrip] = []
        for strip in segment.strips:
            net = strip.y1 - strip.y0 - allowance
            blanks: list[PatternBlank] = []
            for blank in strip.blanks:
                layers = []
                for layer in blank.layers:
                    kept = []
                    for item_type in layer:
                        amount = net if panels[item_type] else 1
                        if surplus[item_type] >= amount:
                            surplus[item_type] -= amount
                        else:
                            kept.append(item_type)
                            taken[item_type] = taken.get(item_type, 0) + amount
                    if kept:
                        layers.append(tuple(kept))
                if layers:
                    blanks.append(PatternBlank(blank.x0, blank.x1, tuple(layers)))
            if blanks:
                strips.append(PatternStrip(strip.y0, strip.y1, tuple(blanks)))
        if strips:
            segments.append(
                PatternSegment(segment.x0, segment.x1, segment.y0, segment.slope, tuple(strips))
            )
    return CuttingPattern(tuple(segments), tuple(sorted(taken.items())))
