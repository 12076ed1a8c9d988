"""Simulated purchases and what they say: by hand, and against the engine itself."""

import math
import time
from dataclasses import replace
from decimal import Decimal
from random import Random

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import BARE, a_board, a_part, t
from tests.profiles import examples
from vividplank.core.board import Defect, Warp
from vividplank.core.buying.aisle import Aisle, Looked
from vividplank.core.buying.chance.estimate import Estimate, curve, each_of
from vividplank.core.buying.chance.purchase import Bought, Purchase, groups_at, purchase
from vividplank.core.buying.chance.sample import Given, Picked, Taken, as_they_come, missing
from vividplank.core.buying.chance.values import part_values
from vividplank.core.buying.chance.verdict import TROUBLES
from vividplank.core.buying.chance.ways import recommended, supplier_way
from vividplank.core.buying.chance.worth import Judge, patterns_from_rows, patterns_to_rows
from vividplank.core.buying.market.population import Population, Range
from vividplank.core.buying.market.supplier import Supplier, usual_suppliers
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.search.restricted_master import RestrictedMaster
from vividplank.core.shop import Shop

#: Boards that are all alike: flat, clear, 60 x 6.
ALIKE = Population(
    "oak",
    "4/4",
    "FAS",
    Range(t(60), t(60), t(60)),
    Range(t(6), t(6), t(6)),
    t(13 / 16),
    taper=0,
    straightness="straight",
    dressed=("A", "B"),
    end_checks=0,
    hidden=0,
)
RAILS = Job("", BARE, (a_part("R", 8, 28, 2.75, 0.5, faces="sound"),), ())


def test_purchases_by_hand_of_boards_that_are_all_alike() -> None:
    # A board gives two rails across its width and two along it: eight rails are two boards, and a
    # few more where a board has a knot or wane.
    counts = []
    for seed in range(12):
        taken = as_they_come(RAILS, (), ALIKE, Random(seed), 5, time.monotonic)
        assert taken and taken.whole
        assert taken.feet == pytest.approx(2.5 * taken.boards)
        assert taken.before == pytest.approx(taken.feet - 2.5)
        counts.append(taken.boards)
    assert min(counts) == 2 and sorted(counts)[6] <= 3


def test_what_is_at_hand_is_not_bought() -> None:
    boards = [replace(a_board(f"H{n}", 60, 6), species="oak") for n in range(2)]
    taken = as_they_come(RAILS, boards, ALIKE, Random(1), 3, time.monotonic)
    assert taken and taken.boards == 0 and taken.feet == 0


def test_stock_that_lies_flat_is_used_as_thick_as_it_is() -> None:
    # Parts of 13/16 with 1/32 for facing, out of flat boards planed to just 13/16.
    shop = replace(BARE, allowance=replace(BARE.allowance, face=t(1 / 32)))
    job = Job("", shop, (a_part("R", 1, 28, 2.5, 13 / 16, faces="sound"),), ())
    flat = replace(a_board("H", 60, 6, 13 / 16), dressed=("A", "B"))
    taken = as_they_come(job, [flat], ALIKE, Random(1), 0, time.monotonic)
    assert taken and (taken.boards, taken.whole) == (0, True)
    rough = replace(flat, dressed=())
    taken = as_they_come(job, [rough], ALIKE, Random(4), 0, time.monotonic)
    assert taken and taken.boards > 0


def test_before_a_board_is_bought_for_one_piece_it_is_searched_for_longer() -> None:
    """With the search of every trip a fifth board is needed for the last of four wide panels; three
    times as long finds room for it in four.
    """
    panel = a_part("P", 4, 34, 16, species="elm", panel=(3, 8))
    rail = a_part("R", 10, 26, 3, species="elm")
    lengths, widths = Range(t(72), t(100), t(140)), Range(t(5), t(8), t(14))
    wild = Population(
        "elm", "4/4", "FAS", lengths, widths, t(1.05), straightness="wild", hidden=0.15
    )
    job = Job("panels", Shop(), (panel, rail), ())
    taken = as_they_come(job, (), wild, Random("few 34"), 5, time.monotonic)
    assert taken and taken.boards == 4


