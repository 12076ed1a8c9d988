"""The pool of patterns: the best choice of one for each board, and what is in it twice taken
out.
"""

import pytest

from vividplank.core.layout.model.pattern import (
    CuttingPattern,
    PatternBlank,
    PatternSegment,
    PatternStrip,
)
from vividplank.core.layout.search.portfolio import CostBounds
from vividplank.core.layout.search.restricted_master import RestrictedMaster, without_surplus


def a_fill(*item_types: int, width: int = 10) -> CuttingPattern:
    """One strip with a blank for each item type."""
    blanks = tuple(
        PatternBlank(100 * k, 100 * k + 90, ((item_type,),))
        for k, item_type in enumerate(item_types)
    )
    taken: dict[int, int] = {}
    for item_type in item_types:
        taken[item_type] = taken.get(item_type, 0) + 1
    return CuttingPattern(
        (PatternSegment(0, 1000, 0, 0.0, (PatternStrip(0, width, blanks),)),),
        tuple(sorted(taken.items())),
    )


def test_the_cheapest_cover_is_chosen() -> None:
    # Board 0 for 10 gives both item types; boards 1 and 2 give one each for 4 and 5.
    master = RestrictedMaster([10, 4, 5], [1, 1], [100, 100])
    master.add(0, a_fill(0, 1))
    master.add(1, a_fill(0))
    master.add(2, a_fill(1))
    assert sorted(master.solve(5) or {}) == [1, 2]


def test_a_board_is_cut_one_way_only() -> None:
    master = RestrictedMaster([1, 50], [1, 1], [100, 100])
    master.add(0, a_fill(0))
    master.add(0, a_fill(1))
    master.add(1, a_fill(1))
    chosen = master.solve(5)
    assert chosen and sorted(chosen) == [0, 1]
    assert chosen[0].taken == ((0, 1),)


def test_what_costs_more_than_leaving_it_out_is_left_out() -> None:
    master = RestrictedMaster([50], [1], [20])
    master.add(0, a_fill(0))
    assert master.solve(5) == {}


def test_an_empty_pool_chooses_nothing_and_prices_nothing() -> None:
    master = RestrictedMaster([1], [1], [1])
    assert master.solve(1) is None and master.dual_prices() is None
    master.add(0, CuttingPattern((), ()))
    assert master.columns == {}


def test_the_hard_want_is_worth_more_at_the_margin() -> None:
    # Want 0 comes only off boards of 30, want 1 off boards of 3, and of either there is one to
    # spare.
    master = RestrictedMaster([30, 30, 3, 3], [1, 1], [100, 100])
    for board, item_type in ((0, 0), (1, 0), (2, 1), (3, 1)):
        master.add(board, a_fill(item_type))
    assert master.dual_prices() == pytest.approx([30, 3], rel=1e-4)


def test_it_forgets_the_oldest_when_it_is_full(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vividplank.core.layout.search.restricted_master._MOST", 2)
    master = RestrictedMaster([1, 1, 1], [1, 1, 1], [9, 9, 9])
    for k in range(3):
        master.add(k, a_fill(k))
    assert [board for board, _ in master.columns] == [1, 2]


def test_surplus_is_taken_out_with_the_blanks_it_leaves_empty() -> None:
    surplus = [1, 0]
    lean = without_surplus(a_fill(0, 1, 0), surplus, [False, False], 0)
    assert lean.taken == ((0, 1), (1, 1)) and surplus == [0, 0]
    assert len(lean.segments[0].strips[0].blanks) == 2


def test_a_stave_goes_only_where_the_panel_keeps_enough() -> None:
    pattern = CuttingPattern(a_fill(0, 0, width=10).segments, ((0, 20),))
    assert without_surplus(pattern, [9], [True], 0).taken == ((0, 20),)
    assert without_surplus(pattern, [10], [True], 0).taken == ((0, 10),)
    assert without_surplus(pattern, [9], [True], 1).taken == (
        (0, 9),
    )  # net of the width allowance: 9 and 9


def test_nothing_is_left_of_a_fill_that_is_all_surplus() -> None:
    assert without_surplus(a_fill(0), [1], [False], 0) == CuttingPattern((), ())


def test_with_a_penalty_of_its_own_only_thrifty_fills_are_taken() -> None:
    # Both item types for 12; what they are worth by this penalty is 10: too dear. One for 4 against
    # 5 is thrifty.
    master = RestrictedMaster([12, 4], [1, 1], [100, 100])
    master.add(0, a_fill(0, 1))
    master.add(1, a_fill(0))
    assert sorted(master.solve(5, [5, 5]) or {}) == [1]
    assert sorted(master.solve(5) or {}) == [0]
    assert master.solve(5, [1, 1]) is None


def test_of_fills_that_give_the_same_the_more_pleasing_is_kept_and_of_equal_cost_chosen() -> None:
    master = RestrictedMaster(
        [10, 10], [1], [99], lambda board, pattern: 0.001 * pattern.segments[0].x0
    )
    later, sooner = (
        a_fill(0)._replace(segments=(a_fill(0).segments[0]._replace(x0=x),)) for x in (2, 1)
    )
    for board, pattern in ((0, sooner), (1, sooner), (1, later), (1, sooner)):
        master.add(board, pattern)
    assert master.solve(5) == {1: later}
    assert (master.with_bonus(1, sooner), master.with_bonus(0, later)) == (later, later)


def test_what_a_unit_of_worth_costs_on_every_board() -> None:
    # 12 for two of 3 and 4 is 12/7, 12 for the 3 alone is more; 4 for one of 3 is 4/3.
    master = RestrictedMaster([12, 4, 0], [1, 1], [9, 9])
    assert master.cheapest([3, 4]) == []
    master.add(0, a_fill(0, 1))
    master.add(0, a_fill(0))
    assert master.cheapest([3, 4]) == pytest.approx([12 / 7])
    master.add(1, a_fill(0))
    assert master.cheapest([3, 4]) == pytest.approx([4 / 3, 12 / 7])
    master.add(2, a_fill(0, 1))  # owned already: no price to compare
    assert len(master.cheapest([3, 4])) == 2


def test_what_is_new_is_told_once_and_what_others_found_is_kept_and_not_told_back() -> None:
    master = RestrictedMaster([1, 1], [1, 1], [9, 9])
    master.add(0, a_fill(0))
    told: list[list[tuple[int, CuttingPattern]]] = []

    def share(
        new: list[tuple[int, CuttingPattern]], known: CostBounds
    ) -> tuple[list[tuple[int, CuttingPattern]], CostBounds]:
        told.append(new)
        return [(1, a_fill(1))], known & CostBounds(6.0, 9.0)

    assert master.exchange(share, CostBounds(5.0, 8.0)) == CostBounds(6.0, 8.0)
    assert master.exchange(share, CostBounds(7.0)) == CostBounds(7.0, 9.0)
    assert [[b for b, _ in new] for new in told] == [[0], []]
    assert sorted(master.solve(5) or {}) == [0, 1]
    master.add(1, a_fill(1))  # known already
    assert master.fresh == []
