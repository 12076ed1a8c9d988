"""Faces and edges worked by hand: crook along an edge, the reference end, a wide face on a carrier,
weight for two.
"""

from dataclasses import replace

import pytest

from tests.making import BARE, a_board, a_part, t
from vividplank.core.board import Board, Station, Warp
from vividplank.core.board.grain import Grain
from vividplank.core.cutlist import Faces
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.milling import Machines, Milling, Step, routes
from vividplank.core.milling.bench.words import setting_name
from vividplank.core.milling.shop.machines import Jointer
from vividplank.core.shop import Allowance

SHOP = replace(BARE, allowance=Allowance(0, t(0.125), t(1 / 32), 0))


def steps(
    board: Board,
    width: float = 4,
    machines: Machines | None = None,
    y0: float = 0.5,
    faces: Faces = "clear-one",
) -> dict[str, Step]:
    """Of one rail of 40 x 3 7/8 x 3/4 laid 1/2 above the board's lower side."""
    rail = a_part("R", 1, 40, width - 0.125, faces=faces)
    strip = Strip(0, t(width), (Blank(t(5), t(45), ((Item("R", 1),),)),))
    plan = Plan((BoardPlan(board.id, (Segment(t(5), t(45), t(y0), 0.0, (strip,)),)),))
    milling = Milling(machines or Machines())
    return {
        s.key: s for r in routes(Job("", SHOP, (rail,), (board,)), plan, milling) for s in r.steps
    }


def crooked(sag: float) -> Board:
    """Its lower edge lies on the line at both ends of the rail and `sag` above it in the middle."""
    marks = [(0, 0.5), (5, 0.5), (25, 0.5 + sag), (45, 0.5), (60, 0.5)]
    return replace(
        a_board("C"), stations=tuple(Station(t(x), t(y), t(6), t(1), t(1)) for x, y in marks)
    )


@pytest.mark.parametrize(
    ("sag", "passes"), [(0.0, [2]), (1 / 32, [2]), (3 / 32, [2, 2, 2]), (7 / 64, [2, 2, 2, 1])]
)
def test_an_edge_takes_as_many_passes_as_it_strays(sag: float, passes: list[int]) -> None:
    # The usual pass is 2/64; an edge that is straight already is cleaned with one.
    edge = steps(crooked(sag))["C.1/edge"]
    assert [p / 127 for p in edge.passes] == passes


def test_the_fibres_decide_which_end_leads_and_a_conflict_is_said() -> None:
    board = replace(a_board("C"), grain=Grain(datum_edge=0.04, far_edge=0.05, across=0.03))
    found = steps(board)
    face, edge = found["C.1/face"], found["C.1/edge"]
    assert face.down == "face B" and face.first == "far end"
    assert (
        edge.first == "datum end"
        and "light passes" in edge.why
        and [p / 127 for p in edge.passes] == [1, 1]
    )
    assert found["C.1/thickness"].first == "datum end"  # the other face is cut there, from above


def test_a_wide_face_goes_over_a_carrier_and_keeps_its_steps() -> None:
    board = a_board("C", width=12, thick=1.1)
    found = steps(board, width=10)
    face = found["C.1/face"]
    assert face.machine == "planer" and "wide; the jointer takes 8 in" in face.obstacle
    assert face.way == "carrier" and face.minutes > 10
    assert (face.cuts, face.face_down) == ("A", "B")  # a planer cuts what looks up
    assert found["C.1/thickness"].cuts == "B"  # and then the other
    assert face.setup == "planer carrier" and setting_name(face, "in") == "on a flat carrier"
    assert found["C.1/thickness"].machine == "planer" and not found["C.1/thickness"].obstacle


def test_an_edge_too_long_for_the_jointer_is_ripped_against_a_carrier() -> None:
    edge = steps(a_board("C"), machines=Machines(jointer=Jointer(longest=t(30))))["C.1/edge"]
    assert edge.machine == "table saw" and "cannot hold it straight" in edge.obstacle
    assert edge.passes == () and setting_name(edge, "in") == "on a flat carrier"


def test_what_is_too_heavy_for_one_takes_two() -> None:
    # A board of 60 x 12 x 4 in white oak: 2,880 cubic inches are 0.0472 cubic metres, at 762 kg
    # about 36 kg.
    heavy = replace(a_board("C", width=12, thick=4.0), species="white oak")
    found = steps(heavy)
    assert found["C/rough-length"].people == 2
    assert all(s.people == 1 for s in steps(a_board("C")).values())


def test_marks_and_checks_are_told_where_they_are_made() -> None:
    found = steps(a_board("C"))
    assert "arrow" in found["C.1/edge"].check and "curl" in found["C.1/edge"].check
    assert found["C.1/thickness"].check == "caliper at both ends and the middle: 3/4 in"
    assert "square" in found["C.1a/square"].check
    assert found["C.1/face"].leaves.endswith("for the planer")


@pytest.mark.parametrize(
    ("bow", "faces", "says"),
    [
        (0.0, "clear-one", "the whole face comes clean"),
        (0.14, "clear-one", "88 % of the face clean is enough"),
        (0.14, "clear-two", "pencil lines across the face are gone"),
    ],
)
def test_how_clean_a_face_must_be_is_said(bow: float, faces: Faces, says: str) -> None:
    assert says in steps(a_board("C", warp=Warp(bow=t(bow))), faces=faces)["C.1/face"].check