def test_a_part_that_no_board_gives_is_given_up() -> None:
    long = replace(RAILS, parts=(a_part("R", 1, 70, 2, 0.5),))
    taken = as_they_come(long, (), ALIKE, Random(1), 2, time.monotonic)
    assert taken and not taken.whole
    assert missing(long, [a_board(length=60)], time.monotonic) == 1


@given(
    st.lists(st.floats(1, 500), min_size=1, max_size=40),
    st.floats(0.5, 20),
    st.floats(0.05, 0.95),
)
@examples(200)
def test_an_amount_has_the_chance_it_is_said_to_have(
    amounts: list[float], start: float, chance: float
) -> None:
    estimate = Estimate(tuple(amounts), start)
    amount = estimate.amount(chance)
    # Of equal amounts all have the chance of the last: never less than what was asked.
    assert estimate.chance(amount.value) >= chance - 1e-6
    if amount.value > 0 and len(set(amounts)) == len(amounts):
        assert estimate.chance(amount.value) == pytest.approx(chance, abs=1e-6)
    assert estimate.amount(0.97).value >= amount.value - 1e-9
    chances = [c for _, c in curve(estimate)]
    assert chances == sorted(chances)


def test_the_amount_holds_its_promise_where_the_spread_is_known() -> None:
    # Logarithms drawn from a normal population that is not the prior's: of amounts said to cover
    # with nine chances of ten, from ten purchases each, about nine of ten must.
    rng = Random(5)
    hits = 0
    for _ in range(600):
        drawn = [math.exp(rng.gauss(3, 0.3)) for _ in range(11)]
        hits += drawn[0] <= Estimate(tuple(drawn[1:]), 1e-6).amount(0.9).value
    assert 0.86 < hits / 600 < 0.95


def test_all_groups_together_have_the_chance_that_was_asked() -> None:
    assert each_of(0.9, 3) ** 3 == pytest.approx(0.9)


def picks(*given: Given, cost: float) -> Picked:
    return Picked(10, len(given), 10.0, cost, (), given, (1.0, 1.0), {})


def test_values_share_out_what_boards_cost() -> None:
    types = item_types(replace(RAILS, parts=(a_part("A", 4, 20, 3), a_part("B", 2, 20, 3))))
    # A board of 30 gave two A and one B, and one of 30 the same: by area 10 each, less the half of
    # the last board that is left over.
    board = Given(30.0, ((0, 2), (1, 1)))
    values = part_values(types, [picks(board, board, cost=60.0)])
    assert values.cost == 60 and values.last == 15
    assert values.units[0] == pytest.approx(values.units[1], rel=0.15)
    assert sum(v * n for v, n in zip(values.units, (4, 2), strict=True)) == pytest.approx(45)
    # To come again costs 15: a third more for each, since any of them missing brings it.
    again = part_values(types, [picks(board, board, cost=60.0)], 15.0)
    assert again.cost == 75 and again.last == 15
    assert again.units == pytest.approx([v * 60 / 45 for v in values.units])
    # What was the same in all boards is known well; no board ever gave an A alone, so that what one
    # counts by itself is less sure than both together.
    both, alone = values.deviation((2, 1)), values.deviation((4, 0))
    assert both and alone and both < alone
    # Boards that gave a B cost twice as much: B is the dearer.
    dear = (Given(40.0, ((1, 1),)), Given(20.0, ((0, 2),))) * 2
    values = part_values(types, [picks(*dear, cost=120.0)] * 6)
    assert values.units[1] > 1.5 * values.units[0]


HERE = Supplier("here", "Here", "yard", prices=usual_suppliers()[1].prices)


def an_aisle(job: Job) -> Aisle:
    return Aisle(job, HERE, ())


def oak(board_: object = None, **kept: object) -> Job:
    return Job("", BARE, (a_part("R", 4, 40, 5, 0.7, species="white oak"),), ())


def look(aisle: Aisle, cart: list[Looked], **more: object):  # type: ignore[no-untyped-def]
    board = replace(a_board("Y1", 90, 5.5, species="white oak"), quarter="4/4", **more)
    patterns, verdict = aisle.look(board, cart)
    assert verdict
    return Looked(board, patterns), verdict


