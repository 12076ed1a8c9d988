"""The project aggregate in PostgreSQL: nothing lost, nothing half written, everything undone."""

import json
from dataclasses import replace
from decimal import Decimal

import pytest
from hypothesis import given
from sqlalchemy import func, select

from tests.core.layout.model.test_audit import JOB
from tests.jobs import jobs
from tests.listed import lists
from tests.making import a_board, a_part
from tests.profiles import examples
from vividplank.core.cutlist import Measure, Part
from vividplank.core.exchange import Refusal, read_job
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put, changed
from vividplank.core.shop import Kerf, Shop
from vividplank.core.timber.rest import Moisture
from vividplank.store import projects
from vividplank.store.database import session
from vividplank.store.errors import NotFoundError, NothingToUndo, VersionConflict
from vividplank.store.models import BoardRow, DefectRow, EditRow, PartRow, StationRow

HAND_JOB = read_job(json.dumps(JOB))


def added(job: Job = HAND_JOB) -> projects.Project:
    with session() as opened:
        return projects.add(opened, job, job.unit)


def edited(project: projects.Project, change: Change, **more):  # type: ignore[no-untyped-def]
    with session() as opened:
        return projects.edit(opened, project.pk, project.version, change, **more)


def loaded(pk: int) -> projects.Project:
    with session() as opened:
        return projects.load(opened, pk)


def count(table: type) -> int:
    with session() as opened:
        return opened.scalar(select(func.count()).select_from(table)) or 0


@examples(25)
@given(jobs())
def test_any_job_is_kept_as_it_is(database: str, job: Job) -> None:
    assert loaded(added(job).pk).job == job


def test_notes_quarters_and_prices_are_kept_to_the_last_figure(database: str) -> None:
    board = replace(
        a_board(), note="from the old door", quarter="5/4", price=Decimal("61.53712345")
    )
    part = replace(a_part("A"), note="toward the window")
    kept = loaded(added(replace(HAND_JOB, parts=(part,), boards=(board,))).pk).job
    assert kept.parts == (part,) and kept.boards == (board,)


def test_an_edit_counts_the_version_up_and_names_its_undo(database: str) -> None:
    project = added()
    after = edited(project, Change("a new part", put_parts=(Put(a_part("N")),)))
    assert after.version > project.version
    assert (after.undo, after.redo) == ("a new part", "")
    assert [p.id for p in loaded(project.pk).job.parts] == ["A", "P", "R", "L", "N"]


def test_only_children_changed_is_an_edit_too(database: str) -> None:
    project = added()
    board = replace(HAND_JOB.boards[0], defects=())
    after = edited(project, Change("a fault less", put_boards=(Put(board),)))
    assert after.version > project.version and count(DefectRow) == 1


def test_rows_of_what_was_removed_are_gone(database: str) -> None:
    project = added()
    edited(
        project,
        Change(
            "fewer", remove_boards=frozenset({"B1", "B2"}), remove_parts=frozenset({"A", "P", "R"})
        ),
    )
    assert (count(BoardRow), count(StationRow), count(DefectRow), count(PartRow)) == (1, 2, 0, 1)


def test_marks_may_change_places_in_one_edit(database: str) -> None:
    project = added(replace(HAND_JOB, parts=(a_part("A"), a_part("B"))))
    aside = edited(project, Change("one", put_parts=(Put(a_part("C"), was="A"),)))
    swapped = edited(
        aside, Change("two", put_parts=(Put(a_part("A"), was="B"), Put(a_part("B"), was="C")))
    )
    assert [p.id for p in swapped.job.parts] == ["B", "A"]


def test_an_older_version_is_told_the_newer_one_and_changes_nothing(database: str) -> None:
    project = added()
    newer = edited(project, Change("first", name="First"))
    with pytest.raises(VersionConflict) as told:
        edited(project, Change("second", name="Second"))
    assert told.value.version == newer.version and loaded(project.pk).job.name == "First"


def test_a_refused_edit_leaves_no_trace(database: str) -> None:
    project = added()
    with pytest.raises(Refusal):
        edited(project, Change("bad", put_parts=(Put(a_part("N")), Put(a_part("", 1)))))
    assert loaded(project.pk) == project and count(EditRow) == 0


