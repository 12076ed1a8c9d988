"""Parts lists that are pasted or brought in: what they hold, what is asked of them, what was said
of their headings.
"""

from dataclasses import asdict

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.exchange.parts_list import ListAnswers, read_parts
from vividplank.store import headings, projects
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.list import (
    ColumnBody,
    HeadingsBody,
    ListRead,
    ListText,
    OptionBody,
    QuestionBody,
    RowRefusalBody,
)
from vividplank.web.schemas.project import ProjectPath, TroubleBody

area = APIBlueprint(
    "lists", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.post("/projects/<int:project>/read-list", responses={200: ListRead})
def read_list(path: ProjectPath, body: ListText) -> Response:
    """What a pasted table or CSV holds, without changing anything."""
    with session() as opened:
        project = projects.load(opened, path.project)
        remembered = headings.known(opened)
    said = body.answers
    columns = {**remembered, **{h.strip().casefold(): m for h, m in said.columns.items()}}
    answers = ListAnswers(said.unit, columns, said.order, said.thousands, said.confirmed)
    found = read_parts(
        body.text, project.system, frozenset(p.id for p in project.job.parts), body.species, answers
    )
    return answer.body(
        ListRead(
            parts=list(found.parts),
            refused=[RowRefusalBody(**asdict(r)) for r in found.refused],
            noted=list(found.noted),
            columns=[ColumnBody(**asdict(c)) for c in found.columns],
            remembered=[
                c.heading
                for c in found.columns
                if c.heading.casefold() in remembered.keys() - said.columns.keys()
            ],
            questions=[
                QuestionBody(
                    kind=q.kind,
                    says=q.says,
                    options=[OptionBody(value=v, says=s) for v, s in q.options],
                )
                for q in found.questions
            ],
        )
    )


@area.put("/headings", responses={200: HeadingsBody})
def put_headings(body: HeadingsBody) -> Response:
    """Remember what columns with these headings hold."""
    with session() as opened:
        headings.remember(opened, {h.strip(): m for h, m in body.meanings.items()})
    return answer.body(body)
