"""How a machine shows its setting: on a scale, by turns of a wheel, or on a readout."""

from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from vividplank.core.fields import Ticks
from vividplank.core.measure import System, written

Kind = Literal["scale", "wheel", "readout"]
_WORDS = {
    Fraction(1, 4): "a quarter turn",
    Fraction(1, 2): "half a turn",
    Fraction(3, 4): "three quarters of a turn",
    Fraction(1): "one turn",
}


@dataclass(frozen=True)
class Dial:
    """`per_turn` is what one whole turn of the wheel moves, in ticks; it counts for a wheel
    only.
    """

    kind: Kind = "scale"
    per_turn: Ticks = 0

    def step(self, rule: int) -> float:
        """The least it can be moved by, in ticks: a sixteenth of a turn of a wheel, a mark of the
        rule on a scale, a thousandth of an inch on a readout.
        """
        if self.kind == "wheel" and self.per_turn:
            return self.per_turn / 16
        return 8 if self.kind == "readout" else rule

    def says(self, depth: int, system: System) -> str:
        """How to move it by a depth, in sixteenths of a turn where it has a wheel.

        >>> [Dial("wheel", 508).says(ticks, "in") for ticks in (254, 1143, 95)]
        ['half a turn', '2 1/4 turns', '3/16 of a turn']
        """
        if self.kind != "wheel" or not self.per_turn:
            return written(depth, system, unit=True)
        turns = Fraction(round(16 * depth / self.per_turn), 16)
        if turns in _WORDS:
            return _WORDS[turns]
        whole, rest = divmod(turns, 1)
        if not whole:
            return f"{rest} of a turn"
        return f"{whole} {rest} turns" if rest else f"{whole} turns"
