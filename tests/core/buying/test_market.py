"""Boards drawn from a population, price books, and tickets by each rule."""

from dataclasses import replace
from decimal import Decimal
from fractions import Fraction
from random import Random
from statistics import fmean

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import a_board, t
from tests.profiles import examples
from vividplank.core.board import Board
from vividplank.core.board.check import check_board
from vividplank.core.buying.market.offer import OfferedBoard
from vividplank.core.buying.market.population import draw
from vividplank.core.buying.market.price_book import (
    price_book_csv,
    price_book_xlsx,
    read_price_book,
)
from vividplank.core.buying.market.supplier import (
    PERS,
    Per,
    Supplier,
    asked,
    ticket_feet,
    usual_suppliers,
)
from vividplank.core.buying.market.ticket import TicketLine, check_ticket
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.refusal import Refusal
from vividplank.core.timber.board_feet import TicketRule, board_feet
from vividplank.devices.yards import SimulatedYard

SUPPLIERS = usual_suppliers()
PRICES = [(s, p) for s in SUPPLIERS for p in s.prices]


@given(st.sampled_from(PRICES), st.integers(0, 10**6))
@examples(60)
def test_a_drawn_board_is_one_that_can_be_recorded(at: tuple, seed: int) -> None:  # type: ignore[type-arg]
    supplier, price = at
    board = draw(supplier.population(price), Random(seed), "Y1")
    check_board(board, "$")
    assert price.length.least <= board.length <= price.length.most
    assert board.widest <= price.width.most
    for d in board.defects:
        assert 0 <= d.x0 < d.x1 <= board.length and 0 <= d.y0 < d.y1 <= board.widest
    assert board == draw(supplier.population(price), Random(seed), "Y1")


def test_a_population_has_the_boards_it_says_it_has() -> None:
    lot = SUPPLIERS[0].population(SUPPLIERS[0].prices[0])
    boards = [draw(lot, Random(n), "Y") for n in range(400)]
    feet = fmean(float(ticket_feet(b, TicketRule())) for b in boards)
    assert feet == pytest.approx(lot.mean_board_feet, rel=0.05)
    # Moisture about what the supplier says; bow with its square of length: 0.35 in at 8 ft.
    assert fmean(b.moisture[0].percent for b in boards) == pytest.approx(11.0, abs=0.3)
    bows = [b.warp.bow / t(1) / (b.length / t(96)) ** 2 for b in boards]
    assert fmean(x * x for x in bows) ** 0.5 == pytest.approx(0.35, rel=0.1)


def ninety_six_by(width: float, quarter: str = "4/4") -> Board:
    return replace(a_board("B1", 112, width), quarter=quarter)


def test_tickets_by_each_rule_by_hand() -> None:
    # 8/4, 6 1/2 in wide, 9 ft 4 in: 2 x 6.5 x 9 1/3 / 12 = 10 1/9 board feet.
    board = ninety_six_by(6.5, "8/4")
    assert ticket_feet(board, TicketRule()) == Fraction(91, 9)
    # Whole feet: 9 ft; surface 6.5 x 9 / 12 = 4.875, to the whole 5; twice for 8/4.
    assert ticket_feet(board, TicketRule("surface", whole_feet=True)) == 10
    # Half inches up: 6.6 in counts 7; 7 x 9 1/3 / 12 x 2 = 10 8/9.
    assert ticket_feet(ninety_six_by(6.6, "8/4"), TicketRule(half_inches_up=True)) == Fraction(
        98, 9
    )
    assert asked(board, Decimal("9.00"), TicketRule()) == Decimal("91.00")


def test_skimmed_stock_is_billed_at_its_rough_quarter() -> None:
    # Sold as 4/4, skimmed to 13/16: 1 x 6 x 9 1/3 / 12 = 4 2/3, as if it were still an inch.
    skimmed = replace(a_board("B1", 112, 6, 13 / 16), quarter="4/4")
    assert ticket_feet(skimmed, TicketRule()) == Fraction(14, 3)


def test_a_cubic_metre_of_boards_is_424_board_feet() -> None:
    # 1 m³ = 423.776 board feet: 20 boards of 2 m x 250 mm x 100 mm, at 100 mm of thickness.
    mm = TICKS_PER_MM
    feet = 20 * board_feet(100 * mm, 250 * mm, 2000 * mm)
    assert float(feet) == pytest.approx(423.776, rel=1e-3)


