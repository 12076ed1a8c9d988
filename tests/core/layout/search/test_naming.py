"""From fills to a plan that names every piece: instances in order, panels whole or not there, pins
in their places.
"""

from tests.core.layout.search.test_restricted_master import a_fill
from tests.making import BARE, a_board, a_part
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.pattern import (
    EMPTY,
    CuttingPattern,
    PatternBlank,
    PatternSegment,
    PatternStrip,
)
from vividplank.core.layout.model.plan import Blank, Item, Segment, Strip
from vividplank.core.layout.search.naming import Named


def job(*parts: object) -> Job:
    return Job("", BARE, tuple(parts), (a_board("A"), a_board("B")))  # type: ignore[arg-type]


def names(named: Named, *patterns: CuttingPattern) -> list[str]:
    return [
        i.name
        for b in named.boards(["A", "B"], patterns)
        for s in b.segments
        for _, k in s.blanks()
        for i in k.items()
    ]


def test_instances_are_given_out_in_order_over_boards() -> None:
    listed = item_types(job(a_part("P", 3), a_part("Q", 1, length=18)))
    named = Named(listed, [0, 0], {}, {})
    assert names(named, a_fill(0, 1), a_fill(0, 0)) == ["P1", "Q1", "P2", "P3"]
    assert list(named.missing()) == []


def test_what_is_left_out_is_told_by_want_and_item() -> None:
    listed = item_types(job(a_part("P", 3)))
    named = Named(listed, [2], {}, {})
    assert names(named, a_fill(0), EMPTY) == ["P1"]
    ((item_type, missing),) = named.missing()
    assert item_type.name == "P" and [i.name for unit in missing for i in unit] == ["P2", "P3"]


def test_a_run_stays_together() -> None:
    from dataclasses import replace

    fronts = replace(a_part("F", 2, 10), run="row")
    named = Named(item_types(job(fronts)), [0], {}, {})
    (board,) = named.boards(["A", "B"], [a_fill(0), EMPTY])
    (blank,) = [k for s in board.segments for _, k in s.blanks()]
    assert blank.name == "F1 + F2"


def test_staves_are_counted_and_a_panel_that_is_not_whole_is_not_there() -> None:
    listed = item_types(job(a_part("T", 1, width=8, panel=(2, 4)), a_part("P", 1)))
    whole = Named(listed, [0, 0], {}, {})
    assert names(whole, a_fill(0, 0, 1), EMPTY) == ["T1·1", "T1·2", "P1"]
    broken = Named(listed, [4000, 0], {}, {})
    assert names(broken, a_fill(0, 0, 1), EMPTY) == ["P1"]
    assert [item_type.name for item_type, _ in broken.missing()] == ["T"]


def test_blanks_strips_and_segments_of_broken_panels_go_with_them() -> None:
    listed = item_types(job(a_part("T", 1, width=8, panel=(2, 4))))
    assert Named(listed, [4000], {}, {}).boards(["A", "B"], [a_fill(0), a_fill(0)]) == ()


def test_staves_go_on_counting_after_those_that_are_pinned() -> None:
    listed = item_types(job(a_part("T", 1, width=8, panel=(2, 4))))
    pin = Segment(0, 1000, 0, 0.0, (Strip(0, 100, (Blank(0, 900, ((Item("T", 1, 1),),)),)),))
    named = Named(listed, [0], {Item("T", 1): 1}, {"B": (pin,)})
    plan = named.boards(["A", "B"], [a_fill(0), EMPTY])
    assert {
        b.board: [i.name for s in b.segments for _, k in s.blanks() for i in k.items()]
        for b in plan
    } == {
        "A": ["T1·2"],
        "B": ["T1·1"],
    }


def test_pinned_staves_of_a_panel_that_is_not_whole_are_let_go_and_other_pins_stay() -> None:
    listed = item_types(job(a_part("T", 1, width=8, panel=(2, 4)), a_part("P", 1)))
    strip = Strip(
        0, 100, (Blank(0, 400, ((Item("T", 1, 1),),)), Blank(500, 900, ((Item("P", 1),),)))
    )
    held = {"A": (Segment(0, 1000, 0, 0.0, (strip,)),)}
    named = Named(listed, [4000, 0], {Item("T", 1): 1}, held)
    (board,) = named.boards(["A", "B"], [EMPTY, EMPTY])
    assert [i.name for s in board.segments for _, k in s.blanks() for i in k.items()] == ["P1"]


def test_layers_keep_their_order() -> None:
    listed = item_types(
        job(a_part("P", 2, thickness=0.3), a_part("Q", 1, thickness=0.3, length=18))
    )
    blank = PatternBlank(0, 900, ((0,), (1,), (0,)))
    pattern = CuttingPattern(
        (PatternSegment(0, 1000, 0, 0.0, (PatternStrip(0, 100, (blank,)),)),), ((0, 2), (1, 1))
    )
    (board,) = Named(listed, [0, 0], {}, {}).boards(["A", "B"], [pattern, EMPTY])
    assert next(k.name for s in board.segments for _, k in s.blanks()) == "P1 / Q1 / P2"
