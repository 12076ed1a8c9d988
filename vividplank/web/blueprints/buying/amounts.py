"""What to ask for, and how much with what chance."""

import time
from collections.abc import Sequence
from dataclasses import asdict

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.buying import asks, length_needs, sheet_needs
from vividplank.core.buying.chance.first_look import first_look
from vividplank.core.buying.chance.mixture import Place, mixture
from vividplank.core.buying.chance.purchase import groups_at
from vividplank.core.buying.chance.to_try import boards_to_try
from vividplank.core.buying.chance.variation import Variation, moved, variations, varied
from vividplank.core.buying.chance.ways import SupplierWay, recommended, supplier_way
from vividplank.core.buying.finished import length_offers, sheet_offers
from vividplank.core.buying.lengths import usual_length
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put
from vividplank.core.learning.learned import in_use
from vividplank.core.refusal import Refusal
from vividplank.store import buying, projects, workshops
from vividplank.store.buying import Estimated
from vividplank.store.database import session
from vividplank.store.shop import books
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.buying import (
    BoughtBody,
    EstimateAsked,
    EstimateMade,
    FirstLookBody,
    FirstLookQuery,
    NeedList,
    NeedQuery,
    RecommendationBody,
    SupplierWayBody,
    VariationBody,
    VariationList,
    VariationQuery,
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
#: For the first answer of each supplier and grade.
_FIRST_LOOK_SECONDS = 0.5
#: To find out how many boards cover a list that is to be tried.
_TRY_SECONDS = 6.0


@area.get("/projects/<int:project>/needs", responses={200: NeedList})
def get_needs(path: ProjectPath, query: NeedQuery) -> Response:
    """What the list asks of the yard, of sheets and of stock lengths."""
    with session() as opened:
        job = projects.load(opened, path.project).job
        place = workshops.of_project(opened, path.project)
        figures = books.learned_in(opened, place.pk)
        suppliers = buying.suppliers(opened)
    lengths = length_needs(job, query.stock_length or usual_length(job))
    return answer.body(
        NeedList(
            asks=list(asks(job)),
            by_books=in_use(figures, "wood"),
            sheets=[
                SheetNeedBody.model_validate(
                    asdict(n) | {"offers": [asdict(o) for o in sheet_offers(job, n, suppliers)]}
                )
                for n in sheet_needs(job)
            ],
            lengths=[
                LengthNeedBody.model_validate(
                    asdict(n) | {"offers": [asdict(o) for o in length_offers(job, n, suppliers)]}
                )
                for n in lengths
            ],
        )
    )


@area.get("/projects/<int:project>/shopping.pdf", responses={200: None})
def get_shopping_card(path: ProjectPath) -> Response:
    """What to ask for, as a card to take along."""
    from vividplank.core.exchange.paper.shopping_pdf import shopping_pdf

    with session() as opened:
        project = projects.load(opened, path.project)
        besides, _ = buying.materials(opened, path.project)
        currency = workshops.of_project(opened, path.project).workshop.currency
    needs = asks(project.job)
    content = shopping_pdf(project.job, needs, project.system, besides, currency)
    return answer.file(content, f"{project.job.name} shopping.pdf", "application/pdf")


@area.post("/projects/<int:project>/boards-to-try", responses={201: BoughtBody})
def try_boards(path: ProjectPath) -> Response:
    """Boards as a supplier has them become boards of the project, so that the list can be laid out
    before any are bought.
    """
    with session() as opened:
        project = projects.load(opened, path.project)
        suppliers = buying.suppliers_of(opened, path.project)
        boards = boards_to_try(project.job, suppliers, time.monotonic, _TRY_SECONDS)
        if not boards:
            raise Refusal("$", "no supplier sells what the list wants")
        change = Change("boards to try it with", put_boards=tuple(Put(b) for b in boards))
        now = projects.edit(opened, path.project, project.version, change)
    return answer.body(BoughtBody(version=now.version, boards=[b.id for b in boards]), 201)


@area.post("/projects/<int:project>/estimates", responses={202: EstimateMade})
def add_estimate(path: ProjectPath, body: EstimateAsked) -> Response:
    """Ask for simulated trips to a supplier; a worker simulates them one by one."""
    with session() as opened:
        job = projects.load(opened, path.project).job
        if not job.on_boards().parts:
            raise Refusal("$", "the list has no part that is cut from boards")
        supplier = buying.supplier_of(opened, path.project, body.supplier)
        grade = body.grade
        if body.variation:
            _refuse_unknown(job, body.variation)
            job, grade = varied(job, body.variation), body.variation.grade or body.grade
        pk = buying.ask(opened, path.project, job, supplier, grade, body.use_hand, body.trips)
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
    places: list[Place] = []
    for supplier in suppliers:
        grades = supplier.grades if len(supplier.grades) > 1 else ("",)
        for grade in grades:
            found = estimate_of(known, job, supplier, grade, use_hand=query.use_hand)
            for milled in (False, True) if supplier.milling else (False,):
                body = _way(job, supplier, grade, found, query.chance, milled)
                bodies.append(body)
                if body.way and found:
                    able.append((body.way, milled))
                    places.append(Place(supplier, grade, milled, found.purchases))
    best = recommended(able, query.hour)
    return answer.body(
        WayList(
            ways=bodies,
            recommended=RecommendationBody.model_validate(asdict(best)) if best else None,
            mixture=mixture(job, places, query.hour),
        )
    )


@area.get("/projects/<int:project>/first-look", responses={200: FirstLookBody})
def get_first_look(path: ProjectPath, query: FirstLookQuery) -> Response:
    """About how much of the list's wood one supplier's boards take, at once."""
    with session() as opened:
        job = projects.load(opened, path.project).job
        supplier = buying.supplier_of(opened, path.project, query.supplier)
    found = first_look(
        job, supplier, query.chance, time.monotonic, _FIRST_LOOK_SECONDS, query.grade
    )
    return answer.body(FirstLookBody(groups=list(found)))


@area.get("/projects/<int:project>/variations", responses={200: VariationList})
def get_variations(path: ProjectPath, query: VariationQuery) -> Response:
    """How the amount at one supplier would move with one change; trips for it are asked for like
    others.
    """
    with session() as opened:
        job = projects.load(opened, path.project).job
        supplier = buying.supplier_of(opened, path.project, query.supplier)
        known = buying.estimates(opened, path.project)
    base = estimate_of(known, job, supplier, query.grade, use_hand=False)
    bodies = []
    for variation in variations(job, supplier, query.grade):
        grade = variation.grade or query.grade
        found = estimate_of(known, varied(job, variation), supplier, grade, use_hand=False)
        bodies.append(
            VariationBody(
                variation=variation,
                trips=found.trips if found else 0,
                done=len(found.purchases) if found else 0,
                trouble=found.trouble if found else "",
                moved=moved(base.purchases, found.purchases) if base and found else None,
            )
        )
    return answer.body(VariationList(variations=bodies))


def _refuse_unknown(job: Job, variation: Variation) -> None:
    if variation.kind == "grade":
        return
    part = next((p for p in job.on_boards().parts if p.id == variation.part), None)
    if part is None:
        raise Refusal("$.variation.part", "there is no such part; the list may have changed")
    if variation.kind == "stave" and (not part.panel or variation.to < part.panel.stave_min):
        raise Refusal("$.variation.to", "expected a panel, and no less than its narrowest stave")
    if variation.kind == "joined" and not 0 < variation.to < part.length:
        raise Refusal("$.variation.to", "expected less than the part's length")


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
