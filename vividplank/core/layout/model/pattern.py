"""Cutting patterns: what a board gives, as segments, strips and blanks that hold indexes of item
types. Lengths in ticks.
"""

from typing import NamedTuple


class PatternBlank(NamedTuple):
    x0: int
    x1: int
    layers: tuple[tuple[int, ...], ...]  # indexes of item types


class PatternStrip(NamedTuple):
    y0: int
    y1: int
    blanks: tuple[PatternBlank, ...]


class PatternSegment(NamedTuple):
    x0: int
    x1: int
    y0: int
    slope: float
    strips: tuple[PatternStrip, ...]


class CuttingPattern(NamedTuple):
    """What one board gives: its segments, and how many units of each item type (net ticks for a
    panel).
    """

    segments: tuple[PatternSegment, ...]
    taken: tuple[tuple[int, int], ...]


EMPTY = CuttingPattern((), ())
