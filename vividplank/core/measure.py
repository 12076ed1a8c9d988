"""Lengths: whole ticks inside, the notations of the shop at the edge.

1 tick = 1/8128 in = 1/320 mm, so 1/64 in is exactly 127 ticks and 0.1 mm exactly 32.
"""

import re
from fractions import Fraction
from math import floor
from typing import Literal

TICKS_PER_INCH = 8128
TICKS_PER_MM = 320
TICKS_PER_64TH = 127
#: Nothing in a furniture shop is longer than this; a larger figure is a slip of the finger.
LONGEST = 100_000 * TICKS_PER_MM

Unit = Literal["in", "mm"]
System = Literal["in", "in-decimal", "ft-in", "mm", "cm", "m"]
SYSTEMS: tuple[System, ...] = ("in", "in-decimal", "ft-in", "mm", "cm", "m")

EXPECTED = 'a length such as 2 3/16, 2-3/16", 1\' 4 1/2", 16.5, 419 mm, 41.9 cm, 1.2 m'

_TICKS_PER: dict[str, int] = {
    "in": TICKS_PER_INCH,
    "ft": 12 * TICKS_PER_INCH,
    "mm": TICKS_PER_MM,
    "cm": 10 * TICKS_PER_MM,
    "m": 1000 * TICKS_PER_MM,
}
_SYSTEM_UNIT: dict[System, str] = {
    "in": "in",
    "in-decimal": "in",
    "ft-in": "in",
    "mm": "mm",
    "cm": "cm",
    "m": "m",
}
_VULGAR = {
    "½": "1/2",
    "¼": "1/4",
    "¾": "3/4",
    "⅛": "1/8",
    "⅜": "3/8",
    "⅝": "5/8",
    "⅞": "7/8",
    "⅓": "1/3",
    "⅔": "2/3",
    "⅕": "1/5",
    "⅙": "1/6",
}
_SIGNS = {
    "′": "'",
    "’": "'",
    "‘": "'",
    "″": '"',
    "”": '"',
    "“": '"',
    "''": '"',
    "⁄": "/",
    "\u00a0": " ",
    "\u2009": " ",
    "\u202f": " ",
    "−": "-",
    "‐": "-",
    "‑": "-",
    "‒": "-",
    "–": "-",
}
_NUMBER = r"(?:\d+(?:[.,]\d+)?|[.,]\d+)"
_AMOUNT = (
    rf"(?:(?P<{{0}}w>\d+)(?:\s+|\s*-\s*))?(?P<{{0}}n>\d+)/(?P<{{0}}d>\d+)|(?P<{{0}}x>{_NUMBER})"
)
_ONE = re.compile(
    rf"(?:{_AMOUNT.format('a')})\s*(?:(?P<unit>mm|cm|m|in|inch|inches|\"|'|ft|foot|feet)\.?)?"
)
_FEET_AND_INCHES = re.compile(
    rf"(?:{_AMOUNT.format('f')})\s*(?:'|(?:ft|foot|feet)\.?)\s*-?\s*(?:{_AMOUNT.format('a')})"
    r"\s*(?:(?:\"|in|inch|inches)\.?)?"
)
#: Units by all the ways they are written.
_UNIT_WORD = {'"': "in", "inch": "in", "inches": "in", "'": "ft", "foot": "ft", "feet": "ft"}


class MeasureError(ValueError):
    """A text that is no length: what it was, and what is expected."""

    def __init__(self, text: str, why: str = "cannot be read as a length") -> None:
        super().__init__(f"'{text}' {why}; expected {EXPECTED}")
        self.text = text
        self.why = why


def parse(text: str, system: System = "in", *, signed: bool = False) -> int:
    """Ticks for a length in any notation of the shop; a bare number is in the unit of `system`.

    Decimals go to the nearest tick (3 micrometres); a fraction must be in halves down to
    64ths, which are whole ticks. A minus sign is read only where `signed`.

    >>> parse('2 3/16'), parse('419 mm'), parse("1' 4 1/2\\"")
    (17780, 134080, 134112)
    """
    cleaned = plain_signs(text).lower()
    sign = 1
    if cleaned[:1] in "-+" and cleaned:
        if not signed:
            raise MeasureError(text, "has a sign, and a length here cannot be negative")
        sign = -1 if cleaned[0] == "-" else 1
        cleaned = cleaned[1:].strip()
    if both := _FEET_AND_INCHES.fullmatch(cleaned):
        inches = _amount(both, "a", text)
        if inches >= 12:
            raise MeasureError(text, "gives twelve inches or more beside the feet")
        exact = _amount(both, "f", text) * _TICKS_PER["ft"] + inches * _TICKS_PER["in"]
    elif one := _ONE.fullmatch(cleaned):
        word = one["unit"] or _SYSTEM_UNIT[system]
        unit = _UNIT_WORD.get(word, word)
        if one["ad"] and unit not in ("in", "ft"):
            raise MeasureError(text, "is a fraction of a metric unit")
        exact = _amount(one, "a", text) * _TICKS_PER[unit]
    else:
        raise MeasureError(text)
    ticks = round(exact)
    if ticks > LONGEST:
        raise MeasureError(text, "is longer than 100 m")
    return sign * ticks


