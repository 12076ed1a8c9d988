"""Workshops: what is the same for all projects made in one, what it has learned, its books."""

from dataclasses import asdict, replace

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.exchange.paper.books_pdf import books_pdf
from vividplank.core.exchange.tables.books import books_csv, books_xlsx
from vividplank.core.learning.figure import SURE
from vividplank.core.milling.shop.workshop import workshop_from_document, workshop_to_document
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES
from vividplank.core.yields.books import Group, grouped, together
from vividplank.store import workshops
from vividplank.store.database import session
from vividplank.store.shop import books
from vividplank.store.workshops import Kept
from vividplank.web import answer
from vividplank.web.schemas.project import ProjectPath, TroubleBody
from vividplank.web.schemas.workshop import (
    BooksBody,
    BooksFileQuery,
    BooksQuery,
    ChosenWorkshop,
    GroupBody,
    LearnedBody,
    LearnedList,
    LossBody,
    NewWorkshop,
    PutWorkshop,
    WorkshopBody,
    WorkshopList,
    WorkshopPath,
)

area = APIBlueprint(
    "workshops", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/workshops", responses={200: WorkshopList})
def get_workshops() -> Response:
    with session() as opened:
        return answer.body(WorkshopList(workshops=[_body(k) for k in workshops.everyone(opened)]))


@area.post("/workshops", responses={201: WorkshopBody})
def add_workshop(body: NewWorkshop) -> Response:
    """Another workshop, as one there is; it has learned nothing yet."""
    with session() as opened:
        like = workshops.load(opened, body.like).workshop
        return answer.body(_body(workshops.add(opened, body.name, replace(like, unused=()))), 201)


@area.get("/workshops/<int:workshop>", responses={200: WorkshopBody})
def get_workshop(path: WorkshopPath) -> Response:
    with session() as opened:
        return answer.body(_body(workshops.load(opened, path.workshop)))


@area.put("/workshops/<int:workshop>", responses={200: WorkshopBody})
def put_workshop(path: WorkshopPath, body: PutWorkshop) -> Response:
    """Kept if nobody has set it since the version it was made from; else 409 with the version that
    stands.
    """
    asked = workshop_from_document(workshop_to_document(body.workshop))
    with session() as opened:
        kept = workshops.put(opened, path.workshop, body.name, asked, body.version)
        return answer.body(_body(kept))


@area.delete("/workshops/<int:workshop>", responses={204: None})
def remove_workshop(path: WorkshopPath) -> Response:
    """Refused while projects are made in it."""
    with session() as opened:
        workshops.remove(opened, path.workshop)
    return Response(status=204)


@area.get("/projects/<int:project>/workshop", responses={200: WorkshopBody})
def get_project_workshop(path: ProjectPath) -> Response:
    with session() as opened:
        return answer.body(_body(workshops.of_project(opened, path.project)))


@area.put("/projects/<int:project>/workshop", responses={200: WorkshopBody})
def choose_workshop(path: ProjectPath, body: ChosenWorkshop) -> Response:
    """The project is made in this workshop from now on."""
    with session() as opened:
        workshops.choose(opened, path.project, body.workshop)
        return answer.body(_body(workshops.load(opened, body.workshop)))


@area.get("/workshops/<int:workshop>/learned", responses={200: LearnedList})
def get_learned(path: WorkshopPath) -> Response:
    with session() as opened:
        found = books.learned_in(opened, path.workshop)
    figures = [
        LearnedBody(key=f.key, kind=f.kind, of=f.of, used=f.used, **asdict(f.figure)) for f in found
    ]
    return answer.body(LearnedList(sure=SURE, figures=figures))


@area.get("/workshops/<int:workshop>/books", responses={200: BooksBody})
def get_books(path: WorkshopPath, query: BooksQuery) -> Response:
    """Where the wood of all its projects went, of the boards that have been cut into."""
    with session() as opened:
        workshops.load(opened, path.workshop)
        boards = books.of_workshop(opened, path.workshop)
    return answer.body(
        BooksBody(
            categories=list(CATEGORIES),
            groups=[_group(g) for g in grouped(boards, query.by)],
            together=_group(together("", boards)),
        )
    )


@area.get("/workshops/<int:workshop>/books-file", responses={200: None})
def get_books_file(path: WorkshopPath, query: BooksFileQuery) -> Response:
    """The same to take along; a table has every board, paper the groups."""
    with session() as opened:
        kept = workshops.load(opened, path.workshop)
        name, currency = kept.name, kept.workshop.currency
        boards = books.of_workshop(opened, path.workshop)
    if query.form == "csv":
        return answer.file(books_csv(boards), f"{name} books.csv", "text/csv")
    if query.form == "xlsx":
        media = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
        return answer.file(books_xlsx(boards), f"{name} books.xlsx", media)
    content = books_pdf(name, grouped(boards, query.by), together("Together", boards), currency)
    return answer.file(content, f"{name} books.pdf", "application/pdf")


def _body(kept: Kept) -> WorkshopBody:
    return WorkshopBody(**vars(kept))


def _group(group: Group) -> GroupBody:
    return GroupBody(
        name=group.name,
        boards=group.boards,
        rough=_feet(group.rough),
        price=float(group.price),
        planned={k: _feet(v) for k, v in group.planned.items()},
        real={k: _feet(v) for k, v in group.real.items()},
        planned_yield=group.planned_yield,
        real_yield=group.real_yield,
        faults=group.faults,
        lost=[LossBody(piece=x.piece, why=x.why, feet=_feet(x.volume)) for x in group.lost],
    )


def _feet(cubic_ticks: int) -> float:
    return float(cubic_board_feet(cubic_ticks))
