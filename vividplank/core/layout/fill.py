"""Filling one board: segment by segment, strip by strip, blank by blank, greedily with some chance.

Everything here keeps the rules of the exchange page by construction; the audit, which shares no
code with it, says whether it does.
"""

import random
from bisect import insort
from collections.abc import Sequence
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np

from vividplank.core.board import Board, Region, flat_slab, same_species
from vividplank.core.cutlist import Faces
from vividplank.core.layout.want import Want
from vividplank.core.shop import Shop

#: h(R) is a float: a slab short of the need by a hundred-thousandth of a hair (1e-7 in) is enough.
SLAB_TOLERANCE = 0.001


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
    """What one board gives: its segments, and how many lumps of each want (net ticks for a panel)."""

    segments: tuple[FilledSegment, ...]
    taken: tuple[tuple[int, int], ...]


EMPTY = Fill((), ())


@dataclass
class _Laid:
    """A strip or segment under trial: what it would hold and how much that is worth."""

    worth: float = 0.0
    cost: float = 1.0
    strip: FilledStrip | None = None
    segment: FilledSegment | None = None
    taken: tuple[tuple[int, int], ...] = ()
    need: int = 0


class Filler:
    """Fills one board for the demand it is given."""

    def __init__(self, board: Board, shop: Shop, wants: Sequence[Want], mark: int) -> None:
        self.board = board
        self.mark = mark  # staves are ripped to whole marks of the rule, where that is wide enough
        self.shop = shop
        self.wants = wants
        self.lane = shop.method == "mill-wide"
        self.slabs: dict[tuple[int, int, float, float, int, int], float] = {}
        self.bands: dict[tuple[int, int], list[tuple[int, float, int]]] = {}
        self.mine = [
            w for w in wants
            if same_species(w.species, board.species) and w.thickness + shop.allowance.face <= board.thickest
            and max(w.length + shop.allowance.length, shop.min_blank_length) <= board.length - 2 * shop.end_trim
            and (w.stave_min or w.width) + shop.allowance.width <= board.widest
        ]

        self.mine_indexes = {w.index for w in self.mine}

    def slab(self, x0: int, x1: int, y0: float, slope: float, h0: int, h1: int) -> float:
        """h(R), remembered."""
        key = (x0, x1, y0, slope, h0, h1)
        if key not in self.slabs:
            if len(self.slabs) > 200_000:
                self.slabs.clear()
            self.slabs[key] = flat_slab(self.board, Region(x0, x1, y0, slope, h0, h1)).thickness + SLAB_TOLERANCE
        return self.slabs[key]

    def fill(self, left: list[int], worth: Sequence[float], rng: random.Random) -> Fill:
        """Lay what is left (lumps, or net ticks of a panel) on the whole board; `left` is not changed."""
        left = list(left)
        taken = [0] * len(self.wants)
        segments: list[FilledSegment] = []
        kerf = self.shop.kerf.crosscut
        at, end = self.shop.end_trim, self.board.length - self.shop.end_trim
        shortest = self.shop.min_blank_length
        while end - at >= shortest:
            open_wants = [w for w in self.mine if left[w.index] > 0]
            if not open_wants:
                break
            best: _Laid | None = None
            for x0, x1 in self._stretches(at, end, open_wants, rng):
                laid = self._segment(x0, x1, open_wants, left, worth, rng)
                if laid is None:
                    continue
                laid.cost = x1 - at + kerf
                if best is None or laid.worth * best.cost > best.worth * laid.cost:
                    best = laid
            if best is None or best.segment is None:
                at += self.shop.min_blank_length // 2  # nothing begins here; look further along
                continue
            segments.append(best.segment)
            for index, amount in best.taken:
                left[index] -= amount
                taken[index] += amount
            at = best.segment.x1 + kerf
        return Fill(tuple(segments), tuple((i, n) for i, n in enumerate(taken) if n))

    def _stretches(self, at: int, end: int, wants: list[Want], rng: random.Random) -> list[tuple[int, int]]:
        """Some segments worth trying from `at` on."""
        shop = self.shop
        starts = [at]
        for defect in self.board.defects:
            if not defect.sound and at < defect.x1 < at + 24 * 8128 and defect.x0 < at + shop.min_blank_length:
                starts.append(defect.x1)
        lengths: set[int] = set()
        for want in rng.sample(wants, min(5, len(wants))):
            one = max(want.length + shop.allowance.length, shop.min_blank_length)
            lengths.add(one)
            if not want.is_run:
                most = (end - at - shop.allowance.length + shop.kerf.crosscut) // (want.length + shop.kerf.crosscut)
                if most >= 2:
                    n = rng.randint(2, max(2, min(most, 4)))
                    lengths.add(max(n * (want.length + shop.kerf.crosscut) - shop.kerf.crosscut
                                    + shop.allowance.length, shop.min_blank_length))
        lengths.add(end - at)
        found = [(x0, x0 + n) for x0 in starts for n in sorted(lengths) if x0 + n <= end]
        if not found:
            return [(x0, end) for x0 in starts if end - x0 >= shop.min_blank_length]
        return found

    def _band(self, x0: int, x1: int) -> list[tuple[int, float, int]]:
        """Reference lines for a segment, as (y0, slope, width clear above the line), widest first."""
        if (x0, x1) in self.bands:
            return self.bands[x0, x1]
        xs = [x0, *(s.x for s in self.board.stations if x0 < s.x < x1), x1]
        edges = [self.board.edges(x) for x in xs]
        run = x1 - x0
        lower = (edges[-1][0] - edges[0][0]) / run
        upper = (edges[-1][1] - edges[0][1]) / run
        found: list[tuple[int, float, int]] = []
        for slope in {0.0, lower, upper, (lower + upper) / 2}:
            slope = min(max(slope, -self.shop.max_slope), self.shop.max_slope)
            slope = float(f"{slope:.6f}") if abs(slope) < self.shop.max_slope else slope
            y0 = max(e[0] - slope * (x - x0) for e, x in zip(edges, xs, strict=True))
            y0 = int(-(-y0 // 1))
            high = int(min(e[1] - slope * (x - x0) for e, x in zip(edges, xs, strict=True)) - y0)
            if high > 0:
                found.append((y0, slope, high))
        found.sort(key=lambda line: (-line[2], abs(line[1])))
        self.bands[x0, x1] = found[:1] if len(found) < 2 or found[0][2] - found[1][2] > 1000 else found[:2]
        return self.bands[x0, x1]

    def _segment(
        self, x0: int, x1: int, wants: list[Want], left: list[int], worth: Sequence[float], rng: random.Random
    ) -> _Laid | None:
        """The best of a few trials of cutting x0..x1 into strips."""
        bands = self._band(x0, x1)
        if not bands:
            return None
        y0, slope, high = rng.choice(bands)
        run = x1 - x0
        fitting = [w for w in wants if w.length + self.shop.allowance.length <= run and left[w.index] > 0]
        if not fitting:
            return None
        left = list(left)
        strips: list[FilledStrip] = []
        total = 0.0
        taken: list[tuple[int, int]] = []
        at, lowest, need = 0, -1, 0
        leads = self._leads(run, high, fitting, left, worth, rng)
        while fitting:
            best: _Laid | None = None
            lead = leads.pop(0) if leads else None
            tried = [lead] if lead and left[lead.index] > 0 else rng.sample(fitting, min(6, len(fitting)))
            for want in tried:
                for start in self._starts(x0, x1, y0, slope, at, want):
                    low = start if lowest < 0 else lowest
                    laid = self._strip(want, x0, x1, y0, slope, start, high, low, need, fitting, left, worth)
                    if laid is None:
                        continue
                    laid.worth *= 1 + 0.25 * rng.random()
                    if best is None or laid.worth * best.cost > best.worth * laid.cost:
                        best = laid
            if best is None or best.strip is None:
                if lead:
                    continue
                break
            strips.append(best.strip)
            lowest = best.strip.y0 if lowest < 0 else lowest
            need = max(need, best.need)
            total += best.worth
            for index, amount in best.taken:
                left[index] -= amount
                taken.append((index, amount))
            at = best.strip.y1 + self.shop.kerf.rip
            fitting = [w for w in fitting if left[w.index] > 0]
        if not strips:
            return None
        return _Laid(total, 1.0, None, FilledSegment(x0, x1, y0, slope, tuple(strips)), tuple(taken), need)

    def _leads(
        self, run: int, high: int, fitting: list[Want], left: list[int], worth: Sequence[float], rng: random.Random
    ) -> list[Want]:
        """Wants whose strips fill the width best, in any order: a knapsack over the width in 64ths.

        Judged by length and width alone; whether a strip holds where it comes to lie is asked when it is laid.
        """
        grain = self.mark
        kerf = self.shop.kerf.rip
        room = (high + kerf) // grain
        items: list[tuple[int, float, Want]] = []
        for want in rng.sample(fitting, min(24, len(fitting))):
            width = want.width if not want.is_panel else min(want.stave_max, max(want.stave_min, left[want.index]))
            size = -(-(width + self.shop.allowance.width + kerf) // grain)
            each = (run - self.shop.allowance.length + self.shop.kerf.crosscut) // (want.length + self.shop.kerf.crosscut)
            if size > room or each < 1:
                continue
            if want.is_panel:
                gain, rows = want.volume * width / want.width * each, 1
            else:
                in_a_row = min(each, left[want.index])
                gain, rows = float(want.volume * in_a_row), min(3, -(-left[want.index] // in_a_row))
            gain *= worth[want.index] * (0.9 + 0.2 * rng.random())
            items += [(size, gain, want)] * rows
        if not items:
            return []
        best = np.zeros(room + 1)
        took = np.zeros((len(items), room + 1), dtype=bool)
        for k, (size, gain, _) in enumerate(items):
            with_it = best[: room + 1 - size] + gain
            took[k, size:] = with_it > best[size:]
            best[size:] = np.where(took[k, size:], with_it, best[size:])
        chosen: list[Want] = []
        at = room
        for k in range(len(items) - 1, -1, -1):
            if took[k, at]:
                chosen.append(items[k][2])
                at -= items[k][0]
        rng.shuffle(chosen)
        return chosen

    def _starts(self, x0: int, x1: int, y0: int, slope: float, at: int, want: Want) -> list[int]:
        """Where a strip may begin: here, or just above a fault that is in the way."""
        width = (want.stave_min or want.width) + self.shop.allowance.width
        found = [at]
        for d in self.board.defects:
            if d.x1 <= x0 or d.x0 >= x1:
                continue
            lines = (y0 + slope * (max(d.x0, x0) - x0), y0 + slope * (min(d.x1, x1) - x0))
            bottom, top = d.y0 - max(lines), d.y1 - min(lines)
            if bottom < at + width and at < top:
                found.append(int(top) + 1)
        return found

    def _strip(
        self, want: Want, x0: int, x1: int, y0: int, slope: float, start: int, high: int, low: int, need: int,
        fitting: list[Want], left: list[int], worth: Sequence[float],
    ) -> _Laid | None:
        """A strip led by `want` from `start` up, filled along its length; None where it does not hold."""
        shop = self.shop
        room = high - start - shop.allowance.width
        if want.is_panel:
            net = min(want.stave_max, room, max(left[want.index], want.stave_min))
            if net < want.stave_min:
                return None
            rest = left[want.index] - net
            if 0 < rest < want.stave_min:  # share it, so that the next stave is no wider than it must be
                net = max(want.stave_min, min(net, -(-left[want.index] // 2)))
            if net - net % self.mark >= want.stave_min:
                net -= net % self.mark
        else:
            net = want.width
            if net > room:
                return None
        top = start + net + shop.allowance.width
        face = shop.allowance.face
        if self.lane:
            slab = self.slab(x0, x1, y0, slope, low, top)
            if slab < max(need, want.thickness + face):
                return None
        else:
            slab = float(self.board.thickest)  # each blank is asked by itself
        layers = 1
        if not want.is_run and (left[want.index] > 1 or want.is_panel):
            layers = max(1, int((slab + shop.kerf.resaw) // (want.thickness + face + shop.kerf.resaw)))
            layers = min(layers, left[want.index] if not want.is_panel else 1)
        modes: list[tuple[Faces, str]] = [(want.faces, side) for side in ("A", "B")]
        if want.faces != "clear-one":
            modes = modes[:1]
        best: _Laid | None = None
        for count in {layers, 1}:
            for faces, side in modes:
                clear = self._clear(x0, x1, y0, slope, start, top, faces, side, count > 1)
                laid = self._along(want, clear, x0, y0, slope, start, top, net, faces, count, slab, fitting, left,
                                   worth)
                if laid and (best is None or laid.worth > best.worth):
                    best = laid
        if best:
            best.cost = top - start + shop.kerf.rip
            if self.lane and best.need > slab:
                return None
        return best

    def _clear(
        self, x0: int, x1: int, y0: int, slope: float, low: int, top: int, faces: Faces, side: str, resawn: bool
    ) -> list[tuple[int, int]]:
        """Stretches of the strip free of what `faces` does not allow (with `side` as the clear face)."""
        blocked: list[tuple[int, int]] = []
        for d in self.board.defects:
            if d.x1 <= x0 or d.x0 >= x1:
                continue
            if d.sound:
                if faces == "sound":
                    continue
                if faces == "clear-one" and not resawn and d.face not in (side, "both"):
                    continue
            left, right = max(d.x0, x0), min(d.x1, x1)
            lines = (y0 + slope * (left - x0), y0 + slope * (right - x0))
            if max(lines) + top > d.y0 and min(lines) + low < d.y1:
                insort(blocked, (left, right))
        clear: list[tuple[int, int]] = []
        at = x0
        for left, right in blocked:
            if left > at:
                clear.append((at, left))
            at = max(at, right)
        if at < x1:
            clear.append((at, x1))
        return clear

    def _along(
        self, lead: Want, clear: list[tuple[int, int]], x0: int, y0: int, slope: float, low: int, top: int, net: int,
        faces: Faces, layers: int, slab: float, fitting: list[Want], left: list[int], worth: Sequence[float],
    ) -> _Laid | None:
        """Blanks along the clear stretches: the lead first, then whatever else fits its strip."""
        shop = self.shop
        kerf = shop.kerf.crosscut
        others = [
            w for w in fitting
            if w is not lead and not w.is_panel and w.width <= net and w.thickness <= lead.thickness
            and _at_least(faces, w.faces)
        ]
        others.sort(key=lambda w: (w.width * w.thickness, w.length), reverse=True)
        order = [lead, *others]
        used: dict[int, int] = {}
        blanks: list[FilledBlank] = []
        total = 0.0
        lead_laid = False
        for a, b in clear:
            at = a
            while b - at >= shop.min_blank_length:
                line = y0 + slope * (at - x0)
                blank = self._blank(order, at, b, line, slope, low, top, net, layers, slab, left, used)
                if blank is None:
                    break
                laid, amounts = blank
                for index, amount in amounts.items():
                    used[index] = used.get(index, 0) + amount
                    want = self.wants[index]
                    if want.is_panel:
                        before = min(left[index], used[index] - amount)
                        gain = min(left[index], used[index]) - before
                        total += worth[index] * want.volume * gain / want.width
                    else:
                        total += worth[index] * want.volume * amount
                lead_laid = lead_laid or lead.index in amounts
                blanks.append(laid)
                at = laid.x1 + kerf
        if not lead_laid:
            return None
        thickest = max(
            len(k.layers) * (max(self.wants[i].thickness for layer in k.layers for i in layer) + shop.allowance.face)
            + (len(k.layers) - 1) * shop.kerf.resaw
            for k in blanks
        )
        return _Laid(total, 1.0, FilledStrip(low, top, tuple(blanks)), None, tuple(used.items()), thickest)

    def _blank(
        self, order: list[Want], at: int, end: int, line: float, slope: float, low: int, top: int, net: int,
        layers: int, slab: float, left: list[int], used: dict[int, int],
    ) -> tuple[FilledBlank, dict[int, int]] | None:
        """One blank from `at`: end to end as far as that holds, in as many layers as asked."""
        shop = self.shop
        kerf = shop.kerf.crosscut
        room = end - at - shop.allowance.length
        laid: list[tuple[int, ...]] = []
        amounts: dict[int, int] = {}
        longest = 0
        thickest = 0
        for _ in range(layers):
            sequence: list[int] = []
            length = -kerf
            for want in order:
                # A run keeps to itself, and a blank once begun takes no thicker layer than its first.
                if want.is_run and (layers > 1 or sequence or laid):
                    continue
                if thickest and want.thickness > thickest:
                    continue
                while left[want.index] - used.get(want.index, 0) - amounts.get(want.index, 0) > 0:
                    longer = length + kerf + want.length
                    if longer > room:
                        break
                    if not self.lane and sequence and longer + shop.allowance.length > shop.min_blank_length:
                        break  # sawn free one by one, a blank is better short: flatness costs its square
                    thick = max(thickest, want.thickness)
                    if not self._holds(thick, layers, at, longer, line, slope, low, top, slab):
                        break
                    sequence.append(want.index)
                    length = longer
                    thickest = max(thickest, want.thickness)
                    amounts[want.index] = amounts.get(want.index, 0) + (net if want.is_panel else 1)
                    if want.is_run:
                        break
                if sequence and self.wants[sequence[0]].is_run:
                    break
            if not sequence:
                break
            laid.append(tuple(sequence))
            longest = max(longest, length)
        if not laid:
            return None
        x1 = at + max(longest + shop.allowance.length, shop.min_blank_length)
        return FilledBlank(at, x1, tuple(laid)), amounts

    def _holds(
        self, thickest: int, layers: int, at: int, length: int, line: float, slope: float, low: int, top: int,
        slab: float,
    ) -> bool:
        """Whether a blank of this length is flat enough for its layers."""
        shop = self.shop
        need = layers * (thickest + shop.allowance.face) + (layers - 1) * shop.kerf.resaw
        if self.lane:
            return need <= slab
        x1 = at + max(length + shop.allowance.length, shop.min_blank_length)
        return need <= self.slab(at, x1, line, slope, low, top)


def _at_least(have: Faces, wanted: Faces) -> bool:
    """Whether a stretch cleared for `have` serves a part that asks for `wanted`."""
    rank = {"clear-two": 2, "clear-one": 1, "sound": 0}
    return rank[have] >= rank[wanted]
