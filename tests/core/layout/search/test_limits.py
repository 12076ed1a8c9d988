"""No step breaks a machine's limit, whatever the shop and the job; what no machine takes goes
another way, and says so.
"""

import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.jobs import inches, jobs
from tests.profiles import examples
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import show
from vividplank.core.milling import Machines, Milling, Route, Step, routes
from vividplank.core.milling.shop import ways
from vividplank.core.milling.shop.machines import (
    Bandsaw,
    CrosscutSaw,
    Jointer,
    Planer,
    Switched,
    TableSaw,
    usual_machines,
)
from vividplank.core.milling.shop.pace import minutes
from vividplank.core.milling.shop.school import SCHOOLS


@st.composite
def machines(draw: st.DrawFn) -> Machines:
    jointer = Jointer(
        draw(inches(4, 12)),
        draw(inches(6, 24)),
        draw(inches(0.25, 1)),
        draw(inches(1, 4)),
        draw(inches(30, 120)),
        draw(inches(1 / 64, 1 / 16)),
    )
    planer = Planer(
        draw(inches(5, 20)),
        draw(inches(6, 20)),
        draw(inches(0.125, 0.6)),
        draw(inches(1 / 32, 1 / 8)),
        draw(inches(1 / 64, 1 / 32)),
    )
    return Machines(
        jointer,
        planer,
        CrosscutSaw(draw(inches(5, 14))),
        table_saw=TableSaw(draw(inches(0.5, 3)), draw(inches(4, 24))),
        bandsaw=Bandsaw(draw(inches(1, 8))),
        carrier=draw(st.booleans()),
        router_bridge=draw(st.sampled_from([0, 24 * INCH])),
        by_hand=draw(st.booleans()),
        outside=draw(st.sampled_from(["", "the mill down the road"])),
    )


@st.composite
def millings(draw: st.DrawFn) -> Milling:
    return Milling(draw(machines()), draw(st.sampled_from(SCHOOLS)))


def planned(job: Job, milling: Milling | None = None) -> tuple[Route, ...]:
    return routes(job, search(job, Limits(seconds=60, rounds=1), time.monotonic), milling)


MANY = examples(60)


def broken(step: Step, shop: Machines) -> str:
    """The limit that a step breaks at its machine, written apart from the program's own check;
    empty where it breaks none.
    """
    length, width, thick = step.size
    carried = "carrier" in step.way
    if step.machine == "jointer":
        net = step.stock_in if step.kind in ("saw-edge", "glue-edge") else width
        flat = step.kind in ("face", "face-again")
        checks = [
            (length < shop.jointer.shortest, "short"),
            (thick < shop.jointer.thinnest, "thin"),
            (net < shop.jointer.narrowest, "narrow"),
            (flat and width > shop.jointer.bed_width, "wide"),
            (not flat and length > shop.jointer.longest, "long"),
            (any(p > max(shop.jointer.usual_pass, 127) for p in step.passes), "deep"),
        ]
    elif step.machine == "planer":
        checks = [
            (length < shop.planer.shortest, "short"),
            (width > shop.planer.width, "wide"),
            (not carried and 0 < step.stock_out < shop.planer.thinnest, "thin"),
            (
                any(p > max(shop.planer.usual_pass, shop.planer.last_pass) for p in step.passes),
                "deep",
            ),
        ]
    elif step.machine == "table saw" and not carried:
        checks = [
            (thick > shop.table_saw.tallest, "thick"),
            (step.setting < shop.table_saw.narrowest, "narrow"),
            (step.setting > shop.table_saw.fence, "wide"),
        ]
    elif step.machine == "bandsaw" and step.kind == "resaw":
        checks = [(width > shop.bandsaw.tallest, "high")]
    elif step.machine == "crosscut saw":
        checks = [(width > shop.crosscut.widest and not step.obstacle, "wide")]
    else:
        checks = []
    return next((name for wrong, name in checks if wrong), "")


@MANY
@given(jobs(), millings())
def test_no_step_breaks_a_limit_and_every_way_round_gives_its_reason(
    job: Job, milling: Milling
) -> None:
    for route in planned(job, milling):
        for step in route.steps:
            assert not broken(step, milling.machines), (broken(step, milling.machines), step)
            assert bool(step.obstacle) == (step.way != "machine" and bool(step.ways)) or (
                milling.school == "by-hand" or step.kind == "face"
            ), step
            if step.ways:
                assert step.machine == step.ways[0].machine and all(w.costs for w in step.ways)
                assert not step.ways[0].guard_off
            if step.obstacle:
                assert any(c.isdigit() for c in step.obstacle)
            if step.machine == "not here":
                assert step.obstacle


