"""The project shelf, and every edit of a project."""

from flask import Response, request
from flask_openapi3 import APIBlueprint
from sqlalchemy.orm import Session

from vividplank.core.exchange import read_job, read_workshop
from vividplank.core.job import Job
from vividplank.core.measure import unit_of
from vividplank.core.milling.shop.workshop import Workshop
from vividplank.core.shop import inch_shop, metric_shop
from vividplank.store import projects, workshops
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.project import (
    EditBody,
    NewProject,
    ProjectBody,
    ProjectPath,
    ShelfBody,
    ShelfList,
    TroubleBody,
    VersionBody,
)
from vividplank.web.translate import change_of, project_body

area = APIBlueprint(
    "shelf",
    __name__,
    url_prefix="/api/projects",
    abp_responses={404: TroubleBody, 409: TroubleBody, 422: TroubleBody},
)


@area.get("", responses={200: ShelfList})
def list_projects() -> Response:
    with session() as opened:
        entries = projects.shelf(opened)
    return answer.body(
        ShelfList(
            projects=[
                ShelfBody(
                    pk=e.pk,
                    name=e.name,
                    system=e.system,
                    edited=e.edited.isoformat(),
                    parts=e.parts,
                    boards=e.boards,
                    demo=e.demo,
                    laid_out=e.laid_out,
                )
                for e in entries
            ]
        )
    )


@area.post("", responses={201: ProjectBody})
def add_project(body: NewProject) -> Response:
    unit = unit_of(body.system)
    job = Job(
        body.name.strip() or "Untitled",
        inch_shop() if unit == "in" else metric_shop(),
        (),
        (),
        unit,
    )
    with session() as opened:
        return answer.body(project_body(projects.add(opened, job, body.system)), 201)


@area.post("/from-job", responses={201: ProjectBody})
def add_from_job() -> Response:
    """A new project from a job file, sent as it is."""
    text = request.get_data()
    job, workshop = read_job(text), read_workshop(text)
    with session() as opened:
        project = projects.add(opened, job, job.unit)
        if workshop:
            _into_its_workshop(opened, project.pk, job, workshop)
        return answer.body(project_body(project), 201)


@area.get("/<int:project>", responses={200: ProjectBody})
def get_project(path: ProjectPath) -> Response:
    with session() as opened:
        return answer.body(project_body(projects.load(opened, path.project)))


@area.delete("/<int:project>", responses={204: None})
def remove_project(path: ProjectPath, body: VersionBody) -> Response:
    with session() as opened:
        projects.remove(opened, path.project, body.version)
    return Response(status=204)


@area.post("/<int:project>/edits", responses={200: ProjectBody})
def edit_project(path: ProjectPath, body: EditBody) -> Response:
    """One edit, saved whole or refused whole."""
    with session() as opened:
        return answer.body(
            project_body(
                projects.edit(opened, path.project, body.version, change_of(body), body.system)
            )
        )


@area.post("/<int:project>/undo", responses={200: ProjectBody})
def undo_edit(path: ProjectPath, body: VersionBody) -> Response:
    with session() as opened:
        return answer.body(project_body(projects.undo(opened, path.project, body.version)))


@area.post("/<int:project>/redo", responses={200: ProjectBody})
def redo_edit(path: ProjectPath, body: VersionBody) -> Response:
    with session() as opened:
        return answer.body(project_body(projects.redo(opened, path.project, body.version)))


def _into_its_workshop(opened: Session, project: int, job: Job, its: Workshop) -> None:
    """A job file that says in what workshop it was made is made in one with these machines, climate
    and instruments: one there is, or one of its own, so that a stranger's file changes nobody's
    settings.
    """

    def said(of: Workshop) -> tuple[object, ...]:
        return of.machines, of.climate, of.instruments

    have = (w for w in workshops.everyone(opened) if said(w.workshop) == said(its))
    place = next(have, None) or workshops.add(opened, f"The workshop of {job.name}", its)
    workshops.choose(opened, project, place.pk)
