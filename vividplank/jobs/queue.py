"""The queue and its tasks. More workers on more machines need nothing but the database's
address.
"""

import logging
import threading
import time

import procrastinate
from sqlalchemy.exc import DBAPIError

from vividplank.core.job import Job
from vividplank.core.layout.explain.what_ifs import WhatIf, what_ifs
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.limits import Limits, Progress
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.reoptimise import solve
from vividplank.core.log.replan import Remaining
from vividplank.core.milling import routes
from vividplank.core.milling.days.day import CannotStand
from vividplank.core.milling.days.day_solver import plan_days as solve_days
from vividplank.core.milling.days.resting import not_begun, ready_from
from vividplank.jobs.processes import process_count
from vividplank.jobs.reading import read_drawing
from vividplank.jobs.trips import Processes, make_trips
from vividplank.store import buying, drawings, layouts, milling, projects
from vividplank.store import log as happenings
from vividplank.store.database import database_url, gone, session
from vividplank.store.errors import InDoubt, NotFoundError
from vividplank.store.layouts import Layout
from vividplank.store.shop import books

log = logging.getLogger("vividplank.jobs")

#: Set when this worker is asked to end: its search is handed back, for the next worker to take up.
ending = threading.Event()

#: How often a search writes down how far it is.
_REPORT_SECONDS = 0.3


def make_app(*, worker: bool = False) -> procrastinate.App:
    """The queue; the web server puts work in through a plain connection, a worker takes it out."""
    connector: procrastinate.BaseConnector
    if worker:
        connector = procrastinate.PsycopgConnector(conninfo=database_url(), min_size=1, max_size=6)
    else:
        connector = procrastinate.SyncPsycopgConnector(
            conninfo=database_url(), min_size=1, max_size=4
        )
    app = procrastinate.App(connector=connector)
    app.add_tasks_from(tasks, namespace="plank")
    return app


tasks = procrastinate.Blueprint()


@tasks.task(name="lay_out", queue="layout")
def lay_out(layout: int) -> None:
    """Search for a plan for one layout and write it down; a layout that is gone or finished is
    nobody's work.
    """
    try:
        with session() as opened:
            found = layouts.load(opened, layout)
            if found.state not in ("waiting", "searching"):
                return
            found = layouts.begin(opened, layout)
            before = layouts.plan_of(opened, found.parent)
            rest = happenings.left(opened, found.project, found.job)
    except NotFoundError:
        return
    told = -_REPORT_SECONDS
    going = True

    def watch(progress: Progress) -> bool:
        nonlocal told, going
        if time.monotonic() - told >= _REPORT_SECONDS:
            told = time.monotonic()
            try:
                with session() as opened:
                    going = layouts.report(opened, layout, progress)
            except DBAPIError as problem:
                if not gone(problem):
                    raise
                log.warning("the database is away; the search of layout %s goes on", layout)
        return going and not ending.is_set()

    try:
        job, task = _left(found, before, rest)
        plan = solve(job, limits_of(found), time.monotonic, watch, task)
        with session() as opened:
            if going and ending.is_set():
                layouts.hand_back(opened, layout)
                return
            now = happenings.left(opened, found.project, found.job)
            if now != rest:  # wood was cut meanwhile that this plan needs whole
                log.info("layout %s: something happened to the wood; it is searched anew", layout)
                layouts.hand_back(opened, layout)
                return
            if rest:
                layouts.finish(opened, layout, rest.whole, rest.merged(plan))
            else:
                layouts.finish(opened, layout, found.job, plan)
    except NotFoundError:
        log.info("layout %s was removed while it was searched for", layout)
    except Exception as problem:
        if isinstance(problem, InDoubt) or (isinstance(problem, DBAPIError) and gone(problem)):
            # It stands as being searched for, so whoever looks round next takes it up again.
            log.warning(
                "the database went away; layout %s is searched for again when it is back", layout
            )
            return
        log.exception("the search of layout %s failed", layout)
        with session() as opened:
            layouts.fail(opened, layout, "the search failed; the worker's log says why")


def limits_of(layout: Layout) -> Limits:
    """How long a layout is searched for: as long as asked, in as many processes as there may be."""
    return Limits(seconds=layout.seconds, workers=process_count())


def _left(found: Layout, plan: Plan | None, rest: Remaining | None) -> tuple[Job, Task]:
    """What is to be laid out: all of it, or what is left where some has been begun."""
    return (rest.job, rest.task(found.fixings)) if rest else (found.job, Task(found.fixings, plan))


