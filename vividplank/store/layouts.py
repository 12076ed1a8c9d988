"""Layouts: searches asked for, their progress, their plans, and the steps done of them."""

import json
from dataclasses import dataclass
from decimal import Decimal

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from vividplank.core.document import digest, job_from_document, job_to_document
from vividplank.core.exchange import plan_document, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.limits import Progress
from vividplank.core.layout.plan import Plan
from vividplank.store.errors import NotThere
from vividplank.store.models import LayoutRow, StepDoneRow


@dataclass(frozen=True)
class Layout:
    """`job` is the state the plan was computed from; `stale` says that the project has moved on since."""

    pk: int
    project: int
    state: str
    seconds: float
    spent: float
    rounds: int
    unplaced: int | None
    cost: Decimal | None
    lower_bound: float | None
    trouble: str
    job: Job
    made_from: str
    plan: Plan | None

    def stale(self, now: Job) -> bool:
        return digest(now) != self.made_from


def ask(session: Session, project: int, job: Job, seconds: float) -> Layout:
    """A layout waiting for a worker; one that is still going for the same project is asked to stop."""
    session.execute(
        update(LayoutRow).where(LayoutRow.project == project, LayoutRow.state.in_(("waiting", "searching")))
        .values(stop_asked=True)
    )
    row = LayoutRow(project=project, seconds=seconds, made_from=digest(job), job=job_to_document(job))
    session.add(row)
    session.flush()
    return _layout(row)


def keep(session: Session, project: int, job: Job, plan: Plan) -> Layout:
    """A plan that came in from a file and passed the audit."""
    row = LayoutRow(project=project, seconds=plan.seconds, made_from=digest(job), job=job_to_document(job), state="done")
    session.add(row)
    _hold(row, job, plan)
    session.flush()
    return _layout(row)


def load(session: Session, pk: int) -> Layout:
    return _layout(_row(session, pk))


def latest(session: Session, project: int) -> Layout | None:
    """The layout last asked for."""
    row = session.scalar(select(LayoutRow).where(LayoutRow.project == project).order_by(LayoutRow.pk.desc()).limit(1))
    return _layout(row) if row else None


def standing(session: Session, project: int) -> Layout | None:
    """The newest layout that has a plan."""
    row = session.scalar(
        select(LayoutRow).where(LayoutRow.project == project, LayoutRow.plan.is_not(None))
        .order_by(LayoutRow.pk.desc()).limit(1)
    )
    return _layout(row) if row else None


def standing_plan(session: Session, project: int) -> tuple[Layout, Plan]:
    """The newest layout that has a plan, and the plan; NotThere before there is one."""
    layout = standing(session, project)
    if layout is None or layout.plan is None:
        raise NotThere("there is no plan yet; lay the parts out first")
    return layout, layout.plan


def unfinished(session: Session) -> list[int]:
    """Layouts that nobody has finished yet."""
    wanted = select(LayoutRow.pk).where(LayoutRow.state.in_(("waiting", "searching"))).order_by(LayoutRow.pk)
    return list(session.scalars(wanted))


def begin(session: Session, pk: int) -> Layout:
    row = _row(session, pk)
    row.state = "searching"
    session.flush()
    return _layout(row)


def report(session: Session, pk: int, progress: Progress) -> bool:
    """Write how far it is; answers whether to go on."""
    row = _row(session, pk)
    row.spent, row.rounds, row.unplaced = progress.seconds, progress.rounds, progress.unplaced
    row.cost, row.lower_bound = progress.cost, progress.lower_bound
    return not row.stop_asked


def finish(session: Session, pk: int, job: Job, plan: Plan) -> None:
    """The search is over. Its plan is kept unless one that stands for the very same job is as good or better:
    that one stays, and with it the steps already done of it.
    """
    row = _row(session, pk)
    before = standing(session, row.project)
    row.spent, row.unplaced, row.cost, row.lower_bound = plan.seconds, len(plan.unplaced), plan.cost, plan.lower_bound
    if before is None or before.made_from != row.made_from or _better(plan, before):
        _hold(row, job, plan)
    row.state = "stopped" if row.stop_asked else "done"


def hand_back(session: Session, pk: int) -> None:
    """The worker ends before the search does; another takes it up from the beginning."""
    _row(session, pk).state = "waiting"


def fail(session: Session, pk: int, trouble: str) -> None:
    row = _row(session, pk)
    row.state, row.trouble = "failed", trouble


def stop(session: Session, pk: int) -> Layout:
    row = _row(session, pk)
    row.stop_asked = True
    session.flush()
    return _layout(row)


def steps_done(session: Session, pk: int) -> set[str]:
    return set(session.scalars(select(StepDoneRow.key).where(StepDoneRow.layout == pk)))


def mark_step(session: Session, pk: int, key: str, done: bool) -> None:
    """Tick a step off, or take the tick back; twice is once."""
    _row(session, pk)
    session.execute(delete(StepDoneRow).where(StepDoneRow.layout == pk, StepDoneRow.key == key))
    if done:
        session.add(StepDoneRow(layout=pk, key=key))


def _better(plan: Plan, before: Layout) -> bool:
    assert before.plan is not None
    return (len(plan.unplaced), plan.cost) < (len(before.plan.unplaced), before.plan.cost)


def _hold(row: LayoutRow, job: Job, plan: Plan) -> None:
    row.plan = plan_document(plan, job.unit)
    row.spent, row.unplaced, row.cost, row.lower_bound = plan.seconds, len(plan.unplaced), plan.cost, plan.lower_bound


def _row(session: Session, pk: int) -> LayoutRow:
    row = session.get(LayoutRow, pk)
    if row is None:
        raise NotThere("there is no such layout; its project may have been removed")
    return row


def _layout(r: LayoutRow) -> Layout:
    return Layout(
        r.pk, r.project, r.state or "waiting", r.seconds, r.spent or 0.0, r.rounds or 0, r.unplaced, r.cost, r.lower_bound,
        r.trouble or "", job_from_document(r.job), r.made_from, read_plan(json.dumps(r.plan)) if r.plan else None,
    )
