"""A board as it is offered: what it is, what the ticket says, and whether it is in the cart."""

from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field

from vividplank.core.board import Board
from vividplank.core.buying.market.supplier import asked
from vividplank.core.fields import Money, Name
from vividplank.core.timber.board_feet import TicketRule

OfferState = Literal["pile", "cart", "left"]


@dataclass(frozen=True)
class OfferedBoard:
    """`board.price` is what it is asked for: the ticket's amount where it has one, else by the
    board foot (`priced`). `ticket_feet` and `ticket` are what the ticket says, None where it says
    nothing.
    """

    board: Board
    supplier: Name
    per_foot: Money
    ticket_feet: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)] | None = None
    ticket: Money | None = None
    state: OfferState = "pile"

    def priced(self, rule: TicketRule) -> "OfferedBoard":
        """With the board at its price."""
        if self.ticket is not None:
            price = self.ticket
        elif self.ticket_feet is not None:
            price = round(Decimal(str(self.ticket_feet)) * self.per_foot, 2)
        else:
            price = asked(self.board, self.per_foot, rule)
        return replace(self, board=replace(self.board, price=price))
