"""How far a board reaches over a line, against looking at every place along it."""

from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import boards
from tests.making import a_board, t
from tests.profiles import examples
from vividplank.core.board import Board, Region

MANY = examples(150)


def test_a_taper_reaches_as_far_as_its_narrow_end() -> None:
    board = a_board(length=60, width=6, far_width=4)
    assert board.reach(0, 0.0, 0, 0, t(60)) == (0, t(4))
    assert board.reach(0, 0.0, 0, 0, t(30)) == (0, t(5))
    # Over a line that rises an inch in 60 there is an inch less at the far end, and wood an inch
    # under it.
    assert board.reach(0, 1 / 60, 0, 0, t(60)) == (0, t(3))
    assert board.reach(t(-1), 0.0, 0, 0, t(60)) == (t(1), t(5))


@MANY
@given(
    boards("B"), st.floats(-0.02, 0.02), st.integers(0, 8), st.integers(0, 9), st.integers(1, 10)
)
def test_what_is_within_reach_lies_in_the_board_and_a_tick_more_does_not(
    board: Board, slope: float, height: int, a: int, b: int
) -> None:
    x0, x1 = board.length * a // 20, board.length * (a + b) // 20
    low, high = board.reach(t(height), slope, x0, x0, x1)
    if low >= high:
        return
    assert board.within(Region(x0, x1, t(height), slope, low, high), 1e-6)
    assert not board.within(Region(x0, x1, t(height), slope, low - 1, high))
    assert not board.within(Region(x0, x1, t(height), slope, low, high + 1))


@MANY
@given(boards("B"), st.floats(-0.02, 0.02), st.integers(0, 9), st.integers(2, 10))
def test_a_shorter_stretch_reaches_no_less(board: Board, slope: float, a: int, b: int) -> None:
    x0, x1 = board.length * a // 20, board.length * (a + b) // 20
    whole = board.reach(0, slope, x0, x0, x1)
    half = board.reach(0, slope, x0, x0, (x0 + x1) // 2)
    assert half[0] <= whole[0] and half[1] >= whole[1]
