"""A rounding heuristic: a pattern from what the relaxation counts on a board.

The same segments and strips are laid by the rules and filled end to end anew. The relaxation is
rounded in favour of the plan, so a part here and there finds no place; what does is laid exactly.
"""

from collections.abc import Callable, Sequence
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple

import numpy as np
import numpy.typing as npt

from vividplank.core.board import Board
from vividplank.core.layout.bound.relaxation import RelaxedSegment
from vividplank.core.layout.model.faces import CLEAR, UNSOUND, spoils
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.pattern import (
    CuttingPattern,
    PatternBlank,
    PatternSegment,
    PatternStrip,
)
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop

Floats = npt.NDArray[np.float64]

#: Lengths are filled in steps no finer than this.
_STEP = TICKS_PER_INCH // 16
#: A strip is tried so much higher than it is counted, or just above what is in its way no further
#: off.
_HIGHER = TICKS_PER_INCH // 4
#: Flat thickness of a stretch: from x0 to x1 over a line from y0 with a slope, from and to a
#: height.
Slab = Callable[[int, int, float, float, int, int], float]


class _Filled(NamedTuple):
    profits: float
    blanks: tuple[PatternBlank, ...]
    taken: dict[int, int]
    widest: int


_NOTHING = _Filled(0.0, (), {}, 0)


class _Line(NamedTuple):
    """The reference line of a segment."""

    x0: int
    x1: int
    y0: int
    slope: float

    def at(self, x: float) -> float:
        return self.y0 + self.slope * (x - self.x0)


