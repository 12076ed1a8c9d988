"""How a project is milled, the days planned for its standing layout, and what the shop's own times
say.
"""

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from datetime import datetime
from statistics import median
from typing import Any

from sqlalchemy import func, select, update
from sqlalchemy.orm import Session

from vividplank.core.job import Job
from vividplank.core.milling.days.day import Days, Setup
from vividplank.core.milling.route.routes import usual_milling
from vividplank.core.milling.shop.document import milling_from_document, milling_to_document
from vividplank.core.milling.shop.pace import Factors
from vividplank.core.milling.shop.school import Milling
from vividplank.store.errors import NotFoundError, VersionConflict
from vividplank.store.models import LayoutRow, ProjectRow, StepDoneRow

#: A shop's own times count once so many steps at a machine have them,
_ENOUGH = 5
#: and within these bounds: a tap forgotten over lunch is no slow planer.
_LEAST, _MOST = 0.25, 4.0


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
    """Its own settings, or the usual."""
    return settings(session, pk, job)[0]


def settings(session: Session, pk: int, job: Job) -> tuple[Milling, int]:
    """The same, with their version."""
    found = session.execute(
        select(ProjectRow.milling, ProjectRow.milling_version).where(ProjectRow.pk == pk)
    ).one_or_none()
    if found is None:
        raise NotFoundError("there is no such project; it may have been removed")
    kept, version = found
    usual = usual_milling(job)
    return milling_from_document({"school": usual.school, **kept}) if kept else usual, version


def set_for(session: Session, pk: int, milling: Milling, version: int) -> int:
    """Keep them if they are still at that version; answers the new one. VersionConflict leaves them
    as they were.

    They are no edit of the project: its own version stays.
    """
    of = update(ProjectRow).where(ProjectRow.pk == pk, ProjectRow.milling_version == version)
    kept = session.execute(
        of.values(milling=milling_to_document(milling), milling_version=version + 1).returning(
            ProjectRow.milling_version
        ),
        execution_options={"synchronize_session": False},
    ).scalar()
    if kept is None:
        now = session.scalar(select(ProjectRow.milling_version).where(ProjectRow.pk == pk))
        if now is None:
            raise NotFoundError("there is no such project; it may have been removed")
        raise VersionConflict(now)
    return kept


def to_begin_with(session: Session) -> dict[str, Any] | None:
    """What a new project begins with: machines, hours and waits as they were last set anywhere, and
    keeps from then on.
    """
    latest = session.scalar(
        select(ProjectRow.milling)
        .where(ProjectRow.milling.is_not(None), ~ProjectRow.rack)
        .order_by(ProjectRow.edited.desc())
        .limit(1)
    )
    return latest and {
        name: value
        for name, value in latest.items()
        if name not in ("exceptions", "fitted", "school", "chosen", "own")
    }


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


def factors(session: Session) -> Factors:
    """How much longer than foretold this shop takes at each machine: the median over all steps
    whose time is known.
    """
    shares: defaultdict[str, list[float]] = defaultdict(list)
    known = select(StepDoneRow.machine, StepDoneRow.minutes, StepDoneRow.foretold).where(
        StepDoneRow.minutes > 0, StepDoneRow.foretold > 0
    )
    for machine, taken, foretold in session.execute(known):
        if taken and foretold:
            shares[machine].append(taken / foretold)
    return {m: min(max(median(s), _LEAST), _MOST) for m, s in shares.items() if len(s) >= _ENOUGH}


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
