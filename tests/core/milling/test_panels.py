"""Panels at the bench: staves in order, enough clamps, width and thickness that come out, whatever
the shop.
"""

import time
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.layout.search.test_limits import millings
from tests.making import a_board, a_part, t
from tests.profiles import examples
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.milling import Milling, Step, routes
from vividplank.core.shop import Shop


def panel_steps(
    width: float, length: float, milling: Milling | None = None, quantity: int = 1
) -> dict[str, Step]:
    top = a_part("T", quantity, length, width, panel=(2, 5))
    job = Job("", Shop(), (top,), tuple(a_board(id, 100, 7, 1.05) for id in "ABCD"))
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    assert not plan.unplaced
    return {s.key: s for r in routes(job, plan, milling) for s in r.steps}


@pytest.mark.parametrize(("length", "clamps"), [(20, 3), (40, 6), (52, 7)])
def test_a_clamp_every_eight_inches_and_one_more(length: float, clamps: int) -> None:
    # Staves are 1/2 over in length: 20 1/2 / 8 = 2 and one more.
    glue = panel_steps(8, length)["T1/glue"]
    assert f"{clamps} clamps, one every 8 in" in glue.why


@pytest.mark.parametrize(("width", "people"), [(20, 1), (40, 2)])
def test_a_panel_weighs_as_much_as_all_its_staves(width: float, people: int) -> None:
    # 40 1/2 x 40 1/4 x 25/32 of white oak at 12 %: 20.9 litres x 0.7616 = 15.9 kg alone; a top of
    # 78 in would be twice that.
    top = a_part("T", 1, 80, width, panel=(2, 5), species="white oak")
    boards = tuple(a_board(f"B{k}", 90, 7, 1.05, species="white oak") for k in range(8))
    job = Job("", Shop(), (top,), boards)
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    assert not plan.unplaced
    found = {s.key: s for r in routes(job, plan) for s in r.steps}
    assert {found[f"T1/{kind}"].people for kind in ("glue", "unclamp", "trim")} == {people}
    assert all(s.people == 1 for s in found.values() if s.kind == "glue-edge")


def test_staves_of_one_board_lie_beside_each_other_as_they_grew() -> None:
    found = panel_steps(12, 40)
    boards = {s.marks[0]: s.board for s in found.values() if s.kind == "glue-edge"}
    side_by_side = found["T1/glue"].pieces
    assert sorted(side_by_side) == sorted(boards)
    met: list[str] = []
    for name in side_by_side:
        if not met or met[-1] != boards[name]:
            met.append(boards[name])
    assert len(met) == len(set(met))


def test_every_panel_has_its_own_glue_up() -> None:
    found = panel_steps(8, 30, quantity=2)
    assert {"T1/glue", "T2/glue", "T1/length", "T2/length"} <= set(found)
    assert not set(found["T1/glue"].pieces) & set(found["T2/glue"].pieces)
    assert all(k.startswith("T1/") or "/glue-edge" in k for k in found["T1/glue"].after)


@examples(25)
@given(st.integers(6, 16), st.integers(14, 60), millings())
def test_a_panel_comes_out_at_its_size_after_its_glue_has_had_its_time(
    width: int, length: int, milling: Milling
) -> None:
    found = panel_steps(width, length, milling)
    flat = [s for s in found.values() if s.kind == "flatten"]
    trim, cut = found["T1/trim"], found["T1/length"]
    assert flat and all(s.stock_out == t(0.75) < s.stock_in for s in flat)
    assert trim.stock_out == t(width) <= trim.stock_in
    assert cut.stock_out == t(length) < cut.stock_in
    last = found["T1/glue"]
    assert last.hold == milling.waits.clamped and found["T1/unclamp"].hold == milling.waits.glue
    assert found["T1/unclamp"].after == ("T1/glue",)
    glued = [s for s in found.values() if s.does == "glue"]
    limit = milling.machines.planer.width
    if len(glued) > 1:  # in parts that the planer takes
        assert all(s.setting <= limit or s is last for s in glued)
        assert width > 15 or limit < t(width + 1)
    jointed = [s for s in found.values() if s.does == "glue-edge"]
    staves = sum(len(s.takes) for s in glued) - len(glued) + 1
    assert len(jointed) == staves
    # Only what is glued is jointed: the outer staves on one edge, all others on both.
    assert sum(len(s.edge) for s in jointed) == 2 * (staves - 1)
    for s in jointed:  # a shaving off each
        assert 0 < s.stock_in - s.stock_out <= t(1 / 16)
        assert not s.passes or s.stock_in - s.stock_out == sum(s.passes)
    assert trim.stock_in == sum(s.stock_out for s in jointed) >= t(width)


def test_glue_that_dries_longer_is_waited_for_longer() -> None:
    waits = replace(Milling().waits, clamped=240, glue=48 * 60)
    found = panel_steps(8, 30, replace(Milling(), waits=waits))
    assert found["T1/glue"].hold == 240 and "240 minutes in clamps" in found["T1/unclamp"].why
    assert found["T1/unclamp"].hold == 48 * 60
