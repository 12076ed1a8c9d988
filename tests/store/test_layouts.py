"""Layouts and drawings in PostgreSQL."""

import json
from dataclasses import replace
from decimal import Decimal

import pytest

from tests.core.layout.model.test_audit import JOB, PLAN
from vividplank.core.document import digest
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.layout.explain.what_ifs import WhatIf
from vividplank.core.layout.model.fixings import Fixings, Forbidden
from vividplank.core.layout.model.limits import Limits, Progress
from vividplank.core.layout.model.plan import Item, Plan, Unplaced
from vividplank.core.milling.days.day import Days, Setup
from vividplank.store import drawings, layouts, milling, plan_history, projects, workshops
from vividplank.store.database import session
from vividplank.store.errors import NotFoundError, NothingToUndo
from vividplank.store.shop import books

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
        assert layouts.report(
            opened, asked.pk, Progress(1.5, 30, 2, Decimal("35.5"), 15.5, "O1 laid anew")
        )
    with session() as opened:
        half = layouts.load(opened, asked.pk)
        assert (half.spent, half.rounds, half.unplaced, half.cost, half.lower_bound) == (
            1.5,
            30,
            2,
            Decimal("35.5"),
            15.5,
        )
        assert half.trying == "O1 laid anew"
        assert half.plan is None and layouts.standing(opened, project) is None
        layouts.finish(opened, asked.pk, HAND_JOB, HAND_PLAN)
    with session() as opened:
        done = layouts.load(opened, asked.pk)
        assert done.state == "done" and done.plan == HAND_PLAN and done.job == HAND_JOB
        assert layouts.unfinished(opened) == [] and layouts.standing(
            opened, project
        ) == done == layouts.latest(opened, project)


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


def test_a_plan_is_stale_when_a_board_is_dressed(project: int) -> None:
    """A flat face needs no allowance for facing. A note changes nothing."""
    board = HAND_JOB.boards[0]
    dressed = replace(HAND_JOB, boards=(replace(board, dressed=("A",)), *HAND_JOB.boards[1:]))
    assert not board.dressed and digest(dressed) != digest(HAND_JOB)
    noted = replace(HAND_JOB, boards=(replace(board, note="x"), *HAND_JOB.boards[1:]))
    assert digest(noted) == digest(HAND_JOB)


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


@pytest.mark.parametrize(
    ("cost", "left_out", "stands"),
    [("35.5", 0, "before"), ("40", 0, "before"), ("30", 0, "after"), ("20", 1, "before")],
)
def test_only_a_better_plan_takes_the_place_of_one_for_the_same_job(
    project: int, cost: str, left_out: int, stands: str
) -> None:
    with session() as opened:
        before = layouts.keep(opened, project, HAND_JOB, HAND_PLAN)
        after = layouts.ask(opened, project, HAND_JOB, 5)
        missing = tuple(Unplaced("A", n, "") for n in range(1, left_out + 1))
        layouts.finish(
            opened, after.pk, HAND_JOB, replace(HAND_PLAN, cost=Decimal(cost), unplaced=missing)
        )
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
        for gone in (
            lambda: layouts.load(opened, layout),
            lambda: drawings.content(opened, drawing),
            lambda: drawings.remove(opened, drawing),
        ):
            with pytest.raises(NotFoundError):
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


def standing_hand(project: int) -> layouts.Layout:
    with session() as opened:
        asked = layouts.ask(opened, project, HAND_JOB, 5)
        layouts.finish(opened, asked.pk, HAND_JOB, HAND_PLAN)
        return layouts.load(opened, asked.pk)


def without(n: int) -> Plan:
    """The hand plan with its last n boards left uncut."""
    return replace(HAND_PLAN, boards=HAND_PLAN.boards[: len(HAND_PLAN.boards) - n])


def test_a_plan_made_by_hand_stands_and_is_undone_and_done_again(project: int) -> None:
    first = standing_hand(project)
    with session() as opened:
        made = layouts.keep(opened, project, HAND_JOB, without(1), "hand")
        assert made.parent == first.pk and made.made_by == "hand"
        assert plan_history.steps_back(opened, project) == (1, 0)
        assert plan_history.undo(opened, project).pk == first.pk
        assert plan_history.steps_back(opened, project) == (0, 1)
        with pytest.raises(NothingToUndo):
            plan_history.undo(opened, project)
        assert plan_history.redo(opened, project).pk == made.pk
        with pytest.raises(NothingToUndo):
            plan_history.redo(opened, project)


def test_a_move_after_an_undo_forgets_what_was_undone_but_not_what_has_a_name(project: int) -> None:
    standing_hand(project)
    with session() as opened:
        gone = layouts.keep(opened, project, HAND_JOB, without(1), "hand")
        plan_history.undo(opened, project)
        layouts.keep(opened, project, HAND_JOB, without(2), "hand")
        assert plan_history.steps_back(opened, project) == (1, 0)
        with pytest.raises(NotFoundError):
            layouts.load(opened, gone.pk)
        kept = plan_history.call(
            opened, layouts.keep(opened, project, HAND_JOB, without(1), "hand").pk, "the lean one"
        )
        plan_history.undo(opened, project)
        layouts.keep(opened, project, HAND_JOB, without(2), "hand")
        assert [(found.pk, found.name) for found, _ in plan_history.named(opened, project)] == [
            (kept.pk, "the lean one")
        ]


