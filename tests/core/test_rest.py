"""How long a board rests: by hand, the right way round, and surer with its own readings."""

from math import exp, pi

import pytest
from hypothesis import given
from hypothesis import strategies as st

from vividplank.core.timber.rest import Climate, Moisture, left_after, rest

INCH = 8128
SHOP = Climate(21.1, 0.5)  # 9.2 % in the Wood Handbook's table


def test_the_air_of_the_shop() -> None:
    assert SHOP.equilibrium == pytest.approx(9.2, abs=0.05)


def test_within_two_points_it_may_be_worked() -> None:
    found = rest((Moisture(11.0, 1),), INCH, SHOP)
    assert found and found.work_now and found.away == pytest.approx(1.8, abs=0.1)
    assert rest((), INCH, SHOP) is None


def test_the_days_by_hand() -> None:
    # 13.2 % against 9.2: 4 points, to be within 1/2 an eighth is left. T = 25.4 mm, D = 2e-10 m2/s:
    # t = 0.0254^2 / (pi^2 2e-10) ln(0.8106 / 0.125) = 326,840 s x 1.8696 = 611,060 s = 7.07 days; half and double D: 14.1, 3.5.
    found = rest((Moisture(SHOP.equilibrium + 4, 1),), INCH, SHOP)
    assert found and (found.days, found.least, found.most) == pytest.approx((7.07, 3.54, 14.14), abs=0.02) and not found.own


def test_twice_as_thick_takes_four_times_as_long() -> None:
    thin, thick = (rest((Moisture(16, 1),), t, SHOP) for t in (INCH, 2 * INCH))
    assert thin and thick and thick.days == pytest.approx(4 * thin.days)


def test_two_readings_say_how_fast_this_board_is() -> None:
    # 14.2 on the first day, 11.7 ten days later: 5 points have become 2.5, a half in ten days. From 2.5 to 0.5 is a share of
    # 0.2; the first term alone says ln(0.8106 / 0.2) / ln 2 halves = 2.019, so 20.2 days.
    e = SHOP.equilibrium
    found = rest((Moisture(e + 5, 100), Moisture(e + 2.5, 110)), INCH, SHOP)
    assert found and found.own and found.days == pytest.approx(20.2, abs=0.1)
    assert found.least < found.days < found.most < 2 * found.least


@pytest.mark.parametrize("second", [Moisture(13.9, 110), Moisture(16, 110), Moisture(11.9, 101), Moisture(5, 110)])
def test_readings_that_tell_nothing_are_not_believed(second: Moisture) -> None:
    found = rest((Moisture(14, 100), second), INCH, SHOP)
    assert found and not found.own


@given(st.floats(4, 30), st.integers(1000, 40_000), st.floats(0, 35), st.floats(0.1, 0.85))
def test_never_negative_never_the_wrong_way_round(percent: float, thickness: int, celsius: float, humidity: float) -> None:
    found = rest((Moisture(percent, 1),), thickness, Climate(celsius, humidity))
    assert found and 0 <= found.least <= found.days <= found.most
    assert found.work_now == (abs(percent - Climate(celsius, humidity).equilibrium) <= 2)


@given(st.floats(0.1, 60), st.integers(3000, 30_000))
def test_what_is_left_only_falls(days: float, thickness: int) -> None:
    assert 0 < left_after(days * 1.1, thickness) <= left_after(days, thickness) <= 1
    metres = thickness / 320_000
    assert left_after(days, thickness) <= max(8 / pi**2 * exp(-(pi**2) * 2e-10 * days * 86400 / metres**2), 0) + 1e-12
