"""What is clear on a board: the largest rectangles free of faults, and the grade its cuttings would make."""

from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Literal

from vividplank.core.board.board import Board
from vividplank.core.board.defect import Defect
from vividplank.core.measure import TICKS_PER_INCH

Quality = Literal["clear-two", "clear-one", "sound"]
_INCH = TICKS_PER_INCH
_FOOT = 12 * _INCH
#: Rectangles may begin and end at faults, at stations, and at so many places between.
_PLACES = 40


@dataclass(frozen=True)
class Area:
    """A rectangle of the board, in ticks; `face` is the one that is clear, "both" where both are."""

    x0: int
    x1: int
    y0: int
    y1: int
    face: Literal["A", "B", "both"] = "both"

    @property
    def size(self) -> int:
        return (self.x1 - self.x0) * (self.y1 - self.y0)


def clear_areas(
    board: Board, quality: Quality, most: int = 3, shortest: int = 12 * _INCH, narrowest: int = _INCH
) -> tuple[Area, ...]:
    """The largest rectangle of that quality, the largest in what is left, and so on.

    Ends and edges lie on a grid of forty places along the board besides its faults and stations, so a rectangle is
    never larger than what is really clear, and rarely much smaller.
    """
    found: list[Area] = []
    for _ in range(most):
        best = _best(board, quality, found, shortest, narrowest)
        if best is None:
            break
        found.append(best)
    return tuple(found)


