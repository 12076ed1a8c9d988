"""One edit of a project's job: parts and boards put or removed, shop settings changed, all or nothing."""

from dataclasses import dataclass, field, replace
from typing import Generic, TypeVar

from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.exchange.job_file import check_board, check_part, check_runs
from vividplank.core.exchange.refusal import Refusal
from vividplank.core.job import Job
from vividplank.core.measure import Unit
from vividplank.core.shop import Shop

Thing = TypeVar("Thing", Part, Board)


@dataclass(frozen=True)
class Put(Generic[Thing]):
    """A part or board as it is to be; `was` is the id it had, empty for a new one or an unchanged id."""

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


def changed(job: Job, change: Change) -> Job:
    """The job after the change; a Refusal, and nothing changed, where something in it cannot be."""
    for i, put in enumerate(change.put_parts):
        check_part(put.what, f"$.put_parts[{i}]")
    for i, board in enumerate(change.put_boards):
        check_board(board.what, f"$.put_boards[{i}]")
    parts = _put([p for p in job.parts if p.id not in change.remove_parts], change.put_parts, "$.put_parts")
    boards = _put([b for b in job.boards if b.id not in change.remove_boards], change.put_boards, "$.put_boards")
    check_runs(tuple(parts))
    if change.name is not None and not change.name.strip():
        raise Refusal("$.name", "is empty; expected a name")
    return replace(
        job, name=job.name if change.name is None else change.name.strip(), unit=change.unit or job.unit,
        shop=change.shop or job.shop, parts=tuple(parts), boards=tuple(boards),
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
