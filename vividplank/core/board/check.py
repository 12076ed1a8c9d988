"""Whether a board's figures can be those of a board; each refusal is a sentence with its place."""

from itertools import pairwise

from vividplank.core.board import Board, Defect, Surface
from vividplank.core.refusal import Refusal, one_line, prose

#: Heights of a scanned surface, both faces together; more is no survey but a flood.
_MOST_HEIGHTS = 40_000


def check_board(board: Board, path: str) -> Board:
    """The board if its figures can be those of a board, or a Refusal."""
    for name in ("id", "species", "quarter", "grade"):
        one_line(getattr(board, name), f"{path}.{name}")
    prose(board.note, f"{path}.note")
    if board.length <= 0:
        raise Refusal(f"{path}.length", "expected more than nothing")
    _stations(board, path)
    for i, defect in enumerate(board.defects):
        _defect(board, defect, f"{path}.defects[{i}]")
    if board.surface:
        _surface(board, board.surface, f"{path}.surface")
    _moisture(board, path)
    for i, zone in enumerate(board.grain.zones):
        if zone.x1 <= zone.x0 or zone.y1 <= zone.y0:
            raise Refusal(
                f"{path}.grain.zones[{i}]", "has no area; expected x1 beyond x0 and y1 above y0"
            )
    if len(set(board.dressed)) < len(board.dressed):
        raise Refusal(f"{path}.dressed", "expected each face and edge once")
    return board


def _stations(board: Board, path: str) -> None:
    xs = [s.x for s in board.stations]
    if len(xs) < 2:
        raise Refusal(f"{path}.stations", "expected two stations or more")
    if xs[0] != 0:
        raise Refusal(f"{path}.stations[0].x", "the first station is not at 0; expected 0")
    if xs[-1] != board.length:
        raise Refusal(
            f"{path}.stations[{len(xs) - 1}].x", "expected the last station at the board's length"
        )
    counts = {len(s.between) for s in board.stations} - {0}
    for i, station in enumerate(board.stations):
        at = f"{path}.stations[{i}]"
        if i and station.x <= xs[i - 1]:
            raise Refusal(
                f"{at}.x", "expected stations in order along the board, each beyond the one before"
            )
        if station.y1 <= station.y0:
            raise Refusal(f"{at}.y1", "the edges cross; expected y1 above y0")
        if min(station.t0, station.t1) <= 0:
            raise Refusal(f"{at}.t0", "expected a thickness of more than nothing")
        if min(station.readings) <= 0:
            raise Refusal(f"{at}.between", "expected a thickness of more than nothing")
        if station.between and len(counts) > 1:
            raise Refusal(
                f"{at}.between",
                "expected as many readings between the edges at every station that has some",
            )


def _defect(board: Board, defect: Defect, at: str) -> None:
    if defect.x1 < defect.x0:
        raise Refusal(f"{at}.x1", "expected x1 not before x0")
    if defect.y1 < defect.y0:
        raise Refusal(f"{at}.y1", "expected y1 not below y0")
    if defect.shape != "outline":
        if defect.points:
            raise Refusal(
                f"{at}.points", f"belong to an outline; expected none on a shape '{defect.shape}'"
            )
        if defect.shape == "ellipse" and (defect.x1 == defect.x0 or defect.y1 == defect.y0):
            raise Refusal(
                f"{at}.shape", "is an ellipse without area; expected x1 beyond x0 and y1 above y0"
            )
        return
    if len(defect.points) < 3:
        raise Refusal(f"{at}.points", "expected three points or more for an outline")
    xs, ys = [x for x, _ in defect.points], [y for _, y in defect.points]
    if (min(xs), max(xs), min(ys), max(ys)) != (defect.x0, defect.x1, defect.y0, defect.y1):
        raise Refusal(
            f"{at}.x0", "expected the bounds x0, x1, y0, y1 to be those of the outline's points"
        )
    from shapely import Polygon

    if not Polygon(defect.points).is_valid:
        raise Refusal(
            f"{at}.points",
            "the outline crosses or touches itself; expected a line that goes round once",
        )


def outside(board: Board) -> list[int]:
    """Which defects lie wholly off the board: a slip where a person enters them, harmless in a
    file.
    """
    found = []
    for i, d in enumerate(board.defects):
        x0, x1 = max(d.x0, 0), min(d.x1, board.length)
        places = [x0, *(s.x for s in board.stations if x0 < s.x < x1), x1]
        off = x1 <= x0 or all(d.y1 <= low or d.y0 >= high for low, high in map(board.edges, places))
        if off:
            found.append(i)
    return found


def _surface(board: Board, surface: Surface, at: str) -> None:
    xs, ys = surface.xs, surface.ys
    for name, places in (("xs", xs), ("ys", ys)):
        if len(places) < 2 or any(b <= a for a, b in pairwise(places)):
            raise Refusal(f"{at}.{name}", "expected two places or more, each beyond the one before")
    if 2 * len(xs) * len(ys) > _MOST_HEIGHTS:
        raise Refusal(
            f"{at}.xs",
            f"has {2 * len(xs) * len(ys)} heights; expected at most {_MOST_HEIGHTS} in all",
        )
    for name, face in (("lower", surface.lower), ("upper", surface.upper)):
        if len(face) != len(xs) or any(len(row) != len(ys) for row in face):
            raise Refusal(
                f"{at}.{name}", "expected a row for each of xs with a height for each of ys"
            )
    if xs[0] > 0 or xs[-1] < board.length:
        raise Refusal(
            f"{at}.xs", "expected places from the datum end to the board's length or beyond"
        )
    if ys[0] > min(s.y0 for s in board.stations) or ys[-1] < max(s.y1 for s in board.stations):
        raise Refusal(f"{at}.ys", "expected places from the lowest edge to the highest or beyond")
    for i, (low, high) in enumerate(zip(surface.lower, surface.upper, strict=True)):
        if any(b <= a for a, b in zip(low, high, strict=True)):
            raise Refusal(
                f"{at}.upper[{i}]", "the faces cross; expected face A above face B everywhere"
            )
    warp = board.warp
    if warp.bow or warp.cup or warp.twist:
        raise Refusal(at, "says how the board is warped; expected no bow, cup or twist beside it")


def _moisture(board: Board, path: str) -> None:
    order = [m.day for m in board.moisture]
    if order != sorted(order) or len({(m.day, m.x, m.y) for m in board.moisture}) < len(order):
        raise Refusal(
            f"{path}.moisture",
            "expected readings in the order of their days, one for each place and day",
        )
    for i, reading in enumerate(board.moisture):
        at = f"{path}.moisture[{i}]"
        if not 0 < reading.percent <= 100:
            raise Refusal(f"{at}.percent", "expected more than 0 and at most 100 %")
        if (reading.x is None) != (reading.y is None):
            raise Refusal(f"{at}.x", "expected both x and y of the place, or neither")
        if reading.x is not None and not 0 <= reading.x <= board.length:
            raise Refusal(f"{at}.x", "lies off the board; expected a place on it")
