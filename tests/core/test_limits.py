"""No step passes over a machine's limit in silence, whatever the shop and the job."""

import time

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from tests.jobs import inches, jobs
from vividplank.core.job import Job
from vividplank.core.layout.search import Limits, search
from vividplank.core.milling import Machines, Route, Step, routes
from vividplank.core.milling.machines import CrosscutSaw, Jointer, Planer, usual_machines


@st.composite
def machines(draw: st.DrawFn) -> Machines:
    jointer = Jointer(
        draw(inches(4, 12)), draw(inches(6, 24)), draw(inches(0.25, 1)), draw(inches(1, 4)), draw(inches(30, 120)),
        draw(inches(1 / 64, 1 / 16)),
    )
    planer = Planer(draw(inches(5, 20)), draw(inches(6, 20)), draw(inches(0.125, 0.6)), draw(inches(1 / 32, 1 / 8)),
                    draw(inches(1 / 64, 1 / 32)))
    return Machines(jointer, planer, CrosscutSaw(draw(inches(5, 14))))


def planned(job: Job, shop: Machines | None = None) -> tuple[Route, ...]:
    return routes(job, search(job, Limits(seconds=60, rounds=1), time.monotonic), shop)


MANY = settings(max_examples=60, deadline=None, derandomize=True, suppress_health_check=list(HealthCheck))


def regions(job: Job) -> dict[str, tuple[int, int]]:
    """Width and length of what is flattened, by the name of the piece."""
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    found = {}
    for board in plan.boards:
        for n, segment in enumerate(sorted(board.segments, key=lambda s: s.x0), 1):
            region = segment.milled_region()
            found[f"{board.board}.{n}"] = (region.h1 - region.h0, region.x1 - region.x0)
    return found


@MANY
@given(jobs(), machines())
def test_what_a_machine_cannot_take_is_said_with_a_way_round(job: Job, shop: Machines) -> None:
    sizes = regions(job) if job.shop.method == "mill-wide" else {}
    for route in planned(job, shop):
        for step in route.steps:
            assert bool(step.obstacle) == bool(step.way_round), step
            piece, _, kind = step.key.partition("/")
            if kind == "face" and piece in sizes:
                width, length = sizes[piece]
                too_much = width > shop.jointer.bed_width or length < shop.jointer.shortest or width < shop.jointer.narrowest
                thin = step.stock_in < shop.jointer.thinnest
                assert bool(step.obstacle) == (too_much or thin), step
            if kind == "thickness" and piece in sizes:
                width, length = sizes[piece]
                too_much = width > shop.planer.width or length < shop.planer.shortest
                assert bool(step.obstacle) == (too_much or step.setting < shop.planer.thinnest), step
            if kind == "edge" and piece in sizes:
                length = sizes[piece][1]
                assert bool(step.obstacle) == (length > shop.jointer.longest or length < shop.jointer.shortest), step
            if kind == "finish-thickness" and step.setting < shop.planer.thinnest:
                assert step.obstacle


@MANY
@given(jobs(), machines())
def test_no_pass_is_deeper_than_the_shop_takes_and_thickness_only_falls(job: Job, shop: Machines) -> None:
    for route in planned(job, shop):
        for step in route.steps:
            if step.machine == "jointer":
                assert all(0 < p <= max(shop.jointer.usual_pass, 127) for p in step.passes)
            if step.machine == "planer":
                assert all(0 < p <= max(shop.planer.usual_pass, shop.planer.last_pass) for p in step.passes)
                assert step.stock_out <= step.stock_in
                assert step.stock_in - sum(step.passes) == step.stock_out


@MANY
@given(jobs())
def test_every_piece_of_the_plan_comes_out_at_its_size(job: Job) -> None:
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    named = {(i.part, i.n, i.stave) for *_, i in plan.items()}
    ends: list[Step] = [s for route in routes(job, plan) for s in route.steps if s.key.endswith("/ends")]
    assert sum(len(s.pieces) for s in ends) == len(named)
    for step in ends:
        assert any(step.setting == part.length for part in job.parts)


@MANY
@given(jobs())
def test_facing_comes_before_thickness_and_thickness_before_width(job: Job) -> None:
    for route in planned(job):
        order: dict[str, list[str]] = {}
        for step in route.steps:
            piece, _, kind = step.key.partition("/")
            order.setdefault(piece, []).append(kind)
        for kinds in order.values():
            wanted = [k for k in ("face", "edge", "thickness", "width") if k in kinds]
            assert [k for k in kinds if k in wanted] == wanted


def test_the_usual_machines_are_alike_in_both_systems() -> None:
    inch, metric = usual_machines("in"), usual_machines("mm")
    for one, other in ((inch.jointer.bed_width, metric.jointer.bed_width), (inch.planer.width, metric.planer.width),
                       (inch.planer.thinnest, metric.planer.thinnest), (inch.crosscut.widest, metric.crosscut.widest)):
        assert abs(one - other) / one < 0.06
    assert metric.jointer.usual_pass % 32 == 0 and metric.planer.usual_pass % 32 == 0
