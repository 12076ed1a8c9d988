"""h(R) against cases worked by hand, and what must hold whatever the board."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import boards
from tests.profiles import examples
from vividplank.core.board import Board, Region, Slab, Station, Warp, flat_slab
from vividplank.core.board.flat.depth import depths
from vividplank.core.measure import TICKS_PER_INCH as INCH

LONG, WIDE = 100 * INCH, 8 * INCH


def board(t: tuple[float, float, float, float] = (1, 1, 1, 1), **warp: float) -> Board:
    """100 x 8 in; thickness at (0, datum edge), (0, far edge), (end, datum edge), (end, far
    edge).
    """
    ends = (
        Station(0, 0, WIDE, round(t[0] * INCH), round(t[1] * INCH)),
        Station(LONG, 0, WIDE, round(t[2] * INCH), round(t[3] * INCH)),
    )
    return Board("T", "oak", LONG, ends, Warp(**{k: round(v * INCH) for k, v in warp.items()}))


def h(
    of: Board, x0: float = 0, x1: float = 100, h0: float = 0, h1: float = 8, slope: float = 0.0
) -> float:
    region = Region(
        round(x0 * INCH), round(x1 * INCH), 0, slope, round(h0 * INCH), round(h1 * INCH)
    )
    return flat_slab(of, region).thickness / INCH


def test_a_flat_board_is_all_there() -> None:
    assert h(board()) == pytest.approx(1, abs=1e-9)


@pytest.mark.parametrize("bow", [0.25, -0.25])
def test_bow_falls_with_the_square_of_length(bow: float) -> None:
    # The arc over a length l of L rises bow * (l/L)^2 above its chord, wherever the piece is cut.
    for x0, x1 in ((0, 100), (0, 50), (50, 100), (30, 55), (80, 90)):
        assert h(board(bow=bow), x0, x1) == pytest.approx(
            1 - abs(bow) * ((x1 - x0) / 100) ** 2, abs=1e-6
        )


@pytest.mark.parametrize("cup", [0.125, -0.125])
def test_cup_falls_with_the_square_of_width(cup: float) -> None:
    for h0, h1 in ((0, 8), (0, 4), (4, 8), (1, 3)):
        assert h(board(cup=cup), h0=h0, h1=h1) == pytest.approx(
            1 - abs(cup) * ((h1 - h0) / 8) ** 2, abs=1e-6
        )


@pytest.mark.parametrize("twist", [0.25, -0.25])
def test_twist_split_costs_half_of_what_three_corners_cost(twist: float) -> None:
    # Laid on three corners g stands off at the fourth; a plane shared between all corners leaves
    # g/2: over a rectangle l x w of L x W, u*v less its best plane spans (l/L)(w/W)/2.
    assert h(board(twist=twist)) == pytest.approx(1 - abs(twist) / 2, abs=1e-6)
    assert h(board(twist=twist), 20, 70, 1, 5) == pytest.approx(
        1 - abs(twist) * 0.5 * 0.5 / 2, abs=1e-6
    )
    warped = board(twist=abs(twist))
    on_three = max(
        warped.underside(x, y) for x in (0, LONG) for y in (0, WIDE)
    )  # the plane of the bench
    assert on_three == pytest.approx(
        2 * (INCH - flat_slab(warped, Region(0, LONG, 0, 0, 0, WIDE)).thickness), abs=1e-3
    )


def test_taper_leaves_the_thin_end_along_and_across() -> None:
    # The lower face is flat and the upper one slopes to 7/8: no slab is thicker than the thinnest
    # place.
    assert h(board((1, 1, 0.875, 0.875))) == pytest.approx(0.875, abs=1e-6)
    assert h(board((1, 0.875, 1, 0.875))) == pytest.approx(0.875, abs=1e-6)
    assert h(board((1, 1, 0.875, 0.875)), 0, 50) == pytest.approx(0.9375, abs=1e-6)


def test_bow_and_cup_together_add_up() -> None:
    # Both are arcs over the same rectangle, highest in its middle and nought at the corners.
    assert h(board(bow=0.25, cup=0.125)) == pytest.approx(1 - 0.375, abs=1e-6)
    # Hollow along and crowned across is a saddle: what one takes at the middle of the ends, the
    # other gives.
    assert h(board(bow=0.25, cup=-0.125)) == pytest.approx(1 - 0.375, abs=1e-6)


def test_a_sloped_region_stays_true_to_a_bow() -> None:
    assert h(board(bow=0.25), 10, 60, 0.5, 3, slope=0.01) == pytest.approx(
        1 - 0.25 * 0.25, abs=1e-6
    )


def samples(of: Board, region: Region) -> list[tuple[float, float]]:
    return [
        (region.x0 + (region.x1 - region.x0) * i / 12, region.h0 + (region.h1 - region.h0) * j / 6)
        for i in range(13)
        for j in range(7)
    ]


def regions(of: Board, a: float, b: float, c: float, d: float) -> Region:
    x0, x1 = sorted((a, b))
    low, high = max(s.y0 for s in of.stations), min(s.y1 for s in of.stations)
    h0, h1 = sorted((c, d))
    return Region(
        int(of.length * x0),
        int(of.length * x1) + 1,
        low,
        0.0,
        int((high - low) * h0),
        int((high - low) * h1) + 1,
    )


shares = st.floats(0, 1)


@examples(400)
@given(boards("P"), shares, shares, shares, shares)
def test_the_slab_fits_between_the_faces(of: Board, a: float, b: float, c: float, d: float) -> None:
    region = regions(of, a, b, c, d)
    slab: Slab = flat_slab(of, region)
    for x, height in samples(of, region):
        y = region.line(x) + height
        below, above = of.underside(x, y), of.underside(x, y) + of.thickness(x, y)
        assert below <= slab.lower(x, y) + 0.01
        assert slab.lower(x, y) + slab.thickness <= above + 0.01


@examples(400)
@given(boards("P"), shares, shares, shares, shares)
def test_a_smaller_region_never_gives_less(
    of: Board, a: float, b: float, c: float, d: float
) -> None:
    region = regions(of, a, b, c, d)
    third_x, third_h = (region.x1 - region.x0) // 3, (region.h1 - region.h0) // 3
    inner = Region(
        region.x0 + third_x,
        region.x1 - third_x,
        region.y0,
        0.0,
        region.h0 + third_h,
        region.h1 - third_h,
    )
    if inner.x1 > inner.x0 and inner.h1 > inner.h0:
        assert flat_slab(of, inner).thickness >= flat_slab(of, region).thickness - 0.01


def test_what_is_cut_away_and_what_is_left_is_the_board() -> None:
    warped = board((1.06, 1.03, 1.0, 1.05), bow=0.2, cup=-0.05, twist=0.1)
    region = Region(0, 60 * INCH, 0, 0.0, 0, WIDE)
    slab = flat_slab(warped, region)
    found = depths(warped, region, slab)
    assert found.below >= 0 and found.above >= 0
    assert found.below + slab.thickness + found.above >= warped.thinnest
    assert found.hollow > 0  # bow lifts the middle of face B: it is the hollow side
