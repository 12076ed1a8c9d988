"""Proposing how to cut a board: which length next, and which strips across it, so that nothing is left over.

For every length worth cutting off (that of a part, of several end to end, of two together) a knapsack over the width tells
which strips are worth most; a second one over the length tells which lengths go together to the board's end. What is
proposed is laid by the rules in fill.py, which asks every fault and every flat thickness anew.
"""

import math
import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import numpy.typing as npt

from vividplank.core.board import Board
from vividplank.core.layout.want import Want
from vividplank.core.shop import Shop

Ints = npt.NDArray[np.int64]
Floats = npt.NDArray[np.float64]
#: The reference line of a stretch and the width clear above it: y0, slope, height.
Band = tuple[int, float, int]
#: Lengths asked about at most at one place.
_RUNS = 240
#: Of these the most promising, whose strips are chosen in full.
_WEIGHED = 60
#: Lengths for which it is asked what goes together with them, and with how many others.
_FIRST, _OTHERS = 40, 60
#: What the board beyond is worth of what it would be if every length could have its favourite parts.
_HOPE = 0.92
#: Chance in the choice between lengths that promise nearly the same.
_CHANCE = (0.002, 0.01, 0.04)
#: Faults kept at most within one length.
_FAULTS = 8


@dataclass(frozen=True)
class Proposal:
    """A length to cut off, and from the bottom up how high each of its strips begins at least, which want leads it
    and which follow.

    `rest` is what the board beyond it is worth at best.
    """

    x0: int
    x1: int
    strips: tuple[tuple[int, tuple[int, ...]], ...]
    rest: float


