"""The books of a workshop: what its projects have done with their wood, and what it learns of it.

What a layout's steps have done to its boards is worked out once and kept until something more
happens in its project.
"""

import hashlib
import json
from collections.abc import Iterable, Sequence

from pydantic import TypeAdapter
from sqlalchemy import select
from sqlalchemy.orm import Session

from vividplank.core.learning.learned import Learned, StepSeen, WoodSeen, in_use, learned
from vividplank.core.log.events import Event, Found, Spoiled
from vividplank.core.milling.shop.document import milling_to_document
from vividplank.core.milling.shop.pace import Factors
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES, account
from vividplank.core.yields.books import BoardBooks, Loss
from vividplank.store import layouts, log, milling, workshops
from vividplank.store.layouts import Layout
from vividplank.store.models import AccountRow, LayoutRow, ProjectRow, StepDoneRow

_BOARDS: TypeAdapter[tuple[BoardBooks, ...]] = TypeAdapter(tuple[BoardBooks, ...])


def of_workshop(session: Session, workshop: int) -> tuple[BoardBooks, ...]:
    """Every board its projects have cut into, project by project."""
    projects = session.execute(
        select(ProjectRow.pk, ProjectRow.name)
        .where(ProjectRow.workshop == workshop, ~ProjectRow.rack)
        .order_by(ProjectRow.pk)
    )
    found: list[BoardBooks] = []
    for pk, name in projects.all():
        layout = layouts.standing(session, pk)
        if layout and layout.plan:
            found += _of_layout(session, layout, name)
    return tuple(found)


def _of_layout(session: Session, layout: Layout, name: str) -> tuple[BoardBooks, ...]:
    rows = session.execute(
        select(StepDoneRow.key, StepDoneRow.at).where(StepDoneRow.layout == layout.pk)
    ).all()
    if not rows:
        return ()
    events = [e.event for e in log.entries(session, layout.project) if e.stands]
    how = milling.of_project(session, layout.project, layout.job)
    said = [
        name,
        sorted((r.key, r.at.isoformat()) for r in rows),
        max((e.n for e in events), default=0),
        len(events),
        milling_to_document(how),
    ]
    made_from = hashlib.sha256(json.dumps(said, sort_keys=True).encode()).hexdigest()
    kept = session.get(AccountRow, layout.pk)
    if kept and kept.made_from == made_from:
        return _BOARDS.validate_python(kept.document["boards"])
    months = {r.key: r.at.strftime("%Y-%m") for r in rows}
    boards = _worked_out(session, layout, name, months, events)
    document = {"boards": _BOARDS.dump_python(boards, mode="json")}
    session.merge(AccountRow(layout=layout.pk, made_from=made_from, document=document))
    session.flush()
    return boards


def _worked_out(
    session: Session, layout: Layout, name: str, months: dict[str, str], events: Sequence[Event]
) -> tuple[BoardBooks, ...]:
    assert layout.plan
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
            )
        )
    return tuple(found)


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
    woods = woods_seen(of_workshop(session, workshop))
    return learned(steps_seen(session, workshop), woods, kept.workshop.unused)


def of_steps(session: Session, project: int) -> tuple[Learned, ...]:
    """The minutes and passes that the project's workshop has learned."""
    place = workshops.of_project(session, project)
    return learned(steps_seen(session, place.pk), (), place.workshop.unused)


def factors(session: Session, project: int) -> Factors:
    """How many times the foretold minutes a step takes at each machine, as far as that has been
    learned and is used.
    """
    return in_use(of_steps(session, project), "minutes")
