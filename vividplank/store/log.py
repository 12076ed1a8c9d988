"""The log of a project: what happened, appended and never edited; and what it leaves to plan."""

from dataclasses import dataclass, replace
from datetime import UTC, datetime

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put
from vividplank.core.layout.model.plan import Plan
from vividplank.core.log.events import (
    Did,
    Event,
    Found,
    Measured,
    Void,
    event_from_document,
    event_to_document,
    standing,
)
from vividplank.core.log.replan import Remaining, as_seen, remaining
from vividplank.core.log.state import Held, Wood, state
from vividplank.core.milling import Route, recent_routes
from vividplank.core.refusal import Refusal
from vividplank.store import layouts, milling, projects
from vividplank.store.errors import NotFoundError
from vividplank.store.layouts import Layout
from vividplank.store.models import BoardCutRow, EventRow, ProjectRow


@dataclass(frozen=True)
class Entry:
    """An event, when it was written down, and whether it stands."""

    event: Event
    at: datetime
    layout: int | None
    stands: bool


def entries(session: Session, project: int) -> list[Entry]:
    """All of it, in the order it happened."""
    rows = session.scalars(
        select(EventRow).where(EventRow.project == project).order_by(EventRow.n)
    ).all()
    events = [_event(r) for r in rows]
    there = {e.n for e in standing(events)}
    return [Entry(e, r.at, r.layout, e.n in there) for e, r in zip(events, rows, strict=True)]


def add(session: Session, project: int, layout: int | None, event: Event) -> Event:
    """Append an event under the next number. Who writes at the same moment waits."""
    locked = select(ProjectRow.pk).where(ProjectRow.pk == project).with_for_update()
    if session.scalar(locked) is None:
        raise NotFoundError("there is no such project; it may have been removed")
    last = session.scalar(select(func.max(EventRow.n)).where(EventRow.project == project))
    event = replace(event, n=(last or 0) + 1)
    document = event_to_document(event)
    document.pop("n")
    when = {"at": at} if (at := time_of(event)) else {}
    session.add(EventRow(project=project, n=event.n, layout=layout, document=document, **when))
    session.flush()
    return event


def tell(session: Session, layout: Layout, event: Event) -> tuple[Event, Held | None]:
    """Append what was seen of a piece, or done to it; answers the event and the piece after it,
    if it is still there. A fault or the warp of a board nobody has cut belongs to its survey. What
    was told with its moment and is told again is there once.
    """
    told = (
        e.event for e in entries(session, layout.project) if event.at and e.event.at == event.at
    )
    same = next((e for e in told if numbered(e, event.n) == event), None)
    kept = same or add(session, layout.project, layout.pk, event)
    held = wood(session, layout).pieces.get(getattr(event, "piece", ""))
    now = projects.load(session, layout.project)
    board = next((b for b in now.job.boards if held and b.id == held.piece.mark), None)
    if held is None or held.state != "rack" or board is None:
        return kept, held
    if isinstance(kept, Found | Measured) and (put := as_seen(board, held)) != board:
        says = f"{kept.defect.kind} found on" if isinstance(kept, Found) else f"{kept.what} of"
        change = Change(f"{says} {board.id}", put_boards=(Put(put),))
        projects.edit(session, layout.project, now.version, change)
    return kept, held


def void(session: Session, project: int, n: int) -> None:
    """Take an event back; a step's tick goes with it. Twice is once."""
    found = next((e for e in entries(session, project) if e.event.n == n), None)
    if found is None:
        raise NotFoundError(f"there is no event {n}")
    if not found.stands:
        return
    if isinstance(found.event, Did):
        now = layouts.standing(session, project)
        for layout in {found.layout, now.pk if now else None} - {None}:
            layouts.untick(session, layout or 0, found.event.step)
    add(session, project, found.layout, Void(n=1, event=n))


