"""Buying at several places, with one change of the list, and what a cart covers."""

import time
from dataclasses import replace
from decimal import Decimal
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.buying.test_chance import ALIKE, RAILS
from tests.making import BARE, a_board, a_part, t
from tests.profiles import examples
from vividplank.core.buying.chance.cart import cart_chance
from vividplank.core.buying.chance.first_look import first_look
from vividplank.core.buying.chance.mixture import Place, mixture
from vividplank.core.buying.chance.purchase import Bought, Purchase, purchase
from vividplank.core.buying.chance.sample import Picked, Taken
from vividplank.core.buying.chance.variation import Variation, moved, variations, varied
from vividplank.core.buying.groups import groups
from vividplank.core.buying.market.supplier import Supplier, usual_suppliers
from vividplank.core.cutlist import Panel
from vividplank.core.job import Job

WOODS = ("ash", "oak", "elm")
KEYS = tuple(f"{wood} 4/4" for wood in WOODS)
THREE = Job("", BARE, tuple(a_part(wood, species=wood) for wood in WOODS), ())


def bought(key: str, cost: float, feet: float = 10.0, left: tuple[str, ...] = ()) -> Bought:
    picked = Picked(24, 2, feet, cost, left, (), (1.0,), {"planer": 60.0})
    return Bought(key, Taken(3, feet - 3, feet), picked)


def place(id: str, trip: float, costs: dict[str, float], **left: tuple[str, ...]) -> Place:
    found = tuple(
        Purchase(n, tuple(bought(k, c, left=left.get(k.split()[0], ())) for k, c in costs.items()))
        for n in range(3)
    )
    return Place(Supplier(id, id, "yard", trip=Decimal(trip)), "", False, found)


def test_each_wood_is_bought_where_it_is_cheapest_if_that_pays_for_the_trips() -> None:
    here = place("here", 10, dict(zip(KEYS, (50, 90, 40), strict=True)))
    there = place("there", 15, dict(zip(KEYS, (70, 50, 60), strict=True)))
    found = mixture(THREE, [here, there], 0)
    # All here 10 + 180 = 190, all there 15 + 180 = 195; oak there and the rest here 25 + 140.
    assert found and found.money == 165 and found.hours == pytest.approx(3)
    assert {s.supplier: s.groups for s in found.shares} == {
        "here": ("ash 4/4", "elm 4/4"),
        "there": ("oak 4/4",),
    }
    # A trip there for 55 more than oak saves: one place alone is the cheapest.
    assert (
        mixture(
            THREE, [here, replace(there, supplier=replace(there.supplier, trip=Decimal(51)))], 0
        )
        is None
    )


def test_what_one_place_does_not_give_is_bought_at_the_other() -> None:
    here = place("here", 10, {KEYS[0]: 50, KEYS[1]: 20, KEYS[2]: 40}, oak=("oak",))
    there = place("there", 15, {KEYS[1]: 90})
    found = mixture(THREE, [here, there], 0)
    assert found and found.money == 10 + 15 + 50 + 90 + 40 and found.risk == 0
    assert mixture(THREE, [here], 0) is None and mixture(THREE, [], 0) is None


@given(
    st.lists(st.lists(st.integers(1, 60), min_size=3, max_size=3), min_size=2, max_size=3),
    st.lists(st.integers(0, 40), min_size=3, max_size=3),
)
@examples(60)
def test_no_other_choice_of_places_is_cheaper(costs: list[list[int]], trips: list[int]) -> None:
    places = [
        place(str(n), trips[n], dict(zip(KEYS, row, strict=True))) for n, row in enumerate(costs)
    ]
    best = min(
        sum(costs[n][k] for k, n in enumerate(way)) + sum(trips[n] for n in set(way))
        for way in product(range(len(costs)), repeat=3)
    )
    found = mixture(THREE, places, 0)
    alone = min(sum(row) + trips[n] for n, row in enumerate(costs))
    assert (found.money if found else alone) == pytest.approx(best)


def test_what_is_worth_asking_of_a_list() -> None:
    yard = usual_suppliers()[1]
    panel = a_part("P", 1, 30, 14, panel=(2, 5), species="ash")
    hidden = a_part("S", 2, 40, 2, faces="sound", species="ash")
    short = a_part("T", 2, 12, 2, faces="sound", species="ash")
    job = Job("", BARE, (panel, hidden, short), ())
    assert variations(job, yard, "No. 1 Common") == (
        Variation("grade", grade="FAS"),
        Variation("stave", "P", t(6)),
        Variation("joined", "S", t(20.25)),
    )
    assert [w.kind for w in variations(job, yard, "FAS")] == ["stave", "joined"]
    assert variations(replace(job, parts=(short,)), usual_suppliers()[0], "") == ()
    wider, joined = (varied(job, w) for w in variations(job, yard, "FAS"))
    assert wider.part("P").panel == Panel(t(2), t(6)) and wider.part("S") == hidden
    # Two pieces of 20 1/4: half an inch goes into the joint.
    assert (joined.part("S").quantity, joined.part("S").length) == (4, t(20.25))


