"""The stock room: boards of all projects and the rack, found by what they hold, carried about,
labelled.
"""

from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.board.clear import Area
from vividplank.core.board.find import clear_length, holds
from vividplank.core.board.flat.thick import flat_between
from vividplank.core.board.volume import board_volume
from vividplank.core.exchange.paper.board_labels import board_labels
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.timber import cubic_board_feet, weight_kg, wood_named
from vividplank.store.database import session
from vividplank.store.shop import stock
from vividplank.store.shop.stock import Entry
from vividplank.web import answer
from vividplank.web.schemas.project import TroubleBody
from vividplank.web.schemas.survey import (
    AreaBody,
    CarriedBody,
    CarryBody,
    StockEntryBody,
    StockList,
    StockQuery,
)

area = APIBlueprint(
    "stock",
    __name__,
    url_prefix="/api/stock",
    abp_responses={404: TroubleBody, 409: TroubleBody, 422: TroubleBody},
)

#: A piece whose width nobody names is asked for this wide.
_USUAL_WIDTH = 2 * TICKS_PER_INCH


@area.get("", responses={200: StockList})
def list_stock(query: StockQuery) -> Response:
    """Boards of this wood out of which a clear-one piece of this size comes; all of them where
    nothing is asked.

    A piece whose width nobody names is asked for 2 in wide.
    """
    with session() as opened:
        rack = stock.rack(opened).pk
        entries = stock.entries(opened)
    found = []
    wood = query.wood.strip().casefold()
    asked = query.thickness or query.length or query.width
    for entry in entries:
        board = entry.board
        if wood and wood not in board.species.casefold():
            continue
        whole = entry.state != "cut"
        place = (
            holds(board, query.thickness, query.length, query.width or _USUAL_WIDTH)
            if asked and whole
            else None
        )
        if asked and place is None:
            continue
        found.append(_body(entry, place))
    return answer.body(StockList(boards=found, rack=rack))


@area.post("/carry", responses={200: CarriedBody})
def carry(body: CarryBody) -> Response:
    """A board carried to another project, or back to the rack."""
    with session() as opened:
        return answer.body(
            CarriedBody(
                id=stock.move(opened, body.project, body.version, body.board, body.to_project)
            )
        )


@area.get("/labels")
def labels() -> Response:
    """Labels with a QR code that opens the board, for all that stands in the stock room uncut
    (PDF).
    """
    with session() as opened:
        entries = [e for e in stock.entries(opened) if e.state != "cut"]
    origin = request.host_url.rstrip("/")
    found = [
        (e.board, e.project_name, f"{origin}/project/{e.project}/boards?board={e.board.id}")
        for e in entries
    ]
    headers = {"Content-Disposition": 'inline; filename="board-labels.pdf"'}
    return Response(board_labels(found), mimetype="application/pdf", headers=headers)


def _body(entry: Entry, place: Area | None) -> StockEntryBody:
    board = entry.board
    volume = round(board_volume(board))
    wood = wood_named(board.species)
    return StockEntryBody(
        project=entry.project,
        project_name=entry.project_name,
        rack=entry.rack,
        version=entry.version,
        id=board.id,
        species=board.species,
        quarter=board.quarter or board.nominal.name,
        length=board.length,
        width=round(board.mean_width),
        flat=max(0, int(flat_between(board, 0, board.length))),
        clear=clear_length(board, _USUAL_WIDTH),
        board_feet=float(cubic_board_feet(volume)),
        weight_kg=weight_kg(wood, volume) if wood else None,
        price=float(board.price),
        note=board.note,
        state=entry.state,
        used_for=list(entry.used_for),
        place=AreaBody(**vars(place)) if place else None,
    )
