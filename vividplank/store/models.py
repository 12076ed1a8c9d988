"""The tables. Lengths are whole ticks in integer columns."""

from datetime import datetime
from decimal import Decimal
from typing import Any

from sqlalchemy import (
    BigInteger,
    DateTime,
    ForeignKey,
    Identity,
    LargeBinary,
    Numeric,
    Text,
    UniqueConstraint,
    func,
)
from sqlalchemy.dialects.postgresql import JSONB
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    type_annotation_map = {  # noqa: RUF012
        int: BigInteger,
        str: Text,
        dict[str, Any]: JSONB,
        list[Any]: JSONB,
        Decimal: Numeric,
    }


class ProjectRow(Base):
    """A project: its name, how it shows lengths, its shop settings. `version` counts its edits."""

    __tablename__ = "project"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    name: Mapped[str]
    system: Mapped[str]
    version: Mapped[int] = mapped_column(default=1)
    edited: Mapped[datetime] = mapped_column(
        DateTime(timezone=True), server_default=func.now(), onupdate=func.now()
    )
    demo: Mapped[bool] = mapped_column(default=False)
    shop: Mapped[dict[str, Any]]  # Shop as a document
    rack: Mapped[bool] = mapped_column(
        server_default="false"
    )  # the one that holds boards of no project
    measures: Mapped[list[Any]] = mapped_column(
        server_default="[]"
    )  # Measure as a document, in order
    milling: Mapped[dict[str, Any] | None] = mapped_column(
        JSONB(none_as_null=True)
    )  # what of Milling is the project's own, as a document; none: the usual
    milling_version: Mapped[int] = mapped_column(server_default="0")
    materials: Mapped[list[Any]] = mapped_column(server_default="[]")  # Material as documents
    materials_version: Mapped[int] = mapped_column(server_default="0")
    workshop: Mapped[int] = mapped_column(ForeignKey("workshop.pk"))
    __mapper_args__ = {"version_id_col": version}  # noqa: RUF012
    parts: Mapped[list["PartRow"]] = relationship(
        order_by="PartRow.position", cascade="all, delete-orphan"
    )
    boards: Mapped[list["BoardRow"]] = relationship(
        order_by="BoardRow.position", cascade="all, delete-orphan"
    )


class WorkshopRow(Base):
    """A workshop in which projects are made; `document` is a Workshop."""

    __tablename__ = "workshop"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    name: Mapped[str]
    version: Mapped[int] = mapped_column(server_default="0")
    document: Mapped[dict[str, Any]]


class PartRow(Base):
    """A part as a document; what is asked for in queries stands beside it."""

    __tablename__ = "part"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int] = mapped_column(ForeignKey("project.pk", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    id: Mapped[str]
    quantity: Mapped[int]
    document: Mapped[dict[str, Any]]
    __table_args__ = (UniqueConstraint("project", "id", deferrable=True, initially="DEFERRED"),)


class BoardRow(Base):
    __tablename__ = "board"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int] = mapped_column(ForeignKey("project.pk", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    id: Mapped[str]
    species: Mapped[str]
    length: Mapped[int]
    price: Mapped[Decimal]
    quarter: Mapped[str]
    note: Mapped[str]
    bow: Mapped[int]
    cup: Mapped[int]
    twist: Mapped[int]
    moisture: Mapped[list[Any]] = mapped_column(
        server_default="[]"
    )  # Moisture as documents, in order
    surface: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True))
    grain: Mapped[dict[str, Any]] = mapped_column(server_default="{}")
    dressed: Mapped[list[Any]] = mapped_column(server_default="[]")
    grade: Mapped[str] = mapped_column(server_default="")
    searched: Mapped[bool] = mapped_column(server_default="false")
    supplier: Mapped[str] = mapped_column(server_default="")
    photos: Mapped[list[Any]] = mapped_column(server_default="[]")  # Photo as documents
    came_from: Mapped[str] = mapped_column(server_default="")
    stations: Mapped[list["StationRow"]] = relationship(
        order_by="StationRow.x", cascade="all, delete-orphan"
    )
    defects: Mapped[list["DefectRow"]] = relationship(
        order_by="DefectRow.position", cascade="all, delete-orphan"
    )
    __table_args__ = (UniqueConstraint("project", "id", deferrable=True, initially="DEFERRED"),)


class StationRow(Base):
    __tablename__ = "station"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    board: Mapped[int] = mapped_column(ForeignKey("board.pk", ondelete="CASCADE"), index=True)
    x: Mapped[int]
    y0: Mapped[int]
    y1: Mapped[int]
    t0: Mapped[int]
    t1: Mapped[int]
    between: Mapped[list[Any]] = mapped_column(server_default="[]")


class DefectRow(Base):
    __tablename__ = "defect"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    board: Mapped[int] = mapped_column(ForeignKey("board.pk", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    kind: Mapped[str]
    face: Mapped[str]
    x0: Mapped[int]
    x1: Mapped[int]
    y0: Mapped[int]
    y1: Mapped[int]
    shape: Mapped[str] = mapped_column(server_default="rectangle")
    points: Mapped[list[Any]] = mapped_column(server_default="[]")
    severity: Mapped[str] = mapped_column(server_default="plain")


class PictureRow(Base):
    """A photograph of a face and, once its corners are set, the straightened picture. Boards name
    it by its number.
    """

    __tablename__ = "picture"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int | None] = mapped_column(
        ForeignKey("project.pk", ondelete="SET NULL"), index=True
    )
    photograph: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)
    straight: Mapped[bytes | None] = mapped_column(LargeBinary, deferred=True)
    corners: Mapped[list[Any]] = mapped_column(server_default="[]")


class BoardCutRow(Base):
    """A board that has been cut up by a plan; its offcuts went to the rack then."""

    __tablename__ = "board_cut"
    layout: Mapped[int] = mapped_column(
        ForeignKey("layout.pk", ondelete="CASCADE"), primary_key=True
    )
    board: Mapped[str] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())


