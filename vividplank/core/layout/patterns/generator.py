"""Generating cutting patterns of one board: a beam search over proposals, laid by the rules.

Everything here keeps the rules of the exchange page by construction; the audit, which shares no
code with it, says whether it does.

Reference
---------
P. S. Ow, T. E. Morton: Filtered beam search in scheduling. International Journal of Production
Research 26 (1988), 35-62. The filter here is the knapsack bound of proposals.py.
"""

import math
import random
from collections.abc import Sequence
from copy import copy
from dataclasses import dataclass, replace
from functools import cached_property

from vividplank.core.board import Board
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.pattern import CuttingPattern, PatternSegment, PatternStrip
from vividplank.core.layout.model.plan import Segment
from vividplank.core.layout.patterns.proposals import Flatness, Proposal, Proposer
from vividplank.core.layout.patterns.rounding import RoundingHeuristic
from vividplank.core.layout.patterns.stretches import Floats, Stretches
from vividplank.core.layout.patterns.strips import Laid, Strips
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop


@dataclass(frozen=True)
class _Cut:
    """A board cut up to `at`: what it holds so far, what is left to place, and what the rest may
    still be worth.
    """

    at: int
    segments: tuple[PatternSegment, ...]
    remaining: tuple[int, ...]
    profits: float
    rest: float


