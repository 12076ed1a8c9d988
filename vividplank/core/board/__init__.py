"""The board as it is: outline, thickness, warp, defects, and the flat board inside it."""

from vividplank.core.board.board import Board, Defect, Region, Station, Warp
from vividplank.core.board.slab import Slab, flat_slab
from vividplank.core.board.species import same_species

__all__ = ["Board", "Defect", "Region", "Slab", "Station", "Warp", "flat_slab", "same_species"]
