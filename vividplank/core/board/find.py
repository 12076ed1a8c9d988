"""Where in a board a piece of a wanted size and quality would come out."""

from functools import lru_cache

from vividplank.core.board.board import Board
from vividplank.core.board.clear import Area, Quality, clear_areas
from vividplank.core.board.defect import Region
from vividplank.core.board.flat.slab import flat_slab

#: A clear area longer than the piece is tried at so many places along it.
_TRIED = 7


def holds(
    board: Board, thickness: int, length: int, width: int, quality: Quality = "clear-one"
) -> Area | None:
    """A clear rectangle of this length and width in which a flat board so thick lies, or None."""
    for area in clear_areas(board, quality, 4, max(length, 1), max(width, 1)):
        spare_x, spare_y = area.x1 - area.x0 - length, area.y1 - area.y0 - width
        for k in range(_TRIED):
            for across in (0, 1) if spare_y else (0,):
                x0, y0 = area.x0 + spare_x * k // (_TRIED - 1), area.y0 + spare_y * across
                region = Region(x0, x0 + length, y0, 0.0, 0, width)
                if flat_slab(board, region).thickness >= thickness:
                    return Area(x0, x0 + length, y0, y0 + width, area.face)
            if not spare_x:
                break
    return None


@lru_cache(maxsize=2000)
def clear_length(board: Board, width: int) -> int:
    """The longest length at least so wide that is free of unsound faults; 0 where there is none."""
    best = 0
    for area in clear_areas(board, "sound", 3, 1, max(width, 1)):
        best = max(best, area.x1 - area.x0)
    return best
