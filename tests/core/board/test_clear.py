"""Clear areas: by hand, and never larger than what is really clear."""

from hypothesis import given

from tests.jobs import boards
from tests.making import a_board, a_fault
from tests.profiles import examples
from vividplank.core.board import Board, Region
from vividplank.core.board.clear import Area, clear_areas


def sizes(found: tuple[Area, ...]) -> list[tuple[float, float]]:
    return [((a.x1 - a.x0) / 8128, (a.y1 - a.y0) / 8128) for a in found]


def test_a_clear_board_is_one_area() -> None:
    assert sizes(clear_areas(a_board(length=60, width=6), "clear-two")) == [(60, 6)]


def test_a_knot_in_the_middle_leaves_the_longer_end_or_the_wider_side() -> None:
    # 20 to 22 along, 2 to 3 across: beyond it 38 x 6 = 228, beside it 60 x 3 = 180, before it 20 x
    # 6 = 120.
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


@examples(60)
@given(boards("B"))
def test_areas_are_inside_clear_and_apart(board: Board) -> None:
    for quality in ("clear-two", "clear-one", "sound"):
        found = clear_areas(board, quality)  # type: ignore[arg-type]
        assert [a.size for a in found] == sorted((a.size for a in found), reverse=True)
        for k, a in enumerate(found):
            for x in (
                a.x0,
                (a.x0 + a.x1) // 2,
                a.x1,
                *(s.x for s in board.stations if a.x0 < s.x < a.x1),
            ):
                low, high = board.edges(x)
                assert low <= a.y0 + 1 and a.y1 <= high + 1
            bad = [
                d
                for d in board.defects
                if not d.sound
                or (quality != "sound" and (a.face == "both" or d.face in (a.face, "both")))
            ]
            assert not any(d.overlaps(Region(a.x0, a.x1, a.y0, 0.0, 0, a.y1 - a.y0)) for d in bad)
            for other in found[:k]:
                assert other.x0 >= a.x1 or other.x1 <= a.x0 or other.y0 >= a.y1 or other.y1 <= a.y0
