"""Boards as rows and back."""

from collections.abc import Iterable
from dataclasses import asdict
from typing import Any, cast

from vividplank.core.board import Board, Defect, Station, Warp
from vividplank.core.document import board_from_document
from vividplank.store.models import BoardRow, DefectRow, StationRow


def read_board(r: BoardRow) -> Board:
    return board_from_document(
        {
            "id": r.id,
            "species": r.species,
            "length": r.length,
            "stations": [
                {"x": s.x, "y0": s.y0, "y1": s.y1, "t0": s.t0, "t1": s.t1, "between": s.between}
                for s in r.stations
            ],
            "warp": asdict(Warp(r.bow, r.cup, r.twist)),
            "defects": [_defect(d) for d in r.defects],
            "price": r.price.normalize() + 0,
            "quarter": r.quarter,
            "note": r.note,
            "moisture": r.moisture,
            "surface": r.surface,
            "grain": r.grain,
            "dressed": r.dressed,
            "grade": r.grade,
            "searched": r.searched,
            "supplier": r.supplier,
            "photos": r.photos,
            "came_from": r.came_from,
        }
    )


def written(rows: Iterable[BoardRow], boards: Iterable[Board]) -> list[BoardRow]:
    """The rows of these boards in order; a board that has not changed keeps its row as it is."""
    there = {b.id: (r, b) for r in rows for b in [read_board(r)]}
    found = []
    for position, board in enumerate(boards):
        old = there.get(board.id)
        kept = old[0] if old else BoardRow()
        if old is None or old[1] != board:
            for name, value in _columns(board).items():
                setattr(kept, name, value)
            kept.stations = [_station_row(s) for s in board.stations]
            kept.defects = [_defect_row(k, d) for k, d in enumerate(board.defects)]
        kept.position = position
        found.append(kept)
    return found


def _columns(b: Board) -> dict[str, Any]:
    return {
        "id": b.id,
        "species": b.species,
        "length": b.length,
        "price": b.price,
        "quarter": b.quarter,
        "note": b.note,
        "bow": b.warp.bow,
        "cup": b.warp.cup,
        "twist": b.warp.twist,
        "moisture": [asdict(m) for m in b.moisture],
        "surface": b.surface and asdict(b.surface),
        "grain": asdict(b.grain),
        "dressed": list(b.dressed),
        "grade": b.grade,
        "searched": b.searched,
        "supplier": b.supplier,
        "photos": [asdict(p) for p in b.photos],
        "came_from": b.came_from,
    }


def _station_row(s: Station) -> StationRow:
    return StationRow(x=s.x, y0=s.y0, y1=s.y1, t0=s.t0, t1=s.t1, between=list(s.between))


def _defect_row(position: int, d: Defect) -> DefectRow:
    return DefectRow(
        position=position,
        kind=d.kind,
        face=d.face,
        x0=d.x0,
        x1=d.x1,
        y0=d.y0,
        y1=d.y1,
        shape=d.shape,
        points=[list(p) for p in d.points],
        severity=d.severity,
    )


def _defect(d: DefectRow) -> dict[str, Any]:
    return {
        "kind": d.kind,
        "face": cast(Any, d.face),
        "x0": d.x0,
        "x1": d.x1,
        "y0": d.y0,
        "y1": d.y1,
        "shape": d.shape,
        "points": d.points,
        "severity": d.severity,
    }
