"""The board as it is: outline, thickness, warp, defects, and the flat board inside it."""

from vividplank.core.board.board import Board, Station, Warp
from vividplank.core.board.defect import Defect, Region
from vividplank.core.board.flat.slab import Slab, flat_slab
from vividplank.core.board.grain import Grain, Zone
from vividplank.core.board.remeasured import remeasured
from vividplank.core.board.species import same_species
from vividplank.core.board.surface import Surface

__all__ = [
    "Board",
    "Defect",
    "Grain",
    "Region",
    "Slab",
    "Station",
    "Surface",
    "Warp",
    "Zone",
    "flat_slab",
    "remeasured",
    "same_species",
]