@dataclass(frozen=True)
class Rule:
    """One grade of the NHLA's rules: least board, least cuttings (width, length), clear share, how many cuttings."""

    name: str
    board: tuple[int, int]
    cuttings: tuple[tuple[int, int], ...]
    share: Fraction
    step: int
    over: int
    most: int
    extra: tuple[int, int, Fraction] | None = None  # surface measure from, to: one cutting more for so large a share

    def allowed(self, surface: int) -> int:
        """How many cuttings a board of this surface measure may be cut into."""
        return min(self.most, (surface + self.over) // self.step) if self.step else self.most


#: Rules for the Measurement and Inspection of Hardwood and Cypress (NHLA), standard grades, graded from the poorer face.
#: Selects: the better face FAS, the other No. 1 Common, on boards from 4 in by 6 ft.
SELECTS_BOARD = (4 * _INCH, 6 * _FOOT)
RULES = (
    Rule("FAS", (6 * _INCH, 8 * _FOOT), ((4 * _INCH, 5 * _FOOT), (3 * _INCH, 7 * _FOOT)), Fraction(10, 12), 4, 0, 4,
         (6, 15, Fraction(11, 12))),
    Rule("No. 1 Common", (3 * _INCH, 4 * _FOOT), ((4 * _INCH, 2 * _FOOT), (3 * _INCH, 3 * _FOOT)), Fraction(8, 12), 3, 1, 5,
         (3, 10, Fraction(9, 12))),
    Rule("No. 2A Common", (3 * _INCH, 4 * _FOOT), ((3 * _INCH, 2 * _FOOT),), Fraction(6, 12), 2, 0, 7, (2, 7, Fraction(8, 12))),
    Rule("No. 3A Common", (3 * _INCH, 4 * _FOOT), ((3 * _INCH, 2 * _FOOT),), Fraction(4, 12), 0, 0, 20),
)


@dataclass(frozen=True)
class Grade:
    """The best grade the cuttings found here make, empty below all; `share` is what they hold of the surface."""

    name: str
    surface: int
    share: float
    cuttings: tuple[Area, ...]


def grade(board: Board) -> Grade:
    """The grade of the poorer face, by cuttings clear on that face and sound behind.

    Cuttings are taken largest first, which may miss the best set: the board makes at least this grade.
    """
    width, length = int(board.mean_width), board.length
    surface = max(1, int(Fraction(width, _INCH) * Fraction(length, _FOOT) / 12 + Fraction(1, 2)))
    faces = sorted((_grade(board, face, surface, width) for face in ("A", "B")), key=lambda g: (-_rank(g.name), g.share))
    poorer = faces[0]
    if poorer.name == "No. 1 Common" and width >= SELECTS_BOARD[0] and length >= SELECTS_BOARD[1]:
        best = [_by_rule(board, face, surface, RULES[0]) for face in ("A", "B")]
        if any(g.name for g in best):
            return replace(poorer, name="Selects")
    return poorer


def _rank(name: str) -> int:
    return next((k for k, rule in enumerate(RULES) if rule.name == name), len(RULES))


def _grade(board: Board, face: Literal["A", "B"], surface: int, width: int) -> Grade:
    best = Grade("", surface, 0.0, ())
    for rule in RULES:
        if width < rule.board[0] or board.length < rule.board[1]:
            continue
        best = _by_rule(board, face, surface, rule)
        if best.name:
            return best
    return best


def _by_rule(board: Board, face: Literal["A", "B"], surface: int, rule: Rule) -> Grade:
    """The cuttings of one face by one rule; without its name where they hold too little."""
    whole = board.mean_width * board.length
    allowed = max(1, rule.allowed(surface))
    more = rule.extra if rule.extra and rule.extra[0] <= surface <= rule.extra[1] else None
    taken: list[Area] = []
    share = 0.0
    while len(taken) < allowed + (1 if more else 0):
        choices = [_best(board, "clear-one", taken, least[1], least[0], face) for least in rule.cuttings]
        found = max((c for c in choices if c), key=lambda a: a.size, default=None)
        if found is None:
            break
        taken.append(found)
        share = sum(a.size for a in taken) / whole
        if len(taken) <= allowed and share >= rule.share:
            return Grade(rule.name, surface, share, tuple(taken))
    made = more is not None and share >= more[2]
    return Grade(rule.name if made else "", surface, share, tuple(taken))


def _best(
    board: Board, quality: Quality, taken: list[Area], shortest: int, narrowest: int, face: Literal["A", "B"] | None = None
) -> Area | None:
    if quality == "sound":
        return _largest(board, [d for d in board.boxed if not d.sound], taken, shortest, narrowest, "both")
    if quality == "clear-two":
        return _largest(board, list(board.boxed), taken, shortest, narrowest, "both")
    sides: tuple[Literal["A", "B"], ...] = (face,) if face else ("A", "B")
    found = [
        _largest(board, [d for d in board.boxed if not d.sound or d.face in (side, "both")], taken, shortest, narrowest, side)
        for side in sides
    ]
    return max((a for a in found if a), key=lambda a: a.size, default=None)


def _largest(
    board: Board, faults: list[Defect], taken: list[Area], shortest: int, narrowest: int, face: Literal["A", "B", "both"]
) -> Area | None:
    blocked = [(f.x0, f.x1, f.y0, f.y1) for f in faults] + [(a.x0, a.x1, a.y0, a.y1) for a in taken]
    places = {0, board.length, *(s.x for s in board.stations), *(board.length * k // _PLACES for k in range(1, _PLACES))}
    places |= {x for b in blocked for x in b[:2] if 0 < x < board.length}
    xs = sorted(places)
    edges = [board.edges(x) for x in xs]
    best: Area | None = None
    for i, x0 in enumerate(xs):
        low, high = edges[i]
        for j in range(i + 1, len(xs)):
            low, high = max(low, edges[j][0]), min(high, edges[j][1])
            x1 = xs[j]
            if high - low < narrowest:
                break
            if x1 - x0 < shortest or (best and (x1 - x0) * (high - low) <= best.size):
                continue
            for y0, y1 in _gaps(low, high, [(b[2], b[3]) for b in blocked if b[0] < x1 and b[1] > x0]):
                area = Area(x0, x1, -int(-y0 // 1), int(y1), face)
                if area.y1 - area.y0 >= narrowest and (best is None or area.size > best.size):
                    best = area
    return best


def _gaps(low: float, high: float, blocked: list[tuple[int, int]]) -> list[tuple[float, float]]:
    gaps, at = [], low
    for y0, y1 in sorted(blocked):
        if y0 > at:
            gaps.append((at, min(float(y0), high)))
        at = max(at, float(y1))
    gaps.append((at, high))
    return [g for g in gaps if g[1] > g[0]]
