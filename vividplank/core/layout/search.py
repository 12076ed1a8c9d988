"""Finding a plan: fill the boards greedily, then ruin a few of them and recreate, again and again.

What is better is the order of the exchange page: less unplaced finished volume, then less cost,
then more left over in reusable lengths. Wants that keep being left out are weighed heavier until
they are placed (the squeaky wheel gets the oil).
"""

import random
from collections.abc import Callable
from dataclasses import dataclass, field
from decimal import Decimal

from vividplank.core.job import Job
from vividplank.core.layout.bound import lower_bound
from vividplank.core.layout.fill import Filler
from vividplank.core.layout.filled import EMPTY, Fill
from vividplank.core.layout.limits import Limits, Progress, Watch
from vividplank.core.layout.plan import Blank, BoardPlan, Item, Plan, Segment, Strip, Unplaced
from vividplank.core.layout.pool import Pool, without_surplus
from vividplank.core.layout.reason import why_unplaced
from vividplank.core.layout.want import Want, wants
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM

Clock = Callable[[], float]

#: Rounds of ruin and recreate between two choices from the pool.
_COMBINE_EVERY = 40

__all__ = ["Limits", "Progress", "Watch", "search"]


@dataclass(frozen=True)
class _Standing:
    """How good an arrangement is; smaller is better, compared in this order."""

    unplaced: int
    cost: Decimal
    leftover: int

    def better(self, other: "_Standing") -> bool:
        return (self.unplaced, self.cost, -self.leftover) < (other.unplaced, other.cost, -other.leftover)


@dataclass
class _State:
    fills: list[Fill]
    left: list[int] = field(default_factory=list)


def search(job: Job, limits: Limits, clock: Clock, watch: Watch | None = None) -> Plan:
    """The best plan found within the limits, with a bound that no complete plan can undercut.

    `clock` tells seconds from any beginning; the core has none of its own.
    """
    return _Search(job, limits, watch, clock).run()


