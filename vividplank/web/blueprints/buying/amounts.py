"""What to ask for, and how much with what chance."""

from collections.abc import Sequence
from dataclasses import asdict

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.buying import asks, length_needs, sheet_needs
from vividplank.core.buying.chance.purchase import groups_at
from vividplank.core.buying.chance.ways import SupplierWay, recommended, supplier_way
from vividplank.core.buying.lengths import usual_length
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.job import Job
from vividplank.core.learning.learned import in_use
from vividplank.core.refusal import Refusal
from vividplank.store import buying, projects, workshops
from vividplank.store.buying import Estimated
from vividplank.store.database import session
from vividplank.store.shop import books
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.buying import (
    EstimateAsked,
    EstimateMade,
    NeedList,
    NeedQuery,
    RecommendationBody,
    SupplierWayBody,
    WayList,
    WaysQuery,
)
from vividplank.web.schemas.project import (
    LengthNeedBody,
    ProjectPath,
    SheetNeedBody,
    TroubleBody,
)

area = APIBlueprint(
    "amounts", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/needs", responses={200: NeedList})
def get_needs(path: ProjectPath, query: NeedQuery) -> Response:
    """What the list asks of the yard, of sheets and of stock lengths."""
    with session() as opened:
        job = projects.load(opened, path.project).job
        place = workshops.of_project(opened, path.project)
        figures = books.learned_in(opened, place.pk)
    lengths = length_needs(job, query.stock_length or usual_length(job))
    return answer.body(
        NeedList(
            asks=list(asks(job)),
            by_books=in_use(figures, "wood"),
            sheets=[SheetNeedBody.model_validate(asdict(s)) for s in sheet_needs(job)],
            lengths=[LengthNeedBody.model_validate(asdict(n)) for n in lengths],
        )
    )


@area.get("/projects/<int:project>/shopping.pdf", responses={200: None})
def get_shopping_card(path: ProjectPath) -> Response:
    """What to ask for, as a card to take along."""
    from vividplank.core.exchange.paper.shopping_pdf import shopping_pdf

    with session() as opened:
        project = projects.load(opened, path.project)
        besides, _ = buying.materials(opened, path.project)
    content = shopping_pdf(project.job, asks(project.job), project.system, besides)
    return answer.file(content, f"{project.job.name} shopping.pdf", "application/pdf")


@area.post("/projects/<int:project>/estimates", responses={202: EstimateMade})
def add_estimate(path: ProjectPath, body: EstimateAsked) -> Response:
    """Ask for simulated trips to a supplier; a worker simulates them one by one."""
    with session() as opened:
        job = projects.load(opened, path.project).job
        if not job.on_boards().parts:
            raise Refusal("$", "the list has no part that is cut from boards")
        supplier = buying.supplier_of(opened, path.project, body.supplier)
        pk = buying.ask(opened, path.project, job, supplier, body.grade, body.use_hand, body.trips)
    ask().simulate(pk)
    return answer.body(EstimateMade(pk=pk), 202)


@area.get("/projects/<int:project>/ways", responses={200: WayList})
def get_ways(path: ProjectPath, query: WaysQuery) -> Response:
    """All suppliers beside each other, from the trips that were simulated so far."""
    with session() as opened:
        job = projects.load(opened, path.project).job
        suppliers = buying.suppliers_of(opened, path.project)
        known = buying.estimates(opened, path.project)
    bodies, able = [], []
    for supplier in suppliers:
        grades = supplier.grades if len(supplier.grades) > 1 else ("",)
        for grade in grades:
            found = estimate_of(known, job, supplier, grade, use_hand=query.use_hand)
            for milled in (False, True) if supplier.milling else (False,):
                body = _way(job, supplier, grade, found, query.chance, milled)
                bodies.append(body)
                if body.way:
                    able.append((body.way, milled))
    best = recommended(able, query.hour)
    return answer.body(
        WayList(
            ways=bodies,
            recommended=RecommendationBody.model_validate(asdict(best)) if best else None,
        )
    )


def _way(
    job: Job,
    supplier: Supplier,
    grade: str,
    found: Estimated | None,
    chance: float,
    milled: bool,
) -> SupplierWayBody:
    pieces = sum(p.quantity for p in job.on_boards().parts)
    way: SupplierWay | None = None
    if found and found.purchases:
        way = supplier_way(supplier, found.purchases, pieces, chance, grade=grade, milled=milled)
    there = groups_at(job, supplier)
    prices = {g.key: supplier.price(g.species, g.quarter_name, grade) for g in there}
    return SupplierWayBody(
        supplier=supplier.id,
        name=supplier.name,
        grade=grade,
        milled=milled,
        trips=found.trips if found else 0,
        done=len(found.purchases) if found else 0,
        trouble=found.trouble if found else "",
        way=way,
        per_foot={key: float(p.per_foot) if p else None for key, p in prices.items()},
    )


def estimate_of(
    known: Sequence[Estimated], job: Job, supplier: Supplier, grade: str, *, use_hand: bool
) -> Estimated | None:
    """The one that was made of this list, this supplier as it is, and this grade."""
    made_from = buying.estimate_digest(job, supplier, use_hand)
    return next((e for e in known if e.made_from == made_from and e.grade == grade), None)


def best_estimate(known: Sequence[Estimated], job: Job, supplier: Supplier) -> Estimated | None:
    """Of those that were made of this list and this supplier the one with the most trips."""
    made_from = buying.estimate_digest(job, supplier, use_hand=False)
    fits = [e for e in known if e.made_from == made_from and e.purchases]
    return max(fits, key=lambda e: len(e.purchases), default=None)
