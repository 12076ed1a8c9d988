"""The books of a workshop: what its projects have done with their wood, and what it learns of it.

What a layout's steps have done to its boards is worked out once and kept until something more
happens in its project.
"""

import hashlib
import json
from collections.abc import Iterable
from dataclasses import dataclass

from pydantic import TypeAdapter
from sqlalchemy import func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from vividplank.core.learning.learned import (
    Learned,
    NeedSeen,
    StepSeen,
    WoodSeen,
    in_use,
    learned,
)
from vividplank.core.learning.needed import Needed, needed
from vividplank.core.log.events import Found, Spoiled
from vividplank.core.milling.shop.pace import Factors
from vividplank.core.milling.shop.workshop import workshop_to_document
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES, account
from vividplank.core.yields.books import BoardBooks, Loss
from vividplank.store import layouts, log, workshops
from vividplank.store.layouts import Layout
from vividplank.store.models import AccountRow, EventRow, LayoutRow, ProjectRow, StepDoneRow


@dataclass(frozen=True)
class _Account:
    """What the steps of a layout did to its boards, and what its pieces needed."""

    boards: tuple[BoardBooks, ...] = ()
    needs: tuple[Needed, ...] = ()


_ACCOUNT: TypeAdapter[_Account] = TypeAdapter(_Account)


def of_workshop(session: Session, workshop: int) -> tuple[BoardBooks, ...]:
    """Every board its projects have cut into, project by project."""
    return tuple(b for _, kept in _accounts(session, workshop) for b in kept.boards)


def _accounts(session: Session, workshop: int) -> list[tuple[int, _Account]]:
    """By project, of those that have a plan."""
    place = workshops.load(session, workshop)
    projects = session.execute(
        select(ProjectRow.pk, ProjectRow.name, ProjectRow.milling)
        .where(ProjectRow.workshop == workshop, ~ProjectRow.rack)
        .order_by(ProjectRow.pk)
    )
    found: list[tuple[int, _Account]] = []
    for pk, name, own in projects.all():
        standing = select(func.max(LayoutRow.pk)).where(
            LayoutRow.project == pk, LayoutRow.plan.is_not(None), LayoutRow.undone.is_(False)
        )
        layout = session.scalar(standing)
        if layout:
            how = (workshop_to_document(place.workshop), own)
            found.append((pk, _of_layout(session, pk, name, layout, how)))
    return found


def _of_layout(session: Session, project: int, name: str, layout: int, how: object) -> _Account:
    """Of the standing layout of a project; `how` it is milled, as JSON values."""
    done = session.execute(
        select(StepDoneRow.key, StepDoneRow.at).where(StepDoneRow.layout == layout)
    ).all()
    if not done:
        return _Account()
    events = session.scalar(select(func.count()).where(EventRow.project == project))
    said = ["with needs", name, sorted((r.key, r.at.isoformat()) for r in done), events, how]
    made_from = hashlib.sha256(json.dumps(said, sort_keys=True).encode()).hexdigest()
    kept = session.execute(
        select(AccountRow.made_from, AccountRow.document).where(AccountRow.layout == layout)
    ).one_or_none()
    if kept and kept.made_from == made_from:
        return _ACCOUNT.validate_python(kept.document)
    months = {r.key: r.at.strftime("%Y-%m") for r in done}
    done_so_far = _worked_out(session, layouts.load(session, layout), name, months)
    values = {"made_from": made_from, "document": _ACCOUNT.dump_python(done_so_far, mode="json")}
    # Two who ask at once both work it out, and the later writes the same.
    put = insert(AccountRow).values(layout=layout, **values)
    session.execute(put.on_conflict_do_update(index_elements=[AccountRow.layout], set_=values))
    return done_so_far


def _worked_out(session: Session, layout: Layout, name: str, months: dict[str, str]) -> _Account:
    assert layout.plan
    events = [e.event for e in log.entries(session, layout.project) if e.stands]
    made = log.routes_of(session, layout)
    planned = {b.board: b.where for b in account(layout.job, made, layout.plan.closed).boards}
    real = account(layout.job, made, layout.plan.closed, set(months))
    why = {e.piece: e.why for e in events if isinstance(e, Spoiled)}
    nothing = dict.fromkeys(CATEGORIES, 0)
    found = []
    for board in real.boards:
        wood = layout.job.board(board.board)
        own = [m for key, m in months.items() if _is_of(key.split("/")[0], board.board)]
        lost = [e for e in real.entries if e.board == board.board and e.category == "lost to error"]
        found.append(
            BoardBooks(
                layout.project,
                name,
                board.board,
                wood.species,
                wood.grade,
                max(own or months.values()),
                board.rough,
                board.price,
                planned.get(board.board, nothing),
                board.where,
                sum(isinstance(e, Found) and _is_of(e.piece, board.board) for e in events),
                tuple(Loss(e.what, why.get(e.what, ""), round(e.volume)) for e in lost),
                wood.supplier,
            )
        )
    return _Account(tuple(found), needed(made, events))


def _is_of(mark: str, board: str) -> bool:
    """Whether a piece came out of a board, by its mark: W1.2b out of W1."""
    return mark == board or mark.startswith(f"{board}.")


def steps_seen(session: Session, workshop: int) -> list[StepSeen]:
    """Every step done in a workshop once, also where its tick stands in several plans."""
    rows = session.execute(
        select(StepDoneRow, LayoutRow.project)
        .join(LayoutRow, LayoutRow.pk == StepDoneRow.layout)
        .join(ProjectRow, ProjectRow.pk == LayoutRow.project)
        .where(ProjectRow.workshop == workshop)
        .order_by(StepDoneRow.layout, StepDoneRow.at, StepDoneRow.key)
    )
    once = {(project, r.key, r.at): (project, r) for r, project in rows}
    return [
        StepSeen(project, r.machine, r.foretold, r.minutes, r.passes_foretold, r.passes)
        for project, r in once.values()
    ]


def woods_seen(boards: Iterable[BoardBooks]) -> list[WoodSeen]:
    """The boards that are cut up, by project and wood."""
    found: dict[tuple[int, str], WoodSeen] = {}
    for b in boards:
        if b.cut_up:
            was = found.get((b.project, b.wood), WoodSeen(b.project, b.wood, 0, 0))
            found[b.project, b.wood] = WoodSeen(
                b.project,
                b.wood,
                was.rough + float(cubic_board_feet(b.rough)),
                was.parts + float(cubic_board_feet(b.real["parts"])),
                was.faults + b.faults,
            )
    return list(found.values())


def learned_in(session: Session, workshop: int) -> tuple[Learned, ...]:
    """All figures a workshop has learned."""
    kept = workshops.load(session, workshop)
    accounts = _accounts(session, workshop)
    woods = woods_seen(b for _, a in accounts for b in a.boards)
    needs = [NeedSeen(project, n) for project, a in accounts for n in a.needs]
    return learned(steps_seen(session, workshop), woods, kept.workshop.unused, needs)


def of_steps(session: Session, project: int) -> tuple[Learned, ...]:
    """The minutes and passes that the project's workshop has learned."""
    place = workshops.of_project(session, project)
    return learned(steps_seen(session, place.pk), (), place.workshop.unused)


def factors(session: Session, project: int) -> Factors:
    """How many times the foretold minutes a step takes at each machine, as far as that has been
    learned and is used.
    """
    return in_use(of_steps(session, project), "minutes")
