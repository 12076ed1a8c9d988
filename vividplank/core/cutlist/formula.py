"""Formulas over a project's measures: `W - 2 * stock`, `1' 4 1/2" / 3`, `round(H / 5, 1/16 in)`.

A value is a length (in ticks) or a plain number; both are exact fractions until a part takes them.
A number without a unit beside a length is read in the project's unit.
"""

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from fractions import Fraction

from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, Unit, plain_signs

_PER_UNIT = {
    "in": TICKS_PER_INCH,
    "ft": 12 * TICKS_PER_INCH,
    "mm": TICKS_PER_MM,
    "cm": 10 * TICKS_PER_MM,
    "m": 1000 * TICKS_PER_MM,
}
_UNITS = {
    '"': "in",
    "in": "in",
    "inch": "in",
    "inches": "in",
    "'": "ft",
    "ft": "ft",
    "feet": "ft",
    "foot": "ft",
    "mm": "mm",
    "cm": "cm",
    "m": "m",
}
_FUNCTIONS = ("min", "max", "abs", "round", "up", "down")
#: Words that can be no measure's name.
RESERVED = frozenset({*_UNITS, *_FUNCTIONS})


def _token(fraction: str) -> re.Pattern[str]:
    unit = r"(?:inches|inch|in|feet|foot|ft|mm|cm|m)(?![a-z_0-9])|\"|'"
    imperial = r"\s*(?:\"|'|(?:in|inch|inches|ft|feet|foot)(?![a-z_0-9]))"
    return re.compile(
        rf"\s*(?:(?P<number>(?:\d+\s+)?\d+/\d+(?={imperial})|\d+\s+\d+/\d+|{fraction}\d+\.\d+|\.\d+|\d+)\s*(?:(?P<unit>{unit})(?:\.(?!\d))?)?"
        r"|(?P<name>[a-z_][a-z_0-9]*)|(?P<sign>[-+*/()×÷,;]))",
        re.IGNORECASE,
    )


#: 3/4 is one number, but not in W/3/4, which divides twice.
_TOKEN, _AFTER_SLASH = _token(r"\d+/\d+(?![\d.])|"), _token("")
_LONGEST_TEXT = 300
_DEEPEST = 40
#: No figure of a shop needs more binary digits, exact thirds of thirds included; products of
#: products would grow for ever.
_MOST_BITS = 512

EXPECTED = "a formula such as W - 2 * stock, H / 3 + 1/4 in or max(D, 300 mm)"


class FormulaError(ValueError):
    """A formula that has no value: its text, and what is wrong with it."""

    def __init__(self, text: str, why: str) -> None:
        super().__init__(f"'{text}' {why}; expected {EXPECTED}")
        self.text = text
        self.why = why


@dataclass(frozen=True)
class Value:
    """`length`: in ticks; else a plain number. `bare` are the places of numbers that would take a
    unit if it became one.
    """

    amount: Fraction
    length: bool
    bare: frozenset[int] = frozenset()


