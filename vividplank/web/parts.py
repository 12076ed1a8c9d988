"""List and Buy: the parts in and out, and what they ask of the yard."""

import json
from dataclasses import asdict
from fractions import Fraction

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.buying import needs
from vividplank.core.exchange import job_document
from vividplank.core.exchange.parts_list import read_parts, write_parts
from vividplank.core.timber import WOODS
from vividplank.store import projects
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas import (
    ListRead,
    ListText,
    NeedBody,
    NeedList,
    ProjectPath,
    RowRefusalBody,
    TroubleBody,
    WasteQuery,
    WoodBody,
    WoodList,
)
from vividplank.web.translate import part_body

area = APIBlueprint("parts", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody})


@area.post("/projects/<int:project>/read-list", responses={200: ListRead})
def read_list(path: ProjectPath, body: ListText) -> Response:
    """What a pasted table or CSV holds, without changing anything."""
    with session() as opened:
        project = projects.load(opened, path.project)
    found = read_parts(body.text, project.system, frozenset(p.id for p in project.job.parts), body.species)
    return answer.body(ListRead(
        parts=[part_body(p) for p in found.parts], refused=[RowRefusalBody(**asdict(r)) for r in found.refused],
    ))


@area.get("/projects/<int:project>/parts.csv", responses={200: None})
def get_parts_csv(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
    return answer.file(write_parts(project.job.parts, project.system), f"{project.job.name} parts.csv", "text/csv")


@area.get("/projects/<int:project>/job.json", responses={200: None})
def get_job(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
    text = json.dumps(job_document(project.job), indent=1) + "\n"
    return answer.file(text, f"{project.job.name}.job.json", "application/json")


@area.get("/projects/<int:project>/needs", responses={200: NeedList})
def get_needs(path: ProjectPath, query: WasteQuery) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
    found = needs(project.job, Fraction(str(query.waste)))
    return answer.body(NeedList(waste=query.waste, needs=[
        NeedBody(
            species=n.species, quarter=n.quarter, parts=list(n.parts), pieces=n.pieces, net=float(n.net),
            to_buy=float(n.to_buy), longest=n.longest, widest=n.widest, on_hand=float(n.on_hand),
            price=None if n.price is None else float(n.price), cost=None if n.cost is None else float(n.cost),
        ) for n in found
    ]))


@area.get("/woods", responses={200: WoodList})
def get_woods() -> Response:
    return answer.body(WoodList(woods=[
        WoodBody(name=w.name, specific_gravity=w.specific_gravity, coef_tangential=w.coef_tangential,
                 coef_radial=w.coef_radial) for w in WOODS
    ]))
