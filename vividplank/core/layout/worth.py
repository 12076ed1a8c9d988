"""What a want is worth at the start of a search, for its volume: the room it takes, and how many boards can give it."""

from collections.abc import Sequence

from vividplank.core.board import Board
from vividplank.core.layout.want import Want
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop

#: How much more a want is worth that hardly any board can give.
_SCARCE = 0.1


def room_taken(want: Want, boards: Sequence[Board], shop: Shop) -> float:
    """The area a want takes with its kerfs, of a board of `boards` that may be resawn, for its volume (1/in).

    Boards that are cut into such wants without waste all give the same of it for their area.
    """
    each = want.thickness + shop.allowance.face + shop.kerf.resaw
    layers = min(((b.thickest + shop.kerf.resaw) // each for b in boards), default=1) or 1
    staves = -(-want.width // want.stave_max) if want.is_panel else 1
    across = want.width + staves * (shop.allowance.width + shop.kerf.rip)
    return (want.length + shop.kerf.crosscut) * across / layers / want.volume * TICKS_PER_INCH


def scarcity(boards: Sequence[Board], everything: Sequence[Board]) -> float:
    """1 for what every board can give, up to a tenth more for what hardly any can; `boards` are those that can."""
    room = sum(b.length * b.widest for b in boards)
    return 1.0 + _SCARCE * (1 - room / (sum(b.length * b.widest for b in everything) or 1))
