"""Stretches of one board: over which line each is widest, which unsound faults lie in it, how much
they leave.
"""

from functools import cached_property
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt

from vividplank.core.board import Board

Ints = npt.NDArray[np.int64]
Floats = npt.NDArray[np.float64]
#: The reference line of a stretch and the width clear above it: y0, slope, height.
Band = tuple[int, float, int]


class Bands(NamedTuple):
    """The reference lines of several stretches, and the width clear above each (0: nothing is)."""

    y0: Ints
    slope: Floats
    high: Ints


class Stretches:
    """Questions about stretches of one board. No reference line slopes more than `most`."""

    def __init__(self, board: Board, most: float) -> None:
        self.most = most
        self.outline = np.array([(s.x, s.y0, s.y1) for s in board.stations], dtype=np.float64)
        self.board = board
        self.unsound = sorted((d for d in board.boxed if not d.sound), key=lambda d: d.x0)
        self.faults = np.array(
            [(d.x0, d.x1, d.y0, d.y1) for d in self.unsound], dtype=np.float64
        ).reshape(-1, 4)
        self.known: dict[tuple[int, int], Band | None] = {}

    def band(self, x0: int, x1: int) -> Band | None:
        """The line over which one stretch is widest, the flattest of equals; None where nothing is
        clear.
        """
        if (x0, x1) not in self.known:
            y0, slope, high = (
                each[0].item() for each in self.bands(x0, np.array([x1], dtype=np.int64))
            )
            self.known[x0, x1] = (y0, slope, high) if high > 0 else None
        return self.known[x0, x1]

    def bands(self, x0: int, ends: Ints) -> Bands:
        """The same for the stretches from x0 to each of `ends`."""
        return Bands(*self._kernel.widest_bands(self.outline, x0, ends, self.most))

    def opens(self, x0: int, long: int, wide: int) -> int:
        """The first place from x0 on where a strip so long and wide may begin beside the unsound
        faults; x0 where none is.
        """
        return next(
            (
                x
                for x in (x0, *sorted(d.x1 for d in self.unsound if d.x1 > x0))
                if self._clear_at(x, long, wide)
            ),
            x0,
        )

    def _clear_at(self, x0: int, long: int, wide: int) -> bool:
        low, high = self.board.edges(min(x0, self.board.length))
        for d in sorted(self.unsound, key=lambda d: d.y0):
            if d.x0 < x0 + long and d.x1 > x0:
                if d.y0 - low >= wide:
                    break
                low = max(low, d.y1)
        return high - low >= wide

    def faults_over(
        self, x0: int, ends: Ints, bands: Bands, mark: int, step: int, most: int
    ) -> Ints:
        """Unsound faults by stretch: bottom and top over its line in grains of `mark`, beginning
        and end in steps from x0.
        """
        found: Ints = self._kernel.faults_over(self.faults, x0, ends, *bands, mark, step, most)
        return found

    def free(self, starts: Ints, end: int, kerf: int) -> Floats:
        """Area from each of `starts` to `end` that no unsound fault spoils, with a kerf at its
        upper side.
        """
        found: Floats = self._kernel.free_areas(self.outline, self.faults, starts, end, kerf)
        return found

    @cached_property
    def _kernel(self) -> Any:
        """The compiled part, loaded when it is first needed."""

        from vividplank.core.layout.patterns import stretches_kernel

        return stretches_kernel
