"""Proposals for cutting a board: which length next, and which strips across it.

For every length worth cutting off (that of a part, of several end to end, of two together) a
knapsack over the width says which strips are worth most; a second one over the length says which
lengths go together to the board's end. What is proposed is laid by the rules in generator.py, which
asks every fault and every flat thickness anew.

Reference
---------
P. C. Gilmore, R. E. Gomory: Multistage cutting stock problems of two and more dimensions.
Operations Research 13 (1965), 94-120: staged guillotine cutting by knapsacks. Here the strips of a
stage hold three item types at most, faults are in the way, and demand is limited.
"""

import math
import random
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np

from vividplank.core.layout.model.figure import FigurePreference
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.patterns.leads import Breadth, Leads
from vividplank.core.layout.patterns.stretches import Floats, Ints, Stretches
from vividplank.core.shop import Shop

#: Lengths asked about at most at one place.
_RUNS = 120
#: Of these the most promising, whose strips are chosen in full.
_WEIGHED = 50
#: Lengths for which it is asked what goes together with them, and with how many others.
_FIRST, _OTHERS = 40, 60
#: What the board beyond is profit of what it would be if every length could have its favourite
#: parts.
_HOPE = 0.94
#: Chance in the choice between lengths that promise nearly the same.
_CHANCE = (0.002, 0.01, 0.04)
#: Narrower leads that are paired with each, and pairs kept.
_NEIGHBOURS, _PAIRS = 40, 5000
#: Faults kept at most within one length.
_FAULTS = 8


@dataclass(frozen=True)
class Proposal:
    """A length to cut off, and from the bottom up how high each of its strips begins at least,
    which want leads it and which follow.

    `rest` is what the board beyond it is worth at best.
    """

    x0: int
    x1: int
    strips: tuple[tuple[int, tuple[int, ...]], ...]
    rest: float


class Flatness(NamedTuple):
    """How thick a stretch comes out flat: all of it, and the flattest strip of it that is `width`
    wide, in ticks.
    """

    whole: float
    strip: float = 0.0
    width: int = 0


#: The flatness of x0, x1, y0, slope and height of a stretch, and the thicknesses wanted of it.
AskFlatness = Callable[[int, int, int, float, int, Floats], Flatness]


