"""Drawings, models and lists of a project: as they came in, what a worker read in them, what was
taken off by eye.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.orm import Session, undefer

from vividplank.core.takeoff import Page, Reading, reading_document, reading_from_document
from vividplank.store.errors import NotFoundError, VersionConflict
from vividplank.store.models import DrawingPageRow, DrawingRow


@dataclass(frozen=True)
class Drawing:
    """`replaces` is the drawing of which this is a newer version; `replaced` that a newer one has
    taken its place.
    """

    pk: int
    project: int
    name: str
    media_type: str
    size: int
    state: str = "done"
    trouble: str = ""
    replaces: int | None = None
    replaced: bool = False


def add(
    session: Session,
    project: int,
    name: str,
    media_type: str,
    content: bytes,
    replaces: int | None = None,
) -> Drawing:
    """A drawing waiting to be read. What its layers mean is taken over from the drawings of its
    project, and from the version it replaces what was answered about it.
    """
    if replaces is not None and _row(session, replaces).project != project:
        raise NotFoundError("the drawing to replace is not of this project")
    settings: dict[str, Any] = {"layers": _meanings(session, project)}
    if replaces is not None:
        before = _row(session, replaces).settings
        settings = {**settings, "unit": before.get("unit"), "turned": before.get("turned", [])}
    row = DrawingRow(
        project=project,
        name=name,
        media_type=media_type,
        content=content,
        size=len(content),
        settings=settings,
        state="waiting",
        replaces=replaces,
    )
    session.add(row)
    session.flush()
    return _drawing(row)


def of_project(session: Session, project: int) -> list[Drawing]:
    wanted = select(DrawingRow).where(DrawingRow.project == project).order_by(DrawingRow.pk)
    return [_drawing(row) for row in session.scalars(wanted)]


def load(session: Session, pk: int) -> Drawing:
    return _drawing(_row(session, pk))


def content(session: Session, pk: int) -> tuple[Drawing, bytes]:
    row = session.get(DrawingRow, pk, options=[undefer(DrawingRow.content)])
    if row is None:
        raise NotFoundError(_GONE)
    return _drawing(row), row.content


def remove(session: Session, pk: int) -> None:
    session.delete(_row(session, pk))


def settings(session: Session, pk: int) -> dict[str, Any]:
    """The answers about its unit and layers, as a document."""
    return _row(session, pk).settings


def read_again(session: Session, pk: int, answers: dict[str, Any]) -> Drawing:
    """Keep the answers and let it be read anew with them."""
    row = _row(session, pk)
    row.settings = answers
    row.state, row.trouble = "waiting", ""
    session.flush()
    return _drawing(row)


def named(session: Session, project: int, names: Sequence[str]) -> dict[str, bytes]:
    """The newest drawings of a project with these names, as they came in."""
    wanted = select(DrawingRow.name, DrawingRow.content).where(
        DrawingRow.project == project, DrawingRow.name.in_(names)
    )
    if not names:
        return {}
    rows = session.execute(wanted.order_by(DrawingRow.pk))
    return {row.name: row.content for row in rows}


def waiting_for(session: Session, project: int, name: str) -> list[int]:
    """Drawings of a project that have parts in a file of this name; they are to be read again, now
    that it is here.
    """
    rows = session.scalars(
        select(DrawingRow).where(
            DrawingRow.project == project, DrawingRow.reading["missing"].contains([name])
        )
    ).all()
    for row in rows:
        row.state, row.trouble = "waiting", ""
    return [row.pk for row in rows]


def unread(session: Session) -> list[int]:
    """Drawings that nobody has finished reading."""
    wanted = (
        select(DrawingRow.pk)
        .where(DrawingRow.state.in_(("waiting", "reading")))
        .order_by(DrawingRow.pk)
    )
    return list(session.scalars(wanted))


def begin(session: Session, pk: int) -> None:
    _row(session, pk).state = "reading"


def finish(session: Session, pk: int, reading: Reading, pages: list[Page]) -> None:
    row = _row(session, pk)
    row.reading, row.state, row.trouble = reading_document(reading), "done", ""
    session.execute(delete(DrawingPageRow).where(DrawingPageRow.drawing == pk))
    session.add_all(DrawingPageRow(drawing=pk, n=n, png=page.png) for n, page in enumerate(pages))


def fail(session: Session, pk: int, trouble: str) -> None:
    """It could not be read; what was read of it before, if anything, stands."""
    row = _row(session, pk)
    row.state, row.trouble = "failed", trouble


def reading(session: Session, pk: int) -> Reading:
    """What was read in it; NotFoundError while it is not."""
    row = session.get(DrawingRow, pk, options=[undefer(DrawingRow.reading)])
    if row is None:
        raise NotFoundError(_GONE)
    if row.reading is None:
        raise NotFoundError(row.trouble or "this drawing has not been read yet")
    return reading_from_document(row.reading)


def page(session: Session, pk: int, n: int) -> bytes:
    row = session.get(DrawingPageRow, (pk, n))
    if row is None:
        raise NotFoundError("there is no such page")
    return row.png


def marks(session: Session, pk: int) -> tuple[dict[str, Any], int]:
    """Scales and parts marked on the sheet by eye, and the version of them."""
    row = _row(session, pk)
    return row.marks, row.marks_version


def mark(session: Session, pk: int, version: int, document: dict[str, Any]) -> int:
    """Keep the marks made from `version`; the new version."""
    row = session.get(DrawingRow, pk, with_for_update=True)
    if row is None:
        raise NotFoundError(_GONE)
    if row.marks_version != version:
        raise VersionConflict(row.marks_version)
    row.marks, row.marks_version = document, version + 1
    return version + 1


def take_over(session: Session, pk: int) -> None:
    """The version before this one steps back."""
    row = _row(session, pk)
    if row.replaces is not None:
        _row(session, row.replaces).replaced = True


_GONE = "there is no such drawing; it may have been removed"


def _meanings(session: Session, project: int) -> dict[str, Any]:
    """What layers meant in the drawings of a project so far, the newest word last. Another
    project's layers are its own.
    """
    found: dict[str, Any] = {}
    of = select(DrawingRow.settings).where(DrawingRow.project == project)
    for answers in session.scalars(of.order_by(DrawingRow.pk.desc()).limit(50)).all()[::-1]:
        found.update(answers.get("layers", {}))
    return found


def _row(session: Session, pk: int) -> DrawingRow:
    row = session.get(DrawingRow, pk)
    if row is None:
        raise NotFoundError(_GONE)
    return row


def _drawing(row: DrawingRow) -> Drawing:
    return Drawing(
        row.pk,
        row.project,
        row.name,
        row.media_type,
        row.size,
        row.state,
        row.trouble,
        row.replaces,
        row.replaced,
    )
