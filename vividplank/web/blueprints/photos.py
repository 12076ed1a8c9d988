"""Photographs of a board's faces, and the straightened pictures under its drawing."""

from collections.abc import Callable
from typing import TypeVar

from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.board.check import check_board
from vividplank.core.exchange import Refusal
from vividplank.core.survey.photo import NoPhoto, ends_of
from vividplank.store import pictures, projects
from vividplank.store.database import session
from vividplank.store.errors import NotFoundError
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.project import ProjectPath, TroubleBody
from vividplank.web.schemas.survey import PictureBody, PicturePath, StraightenBody

Found = TypeVar("Found")
area = APIBlueprint(
    "photos", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.post("/projects/<int:project>/pictures", responses={201: PictureBody})
def add_picture(path: ProjectPath) -> Response:
    """A photograph, sent as it is."""
    content = request.get_data()
    kept = _or_refused(lambda: ask().upright(content))
    with session() as at:
        projects.load(at, path.project)
        return answer.body(_body(pictures.add(at, path.project, kept)), 201)


@area.post("/pictures/<int:picture>/straighten", responses={200: PictureBody})
def straighten_picture(path: PicturePath, body: StraightenBody) -> Response:
    board = check_board(body.board, "$.board")
    corners = tuple((x, y) for x, y in body.corners)
    with session() as at:
        photograph = pictures.load(at, path.picture).photograph
    straight = _or_refused(
        lambda: ask().straightened(photograph, corners, ends_of(board), body.face)
    )
    with session() as at:
        return answer.body(_body(pictures.keep_straight(at, path.picture, corners, straight)))


@area.get("/pictures/<int:picture>/photograph")
def get_photograph(path: PicturePath) -> Response:
    with session() as at:
        return Response(pictures.load(at, path.picture).photograph, mimetype="image/jpeg")


@area.get("/pictures/<int:picture>/straight")
def get_straight(path: PicturePath) -> Response:
    with session() as at:
        found = pictures.load(at, path.picture)
    if found.straight is None:
        raise NotFoundError("its corners have not been set yet")
    return Response(found.straight, mimetype="image/jpeg")


@area.get("/pictures/<int:picture>", responses={200: PictureBody})
def get_picture(path: PicturePath) -> Response:
    with session() as at:
        return answer.body(_body(pictures.load(at, path.picture)))


def _body(found: pictures.Picture) -> PictureBody:
    return PictureBody(
        picture=found.pk,
        straight=found.straight is not None,
        corners=[list(c) for c in found.corners],
    )


def _or_refused(make: Callable[[], Found]) -> Found:
    try:
        return make()
    except NoPhoto as problem:
        raise Refusal("$", str(problem)) from None
