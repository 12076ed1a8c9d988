"""How the fibres and rings of a board run, as a maker reads it off faces, edges and ends."""

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from pydantic import Field

from vividplank.core.board.defect import Region
from vividplank.core.fields import Slope, Ticks

Figure = Literal["straight", "cathedral", "quarter", "curly"]
FIGURES: tuple[Figure, ...] = get_args(Figure)
Heart = Literal["", "A", "B"]
#: An end of a board or piece; empty where either may lead.
End = Literal["", "datum end", "far end"]


@dataclass(frozen=True)
class Zone:
    """A rectangle of the board where the figure is of this kind. Lengths in ticks."""

    figure: Figure
    x0: Ticks
    x1: Ticks
    y0: Ticks
    y1: Ticks

    def share_of(self, region: Region) -> float:
        """How much of the region lies in it, from 0 to 1; the region's slope is left out of
        account.
        """
        along = min(self.x1, region.x1) - max(self.x0, region.x0)
        middle = region.line((region.x0 + region.x1) / 2)
        across = min(float(self.y1), middle + region.h1) - max(float(self.y0), middle + region.h0)
        area = (region.x1 - region.x0) * (region.h1 - region.h0)
        return max(0.0, along) * max(0.0, across) / area if area else 0.0


@dataclass(frozen=True)
class Grain:
    """Slopes as rise over run; None where nobody has looked.

    `datum_edge` and `far_edge`: how the fibres seen on that edge climb toward face A as x grows.
    `across`: how the grain seen on face A turns toward the far edge as x grows. `rings`: the angle
    between rings and face at the end, 0 flat-sawn to 90 quarter-sawn. `heart`: the face that looked
    toward the middle of the tree.
    """

    datum_edge: Slope | None = None
    far_edge: Slope | None = None
    across: Slope = 0.0
    rings: Annotated[int, Field(ge=0, le=90)] | None = None
    heart: Heart = ""
    zones: Annotated[tuple[Zone, ...], Field(max_length=50)] = ()

    @property
    def sawn(self) -> Literal["", "flat-sawn", "rift-sawn", "quarter-sawn"]:
        """By the rings at the end: quarter-sawn from 60 degrees, rift-sawn from 30."""
        if self.rings is None:
            return ""
        return (
            "quarter-sawn" if self.rings >= 60 else "rift-sawn" if self.rings >= 30 else "flat-sawn"
        )


def feed_first(slope: float | None, down: Literal["A", "B"]) -> End:
    """Which end goes into a jointer first with that face on the table, so that fibres slope down
    and away from the cut.

    On a jointer wood moves toward a cutter below it that turns against the feed, so the fibres of
    the face on the table must run out of it toward the trailing end: they rise from the trailing
    end's table side up to the leading end.
    """
    if slope is None or slope == 0:
        return ""
    climbs = slope if down == "B" else -slope  # away from the table as x grows
    return "far end" if climbs > 0 else "datum end"
