"""Layouts: searches asked for, their progress, their plans, and the steps done of them."""

import json
from collections.abc import Collection, Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from decimal import Decimal

from sqlalchemy import delete, inspect, select, update
from sqlalchemy.orm import Session

from vividplank.core.document import (
    digest,
    fixings_from_document,
    fixings_to_document,
    job_from_document,
    job_to_document,
)
from vividplank.core.exchange import plan_document, read_plan
from vividplank.core.job import Job
from vividplank.core.layout.explain.what_ifs import WhatIf
from vividplank.core.layout.model.fixings import Fixings, Task
from vividplank.core.layout.model.limits import Progress
from vividplank.core.layout.model.plan import Plan
from vividplank.store.errors import NotFoundError
from vividplank.store.models import BoardCutRow, LayoutRow, StepDoneRow


@dataclass(frozen=True)
class Layout:
    """`job` is the state the plan was computed from; `stale` says that the project has moved on
    since.
    """

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
    fixings: Fixings
    parent: int | None
    made_by: str
    name: str
    trying: str = ""

    def stale(self, now: Job) -> bool:
        return digest(now) != self.made_from


def ask(
    session: Session, project: int, job: Job, seconds: float, begun: Iterable[str] = ()
) -> Layout:
    """A layout waiting for a worker, to be solved round what the standing one holds; one that is
    still going for the same project is asked to stop. `begun`, the boards that are being cut, is
    for the screen.
    """
    session.execute(
        update(LayoutRow)
        .where(LayoutRow.project == project, LayoutRow.state.in_(("waiting", "searching")))
        .values(stop_asked=True)
    )
    before = standing_row(session, project)
    row = LayoutRow(
        project=project,
        seconds=seconds,
        made_from=digest(job),
        job=job_to_document(job),
        parent=before.pk if before else None,
        fixings=({**before.fixings} if before else {}) | {"begun": sorted(begun)},
    )
    session.add(row)
    session.flush()
    return read(row)


def keep(
    session: Session,
    project: int,
    job: Job,
    plan: Plan,
    made_by: str = "file",
    fixings: Fixings | None = None,
    made_from: str | None = None,
) -> Layout:
    """A plan that came in from a file or was made by hand, and passed the audit. What had been
    undone is gone for good. `made_from` is the digest of the project's job where `job` has boards
    beside it that are being cut.
    """
    before = standing_row(session, project)
    session.execute(
        delete(LayoutRow).where(
            LayoutRow.project == project, LayoutRow.undone, LayoutRow.name == ""
        )
    )
    row = LayoutRow(
        project=project,
        seconds=plan.seconds,
        made_from=made_from or digest(job),
        job=job_to_document(job),
        state="done",
        parent=before.pk if before else None,
        made_by=made_by,
        fixings=fixings_to_document(fixings or Fixings()),
    )
    session.add(row)
    _hold(row, job, plan)
    session.flush()
    done = steps_done(session, before.pk) if before else set()
    if before and done and (made_by == "hand" or _leaves(read(before), done, plan)):
        carry(session, before.pk, row.pk)  # what was milled is milled
    return read(row)


def _leaves(before: Layout, done: Collection[str], plan: Plan) -> bool:
    """Whether a plan leaves what these steps have cut as the one before had it."""
    assert before.plan
    cut = {b.board: b.segments for b in plan.boards}
    was = {b.board: b.segments for b in before.plan.boards}
    return all(cut.get(b) == was[b] for b in boards_of(before.plan, done))


def boards_of(plan: Plan, keys: Collection[str]) -> set[str]:
    """The boards whose own steps these are, by the marks they begin with."""
    marks = {key.split("/")[0] for key in keys}
    ids = sorted((b.board for b in plan.boards), key=len, reverse=True)
    found = (next((i for i in ids if m == i or m.startswith(f"{i}.")), "") for m in marks)
    return {i for i in found if i}


