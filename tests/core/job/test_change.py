"""Edits: whole or not at all."""

import json

import pytest

from tests.core.layout.model.test_audit import JOB
from vividplank.core.cutlist import Panel, Part
from vividplank.core.exchange import Refusal, read_job
from vividplank.core.job.change import Change, Put, changed
from vividplank.core.measure import TICKS_PER_INCH as INCH

BASE = read_job(json.dumps(JOB))
NEW = Part("N", "New", 1, "oak", 10 * INCH, 2 * INCH, INCH)


def test_a_part_is_added_changed_renamed_and_removed_in_its_place() -> None:
    job = changed(BASE, Change("add", put_parts=(Put(NEW),)))
    assert [p.id for p in job.parts] == ["A", "P", "R", "L", "N"]
    job = changed(
        job,
        Change("rename", put_parts=(Put(Part(**{**vars(BASE.parts[1]), "id": "TOP"}), was="P"),)),
    )
    assert [p.id for p in job.parts] == ["A", "TOP", "R", "L", "N"]
    job = changed(job, Change("remove", remove_parts=frozenset({"A", "nobody"}), name=" Two "))
    assert [p.id for p in job.parts] == ["TOP", "R", "L", "N"] and job.name == "Two"


@pytest.mark.parametrize(
    ("change", "path", "word"),
    [
        (
            Change("x", put_parts=(Put(Part(**{**vars(NEW), "id": "A"}), was="P"),)),
            "$.put_parts[0].id",
            "taken",
        ),
        (
            Change("x", put_parts=(Put(Part(**{**vars(NEW), "id": " "})),)),
            "$.put_parts[0].id",
            "empty",
        ),
        (
            Change("x", put_parts=(Put(Part(**{**vars(NEW), "length": 0})),)),
            "$.put_parts[0].length",
            "more than nothing",
        ),
        (
            Change("x", put_parts=(Put(Part(**{**vars(NEW), "run": "row"})),)),
            "$.parts[4].width",
            "expected the width of R",
        ),
        (
            Change("x", put_parts=(Put(Part(**{**vars(NEW), "panel": Panel(5, 4)})),)),
            "$.put_parts[0].panel.stave_max",
            "stave_min",
        ),
        (Change("x", name="  "), "$.name", "empty"),
    ],
)
def test_what_cannot_be_is_refused_with_its_place(change: Change, path: str, word: str) -> None:
    with pytest.raises(Refusal, match=word) as found:
        changed(BASE, change)
    assert found.value.path == path
