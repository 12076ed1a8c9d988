"""A piece of wood in the hand: where it lies in its board, what has been cut of it, how true it is.

A piece keeps the whole board it came out of and says which of it is still there: between `x0` and
`x1`, above every line of `low`, below every line of `high` and within the board's own outline; and
what cutters have left of its faces, as `cuts` in the order they were made. So a piece cut out of a
piece is what it would be cut out of the board at once, and nothing is fitted or rounded on the way.

Axes: `x` along the grain from the datum end, `y` across from the line `datum`, `z` from face B to
face A. Lengths in ticks.
"""

from dataclasses import dataclass, replace
from functools import cached_property
from itertools import combinations, pairwise
from math import ceil, floor
from typing import Literal

import numpy as np

from vividplank.core.board import Board, Defect, Region, Slab, Warp, flat_slab
from vividplank.core.piece.field import Floats, Line, Plane, edges, heights, kinks_across

Face = Literal["A", "B"]
Side = Literal["datum-edge", "far-edge"]
FACES: tuple[Face, ...] = ("A", "B")
SIDES: tuple[Side, ...] = ("datum-edge", "far-edge")
#: "to check": it was flat, and has been resawn or has rested since.
State = Literal["rough", "skimmed", "flat", "to check"]
Edge = Literal["rough", "straight"]
#: A piece is looked at over so many places along and across, beside the ends of its lines.
_ALONG, _ACROSS = 33, 9
#: Ticks a line may be off another and still be the same one.
_SAME = 1e-6


@dataclass(frozen=True)
class Cut:
    """What a cutter left of a face: nothing beyond a plane, or beyond a distance from the other
    face.
    """

    face: Face
    plane: Plane | None = None
    distance: float = 0.0


@dataclass(frozen=True)
class Dressing:
    """How true a face is; `plane` is where it lies when it is, or was, flat."""

    state: State = "rough"
    plane: Plane | None = None

    @property
    def flat(self) -> bool:
        return self.state == "flat"


ROUGH = Dressing()
#: The axis of a board itself.
LEVEL = Line(0.0)


