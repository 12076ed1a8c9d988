"""Rough thickness by quarters of an inch, and what is usually left when two faces are skimmed (NHLA
rules).
"""

from dataclasses import dataclass
from fractions import Fraction

from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_INCH


@dataclass(frozen=True)
class Quarter:
    """`rough` and `surfaced` thickness in ticks; yards differ, so both are a yard's to change."""

    name: str
    rough: int
    surfaced: int


def _quarter(quarters: int, surfaced: str) -> Quarter:
    whole, _, part = surfaced.partition(" ")
    inches = Fraction(whole) + Fraction(part or 0)
    return Quarter(f"{quarters}/4", quarters * TICKS_PER_INCH // 4, int(inches * TICKS_PER_INCH))


QUARTERS = (
    _quarter(4, "13/16"),
    _quarter(5, "1 1/16"),
    _quarter(6, "1 5/16"),
    _quarter(8, "1 3/4"),
    _quarter(10, "2 1/4"),
    _quarter(12, "2 3/4"),
    _quarter(16, "3 3/4"),
)


def quarter_for(thickness: int, quarters: tuple[Quarter, ...] = QUARTERS) -> Quarter | None:
    """The thinnest quarter whose skimmed thickness still gives a part of this thickness; None if
    none does.

    >>> quarter_for(13 * 508).name, quarter_for(13 * 508 + 1).name
    ('4/4', '5/4')
    """
    return next((q for q in quarters if q.surfaced >= thickness), None)


#: What one face left rough leaves more than two skimmed (NHLA: S1S is a sixteenth thicker than
#: S2S).
_ONE_FACE = TICKS_PER_INCH // 16


def quarter_of(
    thickest: int, skimmed: int = 0, quarters: tuple[Quarter, ...] = QUARTERS
) -> Quarter:
    """The quarter a board was sold at, judged from its thickest place and how many of its faces the
    yard has `skimmed`: the thickest whose thickness so dressed it reaches to 1/32.

    >>> inch = TICKS_PER_INCH
    >>> quarter_of(7 * inch // 4).name, quarter_of(7 * inch // 4, skimmed=2).name
    ('6/4', '8/4')
    >>> quarter_of(17 * inch // 16, skimmed=2).name
    '5/4'
    """
    reached = [
        q
        for q in quarters
        if (q.rough, q.surfaced + _ONE_FACE, q.surfaced)[skimmed] <= thickest + 2 * TICKS_PER_64TH
    ]
    return reached[-1] if reached else quarters[0]
