"""The fills met so far, and the best choice of at most one for each board.

A search by ruin and recreate forgets good fills of single boards when they do not go together at
once. Here they are kept, and a covering program (HiGHS) picks those that together place everything
at the least cost. Its linear relaxation gives what each want is worth at the margin, which leads
the next fills to what is hard to place.
"""

import math
from collections.abc import Callable, Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import coo_matrix, csr_matrix, vstack

from vividplank.core.layout.model.pattern import Fill, FilledBlank, FilledSegment, FilledStrip
from vividplank.core.layout.search.portfolio import Share, Span

_MOST = 3000
#: A board by its place, and what it gives.
Key = tuple[int, tuple[tuple[int, int], ...]]


class Pool:
    """Fills by board. `demand` counts lumps of each want, or net ticks for a panel; of fills that
    cost the same those are chosen that please more.
    """

    def __init__(
        self,
        prices: Sequence[float],
        demand: Sequence[int],
        penalty: Sequence[float],
        pleases: Callable[[int, Fill], float] = lambda board, fill: 0.0,
    ) -> None:
        """`pleases` is less than the least difference in price, for all boards together."""
        self.prices = np.array(prices, dtype=float)
        self.demand = np.array(demand, dtype=float)
        self.penalty = np.array(penalty, dtype=float)  # for each unit of a want left out
        self.pleases = pleases
        self.pleasing: dict[Key, float] = {}
        self.columns: dict[Key, Fill] = {}
        self.fresh: list[tuple[int, Fill]] = []  # not told to others yet

    def add(self, board: int, fill: Fill) -> None:
        if fill.segments and self._keep(board, fill):
            self.fresh.append((board, fill))

    def _keep(self, board: int, fill: Fill) -> bool:
        """Whether it is new, or pleases more than one that gives the same; the oldest goes where
        there are too many.
        """
        key, pleasing = (board, fill.taken), self.pleases(board, fill)
        if key in self.columns and pleasing <= self.pleasing[key]:
            return False
        self.columns[key], self.pleasing[key] = fill, pleasing
        if len(self.columns) > _MOST:
            del self.pleasing[oldest := next(iter(self.columns))]
            del self.columns[oldest]
        return True

    def as_pleasing(self, board: int, fill: Fill) -> Fill:
        """The fill, or one that gives the same and pleases more."""
        known = self.columns.get(key := (board, fill.taken))
        return known if known and self.pleasing[key] > self.pleases(board, fill) else fill

    def share(self, share: Share, known: Span) -> Span:
        """Tell others what is new, and take in what they have found; what all of them know of the
        cost.
        """
        told, self.fresh = self.fresh, []
        found, best = share(told, known)
        for board, fill in found:
            self._keep(board, fill)
        return best

    def worth(self) -> np.ndarray | None:
        """The price of one unit of each want in the linear relaxation; None where it was not
        solved.
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
            options={"time_limit": 2.0},
        )
        return (
            None
            if solved.status != 0
            else np.maximum(0.0, -solved.ineqlin.marginals[: len(self.demand)])
        )

    def choose(
        self, seconds: float, penalty: Sequence[float] | None = None
    ) -> dict[int, Fill] | None:
        """The best fills by board; surplus is still in them.

        With a `penalty` of its own for each unit of a want left out, only fills that cost less than
        what they place are taken.
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
            options={"time_limit": max(0.05, seconds), "mip_rel_gap": 1e-4},
        )
        if solved.x is None:
            return None
        return {
            keys[k][0]: self.columns[keys[k]] for k in np.flatnonzero(solved.x[: len(keys)] > 0.5)
        }

    def cheapest(self, units: Sequence[float]) -> list[float]:
        """What a unit of worth costs at least on every board, from the lowest up; `units` is what
        one of each want is worth.
        """
        least: dict[int, float] = {}
        for b, taken in self.columns:
            worth = sum(units[w] * n for w, n in taken)
            if self.prices[b] > 0 and worth > 0:
                least[b] = min(least.get(b, math.inf), float(self.prices[b]) / worth)
        return sorted(least.values())

    def _program(
        self, keys: Sequence[Key], penalty: np.ndarray
    ) -> tuple[csr_matrix, csr_matrix, np.ndarray]:
        """Cover matrix (with a column for what each want leaves out), one-fill-a-board matrix,
        costs.
        """
        rows, columns, values, boards = [], [], [], []
        for k, (board, taken) in enumerate(keys):
            boards.append(board)
            for want, amount in taken:
                rows.append(want)
                columns.append(k)
                values.append(min(float(amount), self.demand[want]))
        n, w = len(keys), len(self.demand)
        rows += range(w)
        columns += range(n, n + w)
        values += [1.0] * w
        cover = coo_matrix((values, (rows, columns)), shape=(w, n + w)).tocsr()
        once = coo_matrix((np.ones(n), (boards, range(n))), shape=(len(self.prices), n + w)).tocsr()
        # A hair for every board, so that of two equal choices the one with fewer boards is taken.
        please = np.array([self.pleasing[k] for k in keys])
        cost = np.concatenate(
            [self.prices[boards] + 1e-6 * (1 + self.prices.max()) - please, penalty]
        )
        return cover, once, cost


class Known:
    """What is known of the cost, and the others that search."""

    def __init__(self, bound: float, share: Share | None = None) -> None:
        self.span = Span(bound)
        self.share = share

    @property
    def bound(self) -> float:
        return self.span.least

    def learn(self, span: Span) -> None:
        self.span &= span

    def exchange(self, pool: Pool) -> None:
        """Tell the others of this and of fills, and take in theirs."""
        if self.share:
            self.span = pool.share(self.share, self.span)


def without_surplus(fill: Fill, surplus: list[int], panels: Sequence[bool], allowance: int) -> Fill:
    """The fill with lumps taken out that are placed elsewhere too; `surplus` is lowered by what
    was.

    A stave goes only where the panel keeps enough without it. Empty blanks, strips and segments go
    with them.
    """
    taken: dict[int, int] = {}
    segments: list[FilledSegment] = []
    for segment in fill.segments:
        strips: list[FilledStrip] = []
        for strip in segment.strips:
            net = strip.y1 - strip.y0 - allowance
            blanks: list[FilledBlank] = []
            for blank in strip.blanks:
                layers = []
                for layer in blank.layers:
                    kept = []
                    for want in layer:
                        amount = net if panels[want] else 1
                        if surplus[want] >= amount:
                            surplus[want] -= amount
                        else:
                            kept.append(want)
                            taken[want] = taken.get(want, 0) + amount
                    if kept:
                        layers.append(tuple(kept))
                if layers:
                    blanks.append(FilledBlank(blank.x0, blank.x1, tuple(layers)))
            if blanks:
                strips.append(FilledStrip(strip.y0, strip.y1, tuple(blanks)))
        if strips:
            segments.append(
                FilledSegment(segment.x0, segment.x1, segment.y0, segment.slope, tuple(strips))
            )
    return Fill(tuple(segments), tuple(sorted(taken.items())))
