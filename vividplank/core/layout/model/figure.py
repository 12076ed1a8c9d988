"""Figure that is wished for: how far a place on a board shows it. A wish costs no money and leaves
no part out.
"""

from collections.abc import Sequence
from functools import cached_property

from vividplank.core.board import Board, Region
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.pattern import CuttingPattern
from vividplank.core.layout.model.plan import Plan

#: How much more an item type is worth where all of it shows its figure, and less where nothing
#: does.
_LIKED = 0.03


def share_shown(board: Board, figure: str, region: Region) -> float:
    """How much of a place lies in zones of the figure, from 0 to 1."""
    return min(1.0, sum(z.share_of(region) for z in board.grain.zones if z.figure == figure))


class FigurePreference:
    """What the wants of one board would like to show on it. Where no zone is noted, everything is
    liked alike.
    """

    def __init__(self, board: Board, item_types: Sequence[ItemType]) -> None:
        self.board = board
        self.item_types = item_types
        self.figures = {w.index: w.figure for w in item_types if w.figure}

    @cached_property
    def matters(self) -> bool:
        """Whether it is worth looking for another order on this board: it has a figure noted that
        is wished for.
        """
        return any(z.figure in self.figures.values() for z in self.board.grain.zones)

    def factor(self, item_type: int, region: Region) -> float:
        """What an item type is worth there, of what it is worth at all."""
        figure = self.figures.get(item_type)
        return 1.0 + _LIKED * (2 * share_shown(self.board, figure, region) - 1) if figure else 1.0

    def along(self, item_type: ItemType, x0: int) -> float:
        """The same for a piece that begins at x0, wherever it lies across the board."""
        low, high = min(s.y0 for s in self.board.stations), max(s.y1 for s in self.board.stations)
        return self.factor(
            item_type.index, Region(x0, x0 + item_type.length, low, 0.0, 0, high - low)
        )

    def shown(self, pattern: CuttingPattern) -> float:
        """Volume that shows what it is to show, of a board that is cut so."""
        total = 0.0
        for s in pattern.segments if self.matters else ():
            for strip in s.strips:
                for b in strip.blanks:
                    region = Region(
                        b.x0, b.x1, s.y0 + s.slope * (b.x0 - s.x0), s.slope, strip.y0, strip.y1
                    )
                    for item_type in (
                        self.item_types[i] for layer in b.layers for i in layer if i in self.figures
                    ):
                        volume = item_type.volume * (
                            (strip.y1 - strip.y0) / item_type.width if item_type.is_panel else 1.0
                        )
                        total += volume * share_shown(self.board, item_type.figure, region)
        return total


def shown_in(job: Job, plan: Plan) -> dict[str, float]:
    """For every part that is to show a figure, how much of what is placed of it does, from 0 to 1;
    by the parts' ids.
    """
    found: dict[str, list[float]] = {}
    for board, segment, strip, blank, item in plan.items():
        figure = job.part(item.part).figure
        if figure:
            found.setdefault(item.part, []).append(
                share_shown(job.board(board.board), figure, segment.blank_region(strip, blank))
            )
    return {part: sum(shares) / len(shares) for part, shares in found.items()}
