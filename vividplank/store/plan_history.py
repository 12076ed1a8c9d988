"""The plans of a project before and after the one that stands: back, forth, and by name."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from vividplank.core.document import fixings_from_document
from vividplank.core.layout.model.plan import Plan
from vividplank.store.errors import NothingToUndo
from vividplank.store.layouts import (
    Layout,
    boards_of,
    carry,
    plans,
    read,
    row_of,
    standing_row,
    steps_done,
)
from vividplank.store.models import LayoutRow


def undo(session: Session, project: int) -> Layout:
    """Go back to the plan that stood before; NothingToUndo where there is none, or where wood has
    been cut since that it needs otherwise.
    """
    rows = plans(session, project)
    if len(rows) < 2:
        raise NothingToUndo("there is no plan before this one")
    _go_over(session, rows[0], rows[1])
    rows[0].undone = True
    session.flush()
    return read(rows[1])


def redo(session: Session, project: int) -> Layout:
    """Take an undo back."""
    row = session.scalar(
        select(LayoutRow)
        .where(LayoutRow.project == project, LayoutRow.plan.is_not(None), LayoutRow.undone)
        .order_by(LayoutRow.pk)
        .limit(1)
    )
    if row is None:
        raise NothingToUndo("nothing was undone")
    if before := standing_row(session, project):
        _go_over(session, before, row)
    row.undone = False
    session.flush()
    return read(row)


def _go_over(session: Session, row: LayoutRow, other: LayoutRow) -> None:
    """What is done goes with whoever goes to another plan; NothingToUndo where that one cuts the
    same wood otherwise.
    """
    done = steps_done(session, row.pk)
    if not done:
        return
    now, then = read(row).plan, read(other).plan
    assert now and then
    cut = {b.board: b.segments for b in then.boards}
    alike = {b.board for b in now.boards if cut.get(b.board) == b.segments}
    begun = set(fixings_from_document(row.fixings or {}).begun) | boards_of(now, done)
    if (now.closed, now.made) != (then.closed, then.made) or not begun <= alike:
        raise NothingToUndo("wood has been cut since; the plan before this one needs it whole")
    carry(session, row.pk, other.pk)


def being_cut(session: Session, layout: Layout) -> tuple[str, ...]:
    """The boards that have been cut into, of a layout with a plan."""
    if layout.plan is None:
        return ()
    done = steps_done(session, layout.pk)
    return tuple(sorted({*layout.fixings.begun, *boards_of(layout.plan, done)}))


def steps_back(session: Session, project: int) -> tuple[int, int]:
    """How many plans there are to go back to, and how many undos to take back."""
    undone = select(LayoutRow.pk).where(
        LayoutRow.project == project, LayoutRow.plan.is_not(None), LayoutRow.undone
    )
    return max(0, len(plans(session, project)) - 1), len(list(session.scalars(undone)))


def call(session: Session, pk: int, name: str) -> Layout:
    """Give a plan a name; an empty one takes it away."""
    row = row_of(session, pk)
    row.name = name
    session.flush()
    return read(row)


def named(session: Session, project: int) -> list[tuple[Layout, Plan]]:
    """The plans that have a name, newest first."""
    rows = session.scalars(
        select(LayoutRow)
        .where(LayoutRow.project == project, LayoutRow.plan.is_not(None), LayoutRow.name != "")
        .order_by(LayoutRow.pk.desc())
    )
    return [(layout, layout.plan) for row in rows if (layout := read(row)).plan]
