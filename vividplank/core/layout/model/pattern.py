"""What a board gives in the search: segments, strips and blanks holding indexes of wants. Lengths
in ticks.
"""

from typing import NamedTuple


class FilledBlank(NamedTuple):
    x0: int
    x1: int
    layers: tuple[tuple[int, ...], ...]  # indexes of wants


class FilledStrip(NamedTuple):
    y0: int
    y1: int
    blanks: tuple[FilledBlank, ...]


class FilledSegment(NamedTuple):
    x0: int
    x1: int
    y0: int
    slope: float
    strips: tuple[FilledStrip, ...]


class Fill(NamedTuple):
    """What one board gives: its segments, and how many lumps of each want (net ticks for a
    panel).
    """

    segments: tuple[FilledSegment, ...]
    taken: tuple[tuple[int, int], ...]


EMPTY = Fill((), ())
