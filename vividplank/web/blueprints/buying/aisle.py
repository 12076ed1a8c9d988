"""Boards on offer, judged beside the cart."""

import time
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, field, replace
from datetime import date
from fractions import Fraction
from functools import lru_cache
from typing import cast

from flask import Response, current_app
from flask_openapi3 import APIBlueprint
from sqlalchemy.orm import Session

from vividplank.core.board.volume import board_volume
from vividplank.core.buying.aisle import Aisle, Looked
from vividplank.core.buying.chance.purchase import Purchase
from vividplank.core.buying.chance.verdict import Verdict
from vividplank.core.buying.market.offer import OfferedBoard
from vividplank.core.buying.market.supplier import Supplier
from vividplank.core.buying.market.ticket import TicketLine, check_ticket
from vividplank.core.buying.market.yard import Yard
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put
from vividplank.core.refusal import Refusal
from vividplank.core.timber import TicketRule, weight_kg, wood_named
from vividplank.store import buying, projects
from vividplank.store.buying import Kept
from vividplank.store.database import session
from vividplank.store.errors import NotFoundError
from vividplank.web import answer
from vividplank.web.blueprints.buying.amounts import best_estimate
from vividplank.web.schemas.buying import (
    BoardOffer,
    BoardOffers,
    BoardVerdict,
    BoughtBody,
    CartBody,
    CartChanceBody,
    ChosenBody,
    FirstWordsBody,
    OfferPath,
    OfferPut,
    PileAsked,
    SupplierQuery,
    WordsList,
)
from vividplank.web.schemas.project import (
    ProjectPath,
    TroubleBody,
)

area = APIBlueprint(
    "aisle", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)
#: Seconds to choose the cheapest boards of a pile.
_CHOOSE_SECONDS = 4.0
#: Samples of what nobody sees in the boards of a cart, and seconds for them.
_SAMPLES, _CHANCE_SECONDS = 20, 4.0
#: Lists and suppliers whose values are kept at hand.
_AT_HAND = 8


@area.get("/projects/<int:project>/offers", responses={200: BoardOffers})
def get_offers(path: ProjectPath, query: SupplierQuery) -> Response:
    """The boards looked at, judged beside the cart there is now."""
    return answer.body(_listed(path.project, query.supplier))


def _listed(project: int, supplier: str) -> BoardOffers:
    with session() as opened:
        aisle = _aisle_of(opened, project, supplier)
        kept = _offers(opened, project, aisle)
        rules = _rules(opened)
    cart = _cart(kept)
    judged = aisle.judged([k.looked for k in kept], cart)
    return BoardOffers(
        offers=[_offer(k.offer, aisle, judged.get(k.offer.board.id), rules) for k in kept],
        cart=[
            CartBody.model_validate(asdict(s) | {"missing": dict(s.missing)})
            for s in aisle.standing(cart)
        ],
    )


@area.put("/projects/<int:project>/offers/<mark>", responses={200: BoardOffer})
def put_offer(path: OfferPath, body: OfferPut) -> Response:
    """Record a board that is looked at, or what is known of it now; answers whether to take it."""
    offer = OfferedBoard(**{**dict(body), "board": replace(body.board, id=path.mark)})
    with session() as opened:
        aisle = _aisle_of(opened, path.project, body.supplier)
        offer = offer.priced(aisle.supplier.ticket)
        cart = _cart(_offers(opened, path.project, aisle, but=path.mark))
        patterns, verdict = aisle.look(offer.board, cart)
        buying.put_offer(opened, path.project, Kept(offer, patterns, aisle.asks_of(offer.board)))
        rules = _rules(opened)
    return answer.body(_offer(offer, aisle, verdict, rules))


