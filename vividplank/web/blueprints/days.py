"""The shop's days: asked for, moved by hand, as a calendar and on paper."""

from datetime import UTC, date, datetime, timedelta

import icalendar
from flask import Response
from flask_openapi3 import APIBlueprint
from sqlalchemy.orm import Session

from vividplank.core.exchange import Refusal
from vividplank.core.exchange.paper.route_pdf import setting_sheets
from vividplank.core.measure import System
from vividplank.core.milling import Milling, Route, Step, recent_routes
from vividplank.core.milling.bench.words import setting_name
from vividplank.core.milling.days.day import Days
from vividplank.core.milling.days.resting import not_begun
from vividplank.store import layouts, projects
from vividplank.store import milling as kept
from vividplank.store.database import session
from vividplank.store.errors import NothingToUndo
from vividplank.store.layouts import Layout
from vividplank.store.shop import books
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.milling import AskDays, DaysBody, SetupBody
from vividplank.web.schemas.project import LayoutPath, TroubleBody

area = APIBlueprint(
    "days",
    __name__,
    url_prefix="/api",
    abp_responses={404: TroubleBody, 409: TroubleBody, 422: TroubleBody},
)
_NONE = Days((), 0, 0, 0, 0, False)


@area.post("/layouts/<int:layout>/days", responses={202: DaysBody})
def ask_for_days(path: LayoutPath, body: AskDays) -> Response:
    """Plan what is left to do, from a first day on; `on_day` holds settings to days by their
    names.
    """
    try:
        begins = date.fromisoformat(body.begins)
    except ValueError:
        raise Refusal("$.begins", f"expected a date like 2026-03-09, not {body.begins}") from None
    if not 2000 <= begins.year < 2200:  # a plan of days goes some way beyond its first
        raise Refusal("$.begins", f"expected a day from 2000 to 2199, not {body.begins}")
    with session() as opened:
        layouts.with_plan(opened, path.layout)
        kept.ask_days(opened, path.layout, body.begins, body.on_day)
    ask().plan_days(path.layout)
    with session() as opened:
        return answer.body(_days_body(opened, path.layout), 202)


@area.get("/layouts/<int:layout>/days", responses={200: DaysBody})
def get_days(path: LayoutPath) -> Response:
    with session() as opened:
        return answer.body(_days_body(opened, path.layout))


@area.get("/layouts/<int:layout>/days.ics", responses={200: None})
def get_calendar(path: LayoutPath) -> Response:
    """The days as a calendar, in the shop's own time wherever it is read."""
    with session() as opened:
        layout, how, found, days, begins = _planned(opened, path.layout)
        system = projects.load(opened, layout.project).system
    calendar = icalendar.Calendar()
    calendar.add("prodid", "-//Vivid Plank//shop days//EN")
    calendar.add("version", "2.0")
    steps = _by_key(found)
    for n, setup in enumerate(days.setups):
        for part, (start, end) in enumerate(_spans(setup.begins, setup.ends, how, begins)):
            event = icalendar.Event()
            event.add("uid", f"layout-{path.layout}-{n}-{part}@vivid-plank")
            event.add("dtstamp", datetime.now(UTC))
            event.add("dtstart", start)
            event.add("dtend", end)
            first = steps.get(setup.steps[0])
            event.add(
                "summary",
                f"{setup.machine}: {_named(first, setup.setup, system)} ({layout.job.name})",
            )
            event.add(
                "description",
                "\n".join(f"{steps[k].piece}: {steps[k].do}" for k in setup.steps if k in steps),
            )
            calendar.add_component(event)
    return answer.file(calendar.to_ical(), f"{layout.job.name}.ics", "text/calendar")


@area.get("/layouts/<int:layout>/settings.pdf", responses={200: None})
def get_setting_sheets(path: LayoutPath) -> Response:
    """A sheet for each machine, on paper."""
    with session() as opened:
        layout, how, found, days, _ = _planned(opened, path.layout)
        system = projects.load(opened, layout.project).system
    sheets = setting_sheets(layout.job, found, days, how.hours, system)
    return answer.file(sheets, f"{layout.job.name} settings.pdf", "application/pdf")


def _planned(opened: Session, pk: int) -> tuple[Layout, Milling, tuple[Route, ...], Days, date]:
    layout, plan = layouts.with_plan(opened, pk)
    how = kept.of_project(opened, layout.project, layout.job)
    planned = kept.planned(opened, pk)
    if planned is None or planned.days is None:
        raise NothingToUndo("no days are planned for this layout yet")
    found = recent_routes(layout.job, plan, how, books.factors(opened, layout.project))
    known = _by_key(found)
    setups = tuple(s for s in planned.days.setups if all(k in known for k in s.steps))
    if len(setups) < len(planned.days.setups):
        raise NothingToUndo("the steps have changed since these days were planned; plan them again")
    return layout, how, found, planned.days, date.fromisoformat(planned.begins)


def _days_body(opened: Session, pk: int) -> DaysBody:
    layout, plan = layouts.with_plan(opened, pk)
    planned = kept.planned(opened, pk)
    how = kept.of_project(opened, layout.project, layout.job)
    hours = how.hours
    system = projects.load(opened, layout.project).system
    days = (planned.days if planned else None) or _NONE
    found = recent_routes(layout.job, plan, how, books.factors(opened, layout.project))
    steps = _by_key(found)
    done = layouts.steps_done(opened, pk)
    covered = {k for s in days.setups for k in s.steps}
    begins = planned.begins if planned else date.today().isoformat()
    waiting = kept.resting(opened, layout, begins)
    return DaysBody(
        state=planned.state if planned else "none",  # type: ignore[arg-type]
        begins=planned.begins if planned else "",
        on_day=dict(planned.on_day) if planned else {},
        trouble=planned.trouble if planned else "",
        setups=[
            SetupBody(
                machine=s.machine,
                setup=s.setup,
                number=s.number,
                set_to=_named(steps.get(s.steps[0]), s.setup, system),
                steps=list(s.steps),
                begins=s.begins,
                ends=s.ends,
                day=s.begins // hours.minutes,
                from_clock=hours.begins + s.begins % hours.minutes,
                to_clock=hours.begins + (s.ends - 1) % hours.minutes + 1,
                people=s.people,
            )
            for s in days.setups
        ],
        minutes=days.minutes,
        changes=days.changes,
        least=days.least,
        piece_by_piece=days.piece_by_piece,
        proved=days.proved,
        resting=list(not_begun(found, waiting, done)),
        day_minutes=hours.minutes,
        opens=hours.begins,
        stale=bool(days.setups) and not (set(steps) - done <= covered <= set(steps)),
    )


def _spans(begins: int, ends: int, how: Milling, first: date) -> list[tuple[datetime, datetime]]:
    """What lies between two working minutes, day by day; the calendar's own time zone is the
    shop's.
    """
    long, found = how.hours.minutes, []
    while begins < ends:
        day = begins // long
        until = min(ends, (day + 1) * long)
        midnight = datetime.combine(first + timedelta(days=day), datetime.min.time())
        opens = midnight + timedelta(minutes=how.hours.begins)
        found.append(
            (
                opens + timedelta(minutes=begins - day * long),
                opens + timedelta(minutes=until - day * long),
            )
        )
        begins = until
    return found


def _by_key(found: tuple[Route, ...]) -> dict[str, Step]:
    return {s.key: s for r in found for s in r.steps}


def _named(step: Step | None, setup: str, system: System) -> str:
    return setting_name(step, system) if step else setup
