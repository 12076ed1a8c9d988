"""Wood: species, moisture, quarters, board feet and weight."""

from vividplank.core.timber.board_feet import TicketRule, board_feet, cubic_board_feet
from vividplank.core.timber.moisture import coefficients_hold, equilibrium_moisture, movement
from vividplank.core.timber.quarters import QUARTERS, Quarter, quarter_for, quarter_of
from vividplank.core.timber.weight import weight_kg
from vividplank.core.timber.woods import WOODS, Wood, wood_named

__all__ = [
    "QUARTERS",
    "WOODS",
    "Quarter",
    "TicketRule",
    "Wood",
    "board_feet",
    "coefficients_hold",
    "cubic_board_feet",
    "equilibrium_moisture",
    "movement",
    "quarter_for",
    "quarter_of",
    "weight_kg",
    "wood_named",
]
