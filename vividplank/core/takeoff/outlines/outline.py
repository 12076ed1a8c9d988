"""What is drawn on a flat drawing: closed outlines, and words or dimensions beside them."""

from dataclasses import dataclass

from vividplank.core.takeoff.model.found import Point


@dataclass(frozen=True)
class Outline:
    """A closed outline in mm, y up as drawn, with what the file itself says of it."""

    ref: str
    points: tuple[Point, ...]
    layer: str = ""
    name: str = ""
    quantity: int = 1
    thickness: int = 0
    species: str = ""
    circle: bool = False


@dataclass(frozen=True)
class Written:
    """A written dimension between two points along `angle` (radians): `figure` ticks as written,
    `measured` mm.
    """

    a: Point
    b: Point
    angle: float
    figure: int
    measured: float