def test_undo_and_redo_walk_to_both_ends(database: str) -> None:
    project = added()
    states = [project.job]
    for n in range(4):
        project = edited(project, Change(f"edit {n}", put_parts=(Put(a_part(f"N{n}")),)))
        states.append(project.job)
    for n in (3, 2, 1, 0):
        with session() as opened:
            project = projects.undo(opened, project.pk, project.version)
        assert project.job == states[n] and project.redo == f"edit {n}"
    with pytest.raises(NothingToUndo), session() as opened:
        projects.undo(opened, project.pk, project.version)
    for n in (1, 2, 3, 4):
        with session() as opened:
            project = projects.redo(opened, project.pk, project.version)
        assert project.job == states[n]
    with pytest.raises(NothingToUndo), session() as opened:
        projects.redo(opened, project.pk, project.version)


def test_an_edit_after_an_undo_forgets_what_was_undone(database: str) -> None:
    project = edited(added(), Change("one", name="One"))
    with session() as opened:
        project = projects.undo(opened, project.pk, project.version)
    project = edited(project, Change("two", name="Two"))
    assert project.redo == "" and project.undo == "two"


def test_only_the_last_edits_are_kept(database: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(projects, "_EDITS_KEPT", 3)
    project = added()
    for n in range(6):
        project = edited(project, Change(f"edit {n}", name=f"Name {n}"))
    assert count(EditRow) == 3


def test_shop_settings_and_units_are_part_of_an_edit(database: str) -> None:
    shop = replace(HAND_JOB.shop, method="rough-rip", kerf=Kerf(1, 2, 3), max_slope=0.015)
    project = edited(added(), Change("shop", shop=shop), system="ft-in")
    assert project.job.shop == shop and project.system == "ft-in" and project.job.unit == "in"
    with session() as opened:
        back = projects.undo(opened, project.pk, project.version)
    assert back.job.shop == HAND_JOB.shop and back.system == "in"


def test_the_shelf_has_the_last_one_worked_on_first(database: str) -> None:
    first, second = added(replace(HAND_JOB, name="First")), added(replace(HAND_JOB, name="Second"))
    with session() as opened:
        assert [e.name for e in projects.shelf(opened)] == ["Second", "First"]
    edited(first, Change("again", name="First again"))
    with session() as opened:
        entries = projects.shelf(opened)
        assert [(e.name, e.parts, e.boards) for e in entries] == [
            ("First again", 7, 3),
            ("Second", 7, 3),
        ]
        projects.remove(opened, second.pk, second.version)
    with session() as opened:
        assert len(projects.shelf(opened)) == 1


def test_what_is_not_there_is_said(database: str) -> None:
    with pytest.raises(NotFoundError, match="no such project"):
        loaded(99)
    project = added()
    with pytest.raises(VersionConflict), session() as opened:
        projects.remove(opened, project.pk, project.version + 1)


@examples(15)
@given(lists)
def test_everything_of_a_list_is_kept(database: str, parts: tuple[Part, ...]) -> None:
    measures = (Measure("W", "24", note="width"), Measure("n", "3", "number"))
    job = changed(
        Job("List", Shop(), (), ()),
        Change("all", put_parts=tuple(Put(p) for p in parts), measures=measures),
    )
    with session() as opened:
        pk = projects.add(opened, job, "in").pk
    with session() as opened:
        kept = projects.load(opened, pk)
        assert kept.job == job
        bare = tuple(
            Put(replace(p, formulas=(), source=None, edging=None, outline=())) for p in job.parts
        )
        after = projects.edit(opened, pk, kept.version, Change("bare", put_parts=bare, measures=()))
        assert after.job.measures == () and all(
            p.edging is None and p.formulas == () for p in after.job.parts
        )
        assert projects.undo(opened, pk, after.version).job == job


def test_moisture_is_kept(database: str) -> None:
    board = replace(HAND_JOB.boards[0], moisture=(Moisture(13.5, 20000), Moisture(11.25, 20010)))
    with session() as opened:
        pk = projects.add(opened, Job("Wet", Shop(), (), (board,)), "in").pk
    with session() as opened:
        kept = projects.load(opened, pk).job
        assert kept.boards[0].moisture == board.moisture
