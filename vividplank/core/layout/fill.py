"""Filling one board: segment by segment, strip by strip, blank by blank, greedily with some chance.

Everything here keeps the rules of the exchange page by construction; the audit, which shares no
code with it, says whether it does.
"""

import random
from collections.abc import Sequence

import numpy as np

from vividplank.core.board import Board, same_species
from vividplank.core.layout.filled import Fill, FilledSegment, FilledStrip
from vividplank.core.layout.strip import Laid, Strips
from vividplank.core.layout.want import Want
from vividplank.core.shop import Shop


class Filler:
    """Fills one board for the demand it is given."""

    def __init__(self, board: Board, shop: Shop, wants: Sequence[Want], mark: int) -> None:
        self.board = board
        self.mark = mark
        self.strips = Strips(board, shop, wants, mark)
        self.shop = shop
        self.wants = wants
        self.bands: dict[tuple[int, int], list[tuple[int, float, int]]] = {}
        self.mine = [
            w for w in wants
            if same_species(w.species, board.species) and w.thickness + shop.allowance.face <= board.thickest
            and max(w.length + shop.allowance.length, shop.min_blank_length) <= board.length - 2 * shop.end_trim
            and (w.stave_min or w.width) + shop.allowance.width <= board.widest
        ]
        self.mine_indexes = {w.index for w in self.mine}

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
            best: Laid | None = None
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
            if not defect.sound and at < defect.x1 < at + 2 * shop.min_blank_length and defect.x0 < at + shop.min_blank_length:
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
    ) -> Laid | None:
        """One trial of cutting x0..x1 into strips, from the datum edge up."""
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
            best: Laid | None = None
            lead = leads.pop(0) if leads else None
            tried = [lead] if lead and left[lead.index] > 0 else rng.sample(fitting, min(6, len(fitting)))
            for want in tried:
                for start in self.strips.starts(x0, x1, y0, slope, at, want):
                    low = start if lowest < 0 else lowest
                    laid = self.strips.strip(want, x0, x1, y0, slope, start, high, low, need, fitting, left, worth)
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
        return Laid(total, 1.0, None, FilledSegment(x0, x1, y0, slope, tuple(strips)), tuple(taken), need)

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
