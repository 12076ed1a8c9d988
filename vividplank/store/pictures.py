"""Photographs of board faces, and the straightened pictures made of them."""

from dataclasses import dataclass

from sqlalchemy.orm import Session, undefer

from vividplank.core.survey.photo import Corner
from vividplank.store.errors import NotFoundError
from vividplank.store.models import PictureRow


@dataclass(frozen=True)
class Picture:
    pk: int
    photograph: bytes
    straight: bytes | None
    corners: tuple[Corner, ...]


def add(session: Session, project: int, photograph: bytes) -> Picture:
    row = PictureRow(project=project, photograph=photograph)
    session.add(row)
    session.flush()
    return _picture(row)


def load(session: Session, pk: int) -> Picture:
    return _picture(_row(session, pk))


def keep_straight(
    session: Session, pk: int, corners: tuple[Corner, ...], straight: bytes
) -> Picture:
    """Keep what straightening by these corners gave."""
    row = _row(session, pk)
    row.straight = straight
    row.corners = [list(c) for c in corners]
    session.flush()
    return _picture(row)


def _row(session: Session, pk: int) -> PictureRow:
    row = session.get(
        PictureRow, pk, options=[undefer(PictureRow.photograph), undefer(PictureRow.straight)]
    )
    if row is None:
        raise NotFoundError("there is no such photograph; it may have been taken off its board")
    return row


def _picture(row: PictureRow) -> Picture:
    return Picture(
        row.pk, row.photograph, row.straight, tuple((x, y) for x, y in row.corners or ())
    )
