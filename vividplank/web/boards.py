"""Boards: what a board will yield, while it is being entered."""

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.board.look import advice, cuts
from vividplank.core.board.volume import board_volume
from vividplank.core.exchange.job_file import check_board
from vividplank.core.milling import Machines
from vividplank.core.timber import cubic_board_feet, quarter_of, weight_kg, wood_named
from vividplank.store import projects
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas import BoardBody, CutBody, LookBody, PieceBody, ProjectPath, TroubleBody
from vividplank.web.translate import board_of

area = APIBlueprint("boards", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody})


@area.post("/projects/<int:project>/look", responses={200: LookBody})
def look_at_board(path: ProjectPath, body: BoardBody) -> Response:
    """A board looked at, kept or not: thickness whole, halved, in thirds; weight; board feet; advice."""
    with session() as opened:
        job = projects.load(opened, path.project).job
    board = check_board(board_of(body), "$")
    found = cuts(board, job.shop.kerf.crosscut)
    volume = round(board_volume(board))
    wood = wood_named(board.species)
    weight = weight_kg(wood, volume) if wood else None
    return answer.body(LookBody(
        quarter=board.quarter or quarter_of(board.thickest).name, board_feet=float(cubic_board_feet(volume)),
        weight_kg=weight, alone=weight is None or weight <= Machines().lift_alone_kg,
        cuts=[
            CutBody(name=cut.name, flat=int(cut.flat // 1), pieces=[
                PieceBody(x0=p.x0, x1=p.x1, flat=int(p.flat // 1), takes_below=round(p.takes_below),
                          takes_above=round(p.takes_above), a=p.slab.a, b=p.slab.b, c=p.slab.c) for p in cut.pieces
            ]) for cut in found
        ],
        advice=advice(board, found, job.unit),
    ))
