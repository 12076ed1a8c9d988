"""Finding a plan of a job: wants and boards are made ready, the hunt goes over them, and the bound
is seen to beside it.
"""

from collections.abc import Callable, Sequence
from dataclasses import replace
from decimal import Decimal

from vividplank.core.job import Job
from vividplank.core.layout.bound.lower_bound import lower_bound
from vividplank.core.layout.bound.relaxation import Floats, Rooms
from vividplank.core.layout.model.fixings import Task, pinned_needs, still_wanted
from vividplank.core.layout.model.item_types import together, wants
from vividplank.core.layout.model.limits import Clock, Limits, Progress, Watch
from vividplank.core.layout.model.plan import Item, Plan, Unplaced
from vividplank.core.layout.model.solution import Standing, State
from vividplank.core.layout.patterns.generator import Filler
from vividplank.core.layout.patterns.generators import cut_as_counted, keep_together
from vividplank.core.layout.search.left_out import why_unplaced
from vividplank.core.layout.search.naming import Named
from vividplank.core.layout.search.portfolio import Share, Span, helped
from vividplank.core.layout.search.profits import worths
from vividplank.core.layout.search.restricted_master import Known
from vividplank.core.layout.search.ruin_and_recreate import Hunt
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM

#: Share of the time in which a search without help sees to the bound.
_PROVING_ALONE = 0.2
#: Where the best plan costs no more than so many times the bound, and that has not risen for so
# large a share of the time, a : cheaper plan is more likely than a better bound.
_NEAR, _STANDS = 1.06, 0.1
#: Share of the time for a plan that opens like a book what is to be opened so.
_WISHING = 0.6
#: Rows by worth that the bound gets at most.
_CUTS = 400

__all__ = ["Limits", "Progress", "Watch", "search"]