@area.get("/projects/<int:project>/offers/<mark>", responses={200: BoardOffer})
def get_offer(path: OfferPath, query: SupplierQuery) -> Response:
    """One of the boards looked at, judged beside the rest of the cart, with the reason."""
    with session() as opened:
        aisle = _aisle_of(opened, path.project, query.supplier)
        kept = _offers(opened, path.project, aisle)
        rules = _rules(opened)
    found = next((k for k in kept if k.offer.board.id == path.mark), None)
    if found is None:
        raise NotFoundError("there is no such board; it may have been forgotten or brought home")
    others = [k for k in kept if k.offer.board.id != path.mark]
    _, verdict = aisle.look(found.offer.board, _cart(others))
    return answer.body(_offer(found.offer, aisle, verdict, rules))


@area.delete("/projects/<int:project>/offers/<mark>", responses={204: None})
def drop_offer(path: OfferPath) -> Response:
    with session() as opened:
        buying.drop_offers(opened, path.project, [path.mark])
    return Response(status=204)


@area.post("/projects/<int:project>/offers/pile", responses={201: BoardOffers})
def ask_for_pile(path: ProjectPath, body: PileAsked) -> Response:
    """The boards that lie at the supplier today, taken down for the list; those that are there
    already stay.
    """
    yard = cast(Yard, current_app.extensions["yard"])
    with session() as opened:
        aisle = _aisle_of(opened, path.project, body.supplier)
        price = aisle.supplier.price(body.species, body.quarter)
        if price is None:
            raise Refusal("$", f"{aisle.supplier.name} sells no {body.quarter} {body.species}")
        kept = _offers(opened, path.project, aisle)
        there = {k.offer.board.id for k in kept}
        today = (date.today() - date(1970, 1, 1)).days
        for offer in yard.pile(aisle.supplier, price, body.count, today):
            if offer.board.id not in there:
                patterns, _ = aisle.look(offer.board, _cart(kept), why=False)
                new = Kept(offer, patterns, aisle.asks_of(offer.board))
                buying.put_offer(opened, path.project, new)
    return answer.body(_listed(path.project, body.supplier), 201)


@area.get("/projects/<int:project>/offers/cheapest", responses={200: ChosenBody})
def choose(path: ProjectPath, query: SupplierQuery) -> Response:
    """What of the boards looked at completes the list most cheaply, beside the cart."""
    with session() as opened:
        aisle = _aisle_of(opened, path.project, query.supplier)
        kept = buying.offers(opened, path.project)
    take, left, cost = aisle.cheapest(
        [k.offer.board for k in kept if k.offer.state == "pile"],
        [k.offer.board for k in kept if k.offer.state == "cart"],
        time.monotonic,
        _CHOOSE_SECONDS,
    )
    return answer.body(ChosenBody(take=list(take), left_out=left, cost=float(cost)))


@area.get("/projects/<int:project>/offers/chance", responses={200: CartChanceBody})
def get_chance(path: ProjectPath, query: SupplierQuery) -> Response:
    """The chance that the cart covers the list, with the faults that nobody has seen."""
    with session() as opened:
        aisle = _aisle_of(opened, path.project, query.supplier)
        kept = buying.offers(opened, path.project)
    cart = [k.offer.board for k in kept if k.offer.state == "cart"]
    known = aisle.chance(cart, _SAMPLES, time.monotonic, _CHANCE_SECONDS) if cart else None
    return answer.body(CartChanceBody(known=known))


@area.get("/projects/<int:project>/offers/words", responses={200: WordsList})
def get_words(path: ProjectPath, query: SupplierQuery) -> Response:
    """First words of plain boards, for where no server is in reach."""
    with session() as opened:
        aisle = _aisle_of(opened, path.project, query.supplier)
        cart = _cart(_offers(opened, path.project, aisle))
    species = {g.key: (g.species, g.quarter_name) for g in aisle.groups}
    found = []
    for w in aisle.words(cart):
        wood, quarter = species[w.key]
        price = aisle.supplier.price(wood, quarter)
        found.append(
            FirstWordsBody(
                key=w.key,
                species=wood,
                quarter=quarter,
                per_foot=float(price.per_foot) if price else 0.0,
                lengths=list(w.lengths),
                widths=list(w.widths),
                worths={t: [list(row) for row in rows] for t, rows in w.worths.items()},
            )
        )
    return answer.body(WordsList(words=found))


