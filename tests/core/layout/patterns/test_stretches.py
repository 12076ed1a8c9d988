"""Stretches of a board against what the board itself says, over random outlines; h(R) asked
coarsely decides as h(R) itself.
"""

from dataclasses import replace
from math import ceil, floor

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import a_board, a_fault, a_part, t
from vividplank.core.board import Board, Region, Station, Warp, flat_slab
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.patterns.stretches import Stretches
from vividplank.core.layout.patterns.strips import SLAB_TOLERANCE, Strips
from vividplank.core.measure import TICKS_PER_64TH
from vividplank.core.shop import Shop

SLOPE = 0.02


@st.composite
def outlines(draw: st.DrawFn) -> Board:
    """A board of two to four stations whose edges wander by up to an inch, warped and with up to
    three loose knots.
    """
    xs = [
        0,
        *(draw(st.integers(20 * k, 20 * k + 15)) for k in range(1, draw(st.integers(1, 3)))),
        80,
    ]
    inch = st.integers(0, 8).map(lambda n: t(n / 8))
    stations = tuple(
        Station(
            t(x), draw(inch), t(7) - draw(inch), t(1) + draw(inch) // 16, t(1) + draw(inch) // 16
        )
        for x in xs
    )
    warp = Warp(*(t(draw(st.integers(-8, 8)) / 32) for _ in range(3)))
    faults = tuple(
        a_fault("loose-knot", x, x + draw(st.integers(1, 6)), y, y + draw(st.integers(1, 3)))
        for x, y in draw(st.lists(st.tuples(st.integers(1, 70), st.integers(1, 4)), max_size=3))
    )
    return replace(a_board("B", 80, 7), stations=stations, warp=warp, defects=faults)


places = st.tuples(st.integers(0, 60), st.integers(12, 60)).map(
    lambda p: (t(p[0]), min(t(p[0] + p[1]), t(80)))
)


@given(outlines(), places)
def test_a_band_lies_on_the_board_and_none_of_the_lines_asked_is_wider(
    board: Board, place: tuple[int, int]
) -> None:
    x0, x1 = place
    found = Stretches(board, SLOPE).band(x0, x1)
    assert found is not None, "at least five inches are clear everywhere"
    y0, slope, high = found
    assert abs(slope) <= SLOPE
    assert board.within(Region(x0, x1, y0, slope, 0, high), 1e-6)
    (low0, high0), (low1, high1) = board.edges(x0), board.edges(x1)
    for other in (0.0, (low1 - low0) / (x1 - x0), (high1 - high0) / (x1 - x0)):
        other = float(f"{min(max(other, -SLOPE), SLOPE):.6f}")
        start, _ = board.reach(0, other, x0, x0, x1)
        assert board.reach(start, other, x0, x0, x1)[1] <= high


def test_a_band_follows_a_taper_and_no_further_than_it_may() -> None:
    # The lower edge is straight, the upper falls from 6 to 5 over 60: along the lower edge 5 are
    # clear, and no line is wider.
    straight = a_board("B", 60, 6, far_width=5)
    assert Stretches(straight, SLOPE).band(0, t(60)) == (0, 0.0, t(5))
    # Both edges rise 1 in 60: a line that follows them keeps all 6, one that may not slope keeps 5
    # from 1 on.
    leaning = replace(
        straight, stations=(Station(0, 0, t(6), t(1), t(1)), Station(t(60), t(1), t(7), t(1), t(1)))
    )
    y0, slope, high = Stretches(leaning, SLOPE).band(0, t(60)) or (0, 0.0, 0)
    assert slope == pytest.approx(1 / 60, abs=1e-6) and abs(high - t(6)) <= 4 and y0 <= 1
    assert Stretches(leaning, 0.0).band(0, t(60)) == (t(1), 0.0, t(5))


@given(outlines(), places)
def test_faults_over_a_stretch_cover_what_the_board_has_there(
    board: Board, place: tuple[int, int]
) -> None:
    x0, x1 = place
    stretches = Stretches(board, SLOPE)
    ends = np.array([x1], dtype=np.int64)
    bands = stretches.bands(x0, ends)
    y0, slope, high = bands.y0[0], bands.slope[0], bands.high[0]
    rows = stretches.faults_over(x0, ends, bands, TICKS_PER_64TH, TICKS_PER_64TH, 8)[0]
    there = [d for d in board.boxed if d.x1 > x0 and d.x0 < x1]
    above = [d for d in there if d.y1 > y0 + min(0, slope * (x1 - x0))]
    assert (rows[:, 1] > rows[:, 0]).sum() <= len(above)
    for d in there:
        middle = (max(d.x0, x0) + min(d.x1, x1)) / 2
        low, top = (
            (d.y0 - y0 - slope * (middle - x0)) / TICKS_PER_64TH,
            (d.y1 - y0 - slope * (middle - x0)) / TICKS_PER_64TH,
        )
        if low < high / TICKS_PER_64TH and top > 1:
            assert any(
                r[0] <= max(-1, floor(low)) + 1
                and r[1] >= ceil(top) - 1
                and r[2] * TICKS_PER_64TH <= max(d.x0 - x0, 0)
                and r[3] * TICKS_PER_64TH >= d.x1 - x0
                for r in rows
            )


def test_free_area_is_the_outline_without_its_faults() -> None:
    # From 20 to 60: 40 x (6 and a kerf of 1/8), less a knot of 2 x 1 and the half of one that
    # reaches over the end.
    board = replace(
        a_board("B", 60, 6),
        defects=(
            a_fault("loose-knot", 30, 32, 2, 3),
            a_fault("check", 58, 62, 0, 1),
            a_fault("tight-knot", 40, 42, 2, 3),
        ),
    )
    starts = np.array([t(20), t(60)], dtype=np.int64)
    found = Stretches(board, SLOPE).free(starts, t(60), t(0.125))
    assert found.tolist() == [t(1) ** 2 * (40 * 6.125 - 2 - 2), 0.0]


@given(outlines(), places, st.integers(0, 3), st.integers(2, 3))
def test_coarsely_asked_a_place_holds_what_it_holds(
    board: Board, place: tuple[int, int], low: int, wide: int
) -> None:
    job = Job("", Shop(), (a_part("A", thickness=0.75), a_part("C", thickness=0.875)), (board,))
    strips = Strips(board, job.shop, item_types(job), TICKS_PER_64TH)
    y0 = max(board.edges(place[0])[0], board.edges(place[1])[0])
    true = (
        flat_slab(board, Region(*place, y0, 0.0, t(low), t(low + wide))).thickness + SLAB_TOLERANCE
    )
    for extra in (0.0, float(t(0.95))):
        found = strips.slab(*place, y0, 0.0, t(low), t(low + wide), extra)
        assert found <= true + 1e-3
        for need in (t(0.75 + 1 / 32), t(0.875 + 1 / 32), extra):
            if abs(true - need) > 1e-2:
                assert (found >= need) == (true >= need)


def test_a_board_opens_where_a_strip_may_lie_beside_its_faults() -> None:
    # Up to 20 rot lies over the lower 5 of 6 inches, up to 12 over all of them.
    board = replace(
        a_board("B", 60, 6), defects=(a_fault("rot", 0, 20, 0, 5), a_fault("rot", 0, 12, 5, 6))
    )
    stretches = Stretches(board, 0.0)
    assert stretches.opens(0, t(10), t(1)) == t(12)
    assert stretches.opens(0, t(10), t(2)) == t(20)
    assert stretches.opens(t(13), t(10), t(1)) == t(13)
    assert stretches.opens(0, t(10), t(7)) == 0, "so wide a strip goes in nowhere"
