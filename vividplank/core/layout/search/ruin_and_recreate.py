"""Ruin and recreate: boards and what is wanted of them, filled board by board, emptied and filled
again, and the best of it.

What is better is the order of the exchange page: less unplaced finished volume, then less cost,
then more left over in reusable lengths. Wants that keep being left out are weighed heavier until
they are placed (the squeaky wheel gets the oil).
"""

import heapq
import math
import random
from collections.abc import Callable, Collection, Iterable, Sequence
from dataclasses import replace
from decimal import Decimal

from vividplank.core.layout.model.limits import Clock, Limits
from vividplank.core.layout.model.pattern import EMPTY, Fill
from vividplank.core.layout.model.solution import Standing, State, leftover
from vividplank.core.layout.patterns.generator import Filler
from vividplank.core.layout.search.effort import FIRST, LATE, LEAST, Care, affordable
from vividplank.core.layout.search.portfolio import Span
from vividplank.core.layout.search.profits import Worths, rarity
from vividplank.core.layout.search.restricted_master import Known, Pool, without_surplus
from vividplank.core.shop import Shop

#: Rounds of ruin and recreate between two choices from the pool.
_COMBINE_EVERY = 20
#: Boards filled with the first choice in a round: of everything, or of what the thriftiest fills
# leave.
_PRICED = 6
#: Boards not in use that are tried in a round beside those that were emptied.
_IDLE_TRIED = 5
#: Empty boards that are tried first for what the fills that were put together leave.
_EMPTY_TRIED = 8
#: Boards named when it is told what is tried.
_NAMED = 5
#: Wants looked at together for one board where there is time for as many ways to cut it as the
# filler likes.
_MANY = 120
#: How often only the thriftiest fills are put together, and of how large a share of the boards.
_THRIFTY, _SHARE = 0.75, (0.1, 0.7)
#: How often a board is filled with the first choice of what these leave, and not of everything.
_REST = 0.7
#: A round that takes more seconds than this is slow.
_SLOW = 0.25
#: A plan of more boards than this is bettered a few at a time: after this share of the time so
# many boards, with so many others : to choose from, for so many seconds.
_LARGE, _FROM, _AGAIN, _OTHERS, _SECONDS = 20, 0.15, 9, 11, 1.2
#: Rounds between two such at most, where they come to nothing.
_PATIENCE = 4
#: The chance by which another board is taken for poor.
_CHANCE = 0.1