def carry(session: Session, before: int, after: int) -> None:
    """The ticks of steps, and the boards that are cut up, stand in another plan as well."""
    there = steps_done(session, after)
    done = session.scalars(select(StepDoneRow).where(StepDoneRow.layout == before)).all()
    columns = [c.key for c in inspect(StepDoneRow).column_attrs if c.key != "layout"]
    session.add_all(
        StepDoneRow(layout=after, **{name: getattr(d, name) for name in columns})
        for d in done
        if d.key not in there
    )
    cut_by = select(BoardCutRow.board).where
    kept = set(session.scalars(cut_by(BoardCutRow.layout == after)))
    cut = session.scalars(cut_by(BoardCutRow.layout == before)).all()
    session.add_all(BoardCutRow(layout=after, board=board) for board in cut if board not in kept)
    session.flush()


def load(session: Session, pk: int) -> Layout:
    return read(row_of(session, pk))


def with_plan(session: Session, pk: int) -> tuple[Layout, Plan]:
    """A layout and its plan; NotFoundError where it has none yet."""
    layout = load(session, pk)
    if layout.plan is None:
        raise NotFoundError("this layout has no plan yet")
    return layout, layout.plan


def plan_of(session: Session, pk: int | None) -> Plan | None:
    """The plan of a layout; None where there is none or it is gone."""
    row = session.get(LayoutRow, pk) if pk else None
    return read(row).plan if row else None


def latest(session: Session, project: int) -> Layout | None:
    """The layout last asked for."""
    row = session.scalar(
        select(LayoutRow).where(LayoutRow.project == project).order_by(LayoutRow.pk.desc()).limit(1)
    )
    return read(row) if row else None


def standing(session: Session, project: int) -> Layout | None:
    """The newest layout that has a plan and was not undone."""
    row = standing_row(session, project)
    return read(row) if row else None


def standing_plan(session: Session, project: int) -> tuple[Layout, Plan]:
    """The newest layout that has a plan, and the plan; NotFoundError before there is one."""
    layout = standing(session, project)
    if layout is None or layout.plan is None:
        raise NotFoundError("there is no plan yet; lay the parts out first")
    return layout, layout.plan


def unfinished(session: Session) -> list[int]:
    """Layouts that nobody has finished yet."""
    wanted = (
        select(LayoutRow.pk)
        .where(LayoutRow.state.in_(("waiting", "searching")))
        .order_by(LayoutRow.pk)
    )
    return list(session.scalars(wanted))


def begin(session: Session, pk: int) -> Layout:
    row = row_of(session, pk)
    row.state = "searching"
    session.flush()
    return read(row)


def report(session: Session, pk: int, progress: Progress) -> bool:
    """Write how far it is; answers whether to go on."""
    row = row_of(session, pk)
    row.spent, row.rounds, row.unplaced = progress.seconds, progress.rounds, progress.unplaced
    row.cost, row.lower_bound, row.trying = progress.cost, progress.lower_bound, progress.trying
    return not row.stop_asked


def finish(session: Session, pk: int, job: Job, plan: Plan) -> None:
    """The search is over. Its plan is kept unless one that stands for the very same job, with the
    same wood cut, is as good or better: that one stays. The ticks go over to a plan that takes its
    place: boards that are being cut are in both as they are. `job` is what the plan is of, with
    these boards.
    """
    row = row_of(session, pk)
    before = standing(session, row.project)
    row.spent, row.unplaced, row.cost, row.lower_bound = (
        plan.seconds,
        len(plan.unplaced),
        plan.cost,
        plan.lower_bound,
    )
    asked = fixings_from_document(row.fixings or {})
    same = (
        before is not None
        and before.plan is not None
        and (before.plan.closed, before.plan.made) == (plan.closed, plan.made)
        and (before.made_from, replace(before.fixings, begun=()))
        == (row.made_from, replace(asked, begun=()))
    )
    if (
        before is None
        or not same
        or _better(plan, before)
        or not Task(before.fixings, before.plan).kept(job)
    ):
        row.job = job_to_document(job)
        _hold(row, job, plan)
        if before:
            carry(session, before.pk, pk)
    row.state = "stopped" if row.stop_asked else "done"


def hand_back(session: Session, pk: int) -> None:
    """The worker ends before the search does; another takes it up from the beginning."""
    row_of(session, pk).state = "waiting"


def fail(session: Session, pk: int, trouble: str) -> None:
    row = row_of(session, pk)
    row.state, row.trouble = "failed", trouble


