"""Filling one strip of a segment: which stretches are clear, and what goes end to end along
them.
"""

from bisect import insort
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from math import ceil, floor, isfinite

from vividplank.core.board import Board, Region, flat_slab
from vividplank.core.cutlist import Faces
from vividplank.core.layout.model.faces import CLEAR
from vividplank.core.layout.model.figure import FigurePreference
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.pattern import PatternBlank, PatternSegment, PatternStrip
from vividplank.core.layout.model.plan import Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop

#: h(R) is a float: a slab short of the need by a hundred-thousandth of a hair (1e-7 in) is enough.
SLAB_TOLERANCE = 0.001


#: Bits of a board are first looked at on these grids, outward: coarse ones are met again and again.
_GRIDS = (6 * TICKS_PER_INCH, TICKS_PER_INCH)
#: On a line aslant a strip stays so far (ticks) off a fault that reckoning in floating point
#: cannot make them overlap.
_HAIR = 1e-6


@dataclass
class Laid:
    """A strip or segment under trial: what it would hold and how much that is worth."""

    profits: float = 0.0
    strip: PatternStrip | None = None
    segment: PatternSegment | None = None
    taken: tuple[tuple[int, int], ...] = ()
    need: int = 0


class Strips:
    """Strips of one board. `mark` is the smallest step of the rule that staves are ripped to."""

    def __init__(self, board: Board, shop: Shop, item_types: Sequence[ItemType], mark: int) -> None:
        self.board = board
        self.mark = mark
        self.shop = shop
        self.item_types = item_types
        self.preference = FigurePreference(board, item_types)
        self.lane = shop.method == "mill-wide"
        self.sound = any(d.sound for d in board.boxed)
        self.slabs: dict[tuple[int, int, float, float, int, int], float] = {}

    def slab(
        self, x0: int, x1: int, y0: float, slope: float, h0: int, h1: int, need: float = 0.0
    ) -> float:
        """h(R), remembered; less than that where a bit around R is already flat enough for `need`
        and for every item type.
        """
        # Where thickness and width do not change, warp costs a place what it costs any other of its
        # size.
        if self.board.even:
            return self._slab((0, x1 - x0, 0.0, slope, 0, h1 - h0))
        lines = (y0, y0 + slope * (x1 - x0))
        low, high = min(lines) + h0, max(lines) + h1
        for grid in _GRIDS if isfinite(self.enough) else ():
            remaining, bottom = x0 // grid * grid, floor(low / grid) * grid
            right, top = min(-(-x1 // grid) * grid, self.board.length), -floor(-high / grid) * grid
            around = self._slab((remaining, right, 0.0, 0.0, bottom, top))
            if around >= max(need, self.enough):
                return around
        return self._slab((x0, x1, y0, slope, h0, h1))

    def _slab(self, key: tuple[int, int, float, float, int, int]) -> float:
        if key not in self.slabs:
            if len(self.slabs) > 200_000:
                self.slabs.clear()
            self.slabs[key] = flat_slab(self.board, Region(*key)).thickness + SLAB_TOLERANCE
        return self.slabs[key]

    @cached_property
    def enough(self) -> float:
        """Flat thickness that is as good as any more: for the thickest want, where none can be
        resawn.
        """
        face, thickest = self.shop.allowance.face, self.board.thickest
        thin = [w.thickness for w in self.item_types if w.thickness + face <= thickest]
        resawn = not thin or self.shop.flat_for(min(thin), 2) <= thickest
        return float("inf") if resawn else float(max(thin) + face)

    def starts(
        self, x0: int, x1: int, y0: int, slope: float, at: int, item_type: ItemType
    ) -> list[int]:
        """Where a strip may begin: here, or just above a fault that is in the way."""
        width = (item_type.stave_least or item_type.width) + self.shop.allowance.width
        found = [at]
        for d in self.board.boxed:
            if d.x1 <= x0 or d.x0 >= x1:
                continue
            lines = (y0 + slope * (max(d.x0, x0) - x0), y0 + slope * (min(d.x1, x1) - x0))
            bottom, top = d.y0 - max(lines), d.y1 - min(lines)
            if bottom < at + width and at < top:
                found.append(self.mark * ceil((top + (_HAIR if slope else 0.0)) / self.mark))
        return found

    def strip(
        self,
        item_type: ItemType,
        x0: int,
        x1: int,
        y0: int,
        slope: float,
        start: int,
        high: int,
        low: int,
        need: int,
        fitting: list[ItemType],
        remaining: list[int],
        profits: Sequence[float],
        behind: Sequence[ItemType] = (),
    ) -> Laid | None:
        """A strip led by `want` from `start` up, filled along its length, first with those that are
        to lie behind it.

        None where it does not hold.
        """
        shop = self.shop
        room = high - start - shop.allowance.width
        if item_type.is_panel:
            net = min(
                item_type.stave_max, room, max(remaining[item_type.index], item_type.stave_least)
            )
            if net < item_type.stave_least:
                return None
            rest = remaining[item_type.index] - net
            if (
                0 < rest < item_type.stave_least
            ):  # share it, so that the next stave is no wider than it must be
                net = max(item_type.stave_least, min(net, -(-remaining[item_type.index] // 2)))
            if rest <= 0:  # the last one: a mark too wide rather than a hair too narrow
                net = min(net + -net % self.mark, item_type.stave_max, room)
            elif net - net % self.mark >= item_type.stave_least:
                net -= net % self.mark
        else:
            net = item_type.width
            if net > room:
                return None
        top = start + net + shop.allowance.width
        face = shop.allowance.face
        if self.lane:
            slab = self.slab(x0, x1, y0, slope, low, top, need)
            if slab < max(need, item_type.thickness + face):
                return None
        else:
            slab = float(self.board.thickest)  # each blank is asked by itself
        layers = 1
        if not item_type.is_run and (remaining[item_type.index] > 1 or item_type.is_panel):
            layers = max(1, shop.layers_in(slab, item_type.thickness))
            if item_type.is_panel:
                # As many staves as the panel still asks for; without an allowance for layers they
                # would not be as thick as the others when they are glued.
                asked = -(-remaining[item_type.index] // net)
                layers = min(layers, asked) if shop.allowance.layer else 1
            else:
                layers = min(layers, remaining[item_type.index])
        modes: list[tuple[Faces, str]] = [(item_type.faces, side) for side in ("A", "B")]
        if item_type.faces != "clear-one":
            modes = modes[:1]
        if not self.sound:  # then all faces are as clear as the best
            modes = [("clear-two", "A")]
        elif any(not _at_least(item_type.faces, w.faces) for w in behind):
            modes.append((max((w.faces for w in behind), key=CLEAR.__getitem__), "A"))
        best: Laid | None = None
        for count in {layers, 1}:
            before: list[tuple[int, int]] | None = None
            for faces, side in modes:
                clear = self._clear(x0, x1, y0, slope, start, top, faces, side, count > 1)
                if clear == before and faces == item_type.faces:
                    continue  # the other face is as clear
                before = clear
                laid = self._along(
                    item_type,
                    clear,
                    x0,
                    y0,
                    slope,
                    start,
                    top,
                    net,
                    faces,
                    count,
                    slab,
                    fitting,
                    remaining,
                    profits,
                    behind,
                )
                if laid and (best is None or laid.profits > best.profits):
                    best = laid
        return None if best and self.lane and best.need > slab else best

    def beside(
        self,
        segment: Segment,
        need: int,
        height: tuple[int, int],
        item_types: list[ItemType],
        remaining: list[int],
        profits: Sequence[float],
    ) -> list[Laid]:
        """What goes into a segment beside the strips and blanks it has: along its strips, then
        across between them.

        `need` is the thickness those ask for, `height` from where to where over its line the board
        reaches. `left` is not changed.
        """
        shop, rip = self.shop, self.shop.kerf.rip
        remaining = list(remaining)
        found: list[Laid] = []
        there = sorted((s.y0, s.y1) for s in segment.strips)
        low, top = there[0][0], there[-1][1]

        def take(laid: Laid) -> None:
            found.append(laid)
            for index, amount in laid.taken:
                remaining[index] -= amount

        for strip in segment.strips:
            taken = [(b.x0 - shop.kerf.crosscut, b.x1 + shop.kerf.crosscut) for b in strip.blanks]
            laid = self._along_pinned(
                segment, strip, taken, item_types, remaining, profits, (low, top)
            )
            if laid:
                take(laid)
        edges = [height[0] - rip, *(y for pair in there for y in pair), height[1] + rip]
        for bottom, above in zip(edges[::2], edges[1::2], strict=True):
            at, high = bottom + rip, above - rip
            for item_type in sorted(item_types, key=lambda w: -w.width):
                while remaining[item_type.index] > 0:
                    one = self.strip(
                        item_type,
                        segment.x0,
                        segment.x1,
                        int(segment.y0),
                        segment.slope,
                        at,
                        high,
                        min(low, at),
                        need,
                        item_types,
                        remaining,
                        profits,
                    )
                    if one is None or one.strip is None:
                        break
                    if not self._flat_together(segment, one.strip, (low, top), max(need, one.need)):
                        break
                    take(one)
                    low, top, at = (
                        min(low, one.strip.y0),
                        max(top, one.strip.y1),
                        one.strip.y1 + rip,
                    )
        return found

    def _along_pinned(
        self,
        segment: Segment,
        strip: Strip,
        taken: list[tuple[int, int]],
        item_types: list[ItemType],
        remaining: list[int],
        profits: Sequence[float],
        reach: tuple[int, int],
    ) -> Laid | None:
        """The best that goes along a strip beside what is pinned in it."""
        net = strip.y1 - strip.y0 - self.shop.allowance.width
        slab = (
            self.slab(segment.x0, segment.x1, segment.y0, segment.slope, *reach)
            if self.lane
            else float(self.board.thickest)
        )
        best: Laid | None = None
        for item_type in (
            w for w in item_types if remaining[w.index] > 0 and not w.is_panel and w.width <= net
        ):
            for side in ("A", "B"):
                clear = self._clear(
                    segment.x0,
                    segment.x1,
                    int(segment.y0),
                    segment.slope,
                    strip.y0,
                    strip.y1,
                    item_type.faces,
                    side,
                    False,
                )
                laid = self._along(
                    item_type,
                    _without(clear, taken),
                    segment.x0,
                    int(segment.y0),
                    segment.slope,
                    strip.y0,
                    strip.y1,
                    net,
                    item_type.faces,
                    1,
                    slab,
                    item_types,
                    remaining,
                    profits,
                    (),
                )
                if laid and laid.need <= slab and (best is None or laid.profits > best.profits):
                    best = laid
        return best

    def _flat_together(
        self, segment: Segment, strip: PatternStrip, reach: tuple[int, int], need: int
    ) -> bool:
        """Whether a segment is still flat enough for all its strips with one more."""
        low, top = min(reach[0], strip.y0), max(reach[1], strip.y1)
        return (
            not self.lane
            or self.slab(segment.x0, segment.x1, segment.y0, segment.slope, low, top, need) >= need
        )

    def _clear(
        self,
        x0: int,
        x1: int,
        y0: int,
        slope: float,
        low: int,
        top: int,
        faces: Faces,
        side: str,
        resawn: bool,
    ) -> list[tuple[int, int]]:
        """Stretches of the strip free of what `faces` does not allow (with `side` as the clear
        face).
        """
        blocked: list[tuple[int, int]] = []
        for d in self.board.boxed:
            if d.x1 <= x0 or d.x0 >= x1:
                continue
            if d.sound:
                if faces == "sound":
                    continue
                if faces == "clear-one" and not resawn and d.face not in (side, "both"):
                    continue
            remaining, right = max(d.x0, x0), min(d.x1, x1)
            lines = (y0 + slope * (remaining - x0), y0 + slope * (right - x0))
            if max(lines) + top > d.y0 and min(lines) + low < d.y1:
                insort(blocked, (remaining, right))
        clear: list[tuple[int, int]] = []
        at = x0
        for remaining, right in blocked:
            if remaining > at:
                clear.append((at, remaining))
            at = max(at, right)
        if at < x1:
            clear.append((at, x1))
        return clear

    def _along(
        self,
        lead: ItemType,
        clear: list[tuple[int, int]],
        x0: int,
        y0: int,
        slope: float,
        low: int,
        top: int,
        net: int,
        faces: Faces,
        layers: int,
        slab: float,
        fitting: list[ItemType],
        remaining: list[int],
        profits: Sequence[float],
        behind: Sequence[ItemType],
    ) -> Laid | None:
        """Blanks along the clear stretches: the lead first, then whatever else fits its strip."""
        shop = self.shop
        kerf = shop.kerf.crosscut
        # What is left for others: beside the lead, or on another clear stretch.
        spare = max((b - a for a, b in clear), default=0) - (
            lead.length + kerf if len(clear) == 1 and layers == 1 else 0
        )
        others = [
            w
            for w in fitting
            if w.length <= spare
            and w.width <= net
            and w is not lead
            and not w.is_panel
            and _at_least(faces, w.faces)
        ]
        others.sort(key=lambda w: (w in behind, w.width * w.thickness, w.length), reverse=True)
        order = [lead, *others]
        used: dict[int, int] = {}
        blanks: list[PatternBlank] = []
        total = 0.0
        lead_laid = False
        for a, b in clear:
            at = a
            while b - at >= shop.min_blank_length:
                line = y0 + slope * (at - x0)
                blank = self._blank(
                    order, at, b, line, slope, low, top, net, layers, slab, remaining, used
                )
                if blank is None:
                    break
                laid, amounts = blank
                place = Region(laid.x0, laid.x1, line, slope, low, top)
                for index, amount in amounts.items():
                    used[index] = used.get(index, 0) + amount
                    item_type = self.item_types[index]
                    liked = self.preference.factor(index, place)
                    if item_type.is_panel:
                        before = min(remaining[index], used[index] - amount)
                        gain = min(remaining[index], used[index]) - before
                        total += liked * profits[index] * item_type.volume * gain / item_type.width
                    else:
                        total += liked * profits[index] * item_type.volume * amount
                lead_laid = lead_laid or lead.index in amounts
                blanks.append(laid)
                at = laid.x1 + kerf
        if not lead_laid:
            return None
        thickest = max(
            shop.flat_for(
                max(self.item_types[i].thickness for layer in k.layers for i in layer),
                len(k.layers),
            )
            for k in blanks
        )
        return Laid(
            total, PatternStrip(low, top, tuple(blanks)), None, tuple(used.items()), thickest
        )

    def _blank(
        self,
        order: list[ItemType],
        at: int,
        end: int,
        line: float,
        slope: float,
        low: int,
        top: int,
        net: int,
        layers: int,
        slab: float,
        remaining: list[int],
        used: dict[int, int],
    ) -> tuple[PatternBlank, dict[int, int]] | None:
        """One blank from `at`: end to end as far as that holds, in as many layers as asked."""
        shop = self.shop
        room = end - at - shop.allowance.length
        laid: list[tuple[int, ...]] = []
        amounts: dict[int, int] = {}
        longest = 0
        thickest = 0
        for _ in range(layers):
            sequence: list[int] = []
            length = -shop.apart
            for item_type in order:
                # A run keeps to itself, and a blank once begun takes no thicker layer than its
                # first.
                if item_type.is_run and (layers > 1 or sequence or laid):
                    continue
                if thickest and item_type.thickness > thickest:
                    continue
                while (
                    remaining[item_type.index]
                    - used.get(item_type.index, 0)
                    - amounts.get(item_type.index, 0)
                    > 0
                ):
                    longer = length + shop.apart + item_type.length
                    if longer > room:
                        break
                    if (
                        not self.lane
                        and sequence
                        and longer + shop.allowance.length > shop.min_blank_length
                    ):
                        # sawn free one by one, a blank is better short: flatness costs its square
                        break
                    thick = max(thickest, item_type.thickness)
                    if not self._holds(thick, layers, at, longer, line, slope, low, top, slab):
                        break
                    sequence.append(item_type.index)
                    length = longer
                    thickest = max(thickest, item_type.thickness)
                    amounts[item_type.index] = amounts.get(item_type.index, 0) + (
                        net if item_type.is_panel else 1
                    )
                    if item_type.is_run:
                        break
                if sequence and self.item_types[sequence[0]].is_run:
                    break
            if not sequence:
                break
            laid.append(tuple(sequence))
            longest = max(longest, length)
        if not laid:
            return None
        x1 = at + max(longest + shop.allowance.length, shop.min_blank_length)
        return PatternBlank(at, x1, tuple(laid)), amounts

    def _holds(
        self,
        thickest: int,
        layers: int,
        at: int,
        length: int,
        line: float,
        slope: float,
        low: int,
        top: int,
        slab: float,
    ) -> bool:
        """Whether a blank of this length is flat enough for its layers."""
        shop = self.shop
        need = shop.flat_for(thickest, layers)
        if self.lane:
            return need <= slab
        x1 = at + max(length + shop.allowance.length, shop.min_blank_length)
        return need <= self.slab(at, x1, line, slope, low, top)


def _without(clear: list[tuple[int, int]], taken: list[tuple[int, int]]) -> list[tuple[int, int]]:
    """Stretches without those that are taken."""
    for a, b in taken:
        clear = [
            piece
            for c, d in clear
            for piece in ((c, min(d, a)), (max(c, b), d))
            if piece[1] > piece[0]
        ]
    return clear


def _at_least(have: Faces, wanted: Faces) -> bool:
    """Whether a stretch cleared for `have` serves a part that asks for `wanted`."""
    return CLEAR[have] >= CLEAR[wanted]