class _Search:
    def __init__(self, job: Job, limits: Limits, watch: Watch | None, clock: Clock) -> None:
        self.job = job
        self.limits = limits
        self.watch = watch
        self.clock = clock
        self.began = clock()
        self.rng = random.Random(limits.seed)
        self.wants = wants(job)
        self.demand = [w.width if w.is_panel else w.count for w in self.wants]
        mark = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 2
        self.fillers = [Filler(b, job.shop, self.wants, mark) for b in job.boards]
        self.worth = [self._scarcity(w) for w in self.wants]
        self.bound = lower_bound(job, min(2.0, limits.seconds / 5))
        self.prices = [float(b.price) for b in job.boards]
        self.areas = [b.length * b.mean_width * b.thinnest for b in job.boards]
        prices = sum((b.price for b in job.boards), Decimal(1))
        volume = sum(w.volume * (1 if w.is_panel else w.count) for w in self.wants) or 1
        self.per_volume = 4 * float(prices) / volume
        self.units = [w.volume / (w.width if w.is_panel else 1) for w in self.wants]
        self.pool = Pool(self.prices, self.demand, [self.per_volume * u for u in self.units])
        self.guide: list[float] = list(self.worth)

    def run(self) -> Plan:
        state = self._recreate([EMPTY] * len(self.fillers), list(range(len(self.fillers))))
        best, standing = state, self._standing(state)
        energy = self._energy(standing, state.fills)
        total = float(sum((b.price for b in self.job.boards), Decimal(1)))
        rounds, told, settled = 0, -1.0, None
        while True:
            spent = self.clock() - self.began
            if self.watch and spent - told >= 0.1:
                told = spent
                if not self.watch(self._progress(best, standing, rounds)):
                    break
            if spent >= self.limits.seconds or rounds == self.limits.rounds or not self.fillers:
                break
            if standing.unplaced == 0 and float(standing.cost) <= self.bound + 1e-9:
                settled = spent if settled is None else settled
                if spent - settled >= min(1.0, 0.2 * self.limits.seconds):
                    break  # proved; a little longer for better leftovers
            rounds += 1
            if rounds % _COMBINE_EVERY == 0:
                tried = self._combine(self.limits.seconds - spent)
            else:
                self._price()
                tried = self._ruin(state)
            there = self._standing(tried)
            tried_energy = self._energy(there, tried.fills)
            heat = 0.02 * total * (1 - min(1.0, spent / self.limits.seconds)) ** 2
            if tried_energy <= energy + heat * self.rng.random() ** 2:
                state, energy = tried, tried_energy
            if there.better(standing):
                best, standing = tried, there
            self._oil(tried)
            if rounds % 60 == 0:
                state, energy = best, self._energy(standing, best.fills)
        plan = self._plan(best)
        if self.watch:
            self.watch(self._progress(best, standing, rounds))
        return plan

    def _scarcity(self, want: Want) -> float:
        """Wants that few boards can give are laid before those that fit anywhere."""
        room = sum(f.board.length * f.board.widest for f in self.fillers if want.index in f.mine_indexes)
        everything = sum(f.board.length * f.board.widest for f in self.fillers) or 1
        return 1.0 + 1.5 * (1 - room / everything)

    def _oil(self, state: _State) -> None:
        for index, left in enumerate(state.left):
            if left > 0:
                self.worth[index] = min(self.worth[index] * 1.05, 12.0)
            else:
                self.worth[index] = 1 + (self.worth[index] - 1) * 0.998

    def _ruin(self, state: _State) -> _State:
        """Empty a few boards and lay what came off them again, perhaps without one of them."""
        count = len(self.fillers)
        fills = list(state.fills)
        used = [i for i in range(count) if fills[i].segments]
        again = set(self.rng.sample(range(count), min(count, self.rng.randint(1, 3))))
        if used:
            again.add(self.rng.choice(used))
        if self.rng.random() < 0.1:
            again = set(range(count))
        without: set[int] = set()
        if used and not any(n > 0 for n in state.left) and self.rng.random() < 0.6:
            dear = [i for i in used if self.job.boards[i].price > 0]
            if dear:
                without = {self.rng.choice(dear)}
                again |= without
        for i in again:
            fills[i] = EMPTY
        order = [i for i in again if i not in without]
        order += [i for i in range(count) if not fills[i].segments and i not in again and i not in without]
        return self._recreate(fills, order, last=without)

    def _recreate(self, fills: list[Fill], order: list[int], last: set[int] | None = None) -> _State:
        """Fill the boards of `order` until nothing is left; cheap and fitting ones first, with some chance."""
        left = list(self.demand)
        for fill in fills:
            for index, amount in fill.taken:
                left[index] -= amount
        fills = list(fills)

        def dearness(i: int) -> float:
            board = self.job.boards[i]
            rate = float(board.price) / (board.length * board.mean_width * board.thinnest)
            return rate * (0.6 + 0.8 * self.rng.random())

        queue = sorted((i for i in order if self.fillers[i].mine), key=dearness)
        queue += [i for i in (last or ()) if self.fillers[i].mine]
        for i in queue:
            if not any(n > 0 for n in left) or self.clock() - self.began >= self.limits.seconds:
                break
            if fills[i].segments or not any(left[w.index] > 0 for w in self.fillers[i].mine):
                continue
            fills[i] = self.fillers[i].fill(left, self.worth, self.rng)
            self.pool.add(i, fills[i])
            for index, amount in fills[i].taken:
                left[index] -= amount
        return _State(fills, left)

    def _price(self) -> None:
        """Fill one board as if it had the first choice of everything, led by what is dear at the margin."""
        i = self.rng.randrange(len(self.fillers))
        if self.fillers[i].mine:
            self.pool.add(i, self.fillers[i].fill(self.demand, self.guide, self.rng))

    def _combine(self, seconds_left: float) -> _State:
        """The best of the fills met so far, put together."""
        worth = self.pool.worth()
        if worth is not None:
            per_volume = [float(p) / u for p, u in zip(worth, self.units, strict=True)]
            mean = sum(per_volume) / len(per_volume) or 1.0
            self.guide = [0.2 + 0.8 * p / mean for p in per_volume]
        seconds = seconds_left if self.limits.rounds is None else 60.0
        chosen = self.pool.choose(min(2.0, 0.5 * seconds))
        fills = [EMPTY] * len(self.fillers)
        if chosen:
            over = [-n for n in self.demand]
            for fill in chosen.values():
                for index, amount in fill.taken:
                    over[index] += amount
            panels = [w.is_panel for w in self.wants]
            surplus = [max(0, n) for n in over]
            for i, fill in chosen.items():
                fills[i] = without_surplus(fill, surplus, panels, self.job.shop.allowance.width)
        return self._recreate(fills, list(range(len(fills))))

    def _standing(self, state: _State) -> _Standing:
        unplaced = 0
        for want, left in zip(self.wants, state.left, strict=True):
            if left > 0:
                unplaced += want.volume if want.is_panel else want.volume * left
        cost = sum((b.price for b, f in zip(self.job.boards, state.fills, strict=True) if f.segments), Decimal(0))
        return _Standing(unplaced, cost, sum(self._leftover(i, f) for i, f in enumerate(state.fills)))

    def _energy(self, standing: _Standing, fills: list[Fill]) -> float:
        return self.per_volume * standing.unplaced + float(standing.cost) - 1e-9 * standing.leftover - self._fullness(fills)

    def _fullness(self, fills: list[Fill]) -> float:
        """A little for boards that are full and others that are nearly empty: the next board to do without."""
        total = 0.0
        for price, area, fill in zip(self.prices, self.areas, fills, strict=True):
            share = sum(self._volume(index, amount) for index, amount in fill.taken) / area
            total += price * share * share
        return 0.3 * total

    def _volume(self, index: int, amount: int) -> float:
        want = self.wants[index]
        return want.volume * (amount / want.width if want.is_panel else amount)

    def _leftover(self, i: int, fill: Fill) -> int:
        """Length left in full-width pieces long enough to use again."""
        board, shop = self.job.boards[i], self.job.shop
        if not fill.segments:
            return board.length
        ends = [shop.end_trim, *(x for s in fill.segments for x in (s.x0, s.x1)), board.length - shop.end_trim]
        gaps = [b - a - shop.kerf.crosscut for a, b in zip(ends[::2], ends[1::2], strict=True)]
        return sum(g for g in gaps if g >= shop.min_blank_length)

    def _progress(self, state: _State, standing: _Standing, rounds: int) -> Progress:
        unplaced = sum((1 if w.is_panel else n) * (len(w.members[0]) if w.is_run else 1)
                       for w, n in zip(self.wants, state.left, strict=True) if n > 0)
        return Progress(self.clock() - self.began, rounds, unplaced, standing.cost, self.bound)

    def _plan(self, state: _State) -> Plan:
        """Name the instances; a panel that is not whole is left out with all its staves."""
        waiting = {w.index: list(w.members) for w in self.wants}
        staves = dict.fromkeys(waiting, 0)
        broken = {w.index for w, left in zip(self.wants, state.left, strict=True) if w.is_panel and left > 0}

        def items(layer: tuple[int, ...]) -> tuple[Item, ...]:
            named: list[Item] = []
            for index in layer:
                want = self.wants[index]
                if want.is_panel:
                    if index in broken:
                        continue
                    staves[index] += 1
                    first = want.members[0][0]
                    named.append(Item(first.part, first.n, staves[index]))
                else:
                    named += waiting[index].pop(0)
            return tuple(named)

        boards: list[BoardPlan] = []
        for board, fill in zip(self.job.boards, state.fills, strict=True):
            segments: list[Segment] = []
            for s in fill.segments:
                strips: list[Strip] = []
                for t in s.strips:
                    blanks = [
                        Blank(k.x0, k.x1, layers) for k in t.blanks
                        if (layers := tuple(named for layer in k.layers if (named := items(layer))))
                    ]
                    if blanks:
                        strips.append(Strip(t.y0, t.y1, tuple(blanks)))
                if strips:
                    segments.append(Segment(s.x0, s.x1, s.y0, s.slope, tuple(strips)))
            if segments:
                boards.append(BoardPlan(board.id, tuple(segments)))
        used = {b.board for b in boards}
        unplaced: list[Unplaced] = []
        for want, left in zip(self.wants, state.left, strict=True):
            if left <= 0:
                continue
            missing = want.members if want.is_panel else tuple(waiting[want.index])
            why = why_unplaced(self.job, want)
            unplaced += [Unplaced(item.part, item.n, why) for lump in missing for item in lump]
        cost = sum((b.price for b in self.job.boards if b.id in used), Decimal(0))
        return Plan(tuple(boards), tuple(unplaced), cost, self.bound, self.clock() - self.began)
