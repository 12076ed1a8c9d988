"""Working minutes as hours of real days: nothing at night, nothing lost."""

from dataclasses import replace
from datetime import date, datetime, timedelta
from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from vividplank.core.milling.shop.school import Hours, Milling
from vividplank.web.blueprints.days import _spans

MONDAY = date(2026, 3, 9)


def how(begins: int, ends: int) -> Milling:
    return replace(Milling(), hours=Hours(begins, ends))


def test_what_runs_over_closing_time_goes_on_next_morning() -> None:
    # From 14:00 of the first day three hours of work: two until 16:00, one from 8:00 on.
    assert _spans(360, 540, how(480, 960), MONDAY) == [
        (datetime(2026, 3, 9, 14), datetime(2026, 3, 9, 16)),
        (datetime(2026, 3, 10, 8), datetime(2026, 3, 10, 9)),
    ]


def test_an_end_at_closing_time_is_that_day_s() -> None:
    assert _spans(420, 480, how(480, 960), MONDAY) == [
        (datetime(2026, 3, 9, 15), datetime(2026, 3, 9, 16))
    ]
    assert _spans(480, 500, how(480, 960), MONDAY)[0][0] == datetime(2026, 3, 10, 8)


@given(
    st.integers(0, 5000), st.integers(1, 3000), st.integers(0, 12 * 60), st.integers(60, 12 * 60)
)
def test_every_minute_is_in_the_shop_s_hours_once(
    begins: int, length: int, opens: int, long: int
) -> None:
    milling = how(opens, opens + long)
    found = _spans(begins, begins + length, milling, MONDAY)
    assert sum((b - a for a, b in found), timedelta()) == timedelta(minutes=length)
    for a, b in found:
        assert a < b and a.date() == (b - timedelta(minutes=1)).date()
        assert (
            opens <= a.hour * 60 + a.minute
            and a.hour * 60 + a.minute + (b - a).seconds // 60 <= opens + long
        )
    assert all(one[1] < two[0] or opens + long == 1440 for one, two in pairwise(found))
