"""List and Buy: the parts in and out, and what they ask of the yard."""

import json
import time
from dataclasses import replace
from urllib.parse import quote

from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.buying import sheet_needs
from vividplank.core.cutlist import Part
from vividplank.core.exchange import Refusal, job_document
from vividplank.core.exchange.parts_list import write_parts
from vividplank.core.layout.search.sheets import lay_sheets
from vividplank.core.timber import WOODS
from vividplank.store import projects, workshops
from vividplank.store.database import session
from vividplank.store.projects import Project
from vividplank.web import answer
from vividplank.web.schemas.project import (
    LabelQuery,
    ProjectPath,
    SheetPlanBody,
    SheetPlans,
    TroubleBody,
    WoodBody,
    WoodList,
)

# What writes workbooks, paper and drawings is loaded when first asked for: the server need not wait
# for it.

#: Seconds for the sheets of one kind.
_SHEET_SECONDS = 2.0
area = APIBlueprint(
    "parts", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/parts.csv", responses={200: None})
def get_parts_csv(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
    return answer.file(
        write_parts(project.job.parts, project.system), f"{project.job.name} parts.csv", "text/csv"
    )


@area.get("/projects/<int:project>/job.json", responses={200: None})
def get_job(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        workshop = workshops.of_project(opened, path.project).workshop
    text = json.dumps(job_document(project.job, workshop), indent=1) + "\n"
    return answer.file(text, f"{project.job.name}.job.json", "application/json")


@area.get("/projects/<int:project>/sheets", responses={200: SheetPlans})
def lay_out_sheets(path: ProjectPath) -> Response:
    """How the sheets are cut, each kind by itself; takes a moment."""
    with session() as opened:
        job = projects.load(opened, path.project).job
    found = []
    for need in sheet_needs(job):
        if need.sheets:
            plan = lay_sheets(job, need, _SHEET_SECONDS, time.monotonic)
            used = [b for b in plan.plan.boards if b.segments]
            found.append(
                SheetPlanBody(
                    species=plan.species,
                    thickness=plan.thickness,
                    sheets=plan.sheets,
                    least=plan.least,
                    unplaced=len(plan.plan.unplaced),
                    boards=[plan.job.board(b.board) for b in used],
                    parts=list(plan.job.parts),
                    cut=[list(b.segments) for b in used],
                )
            )
    return answer.body(SheetPlans(plans=found))


@area.get("/projects/<int:project>/parts.xlsx", responses={200: None})
def get_parts_xlsx(path: ProjectPath) -> Response:
    from vividplank.core.exchange.tables.cutlist_xlsx import cutlist_xlsx

    project = _load(path)
    return answer.file(
        cutlist_xlsx(project.job, project.system),
        f"{project.job.name} parts.xlsx",
        "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    )


@area.get("/projects/<int:project>/parts.pdf", responses={200: None})
def get_parts_pdf(path: ProjectPath) -> Response:
    from vividplank.core.exchange.paper.cutlist_pdf import cutlist_pdf

    project = _load(path)
    return answer.file(
        cutlist_pdf(project.job, project.system),
        f"{project.job.name} cut list.pdf",
        "application/pdf",
    )


@area.get("/projects/<int:project>/parts.dxf", responses={200: None})
def get_parts_dxf(path: ProjectPath) -> Response:
    from vividplank.core.exchange.outlines_dxf import outlines_dxf

    project = _load(path)
    return answer.file(
        outlines_dxf(project.job, project.system), f"{project.job.name} parts.dxf", "image/vnd.dxf"
    )


@area.get("/projects/<int:project>/labels.pdf", responses={200: None})
def get_labels(path: ProjectPath, query: LabelQuery) -> Response:
    """A label for every piece; its code opens the part on the List."""
    from vividplank.core.exchange.paper.cutlist_pdf import USUAL_LABELS, LabelTrouble, labels_pdf

    project = _load(path)
    sheet = replace(
        USUAL_LABELS[project.job.unit], **query.model_dump(exclude={"skip"}, exclude_none=True)
    )

    def address(part: Part) -> str:
        return f"{request.host_url}project/{project.pk}/list?part={quote(part.id)}"

    try:
        content = labels_pdf(project.job, project.system, sheet, address, query.skip)
    except LabelTrouble as problem:
        raise Refusal("$", str(problem)) from None
    return answer.file(content, f"{project.job.name} labels.pdf", "application/pdf")


def _load(path: ProjectPath) -> Project:
    with session() as opened:
        return projects.load(opened, path.project)


@area.get("/woods", responses={200: WoodList})
def get_woods() -> Response:
    return answer.body(
        WoodList(
            woods=[
                WoodBody(
                    name=w.name,
                    specific_gravity=w.specific_gravity,
                    coef_tangential=w.coef_tangential,
                    coef_radial=w.coef_radial,
                )
                for w in WOODS
            ]
        )
    )
