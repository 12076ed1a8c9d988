"""What is done to a piece: pure functions from a piece to the pieces it becomes.

Places are given in the axes of the piece that is taken, as in the route document. What is neither
given nor kerf has become waste; `volume` and `between` account for it.
"""

from collections.abc import Sequence
from dataclasses import replace
from math import ceil, floor

import numpy as np

from vividplank.core.board import Board, Defect, Station
from vividplank.core.piece.field import Line, Plane
from vividplank.core.piece.piece import Cut, Dressing, Edge, Face, Piece, Side

#: Where a piece that is not even is read as it becomes a board: along, and across.
_ALONG, _ACROSS = 9, 5


def crosscut(piece: Piece, mark: str, x0: float, x1: float) -> Piece:
    """What lies between two places along it."""
    return replace(piece, mark=mark, x0=piece.x0 + x0, x1=piece.x0 + x1)


def along(piece: Piece, y0: float, slope: float, start: float = 0.0) -> Line:
    """A line of the piece's axes in those of its board; y0 is its height at x = start."""
    whole = piece.datum.slope + slope
    at = piece.x0 + start
    return Line(piece.datum.at(at) + y0 - whole * at, whole)


def rip(
    piece: Piece,
    mark: str,
    low: Line | None = None,
    high: Line | None = None,
    edge: Edge = "straight",
) -> Piece:
    """What lies between two lines of its board; a side left out stays as it is.

    `edge` is how the saw leaves the sides it cuts: straight at a fence, rough along a drawn line.
    The piece's axes begin at the lower line.
    """
    found = replace(piece, mark=mark)
    if low is not None:
        found = replace(found, low=_inner(found.low, low, 1), datum=low, datum_edge=edge)
    if high is not None:
        found = replace(found, high=_inner(found.high, high, -1), far_edge=edge)
    return found


def _inner(lines: tuple[Line, ...], new: Line, side: int) -> tuple[Line, ...]:
    """The lines that still bound it: of parallel ones the inner, the higher (side 1) or the lower
    (−1).
    """
    same = [line for line in lines if abs(line.slope - new.slope) < 1e-12]
    rest = tuple(line for line in lines if line not in same)
    return (*rest, max([*same, new], key=lambda line: side * line.y0))


def joint_edge(piece: Piece, side: Side, line: Line) -> Piece:
    """An edge made straight along a line of its board."""
    found = (
        rip(piece, piece.mark, low=line)
        if side == "datum-edge"
        else rip(piece, piece.mark, high=line)
    )
    return found.with_edge(side, "straight")


def flatten(piece: Piece, face: Face, plane: Plane) -> Piece:
    """A face cut to a plane; it is the reference from now on."""
    cut = replace(piece, cuts=(*piece.cuts, Cut(face, plane)), reference=face)
    return cut.with_face(face, Dressing("flat", plane))


def plane(piece: Piece, face: Face, setting: float) -> Piece:
    """A face cut parallel to the other, flat one, `setting` away from it."""
    other: Face = "B" if face == "A" else "A"
    lies = piece.face(other).plane
    if lies is None:
        raise ValueError(f"face {other} of {piece.mark} is not flat; expected it on the bed")
    to = lies.raised(setting if face == "A" else -setting)
    cut = replace(piece, cuts=(*piece.cuts, Cut(face, to)))
    return cut.with_face(face, Dressing("flat", to))


def skim(piece: Piece, face: Face, setting: float) -> Piece:
    """A face made smooth, even in thickness along whatever bend it has."""
    cut = replace(piece, cuts=(*piece.cuts, Cut(face, distance=setting)))
    return cut.with_face(face, Dressing("skimmed"))


def resaw(piece: Piece, mark: str, z0: float, z1: float) -> Piece:
    """A layer between two heights over the reference face, measured into the wood. What was flat
    is to be checked: freshly sawn wood moves.
    """
    face: Face = piece.reference or "B"
    base = piece.face(face).plane
    if base is None:
        raise ValueError(f"face {face} of {piece.mark} is not flat; expected it at the fence")
    other: Face = "A" if face == "B" else "B"
    into = 1.0 if face == "B" else -1.0
    cuts = list(piece.cuts)
    found = replace(piece, mark=mark)
    for side, height in ((face, z0), (other, z1)):
        to = base.raised(into * height)
        outer = height == 0 if side == face else height >= piece.thick
        if outer:
            was = piece.face(side)
            state = "to check" if was.flat else was.state
            found = found.with_face(side, replace(was, state=state))
        else:
            cuts.append(Cut(side, to))
            found = found.with_face(side, Dressing("to check", to))
    return replace(found, cuts=tuple(cuts))


def rest(piece: Piece) -> Piece:
    """Wood that has rested may have moved: what was flat is to be checked."""
    for face in ("A", "B"):
        was = piece.face(face)
        if was.flat:
            piece = piece.with_face(face, replace(was, state="to check"))
    return piece


def check(piece: Piece, face: Face) -> Piece:
    """A face found flat under a straightedge."""
    return replace(piece.with_face(face, replace(piece.face(face), state="flat")), reference=face)


