"""One figure of a shop, drawn from its usual value toward what its own events say.

A ratio (minutes taken over minutes foretold, say) is learned on the logarithm, in a normal
hierarchical model: events within a project, projects within the shop, the shop about the usual
value. Events of a project count by their median and projects by Huber's weights, so that neither a
timer that ran over lunch nor one odd project can swing the shop. A rate is learned as Poisson
events with a gamma prior.

An allowance is the quantile of what the next piece will need, in the same model.

Sources: Gelman et al., Bayesian Data Analysis (3rd ed.), chapters 2 and 5; Huber, Robust
Estimation of a Location Parameter, 1964. What differs: variances between shops and between projects
are stated, not estimated, since a shop has few projects.
"""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from math import exp, log, pi, sqrt
from statistics import NormalDist, median

from scipy.stats import gamma

#: Standard deviations of the logarithm: a shop about the usual, a project about its shop.
SHOPS = log(1.5)
PROJECTS = log(1.25)
#: Within a project, where its events say no more: of one event, and the least that is believed.
_WITHIN, _LEAST_WITHIN = log(1.6), log(1.1)
#: Beyond so many standard deviations a project pulls no harder (Huber's constant for 95 %
#: efficiency).
_HUBER = 1.345
#: A factor beyond this is an error of writing and not a shop.
_MOST = 4.0
#: How sure a stated interval is.
SURE = 0.8
#: The share of pieces that an allowance is to be enough for.
ENOUGH = 0.9
_Z = NormalDist().inv_cdf((1 + SURE) / 2)


@dataclass(frozen=True)
class Seen:
    """What one event of a project says: so many times what was foretold."""

    project: int
    ratio: float


@dataclass(frozen=True)
class Figure:
    """A learned figure with the interval it lies in at 80 %, and what it rests on."""

    usual: float
    value: float
    low: float
    high: float
    events: int
    projects: int


def ratio(seen: Iterable[Seen], usual: float = 1.0) -> Figure:
    """How many times the foretold it takes in this shop; `usual` where nothing was seen."""
    found = _posterior(seen, usual)
    return Figure(
        usual,
        usual * exp(found.mean),
        usual * exp(found.mean - _Z * found.sd),
        usual * exp(found.mean + _Z * found.sd),
        found.events,
        found.projects,
    )


def allowance(needs: Iterable[Seen], usual: float, least: float) -> Figure:
    """What is enough for the next piece with the chance `ENOUGH`, where pieces have needed so much
    (in `ratio`); nothing smaller than `least` can be told from nothing. It is `usual` where nothing
    was seen: the usual allowance is taken to be enough as often.
    """
    z = NormalDist().inv_cdf(ENOUGH)
    middle = usual / exp(z * sqrt(_WITHIN**2 + PROJECTS**2 + SHOPS**2))
    seen = [Seen(s.project, max(s.ratio, least)) for s in needs]
    found = _posterior(seen, middle)
    piece = sqrt(found.within**2 + PROJECTS**2)
    return Figure(
        usual,
        middle * exp(found.mean + z * sqrt(piece**2 + found.sd**2)),
        middle * exp(found.mean + z * piece - _Z * found.sd),
        middle * exp(found.mean + z * piece + _Z * found.sd),
        found.events,
        found.projects,
    )


def rate(count: int, exposure: float, usual: float, worth: float, projects: int) -> Figure:
    """How often something happens for one unit of `exposure`, of which `count` were seen; `usual`
    counts as much as `worth` units of exposure.
    """
    shape, scale = usual * worth + count, 1 / (worth + exposure)
    low, high = (
        float(gamma.ppf(share, shape, scale=scale)) for share in ((1 - SURE) / 2, (1 + SURE) / 2)
    )
    return Figure(usual, shape * scale, low, high, count, projects)


@dataclass(frozen=True)
class _Posterior:
    """The logarithm of the shop's middle, about the usual; `within` is the standard deviation of
    one event about its project.
    """

    mean: float
    sd: float
    within: float
    events: int
    projects: int


def _posterior(seen: Iterable[Seen], usual: float) -> _Posterior:
    by_project: defaultdict[int, list[float]] = defaultdict(list)
    for one in seen:
        if one.ratio > 0:
            by_project[one.project].append(log(one.ratio / usual))
    middles = {p: median(found) for p, found in by_project.items()}
    within = _within(by_project, middles)
    means = [min(max(middles[p], -log(_MOST)), log(_MOST)) for p in by_project]
    # The median of n normal values has a variance pi/2 times that of their mean.
    variances = [PROJECTS**2 + pi / 2 * within**2 / len(found) for found in by_project.values()]
    mean, sd = _shop(means, variances)
    return _Posterior(mean, sd, within, sum(map(len, by_project.values())), len(by_project))


def _within(by_project: dict[int, list[float]], middles: dict[int, float]) -> float:
    """The standard deviation of one event about its project: from the median of the distances,
    mixed with the usual one as if that had been seen five times.
    """
    away = [abs(x - middles[p]) for p, found in by_project.items() if len(found) > 1 for x in found]
    if not away:
        return _WITHIN
    seen = max(1.4826 * median(away), _LEAST_WITHIN)
    return sqrt((5 * _WITHIN**2 + len(away) * seen**2) / (5 + len(away)))


def _shop(means: Sequence[float], variances: Sequence[float]) -> tuple[float, float]:
    """The mean of the shop, about 0, and its standard deviation: weights and mean in turn."""
    weights = [1 / v for v in variances]
    prior = 1 / SHOPS**2
    at = median(means) if means else 0.0
    for _ in range(50):
        pulled = [
            w * min(1.0, _HUBER / (abs(m - at) * sqrt(w) or 1e-12))
            for m, w in zip(means, weights, strict=True)
        ]
        total = prior + sum(pulled)
        new = sum(p * m for p, m in zip(pulled, means, strict=True)) / total
        if abs(new - at) < 1e-9:
            break
        at = new
    return at, 1 / sqrt(prior + sum(pulled)) if means else SHOPS
