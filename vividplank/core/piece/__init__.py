"""A piece of wood as it is now, and the operations that make others of it."""

from vividplank.core.piece.field import Line, Plane
from vividplank.core.piece.piece import FACES, SIDES, Cut, Edge, Face, Piece, Side, piece_of_board

__all__ = [
    "FACES",
    "SIDES",
    "Cut",
    "Edge",
    "Face",
    "Line",
    "Piece",
    "Plane",
    "Side",
    "piece_of_board",
]