def test_a_change_is_measured_over_the_same_wood() -> None:
    def trips(*feet: float) -> list[Purchase]:
        return [Purchase(n, (bought("oak 4/4", 8 * f, f),)) for n, f in enumerate(feet)]

    found = moved(trips(20, 30, 25), trips(18, 28, 23))
    assert found and found.trips == 3
    # Two board feet less in every trip, however much these differ.
    assert (found.come.value, found.come.error) == (-2, 0)
    assert found.money.value == -16
    assert moved(trips(20), trips(18)) is None
    lacking = [replace(p, lacking=("ash 4/4",)) for p in trips(18, 28)]
    assert moved(trips(20, 30), lacking) is None


def test_shorter_pieces_take_less_of_short_boards() -> None:
    """Of boards 5 feet long a part of 37 leaves 23 of each; three of 18 3/4 take it all."""
    job = Job("", BARE, (a_part("S", 8, 37, 2.75, 0.5, faces="sound", species="oak"),), ())
    short = usual_suppliers()[0]
    (variation,) = variations(job, short, "")
    price = replace(
        short.prices[0], species="oak", length=ALIKE.length, width=ALIKE.width, thickness=t(1)
    )
    short = replace(short, prices=(price,), straightness="straight")
    both = []
    for one in (job, varied(job, variation)):
        made = [purchase(one, short, n, time.monotonic, {}) for n in range(4)]
        both.append([p for p in made if p])
    found = moved(*both)
    assert found and found.come.value < 0 and found.money.value < 0


def test_a_cart_covers_its_list_as_often_as_nobody_missed_a_fault() -> None:
    tight = a_part("R", 8, 29.75, 2.875, 0.5, faces="sound")
    (group,) = groups(Job("", BARE, (tight,), ()))
    two = [replace(a_board(f"C{n}", 60, 6), species="oak", quarter="4/4") for n in range(2)]
    sure = cart_chance([(group, ALIKE, two)], 12, time.monotonic)
    # Twelve of twelve: (12 + 1/2) / 13.
    assert sure and sure.samples == 12 and sure.more == 0
    assert sure.chance == pytest.approx(12.5 / 13)
    # Two boards give just the eight rails: a fault in either of them leaves a rail short. Half of
    # the boards have one: a quarter of the carts have none.
    faulty = cart_chance([(group, replace(ALIKE, hidden=0.5), two)], 40, time.monotonic)
    assert faulty and abs(faulty.chance - 0.25) < 2 * faulty.error < 0.4 and faulty.more >= 1
    one = cart_chance([(group, ALIKE, two[:1])], 5, time.monotonic)
    assert one and one.chance < 0.1 and one.more >= 1
    assert cart_chance([(group, ALIKE, two)], 5, time.monotonic, go_on=lambda: False) is None


def test_a_first_look_says_about_what_a_trip_takes() -> None:
    """Boards that are nearly alike give four rails each, or two where a knot or wane is: eight
    rails take two boards of 2.5 board feet and seldom more than four.
    """
    alike = replace(
        usual_suppliers()[0].prices[0],
        species="oak",
        length=ALIKE.length,
        width=ALIKE.width,
        surfacing="S2S",
        thickness=ALIKE.thickness,
        hidden=0.0,
        asks=Decimal(4),
    )
    at = replace(usual_suppliers()[0], prices=(alike,), straightness="straight")
    (found,) = first_look(RAILS, at, 0.9, time.monotonic, 5.0)
    assert found.key == "oak 4/4" and found.trips == 6 and found.amount
    assert 2.5 <= found.amount.value <= 12.5 and 4 * 5 <= found.cost <= 4 * 10
    # No time for a trip: by the rough blanks, 8 x 28 x 2.75 in of 4/4 filling 0.6 of the boards.
    (found,) = first_look(RAILS, at, 0.9, time.monotonic, 0.0)
    assert found.trips == 0 and found.cost == pytest.approx(4 * 8 * 28 * 2.75 / 144 / 0.6, rel=0.1)
    long = replace(RAILS, parts=(a_part("R", 1, 70, 2, 0.5),))
    (found,) = first_look(long, at, 0.9, time.monotonic, 5.0)
    assert found.amount is None
    assert (
        first_look(replace(RAILS, parts=(a_part("T", species="teak"),)), at, 0.9, time.monotonic, 1)
        == ()
    )
