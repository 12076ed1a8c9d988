"""Ruin and recreate: boards are emptied and filled again, and the best plan is kept.

What is better is the order of the exchange page: less unplaced finished volume, then less cost,
then more left over in reusable lengths. Acceptance is that of simulated annealing with a
temperature that falls to nothing; the weights of item types that keep being left out rise until
these are placed (adaptive penalties); patterns met on the way are put together by the restricted
master. A plan of many boards is improved by subproblems of a few boards.

References
----------
G. Schrimpf, J. Schneider, H. Stamm-Wilbrandt, G. Dueck: Record breaking optimization results using
the ruin and recreate principle. Journal of Computational Physics 159 (2000), 139-171.
P. Shaw: Using constraint programming and local search methods to solve vehicle routing problems.
CP 1998, LNCS 1520, 417-431: large neighbourhood search, of which this is a case.
S. Ropke, D. Pisinger: An adaptive large neighborhood search heuristic for the pickup and delivery
problem with time windows. Transportation Science 40 (2006), 455-472: annealing over ruin and
recreate. Here the weights belong to item types and not to operators.
D. E. Joslin, D. P. Clements: "Squeaky wheel" optimization. Journal of Artificial Intelligence
Research 10 (1999), 353-373: what is left out weighs more the next time.
"""

import heapq
import math
import random
from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import replace
from decimal import Decimal

from vividplank.core.layout.model.limits import Clock, Limits
from vividplank.core.layout.model.pattern import EMPTY, CuttingPattern
from vividplank.core.layout.model.solution import Objective, Solution, leftover
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.search.effort import FIRST, LATE, LEAST, Effort, affordable
from vividplank.core.layout.search.portfolio import CostBounds
from vividplank.core.layout.search.profits import Profits, rarity
from vividplank.core.layout.search.restricted_master import (
    RestrictedMaster,
    SharedBounds,
    without_surplus,
)
from vividplank.core.shop import Shop

#: Rounds of ruin and recreate between two choices from the restricted master.
_COMBINE_EVERY = 20
#: Boards filled with the first choice in a round: of everything, or of what the thriftiest patterns
#: leave.
_PRICED = 6
#: Boards not in use that are tried in a round beside those that were emptied.
_IDLE_TRIED = 5
#: Empty boards that are tried first for what the patterns that were put together leave.
_EMPTY_TRIED = 8
#: Boards named when it is told what is tried.
_NAMED = 5
#: Item types looked at together for one board where there is time for as many ways to cut it as the
#: generator likes.
_MANY = 120
#: How often only the thriftiest patterns are put together, and of how large a share of the boards.
_THRIFTY, _SHARE = 0.75, (0.1, 0.7)
#: How often a board is filled with the first choice of what these leave, and not of everything.
_REST = 0.7
#: A round that takes more seconds than this is slow.
_SLOW = 0.25
#: A plan of more boards than this is bettered a few at a time: after this share of the time so
#: many boards, with so many others : to choose from, for so many seconds.
_LARGE, _FROM, _AGAIN, _OTHERS, _SECONDS = 20, 0.15, 9, 11, 1.2
#: Rounds between two such at most, where they come to nothing.
_PATIENCE = 4
#: The chance by which another board is taken for poor.
_CHANCE = 0.1