@dataclass(frozen=True)
class Piece:
    """One physical piece under its mark. `reference` is the face that goes down and to the fence,
    empty while there is none.
    """

    mark: str
    board: Board
    x0: float
    x1: float
    datum: Line = LEVEL
    low: tuple[Line, ...] = ()
    high: tuple[Line, ...] = ()
    cuts: tuple[Cut, ...] = ()
    face_a: Dressing = ROUGH
    face_b: Dressing = ROUGH
    datum_edge: Edge = "rough"
    far_edge: Edge = "rough"
    reference: Face | Literal[""] = ""

    def face(self, face: Face) -> Dressing:
        return self.face_a if face == "A" else self.face_b

    def edge(self, side: Side) -> Edge:
        return self.datum_edge if side == "datum-edge" else self.far_edge

    def with_face(self, face: Face, dressing: Dressing) -> "Piece":
        return replace(self, face_a=dressing) if face == "A" else replace(self, face_b=dressing)

    def with_edge(self, side: Side, edge: Edge) -> "Piece":
        return (
            replace(self, datum_edge=edge) if side == "datum-edge" else replace(self, far_edge=edge)
        )

    def sides(self, xs: Floats) -> tuple[Floats, Floats]:
        """From where to where it reaches across at these x of its board."""
        low, high = edges(self.board, xs)
        for line in self.low:
            low = np.maximum(low, line.over(xs))
        for line in self.high:
            high = np.minimum(high, line.over(xs))
        return low, high

    @cached_property
    def breaks(self) -> Floats:
        """Where along the board its sides may turn: its ends, stations, and where lines meet."""
        found = {self.x0, self.x1, *(float(s.x) for s in self.board.stations)}
        stations = self.board.stations
        for lines, edge in ((self.low, "y0"), (self.high, "y1")):
            for one, two in combinations(lines, 2):
                if one.slope != two.slope:
                    found.add((two.y0 - one.y0) / (one.slope - two.slope))
            for line in lines:
                for a, b in pairwise(stations):
                    here, there = getattr(a, edge) - line.at(a.x), getattr(b, edge) - line.at(b.x)
                    if here * there < 0:
                        found.add(a.x + (b.x - a.x) * here / (here - there))
        return np.array(sorted(x for x in found if self.x0 <= x <= self.x1))

    @cached_property
    def places(self) -> tuple[Floats, Floats]:
        """A grid over the piece, and where its faces may have an edge: x and y of its board, along
        × across.
        """
        read = np.array(self.board.surface.xs if self.board.surface else (), float)
        read = read[(read > self.x0) & (read < self.x1)]
        xs = np.unique(np.concatenate([np.linspace(self.x0, self.x1, _ALONG), self.breaks, read]))
        low, high = self.sides(xs)
        high = np.maximum(high, low)
        share = np.linspace(0.0, 1.0, _ACROSS)
        even = low[:, None] + (high - low)[:, None] * share
        kinks = np.clip(kinks_across(self.board, xs), low[:, None], high[:, None])
        ys = np.sort(np.concatenate([even, kinks], axis=1), axis=1)
        return np.broadcast_to(xs[:, None], ys.shape).copy(), ys

    def faces(self, xs: Floats, ys: Floats) -> tuple[Floats, Floats]:
        """Heights of faces B and A at places of its board, as the cutters have left them."""
        lower, upper = heights(self.board, xs, ys)
        for cut in self.cuts:
            if cut.face == "B":
                to = cut.plane.over(xs, ys) if cut.plane else upper - cut.distance
                lower = np.maximum(lower, to)
            else:
                to = cut.plane.over(xs, ys) if cut.plane else lower + cut.distance
                upper = np.minimum(upper, to)
        return lower, upper

    @cached_property
    def _thicknesses(self) -> Floats:
        lower, upper = self.faces(*self.places)
        return upper - lower

    @cached_property
    def thick(self) -> int:
        """At its thickest place."""
        return round(float(self._thicknesses.max()))

    @cached_property
    def thin(self) -> int:
        return floor(float(self._thicknesses.min()) + _SAME)

    @property
    def length(self) -> int:
        return round(self.x1 - self.x0)

    @cached_property
    def width(self) -> int:
        """The most it measures across anywhere."""
        low, high = self.sides(self.breaks)
        return round(float((high - low).max()))

    @property
    def size(self) -> tuple[int, int, int]:
        return self.length, self.width, self.thick

    @cached_property
    def box(self) -> Region:
        """The narrowest region along its datum that holds it, in the axes of its board."""
        low, high = self.sides(self.breaks)
        line = self.datum.over(self.breaks)
        return Region(
            round(self.x0),
            round(self.x1),
            self.datum.at(self.x0),
            self.datum.slope,
            floor(float((low - line).min()) + _SAME),
            ceil(float((high - line).max()) - _SAME),
        )

    def inset(self, side: Side) -> float:
        """How far, at the most, its own edge strays from the straight line round it."""
        low, high = self.sides(self.breaks)
        line = self.datum.over(self.breaks)
        stray = low - line if side == "datum-edge" else line - high
        return float(stray.max() - stray.min())

    @cached_property
    def slab(self) -> Slab:
        """h(R): the thickest flat slab of its board in it."""
        return flat_slab(self.board, self.box)

    @cached_property
    def faults(self) -> tuple[Defect, ...]:
        """Faults of its board of which something is still in it."""
        return tuple(d for d in self.board.boxed if d.overlaps(self.box))

    def z(self, plane: Plane) -> Plane:
        """A plane in the axes of the piece."""
        at = self.datum.at(self.x0)
        return Plane(
            plane.a + plane.b * self.datum.slope,
            plane.b,
            plane.c + plane.a * self.x0 + plane.b * at,
        )


def piece_of_board(board: Board) -> Piece:
    """A board as it was bought, or left over: a dressed face is flat where nobody found it bent;
    face A only where the board is even as well.
    """
    bent = board.warp != Warp() or board.surface is not None
    flat = {"B": not bent, "A": not bent and board.even}
    piece = Piece(board.id, board, 0.0, float(board.length))
    for face in FACES:
        if face in board.dressed:
            plane = Plane(0.0, 0.0, float(board.thickest if face == "A" else 0))
            lies = Dressing("flat", plane) if flat[face] else Dressing("skimmed")
            piece = piece.with_face(face, lies)
    sides: tuple[tuple[Side, str], ...] = (("datum-edge", "y0"), ("far-edge", "y1"))
    for side, name in sides:
        if side in board.dressed and _straight(board, name):
            piece = piece.with_edge(side, "straight")
    if flat["B"] and "B" in board.dressed:
        piece = replace(piece, reference="B")
    elif flat["A"] and "A" in board.dressed:
        piece = replace(piece, reference="A")
    return piece


def _straight(board: Board, edge: str) -> bool:
    xs = [s.x for s in board.stations]
    ys = [getattr(s, edge) for s in board.stations]
    return bool(np.abs(np.interp(xs, xs[:: len(xs) - 1], ys[:: len(ys) - 1]) - ys).max() < 1)