@MANY
@given(jobs(), millings())
def test_thickness_only_falls_and_every_reading_is_between(job: Job, milling: Milling) -> None:
    for route in planned(job, milling):
        for step in route.steps:
            if step.kind in ("thickness", "finish-thickness", "rough-thickness", "skim", "flatten"):
                assert (
                    step.stock_out <= step.stock_in
                    and step.stock_in - sum(step.passes) == step.stock_out
                )
                assert list(step.readings) == sorted(step.readings, reverse=True)
                assert not step.readings or step.readings[-1] == step.stock_out


@MANY
@given(jobs(), millings())
def test_every_piece_of_the_plan_comes_out_once(job: Job, milling: Milling) -> None:
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    named = {(i.part, i.n) for *_, i in plan.items()}
    steps = [s for route in routes(job, plan, milling) for s in route.steps]
    ends = [s for s in steps if s.kind.startswith(("length-", "fit-")) or s.kind == "length"]
    ends = [s for s in ends if s.does != "own"]
    assert sum(len(s.pieces) for s in ends) == len(named)
    for step in ends:
        assert any(step.setting == part.length for part in job.parts)


@MANY
@given(jobs(), st.sampled_from(SCHOOLS))
def test_what_must_come_before_is_written_before_and_every_step_once(job: Job, school: str) -> None:
    seen: set[str] = set()
    for route in planned(job, Milling(school=school)):  # type: ignore[arg-type]
        for step in route.steps:
            assert set(step.after) <= seen
            assert step.key not in seen
            seen.add(step.key)


def say(ticks: int) -> str:
    return show(ticks, "in", unit=True)


SIZE = (40 * INCH, 10 * INCH, INCH)


