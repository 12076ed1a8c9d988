"""Boards to try a list with."""

import itertools
import time
from dataclasses import replace

from tests.making import BARE, a_board, a_part
from vividplank.core.buying.chance.sample import missing
from vividplank.core.buying.chance.to_try import boards_to_try, lacking
from vividplank.core.buying.market.supplier import usual_suppliers
from vividplank.core.job import Job

LIST = Job(
    "",
    BARE,
    (a_part("A", 4, 20, 3, species="white oak"), a_part("B", 2, 14, 2, 1.5, species="ash")),
    (),
)


def test_they_cover_the_list_and_cost_what_the_supplier_asks() -> None:
    found = boards_to_try(LIST, usual_suppliers(), time.monotonic, 60)
    assert [b.id for b in found] == [f"T{n}" for n in range(1, len(found) + 1)]
    assert {b.species for b in found} == {"white oak", "ash"}
    assert all(b.price > 0 for b in found) and len({b.supplier for b in found}) == 1
    assert missing(LIST, found, time.monotonic) == 0
    assert boards_to_try(LIST, usual_suppliers(), time.monotonic, 60) == found


def test_no_mark_is_given_twice() -> None:
    mine = replace(LIST, boards=(a_board("T2"),))
    found = boards_to_try(mine, usual_suppliers(), time.monotonic, 60)
    assert [b.id for b in found][:2] == ["T1", "T3"]


def test_where_the_time_is_over_there_are_boards_all_the_same() -> None:
    hours = itertools.count(step=3600)
    found = boards_to_try(LIST, usual_suppliers(), lambda: float(next(hours)), 1)
    assert {b.species for b in found} == {"white oak", "ash"}


def test_what_nobody_sells_has_none() -> None:
    wished = Job("", BARE, (a_part("A", species="moon oak"),), ())
    assert all(lacking(wished, s) for s in usual_suppliers())
    assert boards_to_try(wished, usual_suppliers(), time.monotonic, 1) == ()
    assert boards_to_try(LIST, (), time.monotonic, 1) == ()
