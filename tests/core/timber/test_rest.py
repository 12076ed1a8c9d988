"""How long a board rests: by hand, the right way round, and surer with its own readings."""

from math import exp, log, pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vividplank.core.timber.rest import Climate, Moisture, diffusion, left_after, rest

INCH = 8128
SHOP = Climate(21.1, 0.5)  # 9.2 % in the Wood Handbook's table


def test_the_air_of_the_shop() -> None:
    assert SHOP.equilibrium == pytest.approx(9.2, abs=0.05)


def test_within_two_points_it_may_be_worked() -> None:
    found = rest((Moisture(11.0, 1),), INCH, SHOP)
    assert found and found.work_now and found.away == pytest.approx(1.8, abs=0.1)
    assert found.workable == 0 and found.days > 0
    near = rest((Moisture(SHOP.equilibrium + 0.4, 1),), INCH, SHOP)
    assert near and near.days == 0
    assert rest((), INCH, SHOP) is None


@pytest.mark.parametrize(("gravity", "speed"), [(0.68, 2.0e-11), (0.42, 5.6e-11)])
def test_how_fast_moisture_moves_by_hand(gravity: float, speed: float) -> None:
    # 10 %, 20 °C: D_BT = 7e-6 exp(-35600 / (8.314 x 293.15)) = 3.17e-12. White oak: v = 1 - 0.68 x
    # 0.767 = 0.478, so 3.17e-12 / (0.522 x 0.308) = 1.97e-11; yellow poplar: v = 0.678, so 3.17e-12
    # / (0.322 x 0.177) = 5.57e-11.
    assert diffusion(gravity, 10, 20) == pytest.approx(speed, rel=0.02)


def test_warm_wet_and_light_wood_is_faster() -> None:
    assert (
        diffusion(0.6, 10, 30)
        > diffusion(0.6, 10, 20)
        > diffusion(0.6, 8, 20)
        > diffusion(0.7, 8, 20)
    )


def test_the_days_by_hand() -> None:
    # White oak, 13.2 % against 9.2 at 21.1 °C: 4 points, an eighth of them is half a point. Mean
    # moisture 11.2 %: D_BT = 7e-6 exp(-(38500 - 290 x 11.2) / (8.314 x 294.25)) = 3.87e-12; v = 1 -
    # 0.68 (0.667 + 0.112) = 0.470, so D = 3.87e-12 / (0.530 x 0.314) = 2.32e-11. T = 25.4 mm: t =
    # 0.0254^2 / (pi^2 D) ln(0.8106 / 0.125) = 2.815e6 s x 1.8696 = 60.9 days; to two points
    # ln(0.8106 / 0.5): 15.7.
    found = rest((Moisture(SHOP.equilibrium + 4, 1),), INCH, SHOP, 0.68)
    assert (
        found
        and (found.days, found.workable) == pytest.approx((60.9, 15.7), rel=0.01)
        and not found.own
    )
    assert (found.least, found.most) == pytest.approx((found.days / 2, found.days * 2))


@given(st.floats(-1e-3, 1e-3))
def test_no_cliff_at_two_points(beyond: float) -> None:
    at, near = (rest((Moisture(SHOP.equilibrium + 2 + b, 1),), INCH, SHOP) for b in (0.0, beyond))
    assert at and near and abs(at.days - near.days) < 0.1 and abs(at.workable - near.workable) < 0.1


def test_twice_as_thick_takes_four_times_as_long() -> None:
    thin, thick = (rest((Moisture(16, 1),), t, SHOP) for t in (INCH, 2 * INCH))
    assert thin and thick and thick.days == pytest.approx(4 * thin.days)


def test_two_readings_say_how_fast_this_board_is() -> None:
    # 14.2 on the first day, 11.7 ten days later: 5 points have become 2.5, a half in ten days. From
    # 2.5 to 0.5 is a share of 0.2: ln(1 / 0.2) / ln 2 = 2.322 halves, so 23.2 days. It dries
    # already, so nothing is gained by starting even.
    e = SHOP.equilibrium
    found = rest((Moisture(e + 5, 100), Moisture(e + 2.5, 110)), INCH, SHOP)
    assert found and found.own and found.days == pytest.approx(23.2, abs=0.1)
    assert found.least < found.days < found.most < 2 * found.least


@pytest.mark.parametrize(
    "second", [Moisture(13.9, 110), Moisture(16, 110), Moisture(11.9, 101), Moisture(5, 110)]
)
def test_readings_that_tell_nothing_are_not_believed(second: Moisture) -> None:
    found = rest((Moisture(14, 100), second), INCH, SHOP)
    assert found and not found.own


def test_a_board_that_dries_already_does_not_start_even_again() -> None:
    even = rest((Moisture(14, 100),), INCH, SHOP, 0.68)
    again = rest(
        (Moisture(14.2, 99), Moisture(14, 100)), INCH, SHOP, 0.68
    )  # too soon to tell its speed
    assert even and again and not again.own
    # Nothing is gained by the first term's start: ln(pi^2 / 8) of a period longer.
    assert again.days == pytest.approx(
        even.days * log(4.8 / 0.5) / log(8 / pi**2 * 4.8 / 0.5), rel=0.01
    )


@given(st.floats(4, 30), st.integers(1000, 40_000), st.floats(0, 35), st.floats(0.1, 0.85))
def test_never_negative_never_the_wrong_way_round(
    percent: float, thickness: int, celsius: float, humidity: float
) -> None:
    found = rest((Moisture(percent, 1),), thickness, Climate(celsius, humidity))
    assert found and 0 <= found.least <= found.days <= found.most
    assert found.work_now == (abs(percent - Climate(celsius, humidity).equilibrium) <= 2)


@given(st.floats(0.1, 60), st.integers(3000, 30_000))
def test_what_is_left_only_falls(days: float, thickness: int) -> None:
    assert 0 < left_after(days * 1.1, thickness, 2e-11) <= left_after(days, thickness, 2e-11) <= 1
    metres = thickness / 320_000
    assert (
        left_after(days, thickness, 2e-11)
        <= max(8 / pi**2 * exp(-(pi**2) * 2e-11 * days * 86400 / metres**2), 0) + 1e-12
    )
