"""The ticket checked against the tape, line by line, by the yard's own rule."""

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from fractions import Fraction

from vividplank.core.board import Board
from vividplank.core.buying.market.supplier import decimal, money, ticket_feet
from vividplank.core.timber.board_feet import TicketRule


@dataclass(frozen=True)
class TicketLine:
    """What the ticket says of a board: board feet, and money where it says it; None where the line
    is not there.
    """

    board: Board
    per_foot: Decimal
    feet: Fraction | None = None
    amount: Decimal | None = None


@dataclass(frozen=True)
class CheckedLine:
    """`taped` are the board feet by the tape and the yard's rule, `due` what they cost;
    `over_feet` and `over` are how much more the ticket says (less where negative).
    """

    board: str
    taped: Fraction
    due: Decimal
    said_feet: Fraction | None
    said: Decimal | None
    over_feet: Fraction
    over: Decimal


@dataclass(frozen=True)
class CheckedTicket:
    lines: tuple[CheckedLine, ...]

    @property
    def taped(self) -> Fraction:
        return sum((n.taped for n in self.lines), Fraction(0))

    @property
    def due(self) -> Decimal:
        return sum((n.due for n in self.lines), Decimal(0))

    @property
    def over_feet(self) -> Fraction:
        return sum((n.over_feet for n in self.lines), Fraction(0))

    @property
    def over(self) -> Decimal:
        return sum((n.over for n in self.lines), Decimal(0))


def check_ticket(lines: Sequence[TicketLine], rule: TicketRule) -> CheckedTicket:
    """Every line by the rule; what the ticket does not say is not held against it."""
    return CheckedTicket(tuple(_checked(line, rule) for line in lines))


def _checked(line: TicketLine, rule: TicketRule) -> CheckedLine:
    taped = ticket_feet(line.board, rule)
    due = money(decimal(taped) * line.per_foot)
    said = line.amount
    if said is None and line.feet is not None:
        said = money(decimal(line.feet) * line.per_foot)
    return CheckedLine(
        line.board.id,
        taped,
        due,
        line.feet,
        said,
        Fraction(0) if line.feet is None else line.feet - taped,
        Decimal(0) if said is None else said - due,
    )