class EditRow(Base):
    """One edit: what of the job differs before and after it (core/difference.py; whole jobs in rows
    from before that); `undone` while it can be redone.
    """

    __tablename__ = "edit"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int] = mapped_column(ForeignKey("project.pk", ondelete="CASCADE"), index=True)
    label: Mapped[str]
    before: Mapped[dict[str, Any]]
    after: Mapped[dict[str, Any]]
    undone: Mapped[bool] = mapped_column(default=False)
    made: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())


class LayoutRow(Base):
    """A search for a plan and what came of it, with the job it was computed from."""

    __tablename__ = "layout"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int] = mapped_column(ForeignKey("project.pk", ondelete="CASCADE"), index=True)
    state: Mapped[str] = mapped_column(
        default="waiting"
    )  # waiting, searching, done, stopped, failed
    asked: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    seconds: Mapped[float]
    made_from: Mapped[str]
    job: Mapped[dict[str, Any]]
    stop_asked: Mapped[bool] = mapped_column(default=False)
    spent: Mapped[float] = mapped_column(default=0.0)
    rounds: Mapped[int] = mapped_column(default=0)
    unplaced: Mapped[int | None]
    cost: Mapped[Decimal | None]
    lower_bound: Mapped[float | None]
    trying: Mapped[str] = mapped_column(default="")  # what the search is at
    plan: Mapped[dict[str, Any] | None]
    trouble: Mapped[str] = mapped_column(default="")
    fixings: Mapped[dict[str, Any]] = mapped_column(default=dict)
    parent: Mapped[int | None]  # the layout it was made from
    made_by: Mapped[str] = mapped_column(default="search")  # search, hand, file
    name: Mapped[str] = mapped_column(default="")
    undone: Mapped[bool] = mapped_column(default=False)
    what_ifs: Mapped[
        dict[str, Any] | None
    ]  # what else might be cheaper, as far as it is thought through
    days: Mapped[dict[str, Any] | None]  # the shop's days asked for, and what came of it


class StepDoneRow(Base):
    """A milling step ticked off, with what was read and how many minutes it took, where that is
    known.
    """

    __tablename__ = "step_done"
    layout: Mapped[int] = mapped_column(
        ForeignKey("layout.pk", ondelete="CASCADE"), primary_key=True
    )
    key: Mapped[str] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    reading: Mapped[int | None]
    minutes: Mapped[float | None]
    foretold: Mapped[float | None]  # the minutes that were planned for it
    machine: Mapped[str] = mapped_column(default="")
    passes: Mapped[int | None]
    passes_foretold: Mapped[int | None]


class AccountRow(Base):
    """Where the wood of a layout has gone so far, as it was worked out of what `made_from` stands
    for.
    """

    __tablename__ = "account"
    layout: Mapped[int] = mapped_column(
        ForeignKey("layout.pk", ondelete="CASCADE"), primary_key=True
    )
    made_from: Mapped[str]
    document: Mapped[dict[str, Any]]


