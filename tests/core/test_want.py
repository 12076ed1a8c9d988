"""What the search is given to place."""

from tests.making import BARE, a_board, a_part, t
from vividplank.core.job import Job
from vividplank.core.layout.plan import Item
from vividplank.core.layout.want import wants


def job_of(*parts):  # type: ignore[no-untyped-def]
    return Job("", BARE, parts, (a_board(),))


def test_equal_parts_are_one_want_with_a_count() -> None:
    (want,) = wants(job_of(a_part("A", 3)))
    assert want.count == 3
    assert want.members == ((Item("A", 1),), (Item("A", 2),), (Item("A", 3),))
    assert not want.is_panel and not want.is_run and want.name == "A"


def test_a_run_is_one_lump_end_to_end_with_its_kerfs_and_its_strictest_faces() -> None:
    first = a_part("F", 2, 8, faces="sound", run="row")
    last = a_part("G", 1, 10, faces="clear-two", run="row")
    want, plain = wants(job_of(first, a_part("A"), last))
    assert want.is_run and want.count == 1
    assert want.members == ((Item("F", 1), Item("F", 2), Item("G", 1)),)
    assert want.length == t(8 + 0.125 + 8 + 0.125 + 10)
    assert want.faces == "clear-two"
    assert want.volume == 2 * first.volume + last.volume
    assert plain.name == "A" and plain.index == 1


def test_every_panel_is_a_want_of_its_own_that_counts_net_width() -> None:
    from dataclasses import replace

    shop = replace(BARE, allowance=replace(BARE.allowance, panel_width=t(0.25)))
    job = Job("", shop, (a_part("P", 2, width=12, panel=(2, 5)),), (a_board(),))
    one, two = wants(job)
    assert one.is_panel and one.width == t(12.25)
    assert (one.stave_min, one.stave_max) == (t(2), t(5))
    assert one.members == ((Item("P", 1),),) and two.members == ((Item("P", 2),),)
