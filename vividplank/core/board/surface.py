"""A scanned board: the heights of both faces above the bench on a grid of places."""

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated

import numpy as np
import numpy.typing as npt
from pydantic import Field

from vividplank.core.fields import Ticks
from vividplank.core.measure import TICKS_PER_INCH

Places = Annotated[tuple[Ticks, ...], Field(min_length=2, max_length=500)]
Heights = Annotated[tuple[Places, ...], Field(min_length=2, max_length=500)]


@dataclass(frozen=True)
class Surface:
    """Heights of face B (`lower`) and face A (`upper`) at every xs[i], ys[j], in ticks; bilinear in
    between.

    Places outside the board's outline only serve to find what lies between them and the next ones.
    """

    xs: Places
    ys: Places
    lower: Heights
    upper: Heights

    def heights(self, x: float, y: float) -> tuple[float, float]:
        """Faces B and A at a place."""
        i, s = _between(self.xs, x)
        j, t = _between(self.ys, y)

        def at(face: Heights) -> float:
            low = face[i][j] + s * (face[i + 1][j] - face[i][j])
            high = face[i][j + 1] + s * (face[i + 1][j + 1] - face[i][j + 1])
            return low + t * (high - low)

        return at(self.lower), at(self.upper)

    @cached_property
    def tables(self) -> tuple[npt.NDArray[np.float64], ...]:
        """xs, ys, lower and upper in inches, for the compiled geometry."""
        kept = (self.xs, self.ys, self.lower, self.upper)
        return tuple(np.array(each, dtype=np.float64) / TICKS_PER_INCH for each in kept)


def _between(places: Sequence[int], at: float) -> tuple[int, float]:
    k = min(max(bisect_right(places, at), 1), len(places) - 1) - 1
    return k, (at - places[k]) / (places[k + 1] - places[k])
