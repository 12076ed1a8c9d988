"""Dividing a length: worked by hand, and everything adds up to the span exactly."""

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from tests.making import t
from vividplank.core.cutlist.dividers import (
    DividerTrouble,
    drawers,
    shelves,
    slats,
    slats_for_gap,
    step_of,
)


def test_shelves_for_what_is_to_stand_there() -> None:
    # Books of 12, 10 and 8 in with 1 in of finger room: 13 + 11 + 9 and two shelves of 3/4 make 34
    # 1/2; of 36, 1 1/2 is left.
    found = shelves(t(36), t(0.75), [t(12), t(10), t(8)], t(1), "in")
    assert (
        found.openings == (t(13), t(11), t(10.5))
        and found.at == (t(13), t(24.75))
        and found.left == t(1.5)
    )
    assert found.said == "1 1/2 in left over went to the top opening"


def test_too_little_height_says_how_much_is_missing() -> None:
    with pytest.raises(
        DividerTrouble, match="needs 34 1/2 in and there are 30 in: 4 1/2 in too little"
    ):
        shelves(t(30), t(0.75), [t(12), t(10), t(8)], t(1), "in")


def test_equal_drawers() -> None:
    # 30 in with 1/8 round each of four: (30 - 5/8) / 4 = 7.34375 = 7 11/32 exactly.
    found = drawers(t(30), 4, t(0.125), 1.0, "in")
    assert found.openings == (t(7.34375),) * 4 and found.left == 0
    assert found.at[0] == t(0.125) and found.at[3] == t(0.125 * 4 + 3 * 7.34375)


def test_graded_drawers_grow_downward() -> None:
    found = drawers(t(30), 4, t(0.125), 1.25, "in")
    ratios = [a / b for a, b in zip(found.openings, found.openings[1:], strict=False)]
    assert all(r == pytest.approx(1.25, abs=0.02) for r in ratios)


def test_slats_between_posts() -> None:
    # Seven slats of 3 1/4 in 48: 25 1/4 free in eight gaps of 3 5/32 exactly.
    found = slats(t(48), t(3.25), 7, "in")
    assert found.openings == (t(3.15625),) * 8 and found.left == 0


def test_slats_for_a_wanted_gap_come_as_near_as_can_be() -> None:
    found = slats_for_gap(t(48), t(3.25), t(3), "in")
    assert len(found.at) == 7 and "7 slats; the gap comes to 3 5/32 in" in found.said


@given(
    st.integers(200, 3000),
    st.integers(1, 30),
    st.integers(0, 20),
    st.floats(1, 1.6),
    st.sampled_from(["in", "mm"]),
)
def test_drawers_fill_their_span(
    span: int, count: int, gap: int, growth: float, system: str
) -> None:
    span, gap = span * 320, gap * 320
    try:
        found = drawers(span, count, gap, growth, system)  # type: ignore[arg-type]
    except DividerTrouble:
        assume(False)
    assert sum(found.openings) + (count + 1) * gap == span
    assert all(o % step_of(system) == 0 for o in found.openings[1:])  # type: ignore[arg-type]


@given(
    st.integers(200, 3000), st.integers(5, 120), st.integers(1, 30), st.sampled_from(["in", "mm"])
)
def test_slats_fill_their_span(span: int, width: int, count: int, system: str) -> None:
    span, width = span * 320, width * 320
    try:
        found = slats(span, width, count, system)  # type: ignore[arg-type]
    except DividerTrouble:
        assume(False)
    assert sum(found.openings) + count * width == span
    assert abs(found.openings[0] - found.openings[-1]) <= 1
    assert found.at == tuple(sum(found.openings[: k + 1]) + k * width for k in range(count))


@pytest.mark.parametrize(
    "act",
    [
        lambda: shelves(t(10), 0, [], 0, "in"),
        lambda: drawers(t(1), 9, t(0.125), 1, "in"),
        lambda: slats(t(10), t(3), 4, "in"),
        lambda: slats_for_gap(t(10), t(12), t(1), "in"),
        lambda: slats_for_gap(t(10), t(1), 0, "in"),
    ],
)
def test_what_does_not_go_is_refused(act) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(DividerTrouble):
        act()