def test_what_was_milled_is_milled_in_the_plan_made_from_it(project: int) -> None:
    first = standing_hand(project)
    with session() as opened:
        layouts.mark_step(
            opened, first.pk, "B1/rough-length", True, layouts.Taken(127, 2.5, 2.0, "crosscut saw")
        )
        by_hand = layouts.keep(opened, project, HAND_JOB, without(1), "hand")
        assert layouts.steps_done(opened, by_hand.pk) == {"B1/rough-length"}
        (taken,) = milling.done(opened, by_hand.pk).values()
        assert (taken.reading, taken.minutes) == (127, 2.5)
        from_file = layouts.keep(opened, project, HAND_JOB, HAND_PLAN, "file")
        assert layouts.steps_done(opened, from_file.pk) == {"B1/rough-length"}  # it cuts B1 alike
        without_it = replace(HAND_PLAN, boards=HAND_PLAN.boards[1:])
        otherwise = layouts.keep(opened, project, HAND_JOB, without_it, "file")
        assert layouts.steps_done(opened, otherwise.pk) == set()


def test_what_is_held_goes_with_the_next_search(project: int) -> None:
    first = standing_hand(project)
    fixings = Fixings(
        pins=(Item("A", 1),),
        forbidden=(Forbidden("B1", 0, 8128, 0, 8128),),
        excluded=("B3",),
        priority=("R",),
    )
    with session() as opened:
        layouts.keep(opened, project, HAND_JOB, HAND_PLAN, "hand", fixings)
        asked = layouts.ask(opened, project, HAND_JOB, 5)
        assert asked.fixings == fixings and asked.parent != first.pk
        before = layouts.plan_of(opened, asked.parent)
        assert before == HAND_PLAN and layouts.plan_of(opened, None) is None


def test_thoughts_are_kept_as_they_come(project: int) -> None:
    first = standing_hand(project)
    with session() as opened:
        assert layouts.what_ifs(opened, first.pk) is None
        one = WhatIf("shorter", "A", "cut A to 19 in", Decimal("4.25"), 0)
        layouts.think(opened, first.pk, [one], done=False)
        assert layouts.what_ifs(opened, first.pk) == layouts.WhatIfs(False, (one,))
        layouts.think(opened, first.pk, [one, one], done=True)
        found = layouts.what_ifs(opened, first.pk)
        assert found and found.done and found.found == (one, one)


def test_a_plan_is_asked_for_where_there_is_one(project: int) -> None:
    with session() as opened:
        asked = layouts.ask(opened, project, HAND_JOB, 5)
        with pytest.raises(NotFoundError):
            layouts.with_plan(opened, asked.pk)
        layouts.finish(opened, asked.pk, HAND_JOB, HAND_PLAN)
        assert layouts.with_plan(opened, asked.pk)[1] == HAND_PLAN


def test_a_shop_s_own_times_draw_what_is_foretold_toward_them(project: int) -> None:
    first = standing_hand(project)

    def tick(key: str, minutes: float | None, machine: str) -> None:
        layouts.mark_step(opened, first.pk, key, True, layouts.Taken(None, minutes, 2.0, machine))

    with session() as opened:
        assert books.factors(opened, project) == {}
        tick("s0", 3.0, "planer")
        one = books.factors(opened, project)["planer"]
        for n in range(1, 9):
            tick(f"s{n}", 3.0, "planer")
        nine = books.factors(opened, project)["planer"]
        assert 1 < one < nine < 1.5
        tick("s9", 300.0, "planer")  # a forgotten tap
        assert books.factors(opened, project)["planer"] == pytest.approx(nine, rel=0.02)
        tick("x0", None, "bandsaw")
        assert set(books.factors(opened, project)) == {"planer"}
        place = workshops.of_project(opened, project)
        off = replace(place.workshop, unused=("minutes:planer",))
        workshops.put(opened, place.pk, place.name, off, place.version)
        assert books.factors(opened, project) == {}


def test_days_are_kept_with_their_layout(project: int) -> None:
    first = standing_hand(project)
    days = Days((Setup("planer", "planer 6604", 1, ("a/thickness",), 0, 12, 1),), 12, 1, 1, 2, True)
    with session() as opened:
        assert milling.planned(opened, first.pk) is None and milling.unplanned(opened) == []
        milling.ask_days(opened, first.pk, "2026-03-09", {"planer 6604": 2})
        assert milling.unplanned(opened) == [first.pk]
        milling.keep_days(opened, first.pk, days)
        assert milling.planned(opened, first.pk) == milling.Planned(
            "done", "2026-03-09", {"planer 6604": 2}, "", days
        )
        milling.ask_days(opened, first.pk, "2026-03-10", {})
        milling.keep_days(opened, first.pk, None, "cannot stand")
        now = milling.planned(opened, first.pk)
        assert now and (now.state, now.trouble, now.days) == ("failed", "cannot stand", days)
