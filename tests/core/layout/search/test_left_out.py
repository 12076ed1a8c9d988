"""Why a part is left out: the first thing that stands against it, with its figures."""

from dataclasses import replace

import pytest

from tests.making import BARE, a_board, a_part, t
from vividplank.core.board import Board, Warp
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.search.left_out import why_unplaced


def why(part: Part, *boards: Board, unit: str = "in") -> str:
    job = Job(
        "",
        replace(BARE, end_trim=t(1), allowance=replace(BARE.allowance, face=t(1 / 32))),
        (part,),
        boards,
        unit,
    )  # type: ignore[arg-type]
    return why_unplaced(job, item_types(job)[0])


@pytest.mark.parametrize(
    ("part", "words"),
    [
        (a_part("A", species="cherry"), "no board of cherry here"),
        (
            a_part("A", thickness=1.25),
            "needs 1 9/32 in of thickness with its allowance; the thickest oak board has 1 in",
        ),
        (
            a_part("A", length=59),
            (
                "needs 59 in of length; the longest board thick enough gives 58 in between its end "
                "trims"
            ),
        ),
        (
            a_part("A", width=6.5),
            "needs 6 1/2 in of width; the widest board long and thick enough has 6 in",
        ),
        (a_part("A"), "the wood ran out"),
        (a_part("A", width=30, panel=(2, 5)), "not enough clear width in lengths of its staves"),
    ],
)
def test_each_reason_by_itself(part: Part, words: str) -> None:
    assert words in why(part, a_board())


def test_warp_is_told_by_what_it_leaves() -> None:
    # Bow of 1/2 over 60: a piece of 50 keeps (50/60)^2 of it, 0.347, and 0.653 is 41/64.
    bent = a_board(warp=Warp(bow=t(0.5)))
    assert "warp leaves at most 41/64 in in a piece of 50 in" in why(a_part("A", length=50), bent)


def test_figures_are_in_the_projects_unit() -> None:
    assert "needs 1498.6 mm of length" in why(a_part("A", length=59), a_board(), unit="mm")


def test_the_short_and_thick_board_does_not_hide_the_long_and_thin_one() -> None:
    thick, long = a_board("T", 20, thick=2), a_board("L", 100)
    assert "18 in between its end trims" in why(a_part("A", length=40, thickness=1.5), thick, long)
