"""Drawings in PostgreSQL: waiting, read, read again, replaced."""

import pytest

from vividplank.core.job import Job
from vividplank.core.shop import Shop
from vividplank.core.takeoff import Found, Page, Reading
from vividplank.jobs import reading as reading_job
from vividplank.jobs.reading import read_drawing
from vividplank.store import drawings, projects
from vividplank.store.database import session
from vividplank.store.errors import NotFoundError, VersionConflict

READING = Reading(
    "flat",
    "mm",
    (Found("Leg", "Leg", 4, 144000, 14080, 14080, outline=((0, 0), (5, 0), (5, 9)), refs=("d1",)),),
    asks="?",
    troubles=("one",),
    layers=("0",),
    pieces=4,
)


@pytest.fixture
def project(database: str) -> int:
    with session() as opened:
        return projects.add(opened, Job("P", Shop(), (), ()), "in").pk


def add(project: int, name: str = "a.svg", replaces: int | None = None) -> int:
    with session() as opened:
        return drawings.add(opened, project, name, "image/svg+xml", b"<svg></svg>", replaces).pk


def test_what_was_read_is_kept_as_it_was(project: int) -> None:
    pk = add(project)
    with session() as opened:
        assert drawings.unread(opened) == [pk]
        with pytest.raises(NotFoundError, match="has not been read yet"):
            drawings.reading(opened, pk)
        drawings.begin(opened, pk)
        drawings.finish(opened, pk, READING, [Page(b"one"), Page(b"two")])
    with session() as opened:
        assert drawings.reading(opened, pk) == READING and drawings.unread(opened) == []
        assert drawings.page(opened, pk, 1) == b"two"
        drawings.finish(opened, pk, READING, [Page(b"three")])
        with pytest.raises(NotFoundError):
            drawings.page(opened, pk, 1)


def test_a_reading_that_failed_leaves_the_one_before(project: int) -> None:
    pk = add(project)
    with session() as opened:
        drawings.finish(opened, pk, READING, [])
        drawings.fail(opened, pk, "it broke")
    with session() as opened:
        assert (
            drawings.load(opened, pk).trouble == "it broke"
            and drawings.reading(opened, pk) == READING
        )


def test_answers_given_while_it_is_read_are_not_lost(
    project: int, monkeypatch: pytest.MonkeyPatch
) -> None:
    pk = add(project)

    def slow(content: bytes, name: str, answers: dict, beside: None) -> tuple[Reading, list[Page]]:  # type: ignore[type-arg]
        with session() as opened:
            drawings.read_again(opened, pk, {"unit": "in", "layers": {}})
        return READING, []

    monkeypatch.setattr(reading_job, "read_in_process", slow)
    read_drawing(pk)
    with session() as opened:
        assert drawings.unread(opened) == [pk]  # what was read with the old answers is not kept
        with pytest.raises(NotFoundError):
            drawings.reading(opened, pk)


def test_reading_what_is_gone_or_done_is_nobodys_work(project: int) -> None:
    read_drawing(12345)
    pk = add(project)
    with session() as opened:
        drawings.finish(opened, pk, READING, [])
    read_drawing(pk)  # would fail: the file holds nothing
    with session() as opened:
        assert drawings.load(opened, pk).state == "done"


def test_layers_are_remembered_and_the_unit_by_the_newer_version(project: int) -> None:
    first = add(project)
    meaning = {"0": {"species": "ash", "thickness": 5, "ignore": False}}
    with session() as opened:
        drawings.read_again(
            opened, first, {"unit": "in", "layers": meaning, "turned": ["frame:0:9x9"]}
        )
    other, newer = add(project, "b.svg"), add(project, "a.svg", first)
    with session() as opened:
        assert drawings.settings(opened, other) == {"layers": meaning}
        assert drawings.settings(opened, newer) == {
            "layers": meaning,
            "unit": "in",
            "turned": ["frame:0:9x9"],
        }
        drawings.take_over(opened, newer)
        assert [d.replaced for d in drawings.of_project(opened, project)] == [True, False, False]


def test_what_was_answered_for_a_layer_in_one_project_drops_nothing_in_another(
    project: int,
) -> None:
    with session() as opened:
        drawings.read_again(
            opened, add(project), {"layers": {"0": {"species": "", "thickness": 0, "ignore": True}}}
        )
        elsewhere = projects.add(opened, Job("else", Shop(), (), ()), "in").pk
    with session() as opened:
        assert drawings.settings(opened, add(elsewhere, "b.svg")) == {"layers": {}}


def test_a_drawing_replaces_only_one_of_its_own_project(project: int) -> None:
    first = add(project)
    with session() as opened:
        other = projects.add(opened, Job("Q", Shop(), (), ()), "in").pk
    with pytest.raises(NotFoundError, match="not of this project"):
        add(other, "a.svg", first)


def test_marks_are_kept_by_version(project: int) -> None:
    pk = add(project)
    with session() as opened:
        assert drawings.marks(opened, pk) == ({}, 0)
        assert drawings.mark(opened, pk, 0, {"scales": [1]}) == 1
        with pytest.raises(VersionConflict):
            drawings.mark(opened, pk, 0, {})
        assert drawings.marks(opened, pk) == ({"scales": [1]}, 1)


def test_a_removed_drawing_takes_its_pages_along(project: int) -> None:
    pk = add(project)
    with session() as opened:
        drawings.finish(opened, pk, READING, [Page(b"one")])
        drawings.remove(opened, pk)
    with session() as opened:
        for act in (drawings.load, drawings.reading, drawings.marks, drawings.settings):
            with pytest.raises(NotFoundError):
                act(opened, pk)
        with pytest.raises(NotFoundError):
            drawings.page(opened, pk, 0)
