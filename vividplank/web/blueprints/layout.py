"""Lay out: searches asked for, watched and stopped; plans in and out."""

import json
from dataclasses import replace
from functools import lru_cache

from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.board import Board
from vividplank.core.exchange import Refusal, plan_document, read_plan
from vividplank.core.exchange.paper.chalk_pdf import chalk_pdf
from vividplank.core.exchange.plan_dxf import plan_dxf
from vividplank.core.layout.explain.chalk import chalk_list
from vividplank.core.layout.explain.reasons import reasons
from vividplank.core.layout.explain.svg import plan_svg
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Plan
from vividplank.core.measure import System
from vividplank.core.milling import recent_routes
from vividplank.core.yields import account
from vividplank.core.yields.keeping import racked
from vividplank.store import layouts, log, milling, plan_history, projects
from vividplank.store.database import database_url, session
from vividplank.store.layouts import Layout
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.layout import (
    AskLayout,
    BoardMarksBody,
    ChalkBody,
    ChalkMarkBody,
    LayoutAnswer,
    LayoutBody,
    OffcutBody,
    ReasonBody,
    ReasonsBody,
)
from vividplank.web.schemas.project import LayoutPath, ProjectPath, TroubleBody
from vividplank.web.translate import layout_body

area = APIBlueprint(
    "layout", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/layout", responses={200: LayoutAnswer})
def get_layout(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        latest, standing = (
            layouts.latest(opened, path.project),
            layouts.standing(opened, path.project),
        )
        undos, redos = plan_history.steps_back(opened, path.project)
        if standing:
            cut = plan_history.being_cut(opened, standing)
            standing = replace(standing, fixings=replace(standing.fixings, begun=cut))
    return answer.body(
        LayoutAnswer(
            latest=layout_body(latest, project) if latest else None,
            standing=layout_body(standing, project) if standing else None,
            undos=undos,
            redos=redos,
        )
    )


@area.post("/projects/<int:project>/layout", responses={201: LayoutBody})
def ask_layout(path: ProjectPath, body: AskLayout) -> Response:
    """Start a search from the project as it stands. Where some of it has been begun, what is done
    stands and what is in work keeps what it is for where it can; the rest is laid out on the wood
    there is.
    """
    with session() as opened:
        left = log.bring_in(opened, path.project)
        project = projects.load(opened, path.project)
        if not project.job.on_boards().parts:
            raise Refusal(
                "$.parts",
                "there are no parts to lay out; expected at least one on the list that comes "
                "from boards",
            )
        if not project.job.boards:
            raise Refusal("$.boards", "there are no boards to lay them on; expected at least one")
        job = project.job.on_boards()
        begun = left.begun if left else ()
        layout = layouts.ask(opened, path.project, job, body.seconds, begun)
    ask().lay_out(layout.pk)
    return answer.body(layout_body(layout, project), 201)


@area.post("/projects/<int:project>/plan", responses={201: LayoutBody})
def add_plan(path: ProjectPath) -> Response:
    """A plan file for the project as it stands; taken only if every rule holds."""
    plan = read_plan(request.get_data())
    with session() as opened:
        project = projects.load(opened, path.project)
        job = project.job.on_boards()
        violations = audit(job, plan)
        if violations:
            more = f" (and {len(violations) - 1} more)" if len(violations) > 1 else ""
            raise Refusal(
                violations[0].place,
                f"this plan breaks rule {violations[0].rule}: {violations[0].what}{more}",
            )
        log.keeps(opened, path.project, plan)
        return answer.body(layout_body(layouts.keep(opened, path.project, job, plan), project), 201)


@area.post("/layouts/<int:layout>/stop", responses={200: LayoutBody})
def stop_layout(path: LayoutPath) -> Response:
    with session() as opened:
        layout = layouts.stop(opened, path.layout)
        return answer.body(layout_body(layout, projects.load(opened, layout.project)))


@area.get("/layouts/<int:layout>/plan.json", responses={200: None})
def get_plan(path: LayoutPath) -> Response:
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
    text = json.dumps(plan_document(plan, layout.job.unit), indent=1) + "\n"
    return answer.file(text, f"{layout.job.name}.plan.json", "application/json")


@area.get("/layouts/<int:layout>/plan.svg", responses={200: None})
def get_plan_svg(path: LayoutPath) -> Response:
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
    return answer.file(plan_svg(layout.job, plan), f"{layout.job.name}.svg", "image/svg+xml")


@area.get("/layouts/<int:layout>/chalk", responses={200: ChalkBody})
def get_chalk(path: LayoutPath) -> Response:
    """The chalk list: marks in order, and which are drawn already."""
    layout, plan, system, done = _planned(path.layout)
    return answer.body(
        ChalkBody(
            layout=layout.pk,
            boards=[
                BoardMarksBody(
                    board=b.board,
                    marks=[ChalkMarkBody(**vars(m), done=m.key in done) for m in b.marks],
                    offcuts=[
                        OffcutBody(length=o.length, width=round(o.mean_width)) for o in b.offcuts
                    ],
                )
                for b in chalk_list(layout.job, plan, system, _kept(layout))
            ],
        )
    )


@area.get("/layouts/<int:layout>/chalk.pdf", responses={200: None})
def get_chalk_pdf(path: LayoutPath) -> Response:
    layout, plan, system, _ = _planned(path.layout)
    with session() as opened:
        begun = plan_history.being_cut(opened, layout)
    headers = {"Content-Disposition": 'inline; filename="chalk-list.pdf"'}
    return Response(
        chalk_pdf(layout.job, plan, system, _kept(layout), begun),
        mimetype="application/pdf",
        headers=headers,
    )


@area.get("/layouts/<int:layout>/plan.dxf", responses={200: None})
def get_plan_dxf(path: LayoutPath) -> Response:
    layout, plan, _, _ = _planned(path.layout)
    return answer.file(
        plan_dxf(layout.job, plan).decode(), f"{layout.job.name}.dxf", "image/vnd.dxf"
    )


@area.get("/layouts/<int:layout>/reasons", responses={200: ReasonsBody})
def get_reasons(path: LayoutPath) -> Response:
    """Why the plan is as it is."""
    layout, plan, system, _ = _planned(path.layout)
    return answer.body(
        ReasonsBody(reasons=[ReasonBody(**vars(r)) for r in reasons(layout.job, plan, system)])
    )


def _kept(layout: Layout) -> dict[str, tuple[Board, ...]]:
    """The offcuts of each board that go to the rack when it is cut as this shop does it."""
    with session() as opened:
        how = milling.of_project(opened, layout.project, layout.job)
    return _racked(database_url(), layout.pk, repr(how))


@lru_cache(maxsize=8)
def _racked(database: str, pk: int, how: str) -> dict[str, tuple[Board, ...]]:
    """A layout's job and plan never change, and every tick asks again; `how` tells one way of
    milling from another.
    """
    with session(database) as opened:
        layout, plan = layouts.with_plan(opened, pk)
        settings = milling.of_project(opened, layout.project, layout.job)
    kept = account(layout.job, recent_routes(layout.job, plan, settings), plan.closed).kept
    return racked(kept, layout.job.shop.keep)


def _planned(pk: int) -> tuple[Layout, Plan, System, set[str]]:
    with session() as opened:
        layout, plan = layouts.with_plan(opened, pk)
        return (
            layout,
            plan,
            projects.load(opened, layout.project).system,
            layouts.steps_done(opened, pk),
        )
