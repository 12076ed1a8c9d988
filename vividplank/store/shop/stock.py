"""The stock room: every board of every project, and the rack, which holds boards and offcuts of
none.
"""

from dataclasses import dataclass, replace
from typing import Literal

from sqlalchemy import select, text
from sqlalchemy.orm import Session

from vividplank.core.board import Board
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put
from vividplank.core.layout.model.plan import Plan
from vividplank.core.milling import Route
from vividplank.core.refusal import Refusal
from vividplank.core.shop import Shop
from vividplank.core.yields import account
from vividplank.core.yields.keeping import racked
from vividplank.store import layouts, projects
from vividplank.store.errors import NotFoundError
from vividplank.store.models import BoardCutRow, ProjectRow

State = Literal["free", "planned", "cut"]
RACK = "The rack"


@dataclass(frozen=True)
class Entry:
    """A board and where it is; `used_for` names what a standing plan cuts from it, in full."""

    project: int
    project_name: str
    rack: bool
    version: int
    board: Board
    state: State
    used_for: tuple[str, ...]


def rack(session: Session, *, lock: bool = False) -> projects.Project:
    """The rack, made when it is first asked for; with `lock` nobody else edits it until this is
    done.
    """
    found = _rack(session)
    if found is None:
        session.execute(text("select pg_advisory_xact_lock(hashtext('vivid-plank rack'))"))
        found = _rack(session)
    if found is None:
        made = projects.add(session, Job(RACK, Shop(), (), ()), "in")
        session.get_one(ProjectRow, made.pk).rack = True
        session.flush()
        found = made.pk
    if lock:
        session.execute(select(ProjectRow.pk).where(ProjectRow.pk == found).with_for_update())
    return projects.load(session, found)


def entries(session: Session) -> list[Entry]:
    """All boards, those of the rack first, then project by project."""
    found: list[Entry] = []
    for pk in session.scalars(
        select(ProjectRow.pk).order_by(ProjectRow.rack.desc(), ProjectRow.pk)
    ):
        project = projects.load(session, pk)
        standing = layouts.standing(session, pk)
        plan, job = (standing.plan, standing.job) if standing else (None, project.job)
        cut = _cut(session, standing.pk) if standing else set()
        for board in project.job.boards:
            used = _used_for(job, plan, board.id) if plan else ()
            state: State = "cut" if board.id in cut else "planned" if used else "free"
            found.append(
                Entry(pk, project.job.name, project.rack, project.version, board, state, used)
            )
    return found


def move(session: Session, from_project: int, version: int, board_id: str, to_project: int) -> str:
    """Carry a board to another project or the rack, with everything known of it; answers its mark
    there.

    A mark that is taken there gets a figure added. VersionConflict or NotFoundError leave both as
    they were.
    """
    here, there = projects.load(session, from_project), projects.load(session, to_project)
    board = next((b for b in here.job.boards if b.id == board_id), None)
    if board is None:
        raise NotFoundError(f"board {board_id} is not there any more")
    if from_project == to_project:
        raise Refusal("$.to_project", "the board is there already; expected another place")
    standing = layouts.standing(session, from_project)
    if standing and board_id in _cut(session, standing.pk):
        raise Refusal("$.board", "has been cut up; its offcuts are on the rack")
    if standing and standing.plan:
        done = layouts.steps_done(session, standing.pk)
        if board_id in layouts.boards_of(standing.plan, done):
            raise Refusal("$.board", "is being cut; expected one nobody has begun")
    id = _free(board.id, {b.id for b in there.job.boards})
    projects.edit(
        session,
        from_project,
        version,
        Change(f"board {board.id} carried off", remove_boards=frozenset({board.id})),
    )
    put = replace(board, id=id)
    projects.edit(
        session, to_project, there.version, Change(f"board {id} brought in", put_boards=(Put(put),))
    )
    return id


def cut_up(session: Session, layout_pk: int, board_id: str, route: Route) -> tuple[str, ...]:
    """A board has been cut by this route: what is worth keeping of it goes to the rack, once.
    Answers the marks.
    """
    if board_id in _cut(session, layout_pk):
        return ()
    layout = layouts.load(session, layout_pk)
    session.add(BoardCutRow(layout=layout_pk, board=board_id))
    session.flush()
    now = projects.load(session, layout.project)
    # What is worth keeping is asked of the shop as it is today; the board was cut as the plan knew
    # it.
    keep = now.job.shop.keep
    cut = replace(layout.job, shop=replace(layout.job.shop, keep=keep))
    kept = racked(account(cut, [route]).kept, keep, now.job.name).get(board_id, ())
    brought_in = {b.id for b in layout.job.boards}  # as boards of the project, by a replan
    kept = tuple(b for b in kept if b.id not in brought_in)
    if not kept:
        return ()
    shelf = rack(session, lock=True)
    taken = {b.id for b in shelf.job.boards}
    named: list[Board] = []
    for piece in kept:
        named.append(replace(piece, id=_free(piece.id, taken)))
        taken.add(named[-1].id)
    change = Change(
        f"offcuts of {board_id}, {now.job.name}", put_boards=tuple(Put(b) for b in named)
    )
    projects.edit(session, shelf.pk, shelf.version, change)
    return tuple(b.id for b in named)


def _rack(session: Session) -> int | None:
    return session.scalar(select(ProjectRow.pk).where(ProjectRow.rack).limit(1))


def _cut(session: Session, layout: int) -> set[str]:
    return set(session.scalars(select(BoardCutRow.board).where(BoardCutRow.layout == layout)))


def _used_for(job: Job, plan: Plan, board: str) -> tuple[str, ...]:
    names = {p.id: p.name or p.id for p in job.parts}
    counts: dict[str, int] = {}
    for where, _, _, _, item in plan.items():
        if where.board == board:
            counts[item.part] = counts.get(item.part, 0) + 1
    return tuple(
        f"{n} × {names[part]}" if n > 1 else names[part]
        for part, n in counts.items()
        if part in names
    )


def _free(id: str, taken: set[str]) -> str:
    if id not in taken:
        return id
    return next(f"{id}.{n}" for n in range(2, len(taken) + 3) if f"{id}.{n}" not in taken)