@tasks.task(name="think", queue="thinking")
def think(layout: int, seconds: float = 2.0) -> None:
    """Think about what else might be cheaper than a plan, so long for each idea."""
    try:
        with session() as opened:
            found = layouts.load(opened, layout)
            system = projects.load(opened, found.project).system
            rest = happenings.left(opened, found.project, found.job)
        if found.plan is None:
            return
        job, task = _left(found, found.plan, rest)
        if task.plan is None:
            with session() as opened:
                layouts.think(opened, layout, (), done=True)
            return
        so_far: list[WhatIf] = []

        def told(thought: WhatIf) -> bool:
            so_far.append(thought)
            with session() as opened:
                layouts.think(opened, layout, so_far, done=False)
            return not ending.is_set()

        limits = Limits(seconds=seconds)
        thought = what_ifs(job, task.plan, system, limits, time.monotonic, task, told)
        with session() as opened:
            layouts.think(opened, layout, thought, done=True)
    except NotFoundError:
        log.info("layout %s was removed while it was thought about", layout)


@tasks.task(name="plan_days", queue="days")
def plan_days(layout: int, seconds: float = 7.0) -> None:
    """Plan the shop's days for what is left to do of a layout."""
    try:
        with session() as opened:
            found = layouts.load(opened, layout)
            asked = milling.planned(opened, layout)
            how = milling.of_project(opened, found.project, found.job)
            factors = books.factors(opened, found.project)
            done = layouts.steps_done(opened, layout)
            waiting = milling.resting(opened, found, asked.begins) if asked else ()
        if found.plan is None or asked is None or asked.state != "asked":
            return
        by_board = routes(found.job, found.plan, how, factors)
        steps = [s for r in by_board for s in r.steps if s.key not in done]
        ready = ready_from(by_board, not_begun(by_board, waiting, done))
        days, trouble = None, ""
        try:
            days = solve_days(steps, how, seconds, asked.on_day, process_count(), ready)
        except CannotStand as refused:
            trouble = str(refused)
        with session() as opened:
            milling.keep_days(opened, layout, days, trouble)
    except NotFoundError:
        log.info("layout %s was removed while its days were planned", layout)
    except Exception:
        log.exception("planning the days of layout %s failed", layout)
        with session() as opened:
            milling.keep_days(opened, layout, None, "planning failed; the worker's log says why")


@tasks.task(name="read", queue="reading")
def read(drawing: int) -> None:
    """Read one drawing, in a process with limits."""
    try:
        read_drawing(drawing)
    except Exception:
        log.exception("reading drawing %s failed", drawing)
        with session() as opened:
            drawings.fail(opened, drawing, "reading failed; the worker's log says why")


def ask_to_read(app: procrastinate.App, drawing: int) -> None:
    """Put a drawing on the queue, unless it waits there already."""
    _ask(app, "plank:read", f"drawing-{drawing}", "reading", drawing=drawing)


@tasks.task(name="simulate", queue="buying")
def simulate(estimate: int) -> None:
    """Simulate the trips that this estimate wants and all others that want any meanwhile, in as
    many processes as there may be.
    """
    workers = process_count()
    with session() as opened:
        waiting = buying.unfinished(opened)
    if estimate in waiting:
        with Processes(workers) as pool:
            make_trips(pool, workers, lambda: not ending.is_set())


def ask_to_simulate(app: procrastinate.App, estimate: int) -> None:
    """Put an estimate on the queue, unless it waits there already."""
    _ask(app, "plank:simulate", f"estimate-{estimate}", "buying", estimate=estimate)


def ask_to_think(app: procrastinate.App, layout: int) -> None:
    """Put a layout on the queue to be thought about, unless it waits there already."""
    _ask(app, "plank:think", f"think-{layout}", "thinking", layout=layout)


def ask_for_days(app: procrastinate.App, layout: int) -> None:
    """Put a layout on the queue for its days to be planned, unless it waits there already."""
    _ask(app, "plank:plan_days", f"days-{layout}", "days", layout=layout)


def ask_for_work(app: procrastinate.App, layout: int) -> None:
    """Put a layout on the queue, unless it waits there already."""
    _ask(app, "plank:lay_out", f"layout-{layout}", "layout", layout=layout)


def _ask(app: procrastinate.App, task: str, lock: str, queue: str, **about: int) -> None:
    """Where the queue cannot be reached the work is not lost: what was asked for stands in the
    database, and a worker that looks round finds it.
    """
    try:
        app.configure_task(task, queueing_lock=lock, queue=queue).defer(**about)
    except procrastinate.exceptions.AlreadyEnqueued:
        log.info("%s waits on the queue already", lock)
    except procrastinate.exceptions.ConnectorException as problem:
        log.warning("%s could not be put on the queue now: %s", lock, problem)
