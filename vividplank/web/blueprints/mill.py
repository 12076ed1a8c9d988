"""Mill: the steps of the standing plan, the shop they are written for, what is done of them, and
what passes leave.
"""

from collections.abc import Mapping
from datetime import UTC, datetime, timedelta

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.exchange import Refusal
from vividplank.core.exchange.paper.route_pdf import route_cards
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.learning.learned import in_use
from vividplank.core.log.events import Did
from vividplank.core.measure import System
from vividplank.core.milling import Milling, Route, Step, recent_routes, routes
from vividplank.core.milling.bench.reading import judge
from vividplank.core.milling.bench.watch import watch
from vividplank.core.milling.bench.where import whereabouts
from vividplank.core.milling.bench.words import setting_name
from vividplank.core.milling.days.compare import advise, compare
from vividplank.core.milling.shop.cautions import CAUTIONS
from vividplank.core.milling.shop.document import milling_from_document, milling_to_document
from vividplank.core.milling.shop.machines import Machines
from vividplank.core.survey.instruments import NoReading
from vividplank.store import layouts, projects
from vividplank.store import milling as kept
from vividplank.store.database import session
from vividplank.store.milling import Done
from vividplank.store.shop import books, milled
from vividplank.web import answer
from vividplank.web.blueprints.bench import connected, instruments
from vividplank.web.schemas.milling import (
    CaliperBody,
    FrameBody,
    InstrumentBody,
    MeasuredBody,
    MillingBody,
    MillingSettings,
    PassesBody,
    RouteBody,
    SchoolBody,
    SchoolsBody,
    StepBody,
    StepDone,
    VerdictBody,
    WatchedBody,
    WayBody,
    WhereBody,
)
from vividplank.web.schemas.project import LayoutPath, ProjectPath, TroubleBody

