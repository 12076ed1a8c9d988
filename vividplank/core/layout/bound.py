"""A cost that no right plan placing every part can undercut.

A covering program over the boards (bought or not): for every thickness that a part needs, the parts
needing it or more must find room on boards that reach it. Room is counted two ways, both true:

* Area. Push every blank out by a crosscut kerf at its end and a rip kerf at its upper side. Rule 1
  keeps these grown blanks apart, and they lie in the outline grown the same way. A part takes at
  least (length + crosscut kerf) × (width + width allowance + rip kerf) of one layer of such a blank.
* Crossings. Lines across the board every l ticks are each crossed at most as often as strips fit,
  and every blank at least l long crosses one.

Solved by HiGHS; its dual bound is what counts.
"""

from collections.abc import Iterable
from decimal import Decimal
from itertools import pairwise

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp

from vividplank.core.board import Board, same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.shop import Shop


def lower_bound(job: Job, seconds: float = 2.0) -> float:
    """A true lower bound on the cost; the whole stock's price where no complete plan exists at all."""
    bound = 0.0
    for species in _species(job.parts):
        parts = [p for p in job.parts if same_species(p.species, species)]
        boards = [b for b in job.boards if same_species(b.species, species)]
        bound += _cover(parts, boards, job.shop, seconds)
    return float(Decimal(repr(bound)).quantize(Decimal("0.000001"), rounding="ROUND_FLOOR"))


def _species(parts: Iterable[Part]) -> list[str]:
    found: list[str] = []
    for part in parts:
        if not any(same_species(part.species, other) for other in found):
            found.append(part.species)
    return found


def _cover(parts: list[Part], boards: list[Board], shop: Shop, seconds: float) -> float:
    """The least cost of boards with room enough, for one wood."""
    if not boards:
        return 0.0
    rows: list[list[float]] = []
    wanted: list[float] = []
    for need in sorted({p.thickness for p in parts}):
        thick = [p for p in parts if p.thickness >= need]
        layers = [_layers(b, need, shop) for b in boards]
        rows.append([_grown_area(b, shop) * n for b, n in zip(boards, layers, strict=True)])
        wanted.append(sum(_least_area(p, shop) for p in thick))
        for length in _spread({p.length for p in thick}):
            long = [p for p in thick if p.length >= length]
            for width in _spread({_least_width(p) for p in long}):
                wide = [p for p in long if _least_width(p) >= width]
                rows.append([_crossings(b, length, width, shop) * n for b, n in zip(boards, layers, strict=True)])
                wanted.append(sum(_pieces(p, shop) for p in wide))
    matrix = np.array(rows, dtype=float)
    need_row = np.array(wanted, dtype=float)
    scale = np.maximum(matrix.max(axis=1), 1.0)
    matrix, need_row = matrix / scale[:, None], need_row / scale
    prices = np.array([float(b.price) for b in boards])
    # A hair of slack, so that rounding in the solver never lifts the bound over the truth.
    need_row = need_row * (1 - 1e-9) - 1e-9
    if np.any(matrix.sum(axis=1) < need_row):
        return float(prices.sum())  # no plan places everything: any figure is true, the stock's is the useful one
    result = milp(prices, constraints=LinearConstraint(matrix, lb=need_row), integrality=np.ones(len(boards)),
                  bounds=Bounds(0, 1), options={"time_limit": seconds, "mip_rel_gap": 0.0})
    dual = getattr(result, "mip_dual_bound", None)
    return max(0.0, float(dual) - 1e-7 * max(1.0, float(prices.sum()))) if dual is not None else 0.0


def _spread(values: set[int], most: int = 8) -> list[int]:
    """Some of the values, evenly over their order: every one gives a true row, all of them would be too many."""
    ordered = sorted(values)
    if len(ordered) <= most:
        return ordered
    return [ordered[k * (len(ordered) - 1) // (most - 1)] for k in range(most)]


def _layers(board: Board, thickness: int, shop: Shop) -> int:
    """Most pieces of this thickness that the board's thickest place gives, with their allowances."""
    each = thickness + shop.allowance.face
    return max(0, (board.thickest + shop.kerf.resaw) // (each + shop.kerf.resaw))


def _pieces(part: Part, shop: Shop) -> int:
    """Least number of separate pieces the parts are made of."""
    if part.panel is None:
        return part.quantity
    return part.quantity * -(-(part.width + shop.allowance.panel_width) // part.panel.stave_max)


def _least_width(part: Part) -> int:
    return part.panel.stave_min if part.panel else part.width


def _least_area(part: Part, shop: Shop) -> float:
    """Grown area of one layer that the part takes at least."""
    across = shop.allowance.width + shop.kerf.rip
    if part.panel:
        net = part.width + shop.allowance.panel_width
        width = net + -(-net // part.panel.stave_max) * across
    else:
        width = part.width + across
    return part.quantity * (part.length + shop.kerf.crosscut) * width


def _grown_area(board: Board, shop: Shop) -> float:
    """Area of the outline between the end trims, grown by a crosscut kerf along and a rip kerf across."""
    kerf = shop.kerf.crosscut
    steepest = max(
        (max(abs(b.y0 - a.y0), abs(b.y1 - a.y1)) / (b.x - a.x)
         for a, b in pairwise(board.stations)),
        default=0.0,
    )
    # Within a kerf's length a blank pushed out along the board may stand over a narrower place; and
    # at a slope the pushed-out end rises with its line.
    spill = 2 * steepest * kerf
    start, end = shop.end_trim, board.length - shop.end_trim
    if end <= start:
        return 0.0
    places = [start, *(s.x for s in board.stations if start < s.x < end), end]
    area = 0.0
    for a, b in pairwise(places):
        (a0, a1), (b0, b1) = board.edges(a), board.edges(b)
        area += (b - a) * ((a1 - a0) + (b1 - b0)) / 2
    last = board.edges(end)
    return area + kerf * (last[1] - last[0]) + (end - start + kerf) * (shop.kerf.rip + spill)


def _crossings(board: Board, length: int, width: int, shop: Shop) -> int:
    """Most pieces at least this long and wide that one layer of the board can hold."""
    usable = board.length - 2 * shop.end_trim
    lines = usable // max(length + shop.allowance.length, shop.min_blank_length) if usable > 0 else 0
    # Short parts share a blank, so count by parts and not by blanks where that gives more.
    lines = max(lines, max(0, usable - shop.allowance.length) // length if length else 0)
    across = (board.widest + shop.kerf.rip) // (width + shop.allowance.width + shop.kerf.rip)
    return max(0, lines) * max(0, across)
