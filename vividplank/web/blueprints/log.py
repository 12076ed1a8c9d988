"""The log: pieces as they are, what happened to them, and what planning the rest again would
find.
"""

import json
from dataclasses import replace

import numpy as np
from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.board import same_species
from vividplank.core.board.find import holds
from vividplank.core.exchange.log_file import log_document, read_log
from vividplank.core.job import Job
from vividplank.core.log import words
from vividplank.core.log.events import Accepted, Event, Found, Measured, Spoiled
from vividplank.core.log.freed import a_hair_short
from vividplank.core.log.state import Held
from vividplank.core.refusal import Refusal
from vividplank.core.yields.keeping import offcut
from vividplank.store import layouts, log, projects
from vividplank.store.database import session
from vividplank.store.shop import milled
from vividplank.web import answer
from vividplank.web.schemas.log import (
    AcceptedEvent,
    EventBody,
    EventPath,
    FaultBody,
    FoundEvent,
    FreedBody,
    HappenedAnswer,
    HappenedBody,
    HeldBodies,
    HeldBody,
    LogBody,
    RemainingBody,
    ShortBody,
    SpoiledEvent,
    TakenInBody,
)
from vividplank.web.schemas.project import LayoutPath, ProjectPath, TroubleBody

area = APIBlueprint(
    "log", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)

#: Places along a piece at which its sides are told.
_ALONG = 9
#: So many parts that a piece would still make are named.
_MOST_TOLD = 3


@area.get("/layouts/<int:layout>/pieces", responses={200: HeldBodies})
def get_pieces(path: LayoutPath) -> Response:
    """Every piece there is, as it is now."""
    with session() as opened:
        layout = layouts.load(opened, path.layout)
        found = log.wood(opened, layout)
    return answer.body(
        HeldBodies(
            pieces=[
                _piece(mark, h, layout.job) for mark, h in found.pieces.items() if h.state != "cut"
            ]
        )
    )


@area.post("/layouts/<int:layout>/events", responses={201: HappenedAnswer})
def add_event(path: LayoutPath, body: HappenedBody) -> Response:
    """Something happened to a piece: written in the log. Answers what the piece still serves for;
    the plan stays as it is until the rest is planned again.
    """
    said = body.event
    event: Event
    if isinstance(said, FoundEvent):
        event = Found(n=1, piece=said.piece, defect=said.defect, note=said.note)
    elif isinstance(said, SpoiledEvent):
        event = Spoiled(n=1, piece=said.piece, why=said.why, then=said.then, note=said.note)
    elif isinstance(said, AcceptedEvent):
        event = Accepted(n=1, piece=said.piece, note=said.note)
    else:
        event = Measured(n=1, piece=said.piece, what=said.what, value=said.value, note=said.note)
    event = replace(event, who=body.who, at=body.at)
    if body.at and log.time_of(event) is None:
        raise Refusal("$.at", f"is {body.at}; expected a time as in ISO 8601")
    with session() as opened:
        layout = layouts.load(opened, path.layout)
        there = log.wood(opened, layout).pieces
        if event.piece not in there:
            raise Refusal("$.event.piece", f"is {event.piece}; expected a piece there is now")
        kept, held = log.tell(opened, layout, event)
        assert held
        project = projects.load(opened, layout.project)
        rest = log.left(opened, layout.project, project.job.on_boards())
    freed = next((f for f in rest.freed if f.piece == event.piece), None) if rest else None
    return answer.body(
        HappenedAnswer(
            n=kept.n,
            says=words.happened(kept, project.system),
            fits=freed is None,
            serves=[] if held.spoiled == "scrap" else _serves(held, project.job.on_boards()),
            short=[
                ShortBody(
                    part=part.id,
                    name=part.name or part.id,
                    what=what,
                    wanted=getattr(part, what),
                    there=held.measured[what],
                )
                for part, what in (a_hair_short(project.job, held) if freed else ())
            ],
        ),
        201,
    )


