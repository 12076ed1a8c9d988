"""An upper bound on the profit of what can be cut from one board, for any profits of item types.

A right plan cuts a board into segments, these into strips, these into blanks. Relaxed, each in
favour of the plan, are: how many pieces are wanted over all strips of a board, and that all strips
of a segment must be flat together. What remains is counted in full:

* A segment holds the strips that a knapsack over its width allows, each filled by a knapsack along
  its length, with no more of a part in one strip than are wanted. Lengths and widths of parts are
  rounded down, those of the board up.
* A segment is cut aslant by as much as the shop does; between edges that are not parallel it is as
  wide as its narrow end, and what stands out over an edge is shorter for it.
* Every line across the board crosses strips that fit beside each other between the unsound faults
  on it; a piece counts on every line over its length and one kerf. Rule 1 keeps what is counted
  apart.
* In the segments by which the board would hold most the strips are laid from the bottom up over
  all faults in their way, at every slope: a strip ends at an unsound fault, and each of its parts
  lies over no sound one that it may not carry. That is repeated until it changes nothing.
* A piece has room only on a board on which a blank of its size can be flat enough, resawn as often
  as that allows. A blank may slope: it then holds a level rectangle that is lower by what it rises,
  and h of a part is never less than h of the whole.

References
----------
P. C. Gilmore, R. E. Gomory: Multistage cutting stock problems of two and more dimensions.
Operations Research 13 (1965), 94-120: knapsacks over the width of strips filled by knapsacks.
N. Christofides, A. Mingozzi, P. Toth: State-space relaxation procedures for the computation of
bounds to routing problems. Networks 11 (1981), 145-164: demand over the whole board is dropped from
the state in this sense, and kept within a strip.
"""

import math
from collections.abc import Callable, Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import pairwise
from typing import Any, NamedTuple

import numpy as np
import numpy.typing as npt

from vividplank.core.board import Board, Defect, Region, flat_slab
from vividplank.core.layout.model.faces import CLEAR, spoils
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop

#: Faults are asked about so often for a close answer, and so often for a quick one.
ROUNDS, QUICK = 400, 3
Floats = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]
#: Lengths of parts are counted in steps, those of segments in cells; widths of parts in grains,
#: those of segments in marks. Of : steps, grains and marks these are the least.
_STEP = TICKS_PER_INCH // 16
_CELL = TICKS_PER_INCH // 4
_GRAIN = TICKS_PER_INCH // 32
#: Steps over sound faults are no longer than this.
_FINE = TICKS_PER_INCH // 8
#: A fault is taken apart into pieces no longer than this, in cells, and of no more than so many
#: something is told.
_FAULT, _FAULTS = 24.0, 62
#: Heights are first counted in steps of so many marks.
_COARSE = 4
#: What the faults spoil is told this closely.
_NEAR = 0.005
#: Places along and across a board where the flat thickness of a blank is asked, at most.
_ALONG, _ACROSS = 6, 8
#: h(R) as computed may be short of the truth by this much at most, in ticks.
_SURE = TICKS_PER_INCH / 1000


class Halted(Exception):
    """There is no time to count all boards that were asked for."""


class RelaxedSegment(NamedTuple):
    """A segment as a board would hold most: between which places it lies, its line, and of its
    strips bottom, net width and whether that is one of any.
    """

    x0: int
    x1: int
    y0: float
    slope: float
    strips: tuple[tuple[int, int, bool], ...]