class Hunt:
    """Some boards, of these prices (0 where they are cut in any case), and how much is wanted of
    them.

    `goes_on` is told the best so far and how good it is about every tenth of a second; how many
    rounds it has gone and what is tried stand in `rounds` and `trying`.
    """

    def __init__(
        self,
        worths: Worths,
        fillers: Sequence[Filler],
        prices: Sequence[Decimal],
        sunk: Decimal,
        demand: Sequence[int],
        shop: Shop,
        limits: Limits,
        clock: Clock,
        goes_on: Callable[[State, Standing], bool],
        known: Known,
    ) -> None:
        self.worths = worths
        self.wants = worths.wants
        self.units = [w.volume / (w.width if w.is_panel else 1) for w in worths.wants]
        self.sunk = sunk
        self.shop = shop
        self.limits = limits
        self.clock = clock
        self.began = clock()
        self.goes_on = goes_on
        self.known = known
        self.rng = random.Random(limits.seed)
        self.rounds = 0
        self.care: Care | None = None
        self.many = False
        self.trying = "the first plan, board by board"
        self.fillers = fillers
        self.money = prices
        self.prices = [float(p) for p in prices]
        self.areas = [f.board.length * f.board.mean_width * f.board.thinnest for f in fillers]
        self.demand = list(demand)
        penalty = [
            worths.per_volume * u * w for u, w in zip(self.units, worths.weights, strict=True)
        ]
        self.pool = Pool(
            self.prices,
            self.demand,
            penalty,
            lambda i, fill: worths.per_shown * fillers[i].strips.liking.shown(fill),
        )
        self.plain = list(worths.plain)
        self.worth = list(self.plain)
        self.guide = list(self.plain)
        self._go_on_with(self.demand, [EMPTY] * len(fillers))

    def first(self) -> State:
        """A plan at once: the boards that are cheapest for their size filled one after the
        other.
        """
        began = self.clock()
        left = list(self.demand)
        fills = [EMPTY] * len(self.fillers)
        self.care = FIRST
        order = sorted(range(len(fills)), key=lambda i: self.prices[i] / self.areas[i])
        for i in order:
            if not any(n > 0 for n in left) or self.clock() - self.began >= self.limits.seconds:
                break
            if any(left[w.index] > 0 for w in self.fillers[i].mine):
                fills[i] = self._fill(i, left, self.worth)
                for index, amount in fills[i].taken:
                    left[index] -= amount
        self.many = self.limits.rounds is None and sum(bool(f.segments) for f in fills) > _LARGE
        self.care = (
            affordable(self.clock() - began, len(fills), self.limits.seconds) if self.many else None
        )
        return State(fills, left)

    def run(self, state: State) -> tuple[State, Standing]:
        """The best state found from this one on, within the limits."""
        best, standing = state, self.standing(state)
        energy = self._energy(standing, state.fills)
        total = sum(self.prices) + float(self.sunk) + 1
        told, settled = -1.0, None
        self.rounds = 0
        combined = (0, 0.0, 0.0)
        bettered, failed = 0, 0
        while True:
            spent = self.clock() - self.began
            if spent - told >= 0.1:
                told = spent
                if not self.goes_on(best, standing):
                    break
            if (
                spent >= self.limits.seconds
                or self.rounds == self.limits.rounds
                or not self.fillers
                or not any(self.demand)
            ):
                break
            if standing.unplaced == 0:
                self.known.learn(Span(most=float(standing.cost)))
                if float(standing.cost) <= self.known.bound + 1e-9:
                    settled = spent if settled is None else settled
                    if spent - settled >= min(1.0, 0.2 * self.limits.seconds):
                        break  # proved; a little longer for better leftovers
            self.rounds += 1
            if (
                self.rounds == 1
            ):  # the first plan took the boards as they came; now always the one that gives most
                tried = self._recreate([EMPTY] * len(self.fillers), list(range(len(self.fillers))))
                if self.care is None:
                    self._weigh_rare()
            elif self.rounds > bettered + failed and self._is_large(best, spent):
                better = self.a_few_anew(best, standing, failed)
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
                for _ in range(_PRICED):
                    self._price()
                tried = self._ruin(state)
            there = self.standing(tried)
            tried_energy = self._energy(there, tried.fills)
            heat = 0.02 * total * (1 - min(1.0, spent / self.limits.seconds)) ** 2
            if tried_energy <= energy + heat * self.rng.random() ** 2:
                state, energy = tried, tried_energy
            if there.better(standing):
                best, standing = tried, there
            # Where rounds are slow there will be few of them.
            slow = (
                (self.clock() - self.began - spent) / _SLOW if self.limits.rounds is None else 1.0
            )
            self._oil(tried, 1.05 ** min(max(1.0, slow), 6.0))
            if self.rounds % 60 == 0:
                state, energy = best, self._energy(standing, best.fills)
        return best, standing

    def _is_large(self, best: State, spent: float) -> bool:
        """Whether the plan has so many boards that they are better laid anew a few at a time."""
        begun = self.limits.rounds is None and (
            self.care is not None or spent >= _FROM * self.limits.seconds
        )
        return begun and sum(bool(f.segments) for f in best.fills) > _LARGE

    def a_few_anew(self, best: State, standing: Standing, failed: int) -> State | None:
        """The plan with a few boards laid anew by a hunt of their own; None where they cost no
        less.

        Towards its end a plan is poor: what no board had a place for lies alone on boards that give
        little. The parts of these and of some others are a smaller job, for which much better is
        soon found. Where that has failed so often before, chance has more of a say.
        """
        again, others = (
            self._poor(best, _CHANCE * (1 + failed))
            if standing.unplaced == 0
            else self._wanted_of(best)
        )
        places = [*again, *others]
        freed = set(again)
        rest = self._left(EMPTY if i in freed else f for i, f in enumerate(best.fills))
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
        fewer = Hunt(
            self.worths,
            [self.fillers[i].of(wanted) for i in places],
            [self.money[i] for i in places],
            Decimal(0),
            [max(0, n) for n in rest],
            self.shop,
            limits,
            self.clock,
            lambda *_: self.goes_on(best, standing),
            Known(0.0),
        )
        fewer.worth = [
            own * w / p for own, w, p in zip(fewer.plain, self.worth, self.plain, strict=True)
        ]
        now = State([best.fills[i] for i in places], list(best.left))
        for k, fill in enumerate(now.fills):
            fewer.pool.add(k, fill)
        found, there = fewer.run(now)
        if not there.better(fewer.standing(now)):
            return None
        fills = list(best.fills)
        for i, fill in zip(places, found.fills, strict=True):
            fills[i] = fill
            self.pool.add(i, fill)
        return State(fills, self._left(fills))

    def _poor(self, best: State, chance: float) -> tuple[list[int], list[int]]:
        """Boards in use, half of them those that give least for their price, and some that are not
        in use.
        """
        used = self._poorest(
            [i for i, f in enumerate(best.fills) if f.segments and self.prices[i] > 0],
            best.fills,
            chance,
        )
        poor, others = used[: (_AGAIN + 1) // 2], used[(_AGAIN + 1) // 2 :]
        idle = [i for i, f in enumerate(best.fills) if not f.segments and self.fillers[i].mine]
        return poor + self.rng.sample(others, min(len(others), _AGAIN // 2)), self.rng.sample(
            idle, min(len(idle), _OTHERS)
        )

    def _wanted_of(self, best: State) -> tuple[list[int], list[int]]:
        """Boards, in use or not, that can give of what is left out."""
        out = {index for index, n in enumerate(best.left) if n > 0}
        able = [i for i, filler in enumerate(self.fillers) if not out.isdisjoint(filler.able)]
        some = self.rng.sample(able, min(len(able), _AGAIN))
        return [i for i in some if best.fills[i].segments], [
            i for i in some if not best.fills[i].segments
        ]

    def _left(self, fills: Iterable[Fill]) -> list[int]:
        """What these leave of every want."""
        left = list(self.demand)
        for fill in fills:
            for index, amount in fill.taken:
                left[index] -= amount
        return left

    def _weigh_rare(self) -> None:
        """What hardly any board can give is worth more. Which can is known once all have been
        asked.
        """
        able = [f.able for f in self.fillers]
        for k, plain in enumerate(self.worths.plain):
            rare = plain * rarity(sum(k in each for each in able), len(able))
            self.worth[k] *= rare / self.plain[k]
            self.plain[k] = rare

    def _time_to_combine(self, spent: float, combined: tuple[int, float, float]) -> bool:
        """Every so many rounds; sooner where rounds are slow, but for no more than a third of the
        time.
        """
        last_round, last, took = combined
        if self.limits.rounds is not None:
            return self.rounds % _COMBINE_EVERY == 0
        return self.rounds - last_round >= _COMBINE_EVERY or spent - last >= max(0.35, 2 * took)

    def _oil(self, state: State, more: float) -> None:
        """What is left out is worth so many times more the next time; what is placed slowly comes
        back to what it was.
        """
        for index, left in enumerate(state.left):
            if left > 0:
                self.worth[index] = min(self.worth[index] * more, 12.0 * self.plain[index])
            else:
                self.worth[index] = (
                    self.plain[index] + (self.worth[index] - self.plain[index]) * 0.99
                )

    def _ruin(self, state: State) -> State:
        """Empty a few boards and lay what came off them again, perhaps without one of them."""
        fills = list(state.fills)
        free = [i for i in self.idle if self.fillers[i].mine]
        used = [i for i in free if fills[i].segments]
        again = set(self.rng.sample(free, min(len(free), self.rng.randint(1, 3))))
        if used and self.rng.random() < 0.5:
            # Those that give least for their price, and whoever is near them.
            again = set(self._poorest(used, fills, _CHANCE)[: self.rng.randint(2, 5)])
        elif used:
            again.add(self.rng.choice(used))
        if self.rng.random() < 0.1:
            again = set(free)
        without: set[int] = set()
        if used and not any(n > 0 for n in state.left) and self.rng.random() < 0.6:
            dear = [i for i in used if self.prices[i] > 0]
            if dear:
                without = {self.rng.choice(dear)}
                again |= without
        for i in again:
            fills[i] = EMPTY
        self.trying = f"{self._names(again - without) or 'what is left'} laid anew"
        self.trying += f", without {self._names(without)}" if without else ""
        order = [i for i in again if i not in without]
        idle = [i for i in free if not fills[i].segments and i not in again and i not in without]
        order += self.rng.sample(idle, min(len(idle), _IDLE_TRIED))
        return self._recreate(fills, order, last=without)

    def _recreate(self, fills: list[Fill], order: list[int], last: set[int] | None = None) -> State:
        """Fill boards of `order` until nothing is left, always the one that gives most for its
        price, with some chance.

        What a board gives of less is less: a figure from before is still no smaller than the truth,
        so only the foremost is asked again. Boards of `last` come when the others are full.
        """
        left = self._left(fills)
        fills = list(fills)
        later = last or set()
        chance = [0.9 + 0.2 * self.rng.random() for _ in self.fillers]
        queue: list[tuple[bool, float, int]] = []
        ready: dict[int, Fill] = {}
        for i in [*order, *later]:
            if self.fillers[i].mine and not fills[i].segments:
                heapq.heappush(queue, (i in later, -math.inf, i))
        while (
            queue and any(n > 0 for n in left) and self.clock() - self.began < self.limits.seconds
        ):
            if (
                self.rounds == 1
                and self.many
                and self.clock() - self.began > LATE * self.limits.seconds
            ):
                self.care = LEAST
            behind, _, i = heapq.heappop(queue)
            known = ready.get(i)
            if known and all(left[index] >= amount for index, amount in known.taken):
                fill = known
            else:
                if not any(left[w.index] > 0 for w in self.fillers[i].mine):
                    continue
                fill = self._fill(i, left, self.worth)
                if not fill.segments:
                    continue
                ready[i] = fill
                given = sum(
                    self.worth[index] * self._volume(index, amount) for index, amount in fill.taken
                )
                score = given * chance[i] / self.prices[i] if self.prices[i] else math.inf
                entry = (behind, -score, i)
                if queue and entry > queue[0]:
                    heapq.heappush(queue, entry)
                    continue
            fills[i] = fill
            for index, amount in fill.taken:
                left[index] -= amount
        return State(fills, left)

    def _price(self) -> None:
        """Fill one board as if it had the first choice, led by what is dear at the margin."""
        demand, i = self.demand, self.rng.randrange(len(self.fillers))
        if self.rng.random() < _REST and self.idle:
            demand, i = self.rest, self.rng.choice(self.idle)
        if self.fillers[i].mine:
            by, spread = (self.guide, 0.08) if self.rng.random() < 0.5 else (self.plain, 0.015)
            self._fill(i, demand, [w * (1 + spread * (2 * self.rng.random() - 1)) for w in by])

    def _fill(self, i: int, left: list[int], worth: list[float]) -> Fill:
        """What one board gives best of what is left; everything met on the way goes into the
        pool.
        """
        filler = self.fillers[i]
        beam, tries, many = self.care or (*filler.breadth, _MANY)
        wanted = [w.index for w in filler.mine if left[w.index] > 0]
        if (
            len(wanted) > many
        ):  # of a long list some, others the next time: what fills a board well is found among them
            some = set(self.rng.sample(wanted, many))
            left = [n if k in some else 0 for k, n in enumerate(left)]
            filler = filler.of(some) if self.care else filler
        found = filler.cut(left, worth, self.rng, beam, tries)
        for fill in found:
            self.pool.add(i, fill)
        return found[0] if found else EMPTY

    def _go_on_with(self, rest: list[int], fills: list[Fill]) -> None:
        """Until fills are put together again search for `rest` on the boards that are empty; for
        all where none is left.
        """
        empty = [i for i, fill in enumerate(fills) if not fill.segments]
        whole = not any(rest) or not empty
        self.rest = self.demand if whole else rest
        self.idle = list(range(len(fills))) if whole else empty

    def _names(self, boards: Collection[int]) -> str:
        names = [self.fillers[i].board.id for i in sorted(boards)]
        return ", ".join(names[:_NAMED]) + (
            f" and {len(names) - _NAMED} more" if len(names) > _NAMED else ""
        )

    def _combine(self, seconds_left: float) -> State:
        """The best of the fills met so far, put together."""
        self.trying = (
            f"the best of {len(self.pool.columns)} ways to cut single boards, put together"
        )
        self.known.exchange(self.pool)
        worth = self.pool.worth()
        if worth is not None:
            margin = [float(p) / u for p, u in zip(worth, self.units, strict=True)]
            asked = sum(p * n for p, n in zip(worth, self.demand, strict=True)) or 1.0
            plain = sum(
                p * u * n for p, u, n in zip(self.plain, self.units, self.demand, strict=True)
            )
            # The margins of a poor pool jump about: half of the plain worth steadies them.
            self.guide = [
                0.5 * p + 0.5 * m * plain / asked for p, m in zip(self.plain, margin, strict=True)
            ]
        seconds = min(0.7, 0.5 * seconds_left) if self.limits.rounds is None else 60.0
        # Sometimes only the fills that are thriftiest stay, and what they leave out is laid anew.
        worths = [t * u for t, u in zip(self.worths.taken, self.units, strict=True)]
        costs = self.pool.cheapest(worths) if self.rng.random() < _THRIFTY else []
        most = costs[int(len(costs) * self.rng.uniform(*_SHARE))] * 1.0005 if costs else 0.0
        chosen = self.pool.choose(seconds, [most * w for w in worths] if costs else None)
        fills = [EMPTY] * len(self.fillers)
        if chosen:
            left = self._left(chosen.values())
            panels, surplus = [w.is_panel for w in self.wants], [max(0, -n) for n in left]
            for i, fill in chosen.items():
                fills[i] = without_surplus(fill, surplus, panels, self.shop.allowance.width)
            if costs:
                self._go_on_with([max(0, n) for n in left], fills)
            else:
                self._go_on_with(self.demand, [EMPTY] * len(fills))
        empty = [i for i, fill in enumerate(fills) if not fill.segments]
        some = self.rng.sample(empty, min(len(empty), _EMPTY_TRIED))
        return self._recreate(fills, some, last=set(empty).difference(some))

    def standing(self, state: State) -> Standing:
        unplaced = 0
        for want, weight, left in zip(self.wants, self.worths.weights, state.left, strict=True):
            if left > 0:
                unplaced += int(weight) * (want.volume if want.is_panel else want.volume * left)
        cost = sum(
            (p for p, f in zip(self.money, state.fills, strict=True) if f.segments), self.sunk
        )
        shown = sum(
            filler.strips.liking.shown(f)
            for filler, f in zip(self.fillers, state.fills, strict=True)
        )
        left = sum(
            leftover(f, filler.board, self.shop)
            for filler, f in zip(self.fillers, state.fills, strict=True)
        )
        return Standing(unplaced, cost, left, shown)

    def _energy(self, standing: Standing, fills: list[Fill]) -> float:
        pleasing = 1e-9 * standing.leftover + self.worths.per_shown * standing.shown
        return (
            self.worths.per_volume * standing.unplaced
            + float(standing.cost)
            - pleasing
            - self._fullness(fills)
        )

    def _fullness(self, fills: list[Fill]) -> float:
        """A little for boards that are full and others that are nearly empty: the next board to do
        without.
        """
        total = 0.0
        for price, area, fill in zip(self.prices, self.areas, fills, strict=True):
            share = sum(self._volume(index, amount) for index, amount in fill.taken) / area
            total += price * share * share
        return 0.3 * total

    def _poorest(self, boards: list[int], fills: list[Fill], chance: float) -> list[int]:
        """The boards, those first that give least for their price, with some chance."""
        return sorted(
            boards, key=lambda i: self._thrift(i, fills[i]) * (1 + chance * self.rng.random())
        )

    def _thrift(self, i: int, fill: Fill) -> float:
        """What a board gives, by the plain worth, for its price."""
        return sum(self.plain[index] * self._volume(index, n) for index, n in fill.taken) / (
            self.prices[i] or 1e-9
        )

    def _volume(self, index: int, amount: int) -> float:
        want = self.wants[index]
        return want.volume * (amount / want.width if want.is_panel else amount)
