"""What an item type is worth at the start: by hand, and that boards without waste all give the
same.
"""

import pytest

from bench.planted import FAMILIES, Family, planted
from tests.making import BARE, a_board, a_part
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import ItemType, item_types
from vividplank.core.layout.search.profits import area_taken, rarity, scarcity
from vividplank.core.measure import TICKS_PER_INCH as INCH


def the_want(*args: object, **more: object) -> ItemType:
    return item_types(Job("", BARE, (a_part("A", *args, **more),), ()))[0]  # type: ignore[arg-type]


def test_the_room_a_part_takes_is_its_own_with_a_kerf_along_and_across() -> None:
    item_type = the_want(1, 20, 3)
    along, across = 20 * INCH + BARE.kerf.crosscut, 3 * INCH + BARE.allowance.width + BARE.kerf.rip
    assert area_taken(item_type, [a_board()], BARE) == pytest.approx(
        along * across * INCH / item_type.volume
    )


def test_a_board_that_can_be_resawn_gives_a_thin_part_for_half_the_room() -> None:
    item_type = the_want(1, 20, 3, 0.25)
    whole, half = (
        area_taken(item_type, [a_board(thick=0.5)], BARE),
        area_taken(item_type, [a_board(thick=0.75)], BARE),
    )
    assert half == pytest.approx(whole / 2)


def test_what_few_boards_can_give_is_worth_more() -> None:
    one, other = a_board("A", length=60, width=6), a_board("B", length=20, width=6)
    assert scarcity([one, other], [one, other]) == 1.0
    assert scarcity([other], [one, other]) == pytest.approx(
        1.075
    )  # a quarter of the room can give it
    assert scarcity([], [one, other]) == pytest.approx(1.1)


def test_what_one_board_alone_can_give_is_worth_nearly_twice_as_much() -> None:
    assert rarity(8, 8) == rarity(1, 1) == rarity(0, 8) == 1.0
    assert rarity(1, 8) == 1.875 and rarity(2, 8) == 1.375


@pytest.mark.parametrize("family", FAMILIES)
def test_planted_boards_give_as_much_for_their_price_as_one_another(family: Family) -> None:
    made = planted(family, 4, 1)
    by_name = {w.name: w for w in item_types(made.job)}
    price = {b.id: float(b.price) for b in made.job.boards}
    given = []
    for board in made.plan.boards:
        parts = [by_name[i.part] for s in board.segments for _, k in s.blanks() for i in k.items()]
        given.append(
            sum(area_taken(w, [], made.job.shop) * w.volume for w in parts) / price[board.board]
        )
    assert max(given) == pytest.approx(min(given))
