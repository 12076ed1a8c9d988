"""Grades by the published rules, worked by hand: sizes, surface measure, cutting units, and what
else is limited.
"""

import pytest

from tests.making import a_board, a_fault
from vividplank.core.board import Board
from vividplank.core.board.grade import RULES, grade, surface_measure


def clear(length: float, width: float) -> Board:
    return a_board(length=length, width=width)


def test_grades_by_hand() -> None:
    # 8 in x 10 ft: surface measure 80 / 12 = 6.67, so 7; clear it holds 80 of the 70 units asked:
    # FAS in one cutting.
    found = grade(clear(120, 8))
    assert (found.name, found.surface, found.units, found.asked) == ("FAS", 7, 80, 70)
    # The same but 7 ft long is no FAS board, whatever is clear in it: Selects begin at 6 ft, No. 1
    # Common at 4.
    assert grade(clear(84, 8)).name == "Selects"
    assert grade(clear(70, 8)).name == "No. 1 Common"
    # 10 ft 6 in, surface measure 7, parted in the middle: two cuttings of 62 in hold 82.7 units;
    # from 6 to 15 one cutting more than the quarter is allowed where it makes 11/12, 77 units.
    assert (
        grade(a_board(length=126, width=8, defects=(a_fault("split", 62, 64, 0, 8),))).name == "FAS"
    )
    # Rot across it a foot from one end leaves one cutting of 9 ft: 72 units, still FAS; at 3 ft
    # 54.7 in the one cutting that a surface measure of 7 may have: No. 1 Common, which may have two
    # and asks 56.
    assert (
        grade(a_board(length=120, width=8, defects=(a_fault("rot", 10, 12, 0, 8),))).name == "FAS"
    )
    assert (
        grade(a_board(length=120, width=8, defects=(a_fault("rot", 36, 38, 0, 8),))).name
        == "No. 1 Common"
    )
    assert grade(a_board(length=120, width=8, defects=(a_fault("rot", 0, 120, 0, 8),))).name == ""


@pytest.mark.parametrize(
    ("width", "length", "measure"),
    [
        (7, 12 * 12 + 11, 7),  # 7 x 12 / 12; the eleven inches are not counted
        (8, 120, 7),
        (6, 96, 4),
        (6.5, 96, 4),
        (6.75, 96, 5),
        (9, 96, 6),
        (3, 48, 1),
        (2, 24, 1),
    ],
)
def test_surface_measure_drops_parts_of_a_foot(width: float, length: float, measure: int) -> None:
    assert surface_measure(clear(length, width)) == measure


def test_exactly_what_is_asked_is_enough() -> None:
    # 8 in x 12 ft: surface measure 8, No. 1 Common asks 64 units of 96. Rot at the ends leaves 96
    # in: 64 exactly.
    ends = (a_fault("rot", 0, 24, 0, 8), a_fault("rot", 120, 144, 0, 8))
    found = grade(a_board(length=144, width=8, defects=ends))
    assert (found.name, found.units, found.asked) == ("No. 1 Common", 64, 64)
    # A sixty-fourth less, and it is No. 2A.
    short = (a_fault("rot", 0, 24 + 1 / 64, 0, 8), ends[1])
    assert grade(a_board(length=144, width=8, defects=short)).name == "No. 2A Common"
    # 6 in x 8 ft: surface measure 4, No. 3A asks 16 units of 48: exactly a third, 32 in.
    third = (a_fault("rot", 0, 32, 0, 6), a_fault("rot", 64, 96, 0, 6))
    assert grade(a_board(length=96, width=6, defects=third)).name == "No. 3A Common"


def test_small_boards_are_asked_more() -> None:
    # 3 in x 4 ft, surface measure 1: No. 1 Common asks all of it, No. 2A 8 of 12 units.
    assert grade(clear(48, 3)).name == "No. 1 Common"
    assert (
        grade(a_board(length=48, width=3, defects=(a_fault("rot", 0, 8, 0, 3),))).name
        == "No. 2A Common"
    )
    # 4 in x 6 ft, surface measure 2: Selects ask 22 of 24 units in one cutting; No. 1 Common 18.
    assert grade(clear(72, 4)).name == "Selects"
    assert (
        grade(a_board(length=72, width=4, defects=(a_fault("rot", 0, 5, 0, 4),))).name == "Selects"
    )
    assert (
        grade(a_board(length=72, width=4, defects=(a_fault("rot", 0, 7, 0, 4),))).name
        == "No. 1 Common"
    )
    assert (
        grade(a_board(length=72, width=4, defects=(a_fault("rot", 0, 19, 0, 4),))).name
        == "No. 2A Common"
    )


def test_the_poorer_face_decides() -> None:
    def knotty(face: str) -> str:
        knots = tuple(a_fault("tight-knot", x, x + 2, 0, 8, face) for x in range(14, 110, 16))
        return grade(a_board(length=120, width=8, defects=knots)).name

    assert knotty("A") == knotty("B") != "FAS"


def test_one_face_may_be_fas() -> None:
    # Knots on face B a yard from one end: 54.7 units in one cutting there, No. 1 Common with two;
    # face A is clear.
    knotty = (a_fault("tight-knot", 36, 38, 0, 8, "B"),)
    assert grade(a_board(length=120, width=8, defects=knotty)).name == "FAS one face"
    both = (*knotty, a_fault("tight-knot", 36, 38, 0, 8, "A"))
    assert grade(a_board(length=120, width=8, defects=both)).name == "No. 1 Common"
    # Too narrow for FAS, the same is Selects.
    narrow = (a_fault("tight-knot", 36, 38, 0, 5, "B"),)
    assert grade(a_board(length=120, width=5, defects=narrow)).name == "Selects"


def test_sapwood_is_no_fault_and_stain_is() -> None:
    for kind, name in (("sapwood", "FAS"), ("stain", "No. 1 Common")):
        along = tuple(a_fault(kind, 0, 120, 0, 2, face) for face in ("A", "B"))
        assert grade(a_board(length=120, width=8, defects=along)).name == name


@pytest.mark.parametrize(
    ("fault", "name"),
    [
        (("pith", 0, 6, 0, 1), "FAS"),  # 6 in of pith, surface measure 7
        (("pith", 0, 8, 0, 1), "No. 1 Common"),
        (("split", 0, 14, 3, 3.25), "FAS"),  # twice the surface measure
        (("split", 0, 15, 3, 3.25), "No. 1 Common"),
        (("tight-knot", 0, 2.25, 0, 2.25), "FAS"),  # a third of 7 is 2.33
        (("tight-knot", 0, 2.5, 0, 2.5), "No. 1 Common"),
        (("wane", 0, 60, 0, 0.5), "FAS"),  # half the length of one edge
        (("wane", 0, 61, 0, 0.5), "No. 1 Common"),
    ],
)
def test_what_else_fas_limits(fault: tuple[str, float, float, float, float], name: str) -> None:
    found = grade(a_board(length=120, width=8, defects=(a_fault(*fault),)))
    assert (found.name, found.about) == (name, True)
    assert not grade(clear(120, 8)).about


def test_units_and_counts_are_those_of_the_rules() -> None:
    assert [r.asked(12) for r in RULES] == [120, 96, 72, 48]
    assert [RULES[0].allowed(s) for s in (4, 8, 16, 40)] == [1, 2, 4, 4]
    assert [RULES[1].allowed(s) for s in (2, 5, 8, 11, 14)] == [1, 2, 3, 4, 5]
    assert [RULES[2].allowed(s) for s in (1, 4, 6, 14)] == [1, 2, 3, 7]
