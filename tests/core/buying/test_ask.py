"""What to ask the yard for, by hand."""

from dataclasses import replace

import pytest

from tests.making import BARE, a_board, a_part, t
from vividplank.core.buying import asks
from vividplank.core.job import Job


def job(*parts, boards=()):  # type: ignore[no-untyped-def]
    return Job("", BARE, parts, boards)


def test_parts_are_asked_for_by_wood_and_quarter() -> None:
    thick = a_part("C", thickness=1.5)
    ash = replace(a_part("D"), species="Ash")
    found = asks(job(a_part("A"), a_part("B", thickness=13 / 16), thick, ash))
    assert [(a.key, a.parts) for a in found] == [
        ("ash 4/4", ("D",)),
        ("oak 4/4", ("A", "B")),
        ("oak 8/4", ("C",)),
    ]


def test_board_feet_by_hand() -> None:
    # Two of 48 x 6 at 4/4: 2 x 1 x 6 x 4 / 12 = 4 board feet; with a third more 5.2.
    (ask,) = asks(job(a_part("A", 2, 48, 6), boards=(a_board(length=48, width=6, price="20"),)))
    assert ask.blanks == 4 and ask.thumb == pytest.approx(5.2)
    assert ask.on_hand == 2 and ask.price == 10


def test_the_longest_and_widest_say_which_boards() -> None:
    (ask,) = asks(
        job(a_part("A", 2, 60, 2), a_part("B", 3, 55, 4), a_part("C", 8, 20, 3, faces="sound"))
    )
    assert [(n.length, n.width, n.pieces) for n in ask.lengths] == [
        (t(60), t(4), 5),
        (t(20), t(3), 8),
    ]
    assert (ask.longest, ask.widest, ask.clear, ask.sound) == (t(60), t(4), 5, 8)


def test_a_wide_part_makes_no_wide_boards_of_the_narrow_ones_as_long() -> None:
    (ask,) = asks(job(a_part("A", 1, 44, 13.5), a_part("B", 2, 38, 3), a_part("C", 1, 36, 1.75)))
    assert [(n.length, n.width, n.parts) for n in ask.lengths] == [
        (t(44), t(13.5), ("A",)),
        (t(38), t(3), ("B", "C")),
    ]
    assert (ask.longest, ask.widest) == (t(44), t(13.5))


def test_a_run_wants_one_board_as_long_as_all_of_it() -> None:
    (ask,) = asks(job(a_part("A", 1, 20, run="r"), a_part("B", 2, 10, run="r")))
    # 20 + 10 + 10 and two kerfs of 1/8.
    assert ask.longest == t(40.25)
    assert [(o.why, o.parts, o.length) for o in ask.one_board] == [("run", ("A", "B"), t(40.25))]


def test_a_panel_wants_no_wider_boards_than_its_narrowest_stave() -> None:
    (ask,) = asks(job(a_part("A", 1, 30, 18, panel=(2.5, 6))))
    assert ask.widest == t(2.5) and ask.staves[0].least == t(2.5)


def test_thin_parts_are_named_for_resawing_where_that_takes_less_wood() -> None:
    # Two of 3/8 out of 4/4 (13/16 flat): 3/8 + 3/8 + 1/16 of saw = 13/16, from one inch for two.
    (thin,) = asks(job(a_part("A", 4, thickness=0.375)))
    assert thin.resaw == ("A",)
    (one,) = asks(job(a_part("A", 1, thickness=0.375)))
    assert one.resaw == ()
    (thick,) = asks(job(a_part("A", 4, thickness=0.8)))
    assert thick.resaw == ()  # 8/4 for two of 4/4 saves nothing


def test_what_no_quarter_gives_is_built_up() -> None:
    (ask,) = asks(job(a_part("A", thickness=5)))
    assert ask.quarter == "" and ask.rough == t(5)
