"""Clear areas and grades: by hand, and never larger than what is really clear."""

from hypothesis import given, settings

from tests.jobs import boards
from tests.making import a_board, a_fault
from vividplank.core.board import Board, Region
from vividplank.core.board.clear import RULES, Area, clear_areas, grade


def sizes(found: tuple[Area, ...]) -> list[tuple[float, float]]:
    return [((a.x1 - a.x0) / 8128, (a.y1 - a.y0) / 8128) for a in found]


def test_a_clear_board_is_one_area() -> None:
    assert sizes(clear_areas(a_board(length=60, width=6), "clear-two")) == [(60, 6)]


def test_a_knot_in_the_middle_leaves_the_longer_end_or_the_wider_side() -> None:
    # 20 to 22 along, 2 to 3 across: beyond it 38 x 6 = 228, beside it 60 x 3 = 180, before it 20 x 6 = 120.
    board = a_board(length=60, width=6, defects=(a_fault("tight-knot", 20, 22, 2, 3),))
    assert sizes(clear_areas(board, "clear-two", most=1)) == [(38, 6)]
    assert sizes(clear_areas(board, "sound")) == [(60, 6)]


def test_one_clear_face_may_be_either() -> None:
    board = a_board(length=60, width=6, defects=(a_fault("tight-knot", 20, 22, 2, 3, "A"),))
    found = clear_areas(board, "clear-one", most=1)
    assert sizes(found) == [(60, 6)] and found[0].face == "B"
    rotten = a_board(length=60, width=6, defects=(a_fault("rot", 20, 22, 0, 6, "A"),))
    assert sizes(clear_areas(rotten, "clear-one", most=1)) == [(38, 6)]


def test_the_outline_is_kept_to() -> None:
    tapered = a_board(length=60, width=6, far_width=3)
    assert sizes(clear_areas(tapered, "sound", most=1))[0][1] >= 3
    for a in clear_areas(tapered, "sound"):
        assert a.y1 <= min(tapered.edges(a.x0)[1], tapered.edges(a.x1)[1])


@settings(max_examples=60)
@given(boards("B"))
def test_areas_are_inside_clear_and_apart(board: Board) -> None:
    for quality in ("clear-two", "clear-one", "sound"):
        found = clear_areas(board, quality)  # type: ignore[arg-type]
        assert [a.size for a in found] == sorted((a.size for a in found), reverse=True)
        for k, a in enumerate(found):
            for x in (a.x0, (a.x0 + a.x1) // 2, a.x1, *(s.x for s in board.stations if a.x0 < s.x < a.x1)):
                low, high = board.edges(x)
                assert low <= a.y0 + 1 and a.y1 <= high + 1
            bad = [
                d
                for d in board.defects
                if not d.sound or (quality != "sound" and (a.face == "both" or d.face in (a.face, "both")))
            ]
            assert not any(d.overlaps(Region(a.x0, a.x1, a.y0, 0.0, 0, a.y1 - a.y0)) for d in bad)
            for other in found[:k]:
                assert other.x0 >= a.x1 or other.x1 <= a.x0 or other.y0 >= a.y1 or other.y1 <= a.y0


def test_grades_by_hand() -> None:
    # 8 in x 10 ft: surface measure 80 / 12 = 6.67, so 7. Clear, it is FAS in one cutting.
    assert (grade(a_board(length=120, width=8)).name, grade(a_board(length=120, width=8)).surface) == ("FAS", 7)
    # The same but 7 ft long is no FAS board, whatever is clear in it: Selects begin at 6 ft, No. 1 Common at 4.
    assert grade(a_board(length=84, width=8)).name == "Selects"
    assert grade(a_board(length=70, width=8)).name == "No. 1 Common"
    # 10 ft 6 in, surface measure 7, parted in the middle: two cuttings of 62 in hold 98 %; from 6 to 15 one cutting more than
    # the quarter is allowed where it makes 11/12.
    assert grade(a_board(length=126, width=8, defects=(a_fault("split", 62, 64, 0, 8),))).name == "FAS"
    # A row of knots a foot from one end leaves one cutting of 9 ft: 90 %, still FAS; at 3 ft 70 % in the one cutting that
    # a surface measure of 7 may have: No. 1 Common, which may take three.
    assert grade(a_board(length=120, width=8, defects=(a_fault("loose-knot", 10, 12, 0, 8),))).name == "FAS"
    assert grade(a_board(length=120, width=8, defects=(a_fault("loose-knot", 36, 38, 0, 8),))).name == "No. 1 Common"
    assert grade(a_board(length=120, width=8, defects=(a_fault("rot", 0, 120, 0, 8),))).name == ""


def test_the_poorer_face_decides() -> None:
    knots = tuple(a_fault("tight-knot", x, x + 2, 0, 8, "A") for x in range(14, 110, 16))
    assert (
        grade(a_board(length=120, width=8, defects=knots)).name
        == grade(
            a_board(length=120, width=8, defects=tuple(a_fault("tight-knot", x, x + 2, 0, 8, "B") for x in range(14, 110, 16)))
        ).name
        != "FAS"
    )


def test_selects_are_good_on_the_better_face() -> None:
    # Knots on face B a yard from one end: 70 % in one cutting there, No. 1 Common; face A is clear.
    knotty = (a_fault("tight-knot", 36, 38, 0, 8, "B"),)
    assert grade(a_board(length=120, width=8, defects=knotty)).name == "Selects"
    both = (*knotty, a_fault("tight-knot", 36, 38, 0, 8, "A"))
    assert grade(a_board(length=120, width=8, defects=both)).name == "No. 1 Common"


def test_shares_and_counts_are_those_of_the_rules() -> None:
    assert [round(float(r.share) * 100, 1) for r in RULES] == [83.3, 66.7, 50.0, 33.3]
    assert [RULES[0].allowed(s) for s in (4, 8, 16, 40)] == [1, 2, 4, 4] and [RULES[1].allowed(s) for s in (2, 5, 8, 40)] == [
        1,
        2,
        3,
        5,
    ]
