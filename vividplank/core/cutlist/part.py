"""A part of the piece: finished size, wood and how it must look."""

from dataclasses import dataclass
from typing import Literal

from vividplank.core.shop import Shop

Faces = Literal["clear-two", "clear-one", "sound"]
#: From the strictest to the most lenient.
FACES: tuple[Faces, ...] = ("clear-two", "clear-one", "sound")


@dataclass(frozen=True)
class Panel:
    """Glued up from staves whose net widths lie between these."""

    stave_min: int
    stave_max: int


@dataclass(frozen=True)
class Part:
    """`length` lies along the grain. Parts of one `run` come end to end out of one blank."""

    id: str
    name: str
    quantity: int
    species: str
    length: int
    width: int
    thickness: int
    faces: Faces = "clear-one"
    panel: Panel | None = None
    run: str = ""
    note: str = ""

    @property
    def volume(self) -> int:
        """Finished volume of one, in cubic ticks."""
        return self.length * self.width * self.thickness


def blank_need(thicknesses: list[int], shop: Shop) -> int:
    """The flat thickness a blank must hold to give these layers, each with its face allowance."""
    thickest = max(thicknesses) + shop.allowance.face
    return len(thicknesses) * thickest + (len(thicknesses) - 1) * shop.kerf.resaw
