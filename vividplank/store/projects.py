"""The project aggregate: loaded and saved whole, every edit one transaction with its undo."""

from collections.abc import Callable
from dataclasses import asdict, dataclass, replace
from datetime import datetime
from typing import Any, cast

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session, selectinload

from vividplank.core.cutlist import Measure, Part
from vividplank.core.difference import applied, difference
from vividplank.core.document import (
    job_from_document,
    job_to_document,
    part_from_document,
    part_to_document,
    shop_from_document,
    shop_to_document,
)
from vividplank.core.job import Job
from vividplank.core.job.change import Change, changed
from vividplank.core.measure import SYSTEMS, System, unit_of
from vividplank.store.board_rows import read_board, written
from vividplank.store.errors import NotFoundError, NothingToUndo, VersionConflict
from vividplank.store.models import BoardRow, EditRow, LayoutRow, PartRow, PictureRow, ProjectRow
from vividplank.store.workshops import to_begin_with

_EDITS_KEPT = 200


@dataclass(frozen=True)
class Project:
    """A project as it stands, with the labels of what can be undone and redone."""

    pk: int
    version: int
    system: System
    job: Job
    undo: str = ""
    redo: str = ""
    rack: bool = False


@dataclass(frozen=True)
class ShelfEntry:
    pk: int
    name: str
    system: System
    edited: datetime
    parts: int
    boards: int
    demo: bool
    laid_out: bool


def shelf(session: Session) -> list[ShelfEntry]:
    """All projects but the rack, the one last worked on first."""
    parts = (
        select(func.coalesce(func.sum(PartRow.quantity), 0))
        .where(PartRow.project == ProjectRow.pk)
        .scalar_subquery()
    )
    boards = select(func.count()).where(BoardRow.project == ProjectRow.pk).scalar_subquery()
    laid = (
        select(func.count())
        .where(LayoutRow.project == ProjectRow.pk, LayoutRow.plan.is_not(None))
        .scalar_subquery()
    )
    rows = session.execute(
        select(
            ProjectRow.pk,
            ProjectRow.name,
            ProjectRow.system,
            ProjectRow.edited,
            parts,
            boards,
            ProjectRow.demo,
            laid,
        )
        .where(~ProjectRow.rack)
        .order_by(ProjectRow.edited.desc(), ProjectRow.pk.desc())
    )
    return [
        ShelfEntry(r[0], r[1], cast(System, r[2]), r[3], int(r[4]), r[5], r[6], r[7] > 0)
        for r in rows
    ]


def add(session: Session, job: Job, system: System, *, demo: bool = False) -> Project:
    """A new project holding this job."""
    row = ProjectRow(
        name=job.name or "Untitled",
        system=system,
        demo=demo,
        workshop=to_begin_with(session, job.unit),
        shop=shop_to_document(job.shop),
    )
    session.add(row)
    _write(row, job)
    session.flush()
    return load(session, row.pk)


def load(session: Session, pk: int) -> Project:
    row = _row(session, pk)
    undo = session.scalar(_edits(pk, undone=False).order_by(EditRow.pk.desc()).limit(1))
    redo = session.scalar(_edits(pk, undone=True).order_by(EditRow.pk).limit(1))
    return Project(
        pk,
        row.version,
        cast(System, row.system),
        _read(row),
        undo.label if undo else "",
        redo.label if redo else "",
        row.rack,
    )


def edit(
    session: Session, pk: int, version: int, change: Change, system: System | None = None
) -> Project:
    """Apply one change to the version it was made from; a Refusal or VersionConflict leaves
    everything as it was.
    """
    row = _row(session, pk, lock=True)
    _same(row, version)
    before, system_before = _read(row), row.system
    if system is not None:
        row.system = system
        change = replace(change, unit=unit_of(system))
    after = changed(before, change)
    session.execute(delete(EditRow).where(EditRow.project == pk, EditRow.undone))
    back, on = difference(job_to_document(before), job_to_document(after))
    session.add(
        EditRow(
            project=pk,
            label=change.label,
            before={"job": back, "system": system_before},
            after={"job": on, "system": row.system},
        )
    )
    _write(row, after)
    _touch(session, row)
    old = (
        select(EditRow.pk)
        .where(EditRow.project == pk)
        .order_by(EditRow.pk.desc())
        .offset(_EDITS_KEPT)
    )
    session.execute(delete(EditRow).where(EditRow.pk.in_(old)))
    return load(session, pk)


