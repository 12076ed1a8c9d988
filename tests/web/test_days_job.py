"""Planning days as a job: what is asked for once, what is gone, and what goes wrong."""

import json
from dataclasses import replace
from datetime import date

import pytest

from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.job.change import Change, Put
from vividplank.core.milling import routes
from vividplank.core.milling.days.day import Days
from vividplank.core.timber.rest import Moisture
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


def test_a_damp_board_rests_first(layout: int) -> None:
    """Read at 16 % on the first day of a shop whose air asks for 9.2: nothing of B1 is begun on
    it, and B2 is not held up; a board that was begun is not sent to rest.
    """
    with session() as opened:
        project = layouts.load(opened, layout).project
        kept = projects.load(opened, project)
        day = (date(2026, 3, 9) - date(1970, 1, 1)).days
        damp = replace(kept.job.board("B1"), moisture=(Moisture(16.0, day),))
        projects.edit(opened, project, kept.version, Change("damp", put_boards=(Put(damp, "B1"),)))
    ask(layout)
    queue.plan_days(layout, 5.0)
    days = planned(layout).days
    assert days
    theirs = {
        r.board: {s.key for s in r.steps} for r in routes(HAND_JOB, HAND_PLAN) if len(r.steps) > 1
    }

    def begun(days: Days, board: str) -> int:
        return min(s.begins for s in days.setups if theirs[board] & set(s.steps))

    assert begun(days, "B2") == 0 and begun(days, "B1") > 3 * 480
    with session() as opened:
        layouts.mark_step(opened, layout, "B1/rough-length", True)
    ask(layout)
    queue.plan_days(layout, 5.0)
    days = planned(layout).days
    assert days and begun(days, "B1") < 480