class BoardRelaxation:
    """The relaxation of the boards of one wood.

    Parameters
    ----------
    boards
        Boards of one wood.
    item_types
        What is wanted of it.
    shop
        Kerfs and allowances in ticks, and the greatest slope of a segment.
    go_on
        Asked between boards; Halted is raised once it says no.

    `most(profits)` answers for every board the most that what is cut from it can be worth, where
    `profits` are those of one unit of each item type, or of one tick of net width of a panel's
    stave; and how much of each item type (units, ticks) that is.
    """

    def __init__(
        self,
        boards: Sequence[Board],
        item_types: Sequence[ItemType],
        shop: Shop,
        go_on: Callable[[], bool] = lambda: True,
    ) -> None:
        self.boards = boards
        self.go_on = go_on
        self.item_types = item_types
        self.shop = shop
        kerf = shop.kerf.crosscut
        self.longest = max(b.length for b in boards)
        self.widest = max(b.widest for b in boards)
        self.step = _unit([w.length + kerf for w in item_types], _STEP)
        # A segment over n cells is shorter than n + 1 of them; the kerf at its end is counted in.
        cells = (self.longest + kerf) // _CELL + 3
        self.cells = np.arange(1, cells + 1)
        self.counted: dict[int, list[RelaxedSegment]] = {}
        #: How often it is asked at most what faults spoil.
        self.rounds = ROUNDS
        self.steps_along = self.along(1)
        self.over = shop.allowance.width + shop.kerf.rip
        self.shortest = (
            min(max(w.length + shop.allowance.length, shop.min_blank_length) for w in item_types)
            // _CELL
        )
        self.plain = sorted((w for w in item_types if not w.is_panel), key=lambda w: w.width)
        self.panels = [w for w in item_types if w.is_panel]
        listed = [*self.plain, *self.panels]
        self.order = [w.index for w in listed]
        self.lengths = np.array(
            [max(1, (w.length + kerf) // self.step) for w in listed], dtype=np.int64
        )
        self.nets = sorted(
            {w.width for w in self.plain}
            | {n for w in self.panels for n in (w.stave_min, w.stave_max)}
        )
        self.grain = _unit([net + self.over for net in self.nets], _GRAIN)
        self.marks = max(1, self.grain // _GRAIN)
        self.mark = self.grain / self.marks
        self.sizes = np.array(
            [(net + self.over) // self.grain for net in self.nets], dtype=np.int64
        )
        self.wide = np.array([(net + self.over) / self.mark for net in self.nets])
        self.first = np.array([self.nets.index(w.width) for w in self.plain], dtype=np.int64)
        self.free = min((self.nets.index(w.stave_min) for w in self.panels), default=len(self.nets))
        nets = np.array(self.nets, dtype=float)
        following = np.append(nets[1:], nets[-1:])
        #: Net width of a stave of every panel in a strip of every kind, and just below the next
        #: kind: kinds × 2 × panels.
        self.staves = np.array(
            [
                [
                    [min(n, w.stave_max) if net >= w.stave_min else 0.0 for w in self.panels]
                    for n in (net, after)
                ]
                for net, after in zip(nets, following, strict=True)
            ]
        ).reshape(len(nets), 2, len(self.panels))

    def along(self, finer: int) -> Ints:
        """Steps along in every number of cells, or how many times finer ones."""
        return np.maximum(0, (self.cells * _CELL - self.shop.allowance.length) * finer // self.step)

    def steps(self, marks: int) -> Any:
        """For the sweep, in steps of so many marks."""
        kinds = np.floor(self.wide / marks).astype(np.int64)
        wide = np.arange(1, kinds[-1] + 3, dtype=float) * marks
        any_width = np.searchsorted(self.wide, wide, side="right") - 1
        gaps = np.append(np.diff(self.wide), np.inf)
        shares = np.clip((wide - self.wide[any_width]) / gaps[any_width], 0, 1)
        sweeping = _kernels()[2]
        return sweeping.Sizes(
            kinds, np.where(any_width < self.free, -1, any_width), shares, self.mark * marks, marks
        )

    def most(self, profits: Floats, of: Collection[int] | None = None) -> tuple[Floats, Floats]:
        """The most that one board of each is worth, and what it then holds: boards, boards × item
        types; 0 for boards not asked. How those were counted last stands in `counted`.

        Raises Halted where it may not go on.
        """
        found = np.zeros(len(self.boards))
        held = np.zeros((len(self.boards), len(self.item_types)))
        asked = [
            b for b in range(len(self.boards)) if self.outlines[b].free and (of is None or b in of)
        ]
        for layers, members in self.groups.items():
            mine = [b for b in members if b in asked]
            if mine and (profits * np.array(layers)).any():
                tables = _Tables(self, np.array(layers, dtype=float), profits)
                for b in mine:
                    if not self.go_on():
                        raise Halted
                    found[b], held[b], self.counted[b] = tables.board(self.outlines[b])
        return found, held

    def for_item_types(self, profits: Floats, item_types: Sequence[ItemType]) -> list[float]:
        """What item types that are listed otherwise are worth; nothing if they are not among
        these.
        """
        known = dict(zip((w.members for w in self.item_types), profits.tolist(), strict=True))
        return [known.get(w.members, 0.0) for w in item_types]

    @cached_property
    def groups(self) -> dict[tuple[int, ...], list[int]]:
        """Boards that give the same item types in as many layers."""
        found: dict[tuple[int, ...], list[int]] = {}
        for b, board in enumerate(self.boards):
            if not self.go_on():
                raise Halted
            found.setdefault(tuple(self._layers(board, w) for w in self.item_types), []).append(b)
        return found

    @cached_property
    def outlines(self) -> list["_Outline"]:
        return [self._outline(b) for b in self.boards]

    def _outline(self, board: Board) -> "_Outline":
        kerf = self.shop.kerf.crosscut
        start, end = self.shop.end_trim, board.length - self.shop.end_trim
        first, last = board.edges(0), board.edges(board.length)
        slopes = np.array(
            [(b - a) * _CELL / board.length for a, b in zip(first, last, strict=True)]
        )
        low, high, free = [], [], []
        for n in range(max(0, (end - start + kerf) // _CELL + 1)):
            # What is counted at a place may lie a kerf before it.
            x0, x1 = max(start, start + n * _CELL - kerf), min(end, start + (n + 1) * _CELL)
            if x1 <= x0:
                break
            places = [x0, *(s.x for s in board.stations if x0 < s.x < x1), x1]
            edges = [(*board.edges(x), slopes * (x - start) / _CELL) for x in places]
            low.append(min(e[0] - e[2][0] for e in edges))
            high.append(max(e[1] - e[2][1] for e in edges))
            free.append(
                self._free(board, x0, x1, min(e[0] for e in edges), max(e[1] for e in edges))
            )
        faults = []
        for d, (begins, ends, y0, y1) in self._within(board):
            pieces = max(1, math.ceil((ends - begins) / _CELL / _FAULT))
            at = np.linspace((begins - start) / _CELL, (ends - start) / _CELL, pieces + 1)
            faults += [(y0, y1, a, b, spoils(d)) for a, b in pairwise(at)]
        faults = sorted(sorted(faults, key=lambda f: -f[4])[:_FAULTS], key=lambda f: f[2])
        return _Outline(
            np.array(low),
            np.array(high),
            slopes,
            free,
            np.array(faults, dtype=float).reshape(-1, 5),
        )

    @staticmethod
    def _within(board: Board) -> Iterator[tuple[Defect, tuple[float, float, float, float]]]:
        """A rectangle within every fault: in an ellipse lies one a good two thirds as long and
        wide.
        """
        for d in board.defects:
            if d.shape != "outline":
                inset = 0.15 if d.shape == "ellipse" else 0.0
                wide, tall = inset * (d.x1 - d.x0), inset * (d.y1 - d.y0)
                yield d, (d.x0 + wide, d.x1 - wide, d.y0 + tall, d.y1 - tall)

    def _free(self, board: Board, x0: int, x1: int, low: float, high: float) -> list[int]:
        blocked = [
            (y0, y1)
            for d, (a, b, y0, y1) in self._within(board)
            if not d.sound and a <= x0 and b >= x1
        ]
        free: list[int] = []
        at = low
        for y0, y1 in sorted(blocked):
            if y0 > at:
                free.append(self._marks(min(y0, high) - at))
            at = max(at, y1)
        if high > at:
            free.append(self._marks(high - at))
        return free

    def _marks(self, width: float) -> int:
        """Marks in so much of a line across the board; two pieces counted on one lie up to a kerf
        apart along the board, and a sloping segment rises over that.
        """
        return int(
            (width + self.shop.max_slope * self.shop.kerf.crosscut + self.shop.kerf.rip) / self.mark
        )

    @cached_property
    def room(self) -> int:
        """Grains of a segment as wide as any, cut aslant as far as its strips may stand out over
        the edges.
        """
        steepest = max(float(np.abs(o.slopes).max()) for o in self.outlines) * len(self.steps_along)
        out = 2 * (self.shop.max_slope * self.longest + steepest)
        return int((self.widest + self.shop.kerf.rip + out) / self.grain) + 2

    def _layers(self, board: Board, item_type: ItemType) -> int:
        """In how many layers a blank of this want is flat enough at the best place for it."""
        shop = self.shop
        each = item_type.thickness + shop.allowance.face
        long = max(item_type.length + shop.allowance.length, shop.min_blank_length)
        wide = (item_type.stave_min or item_type.width) + shop.allowance.width
        if each > board.thickest or long > board.length - 2 * shop.end_trim or wide > board.widest:
            return 0
        most = min(float(board.thickest), self._flattest(board, long, wide) + _SURE)
        return shop.layers_in(most, item_type.thickness)

    def _flattest(self, board: Board, long: int, wide: int) -> float:
        """No blank of this size is flatter anywhere on the board."""
        low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
        free = board.length - 2 * self.shop.end_trim - long
        level = (
            wide - self.shop.max_slope * long
        )  # the height of a level rectangle in a sloping blank
        if level < _GRAIN:
            return float(board.thickest)
        if board.even:
            return flat_slab(
                board,
                Region(self.shop.end_trim, self.shop.end_trim + long, low, 0.0, 0, int(level)),
            ).thickness
        along = min(_ALONG, 1 + int(4 * free // long))
        across = min(_ACROSS, 1 + int(3 * max(0.0, high - low - level) // level))
        gap_x, gap_y = free / along, max(0.0, high - low - level) / across
        best = 0.0
        for i in range(along):
            for j in range(across):
                # What all blanks that begin between two places have in common.
                x0, x1 = self.shop.end_trim + (i + 1) * gap_x, self.shop.end_trim + i * gap_x + long
                y0, y1 = low + (j + 1) * gap_y, low + j * gap_y + level
                if x1 - x0 < _STEP or y1 - y0 < 1:
                    return float(board.thickest)
                best = max(
                    best,
                    flat_slab(
                        board, Region(int(x0) + 1, int(x1), y0, 0.0, 0, int(y1 - y0))
                    ).thickness,
                )
        return best


@dataclass(frozen=True)
class _Outline:
    """Lowest and highest edge by cell, over lines that rise by `slopes` a cell as the edges do from
    end to end; and the free widths (in marks) between unsound faults that lie right across the
    cell. Faults are rows of bottom, top, beginning and end (in cells), and what they spoil.
    """

    low: Floats
    high: Floats
    slopes: Floats
    free: list[list[int]]
    faults: Floats

    @cached_property
    def edges(self) -> tuple[Floats, Floats]:
        """Lowest and highest edge by cell."""
        at = np.arange(len(self.low))
        below = self.low + np.minimum(self.slopes[0] * at, self.slopes[0] * (at + 1))
        return below, self.high + np.maximum(self.slopes[1] * at, self.slopes[1] * (at + 1))


class _Tables:
    """What segments and lines of boards that give the same item types in as many layers can hold,
    by one set of profits.
    """

    def __init__(self, relaxation: BoardRelaxation, layers: Floats, profits: Floats) -> None:
        self.relaxation = relaxation
        self.kernel, self.cutting, self.sweeping, self.chaining = _kernels()
        self.layers = layers
        self.profits = (profits * layers)[relaxation.order]
        plain = len(relaxation.plain)
        # Not by the layer: of a blank's layers, unlike each other, the best one stands for all, and
        # it may hold all there are.
        counts = [w.count for w in relaxation.plain]
        self.counts = np.array(
            [*counts, *(len(relaxation.steps_along) for _ in relaxation.panels)], dtype=np.int64
        )
        staves = relaxation.staves * self.profits[plain:]
        found, below = self.kernel.along(
            relaxation.lengths,
            self.profits[:plain],
            self.counts[:plain],
            relaxation.first,
            staves,
            relaxation.steps_along,
        )
        self.least = relaxation.shop.min_blank_length // _CELL
        self.segments = self._beside(found, below)
        one = self.segments[2]
        pairs = self.kernel.short_pairs(
            found, one, relaxation.sizes, relaxation.marks, self.least, relaxation.room - 1
        )
        self.tables = (*self.segments, pairs, relaxation.sizes)
        self.strips = self.sweeping.Held(found, below, one)
        listed = [relaxation.item_types[k] for k in relaxation.order]
        finer = -(-relaxation.step // _FINE)
        self.items = self.sweeping.Items(
            relaxation.lengths * finer,
            np.array([float(w.length) for w in listed]),
            np.array([CLEAR[w.faces] for w in listed]),
            self.profits,
            self.counts,
            relaxation.first,
            relaxation.staves,
            relaxation.along(finer),
            relaxation.step / finer,
        )
        # On a line every kind of strip counts by what is densest in it.
        density = np.array([_CELL / (w.length + relaxation.shop.kerf.crosscut) for w in listed])
        dense = np.array(
            [
                [(self.profits * self._amounts(s, c) * density).max() for s in relaxation.staves[c]]
                for c in range(len(relaxation.nets))
            ]
        )
        self.lines = self._beside(
            np.ascontiguousarray(dense[:, :1]), np.ascontiguousarray(dense[:, 1:])
        )[3][0]

    def _beside(self, found: Floats, below: Floats) -> tuple[Any, ...]:
        """What strips hold, and strips beside each other: of the kinds, one of any width, both."""
        relaxation, kernel = self.relaxation, self.kernel
        full = kernel.across(relaxation.sizes, found, relaxation.room)
        one = kernel.any_width(
            found, below, relaxation.wide, relaxation.free, relaxation.room * relaxation.marks - 1
        )
        at = kernel.jumps(full)
        return found, full, one, kernel.side_by_side(full, one, at, relaxation.marks), at

    def _amounts(self, staves: Floats, kind: int) -> Floats:
        """How much one piece of each is in a strip of a kind, with staves of so much net width."""
        return np.concatenate([np.where(self.relaxation.first <= kind, 1.0, 0.0), staves])

    def board(self, o: _Outline) -> tuple[float, Floats, list[RelaxedSegment]]:
        """The most that a board is worth, what it then holds of every item type, and in which
        segments.
        """
        relaxation, sweeping, shop = self.relaxation, self.sweeping, self.relaxation.shop
        lines = np.concatenate(
            [[0.0], np.cumsum([sum(float(self.lines[k]) for k in cell) for cell in o.free])]
        )
        (low, high), kerf = o.edges, shop.kerf.crosscut / _CELL
        steepest, edges = shop.max_slope * _CELL, float(np.abs(o.slopes).max())
        most = self.cutting.segments(
            o.low,
            o.high,
            o.slopes,
            lines,
            relaxation.shortest,
            relaxation.mark,
            shop.kerf.rip,
            abs(o.slopes[1] - o.slopes[0]) / relaxation.mark,
            (steepest + edges) / relaxation.mark,
            self.least,
            self.tables,
            relaxation.marks,
        )
        stock = sweeping.Stock(
            low, high, o.faults, float(shop.kerf.rip), kerf, self.least, float(_CELL)
        )
        heights = (
            int(
                (high.max() - low.min() + (steepest + edges) * (len(low) + 1) + shop.kerf.rip)
                / relaxation.mark
            )
            + 2
        )
        work = sweeping.workspace(
            len(low), heights, len(o.faults), len(relaxation.nets), int(self.items.relaxation[-1])
        )
        asked = (
            steepest,
            stock,
            self.strips,
            self.items,
            relaxation.steps(_COARSE),
            relaxation.steps(1),
            work,
        )
        value, came = self.chaining.lower(
            most, relaxation.shortest, relaxation.rounds, _NEAR, *asked
        )
        value = min(value, float(lines[-1]))
        held = np.zeros(len(relaxation.order))
        counted: list[RelaxedSegment] = []
        j = len(low)
        while j > 0:
            i = int(came[j])
            if i >= 0:
                taken, least, greatest, base, strips = sweeping.fullest(i, j, most[i, j], *asked)
                held += taken
                slope = next(
                    (s for s in (0.0, *o.slopes.tolist()) if least <= s <= greatest),
                    (least + greatest) / 2,
                )
                counted.insert(
                    0, self._counted(i, min(j + 1, len(low)), slope / _CELL, base, strips)
                )
            j = i if i >= 0 else j - 1
        # What is told is worth what is found; of strips between two kinds, and where lines tell, it
        # would be a little more.
        held *= value / (float(self.profits @ held) or 1.0)
        found = np.zeros(len(relaxation.item_types))
        found[relaxation.order] = held
        return value, found * self.layers, counted

    def _counted(self, i: int, end: int, slope: float, base: float, strips: Ints) -> RelaxedSegment:
        relaxation, trim = self.relaxation, self.relaxation.shop.end_trim
        laid = tuple(
            (
                int(low * relaxation.mark),
                relaxation.nets[kind]
                if kind >= 0
                else int((top - low) * relaxation.mark) - relaxation.over,
                kind < 0,
            )
            for low, top, kind in strips.tolist()
        )
        return RelaxedSegment(
            trim + i * _CELL, trim + end * _CELL, base - slope * (end - i) * _CELL / 2, slope, laid
        )


def _unit(sizes: Sequence[int], least: int) -> int:
    """What all sizes are whole numbers of; no less than the least that is counted in."""
    return max(math.gcd(*sizes), least)


def _kernels() -> tuple[Any, Any, Any, Any]:
    """The compiled parts, loaded when they are first needed."""
    from vividplank.core.layout.bound import (
        chain_kernel,
        knapsack_kernel,
        segment_kernel,
        sweep_kernel,
    )

    return knapsack_kernel, segment_kernel, sweep_kernel, chain_kernel