@area.post("/projects/<int:project>/offers/bought", responses={200: BoughtBody})
def bring_home(path: ProjectPath) -> Response:
    """The cart is bought: its boards become boards of the project, under marks of their own."""
    with session() as opened:
        project = projects.load(opened, path.project)
        names = {s.id: s.name for s in buying.suppliers(opened)}
        kept = buying.offers(opened, path.project)
        cart = [k.offer for k in kept if k.offer.state == "cart"]
        if not cart:
            raise Refusal("$", "there is no board in the cart")
        taken = {b.id for b in project.job.boards}
        boards = []
        for offer in cart:
            mark = offer.board.id
            n = 2
            while mark in taken:
                mark, n = f"{offer.board.id}.{n}", n + 1
            taken.add(mark)
            sold_by = names.get(offer.supplier, offer.supplier)
            boards.append(replace(offer.board, id=mark, supplier=sold_by))
        change = Change("the cart", put_boards=tuple(Put(b) for b in boards))
        now = projects.edit(opened, path.project, project.version, change)
        buying.drop_offers(opened, path.project, [o.board.id for o in cart])
    return answer.body(BoughtBody(version=now.version, boards=[b.id for b in boards]))


def _cart(kept: Sequence[Kept]) -> list[Looked]:
    return [k.looked for k in kept if k.offer.state == "cart"]


def _offers(opened: Session, project: int, aisle: Aisle, but: str = "") -> list[Kept]:
    """The boards looked at, with ways to cut them for the list as this supplier's wood gives it;
    they are found anew where they were found for another.
    """
    found: list[Kept] = []
    for one in buying.offers(opened, project):
        board = one.offer.board
        if board.id == but:
            continue
        asks = aisle.asks_of(board)
        if one.found_for != asks:
            one = replace(one, patterns=aisle.look(board, (), why=False)[0], found_for=asks)
            buying.put_offer(opened, project, one)
        found.append(one)
    return found


def _rules(opened: Session) -> dict[str, TicketRule]:
    return {s.id: s.ticket for s in buying.suppliers(opened)}


def _offer(
    offer: OfferedBoard, aisle: Aisle, verdict: Verdict | None, rules: Mapping[str, TicketRule]
) -> BoardOffer:
    board = offer.board
    line = TicketLine(
        board,
        offer.per_foot,
        None if offer.ticket_feet is None else Fraction(str(offer.ticket_feet)),
        offer.ticket,
    )
    checked = check_ticket([line], rules.get(offer.supplier, aisle.supplier.ticket)).lines[0]
    group = aisle.group_of(board)
    wood = wood_named(board.species)
    damp = board.moisture[0].percent if board.moisture else 12.0
    return BoardOffer(
        offer=offer,
        group=group.key if group else "",
        verdict=BoardVerdict.model_validate(asdict(verdict) | {"gives": dict(verdict.gives)})
        if verdict
        else None,
        feet=round(float(checked.taped), 3),
        over_feet=round(float(checked.over_feet), 3),
        over=float(checked.over),
        kg=weight_kg(wood, float(board_volume(board)), damp) if wood else None,
    )


@dataclass(frozen=True)
class _Key:
    """One list at one supplier with so many trips; the rest is what they are."""

    made_from: str
    trips: int
    job: Job = field(compare=False)
    supplier: Supplier = field(compare=False)
    purchases: tuple[Purchase, ...] = field(compare=False)


@lru_cache(maxsize=_AT_HAND)
def _aisle(key: _Key) -> Aisle:
    return Aisle(key.job, key.supplier, key.purchases)


def _aisle_of(opened: Session, project: int, supplier: str) -> Aisle:
    job = projects.load(opened, project).job
    at = buying.supplier_of(opened, project, supplier)
    found = best_estimate(buying.estimates(opened, project), job, at)
    purchases = found.purchases if found else ()
    made_from = buying.estimate_digest(job, at, use_hand=False)
    return _aisle(_Key(made_from, len(purchases), job, at, purchases))
