"""Reoptimising: solve again without moving what need not move.

First everything of the plan that still holds is fixed and the rest solved, then everything is free;
what is cheaper by less than a stated gain is not worth the chalk.
"""

from dataclasses import replace

from vividplank.core.job import Job
from vividplank.core.layout.model.figure import shown_in
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.limits import Clock, Limits, Progress, Watch
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import search

#: A plan that moves things must be cheaper than one that keeps them by more than this share.
GAIN = 0.01
#: Or that share more of what is to show a figure must show it, for no more money.
_SHOWN = 0.05
#: Share of the time for the plan that keeps things.
_KEEPING = 0.25


def solve(
    job: Job, limits: Limits, clock: Clock, watch: Watch | None = None, task: Task | None = None
) -> Plan:
    """Like search; where the task brings a plan, that plan is kept but for what has to move or
    gains by moving.
    """
    if task is None or task.plan is None:
        return search(job, limits, clock, watch, task)
    began = clock()
    stopped = False

    def told(progress: Progress) -> bool:
        nonlocal stopped
        seconds = clock() - began
        stopped = stopped or (watch is not None and not watch(replace(progress, seconds=seconds)))
        return not stopped

    everything = tuple(item for *_, item in task.plan.items())
    keeping = replace(task, fixings=replace(task.fixings, pins=everything))
    kept = search(
        job, replace(limits, seconds=_KEEPING * limits.seconds, workers=1), clock, told, keeping
    )
    if stopped:
        return kept
    free = search(
        job,
        replace(limits, seconds=max(0.1, limits.seconds - (clock() - began))),
        clock,
        told,
        task,
    )
    bound = max(kept.lower_bound, free.lower_bound)
    best = kept if _stays(job, kept, free) else free
    return replace(best, lower_bound=bound, seconds=clock() - began)


def _stays(job: Job, kept: Plan, free: Plan) -> bool:
    if (
        not free.unplaced
        and free.cost <= kept.cost
        and _shown(job, free) > _shown(job, kept) + _SHOWN
    ):
        return False
    remaining = [sum(job.part(u.part).volume for u in plan.unplaced) for plan in (kept, free)]
    return remaining[0] < remaining[1] or (
        remaining[0] == remaining[1] and float(kept.cost) <= float(free.cost) * (1 + GAIN)
    )


def _shown(job: Job, plan: Plan) -> float:
    """The share of the parts that are to show a figure that does; nothing for what is left out."""
    wished = {p.id: p.quantity for p in job.parts if p.figure}
    shown = shown_in(job, plan)
    return sum(n * shown.get(part, 0.0) for part, n in wished.items()) / (sum(wished.values()) or 1)