def show(ticks: int, system: System = "in", *, unit: bool = False) -> str:
    """The length as the shop writes it; reading it again in the same system gives the same ticks.

    Inches are fractions where the length is a whole number of 64ths; where it is not, and in the
    metric systems, it is the shortest decimal that reads back (four decimals of an inch always do).

    >>> show(17780), show(134080, 'mm', unit=True), show(134112, 'ft-in')
    ('2 3/16', '419 mm', "1' 4 1/2")
    """
    if ticks < 0:
        return "-" + show(-ticks, system, unit=unit)
    if system == "ft-in":
        feet, rest = divmod(ticks, _TICKS_PER["ft"])
        inches = _fraction(rest)
        if feet:
            return f"{feet}' {inches}" + ('"' if unit else "")
        return inches + ('"' if unit else "")
    if system == "in":
        return _fraction(ticks) + (" in" if unit else "")
    word = _SYSTEM_UNIT[system]
    digits = {"in": 4, "mm": 3, "cm": 4, "m": 6}[word]
    return _decimal(ticks, _TICKS_PER[word], digits) + (f" {word}" if unit else "")


def unit_of(system: System) -> Unit:
    """The unit of exchange files that goes with a system of display."""
    return "in" if _SYSTEM_UNIT[system] == "in" else "mm"


def rule_step(system: System) -> int:
    """The finest mark of the shop's rule: a 64th of an inch, or a tenth of a millimetre."""
    return TICKS_PER_64TH if unit_of(system) == "in" else TICKS_PER_MM // 10


def about(ticks: float, system: System, *, unit: bool = False, down: bool = False) -> str:
    """A surveyed or computed figure on the shop's rule: to the nearest mark, or the one below for
    what wood still gives.

    Every figure and sentence about one place rounds so, here and on the screens.

    >>> about(27.9 * 127, 'in'), about(27.9 * 127, 'in', down=True)
    ('7/16', '27/64')
    """
    marks = ticks / rule_step(system)
    return show(floor(marks + (1e-3 if down else 0.5)) * rule_step(system), system, unit=unit)


def written(ticks: int, system: System, *, unit: bool = False) -> str:
    """A figure that somebody may have typed: as it is where it lies on any rule, else to the
    nearest mark of the shop's.

    >>> written(19 * 320, 'in', unit=True), written(3676, 'in', unit=True)
    ('0.748 in', '29/64 in')
    >>> written(3676, 'in-decimal')
    '0.4523'
    """
    if system == "in-decimal" or ticks % TICKS_PER_64TH == 0 or ticks % (TICKS_PER_MM // 10) == 0:
        return show(ticks, system, unit=unit)
    return about(ticks, system, unit=unit)


def from_number(value: float | int, unit: Unit) -> int:
    """Ticks nearest to a number of inches or millimetres, as the exchange files hold lengths."""
    ticks = value * _TICKS_PER[unit]
    if abs(ticks) < 1e9 and abs(ticks % 1 - 0.5) > 1e-4:  # a float's error is far below
        return round(ticks)
    exact = Fraction(str(value)) if isinstance(value, float) else Fraction(value)
    return round(exact * _TICKS_PER[unit])


def to_number(ticks: int, unit: Unit) -> float | int:
    """The shortest decimal that `from_number` reads back to the same ticks."""
    exact = Fraction(ticks, _TICKS_PER[unit])
    for digits in range(7):
        value = round(float(exact), digits)
        if from_number(value, unit) == ticks:
            return int(value) if value == int(value) else value
    raise AssertionError(f"{ticks} ticks do not survive as a decimal")  # 1e-4 in is below a tick


def plain_signs(text: str) -> str:
    """One kind of quote and minus, and ½ as 1/2."""
    cleaned = text.strip()
    for odd, plain in _SIGNS.items():
        cleaned = cleaned.replace(odd, plain)
    for glyph, plain in _VULGAR.items():
        cleaned = cleaned.replace(glyph, f" {plain}")
    return re.sub(r"\s+", " ", cleaned).strip()


def _amount(match: re.Match[str], name: str, text: str) -> Fraction:
    if decimal := match[f"{name}x"]:
        if re.fullmatch(r"[1-9]\d*,\d{3}", decimal):
            raise MeasureError(text, "could mean thousands or a decimal comma; write a point")
        return Fraction(decimal.replace(",", "."))
    denominator = int(match[f"{name}d"])
    if denominator not in (1, 2, 4, 8, 16, 32, 64):
        raise MeasureError(text, "has a fraction that is not in halves, 4ths, 8ths … 64ths")
    part = Fraction(int(match[f"{name}n"]), denominator)
    if match[f"{name}w"] and part >= 1:
        raise MeasureError(text, "has a fraction of one or more beside whole inches")
    return int(match[f"{name}w"] or 0) + part


def _fraction(ticks: int) -> str:
    if ticks % TICKS_PER_64TH:
        return _decimal(ticks, TICKS_PER_INCH, 4)
    whole, part = divmod(Fraction(ticks, TICKS_PER_INCH), 1)
    if not part:
        return str(whole)
    return f"{whole} {part}" if whole else str(part)


def _decimal(ticks: int, per: int, most: int) -> str:
    for digits in range(most):
        text = f"{ticks / per:.{digits}f}"
        if round(Fraction(text) * per) == ticks:
            return text
    return f"{ticks / per:.{most}f}"
