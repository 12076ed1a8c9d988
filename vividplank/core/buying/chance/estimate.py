"""How much to buy, with what chance: what a number of simulated purchases say together.

Of n purchases in order the next one lies below the k-th with the chance k/(n + 1), whatever their
distribution (S. S. Wilks, Determination of sample sizes for setting tolerance limits, Annals of
Mathematical Statistics 12 (1941), 91-96). Between them the chance goes evenly with the logarithm of
the amount. Beyond the last one it goes on as if the logarithm were normal: with Student's t of
n − 1 degrees of freedom and the standard deviation of the purchases (the predictive distribution;
A. Gelman and others, Bayesian Data Analysis, 3rd edition, 3.2). That deviation starts from what
lists usually have and gives way as purchases come in (a scaled inverse χ² prior of `_PRIOR`
purchases). `start`, what a board holds, is added to an amount first, since a list may be covered by
the first board.
"""

import math
from dataclasses import dataclass, replace

import numpy as np
from scipy.stats import t as student

#: The spread of lists, for the amount, before any purchase was simulated, and what it weighs.
_USUAL_SPREAD, _PRIOR = 0.15, 2.0
#: The chance with which a stated error holds its figure.
SURE = 0.9


@dataclass(frozen=True)
class Amount:
    """An amount and how far it may be off, with nine chances of ten."""

    value: float
    error: float

    def at_least(self, least: float) -> "Amount":
        return replace(self, value=max(self.value, least))


@dataclass(frozen=True)
class Estimate:
    """Amounts (board feet, or boards) at which simulated purchases first covered a list, and what
    one board comes to.
    """

    amounts: tuple[float, ...]
    start: float

    @property
    def _logs(self) -> list[float]:
        return [math.log(a + self.start) for a in self.amounts]

    @property
    def _freedom(self) -> float:
        return _PRIOR + len(self.amounts) - 1

    @property
    def _fit(self) -> tuple[float, float]:
        """Mean and standard deviation of the logarithm, from purchase to purchase."""
        logs = self._logs
        m = sum(logs) / len(logs)
        squares = sum((a - m) ** 2 for a in logs)
        return m, math.sqrt((_PRIOR * _USUAL_SPREAD**2 + squares) / self._freedom)

    @property
    def _knots(self) -> tuple[list[float], list[float]]:
        """Logarithms of amounts in order, and the chance of each."""
        logs = sorted(self._logs)
        n = len(logs)
        return logs, [(k + 1) / (n + 1) for k in range(n)]

    def chance(self, amount: float) -> float:
        """The chance that so much covers the list."""
        log = math.log(max(amount, 0.0) + self.start)
        logs, chances = self._knots
        for end in (0, -1):
            if (log < logs[0]) if end == 0 else (log > logs[-1]):
                t = float(student.ppf(chances[end], self._freedom))
                return float(student.cdf(t + (log - logs[end]) / self._scale, self._freedom))
        return float(np.interp(log, *_distinct(logs, chances)))

    def amount(self, chance: float) -> Amount:
        """What covers the list with this chance, and how far that may be off.

        The error is that of a quantile of a normal population, s √(1/n + z²/2n), times the t of
        nine chances of ten.
        """
        logs, chances = self._knots
        n, (_, s) = len(logs), self._fit
        t = float(student.ppf(chance, self._freedom))
        log = float(np.interp(chance, chances, logs))
        for end, beyond in ((0, chance < chances[0]), (-1, chance > chances[-1])):
            if beyond:
                known = float(student.ppf(chances[end], self._freedom))
                log = logs[end] + (t - known) * self._scale
        wide = float(student.ppf((1 + SURE) / 2, self._freedom))
        off = wide * s * math.sqrt(1 / n + t * t / (2 * n))
        value = math.exp(log)
        return Amount(max(0.0, value - self.start), value * (math.exp(off) - math.exp(-off)) / 2)

    @property
    def _scale(self) -> float:
        return self._fit[1] * math.sqrt(1 + 1 / len(self.amounts))


def _distinct(logs: list[float], chances: list[float]) -> tuple[list[float], list[float]]:
    """Of equal amounts the highest chance: they cover the list whenever any of them does."""
    last = dict(zip(logs, chances, strict=True))
    return list(last), list(last.values())


def curve(estimate: Estimate, points: int = 25) -> list[tuple[float, float]]:
    """(amount, chance) from hardly any chance to nearly all of it."""
    low, high = estimate.amount(0.02).value, estimate.amount(0.99).value
    step = (high - low) / (points - 1)
    return [(low + k * step, estimate.chance(low + k * step)) for k in range(points)]


def each_of(chance: float, groups: int) -> float:
    """The chance every one of so many groups needs, for all of them together to have this one."""
    return float(chance ** (1 / max(1, groups)))