def as_board(piece: Piece) -> Board:
    """A piece as a board of its own for the rack, lying on a face that is sawn or cut flat; a piece
    of which face A alone is flat is turned over, so that it lies on it as face B.
    """
    if piece.face_a.flat and not piece.face_b.flat:
        return _turned(_as_it_lies(piece))
    return _as_it_lies(piece)


def _as_it_lies(piece: Piece) -> Board:
    box = piece.box
    line = piece.datum.over
    xs = piece.breaks
    if not (piece.face_a.flat and piece.face_b.flat):
        xs = np.unique(np.round(np.concatenate([xs, np.linspace(piece.x0, piece.x1, _ALONG)])))
        xs = np.clip(xs, piece.x0, piece.x1)
    low, high = (side - line(xs) - box.h0 for side in piece.sides(xs))
    stations: list[Station] = []
    for x, y0, y1 in zip(xs, low, high, strict=True):
        ys = np.array([[piece.datum.at(x) + box.h0 + y for y in np.linspace(y0, y1, _ACROSS)]])
        lower, upper = piece.faces(np.full_like(ys, x), ys)
        read = [max(1, floor(float(t) + 0.5)) for t in (upper - lower)[0]]
        edges = ceil(y0), max(floor(y1), ceil(y0) + 1)
        at = round(float(x - piece.x0))
        between = tuple(read[1:-1]) if len(set(read)) > 1 else ()
        if not stations or at > stations[-1].x:
            stations.append(Station(at, *edges, read[0], read[-1], between))
    down = piece.datum.at(piece.x0) + box.h0
    faults = tuple(
        replace(
            d,
            x0=max(0, round(d.x0 - piece.x0)),
            x1=min(piece.length, round(d.x1 - piece.x0)),
            y0=round(d.y0 - down),
            y1=round(d.y1 - down),
        )
        for d in piece.faults
    )
    return Board(
        piece.mark,
        piece.board.species,
        piece.length,
        tuple(stations),
        defects=faults,
        moisture=piece.board.moisture[-1:],
        grain=replace(piece.board.grain, zones=()),
    )


def _turned(board: Board) -> Board:
    """The board rolled over along its length: face A is face B, and its edges change places."""
    wide = max(s.y1 for s in board.stations)
    other: dict[str, Face] = {"A": "B", "B": "A"}
    return replace(
        board,
        stations=tuple(
            Station(s.x, wide - s.y1, wide - s.y0, s.t1, s.t0, s.between[::-1])
            for s in board.stations
        ),
        defects=tuple(
            replace(d, y0=wide - d.y1, y1=wide - d.y0, face=other.get(d.face, d.face))
            for d in board.defects
        ),
        grain=replace(
            board.grain, datum_edge=board.grain.far_edge, far_edge=board.grain.datum_edge
        ),
    )


def glue(pieces: Sequence[Piece], mark: str, across: str) -> Piece:
    """Pieces glued side by side ("width", in the order they lie) or face to face ("thickness", the
    first at the bottom): a body of its own, as long as the shortest of them.
    """
    length = min(p.length for p in pieces)
    wide = across == "width"
    width = sum(p.width for p in pieces) if wide else min(p.width for p in pieces)
    thick = max(p.thick for p in pieces) if wide else sum(p.thick for p in pieces)
    faults: list[Defect] = []
    at = 0
    for p in pieces:
        down = p.datum.at(p.x0)
        for d in p.faults:
            box = replace(
                d,
                x0=max(0, round(d.x0 - p.x0)),
                x1=min(length, round(d.x1 - p.x0)),
                y0=max(0, round(d.y0 - down)) + at,
                y1=min(p.width, round(d.y1 - down)) + at,
            )
            if box.x1 > box.x0 and box.y1 > box.y0:
                faults.append(box)
        at += p.width if wide else 0
    ends = tuple(Station(x, 0, width, thick, thick) for x in (0, length))
    board = Board(mark, pieces[0].board.species, length, ends, defects=tuple(faults))
    flat_b = all(p.face_b.flat for p in pieces) if wide else pieces[0].face_b.flat
    flat_a = all(p.face_a.flat for p in pieces) if wide else pieces[-1].face_a.flat
    # Layers are glued with their datum edges flush.
    straight = wide or all(p.datum_edge == "straight" for p in pieces)
    flush = straight and all(p.far_edge == "straight" and p.width == width for p in pieces)
    return Piece(
        mark,
        board,
        0.0,
        float(length),
        face_a=Dressing("flat", Plane(0, 0, thick)) if flat_a else Dressing("skimmed"),
        face_b=Dressing("flat", Plane(0, 0, 0)) if flat_b else Dressing("skimmed"),
        datum_edge=pieces[0].datum_edge if wide else "straight" if straight else "rough",
        far_edge=pieces[-1].far_edge if wide else "straight" if flush else "rough",
        reference="B" if flat_b and straight else "A" if flat_a else "B" if flat_b else "",
    )