def search(
    job: Job, limits: Limits, clock: Clock, watch: Watch | None = None, task: Task | None = None
) -> Plan:
    """The best plan found within the limits, with a bound that no complete plan can undercut.

    `clock` tells seconds from any beginning; the core has none of its own. With a `task` it is
    solved round what is held, and the bound is still that of the job without it.
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
    searching = _Search(job, limits, watch, clock, task)
    first = searching.first()
    with helped(job, limits, clock, _helping, task) as share:
        searching.known.share = share
        return searching.run(first)


def _helping(job: Job, task: Task, limits: Limits, clock: Clock, share: Share, first: bool) -> Span:
    """The first helper sees to the bound, and searches when it can prove little more; what it
    proves is told as it comes.
    """
    helper = _Search(job, limits, None, clock, task)
    helper.known.share = share
    if first:
        helper.prove(limits.seconds, helper.promises)
    helper.run(helper.first())
    return helper.known.span


class _Search:
    def __init__(
        self, job: Job, limits: Limits, watch: Watch | None, clock: Clock, task: Task
    ) -> None:
        self.whole = job
        self.job = job = task.holds.on(job)
        self.held = task.pinned(job)
        self.limits = limits
        self.watch = watch
        self.stopped = False
        self.clock = clock
        self.began = clock()
        placed = {
            Item(i.part, i.n)
            for segments in self.held.values()
            for s in segments
            for _, k in s.blanks()
            for i in k.items()
        }
        listed = wants(job, not task.plain, placed)
        self.wants, self.staves = still_wanted(listed, self.held, job.shop.allowance.width)
        mark = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 2
        fillers = [
            Filler(b, job.shop, self.wants, mark, pinned_needs(self.held.get(b.id, ()), job))
            for b in job.boards
        ]
        prices = [Decimal(0) if b.id in self.held else b.price for b in job.boards]
        sunk = sum((b.price for b in job.boards if b.id in self.held), Decimal(0))
        demand = [w.width if w.is_panel else w.count for w in self.wants]
        self.known = Known(0.0)
        self.risen = 0.0, self.began  # the bound, and when it last rose
        holding = [[f.board for f in fillers if w.index in f.mine_indexes] for w in self.wants]
        self.hunt = Hunt(
            worths(job, self.wants, holding, task.holds.first),
            fillers,
            prices,
            sunk,
            demand,
            job.shop,
            limits,
            clock,
            self._goes_on,
            self.known,
        )
        self.hunt.began = self.began  # making ready is part of the time
        for group in together(self.job, self.wants):
            self._keep_together(set(group))

    def _keep_together(self, group: set[int]) -> None:
        hunt = self.hunt
        ids = {i.part for index in group for lump in self.wants[index].members for i in lump}
        names = {self.job.part(i).same_board for i in ids}
        begun = {
            board
            for board, segments in self.held.items()
            for s in segments
            for _, b in s.blanks()
            for i in b.items()
            if self.job.part(i.part).same_board in names
        }
        keep_together(hunt.fillers, group, begun, hunt.prices, hunt.demand, hunt.plain, hunt.rng)

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
        span, now = self.known.span, self.clock()
        if span.least > self.risen[0]:
            self.risen = span.least, now
        return span.most > _NEAR * span.least or now - self.risen[1] < _STANDS * self.limits.seconds

    def _counted(self, rooms: Rooms, worth: Floats, boards: Sequence[int]) -> None:
        for i, fill in cut_as_counted(self.hunt.fillers, rooms, worth, boards, self.hunt.demand):
            self.hunt.pool.add(i, fill)
        self.known.exchange(self.hunt.pool)

    def _proved(self, bound: float) -> None:
        self.known.learn(Span(bound))
        self.known.exchange(self.hunt.pool)

    def first(self) -> State:
        """A plan at once; what any could cost at least comes after it."""
        state = self.hunt.first()
        self._goes_on(state, self.hunt.standing(state))
        return state

    def run(self, state: State) -> Plan:
        """The best plan from this one on."""
        hunt = self.hunt
        if not self.known.bound:
            self.known.learn(Span(lower_bound(self.whole)))
        if self.known.share is None and self.limits.rounds is None and self.wants:
            hunt.trying = "how cheap it could be at all"
            standing = hunt.standing(state)
            self.prove(_PROVING_ALONE * self.limits.seconds, lambda: self._goes_on(state, standing))
        best, standing = hunt.run(state)
        self.known.exchange(hunt.pool)
        best = State(
            [hunt.pool.as_pleasing(i, fill) for i, fill in enumerate(best.fills)], best.left
        )
        plan = self._plan(best)
        if self.watch:
            self.watch(self._progress(best, standing))
        return plan

    def _goes_on(self, best: State, standing: Standing) -> bool:
        """Tell whoever watches, and ask whether to go on; once stopped it stays so."""
        self.stopped = self.stopped or (
            self.watch is not None and not self.watch(self._progress(best, standing))
        )
        return not self.stopped

    def _progress(self, state: State, standing: Standing) -> Progress:
        unplaced = sum(
            (1 if w.is_panel else n) * (len(w.members[0]) if w.is_run else 1)
            for w, n in zip(self.wants, state.left, strict=True)
            if n > 0
        )
        spent, hunt = self.clock() - self.began, self.hunt
        return Progress(spent, hunt.rounds, unplaced, standing.cost, self.known.bound, hunt.trying)

    def _plan(self, state: State) -> Plan:
        named = Named(self.wants, state.left, self.staves, self.held)
        boards = named.boards((b.id for b in self.job.boards), state.fills)
        used = {b.board for b in boards}
        unplaced = tuple(
            Unplaced(item.part, item.n, why)
            for want, missing in named.missing()
            for why in [why_unplaced(self.whole, want)]
            for lump in missing
            for item in lump
        )
        cost = sum((b.price for b in self.job.boards if b.id in used), Decimal(0))
        return Plan(boards, unplaced, cost, self.known.bound, self.clock() - self.began)