class PatternGenerator:
    """Patterns one board for the demand it is given, round the segments that are pinned."""

    def __init__(
        self,
        board: Board,
        shop: Shop,
        item_types: Sequence[ItemType],
        mark: int,
        pinned: Sequence[tuple[Segment, int]] = (),
    ) -> None:
        """`pinned` gives with every segment the flat thickness that what is pinned in it asks
        for.
        """
        self.board = board = board.to_marks(mark)  # where a fault ends a cut may be chalked
        self.pinned = sorted(pinned, key=lambda p: p[0].x0)
        at, kerf = shop.end_trim, shop.kerf.crosscut
        self.gaps: list[tuple[int, int]] = []
        for segment, _ in self.pinned:
            self.gaps.append((at, segment.x0 - kerf))
            at = segment.x1 + kerf
        self.gaps.append((at, board.length - shop.end_trim))
        self.mark = mark
        self.strips = Strips(board, shop, item_types, mark)
        self.shop = shop
        self.item_types = item_types
        self.stretches = Stretches(board, shop.max_slope)
        self.mine = [
            w
            for w in item_types
            if w.may_come_of(board)
            and w.thickness + shop.allowance.face <= board.thickest
            and max(w.length + shop.allowance.length, shop.min_blank_length)
            <= board.length - 2 * shop.end_trim
            and (w.stave_min or w.width) + shop.allowance.width <= board.widest
        ]
        self.mine_indexes = {w.index for w in self.mine}

    def of(self, item_types: set[int]) -> "PatternGenerator":
        """The same board for these item types alone: sooner made ready than for all of a long
        list.
        """
        fewer = copy(self)
        fewer.leave_to_others(self.mine_indexes - item_types)
        return fewer

    def leave_to_others(self, item_types: set[int]) -> None:
        """Take none of these item types: they are to come from another board."""
        self.mine = [w for w in self.mine if w.index not in item_types]
        self.mine_indexes = {w.index for w in self.mine}
        for made in ("proposer", "tight"):
            self.__dict__.pop(made, None)

    def cut(
        self,
        remaining: list[int],
        profits: Sequence[float],
        rng: random.Random,
        beam: int = 2,
        tries: int = 3,
    ) -> list[CuttingPattern]:
        """Patterns of the whole board found side by side by looking ahead along it, the one worth
        most first.
        """
        shop = self.shop
        going = [self._beside_pinned(remaining, profits)]
        done: list[_Cut] = []
        while going:
            longer: list[_Cut] = []
            for state in going:
                if not any(state.remaining[i] > 0 for i in self.mine_indexes):
                    done.append(state)
                    continue
                start, end = next(
                    ((a, b) for a, b in self.gaps if b > state.at), (state.at, state.at)
                )
                state = replace(state, at=max(start, state.at))
                made = (
                    self._longer(state, end, profits, rng, tries)
                    if end - state.at >= shop.min_blank_length
                    else []
                )
                following = next((a for a, _ in self.gaps if a > state.at), None)
                if made:
                    longer += made
                elif (at := self._beyond(state.at)) <= end - shop.min_blank_length:
                    longer.append(replace(state, at=at))
                elif following is not None:
                    longer.append(replace(state, at=following))
                else:
                    done.append(state)
            longer.sort(key=lambda c: -(c.profits + c.rest))
            going = longer[:beam]
        done.sort(key=lambda c: -c.profits)
        return [self._filled(c, remaining) for c in done if c.segments]

    @cached_property
    def rounding(self) -> RoundingHeuristic:
        """Cuts it nearly as relaxation.py counts that it might be."""
        return RoundingHeuristic(self.board, self.shop, self.mine, self.strips.slab)

    @cached_property
    def breadth(self) -> tuple[int, int]:
        """How many ways to cut the board are followed side by side, and how many are tried to go on
        with each: more where a figure or faults give a choice.
        """
        return (
            (4, 5)
            if self.strips.preference.matters
            else (3, 5)
            if self.stretches.unsound
            else (2, 3)
        )

    @property
    def able(self) -> set[int]:
        """What it can give, as far as size and flatness tell."""
        return set(self.proposer.wanted.tolist())

    def _beside_pinned(self, remaining: Sequence[int], profits: Sequence[float]) -> _Cut:
        """What still goes into the segments that are pinned: along their strips, and across between
        them.
        """
        rest = list(remaining)
        segments: list[PatternSegment] = []
        total = 0.0
        for s, need in self.pinned:
            fitting = [w for w in self.mine if w.length + self.shop.allowance.length <= s.x1 - s.x0]
            found = self.strips.beside(
                s, need, self.board.reach(s.y0, s.slope, s.x0, s.x0, s.x1), fitting, rest, profits
            )
            for laid in found:
                total += laid.profits
                for index, amount in laid.taken:
                    rest[index] -= amount
            strips = tuple(laid.strip for laid in found if laid.strip)
            if strips:
                segments.append(PatternSegment(s.x0, s.x1, s.y0, s.slope, strips))
        return _Cut(self.gaps[0][0], tuple(segments), tuple(rest), total, 0.0)

    def _longer(
        self, state: "_Cut", end: int, profits: Sequence[float], rng: random.Random, tries: int
    ) -> list["_Cut"]:
        found = []
        kerf = self.shop.kerf.crosscut
        near = self.shop.min_blank_length
        at = self.stretches.opens(state.at, near, self.proposer.narrowest)
        starts = {at, *(d.x1 for d in self.board.boxed if not d.sound and at < d.x1 < at + near)}
        for x0 in sorted(starts)[:3]:
            for p in self.proposer.propose(
                x0, end, state.remaining, profits, self._flatness, rng, tries
            ):
                laid = self._lay(p, list(state.remaining), profits)
                if laid is None or laid.segment is None:
                    continue
                remaining = list(state.remaining)
                for index, amount in laid.taken:
                    remaining[index] -= amount
                found.append(
                    _Cut(
                        p.x1 + kerf,
                        (*state.segments, laid.segment),
                        tuple(remaining),
                        state.profits + laid.profits,
                        p.rest,
                    )
                )
        return found

    def _lay(self, p: Proposal, remaining: list[int], profits: Sequence[float]) -> Laid | None:
        """The strips of a proposal laid by the rules, and whatever else still fits beside them."""
        band = self.stretches.band(p.x0, p.x1)
        if band is None:
            return None
        y0, slope, high = band
        strips: list[PatternStrip] = []
        taken: list[tuple[int, int]] = []
        total, at, lowest, need = 0.0, 0, -1, 0
        rows = [(low, [self.item_types[i] for i in led]) for low, led in p.strips]
        fitting = [
            w
            for w in self.mine
            if remaining[w.index] > 0 and w.length + self.shop.allowance.length <= p.x1 - p.x0
        ]
        tried: list[tuple[int, list[ItemType]]] = rows
        for _ in range(2):
            for low, (item_type, *behind) in tried:
                if remaining[item_type.index] <= 0:
                    continue
                for start in self.strips.starts(p.x0, p.x1, y0, slope, max(at, low), item_type):
                    base = start if lowest < 0 else lowest
                    laid = self.strips.strip(
                        item_type,
                        p.x0,
                        p.x1,
                        y0,
                        slope,
                        start,
                        high,
                        base,
                        need,
                        fitting,
                        remaining,
                        profits,
                        behind,
                    )
                    if laid and laid.strip:
                        break
                else:
                    continue
                strips.append(laid.strip)
                lowest = laid.strip.y0 if lowest < 0 else lowest
                need, total = max(need, laid.need), total + laid.profits
                for index, amount in laid.taken:
                    remaining[index] -= amount
                    taken.append((index, amount))
                at = laid.strip.y1 + self.shop.kerf.rip
            tried = [
                (0, [w]) for w in sorted(fitting, key=lambda w: -w.width) if remaining[w.index] > 0
            ]
            if high - at < self.proposer.narrowest:
                break
        if not strips:
            return None
        # A segment is cut no longer than what lies in it.
        x1 = max(blank.x1 for strip in strips for blank in strip.blanks)
        x1 = p.x1 if p.x1 - x1 < self.shop.min_blank_length else x1
        return Laid(
            total, None, PatternSegment(p.x0, x1, y0, slope, tuple(strips)), tuple(taken), need
        )

    def _flatness(
        self, x0: int, x1: int, y0: int, slope: float, high: int, needs: Floats
    ) -> Flatness:
        """How thick a stretch comes out flat that is milled in one piece, and a narrow strip of it
        for those of these thicknesses that the whole is too thin for.
        """
        if high <= 0:
            return Flatness(math.inf)
        whole = self.strips.slab(x0, x1, y0, slope, 0, high)
        narrow = self.proposer.narrowest_over(whole, needs)
        if narrow is None or high <= narrow:
            return Flatness(whole)
        low = (high - narrow) // 2
        strip = self.strips.slab(x0, x1, y0, slope, low, low + narrow)
        return Flatness(whole, strip, narrow)

    def _beyond(self, at: int) -> int:
        """Where to look next when nothing begins here: behind the next fault, or a little
        further.
        """
        ends = [d.x1 for d in self.board.boxed if not d.sound and d.x1 > at]
        return min(min(ends, default=self.board.length), at + self.shop.min_blank_length // 2)

    def _filled(self, c: "_Cut", remaining: Sequence[int]) -> CuttingPattern:
        return CuttingPattern(
            c.segments,
            tuple(
                (i, a - b)
                for i, (a, b) in enumerate(zip(remaining, c.remaining, strict=True))
                if a != b
            ),
        )

    @cached_property
    def proposer(self) -> Proposer:
        step = TICKS_PER_INCH // 64 if self.mark == TICKS_PER_INCH // 64 else self.mark
        return Proposer(
            self.stretches,
            self.shop,
            self.mine,
            self.mark,
            step,
            self._alone,
            self.strips.preference,
        )

    @cached_property
    def _flat_whole(self) -> float:
        """How thick the board comes out if it is flattened whole."""
        low, high = min(s.y0 for s in self.board.stations), max(s.y1 for s in self.board.stations)
        return self.strips.slab(0, self.board.length, low, 0.0, 0, high - low)

    def _alone(self, item_type: ItemType) -> bool:
        """Whether a blank of this want would be flat enough in the middle of the board or at an
        end.
        """
        if self.shop.method != "rough-rip":
            return True
        shop = self.shop
        long = max(item_type.length + shop.allowance.length, shop.min_blank_length)
        width = (item_type.stave_least or item_type.width) + shop.allowance.width
        need = item_type.thickness + shop.allowance.face
        if self._flat_whole >= need:  # then any part of it is
            return True
        free = self.board.length - 2 * shop.end_trim - long
        for share in (0.5, 0.0, 1.0):
            x0 = shop.end_trim + int(free * share)
            band = self.stretches.band(x0, x0 + long)
            if band and band[2] >= width:
                for low in {0, (band[2] - width) // 2, band[2] - width}:
                    if self.strips.slab(x0, x0 + long, band[0], band[1], low, low + width) >= need:
                        return True
        return False
