"""A board as it stands in a job file, and back."""

from collections.abc import Iterable
from dataclasses import replace
from decimal import Decimal
from typing import Any

from vividplank.core.board import Board, Defect, Grain, Station, Surface, Warp, Zone
from vividplank.core.board.check import check_board
from vividplank.core.exchange.job_shape import (
    DefectShape,
    GrainShape,
    PlainBoardShape,
    SurfaceShape,
)
from vividplank.core.measure import Unit, from_number, to_number
from vividplank.core.refusal import Refusal
from vividplank.core.timber.rest import Moisture


def version_of(board: Board) -> int:
    """The version a file must have to say all of the board's survey."""
    plain = Board(
        board.id,
        board.species,
        board.length,
        tuple(Station(s.x, s.y0, s.y1, s.t0, s.t1) for s in board.stations),
        board.warp,
        tuple(Defect(d.kind, d.face, d.x0, d.x1, d.y0, d.y1) for d in board.defects),
        board.price,
    )
    return 1 if replace(board, photos=()) == plain else 2


def read_board(shape: PlainBoardShape, unit: Unit, path: str) -> Board:
    """The board, or a Refusal where its figures cannot be those of a board."""

    def ticks(value: float) -> int:
        return from_number(value, unit)

    def place(value: float | None) -> int | None:
        return None if value is None else ticks(value)

    return check_board(
        Board(
            shape.id,
            shape.species,
            ticks(shape.length),
            tuple(
                Station(
                    ticks(s.x),
                    ticks(s.y0),
                    ticks(s.y1),
                    ticks(s.t0),
                    ticks(s.t1),
                    tuple(map(ticks, s.between)),
                )
                for s in shape.stations
            ),
            Warp(ticks(shape.warp.bow), ticks(shape.warp.cup), ticks(shape.warp.twist)),
            tuple(read_defect(d, unit) for d in shape.defects),
            Decimal(str(shape.price)),
            shape.quarter,
            shape.note,
            tuple(Moisture(m.percent, m.day, place(m.x), place(m.y)) for m in shape.moisture),
            _surface(shape.surface, unit, f"{path}.surface") if shape.surface else None,
            _grain(shape.grain, unit) if shape.grain else Grain(),
            tuple(shape.dressed),
            shape.grade,
            shape.searched,
            came_from=shape.from_ or "",
            supplier=shape.supplier,
        ),
        path,
    )


def board_document(board: Board, unit: Unit, version: int) -> dict[str, Any]:
    """The board as a file of this version holds it; what is as usual is left out of version 2."""

    def num(ticks: int) -> float | int:
        return to_number(ticks, unit)

    def numbers(row: Iterable[int]) -> list[float | int]:
        return [num(t) for t in row]

    old: dict[str, Any] = {
        "id": board.id,
        "species": board.species,
        "length": num(board.length),
        "price": money(board.price),
        "stations": [
            {k: num(getattr(s, k)) for k in ("x", "y0", "y1", "t0", "t1")}
            | ({"between": numbers(s.between)} if s.between else {})
            for s in board.stations
        ],
        "warp": {k: num(getattr(board.warp, k)) for k in ("bow", "cup", "twist")},
        "defects": [
            {"kind": d.kind, "face": d.face}
            | {k: num(getattr(d, k)) for k in ("x0", "x1", "y0", "y1")}
            | ({"shape": d.shape} if d.shape != "rectangle" else {})
            | ({"points": [numbers(p) for p in d.points]} if d.points else {})
            | ({"severity": d.severity} if d.severity != "plain" else {})
            for d in board.defects
        ],
    }
    if version == 1:
        return old
    grain, surface = board.grain, board.surface
    new: dict[str, Any] = {
        "surface": surface
        and {
            "xs": numbers(surface.xs),
            "ys": numbers(surface.ys),
            "lower": [numbers(row) for row in surface.lower],
            "upper": [numbers(row) for row in surface.upper],
        },
        "grain": grain != Grain()
        and {k: v for k, v in vars(grain).items() if k != "zones" and v not in (None, "")}
        | {
            "zones": [
                {"figure": z.figure} | {k: num(getattr(z, k)) for k in ("x0", "x1", "y0", "y1")}
                for z in grain.zones
            ]
        },
        "dressed": list(board.dressed),
        "moisture": [
            {"percent": m.percent, "day": m.day}
            | {k: num(v) for k, v in (("x", m.x), ("y", m.y)) if v is not None}
            for m in board.moisture
        ],
        "grade": board.grade,
        "searched": board.searched,
        "supplier": board.supplier,
        "quarter": board.quarter,
        "note": board.note,
        "from": board.came_from,
    }
    return old | {name: value for name, value in new.items() if value}


def money(amount: Decimal) -> float | int:
    return int(amount) if amount == int(amount) else float(amount)


def read_defect(d: DefectShape, unit: Unit) -> Defect:
    x0, x1, y0, y1 = (from_number(v, unit) for v in (d.x0, d.x1, d.y0, d.y1))
    points = tuple((from_number(x, unit), from_number(y, unit)) for x, y in d.points)
    return Defect(d.kind, d.face, x0, x1, y0, y1, d.shape, points, d.severity)


def _surface(shape: SurfaceShape, unit: Unit, path: str) -> Surface:
    def row(values: list[float]) -> tuple[int, ...]:
        return tuple(from_number(v, unit) for v in values)

    for name, wanted in (("lower", shape.lower), ("upper", shape.upper)):
        if len(wanted) != len(shape.xs):
            raise Refusal(
                f"{path}.{name}",
                f"has {len(wanted)} rows; expected one for each of {len(shape.xs)} xs",
            )
        for i, heights in enumerate(wanted):
            if len(heights) != len(shape.ys):
                raise Refusal(
                    f"{path}.{name}[{i}]",
                    f"has {len(heights)} heights; expected one for each of {len(shape.ys)} ys",
                )
    return Surface(
        row(shape.xs), row(shape.ys), tuple(map(row, shape.lower)), tuple(map(row, shape.upper))
    )


def _grain(shape: GrainShape, unit: Unit) -> Grain:
    def ticks(value: float) -> int:
        return from_number(value, unit)

    zones = tuple(
        Zone(z.figure, ticks(z.x0), ticks(z.x1), ticks(z.y0), ticks(z.y1)) for z in shape.zones
    )
    return Grain(shape.datum_edge, shape.far_edge, shape.across, shape.rings, shape.heart, zones)
