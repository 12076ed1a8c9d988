"""Filling a strip and a board: faults are dodged, tapers followed, nothing laid that does not
hold.
"""

import random
from dataclasses import replace

import pytest

from tests.making import BARE, a_board, a_fault, a_part, t
from vividplank.core.board import Board, Warp
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.pattern import EMPTY, CuttingPattern
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.patterns.strips import Strips
from vividplank.core.measure import TICKS_PER_64TH
from vividplank.core.shop import Shop


def pattern(
    board: Board, *parts, shop: Shop = BARE, seed: int = 1, tries: int = 8
) -> CuttingPattern:  # type: ignore[no-untyped-def]
    """The fullest of a few patterns of one board."""
    wanted = item_types(Job("", shop, parts, (board,)))
    generator = PatternGenerator(board, shop, wanted, TICKS_PER_64TH)
    left = [w.width if w.is_panel else w.count for w in wanted]
    rng = random.Random(seed)
    patterns = [
        pattern for _ in range(tries) for pattern in generator.cut(left, [1.0] * len(wanted), rng)
    ]
    return max(patterns, key=lambda f: sum(n for _, n in f.taken), default=EMPTY)


def strips(board: Board, *parts) -> Strips:  # type: ignore[no-untyped-def]
    return Strips(board, BARE, item_types(Job("", BARE, parts, (board,))), TICKS_PER_64TH)


def clear(
    board: Board, faces: str, side: str = "A", resawn: bool = False, low: float = 0, top: float = 3
):  # type: ignore[no-untyped-def]
    found = strips(board, a_part("A"))._clear(
        0, board.length, 0, 0.0, t(low), t(top), faces, side, resawn
    )  # type: ignore[arg-type]
    return [(a / t(1), b / t(1)) for a, b in found]


def test_a_strip_is_clear_from_end_to_end_without_faults() -> None:
    assert clear(a_board(), "clear-two") == [(0, 60)]


def test_an_unsound_fault_splits_the_strip_for_every_quality() -> None:
    board = a_board(defects=(a_fault("rot", 20, 25, 1, 2),))
    for faces in ("clear-two", "clear-one", "sound"):
        assert clear(board, faces) == [(0, 20), (25, 60)]


def test_a_sound_knot_counts_by_quality_and_face() -> None:
    board = a_board(defects=(a_fault("tight-knot", 20, 25, 1, 2, "A"),))
    assert clear(board, "clear-two") == [(0, 20), (25, 60)]
    assert clear(board, "clear-one", "A") == [(0, 20), (25, 60)]
    assert clear(board, "clear-one", "B") == [(0, 60)]
    assert clear(board, "sound") == [(0, 60)]
    assert clear(board, "clear-one", "B", resawn=True) == [(0, 20), (25, 60)]


def test_a_fault_beside_the_strip_is_no_matter() -> None:
    board = a_board(defects=(a_fault("rot", 20, 25, 3, 4),))
    assert clear(board, "sound", top=3) == [(0, 60)]
    assert clear(board, "sound", top=3.01) == [(0, 20), (25, 60)]


def test_overlapping_faults_are_one_gap() -> None:
    board = a_board(defects=(a_fault("rot", 20, 25, 0, 2), a_fault("split", 24, 30, 1, 3)))
    assert clear(board, "sound") == [(0, 20), (30, 60)]


def test_a_strip_may_begin_above_a_fault() -> None:
    board = a_board(defects=(a_fault("bark", 0, 60, 0, 0.5),))
    part = a_part("A")
    starts = strips(board, part).starts(
        0, board.length, 0, 0.0, 0, item_types(Job("", BARE, (part,), (board,)))[0]
    )
    assert starts == [0, t(0.5)]


