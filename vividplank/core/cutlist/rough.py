"""Rough sizes: the finished ones with the shop's allowances."""

from vividplank.core.cutlist.part import Part
from vividplank.core.shop import Shop


def rough_size(part: Part, shop: Shop) -> tuple[int, int, int]:
    """Length, width and thickness of the blank of one part, in ticks. Sheet and bought parts are
    cut to size.

    A panel is glued over by its own allowance; layers each carry their face allowance.
    """
    if part.stock != "board":
        return (*part.cut_size(), part.thickness)
    a = shop.allowance
    width = part.width + (a.panel_width if part.panel else a.width)
    return part.length + a.length, width, part.thickness + part.layers * a.face