@dataclass
class _Reader:
    """One pass over one formula; a recursive descent that evaluates as it reads."""

    text: str
    tokens: list[re.Match[str]]
    unit: Unit
    look_up: Callable[[str], Value]
    at: int = 0
    depth: int = 0
    made_lengths: set[int] = field(default_factory=set)

    def whole(self) -> Value:
        if not self.tokens:
            raise self.wrong("is empty")
        value = self.sum()
        if self.at < len(self.tokens):
            raise self.wrong(f"goes on after its end at '{self.here()}'")
        return value

    def sum(self) -> Value:
        self.depth += 1
        if self.depth > _DEEPEST:
            raise self.wrong("is nested too deep")
        value = self.product()
        while self.here() in ("+", "-"):
            sign = self.take()
            other = self.product()
            value, other = self.alike(value, other)
            amount = value.amount + other.amount if sign == "+" else value.amount - other.amount
            value = Value(self.bounded(amount), value.length, value.bare | other.bare)
        self.depth -= 1
        return value

    def product(self) -> Value:
        value = self.signed()
        while self.here() in ("*", "/", "×", "÷"):
            sign = self.take()
            other = self.signed()
            if sign in "*×":
                if value.length and other.length:
                    raise self.wrong("multiplies a length by a length, which is an area")
                value = Value(
                    self.bounded(value.amount * other.amount),
                    value.length or other.length,
                    value.bare or other.bare,
                )
            else:
                if other.amount == 0:
                    raise self.wrong("divides by nothing")
                if other.length and not value.length:
                    raise self.wrong("divides a number by a length")
                amount = self.bounded(value.amount / other.amount)
                value = Value(amount, value.length and not other.length, value.bare)
        return value

    def signed(self) -> Value:
        if self.here() in ("-", "+"):
            sign = self.take()
            value = self.signed()
            return Value(-value.amount if sign == "-" else value.amount, value.length, value.bare)
        return self.single()

    def single(self) -> Value:
        if self.at >= len(self.tokens):
            raise self.wrong("ends where a measure or number was due")
        token = self.tokens[self.at]
        if token["number"]:
            self.at += 1
            return self.number(token)
        if token["name"]:
            self.at += 1
            if self.here() == "(":
                return self.function(token["name"].lower())
            return self.look_up(token["name"])
        if token["sign"] == "(":
            self.at += 1
            value = self.sum()
            self.close()
            return value
        raise self.wrong(f"has '{token['sign']}' where a measure or number was due")

    def number(self, token: re.Match[str]) -> Value:
        amount = self.bounded(_amount(token["number"], self))
        if not token["unit"]:
            return Value(amount, False, frozenset({token.end("number")}))
        unit = _UNITS[token["unit"].lower()]
        ticks = amount * _PER_UNIT[unit]
        return Value(self.bounded(ticks + (self.inches_after(token) if unit == "ft" else 0)), True)

    def inches_after(self, feet: re.Match[str]) -> Fraction:
        """The inches written to a figure in feet, in ticks: `5' 6"` and `5'-6"` mean 66 in, as in
        every measure field.

        Set apart, `5' - 6"` could as well be a difference, and is refused.
        """
        minus = self.tokens[self.at] if self.at < len(self.tokens) and self.here() == "-" else None
        at = self.at + (1 if minus else 0)
        inches = self.tokens[at] if at < len(self.tokens) else None
        if (
            not inches
            or not inches["number"]
            or _UNITS.get((inches["unit"] or '"').lower()) != "in"
        ):
            return Fraction(0)
        amount = _amount(inches["number"], self)
        if minus:
            joined = minus.start("sign") == feet.end() and inches.start("number") == minus.end()
            times = at + 1 < len(self.tokens) and self.tokens[at + 1]["sign"] in (
                "*",
                "/",
                "×",
                "÷",
            )
            if not joined and (times or amount >= 12):
                return Fraction(0)
            if not joined or times:
                raise self.wrong(
                    "could mean feet and inches or a difference; write 5' 6\" or (5') - 6\""
                )
        if amount >= 12:
            raise self.wrong("gives twelve inches or more beside the feet")
        self.at = at + 1
        return amount * TICKS_PER_INCH

    def function(self, name: str) -> Value:
        if name not in _FUNCTIONS:
            raise self.wrong(
                f"calls '{name}', which is not known; there are {', '.join(_FUNCTIONS)}"
            )
        self.take()
        values = [self.sum()]
        while self.here() in (",", ";"):
            self.take()
            values.append(self.sum())
        self.close()
        if name == "abs" and len(values) == 1:
            return Value(abs(values[0].amount), values[0].length, values[0].bare)
        if name in ("min", "max") and len(values) > 1:
            first = values[0]
            for value in values[1:]:
                first, value = self.alike(first, value)
                amount = (min if name == "min" else max)(first.amount, value.amount)
                first = Value(amount, first.length, first.bare | value.bare)
            return first
        if name in ("round", "up", "down") and len(values) in (1, 2):
            return self.stepped(name, values)
        raise self.wrong(f"gives {name} {len(values)} value{'s' if len(values) > 1 else ''}")

    def stepped(self, name: str, values: list[Value]) -> Value:
        if len(values) == 1 and values[0].length:
            raise self.wrong(f"must say to what step: {name}(length, 1/16 in)")
        value, step = self.alike(
            values[0], values[1] if len(values) == 2 else Value(Fraction(1), False)
        )
        if step.amount <= 0:
            raise self.wrong(f"steps by {step.amount}; expected more than nothing")
        times = value.amount / step.amount
        whole = {"round": (times + Fraction(1, 2)) // 1, "up": -(-times // 1), "down": times // 1}[
            name
        ]
        return Value(Fraction(whole) * step.amount, value.length, value.bare | step.bare)

    def alike(self, one: Value, other: Value) -> tuple[Value, Value]:
        """Both lengths or both numbers: a bare number beside a length is one, in the project's
        unit.
        """
        if one.length == other.length:
            return one, other
        return (one, self.as_length(other)) if one.length else (self.as_length(one), other)

    def as_length(self, value: Value) -> Value:
        if value.length:
            return value
        if not value.bare and value.amount != 0:
            raise self.wrong("puts a plain number and a length together; give the number a unit")
        self.made_lengths |= value.bare
        return Value(value.amount * _PER_UNIT[self.unit], True)

    def here(self) -> str:
        return self.tokens[self.at].group().strip() if self.at < len(self.tokens) else ""

    def take(self) -> str:
        self.at += 1
        return self.tokens[self.at - 1]["sign"] or ""

    def close(self) -> None:
        if self.here() != ")":
            raise self.wrong("has a bracket that is not closed")
        self.at += 1

    def bounded(self, amount: Fraction) -> Fraction:
        if (
            amount.numerator.bit_length() > _MOST_BITS
            or amount.denominator.bit_length() > _MOST_BITS
        ):
            raise self.wrong("grows beyond any figure of a shop")
        return amount

    def wrong(self, why: str) -> FormulaError:
        return FormulaError(self.text, why)


