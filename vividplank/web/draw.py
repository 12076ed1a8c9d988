"""Draw: what the parts are taken off from."""

from urllib.parse import unquote

from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.exchange import Refusal
from vividplank.store import drawings, projects
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas import DrawingBody, DrawingList, DrawingPath, ProjectPath, TroubleBody

area = APIBlueprint("draw", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody})

#: How each kind of file begins; the name is not believed.
_BEGINNINGS = ((b"%PDF-", "application/pdf"), (b"\x89PNG\r\n\x1a\n", "image/png"), (b"\xff\xd8\xff", "image/jpeg"))


@area.get("/projects/<int:project>/drawings", responses={200: DrawingList})
def list_drawings(path: ProjectPath) -> Response:
    with session() as opened:
        projects.load(opened, path.project)
        found = drawings.of_project(opened, path.project)
    return answer.body(DrawingList(drawings=[DrawingBody(**vars(d)) for d in found]))


@area.post("/projects/<int:project>/drawings", responses={201: DrawingBody})
def add_drawing(path: ProjectPath) -> Response:
    """A drawing to look at, sent as it is, its name in the header X-File-Name."""
    content = request.get_data()
    name = unquote(request.headers.get("X-File-Name", "drawing"))[:200]
    kind = _kind(content)
    with session() as opened:
        projects.load(opened, path.project)
        return answer.body(DrawingBody(**vars(drawings.add(opened, path.project, name, kind, content))), 201)


@area.get("/drawings/<int:drawing>", responses={200: None})
def get_drawing(path: DrawingPath) -> Response:
    with session() as opened:
        found, content = drawings.content(opened, path.drawing)
    policy = "default-src 'none'; style-src 'unsafe-inline'; img-src data:; frame-ancestors 'self'"
    if found.media_type == "image/svg+xml":
        policy += "; sandbox"  # a drawing is looked at, it runs nothing
    return Response(content, mimetype=found.media_type, headers={"Content-Security-Policy": policy,
                                                                 "Content-Disposition": "inline"})


@area.delete("/drawings/<int:drawing>", responses={204: None})
def remove_drawing(path: DrawingPath) -> Response:
    with session() as opened:
        drawings.remove(opened, path.drawing)
    return Response(status=204)


def _kind(content: bytes) -> str:
    for beginning, kind in _BEGINNINGS:
        if content.startswith(beginning):
            return kind
    head = content[:2000].lstrip(b"\xef\xbb\xbf \r\n\t").lower()
    if head.startswith((b"<?xml", b"<svg", b"<!--", b"<!doctype svg")) and b"<svg" in content[:4000].lower():
        return "image/svg+xml"
    raise Refusal("file", "is no drawing that can be shown; expected PDF, PNG, JPEG or SVG")
