"""A job: what is wanted, and what stock there is for it."""

from dataclasses import dataclass

from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.measure import Unit
from vividplank.core.shop import Shop


@dataclass(frozen=True)
class Job:
    name: str
    shop: Shop
    parts: tuple[Part, ...]
    boards: tuple[Board, ...]
    unit: Unit = "in"

    def part(self, id: str) -> Part:
        return next(p for p in self.parts if p.id == id)

    def board(self, id: str) -> Board:
        return next(b for b in self.boards if b.id == id)
