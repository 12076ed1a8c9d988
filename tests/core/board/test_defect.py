"""Shapes of faults: what they share with a blank, and the rectangles that stand for them in a
search.
"""

from hypothesis import given
from hypothesis import strategies as st
from shapely import Point, Polygon, affinity, box, union_all

from tests.profiles import examples
from vividplank.core.board import Board, Defect, Region, Station
from vividplank.core.board.check import outside
from vividplank.core.measure import TICKS_PER_INCH as INCH


def knot(x0: int = 10, x1: int = 12, y0: int = 3, y1: int = 4) -> Defect:
    return Defect("tight-knot", "A", x0 * INCH, x1 * INCH, y0 * INCH, y1 * INCH, "ellipse")


def wedge() -> Defect:
    points = ((20 * INCH, 0), (30 * INCH, 0), (20 * INCH, 5 * INCH))
    return Defect("wane", "both", 20 * INCH, 30 * INCH, 0, 5 * INCH, "outline", points)


def region(x0: float, x1: float, h0: float, h1: float, slope: float = 0.0) -> Region:
    return Region(
        round(x0 * INCH), round(x1 * INCH), 0.0, slope, round(h0 * INCH), round(h1 * INCH)
    )


def test_a_corner_of_its_bounds_is_clear_of_a_round_knot() -> None:
    # An ellipse 2 by 1 in: at a tenth of its length in, it reaches only 0.3 of its half width.
    assert not knot().overlaps(region(0, 10.2, 0, 3.15))
    assert knot().overlaps(region(0, 10.2, 0, 3.4))
    assert knot().overlaps(region(10.9, 11.1, 3.4, 3.6)) and knot().overlaps(region(0, 50, 0, 8))
    assert not knot().overlaps(region(0, 10, 0, 8)) and not knot().overlaps(region(0, 50, 4, 8))


def test_beside_the_slope_of_an_outline_is_clear() -> None:
    # The wedge's long side falls from (20, 5) to (30, 0).
    assert not wedge().overlaps(region(26, 30, 2.01, 5)) and wedge().overlaps(
        region(26, 30, 1.9, 5)
    )
    assert not wedge().overlaps(region(20, 30, 5, 7))


places = st.integers(0, 40)


@examples(300)
@given(
    st.sampled_from(["ellipse", "outline", "rectangle"]),
    places,
    places,
    st.integers(1, 30),
    st.integers(1, 30),
    st.floats(-0.02, 0.02),
)
def test_overlap_is_that_of_the_shapes(
    shape: str, x: int, y: int, long: int, wide: int, slope: float
) -> None:
    plain = Defect("rot", "A", 10 * INCH, 14 * INCH, INCH, 4 * INCH)
    fault = {"ellipse": knot(), "outline": wedge(), "rectangle": plain}[shape]
    place = region(x, x + long, y / 4, y / 4 + wide / 4, slope)
    shared = outline(fault).intersection(Polygon(place.corners)).area
    if shared > INCH:  # the polygon that stands for an ellipse here is a hair smaller than it
        assert fault.overlaps(place)
    elif not outline(fault).buffer(INCH / 500).intersects(Polygon(place.corners)):
        assert not fault.overlaps(place)
    # What a search avoids covers what the audit forbids.
    if fault.overlaps(place):
        assert any(b.overlaps(place) for b in fault.boxes)


def test_the_boxes_cover_the_shape_and_little_more() -> None:
    for fault in (knot(), wedge()):
        covered = union_all([box(b.x0, b.y0, b.x1, b.y1) for b in fault.boxes])
        whole = outline(fault)
        assert whole.difference(covered.buffer(2)).area < 1
        assert covered.area < 1.35 * whole.area
        assert all(b.kind == fault.kind and b.face == fault.face for b in fault.boxes)


def outline(d: Defect) -> Polygon:
    if d.shape == "ellipse":
        round_one = Point(0, 0).buffer(1, 64)
        return affinity.translate(
            affinity.scale(round_one, (d.x1 - d.x0) / 2, (d.y1 - d.y0) / 2),
            (d.x0 + d.x1) / 2,
            (d.y0 + d.y1) / 2,
        )
    return Polygon(d.points) if d.points else box(d.x0, d.y0, d.x1, d.y1)


def test_a_fault_off_the_board_is_found() -> None:
    ends = (Station(0, 0, 6 * INCH, INCH, INCH), Station(60 * INCH, 0, 8 * INCH, INCH, INCH))
    faults = (knot(), knot(70, 71), knot(10, 12, 7, 8), knot(50, 52, 7, 8), knot(-3, -1))
    assert outside(Board("B", "oak", 60 * INCH, ends, defects=faults)) == [1, 2, 4]
