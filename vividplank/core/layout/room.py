"""How much can be made of a board at most, whatever one piece of each want is worth: never less than the truth.

A right plan cuts a board into segments, these into strips, these into blanks. Three things are let go, each in favour of the
plan: how many pieces are wanted, where across the width a fault lies for parts that may hold none of its kind, and that all
strips of a segment must be flat together. What is left is counted in full:

* A segment holds the strips that a knapsack over its width allows, each filled by a knapsack along its length. Lengths and
  widths of parts are rounded down, those of the board up.
* Every line across the board crosses strips that fit beside each other between the unsound faults on it; a piece counts on
  every line over its length and one kerf. Rule 1 keeps what is counted apart.
* A piece has room only on a board on which a blank of its size can be flat enough, resawn as often as that allows. A blank
  may slope: it then holds a level rectangle that is lower by what it rises, and h of a part is never less than h of the whole.
"""

from collections.abc import Sequence
from functools import cached_property
from typing import Any

import numpy as np
import numpy.typing as npt

from vividplank.core.board import Board, Region, flat_slab
from vividplank.core.layout.want import Want
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.shop import Shop

Floats = npt.NDArray[np.float64]
Ints = npt.NDArray[np.int64]
#: Lengths of parts are counted in steps, those of segments in cells.
_STEP = TICKS_PER_INCH // 16
_CELL = TICKS_PER_INCH // 4
_GRAIN = TICKS_PER_INCH // 32
#: Places along and across a board where the flat thickness of a blank is asked, at most.
_ALONG, _ACROSS = 6, 8
#: h(R) as computed may be short of the truth by this much at most, in ticks.
_SURE = TICKS_PER_INCH / 1000