@area.get("/projects/<int:project>/log", responses={200: LogBody})
def get_log(path: ProjectPath) -> Response:
    """All that happened, the newest first."""
    with session() as opened:
        project = projects.load(opened, path.project)
        entries = log.entries(opened, path.project)
        rest = log.left(opened, path.project, project.job.on_boards())
    return answer.body(
        LogBody(
            events=[
                EventBody(
                    n=e.event.n,
                    at=e.at.isoformat(),
                    who=e.event.who,
                    kind=e.event.kind,
                    piece=getattr(e.event, "piece", ""),
                    says=words.happened(e.event, project.system),
                    note=e.event.note,
                    stands=e.stands,
                )
                for e in reversed(entries)
            ],
            open=bool(rest and rest.freed),
        )
    )


@area.get("/projects/<int:project>/log.json", responses={200: None})
def get_log_file(path: ProjectPath) -> Response:
    """The log as a file of the exchange format."""
    with session() as opened:
        project = projects.load(opened, path.project)
        entries = log.entries(opened, path.project)
    events = (replace(e.event, at=e.at.isoformat()) for e in entries)
    document = log_document(events, project.job.unit)
    text = json.dumps(document, indent=1) + "\n"
    return answer.file(text, f"{project.job.name}.log.json", "application/json")


@area.post("/projects/<int:project>/log.json", responses={201: TakenInBody})
def take_in_log(path: ProjectPath) -> Response:
    """A log that was kept elsewhere, sent as it is: written after what is known here, all of it or
    none.
    """
    events = read_log(request.get_data())
    with session() as opened:
        many = milled.take_in(opened, path.project, events)
    return answer.body(TakenInBody(events=many), 201)


@area.post("/projects/<int:project>/log/<int:n>/void", responses={204: None})
def void_event(path: EventPath) -> Response:
    """Take an event back; of a step its tick as well."""
    with session() as opened:
        log.void(opened, path.project, path.n)
    return Response(status=204)


@area.get("/projects/<int:project>/rest", responses={200: RemainingBody})
def get_rest(path: ProjectPath) -> Response:
    """What planning the rest again would find."""
    with session() as opened:
        project = projects.load(opened, path.project)
        rest = log.left(opened, path.project, project.job.on_boards())
    if rest is None:
        return answer.body(
            RemainingBody(begun=[], freed=[], kept=0, finished=0, parts=0, boards=0, pieces=[])
        )
    return answer.body(
        RemainingBody(
            begun=sorted(rest.begun),
            freed=[
                FreedBody(piece=f.piece, items=[i.name for i in f.items], says=words.freed(f))
                for f in rest.freed
            ],
            kept=sum(not k.finished for k in rest.kept),
            finished=sum(k.finished for k in rest.kept),
            parts=sum(p.quantity for p in rest.job.parts),
            boards=len(rest.job.boards),
            pieces=[b.id for b in rest.pieces],
        )
    )


def _piece(mark: str, held: Held, job: Job) -> HeldBody:
    piece = held.body
    length, width, thick = piece.size
    xs = np.linspace(piece.x0, piece.x1, _ALONG)
    low, high = piece.sides(xs)
    axis = piece.datum.over(xs)
    names = {p.id: p.name or p.id for p in job.parts}
    down = piece.datum.at(piece.x0)
    return HeldBody(
        mark=mark,
        board=piece.board.id,
        state=held.state,
        length=length,
        width=width,
        thickness=thick,
        items=[i.name for i in held.items],
        names=list(dict.fromkeys(names[i.part] for i in held.items)),
        outline=[
            [round(x - piece.x0), round(y0 - a), round(y1 - a)]
            for x, y0, y1, a in zip(xs, low, high, axis, strict=True)
        ],
        faults=[
            FaultBody(
                kind=d.kind,
                face=d.face,
                x0=max(0, round(d.x0 - piece.x0)),
                x1=min(length, round(d.x1 - piece.x0)),
                y0=round(d.y0 - down),
                y1=round(d.y1 - down),
            )
            for d in piece.faults
        ],
        found=len(held.found),
        spoiled=held.spoiled or "",
    )


def _serves(held: Held, job: Job) -> list[str]:
    """Parts of the list that the piece would still make, the largest first."""
    board = offcut(held.body)
    if board is None:
        return []
    flat = board.lies_flat
    over = 0 if flat else job.shop.allowance.face
    found = [
        p
        for p in sorted(job.parts, key=lambda p: -p.volume)
        if p.panel is None
        and same_species(p.species, board.species)
        and holds(board, p.thickness + over, p.length, p.width, p.faces)
    ]
    return [p.name or p.id for p in found[:_MOST_TOLD]]
