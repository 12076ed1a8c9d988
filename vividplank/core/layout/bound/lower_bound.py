"""A lower bound on the cost of any plan that places every part.

A set covering program over the boards, one 0-1 variable each (bought or not), with rows that
every right plan keeps:

* By area: for every thickness that a part needs, the parts needing it or more must find room on
  boards that reach it. Every blank is grown by a crosscut kerf at its end and a rip kerf at its
  upper side: rule 1 keeps these grown blanks apart, and they lie in the outline grown the same way.
* By crossings: lines across the board every l ticks are each crossed at most as often as strips
  fit, and every blank at least l long crosses one.
* By profit (cutting planes): for any profits p >= 0 of the item types, the boards that are bought
  must hold p * demand, and board b holds at most its relaxation z_b(p). For a choice of boards that
  satisfies all rows so far, profits that violate this are sought by column generation, with
  relaxation.py as the pricing problem; if there are any, they are a new row.

Solved by HiGHS; its dual bound is what counts.

References
----------
P. C. Gilmore, R. E. Gomory: A linear programming approach to the cutting-stock problem.
Operations Research 9 (1961), 849-859: column generation priced by knapsacks.
J. F. Benders: Partitioning procedures for solving mixed-variables programming problems.
Numerische Mathematik 4 (1962), 238-252: rows by profit are feasibility cuts of this kind. Here
the subproblem is itself relaxed, so a choice that passes need not be a plan.
"""

from collections.abc import Callable, Iterable, Iterator, Sequence
from decimal import Decimal
from itertools import pairwise

import numpy as np
import numpy.typing as npt
from scipy.optimize import Bounds, LinearConstraint, linprog, milp
from scipy.sparse import coo_matrix, vstack

from vividplank.core.board import Board, same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.relaxation import QUICK, ROUNDS, BoardRelaxation, Halted
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.shop import Shop

Floats = npt.NDArray[np.float64]
#: Asked again and again whether to go on.
GoOn = Callable[[], bool]
#: Told how the boards of these numbers would hold most by some profits; it stands in
#: `BoardRelaxation.counted`.
Counted = Callable[[BoardRelaxation, Floats, Sequence[int]], None]
#: Told every bound that is found, of which the greatest counts.
Proved = Callable[[float], None]
#: What owned boards count for where parts of boards are chosen, so that no more of them are than
#: help.
_HAIR = 1e-6
#: A choice of boards short of this share of what is wanted is out.
_SHORT = 1e-6
#: Profits are sought no further once they show this share of what is short,
_ENOUGH = 0.4
#: or after so many trials.
_TRIALS = 60


def lower_bound(
    job: Job,
    cuts: int = 0,
    go_on: GoOn = lambda: True,
    counted: Counted = lambda relaxation, profits, boards: None,
    proved: Proved = lambda bound: None,
) -> float:
    """A true lower bound on the cost of a plan that places every part.

    Parameters
    ----------
    job
        Parts, boards and shop; each wood is bounded by itself and the bounds add up.
    cuts
        Rows by profit at most, for each wood; 0 for the quick bound without any.
    go_on
        Asked again and again; the bound found so far is returned once it says no.
    counted
        Called with what boards would hold most by some profits: the relaxation, the profits by item
        type, and the numbers of the boards, whose segments stand in `BoardRelaxation.counted`.
    proved
        Called with every bound that is found; the greatest counts.

    Returns
    -------
    In the money of the prices; the price of the whole stock where no complete plan exists at all.
    """
    covers = []
    for species in _species(job.parts):
        parts = tuple(p for p in job.parts if same_species(p.species, species))
        boards = tuple(b for b in job.boards if same_species(b.species, species))
        covers.append(_Cover(Job(job.name, job.shop, parts, boards), cuts, go_on, counted))
    bounds = [cover.quick() for cover in covers]
    going = {k: cover.closer() for k, cover in enumerate(covers)}
    while going:  # every wood in its turn
        for k in list(going):
            bound = next(going[k], None)
            if bound is None:
                del going[k]
            else:
                bounds[k] = max(bounds[k], bound)
                proved(_down(sum(bounds)))
    return _down(sum(bounds))


def _down(bound: float) -> float:
    return float(Decimal(repr(float(bound))).quantize(Decimal("0.000001"), rounding="ROUND_FLOOR"))


def _species(parts: Iterable[Part]) -> list[str]:
    found: list[str] = []
    for part in parts:
        if not any(same_species(part.species, other) for other in found):
            found.append(part.species)
    return found