class Proposer:
    """Proposals for one board. Widths are counted in grains of `mark` ticks, lengths along the
    board in `step` ticks.

    `alone` tells whether a blank of this want, by itself, would be flat enough somewhere on the
    board.
    """

    def __init__(
        self,
        stretches: Stretches,
        shop: Shop,
        item_types: Sequence[ItemType],
        mark: int,
        step: int,
        alone: Callable[[ItemType], bool],
        preference: FigurePreference,
    ) -> None:
        self.stretches = stretches
        self.shop = shop
        self.step = step
        self.panel = {w.index: w.is_panel for w in item_types}
        leads: list[tuple[ItemType, int]] = []
        for w in (w for w in item_types if alone(w)):
            nets = {w.width}
            if w.is_panel:
                whole = max(w.stave_least, min(w.width, w.stave_max))
                nets = {w.stave_max, whole, (w.stave_max + w.stave_least) // 2, w.stave_least}
            leads += [(w, net) for net in sorted(nets, reverse=True)]
        self.lead = leads
        self.preference = preference
        self.liked = [k for k, (w, _) in enumerate(leads) if w.figure]
        listed = sorted({w.index for w, _ in leads})
        self.wanted = np.array(listed, dtype=np.int64)
        self.owner = np.array([listed.index(w.index) for w, _ in leads], dtype=np.int64)
        self.unit = np.array([net if w.is_panel else 1 for w, net in leads], dtype=np.int64)
        # Milled in one piece, parts end to end in a strip share one allowance, but for what they
        # have between them; sawn free each has its own.
        own = shop.allowance.length if shop.method == "rough-rip" else shop.allowance.between
        self.shared = -(-max(0, shop.allowance.length - own) // step)
        least = shop.min_blank_length if shop.method == "rough-rip" else 0
        self.long = np.array(
            [-(-max(w.length + own, least) // step) for w, _ in leads], dtype=np.int64
        )
        across = [net + shop.allowance.width + shop.kerf.rip for _, net in leads]
        self.mark = max(
            mark, math.gcd(shop.kerf.rip, *across)
        )  # nothing is gained by counting finer than the parts do
        # Sizes between the marks are rounded up; then the room is too, and what is too tight is
        # found when it is laid.
        self.over = 0 if all(w % self.mark == 0 for w in across) else self.mark - 1
        self.wide = np.array([-(-w // self.mark) for w in across], dtype=np.int64)
        self.need = np.array(
            [w.thickness + shop.allowance.face for w, _ in leads], dtype=np.float64
        )
        self.panels = np.array([w.is_panel for w, _ in leads], dtype=np.bool_)
        self.volume = np.array([w.volume for w, _ in leads], dtype=np.float64)
        self.width = np.array([w.width for w, _ in leads], dtype=np.float64)
        self.kerf = -(-shop.kerf.crosscut // step)
        self.least = -(-shop.min_blank_length // step)
        self.narrowest = min(across, default=0) - shop.kerf.rip
        self._across = np.array(across, dtype=np.int64) - shop.kerf.rip
        self.pairs = self._pairs()

    def propose(
        self,
        x0: int,
        end: int,
        remaining: Sequence[int],
        profits: Sequence[float],
        flatness: AskFlatness,
        rng: random.Random,
        most: int,
    ) -> list[Proposal]:
        """The most promising lengths to cut off at x0, best first. Where a length milled in one
        piece is flat enough for some parts but only a strip of it for thicker ones it is proposed
        both ways.
        """
        kernel = _kernel()
        stock, value = self._amounts(remaining, profits)
        for k in self.liked:
            value[k] *= self.preference.along(self.lead[k][0], x0)
        total, kerf = (end - x0) // self.step, self.kerf
        if not len(self.long) or total < self.least:
            return []
        leads = Leads(
            self.long, self.wide, value, self.need, self.owner, self.unit, kerf, self.shared
        )
        longest = _RUNS if most > 1 else _RUNS // 5
        runs: Ints = kernel.lengths(
            leads, stock, self.pairs, self.least, total, longest, rng.getrandbits(31)
        )
        ends = np.minimum(end, x0 + runs * self.step)
        bands = self.stretches.bands(x0, ends)
        rip = self.shop.kerf.rip
        widths = np.where(bands.high > 0, (bands.high + rip + self.over) // self.mark, 0)
        faults = self.stretches.faults_over(x0, ends, bands, self.mark, self.step, _FAULTS)
        free = self.stretches.free(ends, end, rip) / (self.step * self.mark)
        here = self.stretches.free(np.array([x0]), end, rip) / (self.step * self.mark) - free
        clear = np.clip(here / runs, 0, widths).astype(np.int64) if faults.any() else widths
        caps = np.full(len(runs), np.inf)
        if self.shop.method == "mill-wide":
            needs = self.need[(stock[self.owner] > 0) & (value > 0)]
            flat = [
                flatness(x0, x1, y0, slope, high, needs)
                for x1, y0, slope, high in zip(
                    ends.tolist(), *(b.tolist() for b in bands), strict=True
                )
            ]
            least = needs.min(initial=np.inf)
            caps = np.array([f.whole if f.whole >= least else max(f.whole, f.strip) for f in flat])
            # The same lengths again, of which a strip is led that is flatter than the whole.
            strips = [r for r, f in enumerate(flat) if f.strip > f.whole >= least]
            again = np.array([*range(len(runs)), *strips], dtype=np.int64)
            runs, ends, widths, clear = runs[again], ends[again], widths[again], clear[again]
            free, faults = free[again], faults[again]
            caps = np.append(caps, [flat[r].strip for r in strips])
            widths[len(flat) :] = [(flat[r].width + rip + self.over) // self.mark for r in strips]
            clear = np.minimum(clear, widths)
        weighed = _WEIGHED if most > 1 else _WEIGHED // 6
        best = kernel.promising(
            runs,
            caps,
            widths,
            clear,
            free,
            faults,
            total,
            rip // self.mark,
            leads,
            stock,
            Breadth(weighed, _FIRST, _OTHERS, _HOPE),
            rng.choice(_CHANCE),
            most,
            rng.getrandbits(31),
        )
        found = []
        for r, many, strips, initial, rest in zip(*(each.tolist() for each in best), strict=True):
            if initial <= 0:
                break
            laid = [
                (low * self.mark, tuple(self.lead[i][0].index for i in led if i >= 0))
                for low, *led in strips[:many]
            ]
            rng.shuffle(laid)
            laid.sort(
                key=lambda s: (s[0], self.panel[s[1][0]])
            )  # staves take what width is left, so they come last
            found.append(Proposal(x0, int(ends[r]), tuple(laid), rest))
        return found

    def narrowest_over(self, thickness: float, needs: Floats) -> int | None:
        """The width in ticks of the narrowest strip for any of `needs` that is thicker than this;
        None where none is.
        """
        thicker = needs[needs > thickness]
        if not len(thicker):
            return None
        return int(self._across[np.isin(self.need, thicker)].min())

    def _pairs(self) -> Ints:
        """Pairs of leads that waste little beside each other in a strip, being nearly as wide, and
        the length both take; those that waste least first. Of many leads only those nearest in
        width are paired.
        """
        order = np.argsort(self.wide, kind="stable")[::-1]
        near = range(1, min(_NEIGHBOURS, len(order) - 1) + 1)
        one = np.concatenate([order[:0], *(order[:-d] for d in near)])
        two = np.concatenate([order[:0], *(order[d:] for d in near)])
        long, wide = self.long, self.wide
        waste = (wide[one] - wide[two]) * long[two]
        kept = np.flatnonzero(wide[two] * 8 >= wide[one] * 7)
        kept = kept[np.argsort(waste[kept], kind="stable")][:_PAIRS]
        one, two = one[kept], two[kept]
        return np.stack([one, two, long[one] + long[two] + self.kerf + self.shared], axis=1)

    def _amounts(self, remaining: Sequence[int], profits: Sequence[float]) -> tuple[Ints, Floats]:
        """What is left of each item type (units, or net ticks of a panel), and what one of each
        lead is worth.
        """
        stock = np.maximum(np.array(remaining, dtype=np.int64)[self.wanted], 0)
        share = np.where(self.panels, np.minimum(self.unit, stock[self.owner]) / self.width, 1.0)
        return stock, np.array(profits)[self.wanted][self.owner] * self.volume * share


def _kernel() -> Any:
    """The compiled part, loaded when it is first needed."""

    from vividplank.core.layout.patterns import lookahead_kernel

    return lookahead_kernel
