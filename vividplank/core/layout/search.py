"""Finding a plan: fill the boards greedily, then ruin a few of them and recreate, again and again.

What is better is the order of the exchange page: less unplaced finished volume, then less cost,
then more left over in reusable lengths. Wants that keep being left out are weighed heavier until
they are placed (the squeaky wheel gets the oil).
"""

import heapq
import math
import random
from collections.abc import Callable, Collection, Sequence
from dataclasses import replace
from decimal import Decimal

from vividplank.core.job import Job
from vividplank.core.layout.bound import lower_bound
from vividplank.core.layout.fill import Filler
from vividplank.core.layout.filled import EMPTY, Fill
from vividplank.core.layout.fillers import cut_as_counted, keep_together
from vividplank.core.layout.holds import Task, pinned_needs, still_wanted
from vividplank.core.layout.limits import Limits, Progress, Watch
from vividplank.core.layout.naming import Named
from vividplank.core.layout.plan import Item, Plan, Unplaced
from vividplank.core.layout.pool import Pool, without_surplus
from vividplank.core.layout.reason import why_unplaced
from vividplank.core.layout.room import Floats, Rooms
from vividplank.core.layout.standing import Standing, State, leftover
from vividplank.core.layout.team import Share, helped
from vividplank.core.layout.want import together, wants
from vividplank.core.layout.worth import room_taken, scarcity
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM

Clock = Callable[[], float]

#: Rounds of ruin and recreate between two choices from the pool.
_COMBINE_EVERY = 20
#: Boards filled with the first choice in a round: of everything, or of what the thriftiest fills leave.
_PRICED = 6
#: Boards not in use that are tried in a round beside those that were emptied.
_IDLE_TRIED = 5
#: Worth, in money, of every part showing the figure it is to show: less than a cent, so that it never costs one.
_SHOWN = 0.005
#: Empty boards that are tried first for what the fills that were put together leave.
_EMPTY_TRIED = 8

#: Boards named when it is told what is tried.
_NAMED = 5
#: Wants looked at together for one board.
_MANY, _MANY_QUICK = 120, 40
#: How much more a part weighs that is placed before all others.
_FIRST = 1000.0
#: Share of the time in which a search without help sees to the bound.
_PROVING_ALONE = 0.2
#: Share of the time for a plan that opens like a book what is to be opened so.
_WISHING = 0.6
#: Rows by worth that the bound gets at most.
_CUTS = 400
#: How often only the thriftiest fills are put together, and of how large a share of the boards.
_THRIFTY, _SHARE = 0.75, (0.1, 0.7)
#: How often a board is filled with the first choice of what these leave, and not of everything.
_REST = 0.7

__all__ = ["Limits", "Progress", "Watch", "search"]


def search(job: Job, limits: Limits, clock: Clock, watch: Watch | None = None, task: Task | None = None) -> Plan:
    """The best plan found within the limits, with a bound that no complete plan can undercut.

    `clock` tells seconds from any beginning; the core has none of its own. With a `task` it is solved round what is held, and
    the bound is still that of the job without it.
    """
    asked = task or Task()
    if asked.plain or not any(w.opened for w in wants(job, wishes=True)):
        return _once(job, limits, clock, watch, asked)
    began = clock()
    wished = _once(job, replace(limits, seconds=_WISHING * limits.seconds), clock, watch, asked)
    if not wished.unplaced:
        return wished
    # A wish leaves no part out: what finds no place as a book is laid as it can be.
    rest = replace(limits, seconds=max(0.1, limits.seconds - (clock() - began)))
    plain = _once(job, rest, clock, watch, replace(asked, plain=True))
    return plain if _left(job, plain) < _left(job, wished) else wished


def _left(job: Job, plan: Plan) -> int:
    """Finished volume that a plan leaves out."""
    return sum(job.part(u.part).volume for u in plan.unplaced)