class _Cover:
    """The least cost of boards with room enough, for one wood."""

    def __init__(self, job: Job, cuts: int, go_on: GoOn, counted: Counted) -> None:
        self.job = job
        self.counted = counted
        self.cuts = cuts
        self.go_on = go_on
        self.prices = np.array([float(b.price) for b in job.boards])
        self.rows: list[Floats] = []
        self.wanted: list[float] = []
        self.chosen: Floats | None = None

    def quick(self) -> float:
        """By areas and crossings."""
        if not self.job.boards:
            return 0.0
        self._area_rows()
        matrix, wanted = self._program()
        if np.any(matrix.sum(axis=1) < wanted):
            return float(
                self.prices.sum()
            )  # no plan places everything: any figure is true, the stock's is the useful one
        best, self.chosen = self._cheapest(whole=True, seconds=2.0 if self.cuts else 0.3)
        return best

    def closer(self) -> Iterator[float]:
        """By profits, row by row: bounds of which the greatest counts."""
        if not self.cuts or self.chosen is None:
            return
        relaxation = BoardRelaxation(
            self.job.boards, item_types(self.job), self.job.shop, self.go_on
        )
        if relaxation.shortest < 1:
            return
        relaxation.rounds = QUICK
        columns = _Columns(relaxation, self.counted)
        whole = False
        for _ in range(self.cuts):
            if not self.go_on():
                break
            found, chosen = self._cheapest(whole)
            yield found
            try:
                row = columns.violated(chosen, self.go_on) if chosen is not None else None
            except Halted:
                break
            if row is not None:
                self.rows.append(row[0])
                self.wanted.append(row[1])
                if self.rows[-1].sum() < self.wanted[-1] * (1 - 1e-9):
                    yield float(self.prices.sum())
                    return
            elif not whole and chosen is not None:
                whole = True  # parts of boards have room enough; now whole ones
            elif relaxation.rounds < ROUNDS and chosen is not None:
                relaxation.rounds = ROUNDS  # now with all that faults spoil
                columns = _Columns(relaxation, self.counted)
            else:
                break
        yield self._cheapest(whole=True)[0]

    def _area_rows(self) -> None:
        shop, parts, boards = self.job.shop, self.job.parts, self.job.boards
        for need in sorted({p.thickness for p in parts}):
            thick = [p for p in parts if p.thickness >= need]
            layers = np.array([_layers(b, need, shop) for b in boards], dtype=float)
            self.rows.append(layers * [_grown_area(b, shop) for b in boards])
            self.wanted.append(sum(_least_area(p, shop) for p in thick))
            for length in _spread({p.length for p in thick}):
                long = [p for p in thick if p.length >= length]
                for width in _spread({_least_width(p) for p in long}):
                    wide = [p for p in long if _least_width(p) >= width]
                    self.rows.append(layers * [_crossings(b, length, width, shop) for b in boards])
                    self.wanted.append(sum(_pieces(p, shop) for p in wide))

    def _program(self) -> tuple[Floats, Floats]:
        matrix = np.array(self.rows, dtype=float)
        wanted = np.array(self.wanted, dtype=float)
        scale = np.maximum(matrix.max(axis=1), 1e-30)
        # A hair of slack, so that rounding in the solver never lifts the bound over the truth.
        return matrix / scale[:, None], wanted / scale * (1 - 1e-9) - 1e-9

    def _cheapest(self, whole: bool, seconds: float = 2.0) -> tuple[float, Floats | None]:
        """What covers all rows at the least cost, in whole boards or in parts of boards: a bound of
        it, and the boards.
        """
        matrix, wanted = self._program()
        if not whole:
            found = linprog(
                self.prices + _HAIR, A_ub=-matrix, b_ub=-wanted, bounds=(0, 1), method="highs"
            )
            return (
                max(0.0, float(found.fun) - 2 * _HAIR * len(self.prices))
                if found.status == 0
                else 0.0
            ), found.x
        result = milp(
            self.prices,
            constraints=LinearConstraint(matrix, lb=wanted),
            integrality=np.ones(len(self.prices)),
            bounds=Bounds(0, 1),
            options={"time_limit": seconds, "mip_rel_gap": 0.0},
        )
        dual = getattr(result, "mip_dual_bound", None)
        sure = float(dual) if dual is not None else 0.0
        if result.status != 0:  # out of time: parts of boards may prove more
            parts = linprog(self.prices, A_ub=-matrix, b_ub=-wanted, bounds=(0, 1), method="highs")
            sure = max(sure, float(parts.fun)) if parts.status == 0 else sure
        return max(0.0, sure - 1e-7 * max(1.0, float(self.prices.sum()))), result.x


