"""Suppliers of wood, simulated trips, and boards looked at where they are sold."""

import hashlib
import json
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import delete, func, select, update
from sqlalchemy.orm import Session

from vividplank.core.buying.aisle import Looked
from vividplank.core.buying.chance.purchase import Purchase
from vividplank.core.buying.chance.worth import Patterns, patterns_from_rows, patterns_to_rows
from vividplank.core.buying.market.offer import OfferedBoard
from vividplank.core.buying.market.supplier import Supplier, usual_suppliers
from vividplank.core.buying.material import (
    Material,
    materials_from_document,
    materials_to_document,
)
from vividplank.core.document import digest, job_from_document, job_to_document
from vividplank.core.job import Job
from vividplank.core.learning.learned import in_use
from vividplank.store import workshops
from vividplank.store.errors import NotFoundError, VersionConflict
from vividplank.store.models import EstimateRow, OfferRow, ProjectRow, PurchaseRow, SupplierRow
from vividplank.store.shop import books

_SUPPLIER = TypeAdapter(Supplier)
_PURCHASE = TypeAdapter(Purchase)
_OFFER = TypeAdapter(OfferedBoard)
#: Estimates that are kept for a project: the last of each supplier, grade and variation, and a few
#: before.
_KEPT = 24


def supplier_to_document(supplier: Supplier) -> dict[str, Any]:
    document: dict[str, Any] = _SUPPLIER.dump_python(supplier, mode="json")
    return document


def materials(session: Session, project: int) -> tuple[tuple[Material, ...], int]:
    """What a project needs besides its boards, and the version of that."""
    row = session.execute(
        select(ProjectRow.materials, ProjectRow.materials_version).where(ProjectRow.pk == project)
    ).one_or_none()
    if row is None:
        raise NotFoundError("there is no such project; it may have been removed")
    return materials_from_document(row.materials), int(row.materials_version)


def put_materials(
    session: Session, project: int, kept: Sequence[Material], version: int
) -> tuple[tuple[Material, ...], int]:
    """Keep them if they are still at that version; VersionConflict leaves them as they were. They
    are no edit of the project: its own version stays.
    """
    found = session.execute(
        update(ProjectRow)
        .where(ProjectRow.pk == project, ProjectRow.materials_version == version)
        .values(materials=materials_to_document(kept), materials_version=version + 1)
        .returning(ProjectRow.pk),
        execution_options={"synchronize_session": False},
    ).scalar()
    session.expire_all()
    stands = materials(session, project)
    if found is None:
        raise VersionConflict(stands[1])
    return stands


def suppliers(session: Session) -> tuple[Supplier, ...]:
    """The usual ones, as they were last written, and then those of the shop's own."""
    rows = session.scalars(select(SupplierRow).order_by(SupplierRow.at, SupplierRow.id)).all()
    written = {r.id: r.document for r in rows}
    usual = {s.id: supplier_to_document(s) for s in usual_suppliers()}
    found = [written.get(id, document) for id, document in usual.items()]
    found += [document for id, document in written.items() if id not in usual]
    return tuple(_SUPPLIER.validate_python(d) for d in found if d is not None)


def supplier(session: Session, id: str) -> Supplier:
    for found in suppliers(session):
        if found.id == id:
            return found
    raise NotFoundError("there is no such supplier; it may have been removed")


def suppliers_of(session: Session, project: int) -> tuple[Supplier, ...]:
    """All of them, with hidden faults as often as the project's workshop has found them."""
    figures = books.learned_in(session, workshops.of_project(session, project).pk)
    rates = in_use(figures, "faults")
    return tuple(s.with_hidden(rates) for s in suppliers(session))


def supplier_of(session: Session, project: int, id: str) -> Supplier:
    """One of them."""
    supplier(session, id)
    return next(s for s in suppliers_of(session, project) if s.id == id)


def put_supplier(session: Session, put: Supplier) -> None:
    session.merge(SupplierRow(id=put.id, document=supplier_to_document(put)))
    session.flush()


def drop_supplier(session: Session, id: str) -> None:
    supplier(session, id)
    session.merge(SupplierRow(id=id, document=None))
    session.flush()


# ---- simulated trips -----------------------------------------------------------------------------


@dataclass(frozen=True)
class Estimated:
    """An estimate and the trips that were simulated so far; `made_from` is the digest of the list
    and the supplier.
    """

    pk: int
    project: int
    supplier: Supplier
    grade: str
    use_hand: bool
    trips: int
    trouble: str
    asked: datetime
    made_from: str
    purchases: tuple[Purchase, ...]


def list_digest(job: Job) -> str:
    """Changes when anything does that buying for the list depends on, but the boards."""
    return digest(replace(job, boards=()))


def estimate_digest(job: Job, supplier: Supplier, use_hand: bool) -> str:
    text = json.dumps(supplier_to_document(supplier), sort_keys=True)
    of = digest(job) if use_hand else list_digest(job)
    return hashlib.sha256(f"{of} {text}".encode()).hexdigest()


