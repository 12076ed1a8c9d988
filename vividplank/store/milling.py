"""How a project is milled, the days planned for its standing layout, and what the shop's own times
say.
"""

from collections.abc import Mapping
from dataclasses import asdict, dataclass
from datetime import date, datetime
from typing import Any

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from vividplank.core.job import Job
from vividplank.core.milling.days.day import Days, Setup
from vividplank.core.milling.days.resting import Resting
from vividplank.core.milling.days.resting import resting as days_resting
from vividplank.core.milling.route.routes import usual_milling
from vividplank.core.milling.shop.document import milling_from_document, milling_to_document
from vividplank.core.milling.shop.school import Milling
from vividplank.core.milling.shop.workshop import own_document
from vividplank.store import projects, workshops
from vividplank.store.errors import NotFoundError, VersionConflict
from vividplank.store.layouts import Layout
from vividplank.store.models import LayoutRow, ProjectRow, StepDoneRow

_EPOCH = date(1970, 1, 1)


@dataclass(frozen=True)
class Done:
    """A step ticked off."""

    key: str
    at: datetime
    reading: int | None
    minutes: float | None


@dataclass(frozen=True)
class Planned:
    """Days asked for. `state`: asked, done, failed; `begins` the date (ISO) of the first, `on_day`
    what was fixed by hand, `people` and `minutes` the day they were planned for.
    """

    state: str
    begins: str
    on_day: Mapping[str, int]
    trouble: str
    days: Days | None


def of_project(session: Session, pk: int, job: Job) -> Milling:
    """Its own settings, or the usual, in its workshop."""
    return settings(session, pk, job)[0]


def settings(session: Session, pk: int, job: Job) -> tuple[Milling, int]:
    """The same, with their version: how often those of the project or its workshop were set."""
    found = session.execute(
        select(ProjectRow.milling, ProjectRow.milling_version).where(ProjectRow.pk == pk)
    ).one_or_none()
    if found is None:
        raise NotFoundError("there is no such project; it may have been removed")
    kept, version = found
    usual = usual_milling(job)
    own = milling_from_document({"school": usual.school, **kept}) if kept else usual
    place = workshops.of_project(session, pk)
    return place.workshop.milling(own), version + place.version


def set_for(session: Session, pk: int, milling: Milling, version: int) -> int:
    """Keep them if they are still at that version; answers the new one. VersionConflict leaves them
    as they were. Machines, waits and hours are those of the workshop, for all its projects.

    They are no edit of the project: its own version stays.
    """
    found = session.execute(
        select(ProjectRow.milling, ProjectRow.milling_version)
        .where(ProjectRow.pk == pk)
        .with_for_update()
    ).one_or_none()
    if found is None:
        raise NotFoundError("there is no such project; it may have been removed")
    was, counted = found.milling, int(found.milling_version)
    place = workshops.of_project(session, pk)
    if counted + place.version != version:
        raise VersionConflict(counted + place.version)
    shared = place.workshop.changed_by(milling)
    if shared != place.workshop:
        place = workshops.put(session, place.pk, place.name, shared, place.version)
    own = own_document(milling_to_document(milling))
    if own != was:
        counted += 1
        session.execute(
            update(ProjectRow)
            .where(ProjectRow.pk == pk)
            .values(milling=own, milling_version=counted),
            execution_options={"synchronize_session": False},
        )
        session.expire_all()
    return counted + place.version


def done(session: Session, layout: int) -> dict[str, Done]:
    """The steps ticked off, by key."""
    rows = session.scalars(select(StepDoneRow).where(StepDoneRow.layout == layout))
    return {r.key: Done(r.key, r.at, r.reading, r.minutes) for r in rows}


@dataclass(frozen=True)
class Time:
    """Minutes that were foretold for some steps, and taken for them."""

    foretold: float
    taken: float


def times(session: Session, layout: int) -> dict[str, Time]:
    """The minutes of a layout's steps whose time is known, by machine."""
    known = select(
        StepDoneRow.machine, func.sum(StepDoneRow.foretold), func.sum(StepDoneRow.minutes)
    ).where(StepDoneRow.layout == layout, StepDoneRow.minutes > 0, StepDoneRow.foretold > 0)
    rows = session.execute(known.group_by(StepDoneRow.machine))
    return {machine: Time(told or 0.0, taken or 0.0) for machine, told, taken in rows}


def ask_days(session: Session, layout: int, begins: str, on_day: Mapping[str, int]) -> None:
    """Days are to be planned; what stood before stays until they are."""
    row = _layout(session, layout)
    before = row.days or {}
    row.days = {
        "state": "asked",
        "begins": begins,
        "on_day": dict(on_day),
        "trouble": "",
        "days": before.get("days"),
    }
    session.flush()


def resting(session: Session, layout: Layout, begins: str) -> tuple[Resting, ...]:
    """The boards of a layout that may not be worked on its first day yet, by the last readings of
    them and the air of the workshop.
    """
    now = {b.id: b for b in projects.load(session, layout.project).job.boards}
    boards = [now.get(b.id, b) for b in layout.job.boards]
    climate = workshops.of_project(session, layout.project).workshop.climate
    return days_resting(boards, climate, (date.fromisoformat(begins) - _EPOCH).days)


def keep_days(session: Session, layout: int, days: Days | None, trouble: str = "") -> None:
    """What came of it; with trouble the days that stood before stay."""
    row = _layout(session, layout)
    now = dict(row.days or {})
    now |= {"state": "failed" if trouble else "done", "trouble": trouble}
    if days is not None:
        now["days"] = asdict(days)
    row.days = now
    session.flush()


def planned(session: Session, layout: int) -> Planned | None:
    """None where nobody has asked for days."""
    kept = _layout(session, layout).days
    if kept is None:
        return None
    return Planned(
        kept["state"], kept["begins"], kept["on_day"], kept["trouble"], _days(kept["days"])
    )


def unplanned(session: Session) -> list[int]:
    """Layouts whose days were asked for and are not planned yet."""
    return list(
        session.scalars(select(LayoutRow.pk).where(LayoutRow.days["state"].as_string() == "asked"))
    )


def _days(kept: dict[str, Any] | None) -> Days | None:
    if kept is None:
        return None
    return Days(
        **{
            **kept,
            "setups": tuple(Setup(**{**s, "steps": tuple(s["steps"])}) for s in kept["setups"]),
        }
    )


def _layout(session: Session, pk: int) -> LayoutRow:
    row = session.get(LayoutRow, pk)
    if row is None:
        raise NotFoundError("there is no such layout; its project may have been removed")
    return row
