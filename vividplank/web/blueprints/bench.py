"""Instruments at the bench: a reading taken, a board swept for metal or scanned."""

from flask import Response, current_app
from flask_openapi3 import APIBlueprint

from vividplank.core.board.check import check_board
from vividplank.core.exchange import Refusal
from vividplank.core.measure import show
from vividplank.core.survey.instruments import Bench, InstrumentKind, NoReading
from vividplank.core.survey.question import about_moisture, about_swelling, about_thickness
from vividplank.core.survey.scan import scanned
from vividplank.store import projects, workshops
from vividplank.store.database import session
from vividplank.store.projects import Project
from vividplank.web import answer
from vividplank.web.schemas.project import ProjectPath, TroubleBody
from vividplank.web.schemas.survey import (
    BoardAlone,
    Offer,
    OfferList,
    ReadAt,
    ReadBody,
    ScanBody,
    SweepBody,
)

area = APIBlueprint(
    "bench", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/instruments", responses={200: OfferList})
def list_instruments() -> Response:
    def offers(kind: InstrumentKind) -> list[Offer]:
        return [Offer(name=name, says=says) for name, says in instruments().offered(kind).items()]

    return answer.body(
        OfferList(
            caliper=offers("caliper"),
            readout=offers("readout"),
            moisture=offers("moisture"),
            metal=offers("metal"),
            scanner=offers("scanner"),
        )
    )


@area.post("/projects/<int:project>/readings/thickness", responses={200: ReadBody})
def read_thickness(path: ProjectPath, body: ReadAt) -> Response:
    project = _project(path.project)
    board = check_board(body.board, "$.board")
    caliper = instruments().caliper(connected(path.project, "caliper"))
    try:
        found = caliper.thickness(board, body.x, body.y)
    except NoReading as problem:
        return answer.body(ReadBody(trouble=str(problem)))
    return answer.body(
        ReadBody(thickness=found, question=about_thickness(board, body.x, found, project.system))
    )


@area.post("/projects/<int:project>/readings/moisture", responses={200: ReadBody})
def read_moisture(path: ProjectPath, body: ReadAt) -> Response:
    board = check_board(body.board, "$.board")
    meter = instruments().moisture_meter(connected(path.project, "moisture"))
    try:
        found = meter.percent(board, body.x, body.y)
    except NoReading as problem:
        return answer.body(ReadBody(trouble=str(problem)))
    return answer.body(
        ReadBody(percent=found, question=about_moisture(board.moisture, body.day, found))
    )


@area.post("/projects/<int:project>/sweep", responses={200: SweepBody})
def sweep(path: ProjectPath, body: BoardAlone) -> Response:
    """The board searched for metal along both faces."""
    project = _project(path.project)
    board = check_board(body.board, "$.board")
    found = instruments().metal_detector(connected(path.project, "metal")).sweep(board)
    places = " and ".join(f"{show(x, project.system, unit=True)} along" for x, _ in found)
    said = (
        f"It beeps at {places}."
        if found
        else "Nothing beeped. A detector may pass over a nail: look, too."
    )
    return answer.body(SweepBody(places=[list(p) for p in found], said=said))


@area.post("/projects/<int:project>/scan", responses={200: ScanBody})
def scan(path: ProjectPath, body: BoardAlone) -> Response:
    """Both faces scanned: the surface with its noise taken out."""
    project = _project(path.project)
    board = check_board(body.board, "$.board")
    scanner = instruments().scanner(connected(path.project, "scanner"))
    try:
        found = scanned(board, scanner.scan(board))
    except NoReading as problem:
        return answer.body(ScanBody(trouble=str(problem)))
    system = project.system
    sure = show(
        max(1, round(found.sure)), "in-decimal" if project.job.unit == "in" else "mm", unit=True
    )
    return answer.body(
        ScanBody(
            surface=found.surface,
            warp=found.warp,
            sure=round(found.sure),
            lost=found.lost,
            said=f"Scanned: a flat thickness taken from it is sure to {sure} (95 in 100); "
            f"{found.lost:.0%} of the heights were "
            "lost and filled in.",
            questions=[about_swelling(s, system) for s in found.swellings],
        )
    )


def instruments() -> Bench:
    """Those this application was made with."""
    found: Bench = current_app.extensions["bench"]
    return found


def _project(pk: int) -> Project:
    with session() as opened:
        return projects.load(opened, pk)


def connected(project: int, kind: InstrumentKind) -> str:
    """The name of the instrument of a kind that the project's workshop has connected; a Refusal
    where there is none.
    """
    with session() as opened:
        name: str = getattr(workshops.of_project(opened, project).workshop.instruments, kind)
    if name not in instruments().offered(kind):
        raise Refusal(
            f"$.workshop.instruments.{kind}",
            "is not connected; choose one in the workshop, or type the figure",
        )
    return name
