"""A job: what is wanted, and what stock there is for it."""

from dataclasses import dataclass, replace

from vividplank.core.board import Board
from vividplank.core.cutlist import GluedUp, Measure, Part
from vividplank.core.measure import Unit
from vividplank.core.shop import Shop


@dataclass(frozen=True)
class Job:
    name: str
    shop: Shop
    parts: tuple[Part, ...]
    boards: tuple[Board, ...]
    unit: Unit = "in"
    measures: tuple[Measure, ...] = ()

    def part(self, id: str) -> Part:
        return next(p for p in self.parts if p.id == id)

    def board(self, id: str) -> Board:
        return next(b for b in self.boards if b.id == id)

    def on_boards(self) -> "Job":
        """What is cut from boards: without sheet parts and bought ones, and layers as the thin
        parts they are glued from.
        """
        parts = tuple(
            p
            if p.layers == 1
            else replace(
                p,
                quantity=p.quantity * p.layers,
                thickness=-(-p.thickness // p.layers),
                layers=1,
                glued_up=GluedUp(p.layers, p.thickness),
            )
            for p in self.parts
            if p.stock == "board"
        )
        return replace(self, parts=parts)