def undo(session: Session, pk: int, version: int) -> Project:
    """Take back the last edit that stands."""
    return _step(session, pk, version, undone=False, of=lambda e: e.before)


def redo(session: Session, pk: int, version: int) -> Project:
    """Make the edit again that was last taken back."""
    return _step(session, pk, version, undone=True, of=lambda e: e.after)


def remove(session: Session, pk: int, version: int) -> None:
    row = _row(session, pk, lock=True)
    _same(row, version)
    if row.rack:
        raise NotFoundError("the rack stays; take its boards off it one by one")
    session.delete(row)
    session.flush()
    # Pictures of boards that have moved elsewhere stay with them.
    shown = BoardRow.photos.contains(
        func.jsonb_build_array(func.jsonb_build_object("picture", PictureRow.pk))
    )
    nowhere = ~select(BoardRow.pk).where(shown).exists()
    orphans = delete(PictureRow).where(PictureRow.project.is_(None), nowhere)
    session.execute(orphans.execution_options(synchronize_session=False))


def _step(
    session: Session,
    pk: int,
    version: int,
    *,
    undone: bool,
    of: Callable[[EditRow], dict[str, Any]],
) -> Project:
    row = _row(session, pk, lock=True)
    _same(row, version)
    order = EditRow.pk if undone else EditRow.pk.desc()
    found = session.scalar(_edits(pk, undone=undone).order_by(order).limit(1))
    if found is None:
        raise NothingToUndo("there is nothing to redo" if undone else "there is nothing to undo")
    found.undone = not undone
    document = of(found)
    now = job_to_document(_read(row))
    row.system = document.get("system", row.system)
    _write(row, job_from_document(applied(now, document["job"])))
    _touch(session, row)
    return load(session, pk)


def _edits(pk: int, *, undone: bool) -> Any:
    return select(EditRow).where(EditRow.project == pk, EditRow.undone == undone)


def _row(session: Session, pk: int, *, lock: bool = False) -> ProjectRow:
    wanted = (
        select(ProjectRow)
        .where(ProjectRow.pk == pk)
        .options(
            selectinload(ProjectRow.parts),
            selectinload(ProjectRow.boards).selectinload(BoardRow.stations),
            selectinload(ProjectRow.boards).selectinload(BoardRow.defects),
        )
    )
    row = session.scalar(wanted.with_for_update(of=ProjectRow) if lock else wanted)
    if row is None:
        raise NotFoundError("there is no such project; it may have been removed")
    return row


def _same(row: ProjectRow, version: int) -> None:
    if row.version != version:
        raise VersionConflict(row.version)


def _touch(session: Session, row: ProjectRow) -> None:
    """Count the edit even where only children changed."""
    row.edited = func.now()
    session.flush()


def _read(row: ProjectRow) -> Job:
    system = next(s for s in SYSTEMS if s == row.system)
    return Job(
        row.name,
        shop_from_document(row.shop),
        tuple(part_from_document(p.document) for p in row.parts),
        tuple(read_board(b) for b in row.boards),
        unit_of(system),
        tuple(Measure(**m) for m in row.measures),
    )


def _write(row: ProjectRow, job: Job) -> None:
    row.name = job.name or row.name
    row.shop = shop_to_document(job.shop)
    row.measures = [asdict(m) for m in job.measures]
    have = {r.id: r for r in row.parts}
    row.parts = [_kept(have.get(p.id), p, i) for i, p in enumerate(job.parts)]
    row.boards = written(row.boards, job.boards)


def _kept(row: PartRow | None, part: Part, position: int) -> PartRow:
    """The row that holds this part already, brought up to date, or a fresh one."""
    row = row or PartRow()
    row.id, row.position, row.quantity = part.id, position, part.quantity
    row.document = part_to_document(part)
    return row