def test_a_board_is_worth_what_it_gives_of_the_list() -> None:
    aisle = an_aisle(oak())
    one, first = look(aisle, [])
    # 90 in give two rails of 40: half the list, so half of what the list is thought to cost.
    assert first.gives == (("R", 2),)
    assert first.worth == pytest.approx(aisle.judges["white oak 4/4"].cost / 2)
    two = replace(one, board=replace(one.board, id="Y2"))
    _, third = look(aisle, [two, replace(one, board=replace(one.board, id="Y3"))])
    assert third.word == "not-wanted" and third.reason == "covered"
    (standing,) = aisle.standing([two])
    assert (standing.pieces, standing.remaining, standing.missing) == (4, 2, (("R", 2),))


def test_a_choice_stopped_short_by_the_clock_takes_no_worth_away(
    monkeypatch: pytest.MonkeyPatch,
) -> None:
    """The choice with the board is not found in time: it is still worth what it gives beside the
    cart as that was cut before.
    """
    (judge,) = an_aisle(oak()).judges.values()
    board = replace(a_board("B", 90, 5.5, species="white oak"), quarter="4/4")
    before = judge.cart([])
    patterns = judge.patterns(board, before.remaining)
    whole = judge.worth([], "B", patterns, before)
    monkeypatch.setattr(RestrictedMaster, "solve", lambda *a: None)
    found = judge.worth([], "B", patterns, before)
    assert found.value == whole.value > 0 and found.pattern is not None


def test_what_is_worth_less_than_it_costs_is_left() -> None:
    aisle = an_aisle(oak())
    _, cheap = look(aisle, [], price=Decimal(10))
    _, dear = look(aisle, [], price=Decimal(90))
    assert (cheap.word, dear.word, dear.reason) == ("take", "leave", "dear")


def test_the_reason_is_what_costs_the_board_its_worth() -> None:
    aisle = an_aisle(oak())
    check = Defect("check", "both", 0, t(49), t(2), t(2.25))
    _, checked = look(aisle, [], defects=(check,))
    assert checked.reason == "faults" and checked.gives == (("R", 1),)
    assert checked.lost == pytest.approx(checked.worth) and checked.clear == t(41)
    _, twisted = look(aisle, [], warp=Warp(twist=t(1.8)))
    assert twisted.reason == "warp"
    _, small = look(aisle, [], length=t(30), stations=a_board(length=30).stations)
    assert (small.word, small.reason) == ("not-wanted", "size")


def test_wood_that_the_list_does_not_want_has_no_verdict() -> None:
    board = a_board(species="cherry")
    assert an_aisle(oak()).look(board, []) == ((), None)


def test_first_words_grow_with_the_board_and_fall_with_trouble() -> None:
    (words,) = an_aisle(oak()).words([])
    assert set(words.worths) == set(TROUBLES)
    plain = words.worths["none"]
    assert plain[0][0] == 0 and plain[-1][-1] == max(map(max, plain)) > 0
    for trouble in TROUBLES:
        assert all(
            w <= p + 1e-9
            for row, sound in zip(words.worths[trouble], plain, strict=True)
            for w, p in zip(row, sound, strict=True)
        )


def test_the_cheapest_boards_of_a_pile_are_found() -> None:
    # Two boards of 30 cover the list, a third of 45 does as well as one of them.
    pile = [
        replace(a_board(f"Y{n}", 90, 5.5, species="white oak", price=p), quarter="4/4")
        for n, p in enumerate(("30", "45", "30"))
    ]
    take, left, cost = an_aisle(oak()).cheapest(pile, [], time.monotonic, 2)
    assert (set(take), left, cost) == ({"Y0", "Y2"}, {}, 60)
    take, left, cost = an_aisle(oak()).cheapest(pile[1:], pile[:1], time.monotonic, 2)
    assert (take, left, cost) == (("Y2",), {}, 30)


def test_patterns_come_back_as_they_were_kept() -> None:
    one, _ = look(an_aisle(oak()), [])
    assert patterns_from_rows(patterns_to_rows(one.patterns)) == one.patterns