class Proposer:
    """Proposals for one board. Widths are counted in grains of `mark` ticks, lengths along the board in `step` ticks.

    `alone` tells whether a blank of this want, by itself, would be flat enough somewhere on the board.
    """

    def __init__(
        self, board: Board, shop: Shop, wants: Sequence[Want], mark: int, step: int, alone: Callable[[Want], bool]
    ) -> None:
        self.board = board
        self.shop = shop
        self.step = step
        self.panel = {w.index: w.is_panel for w in wants}
        leads: list[tuple[Want, int]] = []
        for w in (w for w in wants if alone(w)):
            nets = {w.width}
            if w.is_panel:
                whole = max(w.stave_min, min(w.width, w.stave_max))
                nets = {w.stave_max, whole, (w.stave_max + w.stave_min) // 2, w.stave_min}
            leads += [(w, net) for net in sorted(nets, reverse=True)]
        self.lead = leads
        listed = sorted({w.index for w, _ in leads})
        self.wanted = np.array(listed, dtype=np.int64)
        self.owner = np.array([listed.index(w.index) for w, _ in leads], dtype=np.int64)
        self.unit = np.array([net if w.is_panel else 1 for w, net in leads], dtype=np.int64)
        # Milled in one piece, parts end to end in a strip share one allowance; sawn free each has its own.
        self.shared = 0 if shop.method == "rough-rip" else -(-shop.allowance.length // step)
        own = shop.allowance.length if shop.method == "rough-rip" else 0
        least = shop.min_blank_length if shop.method == "rough-rip" else 0
        self.long = np.array([-(-max(w.length + own, least) // step) for w, _ in leads], dtype=np.int64)
        across = [net + shop.allowance.width + shop.kerf.rip for _, net in leads]
        self.mark = max(mark, math.gcd(shop.kerf.rip, *across))  # nothing is gained by counting finer than the parts do
        # Sizes between the marks are rounded up; then the room is too, and what is too tight is found when it is laid.
        self.over = 0 if all(w % self.mark == 0 for w in across) else self.mark - 1
        self.wide = np.array([-(-w // self.mark) for w in across], dtype=np.int64)
        self.need = np.array([w.thickness + shop.allowance.face for w, _ in leads], dtype=np.float64)
        self.kerf = -(-shop.kerf.crosscut // step)
        self.narrowest = min(across, default=0) - shop.kerf.rip
        self.thinnest = float(self.need.min()) if leads else 0.0

    def propose(
        self, x0: int, end: int, left: Sequence[int], worth: Sequence[float], band: Callable[[int, int], Band | None],
        cap: Callable[[int, int], float], rng: random.Random, most: int,
    ) -> list[Proposal]:
        """The most promising lengths to cut off at x0, best first; `cap` is the flat thickness a stretch can have."""
        kernel = _kernel()
        stock, value = self._amounts(left, worth)
        runs = self._runs(end - x0, stock, rng, _RUNS if most > 1 else _RUNS // 5)
        if not len(runs) or not len(self.long):
            return []
        ends = [min(end, x0 + int(r) * self.step) for r in runs]
        bands = [band(x0, x1) for x1 in ends]
        room = self.shop.kerf.rip + self.over
        rooms = np.array([(b[2] + room) // self.mark if b else 0 for b in bands], dtype=np.int64)
        caps = np.array([cap(x0, x1) for x1 in ends])
        faults = self._faults(x0, ends, bands)

        def strips_of(faults: Ints) -> tuple[Ints, Floats, Ints, Ints]:
            found: tuple[Ints, Floats, Ints, Ints] = kernel.run_strips(
                runs, caps, rooms, self.shop.kerf.rip // self.mark, self.shared, faults, self.kerf, self.long, self.wide, value,
                self.need, self.owner, self.unit, stock, _WEIGHED,
            )
            return found

        many, values, strips, used = strips_of(faults)
        # Beyond this length the faults of this place are passed.
        _, after, _, uses = strips_of(np.zeros_like(faults)) if faults.any() else (many, values, strips, used)
        total = (end - x0) // self.step
        dense = float((value / ((self.long + self.kerf) * self.wide)).max())
        free = dense * np.array([self._free(x1, end) for x1 in ends])
        often = np.where(uses > 0, stock[None, :] // np.maximum(uses, 1), 4).min(axis=1)
        beyond = kernel.length_values(runs, after, np.clip(often, 1, 4), self.kerf, total)
        # What is laid here is not laid there.
        rest = _HOPE * np.minimum(beyond[np.maximum(0, total - runs - self.kerf)], free)
        rest = np.minimum(rest, np.maximum(0.0, float(value @ (stock[self.owner] / self.unit)) - values))
        others = np.argsort(-after / (runs + self.kerf))[:_OTHERS]
        for r in np.argsort(-(values + rest))[:_FIRST]:
            reached = kernel.together(total - int(runs[r]) - self.kerf, stock - used[r], runs, after, uses, others, self.kerf)
            rest[r] = max(rest[r], min(reached, free[r]))
        promise = (values + rest) * (1 + rng.choice(_CHANCE) * np.array([rng.random() for _ in runs]))
        found = []
        for r in np.argsort(-promise)[:most]:
            if values[r] <= 0:
                break
            laid = [
                (int(low) * self.mark, tuple(self.lead[i][0].index for i in led if i >= 0))
                for low, *led in strips[r, : many[r]].tolist()
            ]
            rng.shuffle(laid)
            laid.sort(key=lambda s: (s[0], self.panel[s[1][0]]))  # staves take what width is left, so they come last
            found.append(Proposal(x0, ends[r], tuple(laid), float(rest[r])))
        return found

    def _free(self, x0: int, x1: int) -> float:
        """Area between two places that no unsound fault spoils, with a kerf at its upper side; in steps by grains."""
        if x1 <= x0:
            return 0.0
        low, high = self.board.edges((x0 + x1) // 2)
        area = (x1 - x0) * (high - low + self.shop.kerf.rip)
        for d in self.board.boxed:
            if not d.sound and d.x1 > x0 and d.x0 < x1:
                area -= (min(d.x1, x1) - max(d.x0, x0)) * max(0, min(d.y1, high) - max(d.y0, low))
        return max(0.0, area / (self.step * self.mark))

    def _amounts(self, left: Sequence[int], worth: Sequence[float]) -> tuple[Ints, Floats]:
        """What is left of each want (lumps, or net ticks of a panel), and what one of each lead is worth."""
        stock = np.maximum(np.array(left, dtype=np.int64)[self.wanted], 0)
        value = np.zeros(len(self.lead))
        for k, (w, net) in enumerate(self.lead):
            there = int(stock[self.owner[k]])
            value[k] = worth[w.index] * w.volume * (min(net, there) / w.width if w.is_panel else 1)
        return stock, value

    def _runs(self, room: int, stock: Ints, rng: random.Random, most: int) -> Ints:
        """About `most` lengths that some parts fill exactly: one, several end to end, two different ones; and all there is."""
        total = room // self.step
        least = -(-self.shop.min_blank_length // self.step)
        count = -(-stock[self.owner] // self.unit)
        singles = sorted({int(b) for b in self.long[count > 0]})
        runs = {max(b + self.shared, least) for b in singles}
        for k in np.flatnonzero(count > 1):
            b = int(self.long[k])
            runs |= {max(n * b + (n - 1) * self.kerf + self.shared, least) for n in range(2, min(int(count[k]), 5) + 1)}
        there = np.flatnonzero(count > 0)
        long, wide = self.long[there], self.wide[there]
        both = long[:, None] + long[None, :] + self.kerf + self.shared
        # Two beside each other in a strip waste little where they are nearly as wide.
        alike = (wide[None, :] <= wide[:, None]) & (wide[None, :] * 8 >= wide[:, None] * 7) & (both <= total)
        np.fill_diagonal(alike, False)
        wasted = ((wide[:, None] - wide[None, :]) * long[None, :])[alike]
        sums = both[alike]
        pairs = list(dict.fromkeys(int(r) for r in sums[np.argsort(wasted, kind="stable")]))
        first = [r for r in runs if r <= total]
        if len(first) > most:
            first = rng.sample(sorted(first), most)
        second = pairs[: most // 3]
        second += rng.sample(pairs[len(second) :], min(len(pairs) - len(second), most // 6))
        found = sorted({r for r in (*first, *second, total) if least <= r <= total})
        return np.array(found, dtype=np.int64)

    def _faults(self, x0: int, ends: list[int], bands: list[Band | None]) -> Ints:
        """Unsound faults within every length: bottom and top over its line in grains, beginning and end in steps from x0."""
        near = sorted((d for d in self.board.boxed if not d.sound and d.x1 > x0), key=lambda d: d.x0)[:24]
        found = np.zeros((len(ends), _FAULTS, 4), dtype=np.int64)
        for r, (x1, band) in enumerate(zip(ends, bands, strict=True)):
            if band is None:
                continue
            y0, slope, _ = band
            k = 0
            for d in near:
                if d.x0 >= x1 or k >= _FAULTS:
                    break
                lines = (y0 + slope * (max(d.x0, x0) - x0), y0 + slope * (min(d.x1, x1) - x0))
                low, high = int((d.y0 - max(lines)) // self.mark), int(-(-(d.y1 - min(lines)) // self.mark))
                if high > 0:
                    found[r, k] = max(low, -1), high, max(0, (d.x0 - x0) // self.step), -(-(d.x1 - x0) // self.step)
                    k += 1
        return found


def _kernel() -> Any:
    """The compiled part, loaded when it is first needed."""
    from vividplank.core.layout import propose_kernel

    return propose_kernel
