"""Boards: what a board will yield, while it is being entered."""

from fractions import Fraction
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.board import Board
from vividplank.core.board.causes import causes, said_of_causes
from vividplank.core.board.check import check_board, outside
from vividplank.core.board.clear import clear_areas
from vividplank.core.board.flat.depth import depth_maps
from vividplank.core.board.flat.thick import lengths_for, region, said_of
from vividplank.core.board.grade import grade
from vividplank.core.board.grain import feed_first
from vividplank.core.board.volume import board_volume
from vividplank.core.shop import Shop
from vividplank.core.survey.look import Piece, advice, cuts, pieces_at
from vividplank.core.survey.scan import warp_of
from vividplank.core.timber import (
    board_feet,
    coefficients_hold,
    cubic_board_feet,
    movement,
    weight_kg,
    wood_named,
)
from vividplank.core.timber.rest import Climate, rest
from vividplank.store import milling, projects, workshops
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.board import AskLook, CutBody, LookBody, PieceBody
from vividplank.web.schemas.project import ProjectPath, TroubleBody
from vividplank.web.schemas.survey import (
    AreaBody,
    CutPieceBody,
    RestBody,
    SurveyAsk,
    SurveyBody,
    TriedCuts,
    TryCuts,
)

area = APIBlueprint(
    "boards", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.post("/projects/<int:project>/look", responses={200: LookBody})
def look_at_board(path: ProjectPath, body: AskLook) -> Response:
    """A board looked at, kept or not: thickness whole, halved, in thirds; weight; board feet;
    advice.
    """
    with session() as opened:
        project = projects.load(opened, path.project)
        alone = milling.of_project(opened, path.project, project.job).machines.lift_alone_kg
    job = project.job
    board = check_board(body.board, "$.board")
    found = cuts(board, job.shop.kerf.crosscut)
    volume = round(board_volume(board))
    wood = wood_named(board.species)
    weight = weight_kg(wood, volume) if wood else None
    return answer.body(
        LookBody(
            quarter=board.quarter or board.nominal.name,
            board_feet=float(cubic_board_feet(volume)),
            ticket_feet=float(_ticket_feet(board, job.shop)),
            weight_kg=weight,
            alone=weight is None or weight <= alone,
            cuts=[
                CutBody(
                    name=cut.name,
                    flat=int(cut.flat // 1),
                    pieces=[PieceBody(**_piece(p)) for p in cut.pieces],
                )
                for cut in found
            ],
            advice=advice(board, found, project.system),
            causes=said_of_causes(causes(board, region(board, 0, board.length)), project.system),
            sawn=board.grain.sawn,
            warp=warp_of(board, board.surface) if board.surface else board.warp,
            feed=_feed(board),
            outside=outside(board),
        )
    )


def _ticket_feet(board: Board, shop: Shop) -> Fraction:
    """As the yard writes it: the quarter's rough thickness, the width half way along, the whole
    length.
    """
    return board_feet(board.nominal.rough, round(board.mean_width), board.length, shop.ticket)


def _feed(board: Board) -> list[str]:
    """Which end goes into the jointer first with face B, then with face A on the table; what the
    two edges say.
    """
    said = []
    for down in ("A", "B"):
        ends = {e: feed_first(getattr(board.grain, e), down) for e in ("datum_edge", "far_edge")}
        known = {v for v in ends.values() if v}
        if len(known) == 1:
            said.append(f"Face {down} down: {known.pop()} first.")
        elif len(known) == 2:
            said.append(
                f"Face {down} down: the edges disagree, the fibres turn over. Light passes, the "
                f"way it tears less."
            )
    return said


def _piece(p: Piece) -> dict[str, Any]:
    """A length of a board as PieceBody holds it: its flat thickness rounded down, the safe side."""
    return {
        "x0": p.x0,
        "x1": p.x1,
        "flat": int(p.flat // 1),
        "takes_below": round(p.takes_below),
        "takes_above": round(p.takes_above),
        "a": p.slab.a,
        "b": p.slab.b,
        "c": p.slab.c,
    }


def _maps(board: Board, p: Piece) -> dict[str, Any]:
    place = region(board, p.x0, p.x1)
    below, above = depth_maps(board, place, p.slab)
    return {"y0": round(place.y0), "y1": round(place.y0) + place.h1, "below": below, "above": above}


def _rest(board: Board, climate: Climate) -> RestBody | None:
    wood = wood_named(board.species)
    found = rest(board.moisture, board.thickest, climate, wood.specific_gravity if wood else None)
    if found is None:
        return None
    shrinks = None
    if wood:
        shrinks = [
            round(movement(board.mean_width, c, found.away))
            for c in (wood.coef_radial, wood.coef_tangential)
        ]
    holds = coefficients_hold(found.equilibrium, found.equilibrium + found.away)
    return RestBody(
        **vars(found), work_now=found.work_now, shrinks=shrinks, coefficients_hold=holds
    )


@area.post("/projects/<int:project>/cuts", responses={200: TriedCuts})
def try_cuts(path: ProjectPath, body: TryCuts) -> Response:
    """The board crosscut here and there: what each length holds flat, and which corner to knock
    down first.
    """
    with session() as opened:
        kerf = projects.load(opened, path.project).job.shop.kerf.crosscut
    board = check_board(body.board, "$.board")
    return answer.body(
        TriedCuts(
            pieces=[
                CutPieceBody(
                    **_piece(p),
                    corners=[round(c) for c in p.corners],
                    saved=max(0, round(p.saved)),
                    **_maps(board, p),
                )
                for p in pieces_at(board, body.places, kerf)
            ]
        )
    )


@area.post("/projects/<int:project>/survey", responses={200: SurveyBody})
def survey_board(path: ProjectPath, body: SurveyAsk) -> Response:
    """What is in a board: lengths for a wanted thickness, its largest clear areas, the grade they
    make.
    """
    with session() as opened:
        project = projects.load(opened, path.project)
        climate = workshops.of_project(opened, path.project).workshop.climate
    board = check_board(body.board, "$.board")
    shop = project.job.shop
    said = ""
    if body.wanted:
        found = lengths_for(board, body.wanted, shop.kerf.crosscut, shop.min_blank_length)
        said = said_of(
            board, body.wanted, found, shop.kerf.crosscut, shop.min_blank_length, project.system
        )
    graded = grade(board)
    areas = clear_areas(board, body.quality, shortest=shop.min_blank_length)
    return answer.body(
        SurveyBody(
            said=said,
            rest=_rest(board, climate),
            grade=graded.name,
            share=graded.share,
            surface=graded.surface,
            about=graded.about,
            clear_feet=sum(a.size for a in areas)
            / (board.mean_width * board.length)
            * float(cubic_board_feet(round(board_volume(board)))),
            areas=[AreaBody(x0=a.x0, x1=a.x1, y0=a.y0, y1=a.y1, face=a.face) for a in areas],
        )
    )