@given(st.integers(0, 10**6), st.integers(1, 4))
@examples(12)
def test_a_cart_is_worth_no_less_for_one_more_board(seed: int, many: int) -> None:
    rng = Random(seed)
    supplier = usual_suppliers()[0]
    job = Job(
        "", BARE, (a_part("R", 5, 30, 3, species="ash"), a_part("S", 4, 14, 2, species="ash")), ()
    )
    aisle = Aisle(job, supplier, ())
    (group,) = aisle.groups
    judge: Judge = aisle.judges[group.key]
    price = supplier.price("ash", "4/4")
    assert price
    pile = supplier.pile(price, many + 1, rng, "Y")
    cart = [(b.id, judge.patterns(b, judge.demand)) for b in pile]
    values = [judge.cart(cart[:n]).value for n in range(len(cart) + 1)]
    assert values == sorted(values) and values[-1] <= judge.cost + 1e-6


def test_skimmed_boards_are_bought_a_quarter_thicker_where_they_must_be_faced() -> None:
    # 13/16 wants 4/4 of a sawmill, 5/4 of a yard that skims to just that.
    job = Job(
        "",
        replace(BARE, allowance=replace(BARE.allowance, face=t(1 / 32))),
        (a_part("R", thickness=13 / 16, species="white oak"),),
        (),
    )
    mill, yard, _ = usual_suppliers()
    assert [g.quarter_name for g in groups_at(job, mill)] == ["4/4"]
    assert [g.quarter_name for g in groups_at(job, yard)] == ["5/4"]


def test_one_trip_buys_the_whole_list_and_says_what_is_not_sold() -> None:
    parts = (a_part("A", 2, 20, 3, species="ash"), a_part("B", 1, 20, 3, species="teak"))
    trip = purchase(Job("", BARE, parts, ()), usual_suppliers()[0], 3, time.monotonic, {})
    assert trip and trip.lacking == ("teak 4/4",)
    (ash,) = trip.bought
    assert ash.key == "ash 4/4" and not ash.picked.left_out and ash.taken.whole
    assert ash.picked.minutes["planer"] > 0


def trips(cost: float, minutes: float, left: tuple[str, ...] = ()) -> list[Purchase]:
    picked = Picked(24, 2, 12.0, cost, left, (Given(cost, ((0, 1),)),), (1.0,), {"planer": minutes})
    return [Purchase(n, (Bought("oak 4/4", Taken(3, 9.0, 15.0), picked),)) for n in range(6)]


def test_suppliers_are_compared_in_money_and_hours() -> None:
    near = replace(HERE, id="near", trip=Decimal(5), trip_hours=0.5, milling=Decimal(3))
    far = replace(HERE, id="far", trip=Decimal(20), trip_hours=2.0)
    dear = supplier_way(near, trips(100, 60), 4, 0.9)
    assert (dear.money, dear.hours) == (105, 1.5)
    cheap = supplier_way(far, trips(60, 240), 4, 0.9)
    assert (cheap.money, cheap.hours) == (80, 6)
    # Twelve board feet milled for 3 each: 36 more, and two minutes a piece.
    milled = supplier_way(near, trips(100, 60), 4, 0.9, milled=True)
    assert (milled.money, milled.milled) == (141, 36)
    assert milled.hours == pytest.approx(0.5 + 8 / 60)
    ways = [(dear, False), (cheap, False), (milled, True)]
    best = recommended(ways, 0)
    assert best and (best.supplier, best.saves, best.only) == ("far", 25, False)
    best = recommended(ways, 40)  # 105 + 60, 80 + 240, 141 + 25
    assert best and (best.supplier, best.milled, best.next) == ("near", False, "near")


def test_a_source_without_the_wood_is_not_recommended() -> None:
    short = supplier_way(HERE, trips(10, 10, ("R",)), 4, 0.9)
    assert short.cannot == ("R",) and short.risk == 1 and not short.possible
    assert recommended([(short, False)], 20) is None
    whole = supplier_way(replace(HERE, id="else"), trips(500, 10), 4, 0.9)
    best = recommended([(short, False), (whole, False)], 20)
    assert best and best.supplier == "else" and best.only
