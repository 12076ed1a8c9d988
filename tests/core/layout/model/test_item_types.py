"""What the search is given to place."""

import time
from dataclasses import replace

from tests.making import BARE, a_board, a_part, t
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.plan import Item
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.shop import Shop

SHOP = Shop()


def job_of(*parts):  # type: ignore[no-untyped-def]
    return Job("", BARE, parts, (a_board(),))


def test_equal_parts_are_one_want_with_a_count() -> None:
    (item_type,) = item_types(job_of(a_part("A", 3)))
    assert item_type.count == 3
    assert item_type.members == ((Item("A", 1),), (Item("A", 2),), (Item("A", 3),))
    assert not item_type.is_panel and not item_type.is_run and item_type.name == "A"


def test_a_run_is_one_lump_end_to_end_with_its_kerfs_and_its_strictest_faces() -> None:
    first = a_part("F", 2, 8, faces="sound", run="row")
    last = a_part("G", 1, 10, faces="clear-two", run="row")
    item_type, plain = item_types(job_of(first, a_part("A"), last))
    assert item_type.is_run and item_type.count == 1
    assert item_type.members == ((Item("F", 1), Item("F", 2), Item("G", 1)),)
    assert item_type.length == t(8 + 0.125 + 8 + 0.125 + 10)
    assert item_type.faces == "clear-two"
    assert item_type.volume == 2 * first.volume + last.volume
    assert plain.name == "A" and plain.index == 1


def test_every_panel_is_a_want_of_its_own_that_counts_net_width() -> None:
    from dataclasses import replace

    shop = replace(BARE, allowance=replace(BARE.allowance, panel_width=t(0.25)))
    job = Job("", shop, (a_part("P", 2, width=12, panel=(2, 5)),), (a_board(),))
    one, two = item_types(job)
    assert one.is_panel and one.width == t(12.25)
    assert (one.stave_min, one.stave_max) == (t(2), t(5))
    assert one.members == ((Item("P", 1),),) and two.members == ((Item("P", 2),),)


def thick_job(*parts: Part, thick: float = 2.05) -> Job:
    return Job("", SHOP, parts, (a_board("A", 60, 6, thick), a_board("B", 60, 6, 1.05)))


def test_two_doors_that_open_like_a_book_are_two_layers_of_one_blank() -> None:
    # 3/4 and 3/4 with 1/32 for each face and a kerf of 1/16: 1 5/8 of flat wood; an item type of
    # one layer asks for that less 1/32.
    left, right = (replace(a_part(id, 1, 29, 3), match="doors") for id in ("L", "R"))
    (pair,) = item_types(thick_job(left, right), wishes=True)
    assert pair.opened and pair.is_run and pair.members == ((Item("L", 1), Item("R", 1)),)
    assert pair.thickness + SHOP.allowance.face == t(1.625)
    assert pair.faces == "clear-two" and pair.volume == 2 * left.volume
    assert [w.count for w in item_types(thick_job(left, right))] == [
        1,
        1,
    ]  # the bound asks without wishes


def test_one_too_many_stays_alone_and_what_is_of_another_size_too() -> None:
    three = replace(a_part("P", 3, 29, 3, faces="sound"), resawn=True)
    pair, single = item_types(thick_job(three), wishes=True)
    assert pair.members == ((Item("P", 1), Item("P", 2)),) and pair.faces == "sound"
    assert single.members == ((Item("P", 3),),) and not single.opened
    unlike = [
        replace(a_part(id, 1, length, 3), match="doors") for id, length in (("L", 29), ("R", 28))
    ]
    assert not any(w.opened for w in item_types(thick_job(*unlike), wishes=True))


def test_where_no_board_is_thick_enough_or_one_lies_already_the_wish_is_let_go() -> None:
    doors = replace(a_part("D", 2, 29, 3), match="doors")
    assert not any(w.opened for w in item_types(thick_job(doors, thick=1.5), wishes=True))
    assert not any(
        w.opened for w in item_types(thick_job(doors), wishes=True, placed={Item("D", 2)})
    )


def test_a_plan_opens_doors_like_a_book_and_costs_what_that_costs() -> None:
    # The thin board is cheaper, but only the thick one gives both leaves out of one blank.
    doors = replace(a_part("D", 2, 25, 5.5), match="doors")
    thin, thick = a_board("B", 60, 6, 1.05, price="5"), a_board("A", 30, 6, 2.05, price="20")
    wished = Job("", BARE, (doors,), (thin, thick))
    plan = search(wished, Limits(seconds=20, rounds=2), time.monotonic)
    ((blank,),) = [[k for s in b.segments for _, k in s.blanks()] for b in plan.boards]
    assert blank.name == "D1 / D2" and plan.cost == 20 and audit(wished, plan) == []
    assert (
        plan.lower_bound <= 5 + 1e-6
    )  # no right plan undercuts it, and one that lets the wish go is right too
    unwished = search(
        replace(wished, parts=(replace(doors, match=""),)),
        Limits(seconds=20, rounds=2),
        time.monotonic,
    )
    assert unwished.cost == 5


def test_a_wish_leaves_no_part_out() -> None:
    # The thick board is too short for the doors: they come out of thin ones after all.
    doors = replace(a_part("D", 2, 25, 5.5), match="doors")
    job = Job("", BARE, (doors,), (a_board("B", 60, 6, 1.05), a_board("A", 20, 6, 2.05)))
    plan = search(job, Limits(seconds=20, rounds=2), time.monotonic)
    assert not plan.unplaced and audit(job, plan) == []
    assert all(len(k.layers) == 1 for b in plan.boards for s in b.segments for _, k in s.blanks())
