"""Boards over the wire, and what a look at one tells. Lengths in ticks."""

from typing import Literal

from vividplank.core.board import Board, Warp
from vividplank.core.fields import Ticks
from vividplank.web.shapes import Body


class AskLook(Body):
    board: Board


class PieceBody(Body):
    """A length of the board laid flat: its slab lies between z = a·x + b·y + c and that plus
    `flat`.
    """

    x0: Ticks
    x1: Ticks
    flat: Ticks
    takes_below: Ticks
    takes_above: Ticks
    a: float
    b: float
    c: float


class CutBody(Body):
    name: Literal["whole", "halved", "in thirds"]
    flat: Ticks
    pieces: list[PieceBody]


class LookBody(Body):
    """What a board is and will yield. Board feet by the tape and by the ticket's rule; `causes`
    tells why it yields less.

    `warp` is that of its figures, or what comes nearest to its scanned underside; `outside` are
    faults wholly off the board.
    """

    quarter: str
    board_feet: float
    ticket_feet: float
    weight_kg: float | None
    alone: bool
    cuts: list[CutBody]
    advice: str
    causes: str
    sawn: str
    warp: Warp
    feed: list[str]
    outside: list[int]
