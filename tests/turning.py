"""A scanned board lying otherwise: the same wood moved, turned end for end or turned over."""

from dataclasses import replace

from vividplank.core.board import Board, Region, Station, Surface

Rows = tuple[tuple[int, ...], ...]


def end_for_end(board: Board, region: Region) -> tuple[Board, Region]:
    """Turned by half a circle on the bench: x and y both run the other way."""
    assert board.surface
    s = board.surface

    def back(face: Rows) -> Rows:
        return tuple(tuple(reversed(row)) for row in reversed(face))

    surface = Surface(
        tuple(board.length - x for x in reversed(s.xs)),
        _negative(s.ys),
        back(s.lower),
        back(s.upper),
    )
    stations = tuple(
        Station(board.length - t.x, -t.y1, -t.y0, t.t1, t.t0) for t in reversed(board.stations)
    )
    line = region.line(region.x1)
    turned = Region(
        board.length - region.x1,
        board.length - region.x0,
        -line,
        region.slope,
        -region.h1,
        -region.h0,
    )
    return replace(board, stations=stations, surface=surface), turned


def turned_over(board: Board, region: Region) -> tuple[Board, Region]:
    """Face A down: y and z run the other way."""
    assert board.surface
    s = board.surface

    def under(face: Rows) -> Rows:
        return tuple(tuple(-z for z in reversed(row)) for row in face)

    surface = Surface(s.xs, _negative(s.ys), under(s.upper), under(s.lower))
    stations = tuple(Station(t.x, -t.y1, -t.y0, t.t1, t.t0) for t in board.stations)
    turned = Region(region.x0, region.x1, -region.y0, -region.slope, -region.h1, -region.h0)
    return replace(board, stations=stations, surface=surface), turned


def moved(board: Board, across: int, up: int) -> tuple[Board, int]:
    """Pushed across the bench and lifted off it."""
    assert board.surface
    s = board.surface

    def lifted(face: Rows) -> Rows:
        return tuple(tuple(z + up for z in row) for row in face)

    surface = Surface(s.xs, tuple(y + across for y in s.ys), lifted(s.lower), lifted(s.upper))
    stations = tuple(replace(t, y0=t.y0 + across, y1=t.y1 + across) for t in board.stations)
    return replace(board, stations=stations, surface=surface), across


def _negative(places: tuple[int, ...]) -> tuple[int, ...]:
    return tuple(-p for p in reversed(places))