class _Columns:
    """What boards can hold, met so far; for a choice of boards it seeks profits by which it has not
    room enough.
    """

    def __init__(self, relaxation: BoardRelaxation, counted: Counted) -> None:
        self.relaxation = relaxation
        self.counted = counted
        self.demand = np.array(
            [w.width if w.is_panel else w.count for w in relaxation.item_types], dtype=float
        )
        # An item type left out costs its area; all of them together cost 1.
        area = [
            (w.length + relaxation.shop.kerf.crosscut)
            * (1 if w.is_panel else w.width + relaxation.shop.allowance.width)
            for w in relaxation.item_types
        ]
        self.most = np.array(area, dtype=float) / float(np.dot(area, self.demand))
        self.boards: list[int] = []
        self.held: list[Floats] = []

    def violated(self, chosen: Floats, go_on: GoOn) -> tuple[Floats, float] | None:
        """What every board has room for and what is wanted, by profits for which the chosen (parts
        of) boards have not room enough; None where there are none, or no time to find them. Raises
        Halted.
        """
        profits = self.most
        best: tuple[float, Floats, Floats] | None = None
        used = np.flatnonzero(chosen > 1e-6)
        for _ in range(_TRIALS):
            room, held = self.relaxation.most(profits, used)
            self.counted(self.relaxation, profits, used.tolist())
            for b in used:
                self.boards.append(int(b))
                self.held.append(held[b])
            short = float(profits @ self.demand) - float(room @ chosen)
            if short > _SHORT and (best is None or short > best[0]):
                best = short, profits, room
            profits, left = self._profits(chosen)
            if left < _SHORT or (best and best[0] > _ENOUGH * left) or not go_on():
                break
        if best is None:
            return None
        _, profits, room = best
        others, _ = self.relaxation.most(profits, np.flatnonzero(chosen <= 1e-6))
        return room + others, float(profits @ self.demand)

    def _profits(self, chosen: Floats) -> tuple[Floats, float]:
        """As much as the columns met so far can place of what is wanted: the profit of one of each
        want at the margin, and the share that is left out.
        """
        columns, item_types = len(self.held), len(self.demand)
        held = np.array(self.held)
        wanted, place = np.nonzero(held.T)
        cover = coo_matrix(
            (-held.T[wanted, place], (wanted, place)), shape=(item_types, columns + item_types)
        ).tolil()
        cover[np.arange(item_types), columns + np.arange(item_types)] = -1.0
        once = coo_matrix(
            (np.ones(columns), (self.boards, range(columns))),
            shape=(len(chosen), columns + item_types),
        )
        cost = np.concatenate([np.zeros(columns), self.most])
        solved = linprog(
            cost,
            A_ub=vstack([cover.tocsr(), once.tocsr()]),
            b_ub=np.concatenate([-self.demand, chosen]),
            bounds=(0, None),
            method="highs",
        )
        if solved.status != 0:
            return self.most, 0.0
        return np.clip(-solved.ineqlin.marginals[:item_types], 0.0, self.most), float(solved.fun)


def _spread(values: set[int], most: int = 8) -> list[int]:
    """Some of the values, evenly over their order: every one gives a true row, all of them would be
    too many.
    """
    ordered = sorted(values)
    if len(ordered) <= most:
        return ordered
    return [ordered[k * (len(ordered) - 1) // (most - 1)] for k in range(most)]


def _layers(board: Board, thickness: int, shop: Shop) -> int:
    """Most pieces of this thickness that the board's thickest place gives, with their
    allowances.
    """
    return shop.layers_in(board.thickest, thickness)


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
    """Area of the outline between the end trims, grown by a crosscut kerf along and a rip kerf
    across.
    """
    kerf = shop.kerf.crosscut
    steepest = max(
        (
            max(abs(b.y0 - a.y0), abs(b.y1 - a.y1)) / (b.x - a.x)
            for a, b in pairwise(board.stations)
        ),
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
    lines = (
        usable // max(length + shop.allowance.length, shop.min_blank_length) if usable > 0 else 0
    )
    # Short parts share a blank, so count by parts and not by blanks where that gives more.
    lines = max(lines, max(0, usable - shop.allowance.length) // length if length else 0)
    across = (board.widest + shop.kerf.rip) // (width + shop.allowance.width + shop.kerf.rip)
    return max(0, lines) * max(0, across)