def _once(job: Job, limits: Limits, clock: Clock, watch: Watch | None, task: Task) -> Plan:
    with helped(job, limits, clock, _helping, task) as share:
        return _Search(job, limits, watch, clock, share, task).run()


def _helping(job: Job, task: Task, limits: Limits, clock: Clock, share: Share, first: bool) -> float:
    """The first helper sees to the bound, and searches when it can prove no more; what it proves is told as it comes."""
    helper = _Search(job, limits, None, clock, share, task)
    if first:
        helper.prove(limits.seconds)
    helper.run()
    return helper.bound


class _Search:
    def __init__(
        self, job: Job, limits: Limits, watch: Watch | None, clock: Clock, share: Share | None = None, task: Task | None = None
    ) -> None:
        task = task or Task()
        self.share = share
        self.whole = job
        self.job = job = task.holds.on(job)
        self.held = task.pinned(job)
        self.limits = limits
        self.watch = watch
        self.stopped = False
        self.trying = "the first plan, board by board"
        self.clock = clock
        self.began = clock()
        self.rng = random.Random(limits.seed)
        placed = {
            Item(i.part, i.n) for segments in self.held.values() for s in segments for _, k in s.blanks() for i in k.items()
        }
        listed = wants(job, not task.plain, placed)
        self.wants, self.staves = still_wanted(listed, self.held, job.shop.allowance.width)
        self.demand = [w.width if w.is_panel else w.count for w in self.wants]
        mark = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 2
        self.fillers = [Filler(b, job.shop, self.wants, mark, pinned_needs(self.held.get(b.id, ()), job)) for b in job.boards]
        holding = [[f.board for f in self.fillers if w.index in f.mine_indexes] for w in self.wants]
        self.taken = [room_taken(w, boards, job.shop) for w, boards in zip(self.wants, holding, strict=True)]
        self.plain = [t * scarcity(boards, job.boards) * (_FIRST if w.name in task.holds.first else 1.0)
                      for w, t, boards in zip(self.wants, self.taken, holding, strict=True)]
        self.weights = [_FIRST if w.name in task.holds.first else 1.0 for w in self.wants]
        self.worth = list(self.plain)
        self.bound = lower_bound(self.whole)
        self.sunk = sum((b.price for b in job.boards if b.id in self.held), Decimal(0))
        self.prices = [0.0 if b.id in self.held else float(b.price) for b in job.boards]
        for group in together(self.job, self.wants):
            self._keep_together(set(group))
        self.areas = [b.length * b.mean_width * b.thinnest for b in job.boards]
        prices = sum((b.price for b in job.boards), Decimal(1))
        volume = sum(w.volume * (1 if w.is_panel else w.count) for w in self.wants) or 1
        self.per_volume = 4 * float(prices) / volume
        figured = sum(w.volume * (1 if w.is_panel else w.count) for w in self.wants if w.figure)
        self.per_shown = _SHOWN / figured if figured else 0.0
        self.units = [w.volume / (w.width if w.is_panel else 1) for w in self.wants]
        self.pool = Pool(
            self.prices, self.demand, [self.per_volume * u * w for u, w in zip(self.units, self.weights, strict=True)],
            lambda i, fill: self.per_shown * self.fillers[i].strips.liking.shown(fill),
        )
        self.guide: list[float] = list(self.worth)
        self._go_on_with(self.demand, [EMPTY] * len(self.fillers))

    def _keep_together(self, group: set[int]) -> None:
        ids = {i.part for index in group for lump in self.wants[index].members for i in lump}
        names = {self.job.part(i).same_board for i in ids}
        begun = {board for board, segments in self.held.items() for s in segments for _, b in s.blanks() for i in b.items()
                 if self.job.part(i.part).same_board in names}
        keep_together(self.fillers, group, begun, self.prices, self.demand, self.plain, self.rng)

    def prove(self, seconds: float, go_on: Callable[[], bool] = lambda: True) -> None:
        """Raise the bound for so long, or until it is stopped; what it counts on boards may nearly be cut."""
        until = self.clock() + seconds
        self._proved(lower_bound(
            self.whole, _CUTS, lambda: self.clock() < until and go_on(), self._counted, self._proved))

    def _counted(self, rooms: Rooms, worth: Floats, boards: Sequence[int]) -> None:
        for i, fill in cut_as_counted(self.fillers, rooms, worth, boards, self.demand):
            self.pool.add(i, fill)
        self._proved(self.bound)

    def _proved(self, bound: float) -> None:
        """Tell the others of the bound and the fills."""
        self.bound = max(self.bound, bound)
        if self.share:
            self.bound = self.pool.share(self.share, self.bound)

    def run(self) -> Plan:
        state = self._first()
        best, standing = state, self._standing(state)
        if self.share is None and self.limits.rounds is None and self.wants:
            self.trying = "how cheap it could be at all"
            first = self._progress(best, standing, 0)
            self.prove(_PROVING_ALONE * self.limits.seconds, lambda: self._goes_on(first))
        energy = self._energy(standing, state.fills)
        total = float(sum((b.price for b in self.job.boards), Decimal(1)))
        rounds, told, settled = 0, -1.0, None
        combined = (0, 0.0, 0.0)
        while True:
            spent = self.clock() - self.began
            if self.stopped or (self.watch and spent - told >= 0.1):
                told = spent
                if not self._goes_on(self._progress(best, standing, rounds)):
                    break
            if spent >= self.limits.seconds or rounds == self.limits.rounds or not self.fillers or not self.wants:
                break
            if standing.unplaced == 0 and float(standing.cost) <= self.bound + 1e-9:
                settled = spent if settled is None else settled
                if spent - settled >= min(1.0, 0.2 * self.limits.seconds):
                    break  # proved; a little longer for better leftovers
            rounds += 1
            if rounds == 1:  # the first plan took the boards as they came; now always the one that gives most
                tried = self._recreate([EMPTY] * len(self.fillers), list(range(len(self.fillers))))
            elif self._time_to_combine(rounds, spent, combined):
                tried = self._combine(self.limits.seconds - spent)
                now = self.clock() - self.began
                combined = (rounds, now, now - spent)
                energy = math.inf
            else:
                for _ in range(_PRICED):
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
        if self.share:
            self.bound = self.pool.share(self.share, self.bound)
        best = State([self.pool.as_pleasing(i, fill) for i, fill in enumerate(best.fills)], best.left)
        plan = self._plan(best)
        if self.watch:
            self.watch(self._progress(best, standing, rounds))
        return plan

    def _goes_on(self, progress: Progress) -> bool:
        """Tell whoever watches, and ask whether to go on; once stopped it stays so."""
        self.stopped = self.stopped or (self.watch is not None and not self.watch(progress))
        return not self.stopped

    def _first(self) -> State:
        """A plan at once: the boards that are cheapest for their size filled one after the other."""
        left = list(self.demand)
        fills = [EMPTY] * len(self.fillers)
        order = sorted(range(len(fills)), key=lambda i: self.prices[i] / self.areas[i])
        for i in order:
            if not any(n > 0 for n in left) or self.clock() - self.began >= self.limits.seconds:
                break
            if any(left[w.index] > 0 for w in self.fillers[i].mine):
                fills[i] = self._fill(i, left, self.worth, quick=True)
                for index, amount in fills[i].taken:
                    left[index] -= amount
        return State(fills, left)

    def _time_to_combine(self, rounds: int, spent: float, combined: tuple[int, float, float]) -> bool:
        """Every so many rounds; sooner where rounds are slow, but for no more than a third of the time."""
        last_round, last, took = combined
        if self.limits.rounds is not None:
            return rounds % _COMBINE_EVERY == 0
        return rounds - last_round >= _COMBINE_EVERY or spent - last >= max(0.35, 2 * took)

    def _oil(self, state: State) -> None:
        for index, left in enumerate(state.left):
            if left > 0:
                self.worth[index] = min(self.worth[index] * 1.05, 12.0 * self.plain[index])
            else:
                self.worth[index] = self.plain[index] + (self.worth[index] - self.plain[index]) * 0.99

    def _ruin(self, state: State) -> State:
        """Empty a few boards and lay what came off them again, perhaps without one of them."""
        fills = list(state.fills)
        free = [i for i in self.idle if self.fillers[i].mine]
        used = [i for i in free if fills[i].segments]
        again = set(self.rng.sample(free, min(len(free), self.rng.randint(1, 3))))
        if used and self.rng.random() < 0.5:
            # Those that give least for their price, and whoever is near them.
            poor = sorted(used, key=lambda i: self._thrift(i, fills[i]) * (1 + 0.1 * self.rng.random()))
            again = set(poor[: self.rng.randint(2, 5)])
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
        """Fill boards of `order` until nothing is left, always the one that gives most for its price, with some chance.

        What a board gives of less is less: a figure from before is still no smaller than the truth, so only the foremost is
        asked again. Boards of `last` come when the others are full.
        """
        left = list(self.demand)
        for fill in fills:
            for index, amount in fill.taken:
                left[index] -= amount
        fills = list(fills)
        later = last or set()
        chance = [0.9 + 0.2 * self.rng.random() for _ in self.fillers]
        queue: list[tuple[bool, float, int]] = []
        ready: dict[int, Fill] = {}
        for i in [*order, *later]:
            if self.fillers[i].mine and not fills[i].segments:
                heapq.heappush(queue, (i in later, -math.inf, i))
        while queue and any(n > 0 for n in left) and self.clock() - self.began < self.limits.seconds:
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
                given = sum(self.worth[index] * self._volume(index, amount) for index, amount in fill.taken)
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

    def _fill(self, i: int, left: list[int], worth: list[float], quick: bool = False) -> Fill:
        """What one board gives best of what is left; everything met on the way goes into the pool."""
        filler = self.fillers[i]
        beam, tries = (1, 1) if quick else (4, 5) if filler.strips.liking.matters else (2, 3)
        many = _MANY_QUICK if quick else _MANY
        wanted = [w.index for w in filler.mine if left[w.index] > 0]
        if len(wanted) > many:  # of a long list some, others the next time: what fills a board well is found among them
            some = set(self.rng.sample(wanted, many))
            left = [n if k in some else 0 for k, n in enumerate(left)]
        found = filler.cut(left, worth, self.rng, beam, tries)
        for fill in found:
            self.pool.add(i, fill)
        return found[0] if found else EMPTY

    def _go_on_with(self, rest: list[int], fills: list[Fill]) -> None:
        """Until fills are put together again search for `rest` on the boards that are empty; for all where none is left."""
        empty = [i for i, fill in enumerate(fills) if not fill.segments]
        whole = not any(rest) or not empty
        self.rest = self.demand if whole else rest
        self.idle = list(range(len(fills))) if whole else empty

    def _names(self, boards: Collection[int]) -> str:
        names = [self.fillers[i].board.id for i in sorted(boards)]
        return ", ".join(names[:_NAMED]) + (f" and {len(names) - _NAMED} more" if len(names) > _NAMED else "")

    def _combine(self, seconds_left: float) -> State:
        """The best of the fills met so far, put together."""
        self.trying = f"the best of {len(self.pool.columns)} ways to cut single boards, put together"
        if self.share:
            self.bound = self.pool.share(self.share, self.bound)
        worth = self.pool.worth()
        if worth is not None:
            margin = [float(p) / u for p, u in zip(worth, self.units, strict=True)]
            asked = sum(p * n for p, n in zip(worth, self.demand, strict=True)) or 1.0
            plain = sum(p * u * n for p, u, n in zip(self.plain, self.units, self.demand, strict=True))
            # The margins of a poor pool jump about: half of the plain worth steadies them.
            self.guide = [0.5 * p + 0.5 * m * plain / asked for p, m in zip(self.plain, margin, strict=True)]
        seconds = min(0.7, 0.5 * seconds_left) if self.limits.rounds is None else 60.0
        # Sometimes only the fills that are thriftiest stay, and what they leave out is laid anew.
        worths = [t * u for t, u in zip(self.taken, self.units, strict=True)]
        costs = self.pool.cheapest(worths) if self.rng.random() < _THRIFTY else []
        most = costs[int(len(costs) * self.rng.uniform(*_SHARE))] * 1.0005 if costs else 0.0
        chosen = self.pool.choose(seconds, [most * w for w in worths] if costs else None)
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
            self._go_on_with([max(0, -n) for n in over] if costs else self.demand, fills if costs else [EMPTY] * len(fills))
        empty = [i for i, fill in enumerate(fills) if not fill.segments]
        some = self.rng.sample(empty, min(len(empty), _EMPTY_TRIED))
        return self._recreate(fills, some, last=set(empty).difference(some))

    def _standing(self, state: State) -> Standing:
        unplaced = 0
        for want, weight, left in zip(self.wants, self.weights, state.left, strict=True):
            if left > 0:
                unplaced += int(weight) * (want.volume if want.is_panel else want.volume * left)
        used = (b for b, f in zip(self.job.boards, state.fills, strict=True) if f.segments and b.id not in self.held)
        cost = sum((b.price for b in used), self.sunk)
        shown = sum(filler.strips.liking.shown(f) for filler, f in zip(self.fillers, state.fills, strict=True))
        left = sum(leftover(f, b, self.job.shop) for f, b in zip(state.fills, self.job.boards, strict=True))
        return Standing(unplaced, cost, left, shown)

    def _energy(self, standing: Standing, fills: list[Fill]) -> float:
        pleasing = 1e-9 * standing.leftover + self.per_shown * standing.shown
        return self.per_volume * standing.unplaced + float(standing.cost) - pleasing - self._fullness(fills)

    def _fullness(self, fills: list[Fill]) -> float:
        """A little for boards that are full and others that are nearly empty: the next board to do without."""
        total = 0.0
        for price, area, fill in zip(self.prices, self.areas, fills, strict=True):
            share = sum(self._volume(index, amount) for index, amount in fill.taken) / area
            total += price * share * share
        return 0.3 * total

    def _thrift(self, i: int, fill: Fill) -> float:
        """What a board gives, by the plain worth, for its price."""
        return sum(self.plain[index] * self._volume(index, n) for index, n in fill.taken) / (self.prices[i] or 1e-9)

    def _volume(self, index: int, amount: int) -> float:
        want = self.wants[index]
        return want.volume * (amount / want.width if want.is_panel else amount)

    def _progress(self, state: State, standing: Standing, rounds: int) -> Progress:
        unplaced = sum((1 if w.is_panel else n) * (len(w.members[0]) if w.is_run else 1)
                       for w, n in zip(self.wants, state.left, strict=True) if n > 0)
        return Progress(self.clock() - self.began, rounds, unplaced, standing.cost, self.bound, self.trying)

    def _plan(self, state: State) -> Plan:
        named = Named(self.wants, state.left, self.staves, self.held)
        boards = named.boards((b.id for b in self.job.boards), state.fills)
        used = {b.board for b in boards}
        unplaced = tuple(
            Unplaced(item.part, item.n, why) for want, missing in named.missing()
            for why in [why_unplaced(self.whole, want)] for lump in missing for item in lump
        )
        cost = sum((b.price for b in self.job.boards if b.id in used), Decimal(0))
        return Plan(boards, unplaced, cost, self.bound, self.clock() - self.began)
