"""How this shop cuts: the settings a plan depends on. Lengths in ticks."""

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.fields import NotNegativeTicks, PositiveTicks
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM
from vividplank.core.timber.board_feet import TicketRule

Method = Literal["mill-wide", "rough-rip"]


@dataclass(frozen=True)
class Kerf:
    """The wood a saw turns to dust, for each of its jobs."""

    crosscut: NotNegativeTicks = TICKS_PER_INCH // 8
    rip: NotNegativeTicks = TICKS_PER_INCH // 8
    resaw: NotNegativeTicks = TICKS_PER_INCH // 16


@dataclass(frozen=True)
class Allowance:
    """What a blank is larger than its parts: in length, in width, per thickness, and a panel in
    width.

    `between` is what parts end to end in one blank have between them beside the saw's kerf: as much
    as `length` gives each of them what a part in a blank of its own has. `layer` is what every
    layer of a resawn blank has beside `face`: freshly sawn wood dries on one side and cups.
    """

    length: NotNegativeTicks = TICKS_PER_INCH // 2
    width: NotNegativeTicks = TICKS_PER_INCH // 8
    face: NotNegativeTicks = TICKS_PER_INCH // 32
    panel_width: NotNegativeTicks = TICKS_PER_INCH // 4
    between: NotNegativeTicks = 0
    layer: NotNegativeTicks = 0


@dataclass(frozen=True)
class Keep:
    """An offcut is kept when a piece free of unsound faults this long and this wide can be cut from
    it.
    """

    length: PositiveTicks = 16 * TICKS_PER_INCH
    width: PositiveTicks = 2 * TICKS_PER_INCH


@dataclass(frozen=True)
class Shop:
    """`chalk` is what marks of a rough cut are rounded to; 0 is the usual: 1/16 in, or 1 mm."""

    method: Method = "mill-wide"
    kerf: Kerf = Kerf()
    allowance: Allowance = Allowance()
    end_trim: NotNegativeTicks = TICKS_PER_INCH
    min_blank_length: NotNegativeTicks = 12 * TICKS_PER_INCH
    max_slope: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 0.02
    ticket: TicketRule = TicketRule()
    keep: Keep = Keep()
    chalk: NotNegativeTicks = 0

    def flat_for(self, thickness: int, layers: int) -> int:
        """The flat thickness of rough wood that gives `layers` of this thickness."""
        each = thickness + self.allowance.face
        if layers == 1:
            return each
        return layers * (each + self.allowance.layer) + (layers - 1) * self.kerf.resaw

    def layers_in(self, flat: float, thickness: int) -> int:
        """How many layers of this thickness rough wood gives that is so thick where it is flat."""
        if self.flat_for(thickness, 2) > flat:
            return int(flat >= thickness + self.allowance.face)
        each = thickness + self.allowance.face + self.allowance.layer + self.kerf.resaw
        return int((flat + self.kerf.resaw) // each)

    @property
    def apart(self) -> int:
        """From the end of one part to the beginning of the next in a blank."""
        return self.kerf.crosscut + self.allowance.between


def inch_shop() -> Shop:
    """The starting values of a shop that thinks in inches."""
    return Shop(allowance=Allowance(between=TICKS_PER_INCH // 2, layer=TICKS_PER_INCH // 32))


def metric_shop() -> Shop:
    """The starting values of a shop that thinks in millimetres."""
    mm = TICKS_PER_MM
    return Shop(
        kerf=Kerf(3 * mm, 3 * mm, 3 * mm // 2),
        allowance=Allowance(12 * mm, 3 * mm, mm, 6 * mm, 12 * mm, mm),
        end_trim=25 * mm,
        min_blank_length=300 * mm,
    )
