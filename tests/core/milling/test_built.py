"""Thick pieces of layers: glued, milled as one, and to be found at every stage; worked by hand,
then over random shops.
"""

import time
from dataclasses import replace
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from tests.core.layout.search.test_limits import millings
from tests.core.milling.test_day import wrong
from tests.making import a_board, a_part, t
from tests.profiles import examples
from vividplank.core.document import job_from_document, job_to_document
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.milling import Milling, Route, routes
from vividplank.core.milling.bench.where import whereabouts
from vividplank.core.milling.days.day_solver import plan_days
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.shop.machines import Machines, TableSaw
from vividplank.core.shop import Shop


def a_leg(layers: int = 3, thickness: float = 2.25, quantity: int = 1, fitted: bool = False) -> Job:
    leg = replace(a_part("L", quantity, 29, 2.25, thickness), layers=layers, fitted=fitted)
    return Job("", Shop(), (leg,), tuple(a_board(id, 100, 6, 1.05) for id in "AB"))


def milled(
    whole: Job, milling: Milling | None = None
) -> tuple[Job, Plan, tuple[Route, ...], dict[str, Step]]:
    job = whole.on_boards()
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    assert not plan.unplaced
    found = routes(job, plan, milling)
    return job, plan, found, {s.key: s for r in found for s in r.steps}


def test_three_layers_of_three_quarters_are_a_leg_of_two_and_a_quarter() -> None:
    # Each layer is ripped 1/16 over 2 1/4. When they are one, two passes of 1/64 make an edge, and
    # the fence at 2 1/4 takes the rest. 3 x 3/4 are the 2 1/4 wanted: nothing is planed after that.
    # 29 1/2 / 6 = 4 and one: 5 clamps along each edge.
    _, _, _, found = milled(a_leg())
    ripped = [s for s in found.values() if s.kind == "width" and s.piece != "L1-3"]
    assert {s.stock_out for s in ripped} == {t(2.3125)} and all(
        "milled as one" in s.why for s in ripped
    )
    glue = found["L1-3/glue"]
    assert glue.pieces == ("L1", "L2", "L3") and glue.setting == t(2.25) and glue.hold == 60
    assert glue.check.startswith("closed all round; 10 clamps")
    assert set(glue.takes) >= {"L1", "L2"} and {found[k].kind for k in glue.after} <= {
        "width",
        "blank-length",
        "apart",
    }
    edge, rip = found["L1-3/edge"], found["L1-3/width"]
    assert edge.passes == (127, 127) and edge.after == ("L1-3/unclamp",)
    assert (rip.stock_in, rip.stock_out, rip.size[2]) == (t(2.28125), t(2.25), t(2.25))
    assert "L1-3/flatten" not in found
    cut = found["L1-3/length-L"]
    assert (
        cut.setting == t(29) and cut.marks == ("L1", "L2", "L3") and cut.pieces == ("Part L L1-3",)
    )
    assert not any(s.kind.startswith("length-") and s is not cut for s in found.values()), (
        "layers are cut when they are one"
    )


def test_a_fitted_leg_of_layers_takes_its_measure_by_the_marks_of_its_layers() -> None:
    _, _, _, found = milled(a_leg(fitted=True))
    held = next(s for s in found.values() if s.kind == "fit-L")
    assert held.marks == ("L1", "L2", "L3")
    _, _, _, measured = milled(
        a_leg(fitted=True), Milling(fitted=dict.fromkeys(held.marks, t(28.5)))
    )
    assert measured["L1-3/length-L"].setting == t(28.5) and not any(
        s.kind.startswith("fit-") for s in measured.values()
    )


def test_a_glue_up_weighs_as_much_as_all_its_layers() -> None:
    # Oak, 0.68 x 1.12 at 12 %: 29.5 x 6 1/16 x 12 in are 35.17 litres and 26.8 kg, over the 25 that
    # one lifts alone.
    leg = replace(a_part("L", 1, 29, 6, 12), layers=12)
    heavy = Job("", Shop(), (leg,), tuple(a_board(id, 100, 7, 1.1) for id in "ABCDEF"))
    _, _, _, found = milled(heavy)
    assert found["L1-12/glue"].people == 2 and found["L1-12/unclamp"].people == 2


def test_each_thick_piece_has_its_own_layers() -> None:
    _, _, found, _ = milled(a_leg(layers=2, thickness=1.5, quantity=3))
    glued = [r.board for r in found if r.board.startswith("L")]
    assert glued == ["L1-2", "L3-4", "L5-6"]


