"""What the parts of a list cost to buy: the price of picked boards shared out among what they gave.

A linear model, price of a board = Σ value of a part × how many of it the board gave, fitted over
the boards of simulated purchases by least squares. It is drawn toward values in proportion to the
area that the parts take (ridge regression; A. E. Hoerl, R. W. Kennard, Technometrics 12 (1970),
55-67), and scaled so that the whole list costs what the purchases did on the average. Marginal
(dual) prices would say too little here: a list of a few boards is bought in whole boards. What a
second trip costs is added in the same shares: a board that is left brings it nearer.

How far a value may be off is that of the regression: the covariance of its coefficients, and the
spread of boards' prices about the model for one more board (the prediction error; A. Gelman and
others, Bayesian Data Analysis, 3rd edition, 14.2).
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import lsq_linear

from vividplank.core.buying.chance.sample import Picked
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import ItemType

#: Standard deviations of a board's price about the model, for the mean price, and of a value about
#: its share of the area.
_NOISE, _DRAWN = 0.3, 0.35
#: Boards scatter about a model that was fitted to few of them by no less than this share of that.
_LEAST_NOISE = 0.1
#: A value is at least and at most so many times its share by area.
_LEAST, _MOST = 0.4, 3.0
#: Share of the last board that is left over, on the average.
_LAST = 0.5


@dataclass(frozen=True)
class Values:
    """Money for a unit by item type, in the order of the list's item types: for one part, one run,
    or a tick of a panel's width. `cost` is what the whole list costs, and another trip. `last` is
    what it saves that nothing is wanted any more: of the last board that is bought about half is
    left over. `covariance` is that of the units, `spread` the standard deviation of a board's price
    about what it gave; empty and 0 where no purchase was simulated.
    """

    units: tuple[float, ...]
    cost: float
    last: float
    covariance: tuple[tuple[float, ...], ...] = ()
    spread: float = 0.0

    def deviation(self, units: Sequence[float]) -> float | None:
        """The standard deviation of what one board with so many units saves about their value;
        None where no purchase was simulated.
        """
        if not self.covariance:
            return None
        u = np.array(units, dtype=float)
        return math.sqrt(max(0.0, float(u @ np.array(self.covariance) @ u)) + self.spread**2)


def part_values(
    item_types: Sequence[ItemType], purchases: Sequence[Picked], trip: float = 0.0
) -> Values:
    """From purchases of one list, at least one; `trip` is what it costs to come again."""
    whole = [p for p in purchases if not p.left_out] or list(purchases)
    demand = np.array([w.width if w.is_panel else w.count for w in item_types], dtype=float)
    areas = np.mean([p.areas for p in whole], axis=0)
    cost = float(np.mean([p.cost for p in whole]))
    given = [g for p in whole for g in p.given if g.price > 0]
    if not demand.any() or not given:
        return Values((0.0,) * len(item_types), 0.0, 0.0)
    last = _LAST * float(np.mean([g.price for g in given]))
    shared = max(cost - last, cost / 2)
    shares = areas * shared / float(areas @ demand)
    rows = np.zeros((len(given), len(item_types)))
    for row, board in zip(rows, given, strict=True):
        for index, amount in board.units:
            row[index] = min(float(amount), demand[index])
    prices = np.array([g.price for g in given])
    noise = _NOISE * float(prices.mean())
    design = np.vstack([rows / noise * shares, np.eye(len(item_types)) / _DRAWN])
    right = np.concatenate([prices / noise, np.ones(len(item_types)) / _DRAWN])
    fitted = lsq_linear(design, right, bounds=(_LEAST, _MOST)).x * shares
    scale = (shared + trip) / float(fitted @ demand)
    off = prices - rows @ fitted
    spread = math.sqrt(float(off @ off) / len(off))
    # Of the coefficients beside their shares, by the noise there is and not that which was assumed.
    seen = rows * shares / max(spread, _LEAST_NOISE * noise)
    precision = seen.T @ seen + np.eye(len(item_types)) / _DRAWN**2
    covariance = np.linalg.inv(precision) * np.outer(shares, shares) * scale**2
    return Values(
        tuple(float(v) for v in fitted * scale),
        cost + trip,
        cost - shared,
        tuple(tuple(float(c) for c in row) for row in covariance),
        spread * scale,
    )


def thumb_values(job: Job, item_types: Sequence[ItemType], cost: float) -> Values:
    """Before any purchase was simulated: what the list is thought to cost, shared out by area."""
    shop = job.shop
    areas = []
    for w in item_types:
        across = 1 if w.is_panel else w.width + shop.allowance.width + shop.kerf.rip
        areas.append(float((w.length + shop.kerf.crosscut) * across))
    demand = [w.width if w.is_panel else w.count for w in item_types]
    total = sum(a * d for a, d in zip(areas, demand, strict=True)) or 1.0
    return Values(tuple(a * cost / total for a in areas), cost, 0.0)