def tick(session: Session, layout: int, said: Did, done: bool, taken: layouts.Taken) -> None:
    """Tick a step off, or take the tick back, and write it in the log as said; twice is once."""
    project = layouts.load(session, layout).project
    was = layouts.mark_step(session, layout, said.step, done, taken)
    for entry in entries(session, project):
        if was and entry.stands and isinstance(entry.event, Did) and entry.event.step == said.step:
            if done and numbered(entry.event, 1) == numbered(said, 1):
                return
            add(session, project, layout, Void(n=1, event=entry.event.n))
    if done:
        add(session, project, layout, said)


def time_of(event: Event) -> datetime | None:
    """When it says it happened, in UTC where it names no zone; None where it names no time."""
    try:
        at = datetime.fromisoformat(event.at)
    except ValueError:
        return None
    return at if at.tzinfo else at.replace(tzinfo=UTC)


def numbered(event: Event, n: int) -> Event:
    """The event under another number."""
    return replace(event, n=n)


def happened(session: Session, layout: Layout) -> tuple[Event, ...]:
    """What happened to the wood as this layout cuts it: its steps that are done, and what was seen
    of its pieces.
    """
    done = layouts.steps_done(session, layout.pk)
    events = [e.event for e in entries(session, layout.project) if e.stands]
    told = {e.step for e in events if isinstance(e, Did)}
    last = max((e.n for e in events), default=0)
    before = [Did(n=last + k, step=key) for k, key in enumerate(sorted(done - told), 1)]
    return (*(e for e in events if not isinstance(e, Did) or e.step in done), *before)


def wood(session: Session, layout: Layout) -> Wood:
    """The pieces there are now; NotFoundError where the layout has no plan."""
    if layout.plan is None:
        raise NotFoundError("this layout has no plan yet")
    made = routes_of(session, layout)
    return state(layout.job, layout.plan, made, happened(session, layout), strict=False)


def routes_of(session: Session, layout: Layout) -> tuple[Route, ...]:
    assert layout.plan
    how = milling.of_project(session, layout.project, layout.job)
    return recent_routes(layout.job, layout.plan, how)


def left(session: Session, project: int, now: Job) -> Remaining | None:
    """What is left to lay out of a job on its boards; None where nothing of it has been begun."""
    layout = layouts.standing(session, project)
    if layout is None or layout.plan is None:
        return None
    events = happened(session, layout)
    if not events and not layout.plan.closed:
        return None
    made = routes_of(session, layout)
    cut = session.scalars(select(BoardCutRow.board).where(BoardCutRow.layout == layout.pk)).all()
    return remaining(now, layout.job, layout.plan, made, events, cut, strict=False)


def bring_in(session: Session, project: int) -> Remaining | None:
    """What is left, with all that cut boards have left on the list of boards: under its own mark,
    as it is. None where nothing has been begun.
    """
    loaded = projects.load(session, project)
    found = left(session, project, loaded.job.on_boards())
    if found is None or not found.pieces:
        return found
    names = ", ".join(b.id for b in found.pieces)
    puts = tuple(Put(b) for b in found.pieces)
    change = Change(f"what is left of cut boards: {names}", put_boards=puts)
    after = projects.edit(session, project, loaded.version, change)
    return left(session, project, after.job.on_boards())


def keeps(session: Session, project: int, plan: Plan) -> None:
    """A Refusal where a plan cuts boards otherwise that are being cut."""
    layout = layouts.standing(session, project)
    found = layout and left(session, project, layout.job)
    if not layout or not layout.plan or not found:
        return
    if (plan.closed, plan.made) != (layout.plan.closed, layout.plan.made):
        raise Refusal("$", "is from before pieces went another way; expected a plan made since")
    cut = {b.board: b.segments for b in plan.boards}
    for board in layout.plan.boards:
        if board.board in found.begun and cut.get(board.board) != board.segments:
            raise Refusal(
                f"board {board.board}",
                "is being cut; expected a plan that leaves it as it is. Plan the rest again under "
                "Lay out",
            )


def _event(row: EventRow) -> Event:
    return event_from_document({**row.document, "n": row.n})
