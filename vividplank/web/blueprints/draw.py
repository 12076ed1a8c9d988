"""Draw: what the parts are taken off from; files in, what was read in them, what was marked on them
by eye.
"""

from dataclasses import asdict
from urllib.parse import unquote

from flask import Response, request
from flask_openapi3 import APIBlueprint

from vividplank.core.exchange import Refusal
from vividplank.core.takeoff import Unreadable, kind_of
from vividplank.core.takeoff.model.compare import differences
from vividplank.core.takeoff.model.found import Found
from vividplank.store import drawings, projects
from vividplank.store.database import session
from vividplank.store.drawings import Drawing
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.project import DrawingPath, ProjectPath, TroubleBody
from vividplank.web.schemas.takeoff import (
    AnswersBody,
    DifferenceBody,
    DifferenceList,
    DrawingBody,
    DrawingList,
    DrawingQuery,
    FoundBody,
    MarksBody,
    PagePath,
    ReadingBody,
)

area = APIBlueprint(
    "draw",
    __name__,
    url_prefix="/api",
    abp_responses={404: TroubleBody, 409: TroubleBody, 422: TroubleBody},
)

_MEDIA = {
    "pdf": "application/pdf",
    "png": "image/png",
    "jpeg": "image/jpeg",
    "svg": "image/svg+xml",
}


@area.get("/projects/<int:project>/drawings", responses={200: DrawingList})
def list_drawings(path: ProjectPath) -> Response:
    with session() as opened:
        projects.load(opened, path.project)
        found = drawings.of_project(opened, path.project)
    return answer.body(DrawingList(drawings=[_body(d) for d in found]))


@area.post("/projects/<int:project>/drawings", responses={201: DrawingBody})
def add_drawing(path: ProjectPath, query: DrawingQuery) -> Response:
    """A file to take parts off, sent as it is, its name in the header X-File-Name; a worker reads
    it.
    """
    content = request.get_data()
    told = unquote(request.headers.get("X-File-Name", "drawing"))[:200]
    name = "".join(c if c.isprintable() else "_" for c in told)
    try:
        kind = kind_of(content, name)
    except Unreadable as problem:
        raise Refusal("file", str(problem)) from None
    with session() as opened:
        projects.load(opened, path.project)
        media_type = _MEDIA.get(kind, "application/octet-stream")
        added = drawings.add(opened, path.project, name, media_type, content, query.replaces)
        waiting = drawings.waiting_for(opened, path.project, name)
    for drawing in (added.pk, *waiting):
        ask().read(drawing)
    return answer.body(_body(added), 201)


@area.get("/drawings/<int:drawing>/reading", responses={200: ReadingBody})
def get_reading(path: DrawingPath) -> Response:
    with session() as opened:
        found = drawings.reading(opened, path.drawing)
        answers = drawings.settings(opened, path.drawing)
    return answer.body(
        ReadingBody.model_validate(
            {**asdict(found), "answers": AnswersBody.model_validate(answers)}
        )
    )


@area.put("/drawings/<int:drawing>/answers", responses={200: DrawingBody})
def answer_drawing(path: DrawingPath, body: AnswersBody) -> Response:
    """Its unit, or what its layers mean; it is read again with that."""
    with session() as opened:
        changed = drawings.read_again(opened, path.drawing, body.model_dump())
    ask().read(path.drawing)
    return answer.body(_body(changed))


@area.get("/drawings/<int:drawing>/changes", responses={200: DifferenceList})
def get_changes(path: DrawingPath) -> Response:
    """What this version changes against the one it replaces, part by part, with the marks of the
    parts on the list.
    """
    with session() as opened:
        newer = drawings.load(opened, path.drawing)
        if newer.replaces is None:
            raise Refusal("drawing", "replaces nothing; expected a newer version of a drawing")
        before, after = (
            drawings.reading(opened, newer.replaces),
            drawings.reading(opened, path.drawing),
        )
        parts = projects.load(opened, newer.project).job.parts
    marks = {p.source.key: p.id for p in parts if p.source and p.source.drawing == newer.replaces}
    return answer.body(
        DifferenceList(
            differences=[
                DifferenceBody(
                    what=list(d.what),
                    before=_found(d.before),
                    after=_found(d.after),
                    part=marks.get(d.before.key, "") if d.before else "",
                )
                for d in differences(before.parts, after.parts)
            ]
        )
    )


@area.post("/drawings/<int:drawing>/take-over", responses={200: DrawingBody})
def take_over(path: DrawingPath) -> Response:
    """This version stands; the one it replaces steps back."""
    with session() as opened:
        drawings.take_over(opened, path.drawing)
        return answer.body(_body(drawings.load(opened, path.drawing)))


@area.get("/drawings/<int:drawing>/pages/<int:n>", responses={200: None})
def get_page(path: PagePath) -> Response:
    with session() as opened:
        png = drawings.page(opened, path.drawing, path.n)
    return Response(png, mimetype="image/png", headers={"Cache-Control": "private, max-age=3600"})


@area.get("/drawings/<int:drawing>/marks", responses={200: MarksBody})
def get_marks(path: DrawingPath) -> Response:
    with session() as opened:
        kept, version = drawings.marks(opened, path.drawing)
    return answer.body(MarksBody.model_validate({"version": version, **kept}))


@area.put("/drawings/<int:drawing>/marks", responses={200: MarksBody})
def put_marks(path: DrawingPath, body: MarksBody) -> Response:
    """Scales and parts marked by eye, made from `version`."""
    with session() as opened:
        version = drawings.mark(
            opened, path.drawing, body.version, body.model_dump(exclude={"version"})
        )
    return answer.body(body.model_copy(update={"version": version}))


@area.get("/drawings/<int:drawing>", responses={200: None})
def get_drawing(path: DrawingPath) -> Response:
    """The file as it came in. What a browser could run is handed out for keeping, never shown as a
    page.
    """
    with session() as opened:
        found, content = drawings.content(opened, path.drawing)
    policy = (
        "default-src 'none'; style-src 'unsafe-inline'; img-src data:; frame-ancestors "
        "'self'; sandbox"
    )
    shown = answer.file(content, found.name, found.media_type)
    shown.headers["Content-Security-Policy"] = policy
    return shown


@area.delete("/drawings/<int:drawing>", responses={204: None})
def remove_drawing(path: DrawingPath) -> Response:
    with session() as opened:
        drawings.remove(opened, path.drawing)
    return Response(status=204)


def _body(d: Drawing) -> DrawingBody:
    return DrawingBody(
        pk=d.pk,
        name=d.name,
        media_type=d.media_type,
        size=d.size,
        state=d.state,  # type: ignore[arg-type]
        trouble=d.trouble,
        replaces=d.replaces,
        replaced=d.replaced,
    )


def _found(found: Found | None) -> FoundBody | None:
    return FoundBody.model_validate(asdict(found)) if found else None
