"""Drawings attached to a project, to look at."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session, undefer

from vividplank.store.errors import NotThere
from vividplank.store.models import DrawingRow


@dataclass(frozen=True)
class Drawing:
    pk: int
    name: str
    media_type: str
    size: int


def add(session: Session, project: int, name: str, media_type: str, content: bytes) -> Drawing:
    row = DrawingRow(project=project, name=name, media_type=media_type, content=content, size=len(content))
    session.add(row)
    session.flush()
    return _drawing(row)


def of_project(session: Session, project: int) -> list[Drawing]:
    wanted = select(DrawingRow).where(DrawingRow.project == project).order_by(DrawingRow.pk)
    return [_drawing(row) for row in session.scalars(wanted)]


def content(session: Session, pk: int) -> tuple[Drawing, bytes]:
    row = session.get(DrawingRow, pk, options=[undefer(DrawingRow.content)])
    if row is None:
        raise NotThere("there is no such drawing; it may have been removed")
    return _drawing(row), row.content


def remove(session: Session, pk: int) -> None:
    row = session.get(DrawingRow, pk)
    if row is None:
        raise NotThere("there is no such drawing; it may have been removed")
    session.delete(row)


def _drawing(row: DrawingRow) -> Drawing:
    return Drawing(row.pk, row.name, row.media_type, row.size)
