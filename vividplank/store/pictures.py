"""Photographs of board faces, and the straightened pictures made of them."""

from dataclasses import dataclass

from sqlalchemy.orm import Session, undefer

from vividplank.core.board import Board
from vividplank.core.board.photo import Corner, straightened
from vividplank.store.errors import NotThere
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


def straighten(session: Session, pk: int, corners: tuple[Corner, ...], board: Board, face: str) -> Picture:
    """Straighten the photograph by these corners; NoPhoto, and nothing changed, where they cannot be."""
    row = _row(session, pk)
    row.straight = straightened(row.photograph, corners, board, face)
    row.corners = [list(c) for c in corners]
    session.flush()
    return _picture(row)


def _row(session: Session, pk: int) -> PictureRow:
    row = session.get(PictureRow, pk, options=[undefer(PictureRow.photograph), undefer(PictureRow.straight)])
    if row is None:
        raise NotThere("there is no such photograph; it may have been taken off its board")
    return row


def _picture(row: PictureRow) -> Picture:
    return Picture(row.pk, row.photograph, row.straight, tuple((x, y) for x, y in row.corners or ()))
