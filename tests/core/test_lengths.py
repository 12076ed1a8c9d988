"""Sheets and stock lengths: by hand, and never fewer than can be."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import a_part, t
from vividplank.core.buying import length_needs, sheet_needs
from vividplank.core.cutlist import Edging, Part
from vividplank.core.cutlist.rough import rough_size
from vividplank.core.job import Job
from vividplank.core.shop import Allowance, Kerf, Shop

NO_KERF = Shop(kerf=Kerf(0, 0, 0))


def sheet(id: str, quantity: int, length: float, width: float, **kept: object) -> Part:
    return replace(a_part(id, quantity, length, width), stock="sheet", **kept)  # type: ignore[arg-type]


def bought(id: str, quantity: int, length: float) -> Part:
    return replace(a_part(id, quantity, length), stock="bought")


def job(*parts: Part, shop: Shop = NO_KERF) -> Job:
    return Job("", shop, parts, ())


def test_sheets_by_hand() -> None:
    # 96 x 48 holds two rows of two 48 x 24; five need a second one.
    assert [(s.sheets, s.least) for s in sheet_needs(job(sheet("A", 4, 48, 24)))] == [(1, 1)]
    assert [(s.sheets, s.least) for s in sheet_needs(job(sheet("A", 5, 48, 24)))] == [(2, 2)]


def test_the_saw_takes_its_share_of_a_sheet() -> None:
    # With an eighth lost at the cut neither a second 48 along nor a second 24 across goes in.
    assert sheet_needs(job(sheet("A", 4, 48, 24), shop=Shop()))[0].sheets == 4
    assert sheet_needs(job(sheet("A", 4, 47.875, 23.875), shop=Shop()))[0].sheets == 1


def test_grain_decides_which_way_a_part_lies() -> None:
    across = sheet("A", 1, 40, 90, grain="width")
    assert sheet_needs(job(across))[0].too_large == ()
    assert sheet_needs(job(replace(across, grain="length")))[0].too_large == ("A",)
    assert sheet_needs(job(replace(across, grain="any")))[0].sheets == 1


def test_kinds_and_thicknesses_are_bought_apart() -> None:
    parts = (sheet("A", 1, 10, 10), sheet("B", 1, 10, 10, thickness=t(0.25)), sheet("C", 1, 10, 10, species="birch"))
    assert [s.parts for s in sheet_needs(job(*parts))] == [("A",), ("B",), ("C",)]


def test_stock_lengths_by_hand() -> None:
    # 60 + 36, 60 + 36, 50 + 40: three of 96, and nothing fits into what is left.
    need = length_needs(job(bought("A", 2, 60), bought("B", 2, 36), bought("C", 1, 50), bought("D", 1, 40)), t(96))[0]
    assert (need.lengths, need.least, need.spare) == (3, 3, 0)
    assert length_needs(job(bought("A", 1, 97)), t(96))[0].too_long == ("A",)


@given(st.lists(st.tuples(st.integers(1, 12), st.integers(5, 96)), min_size=1, max_size=8), st.integers(0, 8))
def test_lengths_hold_all_and_are_never_fewer_than_can_be(wanted: list[tuple[int, int]], kerf: int) -> None:
    shop = Shop(kerf=Kerf(kerf * 127, kerf * 127, 0))
    parts = tuple(bought(f"P{k}", n, length) for k, (n, length) in enumerate(wanted))
    need = length_needs(job(*parts, shop=shop), t(96))[0]
    assert need.least <= need.lengths <= need.pieces
    total = sum(n * length for n, length in wanted)
    assert need.lengths * 96 >= total


def fewest(pieces: list[int], left: list[int]) -> int:
    """The best count of stock lengths, by trying every place for every piece."""
    if not pieces:
        return len(left)
    first, rest = pieces[0], pieces[1:]
    ways = [[*left[:k], room - first, *left[k + 1 :]] for k, room in enumerate(left) if room >= first]
    return min(fewest(rest, way) for way in [*ways, [*left, 96 - first]])


@given(st.lists(st.integers(10, 90), min_size=1, max_size=6))
def test_lengths_against_the_best_of_all_ways(wanted: list[int]) -> None:
    need = length_needs(job(*(bought(f"P{k}", 1, length) for k, length in enumerate(wanted))), t(96))[0]
    best = fewest(wanted, [])
    # Best fit, longest first, is never worse than 11/9 of the best and one more (Johnson 1974).
    assert need.least <= best <= need.lengths <= 11 / 9 * best + 1


@given(st.lists(st.tuples(st.integers(1, 6), st.integers(4, 90), st.integers(4, 48)), min_size=1, max_size=6))
def test_sheets_hold_all_and_are_never_fewer_than_can_be(wanted: list[tuple[int, int, int]]) -> None:
    parts = tuple(sheet(f"P{k}", n, length, width) for k, (n, length, width) in enumerate(wanted))
    need = sheet_needs(job(*parts))[0]
    assert need.least <= need.sheets <= need.pieces
    assert need.sheets * 96 * 48 >= sum(n * length * width for n, length, width in wanted)


@pytest.mark.parametrize(
    ("part", "rough"),
    [
        (a_part("A", 1, 20, 3, 0.75), (20.5, 3.125, 0.78125)),
        (a_part("A", 1, 20, 12, 0.75, panel=(2, 5)), (20.5, 12.25, 0.78125)),
        (replace(a_part("A", 1, 20, 3, 3), layers=4), (20.5, 3.125, 3.125)),
        (replace(a_part("A", 1, 20, 12, 0.75), stock="sheet", edging=Edging(t(0.25), 2, 1)), (19.75, 11.5, 0.75)),
    ],
)
def test_rough_sizes_by_hand(part: Part, rough: tuple[float, float, float]) -> None:
    shop = Shop(allowance=Allowance(t(0.5), t(0.125), t(1 / 32), t(0.25)))
    assert rough_size(part, shop) == tuple(t(r) for r in rough)
