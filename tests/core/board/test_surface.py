"""h(R) over scanned surfaces and thickness grids: against closed forms, a plain linear program, and
itself turned about.
"""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import example, given
from hypothesis import strategies as st
from scipy.optimize import linprog

from tests.jobs import scanned as read_off
from tests.profiles import examples
from tests.turning import end_for_end, moved, turned_over
from vividplank.core.board import Board, Region, Station, Surface, Warp, flat_slab
from vividplank.core.board.volume import board_volume, region_volume
from vividplank.core.measure import TICKS_PER_INCH as INCH

LONG, WIDE = 100 * INCH, 8 * INCH


def flat(thickness: float = 1.0) -> Board:
    t = round(thickness * INCH)
    return Board("S", "oak", LONG, (Station(0, 0, WIDE, t, t), Station(LONG, 0, WIDE, t, t)))


def scanned(board: Board, along: int, across: int, rough: int = 0, seed: int = 1) -> Board:
    return read_off(board, along, across, seed, rough)


def h(
    board: Board, x0: float = 0, x1: float = 100, h0: float = 0, h1: float = 8, slope: float = 0.0
) -> float:
    region = Region(
        round(x0 * INCH), round(x1 * INCH), 0, slope, round(h0 * INCH), round(h1 * INCH)
    )
    return flat_slab(board, region).thickness / INCH


