"""What a board weighs, so that nobody lifts alone what takes two."""

from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.timber.woods import Wood


def weight_kg(wood: Wood, cubic_ticks: float, moisture: float = 12.0) -> float:
    """Mass at this moisture in %: oven-dry mass and the water in it (Wood Handbook, eq. 4-9, volume
    at 12 %).

    A cubic metre of white oak at 12 % is 680 kg of wood and 12 % of that in water:

    >>> from vividplank.core.timber.woods import wood_named
    >>> round(weight_kg(wood_named("white oak"), (320 * 1000) ** 3), 1)
    761.6
    """
    cubic_metres = cubic_ticks / (TICKS_PER_MM * 1000) ** 3
    return wood.specific_gravity * 1000 * (1 + moisture / 100) * cubic_metres
