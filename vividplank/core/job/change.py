"""One edit of a project's job: parts and boards put or removed, shop settings changed, all or
nothing.
"""

from dataclasses import dataclass, field, replace
from typing import Generic, TypeVar

from vividplank.core.board import Board
from vividplank.core.board.check import check_board
from vividplank.core.cutlist import (
    Measure,
    MeasureTrouble,
    Part,
    in_other_unit,
    values_of,
)
from vividplank.core.cutlist.check import check_part, check_runs, worked_out_anew
from vividplank.core.job import Job
from vividplank.core.measure import Unit
from vividplank.core.refusal import Refusal
from vividplank.core.shop import Shop

Thing = TypeVar("Thing", Part, Board)


@dataclass(frozen=True)
class Put(Generic[Thing]):
    """A part or board as it is to be; `was` is the id it had, empty for a new one or an unchanged
    id.
    """

    what: Thing
    was: str = ""


@dataclass(frozen=True)
class Change:
    """`label` is what the edit is called where it can be undone. None leaves a thing as it is."""

    label: str
    name: str | None = None
    unit: Unit | None = None
    shop: Shop | None = None
    put_parts: tuple[Put[Part], ...] = ()
    remove_parts: frozenset[str] = field(default_factory=frozenset)
    put_boards: tuple[Put[Board], ...] = ()
    remove_boards: frozenset[str] = field(default_factory=frozenset)
    measures: tuple[Measure, ...] | None = None


def changed(job: Job, change: Change) -> Job:
    """The job after the change; a Refusal, and nothing changed, where something in it cannot be."""
    job, change = _formulas(job, change)
    job = replace(job, parts=tuple(p.fitting_outline() for p in job.parts))
    change = replace(
        change, put_parts=tuple(replace(p, what=p.what.fitting_outline()) for p in change.put_parts)
    )
    for i, put in enumerate(change.put_parts):
        check_part(put.what, f"$.put_parts[{i}]")
    for i, board in enumerate(change.put_boards):
        check_board(board.what, f"$.put_boards[{i}]")
    parts = _put(
        [p for p in job.parts if p.id not in change.remove_parts], change.put_parts, "$.put_parts"
    )
    boards = _put(
        [b for b in job.boards if b.id not in change.remove_boards],
        change.put_boards,
        "$.put_boards",
    )
    check_runs(tuple(parts))
    if change.name is not None and not change.name.strip():
        raise Refusal("$.name", "is empty; expected a name")
    return replace(
        job,
        name=job.name if change.name is None else change.name.strip(),
        unit=change.unit or job.unit,
        shop=change.shop or job.shop,
        parts=tuple(parts),
        boards=tuple(boards),
        measures=job.measures if change.measures is None else change.measures,
    )


def _formulas(job: Job, change: Change) -> tuple[Job, Change]:
    """Job and change with every formula worked out anew, in the unit the project will have."""
    measures = job.measures if change.measures is None else change.measures
    if (
        not measures
        and not any(p.formulas for p in job.parts)
        and not any(p.what.formulas for p in change.put_parts)
    ):
        return job, change
    try:
        if change.unit and change.unit != job.unit:
            measures, parts = in_other_unit(measures, job.parts, job.unit)
            job, change = replace(job, parts=parts), replace(change, measures=measures)
        unit = change.unit or job.unit
        values = values_of(measures, unit)
    except MeasureTrouble as problem:
        raise Refusal(f"$.measures.{problem.name}", problem.why) from None
    gone = change.remove_parts | {p.was or p.what.id for p in change.put_parts}

    def anew(part: Part) -> Part:
        return worked_out_anew(part, unit, values, f"part {part.id}")

    parts = tuple(p if p.id in gone else anew(p) for p in job.parts)
    return replace(job, parts=parts), replace(
        change, put_parts=tuple(replace(p, what=anew(p.what)) for p in change.put_parts)
    )


def _put(things: list[Thing], puts: tuple[Put[Thing], ...], path: str) -> list[Thing]:
    for i, put in enumerate(puts):
        if not put.what.id.strip():
            raise Refusal(f"{path}[{i}].id", "is empty; expected a mark such as A or O1")
        was = put.was or put.what.id
        at = next((k for k, thing in enumerate(things) if thing.id == was), None)
        taken = any(thing.id == put.what.id and k != at for k, thing in enumerate(things))
        if taken:
            raise Refusal(f"{path}[{i}].id", f"'{put.what.id}' is taken; expected every mark once")
        if at is None:
            things.append(put.what)
        else:
            things[at] = put.what
    return things