def test_a_layer_that_lay_beside_a_thicker_part_leaves_wood_for_the_planer() -> None:
    # In one blank with a rail of 7/8 the layers come out at 7/8: 2 x 7/8 = 1 3/4, and 1/4 goes off
    # after glue-up. Their strip is ripped to the rail's width: nothing is left on for their edges,
    # and they are glued flush.
    rail, leg = a_part("R", 2, 4, 2.25, 0.875), replace(a_part("L", 1, 24, 2.25, 1.5), layers=2)
    job = Job(
        "", Shop(), (rail, leg), (a_board("A", 34, 2.375, 1.05), a_board("B", 34, 2.375, 1.05))
    ).on_boards()
    cut = [
        BoardPlan(
            id,
            (
                Segment(
                    t(1),
                    t(30),
                    0,
                    0.0,
                    (Strip(0, t(2.375), (Blank(t(1), t(30), ((Item("L", n), Item("R", n)),)),)),),
                ),
            ),
        )
        for n, id in enumerate("AB", 1)
    ]
    plan = Plan(tuple(cut), (), Decimal(20), 0.0, 0.0)
    assert not audit(job, plan)
    found = {s.key: s for r in routes(job, plan) for s in r.steps}
    assert {s.stock_out for s in found.values() if s.kind == "width"} == {
        t(2.25)
    } and "L1-2/edge" not in found
    assert found["L1-2/glue"].against.startswith("one edge flush")
    flat = found["L1-2/flatten"]
    assert (flat.stock_in, flat.stock_out) == (t(1.75), t(1.5)) and flat.readings[-1] == t(1.5)
    # 29 - 24 - 4 - a kerf of 1/8 leaves 7/8 for two: the layers stay 7/16 long.
    assert found["L1-2/square"].stock_in == t(24.4375)


def test_a_saw_too_low_for_the_block_sends_it_to_the_bandsaw() -> None:
    milling = Milling(machines=replace(Machines(), table_saw=TableSaw(tallest=t(2))))
    rip = milled(a_leg(), milling)[3]["L1-3/width"]
    assert rip.machine == "bandsaw" and rip.obstacle == "2 1/4 in thick; this saw cuts 2 in"


def test_a_fitted_leg_is_held_long_until_it_is_measured() -> None:
    found = milled(a_leg(fitted=True))[3]
    assert (
        "L1-3/fit-L" in found and found["L1-3/fit-L"].do == "Hold Part L L1-3 long; cut to the work"
    )
    measured = milled(a_leg(fitted=True), Milling(fitted={"L1": t(28.5)}))[3]
    assert measured["L1-3/length-L"].setting == t(28.5)


def test_a_layer_can_be_found_at_every_stage() -> None:
    job, plan, found, steps = milled(a_leg())

    def places(done: set[str]) -> set[str]:
        return {w.place for w in whereabouts(job, plan, found, done)}

    assert places(set()) == {"rack"}
    before = {k for k in steps if not k.startswith("L1-3/")}
    assert places(before) == {"milled"}
    assert places(before | {"L1-3/glue"}) == {"glued up"}
    assert places(set(steps)) == {"finished"}
    assert {w.piece for w in whereabouts(job, plan, found, set(steps))} == {"L1-3"}


def test_what_a_layer_is_of_survives_keeping() -> None:
    job = a_leg().on_boards()
    assert job_from_document(job_to_document(job)) == job
    assert (
        job.on_boards() == job
        and job.parts[0].glued_up
        and job.parts[0].glued_up.thickness == t(2.25)
    )


@examples(25)
@given(st.integers(2, 4), st.sampled_from([1.5, 2.0, 2.75]), st.integers(1, 2), millings())
def test_a_thick_piece_comes_out_at_its_size(
    layers: int, thickness: float, quantity: int, milling: Milling
) -> None:
    whole = a_leg(layers, thickness, quantity)
    whole = replace(whole, boards=tuple(a_board(id, 100, 6, 1.6) for id in "ABC"))
    steps = milled(whole, milling)[3]
    for n in range(quantity):
        name = f"L{n * layers + 1}-{(n + 1) * layers}"
        glue, cut = steps[f"{name}/glue"], steps[f"{name}/length-L"]
        assert len(glue.pieces) == layers and glue.setting >= t(thickness)
        rip = steps.get(f"{name}/width")  # none where the layers were glued flush
        assert rip is None or rip.stock_out == t(2.25) <= rip.stock_in
        assert cut.stock_out == t(29) < cut.stock_in and cut.size[1:] == (t(2.25), cut.size[2])
        assert t(thickness) <= cut.size[2] < t(thickness) + 127, (
            "no more than a step of the rule over"
        )
    keys = set(steps)
    assert all(k in keys for s in steps.values() for k in s.after)


def test_the_days_wait_for_the_glue() -> None:
    steps = list(milled(a_leg())[3].values())
    days = plan_days(steps, Milling(), 3)
    assert not wrong(days, steps, Milling())
    edge = next(s for s in days.setups if "L1-3/edge" in s.steps)
    assert edge.day(Milling().hours) >= 1, "the glue has its night"