area = APIBlueprint(
    "mill", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/milling", responses={200: MillingBody})
def get_milling(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        layout, plan = layouts.standing_plan(opened, path.project)
        how = kept.of_project(opened, path.project, layout.job)
        done = kept.done(opened, layout.pk)
        figures = books.of_steps(opened, path.project)
        factors = in_use(figures, "minutes")
        found = recent_routes(layout.job, plan, how, factors, project.system)
    now, usual = datetime.now(UTC), in_use(figures, "passes")
    steps = {s.key: s for r in found for s in r.steps}
    return answer.body(
        MillingBody(
            layout=layout.pk,
            stale=layout.stale(project.job),
            system=project.system,
            routes=[
                RouteBody(
                    board=r.board,
                    steps=[
                        _step(s, steps, done, how.machines, project.system, now, usual)
                        for s in r.steps
                    ],
                )
                for r in found
            ],
            cautions={machine: list(lines) for machine, lines in CAUTIONS.items()},
            where=[WhereBody(**vars(w)) for w in whereabouts(layout.job, plan, found, done)],
        )
    )


def _step(
    s: Step,
    steps: dict[str, Step],
    done: dict[str, Done],
    machines: Machines,
    system: System,
    now: datetime,
    usual: Mapping[str, float],
) -> StepBody:
    ends = [
        done[k].at + timedelta(minutes=steps[k].hold)
        for k in s.after
        if k in done and steps[k].hold
    ]
    rests = max(ends, default=now)
    dial = {"planer": machines.planer.dial, "jointer": machines.jointer.dial}.get(s.machine)
    shown = {f: getattr(s, f) for f in StepBody.model_fields if hasattr(s, f)}
    for name in ("passes", "pieces", "after", "size", "marks", "takes", "edge"):
        shown[name] = list(shown[name])
    for name in ("knocked", "shims", "fellows"):
        shown[name] = [vars(one) for one in shown[name]]
    return StepBody.model_validate(
        shown
        | {
            "kind": s.kind,
            "gives": [g.piece for g in s.gives],
            "usual_passes": round(len(s.passes) * usual.get(s.machine, 1)),
            "set_to": setting_name(s, system),
            "readings": list(s.readings),
            "done": s.key in done,
            "ways": [WayBody(**vars(w)) for w in s.ways],
            "turns": [dial.says(p, system) for p in s.passes] if dial else [],
            "reading": done[s.key].reading if s.key in done else None,
            "ready": s.key not in done and all(k in done for k in s.after) and rests <= now,
            "rests_until": rests.isoformat() if rests > now else "",
        }
    )


@area.put("/layouts/<int:layout>/steps", responses={204: None})
def mark_step(path: LayoutPath, body: StepDone) -> Response:
    """Tick a step off or take the tick back; with its last step a board is cut up and its offcuts
    go to the rack.
    """
    said = Did(
        n=1,
        step=body.key,
        who=body.who,
        reading=body.reading,
        passes=body.passes,
        minutes=body.minutes,
    )
    with session() as opened:
        milled.tick(opened, path.layout, said, done=body.done)
    return Response(status=204)


@area.get("/projects/<int:project>/milling-settings", responses={200: MillingSettings})
def get_settings(path: ProjectPath) -> Response:
    """The shop's machines, school, waits and hours as this project has them."""
    with session() as opened:
        how, version = kept.settings(opened, path.project, projects.load(opened, path.project).job)
    return answer.body(MillingSettings(milling=how, version=version))


@area.put("/projects/<int:project>/milling-settings", responses={200: MillingSettings})
def set_settings(path: ProjectPath, body: MillingSettings) -> Response:
    """Kept if nobody has set them since the version they were made from; else 409 with the version
    that stands.
    """
    how = milling_from_document(milling_to_document(body.milling))
    with session() as opened:
        version = kept.set_for(opened, path.project, how, body.version)
    return answer.body(MillingSettings(milling=how, version=version))


@area.get("/projects/<int:project>/schools", responses={200: SchoolsBody})
def get_schools(path: ProjectPath) -> Response:
    """Every order of milling on this plan: what it costs in time, passes, settings and
    thickness.
    """
    with session() as opened:
        layout, plan = layouts.standing_plan(opened, path.project)
        system = projects.load(opened, path.project).system
        how = kept.of_project(opened, path.project, layout.job)
        costs = compare(layout.job, plan, how, books.factors(opened, path.project))
    best, why = advise(costs, layout.job, system)
    return answer.body(
        SchoolsBody(
            schools=[
                SchoolBody(**vars(c.order), **{k: v for k, v in vars(c).items() if k != "order"})
                for c in costs
            ],
            advised=best.order.school,
            why=why,
            chosen=how.school,
        )
    )


@area.post("/layouts/<int:layout>/reading", responses={200: VerdictBody})
def read(path: LayoutPath, body: MeasuredBody) -> Response:
    """What a reading at a step means."""
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
        how = kept.of_project(opened, layout.project, layout.job)
        system = projects.load(opened, layout.project).system
    steps = _steps(layout.job, plan, how)
    step = steps.get(body.key)
    if step is None:
        raise Refusal("$.key", f"expected a step of this plan, not {body.key}")
    following = [
        s
        for s in steps.values()
        if s.piece == step.piece and s.kind in ("rough-thickness", "thickness")
    ]
    verdict = judge(
        step,
        body.reading,
        layout.job,
        how.machines,
        following[0].setting if following else 0,
        system,
    )
    dial = how.machines.planer.dial if step.machine == "planer" else how.machines.jointer.dial
    return answer.body(
        VerdictBody(
            state=verdict.state,
            says=verdict.says,
            passes=list(verdict.passes),
            turns=[dial.says(p, system) for p in verdict.passes],
            ways=list(verdict.ways),
        )
    )


@area.post("/layouts/<int:layout>/caliper", responses={200: CaliperBody})
def take_reading(path: LayoutPath, body: InstrumentBody) -> Response:
    """The connected caliper on a piece at a step, or the planer's readout."""
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
        how = kept.of_project(opened, layout.project, layout.job)
    step = _steps(layout.job, plan, how).get(body.key)
    if step is None:
        raise Refusal("$.key", f"expected a step of this plan, not {body.key}")
    board = layout.job.board(step.board)
    try:
        if body.instrument == "readout":
            readout = instruments().readout(connected(layout.project, "readout"))
            found = readout.height(board, body.reading)
        else:
            caliper = instruments().caliper(connected(layout.project, "caliper"))
            found = caliper.piece(board, body.reading)
        return answer.body(CaliperBody(reading=found, trouble=""))
    except NoReading as slipped:
        return answer.body(CaliperBody(reading=None, trouble=str(slipped)))


@area.post("/layouts/<int:layout>/passes", responses={200: WatchedBody})
def see_passes(path: LayoutPath, body: PassesBody) -> Response:
    """What pass after pass leaves of a piece, the right way or a wrong one."""
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
        system = projects.load(opened, layout.project).system
        how = kept.of_project(opened, layout.project, layout.job)
    faced = {s.piece: s for s in _steps(layout.job, plan, how).values() if s.foretold}
    step = faced.get(body.piece)
    if step is None or step.foretold is None:
        like = next(iter(faced), "O1.1")
        raise Refusal("$.piece", f"expected a piece that is faced, like {like}, not {body.piece}")
    box, down = step.wood_in[0].box, body.down or step.foretold.down
    found = watch(
        step.wood_in[0],
        step.foretold,
        body.machine,
        system,
        body.down or None,
        body.press,
        body.far_end_first,
        how.enough,
    )
    return answer.body(
        WatchedBody(
            piece=body.piece,
            length=box.x1 - box.x0,
            width=box.h1 - box.h0,
            down=down,
            depth=step.foretold.depth,
            frames=[
                FrameBody(**{**vars(f), "lines": [list(row) for row in f.lines]})
                for f in found.frames
            ],
            enough=found.enough,
            says=found.says,
        )
    )


@area.get("/layouts/<int:layout>/routes.pdf", responses={200: None})
def get_route_cards(path: LayoutPath) -> Response:
    """A card for each board and panel, on paper."""
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
        how = kept.of_project(opened, layout.project, layout.job)
        system = projects.load(opened, layout.project).system
    cards = route_cards(layout.job, routes(layout.job, plan, how, None, system), system)
    return answer.file(cards, f"{layout.job.name} routes.pdf", "application/pdf")


def _steps(job: Job, plan: Plan, how: Milling) -> dict[str, Step]:
    found: tuple[Route, ...] = recent_routes(job, plan, how)
    return {s.key: s for r in found for s in r.steps}
