"""Layouts and drawings in PostgreSQL."""

import json
from dataclasses import replace
from decimal import Decimal

import pytest

from tests.core.test_audit import JOB, PLAN
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.layout.limits import Limits, Progress
from vividplank.core.layout.plan import Unplaced
from vividplank.store import drawings, layouts, projects
from vividplank.store.database import session
from vividplank.store.errors import NotThere

HAND_JOB, HAND_PLAN = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))


@pytest.fixture
def project(database: str) -> int:
    with session() as opened:
        return projects.add(opened, HAND_JOB, "in").pk


def test_a_layout_goes_from_waiting_to_done(project: int) -> None:
    with session() as opened:
        asked = layouts.ask(opened, project, HAND_JOB, 5)
        assert asked.state == "waiting" and layouts.unfinished(opened) == [asked.pk]
    with session() as opened:
        assert layouts.begin(opened, asked.pk).state == "searching"
        assert layouts.report(opened, asked.pk, Progress(1.5, 30, 2, Decimal("35.5"), 15.5))
    with session() as opened:
        half = layouts.load(opened, asked.pk)
        assert (half.spent, half.rounds, half.unplaced, half.cost, half.lower_bound) == (1.5, 30, 2, Decimal("35.5"), 15.5)
        assert half.plan is None and layouts.standing(opened, project) is None
        layouts.finish(opened, asked.pk, HAND_JOB, HAND_PLAN)
    with session() as opened:
        done = layouts.load(opened, asked.pk)
        assert done.state == "done" and done.plan == HAND_PLAN and done.job == HAND_JOB
        assert layouts.unfinished(opened) == [] and layouts.standing(opened, project) == done == layouts.latest(opened, project)


def test_asking_again_stops_the_one_before(project: int) -> None:
    with session() as opened:
        first = layouts.ask(opened, project, HAND_JOB, 5)
        layouts.ask(opened, project, HAND_JOB, 5)
    with session() as opened:
        assert not layouts.report(opened, first.pk, Progress(0, 0, 0, Decimal(0), 0))
        layouts.finish(opened, first.pk, HAND_JOB, HAND_PLAN)
        assert layouts.load(opened, first.pk).state == "stopped"


def test_a_plan_is_stale_when_what_it_depends_on_changes(project: int) -> None:
    with session() as opened:
        kept = layouts.keep(opened, project, HAND_JOB, HAND_PLAN)
    assert not kept.stale(HAND_JOB)
    assert not kept.stale(replace(HAND_JOB, name="another name"))
    assert kept.stale(replace(HAND_JOB, parts=HAND_JOB.parts[:1]))
    assert kept.stale(replace(HAND_JOB, shop=replace(HAND_JOB.shop, end_trim=0)))


def test_a_failed_search_says_so_and_the_plan_before_it_stands(project: int) -> None:
    with session() as opened:
        kept = layouts.keep(opened, project, HAND_JOB, HAND_PLAN)
        failed = layouts.ask(opened, project, HAND_JOB, 5)
        layouts.fail(opened, failed.pk, "the search failed")
    with session() as opened:
        latest = layouts.latest(opened, project)
        assert latest and (latest.state, latest.trouble) == ("failed", "the search failed")
        standing = layouts.standing(opened, project)
        assert standing and standing.pk == kept.pk


@pytest.mark.parametrize(("cost", "left_out", "stands"), [("35.5", 0, "before"), ("40", 0, "before"), ("30", 0, "after"),
                                                          ("20", 1, "before")])
def test_only_a_better_plan_takes_the_place_of_one_for_the_same_job(
    project: int, cost: str, left_out: int, stands: str
) -> None:
    with session() as opened:
        before = layouts.keep(opened, project, HAND_JOB, HAND_PLAN)
        after = layouts.ask(opened, project, HAND_JOB, 5)
        missing = tuple(Unplaced("A", n, "") for n in range(1, left_out + 1))
        layouts.finish(opened, after.pk, HAND_JOB, replace(HAND_PLAN, cost=Decimal(cost), unplaced=missing))
    with session() as opened:
        standing = layouts.standing(opened, project)
        assert standing and standing.pk == (before.pk if stands == "before" else after.pk)
        latest = layouts.latest(opened, project)
        assert latest and (latest.state, latest.cost) == ("done", Decimal(cost))


def test_a_plan_for_another_job_stands_whatever_it_costs(project: int) -> None:
    other = replace(HAND_JOB, parts=HAND_JOB.parts[:3])
    with session() as opened:
        layouts.keep(opened, project, HAND_JOB, HAND_PLAN)
        after = layouts.ask(opened, project, other, 5)
        layouts.finish(opened, after.pk, other, replace(HAND_PLAN, cost=Decimal(99)))
        standing = layouts.standing(opened, project)
        assert standing and standing.pk == after.pk


def test_steps_are_ticked_once_and_can_be_taken_back(project: int) -> None:
    with session() as opened:
        layout = layouts.keep(opened, project, HAND_JOB, HAND_PLAN).pk
        for _ in range(2):
            layouts.mark_step(opened, layout, "B1/length", True)
        layouts.mark_step(opened, layout, "B1.1/face", True)
        layouts.mark_step(opened, layout, "B1.1/face", False)
    with session() as opened:
        assert layouts.steps_done(opened, layout) == {"B1/length"}


def test_a_removed_project_takes_its_layouts_and_drawings_along(project: int) -> None:
    with session() as opened:
        layout = layouts.keep(opened, project, HAND_JOB, HAND_PLAN).pk
        layouts.mark_step(opened, layout, "x", True)
        drawing = drawings.add(opened, project, "a.png", "image/png", b"png").pk
    with session() as opened:
        projects.remove(opened, project, projects.load(opened, project).version)
    with session() as opened:
        for gone in (lambda: layouts.load(opened, layout), lambda: drawings.content(opened, drawing),
                     lambda: drawings.remove(opened, drawing)):
            with pytest.raises(NotThere):
                gone()


def test_drawings_keep_their_bytes_and_their_order(project: int) -> None:
    content = bytes(range(256)) * 40
    with session() as opened:
        one = drawings.add(opened, project, "one.pdf", "application/pdf", content)
        drawings.add(opened, project, "two.svg", "image/svg+xml", b"<svg/>")
    with session() as opened:
        assert [d.name for d in drawings.of_project(opened, project)] == ["one.pdf", "two.svg"]
        found, kept = drawings.content(opened, one.pk)
        assert found == one and kept == content and found.size == len(content)


@pytest.mark.parametrize("limits", [{"seconds": 0}, {"seconds": -1}, {"rounds": -1}])
def test_limits_that_cannot_be_are_refused(limits: dict[str, float]) -> None:
    with pytest.raises(ValueError, match="expected"):
        Limits(**limits)  # type: ignore[arg-type]
