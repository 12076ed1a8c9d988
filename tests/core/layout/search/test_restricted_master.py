"""The pool of fills: the best choice of one for each board, and what is in it twice taken out."""

import pytest

from vividplank.core.layout.model.pattern import Fill, FilledBlank, FilledSegment, FilledStrip
from vividplank.core.layout.search.portfolio import Span
from vividplank.core.layout.search.restricted_master import Pool, without_surplus


def a_fill(*wants: int, width: int = 10) -> Fill:
    """One strip with a blank for each want."""
    blanks = tuple(FilledBlank(100 * k, 100 * k + 90, ((want,),)) for k, want in enumerate(wants))
    taken: dict[int, int] = {}
    for want in wants:
        taken[want] = taken.get(want, 0) + 1
    return Fill(
        (FilledSegment(0, 1000, 0, 0.0, (FilledStrip(0, width, blanks),)),),
        tuple(sorted(taken.items())),
    )


def test_the_cheapest_cover_is_chosen() -> None:
    # Board 0 for 10 gives both wants; boards 1 and 2 give one each for 4 and 5.
    pool = Pool([10, 4, 5], [1, 1], [100, 100])
    pool.add(0, a_fill(0, 1))
    pool.add(1, a_fill(0))
    pool.add(2, a_fill(1))
    assert sorted(pool.choose(5) or {}) == [1, 2]


def test_a_board_is_cut_one_way_only() -> None:
    pool = Pool([1, 50], [1, 1], [100, 100])
    pool.add(0, a_fill(0))
    pool.add(0, a_fill(1))
    pool.add(1, a_fill(1))
    chosen = pool.choose(5)
    assert chosen and sorted(chosen) == [0, 1]
    assert chosen[0].taken == ((0, 1),)


def test_what_costs_more_than_leaving_it_out_is_left_out() -> None:
    pool = Pool([50], [1], [20])
    pool.add(0, a_fill(0))
    assert pool.choose(5) == {}


def test_an_empty_pool_chooses_nothing_and_prices_nothing() -> None:
    pool = Pool([1], [1], [1])
    assert pool.choose(1) is None and pool.worth() is None
    pool.add(0, Fill((), ()))
    assert pool.columns == {}


def test_the_hard_want_is_worth_more_at_the_margin() -> None:
    # Want 0 comes only off boards of 30, want 1 off boards of 3, and of either there is one to
    # spare.
    pool = Pool([30, 30, 3, 3], [1, 1], [100, 100])
    for board, want in ((0, 0), (1, 0), (2, 1), (3, 1)):
        pool.add(board, a_fill(want))
    assert pool.worth() == pytest.approx([30, 3], rel=1e-4)


def test_it_forgets_the_oldest_when_it_is_full(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("vividplank.core.layout.search.restricted_master._MOST", 2)
    pool = Pool([1, 1, 1], [1, 1, 1], [9, 9, 9])
    for k in range(3):
        pool.add(k, a_fill(k))
    assert [board for board, _ in pool.columns] == [1, 2]


def test_surplus_is_taken_out_with_the_blanks_it_leaves_empty() -> None:
    surplus = [1, 0]
    lean = without_surplus(a_fill(0, 1, 0), surplus, [False, False], 0)
    assert lean.taken == ((0, 1), (1, 1)) and surplus == [0, 0]
    assert len(lean.segments[0].strips[0].blanks) == 2


def test_a_stave_goes_only_where_the_panel_keeps_enough() -> None:
    fill = Fill(a_fill(0, 0, width=10).segments, ((0, 20),))
    assert without_surplus(fill, [9], [True], 0).taken == ((0, 20),)
    assert without_surplus(fill, [10], [True], 0).taken == ((0, 10),)
    assert without_surplus(fill, [9], [True], 1).taken == (
        (0, 9),
    )  # net of the width allowance: 9 and 9


def test_nothing_is_left_of_a_fill_that_is_all_surplus() -> None:
    assert without_surplus(a_fill(0), [1], [False], 0) == Fill((), ())


def test_with_a_penalty_of_its_own_only_thrifty_fills_are_taken() -> None:
    # Both wants for 12; what they are worth by this penalty is 10: too dear. One for 4 against 5 is
    # thrifty.
    pool = Pool([12, 4], [1, 1], [100, 100])
    pool.add(0, a_fill(0, 1))
    pool.add(1, a_fill(0))
    assert sorted(pool.choose(5, [5, 5]) or {}) == [1]
    assert sorted(pool.choose(5) or {}) == [0]
    assert pool.choose(5, [1, 1]) is None


def test_of_fills_that_give_the_same_the_more_pleasing_is_kept_and_of_equal_cost_chosen() -> None:
    pool = Pool([10, 10], [1], [99], lambda board, fill: 0.001 * fill.segments[0].x0)
    later, sooner = (
        a_fill(0)._replace(segments=(a_fill(0).segments[0]._replace(x0=x),)) for x in (2, 1)
    )
    for board, fill in ((0, sooner), (1, sooner), (1, later), (1, sooner)):
        pool.add(board, fill)
    assert pool.choose(5) == {1: later}
    assert (pool.as_pleasing(1, sooner), pool.as_pleasing(0, later)) == (later, later)


def test_what_a_unit_of_worth_costs_on_every_board() -> None:
    # 12 for two of 3 and 4 is 12/7, 12 for the 3 alone is more; 4 for one of 3 is 4/3.
    pool = Pool([12, 4, 0], [1, 1], [9, 9])
    assert pool.cheapest([3, 4]) == []
    pool.add(0, a_fill(0, 1))
    pool.add(0, a_fill(0))
    assert pool.cheapest([3, 4]) == pytest.approx([12 / 7])
    pool.add(1, a_fill(0))
    assert pool.cheapest([3, 4]) == pytest.approx([4 / 3, 12 / 7])
    pool.add(2, a_fill(0, 1))  # owned already: no price to compare
    assert len(pool.cheapest([3, 4])) == 2


def test_what_is_new_is_told_once_and_what_others_found_is_kept_and_not_told_back() -> None:
    pool = Pool([1, 1], [1, 1], [9, 9])
    pool.add(0, a_fill(0))
    told: list[list[tuple[int, Fill]]] = []

    def share(new: list[tuple[int, Fill]], known: Span) -> tuple[list[tuple[int, Fill]], Span]:
        told.append(new)
        return [(1, a_fill(1))], known & Span(6.0, 9.0)

    assert pool.share(share, Span(5.0, 8.0)) == Span(6.0, 8.0)
    assert pool.share(share, Span(7.0)) == Span(7.0, 9.0)
    assert [[b for b, _ in new] for new in told] == [[0], []]
    assert sorted(pool.choose(5) or {}) == [0, 1]
    pool.add(1, a_fill(1))  # known already
    assert pool.fresh == []
