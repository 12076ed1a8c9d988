"""The grade a board's cuttings make, by the standard grades of the NHLA.

Rules for the Measurement and Inspection of Hardwood and Cypress (National Hardwood Lumber
Association). Sizes of boards and cuttings, how many cuttings there may be and what they must hold
are the published table. The limits on wane, splits, pith and knots (`_within_limits`) are given
here from general accounts of the rules and only as far as a survey shows them; the first foot from
each end, how far a split runs aslant and season checks that would plane out are not looked at.
Where one of them could matter the grade is `about`.

Sapwood is no fault in the standard grades of any wood in our table; stain, mineral streak and every
knot count.
"""

from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from vividplank.core.board.board import Board
from vividplank.core.board.clear import SIDES, Area, clear_on
from vividplank.core.board.defect import Defect
from vividplank.core.measure import TICKS_PER_INCH as _INCH

_FOOT = 12 * _INCH
#: A cutting unit: an inch by a foot. A surface measure of one square foot is twelve.
_UNIT = _INCH * _FOOT
GRADES = ("FAS", "FAS one face", "Selects", "No. 1 Common", "No. 2A Common", "No. 3A Common")
#: Kinds of faults that the rules limit beyond keeping them out of the cuttings.
_LIMITED = frozenset({"wane", "split", "pith", "tight-knot", "loose-knot", "hole", "check"})
Side = Literal["A", "B"]


