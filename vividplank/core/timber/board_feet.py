"""Board feet, exactly and as tickets round them. One board foot is 144 cubic inches of rough
stock.
"""

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from vividplank.core.measure import TICKS_PER_INCH

CUBIC_TICKS_PER_BOARD_FOOT = 144 * TICKS_PER_INCH**3


@dataclass(frozen=True)
class TicketRule:
    """How a yard rounds. `surface` rounds W × L(ft) / 12 to a whole number before it takes the
    thickness.
    """

    method: Literal["exact", "surface"] = "exact"
    whole_feet: bool = False
    half_inches_up: bool = False


def board_feet(
    thickness: int, width: int, length: int, rule: TicketRule = TicketRule()
) -> Fraction:
    """T(in) × W(in) × L(ft) / 12 of rough stock, T counted at least 1 in.

    An 8/4 board 6 1/2 in wide and 9 ft 4 in long: 2 × 6.5 × 9 1/3 / 12.

    >>> inch = TICKS_PER_INCH
    >>> board_feet(2 * inch, 13 * inch // 2, 112 * inch)
    Fraction(91, 9)
    >>> board_feet(2 * inch, 13 * inch // 2, 112 * inch, TicketRule("surface", whole_feet=True))
    Fraction(10, 1)
    """
    feet = Fraction(length, 12 * TICKS_PER_INCH)
    inches = Fraction(width, TICKS_PER_INCH)
    if rule.whole_feet:
        feet = Fraction(feet.numerator // feet.denominator)
    if rule.half_inches_up:
        halves = inches * 2
        inches = Fraction(-(-halves.numerator // halves.denominator), 2)
    surface = inches * feet / 12
    if rule.method == "surface":
        surface = Fraction(
            (surface.numerator * 2 + surface.denominator) // (2 * surface.denominator)
        )
    return surface * max(Fraction(thickness, TICKS_PER_INCH), Fraction(1))


def cubic_board_feet(cubic_ticks: int) -> Fraction:
    """A volume as board feet of 144 cubic inches."""
    return Fraction(cubic_ticks, CUBIC_TICKS_PER_BOARD_FOOT)