class RuinAndRecreate:
    """A search over some boards for some demand.

    Parameters
    ----------
    initial
        Profits and penalties of the item types at the start.
    generators
        The pattern generator of each board.
    prices
        Price of each board; 0 where it is cut in any case.
    sunk
        What the boards cost that are cut in any case.
    demand
        Units wanted of each item type; net ticks of width for a panel.
    shop, limits, clock
        The shop's settings; seconds or rounds, and the seed; seconds since any moment.
    goes_on
        Called about every tenth of a second with the best solution and its objective; the search
        ends
        when it says no.
    known
        Bounds on the cost, shared with other workers.

    `rounds` and `trying` tell how many rounds it has gone and what is tried now.
    """

    def __init__(
        self,
        initial: Profits,
        generators: Sequence[PatternGenerator],
        prices: Sequence[Decimal],
        sunk: Decimal,
        demand: Sequence[int],
        shop: Shop,
        limits: Limits,
        clock: Clock,
        goes_on: Callable[[Solution, Objective], bool],
        known: SharedBounds,
    ) -> None:
        self.initial = initial
        self.item_types = initial.item_types
        self.units = [w.volume / (w.width if w.is_panel else 1) for w in initial.item_types]
        self.sunk = sunk
        self.shop = shop
        self.limits = limits
        self.clock = clock
        self.began = clock()
        self.goes_on = goes_on
        self.known = known
        self.rng = random.Random(limits.seed)
        self.rounds = 0
        self.effort: Effort | None = None
        self.many = False
        self.trying = "the first plan, board by board"
        self.generators = generators
        self.money = prices
        self.prices = [float(p) for p in prices]
        self.areas = [f.board.length * f.board.mean_width * f.board.thinnest for f in generators]
        self.demand = list(demand)
        penalty = [
            initial.per_volume * u * w for u, w in zip(self.units, initial.weights, strict=True)
        ]
        self.master = RestrictedMaster(
            self.prices,
            self.demand,
            penalty,
            lambda i, pattern: initial.per_shown * generators[i].strips.preference.shown(pattern),
        )
        self.plain = list(initial.plain)
        self.profits = list(self.plain)
        self.guide = list(self.plain)
        self._go_on_with(self.demand, [EMPTY] * len(generators))

    def first(self) -> Solution:
        """A plan at once: boards cheapest for their size first, each filled with little effort."""
        began = self.clock()
        remaining = list(self.demand)
        patterns = [EMPTY] * len(self.generators)
        self.effort = FIRST
        order = sorted(range(len(patterns)), key=lambda i: self.prices[i] / self.areas[i])
        for i in order:
            if (
                not any(n > 0 for n in remaining)
                or self.clock() - self.began >= self.limits.seconds
            ):
                break
            if any(remaining[w.index] > 0 for w in self.generators[i].mine):
                patterns[i] = self._fill(i, remaining, self.profits)
                for index, amount in patterns[i].taken:
                    remaining[index] -= amount
        self.many = self.limits.rounds is None and sum(bool(f.segments) for f in patterns) > _LARGE
        self.effort = (
            affordable(self.clock() - began, len(patterns), self.limits.seconds)
            if self.many
            else None
        )
        return Solution(patterns, remaining)

    def run(self, solution: Solution) -> tuple[Solution, Objective]:
        """The best solution found from this one on, within the limits, and its objective."""
        best, objective = solution, self.objective(solution)
        energy = self._energy(objective, solution.patterns)
        total = sum(self.prices) + float(self.sunk) + 1
        told, settled = -1.0, None
        self.rounds = 0
        combined = (0, 0.0, 0.0)
        bettered, failed = 0, 0
        while True:
            spent = self.clock() - self.began
            if spent - told >= 0.1:
                told = spent
                if not self.goes_on(best, objective):
                    break
            if (
                spent >= self.limits.seconds
                or self.rounds == self.limits.rounds
                or not self.generators
                or not any(self.demand)
            ):
                break
            if objective.unplaced == 0:
                self.known.learn(CostBounds(upper=float(objective.cost)))
                if float(objective.cost) <= self.known.bound + 1e-9:
                    settled = spent if settled is None else settled
                    if spent - settled >= min(1.0, 0.2 * self.limits.seconds):
                        break  # proved; a little longer for better leftovers
            self.rounds += 1
            if (
                self.rounds == 1
            ):  # the first plan took the boards as they came; now always the one that gives most
                tried = self._recreate(
                    [EMPTY] * len(self.generators), list(range(len(self.generators)))
                )
                if self.effort is None:
                    self._weigh_rare()
            elif self.rounds > bettered + failed and self._is_large(best, spent):
                better = self.improve_subproblem(best, objective, failed)
                bettered, failed = self.rounds, 0 if better else min(failed + 1, _PATIENCE)
                if better is None:
                    continue
                tried, energy = better, math.inf
            elif self._time_to_combine(spent, combined):
                tried = self._combine(self.limits.seconds - spent)
                now = self.clock() - self.began
                combined = (self.rounds, now, now - spent)
                energy = math.inf
            else:
                for _ in range(0 if self.limits.quick else _PRICED):
                    self._price()
                tried = self._ruin(solution)
            there = self.objective(tried)
            tried_energy = self._energy(there, tried.patterns)
            temperature = 0.02 * total * (1 - min(1.0, spent / self.limits.seconds)) ** 2
            if tried_energy <= energy + temperature * self.rng.random() ** 2:
                solution, energy = tried, tried_energy
            if there.better(objective):
                best, objective = tried, there
            # Where rounds are slow there will be few of them.
            slow = (
                (self.clock() - self.began - spent) / _SLOW if self.limits.rounds is None else 1.0
            )
            self._adapt_weights(tried, 1.05 ** min(max(1.0, slow), 6.0))
            if self.rounds % 60 == 0:
                solution, energy = best, self._energy(objective, best.patterns)
        return best, objective

    def _is_large(self, best: Solution, spent: float) -> bool:
        """Whether the plan has so many boards that they are better laid anew a few at a time."""
        begun = self.limits.rounds is None and (
            self.effort is not None or spent >= _FROM * self.limits.seconds
        )
        return begun and sum(bool(f.segments) for f in best.patterns) > _LARGE

    def improve_subproblem(
        self, best: Solution, objective: Objective, failed: int
    ) -> Solution | None:
        """The plan with a few boards solved again by themselves; None where that costs no less.

        The boards are those that give least for their price and some others, or, while parts are
        left out, those that can give them. `failed` counts how often in a row it came to nothing:
        the choice is then more random, and the time longer.
        """
        again, others = (
            self._poor(best, _CHANCE * (1 + failed))
            if objective.unplaced == 0
            else self._wanted_of(best)
        )
        places = [*again, *others]
        freed = set(again)
        rest = self._remaining(EMPTY if i in freed else f for i, f in enumerate(best.patterns))
        self.trying = (
            f"{self._names(again or others) or 'what is left'} laid anew, the rest as it is"
        )
        remaining = self.began + self.limits.seconds - self.clock()
        if remaining <= 0:
            return None
        wanted = {k for k, n in enumerate(rest) if n > 0}
        limits = replace(
            self.limits,
            seconds=min(_SECONDS * (1 + failed / 2), remaining),
            seed=self.rng.getrandbits(31),
        )
        fewer = RuinAndRecreate(
            self.initial,
            [self.generators[i].of(wanted) for i in places],
            [self.money[i] for i in places],
            Decimal(0),
            [max(0, n) for n in rest],
            self.shop,
            limits,
            self.clock,
            lambda *_: self.goes_on(best, objective),
            SharedBounds(0.0),
        )
        fewer.profits = [
            own * w / p for own, w, p in zip(fewer.plain, self.profits, self.plain, strict=True)
        ]
        now = Solution([best.patterns[i] for i in places], list(best.remaining))
        for k, pattern in enumerate(now.patterns):
            fewer.master.add(k, pattern)
        found, there = fewer.run(now)
        if not there.better(fewer.objective(now)):
            return None
        patterns = list(best.patterns)
        for i, pattern in zip(places, found.patterns, strict=True):
            patterns[i] = pattern
            self.master.add(i, pattern)
        return Solution(patterns, self._remaining(patterns))

    def _poor(self, best: Solution, chance: float) -> tuple[list[int], list[int]]:
        """Boards in use, half of them those that give least for their price, and some that are not
        in use.
        """
        used = self._poorest(
            [i for i, f in enumerate(best.patterns) if f.segments and self.prices[i] > 0],
            best.patterns,
            chance,
        )
        poor, others = used[: (_AGAIN + 1) // 2], used[(_AGAIN + 1) // 2 :]
        idle = [
            i for i, f in enumerate(best.patterns) if not f.segments and self.generators[i].mine
        ]
        return poor + self.rng.sample(others, min(len(others), _AGAIN // 2)), self.rng.sample(
            idle, min(len(idle), _OTHERS)
        )

    def _wanted_of(self, best: Solution) -> tuple[list[int], list[int]]:
        """Boards, in use or not, that can give of what is left out."""
        out = {index for index, n in enumerate(best.remaining) if n > 0}
        able = [
            i for i, generator in enumerate(self.generators) if not out.isdisjoint(generator.able)
        ]
        some = self.rng.sample(able, min(len(able), _AGAIN))
        return [i for i in some if best.patterns[i].segments], [
            i for i in some if not best.patterns[i].segments
        ]

    def _remaining(self, patterns: Iterable[CuttingPattern]) -> list[int]:
        """What these leave of every item type."""
        remaining = list(self.demand)
        for pattern in patterns:
            for index, amount in pattern.taken:
                remaining[index] -= amount
        return remaining

    def _weigh_rare(self) -> None:
        """What hardly any board can give is worth more. Which can is known once all have been
        asked.
        """
        able = [f.able for f in self.generators]
        for k, plain in enumerate(self.initial.plain):
            rare = plain * rarity(sum(k in each for each in able), len(able))
            self.profits[k] *= rare / self.plain[k]
            self.plain[k] = rare

    def _time_to_combine(self, spent: float, combined: tuple[int, float, float]) -> bool:
        """Every so many rounds; sooner where rounds are slow, but for no more than a third of the
        time.
        """
        last_round, last, took = combined
        if self.limits.rounds is not None:
            return self.rounds % _COMBINE_EVERY == 0
        return self.rounds - last_round >= _COMBINE_EVERY or spent - last >= max(0.35, 2 * took)

    def _adapt_weights(self, solution: Solution, more: float) -> None:
        """Raise the profits of item types left out by the factor `more`, to 12 times at most; those
        of the others go back to where they began by a hundredth of the difference.
        """
        for index, remaining in enumerate(solution.remaining):
            if remaining > 0:
                self.profits[index] = min(self.profits[index] * more, 12.0 * self.plain[index])
            else:
                self.profits[index] = (
                    self.plain[index] + (self.profits[index] - self.plain[index]) * 0.99
                )

    def _ruin(self, solution: Solution) -> Solution:
        """Empty a few boards and lay what came off them again, perhaps without one of them."""
        patterns = list(solution.patterns)
        free = [i for i in self.idle if self.generators[i].mine]
        used = [i for i in free if patterns[i].segments]
        again = set(self.rng.sample(free, min(len(free), self.rng.randint(1, 3))))
        if used and self.rng.random() < 0.5:
            # Those that give least for their price, and whoever is near them.
            again = set(self._poorest(used, patterns, _CHANCE)[: self.rng.randint(2, 5)])
        elif used:
            again.add(self.rng.choice(used))
        if self.rng.random() < 0.1:
            again = set(free)
        without: set[int] = set()
        if used and not any(n > 0 for n in solution.remaining) and self.rng.random() < 0.6:
            dear = [i for i in used if self.prices[i] > 0]
            if dear:
                without = {self.rng.choice(dear)}
                again |= without
        for i in again:
            patterns[i] = EMPTY
        self.trying = f"{self._names(again - without) or 'what is left'} laid anew"
        self.trying += f", without {self._names(without)}" if without else ""
        order = [i for i in again if i not in without]
        idle = [i for i in free if not patterns[i].segments and i not in again and i not in without]
        order += self.rng.sample(idle, min(len(idle), _IDLE_TRIED))
        return self._recreate(patterns, order, last=without)

    def _recreate(
        self, patterns: list[CuttingPattern], order: list[int], last: set[int] | None = None
    ) -> Solution:
        """Fill boards of `order` until nothing is left, always the one that gives most for its
        price, with some chance.

        What a board gives of less is less: a figure from before is still no smaller than the truth,
        so only the foremost is asked again. Boards of `last` come when the others are full.
        """
        remaining = self._remaining(patterns)
        patterns = list(patterns)
        later = last or set()
        chance = [0.9 + 0.2 * self.rng.random() for _ in self.generators]
        queue: list[tuple[bool, float, int]] = []
        ready: dict[int, CuttingPattern] = {}
        for i in [*order, *later]:
            if self.generators[i].mine and not patterns[i].segments:
                looked = self._look(i, remaining) * chance[i] if self.limits.quick else math.inf
                heapq.heappush(queue, (i in later, -looked, i))
        while (
            queue
            and any(n > 0 for n in remaining)
            and self.clock() - self.began < self.limits.seconds
        ):
            if (
                self.rounds == 1
                and self.many
                and self.clock() - self.began > LATE * self.limits.seconds
            ):
                self.effort = LEAST
            behind, _, i = heapq.heappop(queue)
            known = ready.get(i)
            if known and all(remaining[index] >= amount for index, amount in known.taken):
                pattern = known
            else:
                if not any(remaining[w.index] > 0 for w in self.generators[i].mine):
                    continue
                pattern = self._fill(i, remaining, self.profits)
                if not pattern.segments:
                    continue
                ready[i] = pattern
                entry = (behind, -self._score(i, pattern) * chance[i], i)
                if queue and entry > queue[0]:
                    heapq.heappush(queue, entry)
                    continue
            patterns[i] = pattern
            for index, amount in pattern.taken:
                remaining[index] -= amount
        return Solution(patterns, remaining)

    def _look(self, i: int, remaining: list[int]) -> float:
        """About what a board gives for its price: filled with little effort."""
        effort, self.effort = self.effort, FIRST
        score = self._score(i, self._fill(i, remaining, self.profits))
        self.effort = effort
        return score

    def _score(self, i: int, pattern: CuttingPattern) -> float:
        """What a board gives for its price."""
        given = sum(
            self.profits[index] * self._volume(index, amount) for index, amount in pattern.taken
        )
        return given / self.prices[i] if self.prices[i] else math.inf

    def _price(self) -> None:
        """Fill one board as if it had the first choice, led by what is dear at the margin."""
        demand, i = self.demand, self.rng.randrange(len(self.generators))
        if self.rng.random() < _REST and self.idle:
            demand, i = self.rest, self.rng.choice(self.idle)
        if self.generators[i].mine:
            by, spread = (self.guide, 0.08) if self.rng.random() < 0.5 else (self.plain, 0.015)
            self._fill(i, demand, [w * (1 + spread * (2 * self.rng.random() - 1)) for w in by])

    def _fill(self, i: int, remaining: list[int], profits: list[float]) -> CuttingPattern:
        """What one board gives best of what is left; everything met on the way goes into the
        pool.
        """
        generator = self.generators[i]
        beam, tries, many = self.effort or (*generator.breadth, _MANY)
        wanted = [w.index for w in generator.mine if remaining[w.index] > 0]
        if (
            len(wanted) > many
        ):  # of a long list some, others the next time: what fills a board well is found among them
            some = set(self.rng.sample(wanted, many))
            remaining = [n if k in some else 0 for k, n in enumerate(remaining)]
            generator = generator.of(some) if self.effort else generator
        found = generator.cut(remaining, profits, self.rng, beam, tries)
        for pattern in found:
            self.master.add(i, pattern)
        return found[0] if found else EMPTY

    def _go_on_with(self, rest: list[int], patterns: list[CuttingPattern]) -> None:
        """Until patterns are put together again search for `rest` on the boards that are empty; for
        all where none is left.
        """
        empty = [i for i, pattern in enumerate(patterns) if not pattern.segments]
        whole = not any(rest) or not empty
        self.rest = self.demand if whole else rest
        self.idle = list(range(len(patterns))) if whole else empty

    def _names(self, boards: Collection[int]) -> str:
        names = [self.generators[i].board.id for i in sorted(boards)]
        return ", ".join(names[:_NAMED]) + (
            f" and {len(names) - _NAMED} more" if len(names) > _NAMED else ""
        )

    def _combine(self, seconds_left: float) -> Solution:
        """The best of the patterns met so far, put together."""
        self.trying = (
            f"the best of {len(self.master.columns)} ways to cut single boards, put together"
        )
        self.known.exchange(self.master)
        # With a number of rounds the plan must not depend on how busy the machine is.
        profits = self.master.dual_prices(2.0 if self.limits.rounds is None else 60.0)
        if profits is not None:
            margin = [float(p) / u for p, u in zip(profits, self.units, strict=True)]
            asked = sum(p * n for p, n in zip(profits, self.demand, strict=True)) or 1.0
            plain = sum(
                p * u * n for p, u, n in zip(self.plain, self.units, self.demand, strict=True)
            )
            # The dual prices of a poor master jump about: half of the initial profit steadies them.
            self.guide = [
                0.5 * p + 0.5 * m * plain / asked for p, m in zip(self.plain, margin, strict=True)
            ]
        seconds = min(0.7, 0.5 * seconds_left) if self.limits.rounds is None else 60.0
        # Sometimes only the patterns that are thriftiest stay, and what they leave out is laid
        # anew.
        initial = [t * u for t, u in zip(self.initial.taken, self.units, strict=True)]
        costs = self.master.cheapest(initial) if self.rng.random() < _THRIFTY else []
        most = costs[int(len(costs) * self.rng.uniform(*_SHARE))] * 1.0005 if costs else 0.0
        chosen = self.master.solve(seconds, [most * w for w in initial] if costs else None)
        patterns = [EMPTY] * len(self.generators)
        if chosen:
            remaining = self._remaining(chosen.values())
            panels, surplus = [w.is_panel for w in self.item_types], [max(0, -n) for n in remaining]
            for i, pattern in chosen.items():
                patterns[i] = without_surplus(pattern, surplus, panels, self.shop.allowance.width)
            if costs:
                self._go_on_with([max(0, n) for n in remaining], patterns)
            else:
                self._go_on_with(self.demand, [EMPTY] * len(patterns))
        empty = [i for i, pattern in enumerate(patterns) if not pattern.segments]
        some = self.rng.sample(empty, min(len(empty), _EMPTY_TRIED))
        return self._recreate(patterns, some, last=set(empty).difference(some))

    def objective(self, solution: Solution) -> Objective:
        unplaced = 0
        for item_type, weight, remaining in zip(
            self.item_types, self.initial.weights, solution.remaining, strict=True
        ):
            if remaining > 0:
                unplaced += int(weight) * (
                    item_type.volume if item_type.is_panel else item_type.volume * remaining
                )
        cost = sum(
            (p for p, f in zip(self.money, solution.patterns, strict=True) if f.segments), self.sunk
        )
        shown = sum(
            generator.strips.preference.shown(f)
            for generator, f in zip(self.generators, solution.patterns, strict=True)
        )
        remaining = sum(
            leftover(f, generator.board, self.shop)
            for generator, f in zip(self.generators, solution.patterns, strict=True)
        )
        return Objective(unplaced, cost, remaining, shown)

    def _energy(self, objective: Objective, patterns: list[CuttingPattern]) -> float:
        pleasing = 1e-9 * objective.leftover + self.initial.per_shown * objective.shown
        return (
            self.initial.per_volume * objective.unplaced
            + float(objective.cost)
            - pleasing
            - self._fullness(patterns)
        )

    def _fullness(self, patterns: list[CuttingPattern]) -> float:
        """A little for boards that are full and others that are nearly empty: the next board to do
        without.
        """
        total = 0.0
        for price, area, pattern in zip(self.prices, self.areas, patterns, strict=True):
            share = sum(self._volume(index, amount) for index, amount in pattern.taken) / area
            total += price * share * share
        return 0.3 * total

    def _poorest(
        self, boards: list[int], patterns: list[CuttingPattern], chance: float
    ) -> list[int]:
        """The boards, those first that give least for their price, with some chance."""
        return sorted(
            boards, key=lambda i: self._thrift(i, patterns[i]) * (1 + chance * self.rng.random())
        )

    def _thrift(self, i: int, pattern: CuttingPattern) -> float:
        """What a board gives, by the initial profit, for its price."""
        return sum(self.plain[index] * self._volume(index, n) for index, n in pattern.taken) / (
            self.prices[i] or 1e-9
        )

    def _volume(self, index: int, amount: int) -> float:
        item_type = self.item_types[index]
        return item_type.volume * (amount / item_type.width if item_type.is_panel else amount)