def stop(session: Session, pk: int) -> Layout:
    row = row_of(session, pk)
    row.stop_asked = True
    session.flush()
    return read(row)


def steps_done(session: Session, pk: int) -> set[str]:
    return set(session.scalars(select(StepDoneRow.key).where(StepDoneRow.layout == pk)))


@dataclass(frozen=True)
class Taken:
    """What is known of a step that was done: what was read, the minutes and passes it took and
    those that were foretold, where, and when, if it is not now.
    """

    reading: int | None = None
    minutes: float | None = None
    foretold: float | None = None
    machine: str = ""
    passes: int | None = None
    passes_foretold: int | None = None
    at: datetime | None = None


def mark_step(session: Session, pk: int, key: str, done: bool, taken: Taken | None = None) -> bool:
    """Tick a step off, or take the tick back; twice is once. Who ticks at the same moment waits
    until this one is kept. Answers whether it was ticked before.
    """
    if session.scalar(select(LayoutRow.pk).where(LayoutRow.pk == pk).with_for_update()) is None:
        raise NotFoundError("there is no such layout; its project may have been removed")
    was = untick(session, pk, key)
    known = {name: value for name, value in vars(taken or Taken()).items() if value is not None}
    if done:
        session.add(StepDoneRow(layout=pk, key=key, **known))
    return was


def untick(session: Session, pk: int, key: str) -> bool:
    """Take a tick back; answers whether there was one."""
    this = (StepDoneRow.layout == pk) & (StepDoneRow.key == key)
    there = session.scalar(select(StepDoneRow.key).where(this)) is not None
    session.execute(delete(StepDoneRow).where(this))
    return there


def plans(session: Session, project: int) -> list[LayoutRow]:
    """The layouts that have a plan and were not undone, the newest first."""
    return list(
        session.scalars(
            select(LayoutRow)
            .where(
                LayoutRow.project == project,
                LayoutRow.plan.is_not(None),
                LayoutRow.undone.is_(False),
            )
            .order_by(LayoutRow.pk.desc())
        )
    )


def standing_row(session: Session, project: int) -> LayoutRow | None:
    return next(iter(plans(session, project)), None)


@dataclass(frozen=True)
class WhatIfs:
    """What else might be cheaper than a plan; `done` when all of it is thought through."""

    done: bool
    found: tuple[WhatIf, ...]


def what_ifs(session: Session, pk: int) -> WhatIfs | None:
    """None where nobody has asked."""
    kept = row_of(session, pk).what_ifs
    if kept is None:
        return None
    return WhatIfs(
        kept["done"], tuple(WhatIf(**{**t, "saves": Decimal(t["saves"])}) for t in kept["found"])
    )


def think(session: Session, pk: int, found: Sequence[WhatIf], done: bool) -> None:
    """Write down what was thought so far."""
    listed = [{**vars(t), "saves": str(t.saves)} for t in found]
    row_of(session, pk).what_ifs = {"done": done, "found": listed}


def _better(plan: Plan, before: Layout) -> bool:
    assert before.plan is not None
    return (len(plan.unplaced), plan.cost) < (len(before.plan.unplaced), before.plan.cost)


def _hold(row: LayoutRow, job: Job, plan: Plan) -> None:
    row.plan = plan_document(plan, job.unit)
    row.spent, row.unplaced, row.cost, row.lower_bound = (
        plan.seconds,
        len(plan.unplaced),
        plan.cost,
        plan.lower_bound,
    )


def row_of(session: Session, pk: int) -> LayoutRow:
    row = session.get(LayoutRow, pk)
    if row is None:
        raise NotFoundError("there is no such layout; its project may have been removed")
    return row


def read(r: LayoutRow) -> Layout:
    return Layout(
        r.pk,
        r.project,
        r.state or "waiting",
        r.seconds,
        r.spent or 0.0,
        r.rounds or 0,
        r.unplaced,
        r.cost,
        r.lower_bound,
        r.trouble or "",
        job_from_document(r.job),
        r.made_from,
        read_plan(json.dumps(r.plan)) if r.plan else None,
        fixings_from_document(r.fixings or {}),
        r.parent,
        r.made_by or "search",
        r.name or "",
        r.trying or "",
    )
