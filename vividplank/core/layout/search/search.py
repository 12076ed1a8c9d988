"""Finding a plan of a job: item types and generators are made, ruin and recreate searches, and the
lower bound is raised beside it.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal

from vividplank.core.job import Job
from vividplank.core.layout.bound.lower_bound import lower_bound
from vividplank.core.layout.bound.relaxation import BoardRelaxation, Floats
from vividplank.core.layout.model.fixings import Task, pinned_needs, remaining_types
from vividplank.core.layout.model.item_types import ItemType, item_types, together
from vividplank.core.layout.model.limits import Clock, Limits, Progress, Watch
from vividplank.core.layout.model.plan import Item, Plan, Unplaced
from vividplank.core.layout.model.solution import Objective, Solution
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.patterns.generators import keep_together, round_relaxation
from vividplank.core.layout.search.left_out import why_unplaced
from vividplank.core.layout.search.naming import Named, whole_panels
from vividplank.core.layout.search.portfolio import CostBounds, Exchange, with_workers
from vividplank.core.layout.search.profits import initial_profits
from vividplank.core.layout.search.restricted_master import SharedBounds
from vividplank.core.layout.search.ruin_and_recreate import RuinAndRecreate
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM

#: Share of the time in which a search without help sees to the bound.
_PROVING_ALONE = 0.2
#: Where the best plan costs no more than so many times the bound, and that has not risen for so
#: large a share of the time, a cheaper plan is more likely than a better bound.
_NEAR, _STANDS = 1.06, 0.1
#: Share of the time for a plan that opens like a book what is to be opened so.
_WISHING = 0.6
#: Rows by profit that the bound gets at most.
_CUTS = 400

__all__ = ["Limits", "Progress", "Watch", "search"]


def search(
    job: Job, limits: Limits, clock: Clock, watch: Watch | None = None, task: Task | None = None
) -> Plan:
    """The best plan found within the limits, with a lower bound on the cost of any complete plan.

    Parameters
    ----------
    job
        Parts, boards and shop.
    limits
        Seconds or rounds, workers, and the seed. The same seed gives the same plan with rounds
        always, with seconds on the same machine under the same load.
    clock
        Seconds since any moment; the core has no clock of its own.
    watch
        Called with the progress about every tenth of a second; False ends the search.
    task
        Fixings, and a plan to keep them from; the bound is still that of the job without them.
    """
    asked = task or Task()
    face = job.shop.allowance.face
    job = replace(job, boards=tuple(b.thickened(face) if b.lies_flat else b for b in job.boards))
    if asked.plain or not any(w.opened for w in item_types(job, wishes=True)):
        return _once(job, limits, clock, watch, asked)
    began = clock()
    wished = _once(job, replace(limits, seconds=_WISHING * limits.seconds), clock, watch, asked)
    if not wished.unplaced:
        return wished
    # A wish leaves no part out: what finds no place as a book is laid as it can be.
    rest = replace(limits, seconds=max(0.1, limits.seconds - (clock() - began)))
    plain = _once(job, rest, clock, watch, replace(asked, plain=True))
    return plain if _remaining(job, plain) < _remaining(job, wished) else wished


def _remaining(job: Job, plan: Plan) -> int:
    """Finished volume that a plan leaves out."""
    return sum(job.part(u.part).volume for u in plan.unplaced)


def _once(job: Job, limits: Limits, clock: Clock, watch: Watch | None, task: Task) -> Plan:
    searching = _Search(job, limits, watch, clock, task)
    if not searching.job.boards:
        return searching.nothing()
    first = searching.first()
    with with_workers(job, limits, clock, _worker, task) as exchange:
        searching.known.exchange_with = exchange
        return searching.run(first)


@dataclass(frozen=True)
class Valued:
    """A plan and, by board, how many units of each item type (ticks of width of a panel) it gives;
    `areas` is what a unit takes of a board's face with its kerfs, the scarcer the more.
    """

    plan: Plan
    item_types: tuple[ItemType, ...]
    taken: dict[str, tuple[tuple[int, int], ...]]
    areas: tuple[float, ...]


def search_valued(job: Job, limits: Limits, clock: Clock, watch: Watch | None = None) -> Valued:
    """As `search` with one worker and no wishes, telling what every board gives."""
    face = job.shop.allowance.face
    job = replace(job, boards=tuple(b.thickened(face) if b.lies_flat else b for b in job.boards))
    searching = _Search(job, limits, watch, clock, Task(plain=True))
    heuristic = searching.heuristic
    areas = tuple(p * u for p, u in zip(heuristic.plain, heuristic.units, strict=True))
    if not job.boards:
        return Valued(searching.nothing(), tuple(searching.item_types), {}, areas)
    plan = searching.run(searching.first())
    taken = {
        b.id: pattern.taken
        for b, pattern in zip(job.boards, searching.best.patterns, strict=True)
        if pattern.segments
    }
    return Valued(plan, tuple(searching.item_types), taken, areas)


def _worker(
    job: Job, task: Task, limits: Limits, clock: Clock, exchange: Exchange, first: bool
) -> CostBounds:
    """The first of the other workers raises the bound, and searches when it can prove little more;
    what it proves is told as it comes.
    """
    worker = _Search(job, limits, None, clock, task)
    worker.known.exchange_with = exchange
    if first:
        worker.prove(limits.seconds, worker.promises)
    worker.run(worker.first())
    return worker.known.bounds


class _Search:
    def __init__(
        self, job: Job, limits: Limits, watch: Watch | None, clock: Clock, task: Task
    ) -> None:
        self.whole = job
        self.job = job = task.fixings.on(job)
        self.held = task.pinned(job)
        self.limits = limits
        self.watch = watch
        self.stopped = False
        self.best = Solution([])
        self.clock = clock
        self.began = clock()
        placed = {
            Item(i.part, i.n)
            for segments in self.held.values()
            for s in segments
            for _, k in s.blanks()
            for i in k.items()
        }
        listed = item_types(job, not task.plain, placed)
        self.item_types, self.staves = remaining_types(listed, self.held, job.shop.allowance.width)
        mark = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 2
        generators = [
            PatternGenerator(
                b, job.shop, self.item_types, mark, pinned_needs(self.held.get(b.id, ()), job)
            )
            for b in job.boards
        ]
        prices = [Decimal(0) if b.id in self.held else b.price for b in job.boards]
        sunk = sum((b.price for b in job.boards if b.id in self.held), Decimal(0))
        demand = [w.width if w.is_panel else w.count for w in self.item_types]
        self.known = SharedBounds(0.0)
        self.risen = 0.0, self.began  # the bound, and when it last rose
        holding = [
            [f.board for f in generators if w.index in f.mine_indexes] for w in self.item_types
        ]
        self.heuristic = RuinAndRecreate(
            initial_profits(job, self.item_types, holding, task.fixings.priority),
            generators,
            prices,
            sunk,
            demand,
            job.shop,
            limits,
            clock,
            self._goes_on,
            self.known,
        )
        self.heuristic.began = self.began  # making ready is part of the time
        for group in together(self.job, self.item_types):
            self._keep_together(set(group))

    def _keep_together(self, group: set[int]) -> None:
        heuristic = self.heuristic
        ids = {i.part for index in group for unit in self.item_types[index].members for i in unit}
        names = {self.job.part(i).same_board for i in ids}
        begun = {
            board
            for board, segments in self.held.items()
            for s in segments
            for _, b in s.blanks()
            for i in b.items()
            if self.job.part(i.part).same_board in names
        }
        keep_together(
            heuristic.generators,
            group,
            begun,
            heuristic.prices,
            heuristic.demand,
            heuristic.plain,
            heuristic.rng,
        )

    def prove(self, seconds: float, go_on: Callable[[], bool] = lambda: True) -> None:
        """Raise the bound for so long, or until it is stopped; what it counts on boards may nearly
        be cut.
        """
        until = self.clock() + seconds
        self._proved(
            lower_bound(
                self.whole,
                _CUTS,
                lambda: self.clock() < until and go_on(),
                self._counted,
                self._proved,
            )
        )

    def promises(self) -> bool:
        """Whether there is much to prove yet, or the bound still rises."""
        bounds, now = self.known.bounds, self.clock()
        if bounds.lower > self.risen[0]:
            self.risen = bounds.lower, now
        return (
            bounds.upper > _NEAR * bounds.lower
            or now - self.risen[1] < _STANDS * self.limits.seconds
        )

    def _counted(self, relaxation: BoardRelaxation, profits: Floats, boards: Sequence[int]) -> None:
        for i, pattern in round_relaxation(
            self.heuristic.generators, relaxation, profits, boards, self.heuristic.demand
        ):
            self.heuristic.master.add(i, pattern)
        self.known.exchange(self.heuristic.master)

    def _proved(self, bound: float) -> None:
        self.known.learn(CostBounds(bound))
        self.known.exchange(self.heuristic.master)

    def first(self) -> Solution:
        """A plan at once; what any could cost at least comes after it."""
        solution = self.heuristic.first()
        self._goes_on(solution, self.heuristic.objective(solution))
        return solution

    def run(self, solution: Solution) -> Plan:
        """The best plan from this one on."""
        heuristic = self.heuristic
        if self.limits.prove and not self.known.bound:
            self.known.learn(CostBounds(lower_bound(self.whole)))
        alone = self.known.exchange_with is None and self.limits.rounds is None
        if self.limits.prove and alone and self.item_types:
            heuristic.trying = "how cheap it could be at all"
            objective = heuristic.objective(solution)
            self.prove(
                _PROVING_ALONE * self.limits.seconds, lambda: self._goes_on(solution, objective)
            )
        best, objective = heuristic.run(solution)
        self.known.exchange(heuristic.master)
        best = Solution(
            [heuristic.master.with_bonus(i, pattern) for i, pattern in enumerate(best.patterns)],
            best.remaining,
        )
        self.best = best
        plan = self._plan(best)
        if self.watch:
            self.watch(self._progress(best, objective))
        return plan

    def _goes_on(self, best: Solution, objective: Objective) -> bool:
        """Tell whoever watches, and ask whether to go on; once stopped it stays so."""
        self.stopped = self.stopped or (
            self.watch is not None and not self.watch(self._progress(best, objective))
        )
        return not self.stopped

    def _progress(self, solution: Solution, objective: Objective) -> Progress:
        unplaced = sum(
            (1 if w.is_panel else n) * (len(w.members[0]) if w.is_run else 1)
            for w, n in zip(self.item_types, solution.remaining, strict=True)
            if n > 0
        )
        spent, heuristic = self.clock() - self.began, self.heuristic
        return Progress(
            spent, heuristic.rounds, unplaced, objective.cost, self.known.bound, heuristic.trying
        )

    def nothing(self) -> Plan:
        """Without boards everything is left out."""
        demand = [w.width if w.is_panel else w.count for w in self.item_types]
        return self._plan(Solution([], demand))

    def _plan(self, solution: Solution) -> Plan:
        remaining = whole_panels(self.item_types, solution)
        named = Named(self.item_types, remaining, self.staves, self.held)
        boards = named.boards((b.id for b in self.job.boards), solution.patterns)
        used = {b.board for b in boards}
        unplaced = tuple(
            Unplaced(item.part, item.n, why)
            for item_type, missing in named.missing()
            for why in [why_unplaced(self.whole, item_type)]
            for unit in missing
            for item in unit
        )
        cost = sum((b.price for b in self.job.boards if b.id in used), Decimal(0))
        return Plan(boards, unplaced, cost, self.known.bound, self.clock() - self.began)
