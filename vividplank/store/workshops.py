"""Workshops: each a document with a version, in which projects are made."""

from dataclasses import dataclass

from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from vividplank.core.measure import Unit
from vividplank.core.milling.shop.workshop import (
    Workshop,
    usual_workshop,
    workshop_from_document,
    workshop_to_document,
)
from vividplank.core.refusal import Refusal
from vividplank.store.errors import NotFoundError, VersionConflict
from vividplank.store.models import ProjectRow, WorkshopRow


@dataclass(frozen=True)
class Kept:
    """A workshop as it is kept, and how many projects are made in it."""

    pk: int
    name: str
    version: int
    projects: int
    workshop: Workshop


def everyone(session: Session) -> list[Kept]:
    """All of them, the oldest first."""
    counts = select(func.count()).where(ProjectRow.workshop == WorkshopRow.pk, ~ProjectRow.rack)
    rows = session.execute(
        select(WorkshopRow, counts.scalar_subquery()).order_by(WorkshopRow.pk)
    ).all()
    return [Kept(r.pk, r.name, r.version, n, workshop_from_document(r.document)) for r, n in rows]


def load(session: Session, pk: int) -> Kept:
    found = next((k for k in everyone(session) if k.pk == pk), None)
    if found is None:
        raise NotFoundError("there is no such workshop; it may have been removed")
    return found


def add(session: Session, name: str, workshop: Workshop) -> Kept:
    row = WorkshopRow(name=name, document=workshop_to_document(workshop))
    session.add(row)
    session.flush()
    return load(session, row.pk)


def put(session: Session, pk: int, name: str, workshop: Workshop, version: int) -> Kept:
    """Keep it if it is still at that version; a VersionConflict leaves it as it was."""
    of = update(WorkshopRow).where(WorkshopRow.pk == pk, WorkshopRow.version == version)
    values = {"name": name, "document": workshop_to_document(workshop), "version": version + 1}
    kept = session.execute(
        of.values(values).returning(WorkshopRow.pk),
        execution_options={"synchronize_session": False},
    ).scalar()
    session.expire_all()
    now = load(session, pk)
    if kept is None:
        raise VersionConflict(now.version)
    return now


def remove(session: Session, pk: int) -> None:
    """A Refusal where projects are made in it, or it is the last."""
    found = load(session, pk)
    used = session.scalar(select(func.count()).where(ProjectRow.workshop == pk))
    if used:
        raise Refusal("$", f"projects are made in {found.name}; expected one nobody uses")
    session.execute(delete(WorkshopRow).where(WorkshopRow.pk == pk))


def of_project(session: Session, project: int) -> Kept:
    pk = session.scalar(select(ProjectRow.workshop).where(ProjectRow.pk == project))
    if pk is None:
        raise NotFoundError("there is no such project; it may have been removed")
    return load(session, pk)


def to_begin_with(session: Session, unit: Unit) -> int:
    """The workshop of a new project: the oldest; the first project opens one with the usual
    machines.
    """
    oldest = session.scalar(select(func.min(WorkshopRow.pk)))
    return oldest or add(session, "Our workshop", usual_workshop(unit)).pk


def choose(session: Session, project: int, pk: int) -> None:
    """Make the project in another workshop. What was read of its settings before is out of date."""
    was, now = of_project(session, project), load(session, pk)
    ahead = max(0, was.version - now.version)
    session.execute(
        update(ProjectRow)
        .where(ProjectRow.pk == project)
        .values(workshop=pk, milling_version=ProjectRow.milling_version + ahead + 1),
        execution_options={"synchronize_session": False},
    )
    session.expire_all()