class RoundingHeuristic:
    """Cuts one board as it is counted."""

    def __init__(
        self, board: Board, shop: Shop, item_types: Sequence[ItemType], slab: Slab
    ) -> None:
        """`item_types` by their index; those that the board is to hold none of are not among
        them.
        """
        self.board = board
        self.shop = shop
        self.item_types = [w for w in item_types if not w.opened]
        self.slab = slab
        self.lane = shop.method == "mill-wide"
        self.long = np.array([w.length for w in self.item_types], dtype=np.int64)
        self.clear = np.array([CLEAR[w.faces] for w in self.item_types], dtype=np.int64)
        self.alone = np.array([w.is_run or not self.lane for w in self.item_types], dtype=np.bool_)

    def cut(
        self, counted: Sequence[RelaxedSegment], remaining: Sequence[int], profits: Sequence[float]
    ) -> CuttingPattern | None:
        """Nothing where it holds nothing. `profits` are those of a piece, or of a tick of net width
        of a stave.
        """
        rest = list(remaining)
        segments: list[PatternSegment] = []
        at, end = self.shop.end_trim, self.board.length - self.shop.end_trim
        beyond = [s.x0 - self.shop.kerf.crosscut for s in counted[1:]]
        for s, following in zip(counted, [*beyond, end], strict=False):
            x0 = max(at, s.x0)
            x1 = min(end, max(x0 + s.x1 - s.x0, following))
            if x1 - x0 < self.shop.min_blank_length:
                continue
            line = _Line(x0, x1, round(s.y0 + s.slope * (x0 - s.x0)), s.slope)
            for made in self._segment(line, s.strips, rest, profits)[1]:
                self._take(made, rest)
                segments.append(made)
                at = made.x1 + self.shop.kerf.crosscut
        taken = tuple(
            (i, a - b) for i, (a, b) in enumerate(zip(remaining, rest, strict=True)) if a != b
        )
        return CuttingPattern(tuple(segments), taken) if segments else None

    @cached_property
    def panel(self) -> dict[int, bool]:
        return {w.index: w.is_panel for w in self.item_types}

    def _segment(
        self,
        line: _Line,
        strips: Sequence[tuple[int, int, bool]],
        remaining: Sequence[int],
        profits: Sequence[float],
    ) -> tuple[float, list[PatternSegment]]:
        """The strips laid from the bottom up; in two segments where one is not flat enough together
        and that gives more.
        """
        if not strips:
            return 0.0, []
        _, high = self.board.reach(line.y0, line.slope, line.x0, line.x0, line.x1)
        thick = self._flat(line, strips)
        tried = [
            self._stacked(line, strips, thick, limit, remaining, profits) for limit in (None, high)
        ]
        best, whole = max(tried, key=lambda t: t[0])
        found = [whole] if whole else []
        if (
            thick < self._thickest(remaining)
            and line.x1 - line.x0 >= 2 * self._shortest + self.shop.kerf.crosscut
        ):
            middle = (line.x0 + line.x1) // 2
            beyond = middle + self.shop.kerf.crosscut
            one, first = self._segment(line._replace(x1=middle), strips, remaining, profits)
            rest = list(remaining)
            for made in first:
                self._take(made, rest)
            two, second = self._segment(
                line._replace(x0=beyond, y0=round(line.at(beyond))), strips, rest, profits
            )
            if one + two > best:
                return one + two, [*first, *second]
        return best, found

    def _flat(self, line: _Line, strips: Sequence[tuple[int, int, bool]]) -> int:
        """How thick the segment comes out flat, where it is milled in one piece."""
        if not self.lane:
            return self.board.thickest
        top = strips[-1][0] + strips[-1][1] + self.shop.allowance.width
        return int(self.slab(line.x0, line.x1, line.y0, line.slope, strips[0][0], top))

    def _take(self, segment: PatternSegment, remaining: list[int]) -> None:
        """Take what a segment holds from what is left."""
        for strip in segment.strips:
            for index in (i for blank in strip.blanks for layer in blank.layers for i in layer):
                remaining[index] -= (
                    strip.y1 - strip.y0 - self.shop.allowance.width if self.panel[index] else 1
                )

    def _stacked(
        self,
        line: _Line,
        strips: Sequence[tuple[int, int, bool]],
        thick: int,
        high: int | None,
        remaining: Sequence[int],
        profits: Sequence[float],
    ) -> tuple[float, PatternSegment | None]:
        """The strips as they are counted; those of any width as narrow as lets all stay below
        `high`, if that is told.
        """
        rest = list(remaining)
        laid: list[PatternStrip] = []
        at, total = 0, 0.0
        over = self.shop.allowance.width + self.shop.kerf.rip
        narrowest = [
            min(net, max(self._narrowest, net - _HIGHER)) if free else net
            for _, net, free in strips
        ]
        above = sum(net + over for net in narrowest)
        for (low, counted, free), narrow in zip(strips, narrowest, strict=True):
            best, begins = _NOTHING, 0
            above -= narrow + over
            for start in self._starts(line, max(low, at)):
                net = counted
                if free and high is not None:
                    net = min(net, high - start - self.shop.allowance.width - above)
                for each in self._nets(line, start, net) if free else [net]:
                    filled = self._strip(line, start, each, thick, rest, profits)
                    if filled.profits > best.profits:
                        best, begins = filled, start
            if best.blanks:
                for index, amount in best.taken.items():
                    rest[index] -= amount
                total += best.profits
                laid.append(
                    PatternStrip(
                        begins, begins + best.widest + self.shop.allowance.width, best.blanks
                    )
                )
                at = laid[-1].y1 + self.shop.kerf.rip
        if not laid:
            return 0.0, None
        x1 = max(b.x1 for strip in laid for b in strip.blanks)
        return total, PatternSegment(line.x0, x1, line.y0, line.slope, tuple(laid))

    def _thickest(self, remaining: Sequence[int]) -> int:
        return max(
            (
                w.thickness + self.shop.allowance.face
                for w in self.item_types
                if remaining[w.index] > 0
            ),
            default=0,
        )

    @cached_property
    def _shortest(self) -> int:
        return min(
            (w.length + self.shop.allowance.length for w in self.item_types),
            default=self.board.length,
        )

    @cached_property
    def _narrowest(self) -> int:
        return min((w.stave_least for w in self.item_types if w.is_panel), default=0)

    def _starts(self, line: _Line, low: int) -> list[int]:
        """From where up a strip may lie: as it is counted, or a little higher where an edge or a
        fault is in its way.
        """
        found = {low}
        edge, _ = self.board.reach(line.y0, line.slope, line.x0, line.x0, line.x1)
        if low < edge <= low + _HIGHER:
            found.add(edge)
        for d in self.board.boxed:
            if d.x1 > line.x0 and d.x0 < line.x1:
                above = d.y1 - min(line.at(max(d.x0, line.x0)), line.at(min(d.x1, line.x1)))
                if low < above <= low + _HIGHER:
                    found.add(int(above) + 1)
        return sorted(found)

    def _nets(self, line: _Line, low: int, net: int) -> list[int]:
        """How wide a strip that may have any width may be: as it is counted, or a little less,
        below what is in its way.
        """
        found = {net}
        top = low + net + self.shop.allowance.width
        for d in self.board.boxed:
            if d.x1 > line.x0 and d.x0 < line.x1:
                below = int(d.y0 - max(line.at(max(d.x0, line.x0)), line.at(min(d.x1, line.x1))))
                if top - _HIGHER <= below < top:
                    found.add(net - (top - below))
        return sorted(found)

    def _strip(
        self,
        line: _Line,
        low: int,
        net: int,
        thick: int,
        remaining: Sequence[int],
        profits: Sequence[float],
    ) -> _Filled:
        """What fills a strip best end to end."""
        from vividplank.core.layout.patterns.rounding_kernel import fill_strip

        shop = self.shop
        top = low + net + shop.allowance.width
        values, most = (
            np.zeros(len(self.item_types)),
            np.zeros(len(self.item_types), dtype=np.int64),
        )
        for k, w in enumerate(self.item_types):
            fits = w.stave_least <= net <= w.stave_max if w.is_panel else w.width <= net
            if fits and remaining[w.index] > 0 and w.thickness + shop.allowance.face <= thick:
                most[k] = -(-remaining[w.index] // net) if w.is_panel else remaining[w.index]
                values[k] = profits[w.index] * (min(net, remaining[w.index]) if w.is_panel else 1)
        if not values.any():
            return _NOTHING
        rows = fill_strip(
            (line.x1 - line.x0 + shop.kerf.crosscut) // _STEP,
            _STEP,
            self._in_the_way(line, low, top),
            self.long + shop.allowance.between,
            values,
            most,
            self.clear,
            self.alone,
            shop.kerf.crosscut,
            shop.allowance.length - shop.allowance.between,
            shop.min_blank_length,
        )
        total, blanks, taken, widest = 0.0, [], dict[int, int](), 0
        for at, parts in self._by_blank(rows.tolist()):
            long = (
                sum(w.length for w in parts) + (len(parts) - 1) * shop.apart + shop.allowance.length
            )
            x0 = line.x0 + at * _STEP
            x1 = x0 + max(long, shop.min_blank_length)
            each = max(w.thickness for w in parts) + shop.allowance.face
            if not self.lane and self.slab(x0, x1, line.at(x0), line.slope, low, top) < each:
                continue
            blanks.append(PatternBlank(x0, x1, (tuple(w.index for w in parts),)))
            for w in parts:
                amount = net if w.is_panel else 1
                gain = min(amount, max(0, remaining[w.index] - taken.get(w.index, 0)))
                total += profits[w.index] * gain
                taken[w.index] = taken.get(w.index, 0) + amount
                widest = max(widest, net if w.is_panel else w.width)
        return _Filled(total, tuple(blanks), taken, widest)

    def _by_blank(self, rows: list[list[int]]) -> list[tuple[int, list[ItemType]]]:
        found: list[tuple[int, list[ItemType]]] = []
        for at, part in rows:
            if at >= 0:
                found.append((at, []))
            found[-1][1].append(self.item_types[part])
        return found

    def _in_the_way(self, line: _Line, low: int, top: int) -> Floats:
        """What is in the way of a strip: where it begins and ends, from the strip's beginning, and
        what it spoils.
        """
        rows: list[tuple[float, float, float]] = [(line.x1 - line.x0, 2.0 * line.x1, UNSOUND)]
        xs = [line.x0, *(s.x for s in self.board.stations if line.x0 < s.x < line.x1), line.x1]
        for a, b in pairwise(xs):  # where it stands out over an edge
            (low0, high0), (low1, high1) = self.board.edges(a), self.board.edges(b)
            for one, two in (
                (line.at(a) + low - low0, line.at(b) + low - low1),
                (high0 - line.at(a) - top, high1 - line.at(b) - top),
            ):
                if min(one, two) < 0:
                    at = a + (b - a) * one / (one - two) if (one < 0) != (two < 0) else a
                    off = (at, b) if two < 0 <= one else (a, at) if one < 0 <= two else (a, b)
                    rows.append((off[0] - line.x0 - 1, off[1] - line.x0 + 1, UNSOUND))
        for d in self.board.boxed:
            if d.x1 > line.x0 and d.x0 < line.x1:
                begins, ends = max(d.x0, line.x0), min(d.x1, line.x1)
                lines = line.at(begins), line.at(ends)
                if max(lines) + top > d.y0 and min(lines) + low < d.y1:
                    rows.append((begins - line.x0, ends - line.x0, spoils(d)))
        return np.array(rows, dtype=float)