@pytest.mark.parametrize(("width", "count"), [(2.9, 1), (6.125, 2), (9.25, 3)])
def test_strips_are_apart_by_the_rip_kerf(width: float, count: int) -> None:
    # n strips of 3 and n - 1 kerfs of 1/8 fill the width to the last tick; 2.9 holds one of 2.9
    # only.
    part = a_part("A", 5, 20, 2.9 if count == 1 else 3)
    found = pattern(a_board(length=20, width=width), part)
    assert found.taken == ((0, count),)


def test_blanks_are_apart_by_the_crosscut_kerf() -> None:
    part = a_part("A", 5, 20, 3)
    assert pattern(a_board(length=40.125, width=3), part).taken == ((0, 2),)
    assert pattern(a_board(length=40.12, width=3), part).taken == ((0, 1),)


def test_a_crooked_board_is_followed_along_its_edge() -> None:
    # Both edges rise by 1/2 over 50: straight along the bench 6 1/2 are left, along the edge all of
    # 7.
    board = a_board(length=50, width=7)
    crooked = replace(
        board, stations=(board.stations[0], replace(board.stations[1], y0=t(0.5), y1=t(7.5)))
    )
    shop = replace(BARE, max_slope=0.02)
    found = pattern(crooked, a_part("A", 1, 50, 7), shop=shop)
    assert found.taken == ((0, 1),)
    assert found.segments[0].slope == pytest.approx(0.01)
    assert pattern(crooked, a_part("A", 1, 50, 7), shop=replace(BARE, max_slope=0.0)).taken == ()


def test_a_slope_steeper_than_the_shop_allows_is_not_taken() -> None:
    board = a_board(length=50, width=7)
    steep = replace(
        board, stations=(board.stations[0], replace(board.stations[1], y0=t(2), y1=t(9)))
    )
    found = pattern(steep, a_part("A", 1, 50, 6), shop=replace(BARE, max_slope=0.01))
    assert all(abs(s.slope) <= 0.01 for s in found.segments)


def test_a_panel_takes_staves_no_wider_and_no_narrower_than_they_may_be() -> None:
    panel = a_part("P", 1, 20, 12, panel=(2, 5))
    found = pattern(a_board(length=60.25, width=6), panel)
    widths = [s.y1 - s.y0 for segment in found.segments for s in segment.strips]
    assert widths and all(t(2) <= w <= t(5) for w in widths)


def test_a_thin_part_is_laid_in_as_many_layers_as_the_board_is_thick() -> None:
    # 2 in: three of 5/8 with two kerfs of 1/16 are 2 exactly.
    found = pattern(a_board(length=20, width=3, thick=2.0), a_part("A", 4, 20, 3, 0.625))
    assert found.taken == ((0, 3),)
    (blank,) = found.segments[0].strips[0].blanks
    assert len(blank.layers) == 3


def test_staves_of_a_panel_are_resawn_from_thick_stock() -> None:
    # 6 in of panel in two staves of 3, one over the other: 2 in hold two of 5/8 with 1/32 for
    # cupping each. Without such an allowance staves are not resawn.
    panel = a_part("P", 1, 20, 6, 0.625, panel=(2, 3))
    cupping = replace(BARE, allowance=replace(BARE.allowance, layer=t(1 / 32)))
    board = a_board(length=20, width=3, thick=2.0)
    found = pattern(board, panel, shop=cupping)
    (blank,) = found.segments[0].strips[0].blanks
    assert blank.layers == ((0,), (0,)) and found.taken == ((0, t(6)),)
    (blank,) = pattern(board, panel).segments[0].strips[0].blanks
    assert blank.layers == ((0,),)


def test_layers_have_an_allowance_for_what_they_cup() -> None:
    # Three of 5/8 with 1/32 each for cupping are 3/32 too thick for 2 in; two are left.
    cupping = replace(BARE, allowance=replace(BARE.allowance, layer=t(1 / 32)))
    board, part = a_board(length=20, width=3, thick=2.0), a_part("A", 4, 20, 3, 0.625)
    found = pattern(board, part, shop=cupping)
    (blank,) = found.segments[0].strips[0].blanks
    assert len(blank.layers) == 2