@dataclass(frozen=True)
class Rule:
    """One grade: least board and cuttings as (width, length), the twelfths of the surface measure
    that cuttings must hold.

    There may be (surface + `over`) // `step` cuttings, at most `most`. `small` are the twelfths
    asked of the smallest surface measures, in one cutting. `extra`: from one surface measure to
    another, one cutting more for so many twelfths.
    """

    name: str
    board: tuple[int, int]
    cuttings: tuple[tuple[int, int], ...]
    twelfths: int
    step: int
    over: int
    most: int
    extra: tuple[int, int, int] | None = None
    small: tuple[tuple[int, int], ...] = ()

    def allowed(self, surface: int) -> int:
        """How many cuttings a board of this surface measure may be cut into."""
        return max(1, min(self.most, (surface + self.over) // self.step))

    def asked(self, surface: int) -> int:
        """How many cutting units they must hold."""
        return surface * dict(self.small).get(surface, self.twelfths)


_CLEAR_FACES = ((4 * _INCH, 5 * _FOOT), (3 * _INCH, 7 * _FOOT))
RULES = (
    Rule("FAS", (6 * _INCH, 8 * _FOOT), _CLEAR_FACES, 10, 4, 0, 4, (6, 15, 11)),
    Rule(
        "No. 1 Common",
        (3 * _INCH, 4 * _FOOT),
        ((4 * _INCH, 2 * _FOOT), (3 * _INCH, 3 * _FOOT)),
        8,
        3,
        1,
        5,
        (3, 10, 9),
        ((1, 12), (2, 9)),
    ),
    Rule(
        "No. 2A Common",
        (3 * _INCH, 4 * _FOOT),
        ((3 * _INCH, 2 * _FOOT),),
        6,
        2,
        0,
        7,
        (2, 7, 8),
        ((1, 8),),
    ),
    Rule("No. 3A Common", (3 * _INCH, 4 * _FOOT), ((3 * _INCH, 2 * _FOOT),), 4, 1, 40, 40),
)
_FAS, _NO_1 = RULES[:2]
#: Selects: the better face as FAS, also on a narrower and shorter board, the other face No. 1
#: Common.
_SELECTS = replace(_FAS, board=(4 * _INCH, 6 * _FOOT), small=((1, 12), (2, 11), (3, 11)))


@dataclass(frozen=True)
class Grade:
    """The best grade the cuttings found here make, empty below all.

    `units` are what the cuttings hold, `asked` what that grade asks (the last one tried where there
    is none), in cutting units of an inch by a foot. `about`: the board has faults that the rules
    limit in ways only partly judged here.
    """

    name: str
    surface: int
    units: Fraction
    asked: int
    cuttings: tuple[Area, ...]
    about: bool = False

    @property
    def share(self) -> float:
        """What the cuttings hold of the surface measure."""
        return float(self.units / (12 * self.surface))


def surface_measure(board: Board) -> int:
    """Width in inches and fractions by length in whole feet, over 12, to the nearest whole number
    (a half upward).

    7 in by 12 ft 11 in is 7 × 12 / 12 = 7.
    """
    feet = board.length // _FOOT
    area = Fraction(int(board.mean_width), _INCH) * feet / 12
    return max(1, int(area + Fraction(1, 2)))


def grade(board: Board) -> Grade:
    """The grade by cuttings clear on one face and sound behind; both faces are judged.

    Cuttings are taken largest first, which may miss the best set: the board makes at least this
    grade.
    """
    surface = surface_measure(board)
    by_face = {side: _best_of(board, side, surface) for side in SIDES}
    poorer = max(by_face.values(), key=lambda g: (_rank(g.name), -g.units))
    about = any(d.kind in _LIMITED for d in board.defects)
    if poorer.name == _NO_1.name:
        for name, rule in (("FAS one face", _FAS), ("Selects", _SELECTS)):
            found = [
                _by_rule(board, side, surface, rule) for side in SIDES if _large_enough(board, rule)
            ]
            better = max((g for g in found if g.name), key=lambda g: g.units, default=None)
            if better:
                return replace(better, name=name, about=about)
    return replace(poorer, about=about)


def _rank(name: str) -> int:
    return GRADES.index(name) if name else len(GRADES)


def _large_enough(board: Board, rule: Rule) -> bool:
    return board.mean_width >= rule.board[0] and board.length >= rule.board[1]


def _best_of(board: Board, face: Side, surface: int) -> Grade:
    best = Grade("", surface, Fraction(0), RULES[-1].asked(surface), ())
    for rule in RULES:
        if _large_enough(board, rule):
            best = _by_rule(board, face, surface, rule)
        if best.name:
            break
    return best


def _by_rule(board: Board, face: Side, surface: int, rule: Rule) -> Grade:
    """The cuttings of one face by one rule; without its name where they hold too little or a limit
    is passed.
    """
    faults = [d for d in board.boxed if d.kind != "sapwood"]
    allowed, asked = rule.allowed(surface), rule.asked(surface)
    more = rule.extra if rule.extra and rule.extra[0] <= surface <= rule.extra[1] else None
    name = rule.name if _within_limits(board, face, surface, rule) else ""
    taken: list[Area] = []
    units = Fraction(0)
    while len(taken) < allowed + (1 if more else 0):
        choices = [
            clear_on(faults, board, face, taken, least[1], least[0]) for least in rule.cuttings
        ]
        found = max((c for c in choices if c), key=lambda a: a.size, default=None)
        if found is None:
            break
        taken.append(found)
        units += Fraction(found.size, _UNIT)
        if len(taken) <= allowed and units >= asked:
            return Grade(name, surface, units, asked, tuple(taken))
    if more and units >= surface * more[2]:
        return Grade(name, surface, units, surface * more[2], tuple(taken))
    return Grade("", surface, units, asked, tuple(taken))


def _within_limits(board: Board, face: Side, surface: int, rule: Rule) -> bool:
    """About what the rules limit beyond the cuttings, of the faults that show on this face.

    FAS (and so the better face of Selects): pith in all no more inches than the surface measure,
    splits twice as many, no knot or hole wider on the average than a third of it, wane on neither
    edge over more than half the length. No. 1 Common: pith over no more than half the length.
    """
    shown = [d for d in board.defects if d.face in (face, "both")]
    pith = _run([d for d in shown if d.kind == "pith"])
    if rule.name == _NO_1.name:
        return pith * 2 <= board.length
    if rule.name != _FAS.name:
        return True
    widest = max(
        (d.x1 - d.x0 + d.y1 - d.y0 for d in shown if d.kind.endswith("knot") or d.kind == "hole"),
        default=0,
    )
    wane = [d for d in shown if d.kind == "wane"]
    far = [d for d in wane if _far(board, d)]
    waney = max(_run(far), _run([d for d in wane if d not in far]))
    return (
        pith <= surface * _INCH
        and _run([d for d in shown if d.kind == "split"]) <= 2 * surface * _INCH
        and widest * 3 <= 2 * surface * _INCH
        and waney * 2 <= board.length
    )


def _run(faults: list[Defect]) -> int:
    """How far along the board the faults reach together, each place counted once."""
    total, end = 0, 0
    for d in sorted(faults, key=lambda d: d.x0):
        total += max(0, d.x1 - max(d.x0, end))
        end = max(end, d.x1)
    return total


def _far(board: Board, fault: Defect) -> bool:
    """Whether a fault lies nearer the far edge than the datum edge."""
    low, high = board.edges((fault.x0 + fault.x1) / 2)
    return fault.y0 + fault.y1 > low + high