def test_a_ticket_is_checked_line_by_line() -> None:
    board = ninety_six_by(6)  # 4 2/3 board feet by the tape, 42.00 at 9
    said = check_ticket(
        [
            TicketLine(board, Decimal(9), Fraction(5)),
            TicketLine(replace(board, id="B2"), Decimal(9), None, Decimal("42.00")),
            TicketLine(replace(board, id="B3"), Decimal(9)),
        ],
        TicketRule(),
    )
    assert [(n.over_feet, n.over) for n in said.lines] == [
        (Fraction(1, 3), Decimal("3.00")),
        (0, Decimal(0)),
        (0, Decimal(0)),
    ]
    assert said.taped == 14 and said.due == 126 and said.over == 3


def test_an_offer_costs_what_its_ticket_says() -> None:
    board = ninety_six_by(6)
    offer = OfferedBoard(board, "here", Decimal(9))
    assert offer.priced(TicketRule()).board.price == 42
    assert replace(offer, ticket_feet=5).priced(TicketRule()).board.price == 45
    assert replace(offer, ticket=Decimal(40)).priced(TicketRule()).board.price == 40


def test_a_price_book_comes_back_as_it_went_out() -> None:
    assert read_price_book(price_book_csv(SUPPLIERS), SUPPLIERS) == list(SUPPLIERS)
    text = price_book_csv(SUPPLIERS).replace("Lantern Street yard", "Kingfisher yard")
    names = [s.name for s in read_price_book(text, SUPPLIERS)]
    assert names == ["Otter Bend sawmill", "Kingfisher yard", "Quill & Son, dressed stock"]


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (("9.8", "cheap"), "asks"),
        (("FAS", "the best"), "grade"),
        (("9.8,board foot,0.8125", "9.8,board foot,thick"), "Thickness"),
        (("9.8,board foot", "9.8,bucket"), "per"),
        (("Quarter", "Q"), "Quarter"),
    ],
)
def test_a_price_book_that_cannot_be_read_says_where(change: tuple[str, str], says: str) -> None:
    text = price_book_csv(SUPPLIERS[1:2]).replace(*change, 1)
    with pytest.raises(Refusal, match=says):
        read_price_book(text, SUPPLIERS)


def test_a_price_book_may_come_as_a_workbook_or_from_before_units() -> None:
    assert read_price_book(price_book_xlsx(SUPPLIERS), SUPPLIERS) == list(SUPPLIERS)
    with pytest.raises(Refusal, match="no workbook"):
        read_price_book(b"PK not really", SUPPLIERS)
    boards = [replace(s, finished=()) for s in SUPPLIERS]
    text = price_book_csv(boards).replace("Price,Per,", "Price a board foot,")
    old = text.replace(",board foot,", ",")
    # It says nothing of lengths and sheets: those that are known stay.
    assert read_price_book(old, SUPPLIERS) == list(SUPPLIERS)


def test_prices_for_other_things_than_a_board_foot_by_hand() -> None:
    # 9 ft 4 in of 4/4, 6 in wide: 4 2/3 board feet, 0.011012 m³, 2.845 m long.
    board = ninety_six_by(6)
    line = replace(SUPPLIERS[1].prices[0], asks=Decimal(900))
    of = {
        per: replace(line, per=per).of(board, TicketRule())
        for per in ("cubic metre", "metre", "foot", "piece", "board foot")
    }
    assert of == {
        "cubic metre": Decimal("9.91"),
        "metre": Decimal("2560.32"),
        "foot": Decimal("8400.00"),
        "piece": Decimal("900.00"),
        "board foot": Decimal("4200.00"),
    }


@given(st.sampled_from(SUPPLIERS), st.sampled_from(PERS), st.integers(0, 2**32))
def test_a_pile_costs_about_what_its_boards_hold(supplier: Supplier, per: Per, seed: int) -> None:
    """Of many boards the price is that of a board foot of the usual board, times what they hold,
    within what a ticket rounds and a population spreads."""
    line = replace(supplier.prices[0], per=per, asks=Decimal(12))
    pile = supplier.pile(line, 60, Random(seed), "X")
    feet = sum(float(board_feet(b.nominal.rough, round(b.mean_width), b.length)) for b in pile)
    assert float(sum(b.price for b in pile)) == pytest.approx(feet * float(line.per_foot), rel=0.2)


def test_a_yard_has_the_same_boards_all_day() -> None:
    yard, supplier = SimulatedYard(), SUPPLIERS[1]
    pile = yard.pile(supplier, supplier.prices[0], 40, 1)
    assert pile == yard.pile(supplier, supplier.prices[0], 40, 1)
    assert pile != yard.pile(supplier, supplier.prices[0], 40, 2)
    wrong = [
        o for o in pile if Fraction(str(o.ticket_feet)) != ticket_feet(o.board, supplier.ticket)
    ]
    assert 0 < len(wrong) < 15  # now and then a ticket says too much