class EventRow(Base):
    """What happened, in the order of `n` within a project; rows are added and never changed."""

    __tablename__ = "event"
    project: Mapped[int] = mapped_column(
        ForeignKey("project.pk", ondelete="CASCADE"), primary_key=True
    )
    n: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    layout: Mapped[int | None]  # the layout whose step or piece it is about
    document: Mapped[dict[str, Any]]


class DrawingRow(Base):
    """A drawing, model or list as it came in, and what a worker has read in it. `replaces` is the
    version before.
    """

    __tablename__ = "drawing"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int] = mapped_column(ForeignKey("project.pk", ondelete="CASCADE"), index=True)
    name: Mapped[str]
    media_type: Mapped[str]
    content: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)
    size: Mapped[int]
    added: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    state: Mapped[str] = mapped_column(server_default="waiting")  # waiting, reading, done, failed
    trouble: Mapped[str] = mapped_column(server_default="")
    settings: Mapped[dict[str, Any]] = mapped_column(server_default="{}")
    reading: Mapped[dict[str, Any] | None] = mapped_column(deferred=True)
    marks: Mapped[dict[str, Any]] = mapped_column(server_default="{}")
    marks_version: Mapped[int] = mapped_column(server_default="0")
    replaces: Mapped[int | None] = mapped_column(ForeignKey("drawing.pk", ondelete="SET NULL"))
    replaced: Mapped[bool] = mapped_column(server_default="false")


class DrawingPageRow(Base):
    """A page of a drawing as a picture."""

    __tablename__ = "drawing_page"
    drawing: Mapped[int] = mapped_column(
        ForeignKey("drawing.pk", ondelete="CASCADE"), primary_key=True
    )
    n: Mapped[int] = mapped_column(primary_key=True)
    png: Mapped[bytes] = mapped_column(LargeBinary)


class HeadingRow(Base):
    """What a column of a parts list with this heading (in lower case) holds."""

    __tablename__ = "heading"
    heading: Mapped[str] = mapped_column(primary_key=True)
    meaning: Mapped[str]


class SupplierRow(Base):
    """A supplier of wood that somebody of the shop has written or changed; the usual ones need no
    row. `document` is none where one was taken off the list.
    """

    __tablename__ = "supplier"
    id: Mapped[str] = mapped_column(primary_key=True)
    document: Mapped[dict[str, Any] | None] = mapped_column(JSONB(none_as_null=True))
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())


class EstimateRow(Base):
    """Simulated trips to a supplier: `trips` wanted, and what the job and the supplier were.
    `grade` is the one asked for, empty for the best there.
    """

    __tablename__ = "estimate"
    pk: Mapped[int] = mapped_column(Identity(), primary_key=True)
    project: Mapped[int] = mapped_column(ForeignKey("project.pk", ondelete="CASCADE"), index=True)
    asked: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    made_from: Mapped[str]
    job: Mapped[dict[str, Any]]
    supplier: Mapped[dict[str, Any]]
    grade: Mapped[str] = mapped_column(server_default="")
    use_hand: Mapped[bool] = mapped_column(server_default="false")
    trips: Mapped[int]
    trouble: Mapped[str] = mapped_column(server_default="")


class PurchaseRow(Base):
    """One simulated trip of an estimate."""

    __tablename__ = "purchase"
    estimate: Mapped[int] = mapped_column(
        ForeignKey("estimate.pk", ondelete="CASCADE"), primary_key=True
    )
    seed: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    document: Mapped[dict[str, Any]]


class OfferRow(Base):
    """A board looked at where it is sold: a board with what the ticket says, and the ways to cut it
    that were found when it was looked at.
    """

    __tablename__ = "offer"
    project: Mapped[int] = mapped_column(
        ForeignKey("project.pk", ondelete="CASCADE"), primary_key=True
    )
    mark: Mapped[str] = mapped_column(primary_key=True)
    at: Mapped[datetime] = mapped_column(DateTime(timezone=True), server_default=func.now())
    document: Mapped[dict[str, Any]]
    state: Mapped[str] = mapped_column(server_default="pile")  # pile, cart, left
    patterns: Mapped[list[Any]] = mapped_column(server_default="[]")
    found_for: Mapped[str] = mapped_column(server_default="")  # the list they were found for