class Rooms:
    """The boards of one wood and what is wanted of it.

    `most(worth)` answers for every board what pieces may be worth together that are cut out of it, where `worth` is that of
    one lump of each want, or of one tick of net width of a panel's stave; and how much of each want (lumps, ticks) that is.
    """

    def __init__(self, boards: Sequence[Board], wants: Sequence[Want], shop: Shop) -> None:
        self.boards = boards
        self.wants = wants
        self.shop = shop
        kerf = shop.kerf.crosscut
        self.longest = max(b.length for b in boards)
        self.widest = max(b.widest for b in boards)
        self.lengths = np.array([max(1, (w.length + kerf) // _STEP) for w in wants], dtype=np.int64)
        # A segment over n cells is shorter than n + 1 of them; the kerf at its end is counted in.
        cells = (self.longest + kerf) // _CELL + 3
        self.rooms = np.array(
            [max(0, -(-((n + 1) * _CELL - shop.allowance.length) // _STEP)) for n in range(cells)], dtype=np.int64
        )
        over = shop.allowance.width + shop.kerf.rip
        self.shortest = min(max(w.length + shop.allowance.length, shop.min_blank_length) for w in wants) // _CELL
        nets = {w.width for w in wants if not w.is_panel}
        for w in wants:
            if w.is_panel:  # staves of every width: the widest of each grain stands for it
                first, last = (w.stave_min + over) // _GRAIN, (w.stave_max + over) // _GRAIN
                nets |= {min((q + 1) * _GRAIN - 1 - over, w.stave_max) for q in range(first, last + 1)}
        self.nets = sorted(nets)
        self.sizes = np.array([max(1, (net + over) // _GRAIN) for net in self.nets], dtype=np.int64)

    def most(self, worth: Floats) -> tuple[Floats, Floats]:
        """The most that one board of each is worth, and what it then holds: boards, boards × wants."""
        kernel = _kernel()
        found = np.zeros(len(self.boards))
        held = np.zeros((len(self.boards), len(self.wants)))
        density = _CELL / np.array([w.length + self.shop.kerf.crosscut for w in self.wants])
        room = self._grains(self.widest + self._play) + 1
        for layers, members in self.groups.items():
            many = np.array(layers, dtype=float)
            amounts = self.amounts * many
            values = amounts * worth
            if not values.any():
                continue
            filled, ends, along = kernel.along(self.lengths, values, self.rooms)
            table, last = kernel.tables(self.sizes, filled, room)
            crossed = values * density
            line, line_last = kernel.across(self.sizes, crossed.max(axis=1), room)
            shares = np.where(np.arange(len(self.wants)) == crossed.argmax(axis=1)[:, None], amounts * density, 0.0)
            shares = kernel.line_counts(self.sizes, line_last, shares, room)
            for b in members:
                low, high, bins = self.outlines[b]
                if not len(low):
                    continue
                free = [[min(k, room) for k in cell] for cell in bins]
                summed = np.concatenate([[0.0], np.cumsum([line[cell].sum() for cell in free])])
                value, came = kernel.best_segments(
                    table, summed, low, high, self.tilt, self.shortest, self.shop.kerf.rip, _GRAIN
                )
                found[b] = min(value, summed[-1])
                if value > summed[-1]:
                    held[b] = sum((shares[cell].sum(axis=0) for cell in free), np.zeros(len(self.wants)))
                    continue
                j = len(low)
                while j > 0:
                    i, wide = came[j]
                    if i < 0:
                        j -= 1
                        continue
                    if wide > 0:
                        held[b] += kernel.strip_counts(
                            j - i, wide, self.sizes, last, ends, along, self.lengths, amounts
                        )
                    else:
                        for cell in free[i : min(j + 1, len(free))]:
                            held[b] += shares[cell].sum(axis=0)
                    j = i
        return found, held

    @cached_property
    def amounts(self) -> Floats:
        """How much of each want one piece is in a strip of each kind: kinds × wants."""
        found = np.zeros((len(self.nets), len(self.wants)))
        for i, w in enumerate(self.wants):
            for c, net in enumerate(self.nets):
                if net >= (w.stave_min or w.width):
                    found[c, i] = min(net, w.stave_max) if w.is_panel else 1.0
        return found

    @property
    def _play(self) -> float:
        """Two pieces counted on one line lie up to a kerf apart along the board, and a sloping segment rises over that."""
        return self.shop.max_slope * self.shop.kerf.crosscut

    @cached_property
    def tilt(self) -> Floats:
        """How much wider than the outline a sloping segment over n cells can be: each of its strips holds a blank."""
        n = np.arange(len(self.rooms))
        return self._play + self.shop.max_slope * np.maximum(0, (n + 1) * _CELL - 2 * self.shop.min_blank_length)

    def _grains(self, width: float) -> int:
        return int(-(-(width + self.shop.kerf.rip) // _GRAIN))

    @cached_property
    def groups(self) -> dict[tuple[int, ...], list[int]]:
        """Boards that give the same wants in as many layers."""
        found: dict[tuple[int, ...], list[int]] = {}
        for b, board in enumerate(self.boards):
            found.setdefault(tuple(self._layers(board, w) for w in self.wants), []).append(b)
        return found

    @cached_property
    def outlines(self) -> list[tuple[Floats, Floats, list[list[int]]]]:
        """For every board lowest and highest edge by cell, and the free widths between unsound faults that lie right across
        the cell, in grains.
        """
        return [self._outline(b) for b in self.boards]

    def _outline(self, board: Board) -> tuple[Floats, Floats, list[list[int]]]:
        kerf = self.shop.kerf.crosscut
        start, end = self.shop.end_trim, board.length - self.shop.end_trim
        low, high, bins = [], [], []
        for n in range(max(0, (end - start + kerf) // _CELL + 1)):
            # What is counted at a place may lie a kerf before it.
            x0, x1 = max(start, start + n * _CELL - kerf), min(end, start + (n + 1) * _CELL)
            if x1 <= x0:
                break
            places = [x0, *(s.x for s in board.stations if x0 < s.x < x1), x1]
            edges = [board.edges(x) for x in places]
            low.append(min(e[0] for e in edges))
            high.append(max(e[1] for e in edges))
            bins.append(self._free(board, x0, x1, low[-1], high[-1]))
        return np.array(low, dtype=float), np.array(high, dtype=float), bins

    def _free(self, board: Board, x0: int, x1: int, low: float, high: float) -> list[int]:
        blocked = []
        for d in board.defects:
            if d.sound or d.shape == "outline":
                continue
            # Within an ellipse lies a rectangle a good two thirds as long and wide.
            inset = 0.15 if d.shape == "ellipse" else 0.0
            wide, tall = inset * (d.x1 - d.x0), inset * (d.y1 - d.y0)
            if d.x0 + wide <= x0 and d.x1 - wide >= x1:
                blocked.append((d.y0 + tall, d.y1 - tall))
        free, at = [], low
        for y0, y1 in sorted(blocked):
            if y0 > at:
                free.append(self._grains(min(y0, high) - at + self._play))
            at = max(at, y1)
        if high > at:
            free.append(self._grains(high - at + self._play))
        return free

    def _layers(self, board: Board, want: Want) -> int:
        """In how many layers a blank of this want is flat enough at the best place for it."""
        shop = self.shop
        each = want.thickness + shop.allowance.face
        long = max(want.length + shop.allowance.length, shop.min_blank_length)
        wide = (want.stave_min or want.width) + shop.allowance.width
        if each > board.thickest or long > board.length - 2 * shop.end_trim or wide > board.widest:
            return 0
        most = min(float(board.thickest), self._flattest(board, long, wide) + _SURE)
        return int((most + shop.kerf.resaw) // (each + shop.kerf.resaw))

    def _flattest(self, board: Board, long: int, wide: int) -> float:
        """No blank of this size is flatter anywhere on the board."""
        low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
        free = board.length - 2 * self.shop.end_trim - long
        level = wide - self.shop.max_slope * long  # the height of a level rectangle in a sloping blank
        if level < _GRAIN:
            return float(board.thickest)
        if board.even:
            return flat_slab(board, Region(self.shop.end_trim, self.shop.end_trim + long, low, 0.0, 0, int(level))).thickness
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
                best = max(best, flat_slab(board, Region(int(x0) + 1, int(x1), y0, 0.0, 0, int(y1 - y0))).thickness)
        return best


def _kernel() -> Any:
    """The compiled part, loaded when it is first needed."""
    from vividplank.core.layout import room_kernel

    return room_kernel
