"""Wood by its figures; values worked by hand or from the tables named."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import a_board
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.timber import (
    QUARTERS,
    WOODS,
    TicketRule,
    board_feet,
    coefficients_hold,
    cubic_board_feet,
    equilibrium_moisture,
    movement,
    quarter_for,
    quarter_of,
    weight_kg,
    wood_named,
)


def test_hardwoods_softwoods_and_tropical_woods_with_figures_that_can_be() -> None:
    assert len(WOODS) >= 45 and len({w.name.casefold() for w in WOODS}) == len(WOODS)
    for wood in WOODS:
        assert 0.3 < wood.specific_gravity < 0.9
        assert 0.0005 < wood.coef_radial < wood.coef_tangential < 0.005
        assert 2 < wood.shrink_radial < wood.shrink_tangential < 13
        # The change coefficient is the shrinkage spread over the moisture it happens in: some 28 %,
        # in woods that are full of extractives as little as 17.
        assert 17 < wood.shrink_tangential / 100 / wood.coef_tangential < 36
    assert {"western redcedar", "douglas-fir", "teak", "mahogany"} <= {
        w.name.casefold() for w in WOODS
    }


def test_where_coefficients_hold() -> None:
    assert (
        coefficients_hold(6, 14)
        and not coefficients_hold(5.9, 9)
        and not coefficients_hold(9, 14.1)
    )


def test_woods_are_found_by_their_shop_names() -> None:
    assert wood_named(" White  Oak ") is wood_named("oak white (commercial)")
    assert wood_named("white ash") is wood_named("ash")
    assert wood_named("Douglas fir") is wood_named("douglas-fir") is not None
    assert wood_named("SITKA spruce") is not None
    assert wood_named("bog wood") is None


@pytest.mark.parametrize(
    ("celsius", "humidity", "moisture"),
    [
        # Wood Handbook table 4-2 (70 °F, 30 to 80 %; 30 °F and 90 °F)
        (21.1, 0.30, 6.2),
        (21.1, 0.50, 9.2),
        (21.1, 0.65, 12.0),
        (21.1, 0.80, 16.0),
        (-1.1, 0.50, 9.5),
        (32.2, 0.50, 8.9),
    ],
)
def test_equilibrium_moisture_is_that_of_the_table(
    celsius: float, humidity: float, moisture: float
) -> None:
    assert equilibrium_moisture(celsius, humidity) == pytest.approx(moisture, abs=0.15)


def test_humidity_is_a_share() -> None:
    with pytest.raises(ValueError, match="expected a share"):
        equilibrium_moisture(20, 50)


def test_movement_of_a_panel() -> None:
    assert movement(17.5, 0.00365, 4) == pytest.approx(0.2555)
    assert movement(17.5, 0.00365, -4) == -movement(17.5, 0.00365, 4)


def test_quarters_and_what_is_left_of_them_skimmed() -> None:
    assert [q.name for q in QUARTERS] == ["4/4", "5/4", "6/4", "8/4", "10/4", "12/4", "16/4"]
    assert [q.surfaced / INCH for q in QUARTERS] == [0.8125, 1.0625, 1.3125, 1.75, 2.25, 2.75, 3.75]
    assert quarter_for(round(1.5 * INCH)) is QUARTERS[3]
    assert quarter_for(4 * INCH) is None
    assert [quarter_of(round(t * INCH)).name for t in (0.8, 1.06, 1.23, 1.5, 2.03)] == [
        "4/4",
        "4/4",
        "5/4",
        "6/4",
        "8/4",
    ]
    skimmed = [
        quarter_of(round(t * INCH), 2).name
        for t in (0.75, 0.8125, 1.0625, 1.3125, 1.75, 2.25, 3.75)
    ]
    assert skimmed == ["4/4", "4/4", "5/4", "6/4", "8/4", "10/4", "16/4"]
    assert [quarter_of(round(t * INCH), 1).name for t in (0.875, 1.125, 1.8125)] == [
        "4/4",
        "5/4",
        "8/4",
    ]


def test_a_skimmed_board_is_counted_at_the_quarter_it_was_sold_at() -> None:
    board = replace(a_board(length=96, width=6, thick=1.75), dressed=("A", "B"))
    assert board.nominal.name == "8/4" and replace(board, dressed=()).nominal.name == "6/4"
    assert replace(board, quarter="10/4").nominal.name == "10/4"


def test_board_feet_by_hand() -> None:
    assert board_feet(INCH, 12 * INCH, 12 * INCH) == 1
    assert board_feet(INCH // 2, 12 * INCH, 12 * INCH) == 1  # T counts at least 1 in
    assert board_feet(5 * INCH // 4, 6 * INCH, 96 * INCH) == 5
    seven_and_a_quarter = 29 * INCH // 4
    # 7 1/4 x 8 ft 5 / 12 = 5.085 of surface: 5; with whole feet and half inches 7.5 x 8 / 12 = 5.
    assert board_feet(2 * INCH, seven_and_a_quarter, 101 * INCH, TicketRule("surface")) == 10
    half_up = TicketRule("exact", whole_feet=True, half_inches_up=True)
    assert board_feet(INCH, seven_and_a_quarter, 101 * INCH, half_up) == 5


@given(st.integers(1, 300), st.integers(1, 3000))
def test_a_ticket_is_never_off_by_more_than_half_a_foot_of_surface(width: int, length: int) -> None:
    exact = board_feet(INCH, width * INCH // 8, length * INCH // 8)
    ticket = board_feet(INCH, width * INCH // 8, length * INCH // 8, TicketRule("surface"))
    assert ticket.denominator == 1 and abs(ticket - exact) <= Fraction(1, 2)


def test_a_cubic_metre_in_board_feet_and_kilograms() -> None:
    cubic_metre = (320 * 1000) ** 3
    assert float(cubic_board_feet(cubic_metre)) == pytest.approx(423.776, abs=0.001)
    oak = wood_named("white oak")
    assert oak and weight_kg(oak, cubic_metre, 0) == pytest.approx(680)