def length_of(text: str, unit: Unit, values: Mapping[str, Value]) -> int:
    """The formula as whole ticks, to the nearest (3 micrometres). Raises FormulaError; a length
    must be more than nothing.
    """
    ticks = round(evaluate(text, unit, values, length=True).amount)
    if ticks <= 0:
        raise FormulaError(text, "comes to nothing or less; expected a length")
    return ticks


def count_of(text: str, unit: Unit, values: Mapping[str, Value]) -> int:
    """The formula as a whole number of pieces."""
    value = evaluate(text, unit, values, length=False)
    if value.amount.denominator != 1 or value.amount < 1:
        raise FormulaError(
            text,
            f"comes to {float(value.amount):g}; expected a whole number of 1 or more, as down(…) "
            f"makes it",
        )
    return int(value.amount)


def evaluate(text: str, unit: Unit, values: Mapping[str, Value], *, length: bool) -> Value:
    """The value of a formula that must be a length, or a plain number. Names are looked up without
    regard to case.
    """
    reader = _reader(text, unit, values)
    value = reader.whole()
    if length:
        return reader.as_length(value)
    if value.length:
        raise FormulaError(
            text, "is a length; expected a number. Divide it by a length with a unit, as W / 3 in"
        )
    return value


def with_units(text: str, unit: Unit, values: Mapping[str, Value], *, length: bool) -> str:
    """The same formula with the unit written to every bare number that was read in it.

    >>> with_units("W - 2 * 3", "in", {"w": Value(Fraction(81280), True)}, length=True)
    'W - 2 in * 3'
    """
    reader = _reader(text, unit, values)
    value = reader.whole()
    if length:
        reader.as_length(value)
    cleaned = reader.text
    for at in sorted(reader.made_lengths, reverse=True):
        cleaned = f"{cleaned[:at]} {unit}{cleaned[at:]}"
    return cleaned


def names_in(text: str) -> list[str]:
    """The measures a formula asks for, in order, as written."""
    tokens = _tokens(text)
    return [
        t["name"]
        for i, t in enumerate(tokens)
        if t["name"] and not (i + 1 < len(tokens) and tokens[i + 1]["sign"] == "(")
    ]


def renamed(text: str, names: Mapping[str, str]) -> str:
    """The formula with measures called otherwise.

    >>> renamed("W - 2*stock", {"w": "W2"})
    'W2 - 2*stock'
    """
    cleaned = _signs(text)
    for token in reversed(_tokens(text)):
        new = names.get((token["name"] or "").lower())
        if new:
            cleaned = cleaned[: token.start("name")] + new + cleaned[token.end("name") :]
    return cleaned


def _reader(text: str, unit: Unit, values: Mapping[str, Value]) -> _Reader:
    def look_up(name: str) -> Value:
        found = values.get(name.lower())
        if found is None:
            known = ", ".join(sorted(values)) or "none yet"
            raise FormulaError(
                text, f"asks for '{name}', which is no measure here (there are: {known})"
            )
        return Value(found.amount, found.length)

    return _Reader(_signs(text), _tokens(text), unit, look_up)


def _tokens(text: str) -> list[re.Match[str]]:
    cleaned = _signs(text)
    if len(cleaned) > _LONGEST_TEXT:
        raise FormulaError(cleaned[:40] + "…", f"is longer than {_LONGEST_TEXT} letters")
    if re.search(r"(?<![\w.])\d+-\d+/\d+", cleaned):
        raise FormulaError(
            text, "could mean a mixed number or a difference; write 2 3/16 or 2 - 3/16"
        )
    tokens: list[re.Match[str]] = []
    at = 0
    while at < len(cleaned.rstrip()):
        slash = bool(tokens) and tokens[-1]["sign"] in ("/", "÷")
        token = (_AFTER_SLASH if slash else _TOKEN).match(cleaned, at)
        if not token:
            raise FormulaError(text, f"cannot be read at '{cleaned[at:].strip()[:12]}'")
        tokens.append(token)
        at = token.end()
    return tokens


def _signs(text: str) -> str:
    """Plain signs, with the case of names kept."""
    return plain_signs(text.removeprefix("="))


def _amount(text: str, reader: _Reader) -> Fraction:
    total = Fraction(0)
    for part in text.split():
        try:
            total += Fraction(part)
        except ZeroDivisionError:
            raise reader.wrong("divides by nothing") from None
    return total