def test_a_scanned_twist_costs_half_of_itself() -> None:
    # Twist is u·v, which is bilinear: a grid of any fineness holds it exactly.
    twisted = replace(flat(), warp=Warp(twist=INCH // 4))
    for along, across in ((2, 2), (5, 3), (41, 9)):
        of = scanned(twisted, along, across)
        assert h(of) == pytest.approx(1 - 0.125, abs=2e-4)  # heights are whole ticks: 1/8128 in
        assert h(of, 20, 70, 1, 5) == pytest.approx(1 - 0.25 * 0.5 * 0.5 / 2, abs=2e-4)


def test_a_roof_is_known_by_its_ridge() -> None:
    # Face B rises straight to 1/2 in in the middle of the length: over a length l about it the
    # ridge stands l/2 · slope up.
    surface = Surface(
        (0, LONG // 2, LONG),
        (0, WIDE),
        ((0, 0), (INCH // 2,) * 2, (0, 0)),
        ((INCH,) * 2, (3 * INCH // 2,) * 2, (INCH,) * 2),
    )
    roof = replace(flat(), surface=surface)
    assert h(roof) == pytest.approx(0.5, abs=1e-9)
    assert h(roof, 40, 60) == pytest.approx(1 - 0.1, abs=1e-9)
    assert h(roof, 0, 50) == pytest.approx(1, abs=1e-9)  # one side of a roof is flat, though tilted
    assert h(roof, 20, 60) == pytest.approx(
        1 - 2 * 0.5 / 50 * (30 * 10 / 40), abs=1e-9
    )  # the slopes differ by 2/100
    assert h(roof, 40, 60, 1, 5, slope=0.02) == pytest.approx(1 - 0.1, abs=1e-9)


def dense(of: Board, region: Region) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray]:
    """All grid places inside the region, its sides where they cross the grid, and many places along
    them.
    """
    assert of.surface
    xs = {
        float(region.x0),
        float(region.x1),
        *(float(x) for x in of.surface.xs if region.x0 < x < region.x1),
    }
    xs |= set(np.linspace(region.x0, region.x1, 600))
    points = []
    for x in xs:
        line = region.line(x)
        ys = [
            line + region.h0,
            line + region.h1,
            *(float(y) for y in of.surface.ys if region.h0 < y - line < region.h1),
        ]
        points += [(x, y, *of.surface.heights(x, y)) for y in ys]
    found = np.array(points) / INCH
    return found[:, 0], found[:, 1], found[:, 2], found[:, 3]


@examples(60)
@given(st.integers(0, 10**6), st.floats(-0.02, 0.02), st.floats(0, 0.6), st.floats(0.1, 0.4))
def test_the_slab_is_that_of_a_plain_linear_program(
    seed: int, slope: float, start: float, length: float
) -> None:
    of = scanned(replace(flat(), warp=Warp(2000, 500, -900)), 9, 5, rough=300, seed=seed)
    region = Region(
        round(LONG * start), round(LONG * (start + length)), 2 * INCH, slope, 0, 4 * INCH
    )
    x, y, low, high = dense(of, region)
    one, nil = np.ones_like(x), np.zeros_like(x)
    limits = np.vstack([np.column_stack([nil, -x, -y, -one]), np.column_stack([one, x, y, one])])
    best = linprog(
        [-1, 0, 0, 0], A_ub=limits, b_ub=np.concatenate([-low, high]), bounds=[(None, None)] * 4
    )
    # The program sees places, not what lies between them along a sloped side: it may be too hopeful
    # by a trifle.
    assert flat_slab(of, region).thickness / INCH == pytest.approx(-best.fun, abs=1e-5)
    assert flat_slab(of, region).thickness / INCH <= -best.fun + 1e-7


@examples(150)
@example(
    0, -0.005202030956341239, 0, 58, 3
)  # a side that meets a row of the grid within a rounding
@given(
    st.integers(0, 10**6),
    st.floats(-0.02, 0.02),
    st.integers(0, 40),
    st.integers(45, 95),
    st.integers(1, 3),
)
def test_turning_flipping_and_moving_change_nothing_and_less_is_never_thinner(
    seed: int, slope: float, x0: int, x1: int, low: int
) -> None:
    of = scanned(replace(flat(), warp=Warp(1500, -400, 700)), 11, 6, rough=200, seed=seed)
    region = Region(x0 * INCH, x1 * INCH, 2 * INCH, slope, 0, low * INCH)
    found = flat_slab(of, region).thickness
    for other, place in (end_for_end(of, region), turned_over(of, region)):
        assert flat_slab(other, place).thickness == pytest.approx(found, abs=0.01)
    pushed, by = moved(of, 3 * INCH, -INCH)
    assert flat_slab(pushed, replace(region, y0=region.y0 + by)).thickness == pytest.approx(
        found, abs=0.01
    )
    inner = Region(
        region.x0 + 4 * INCH,
        region.x1 - 3 * INCH,
        region.line(region.x0 + 4 * INCH),
        slope,
        1000,
        region.h1 - 500,
    )
    assert flat_slab(of, inner).thickness >= found - 0.01


def test_readings_between_the_edges_are_a_grid_of_thickness() -> None:
    # 1 in at the edges and 7/8 in along the middle: the hollow costs all of itself wherever it lies
    # in the region.
    hollow = tuple(replace(s, between=(INCH * 7 // 8,)) for s in flat().stations)
    of = replace(flat(), stations=hollow)
    assert (
        of.thickness(LONG / 2, WIDE / 2) == INCH * 7 / 8
        and of.thickness(0, WIDE / 4) == INCH * 15 / 16
    )
    assert h(of) == pytest.approx(0.875, abs=1e-6)
    assert h(of, h0=5) == pytest.approx(
        1 - 0.125 * 3 / 4, abs=1e-6
    )  # from 5 to 8 in: 29/32 in at 5 rising to 1 in
    crowned = replace(of, warp=Warp(cup=-INCH // 8))
    assert h(crowned) == pytest.approx(scanned_h(crowned), abs=2e-3)
    cupped = replace(of, warp=Warp(cup=INCH // 8))
    assert h(cupped) == pytest.approx(scanned_h(cupped), abs=2e-3)
    # Two quarters of width, each 15/16 in thick on the mean.
    assert board_volume(of) == LONG * WIDE * INCH * 15 // 16


def scanned_h(board: Board) -> float:
    return h(scanned(board, 65, 33))


def test_a_scanned_board_has_the_volume_of_the_board() -> None:
    warped = replace(flat(), warp=Warp(2000, 300, 500))
    of = scanned(warped, 20, 7)
    assert float(board_volume(of)) == pytest.approx(float(board_volume(warped)), rel=1e-4)
    half = Region(0, LONG // 2, 0, 0.0, 0, WIDE)
    assert region_volume(of, half) * 2 == pytest.approx(float(board_volume(of)), rel=1e-3)
    assert of.thickest == pytest.approx(INCH, abs=2) and of.thinnest == pytest.approx(INCH, abs=2)