@pytest.mark.parametrize(
    ("shop", "size", "first", "words"),
    [
        (Machines(), SIZE, "planer", "10 in wide; the jointer takes 8 in"),
        (Machines(carrier=False, router_bridge=12 * INCH), SIZE, "router bridge", "10 in wide"),
        (Machines(carrier=False), SIZE, "hand plane", "10 in wide"),
        (
            Machines(carrier=False, by_hand=False, outside="the joiner's"),
            SIZE,
            "outside shop",
            "10 in wide",
        ),
        (Machines(carrier=False, by_hand=False), SIZE, "not here", "10 in wide"),
        (Machines(), (8 * INCH, 4 * INCH, INCH), "hand plane", "8 in long; nothing under 12 in"),
        (
            Machines(),
            (40 * INCH, 4 * INCH, INCH // 4),
            "planer",
            "1/4 in thick; the jointer takes 1/2 in and more",
        ),
        (Machines(), (40 * INCH, INCH, INCH), "hand plane", "hands come too near the cutter"),
    ],
)
def test_the_ways_round_a_face_in_their_order(
    shop: Machines, size: tuple[int, int, int], first: str, words: str
) -> None:
    obstacle = ways.face(shop, size, say)
    assert obstacle and words in obstacle.why and obstacle.ways[0].machine == first


def test_ripping_is_thought_of_first_where_it_helps() -> None:
    obstacle = ways.face(Machines(), SIZE, say, can_rip=True)
    assert obstacle and obstacle.ways[0].do.startswith("rip it along its chalk lines")
    assert [w.method for w in obstacle.ways] == [
        "strips",
        "carrier",
        "hand",
        "ridge",
        "step-and-carrier",
    ]
    assert "ridge of 2 in" in obstacle.ways[3].do
    assert all(w.danger for w in obstacle.ways[1:])
    # Where a guard may have to come off it is shown, with its danger, after all others.
    assert [w.guard_off for w in obstacle.ways] == [False, False, False, True, True]


def test_the_other_machines_say_what_they_cannot_take() -> None:
    shop = Machines()
    edge = ways.edge(shop, (100 * INCH, 4 * INCH, INCH), say)
    assert edge and "cannot hold it straight" in edge.why and "straight carrier" in edge.ways[0].do
    plane = ways.thickness(shop, SIZE, INCH // 8, say)
    assert plane and "thinner than the 1/4 in" in plane.why and plane.ways[0].machine == "planer"
    wide = ways.thickness(shop, (40 * INCH, 18 * INCH, INCH), INCH, say)
    assert wide and "this planer takes 15 in" in wide.why and wide.ways[0].machine == "hand plane"
    thick = ways.rip(shop, (40 * INCH, 4 * INCH, 4 * INCH), 2 * INCH, say)
    assert thick and [w.machine for w in thick.ways] == ["bandsaw", "handsaw"]
    timber = ways.rip(shop, (40 * INCH, 4 * INCH, 9 * INCH), 2 * INCH, say)
    assert timber and [w.machine for w in timber.ways] == ["handsaw"]
    narrow = ways.rip(shop, SIZE, INCH // 4, say)
    assert narrow and "push stick" in narrow.why
    high = ways.resaw(shop, 9 * INCH, say)
    assert high and "9 in high on edge" in high.why
    across = ways.crosscut(shop, (40 * INCH, 14 * INCH, INCH), say)
    assert [w.method for w in across.ways] == ["hand", "both-sides", "sled"]
    assert "from both edges" in across.ways[1].do


@pytest.mark.parametrize("machine", ["jointer", "planer", "table saw", "bandsaw", "crosscut saw"])
def test_a_machine_that_is_switched_off_is_not_sent_to(machine: Switched) -> None:
    shop = Machines(off=(machine,), router_bridge=12 * INCH)
    small = (40 * INCH, 4 * INCH, INCH)
    found = [
        ways.face(shop, small, say),
        ways.edge(shop, small, say),
        ways.thickness(shop, small, INCH // 2, say),
        ways.crosscut(shop, small, say),
        ways.rip(shop, small, 2 * INCH, say),
        ways.saw_out(shop, small, say),
        ways.resaw(shop, 4 * INCH, say),
    ]
    assert not any(w.machine == machine for one in found for w in one.ways)
    assert any(f"no {machine}" in one.why or f"no thickness {machine}" in one.why for one in found)
    assert all(one.ways and one.ways[0].method != "none" for one in found)


def test_minutes_are_feed_and_handling_for_every_pass() -> None:
    # 40 in at 10 ft a minute are 1/3 minute, and 0.3 to handle it: 0.633 a pass, three passes 1.9.
    # By hand a square foot takes 12 minutes: 40 x 10 in are 2.78 square feet, 33.3 minutes.
    shop = Machines()
    assert minutes(
        Step("a/face", "jointer", "", passes=(1, 1, 1), dimension="straight", size=SIZE), shop
    ) == pytest.approx(1.9)
    assert minutes(Step("a/face", "hand plane", "", size=SIZE), shop) == pytest.approx(
        33.33, abs=0.01
    )
    # A saw cut across 10 in at a foot a minute: 0.83 and 0.6.
    assert minutes(
        Step("a/square", "crosscut saw", "", dimension="length", size=SIZE), shop
    ) == pytest.approx(1.433, abs=0.001)


def test_a_shop_s_own_history_stretches_the_minutes() -> None:
    from tests.core.milling.test_milling import HAND_JOB, HAND_PLAN

    plain = {s.key: s.minutes for r in routes(HAND_JOB, HAND_PLAN) for s in r.steps}
    slow = {s.key: s for r in routes(HAND_JOB, HAND_PLAN, factors={"planer": 2.0}) for s in r.steps}
    for key, step in slow.items():
        assert step.minutes == pytest.approx(
            plain[key] * (2 if step.machine == "planer" else 1), abs=0.02
        )


def test_the_usual_machines_are_alike_in_both_systems() -> None:
    inch, metric = usual_machines("in"), usual_machines("mm")
    for one, other in (
        (inch.jointer.bed_width, metric.jointer.bed_width),
        (inch.planer.width, metric.planer.width),
        (inch.planer.thinnest, metric.planer.thinnest),
        (inch.crosscut.widest, metric.crosscut.widest),
        (inch.table_saw.tallest, metric.table_saw.tallest),
        (inch.bandsaw.tallest, metric.bandsaw.tallest),
    ):
        assert abs(one - other) / one < 0.06
    assert metric.jointer.usual_pass % 32 == 0 and metric.planer.usual_pass % 32 == 0