def test_rough_ripped_blanks_stay_short_where_that_is_flatter() -> None:
    shop = replace(BARE, method="rough-rip")
    board = a_board(length=60.5, width=3, warp=Warp(bow=t(0.25)))
    found = pattern(board, a_part("A", 3, 20, 3, 0.97), shop=shop)
    # A third of the length keeps a ninth of the bow: 1 - 0.028 = 0.972.
    assert found.taken == ((0, 3),)
    assert all(
        b.x1 - b.x0 < t(21) for s in found.segments for strip in s.strips for b in strip.blanks
    )


def test_what_fits_nowhere_is_not_laid() -> None:
    for part in (
        a_part("A", 1, 61),
        a_part("A", 1, 20, 7),
        a_part("A", 1, 20, 3, 1.01),
        a_part("A", species="ash"),
    ):
        assert pattern(a_board(), part).taken == ()


def test_cutting_begins_behind_a_spoilt_end() -> None:
    # Rot right across the first 40 inches; behind it 50 and 29.875 with a kerf reach the end, each
    # in two strips of its own.
    board = a_board("B", 120, 5.5, defects=(a_fault("rot", 0, 40, 0, 5.5),))
    parts = [("A", 50, 2.5), ("B", 50, 2.875), ("C", 29.875, 1.5), ("D", 29.875, 3.875)]
    found = pattern(board, *(a_part(id, 1, *size) for id, *size in parts), tries=1)
    assert [k for k, _ in found.taken] == [0, 1, 2, 3]


def test_cuts_behind_a_fault_fall_on_marks_of_the_rule() -> None:
    # A fault may have been surveyed from a photograph, to the hair; a knot like a lens is met as
    # slices.
    rot = replace(a_fault("rot", 20.1943, 27.1943, 0, 6), shape="rectangle")
    knot = replace(a_fault("loose-knot", 50.0417, 52.3331, 1.0101, 2.0303), shape="ellipse")
    board = a_board(length=90, defects=(rot, knot))
    found = pattern(board, a_part("A", 9, 15, 2), a_part("B", 9, 9, 1.5))
    assert any(s.x0 > t(27) for s in found.segments)
    places = [x for s in found.segments for x in (s.x0, s.x1)]
    places += [
        x for s in found.segments for strip in s.strips for k in strip.blanks for x in (k.x0, k.x1)
    ]
    heights = [strip.y0 for s in found.segments for strip in s.strips]
    assert {n % TICKS_PER_64TH for n in places + heights} == {0}
    assert board.to_marks(TICKS_PER_64TH).boxed[0].x1 == t(27 + 13 / 64)


def test_a_board_without_odd_faults_is_left_as_it_is() -> None:
    board = a_board(defects=(a_fault("rot", 20, 25.5, 1, 2),))
    assert board.to_marks(TICKS_PER_64TH) is board


def test_a_strip_is_flat_enough_for_a_thick_part_where_the_whole_does_for_thin_ones() -> None:
    """A cup of 1/4 over 6 in leaves 3/4 of the inch; over 2 in it is 1/36, which leaves 35/36."""
    cupped = a_board(length=40, warp=Warp(cup=t(0.25)))
    thick, thin = a_part("K", 1, 36, 1.75, 0.9), a_part("N", 9, 36, 1.5, 0.5)
    wanted = item_types(Job("", BARE, (thick, thin), (cupped,)))
    generator = PatternGenerator(cupped, BARE, wanted, TICKS_PER_64TH)
    dear, cheap = generator.cut([1, 9], [9.0, 1.0], random.Random(1))[0].taken
    assert dear == (0, 1) and cheap[0] == 1
    ((first, _),) = generator.cut([1, 9], [0.1, 1.0], random.Random(1))[0].taken
    assert first == 1
