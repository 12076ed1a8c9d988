"""Planning days as a job: what is asked for once, what is gone, and what goes wrong."""

import json

import pytest

from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.core.exchange import read_job, read_plan
from vividplank.jobs import queue
from vividplank.store import layouts, milling, projects
from vividplank.store.database import session

HAND_JOB, HAND_PLAN = read_job(json.dumps(JOB)), read_plan(json.dumps(PLAN))


@pytest.fixture
def layout(database: str) -> int:
    """A layout whose plan stands."""
    with session() as opened:
        project = projects.add(opened, HAND_JOB, "in").pk
        return layouts.keep(opened, project, HAND_JOB, HAND_PLAN).pk


def planned(layout: int) -> milling.Planned:
    with session() as opened:
        found = milling.planned(opened, layout)
    assert found
    return found


def ask(layout: int, **on_day: int) -> None:
    with session() as opened:
        milling.ask_days(opened, layout, "2026-03-09", on_day)


def test_what_was_asked_for_is_planned_once(layout: int, monkeypatch: pytest.MonkeyPatch) -> None:
    queue.plan_days(layout, 1.0)  # nobody has asked
    with session() as opened:
        assert milling.planned(opened, layout) is None
    ask(layout)
    queue.plan_days(layout, 1.0)
    found = planned(layout)
    assert found.state == "done" and found.days and found.days.setups
    monkeypatch.setattr(queue, "solve_days", lambda *a: pytest.fail("planned twice"))
    queue.plan_days(layout, 1.0)
    assert planned(layout) == found


def test_only_what_is_left_is_planned(layout: int) -> None:
    with session() as opened:
        layouts.mark_step(opened, layout, "B1/rough-length", True)
    ask(layout)
    queue.plan_days(layout, 1.0)
    days = planned(layout).days
    assert days and "B1/rough-length" not in {k for s in days.setups for k in s.steps}
    assert "B2/rough-length" in {k for s in days.setups for k in s.steps}


def test_what_cannot_stand_and_what_breaks_are_told(
    layout: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    ask(layout, **{"planer 1": 0})
    queue.plan_days(layout, 1.0)
    assert (
        planned(layout).state == "failed"
        and "no setting called planer 1" in planned(layout).trouble
    )

    def broken(*_: object) -> None:
        raise RuntimeError("out of memory")

    monkeypatch.setattr(queue, "solve_days", broken)
    ask(layout)
    queue.plan_days(layout, 1.0)
    assert (
        planned(layout).state == "failed" and "the worker's log says why" in planned(layout).trouble
    )


def test_a_layout_that_is_gone_is_nobody_s_work(layout: int) -> None:
    ask(layout)
    with session() as opened:
        project = layouts.load(opened, layout).project
        projects.remove(opened, project, projects.load(opened, project).version)
    queue.plan_days(layout, 1.0)
    with session() as opened:
        assert milling.unplanned(opened) == []