def ask(
    session: Session, project: int, job: Job, at: Supplier, grade: str, use_hand: bool, trips: int
) -> int:
    """Ask for so many simulated trips; one that stands for the same takes more."""
    made_from = estimate_digest(job, at, use_hand)
    there = session.scalars(
        select(EstimateRow).where(
            EstimateRow.project == project,
            EstimateRow.made_from == made_from,
            EstimateRow.grade == grade,
            EstimateRow.use_hand == use_hand,
        )
    ).first()
    if there:
        there.trips = max(there.trips, trips)
        there.trouble = ""
        session.flush()
        return there.pk
    row = EstimateRow(
        project=project,
        made_from=made_from,
        job=job_to_document(job),
        supplier=supplier_to_document(at),
        grade=grade,
        use_hand=use_hand,
        trips=trips,
    )
    session.add(row)
    session.flush()
    old = select(EstimateRow.pk).where(EstimateRow.project == project)
    kept = old.order_by(EstimateRow.pk.desc()).limit(_KEPT)
    session.execute(
        delete(EstimateRow).where(EstimateRow.project == project, EstimateRow.pk.not_in(kept))
    )
    return row.pk


def estimates(session: Session, project: int) -> list[Estimated]:
    """Those of a project, the newest first."""
    rows = session.scalars(
        select(EstimateRow).where(EstimateRow.project == project).order_by(EstimateRow.pk.desc())
    )
    return [_estimated(session, r) for r in rows]


def estimate(session: Session, pk: int) -> tuple[Estimated, Job]:
    row = session.get(EstimateRow, pk)
    if row is None:
        raise NotFoundError("there is no such estimate; the list may have changed since")
    return _estimated(session, row), job_from_document(row.job)


def add_trip(session: Session, pk: int, trip: Purchase) -> None:
    """Keep a trip, once under its seed."""
    if session.scalar(select(EstimateRow.pk).where(EstimateRow.pk == pk).with_for_update()) is None:
        raise NotFoundError("there is no such estimate; the list may have changed since")
    session.merge(
        PurchaseRow(estimate=pk, seed=trip.seed, document=_PURCHASE.dump_python(trip, mode="json"))
    )
    session.flush()


def fail(session: Session, pk: int, trouble: str) -> None:
    row = session.get(EstimateRow, pk)
    if row:
        row.trouble = trouble


def unfinished(session: Session) -> list[int]:
    """Estimates that want more trips, those with the fewest first."""
    return [pk for pk, _, _ in trips_wanted(session)]


def trips_wanted(session: Session) -> list[tuple[int, int, set[int]]]:
    """Estimates that want more trips, how many in all, and the seeds of those there are; those with
    the fewest first.
    """
    rows = session.execute(
        select(EstimateRow.pk, EstimateRow.trips, func.array_agg(PurchaseRow.seed))
        .outerjoin(PurchaseRow, PurchaseRow.estimate == EstimateRow.pk)
        .where(EstimateRow.trouble == "")
        .group_by(EstimateRow.pk)
    )
    found = [(pk, trips, {n for n in seeds if n is not None}) for pk, trips, seeds in rows]
    wanting = [(pk, trips, seeds) for pk, trips, seeds in found if len(seeds) < trips]
    return sorted(wanting, key=lambda w: (len(w[2]), w[0]))


def _estimated(session: Session, row: EstimateRow) -> Estimated:
    trips = session.scalars(
        select(PurchaseRow.document)
        .where(PurchaseRow.estimate == row.pk)
        .order_by(PurchaseRow.seed)
    )
    return Estimated(
        row.pk,
        row.project,
        _SUPPLIER.validate_python(row.supplier),
        row.grade,
        row.use_hand,
        row.trips,
        row.trouble,
        row.asked,
        row.made_from,
        tuple(_PURCHASE.validate_python(d) for d in trips),
    )


# ---- boards on offer -----------------------------------------------------------------------------


@dataclass(frozen=True)
class Kept:
    """An offer, and the ways to cut its board for the list `found_for` stands for."""

    offer: OfferedBoard
    patterns: Patterns
    found_for: str

    @property
    def looked(self) -> Looked:
        return Looked(self.offer.board, self.patterns)


def offers(session: Session, project: int) -> list[Kept]:
    """In the order in which they were looked at."""
    rows = session.scalars(select(OfferRow).where(OfferRow.project == project))
    # Of those that were taken down together Y2 comes before Y10.
    ordered = sorted(rows, key=lambda r: (r.at, len(r.mark), r.mark))
    return [
        Kept(
            replace(_OFFER.validate_python(r.document), state=r.state),  # type: ignore[arg-type]
            patterns_from_rows(r.patterns),
            r.found_for,
        )
        for r in ordered
    ]


def put_offer(session: Session, project: int, kept: Kept) -> None:
    """Keep a board that was looked at, or what is known of it now; under its mark, once."""
    offer = kept.offer
    row = session.get(OfferRow, (project, offer.board.id))
    if row is None:
        row = OfferRow(project=project, mark=offer.board.id)
        session.add(row)
    row.document = _OFFER.dump_python(offer, mode="json")
    row.state = offer.state
    row.patterns = patterns_to_rows(kept.patterns)
    row.found_for = kept.found_for
    session.flush()


def drop_offers(session: Session, project: int, marks: Sequence[str]) -> None:
    session.execute(delete(OfferRow).where(OfferRow.project == project, OfferRow.mark.in_(marks)))
