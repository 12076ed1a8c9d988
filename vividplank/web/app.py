"""The Flask application: the API, the built screens, and the rules of the door."""

import errno
import logging
from pathlib import Path

from flask import Response, current_app, request, send_from_directory
from flask_compress import Compress
from flask_openapi3 import Info, OpenAPI
from pydantic import ValidationError
from sqlalchemy import text
from sqlalchemy.exc import DBAPIError
from sqlalchemy.orm.exc import StaleDataError
from werkzeug.exceptions import HTTPException, NotFound

from vividplank.core.buying.market.yard import NoYard, Yard
from vividplank.core.exchange import Refusal
from vividplank.core.refusal import json_path, parse
from vividplank.core.survey.instruments import Bench
from vividplank.store.database import gone, kept, session
from vividplank.store.errors import InDoubt, NotFoundError, NothingToUndo, VersionConflict
from vividplank.web import answer
from vividplank.web.asking import Asking
from vividplank.web.blueprints import (
    bench,
    boards,
    books,
    days,
    draw,
    layout,
    log,
    mill,
    photos,
    plan_bench,
    shelf,
    stock,
    workshops,
)
from vividplank.web.blueprints.buying import aisle, amounts, materials, suppliers
from vividplank.web.blueprints.cutlist import cutlist, lists, parts
from vividplank.web.schemas.project import Health, TroubleBody

logger = logging.getLogger("vividplank.web")
DIST = Path(__file__).resolve().parents[2] / "frontend" / "dist"
BODY_LIMIT = 4 << 20
DRAWING_LIMIT = 64 << 20
_POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
    "font-src 'self'; "
    "connect-src 'self'; frame-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors "
    "'self'"
)
_LOCAL = {"127.0.0.1", "localhost", "[::1]"}


def _invalid(problem: ValidationError) -> Response:
    first = problem.errors(include_url=False)[0]
    said = {
        "unexpected_keyword_argument": "not permitted: there is no such name here",
        "value_error": first["msg"].removeprefix("Value error, "),
    }.get(first["type"], first["msg"].replace("Input should be", "expected"))
    return _trouble(422, said, json_path(first["loc"]))


def create_app(asking: Asking, instruments: Bench, yard: Yard | None = None) -> OpenAPI:
    """The application; `asking` puts long work on the queue, `instruments` are those that can be
    connected at the bench, `yard` says what lies at a source of wood.
    """
    app = OpenAPI(
        "vividplank",
        info=Info(title="Vivid Plank", version="1"),
        validation_error_status=422,
        validation_error_model=TroubleBody,
        validation_error_callback=_invalid,
        doc_ui=False,
        static_folder=None,
    )
    app.config["MAX_CONTENT_LENGTH"] = DRAWING_LIMIT + (1 << 16)
    app.config["PROPAGATE_EXCEPTIONS"] = False
    app.config["COMPRESS_ALGORITHM"] = ["br", "gzip"]
    Compress(app)
    app.extensions["asking"] = asking
    app.extensions["bench"] = instruments
    app.extensions["yard"] = yard or NoYard()
    for area in (
        shelf,
        draw,
        lists,
        parts,
        cutlist,
        boards,
        photos,
        bench,
        stock,
        workshops,
        layout,
        plan_bench,
        mill,
        days,
        log,
        books,
        materials,
        suppliers,
        amounts,
        aisle,
    ):
        app.register_api(area.area)
    app.before_request(_door)
    app.after_request(_headers)
    app.register_error_handler(Exception, _told)

    @app.get("/api/health", responses={200: Health, 503: Health})
    def health() -> Response:
        try:
            with session() as opened:
                opened.execute(text("select 1"))
        except DBAPIError:
            return answer.body(Health(name="vivid-plank", database=False), 503)
        return answer.body(Health(name="vivid-plank", database=True))

    app.add_url_rule("/", view_func=_page)
    app.add_url_rule("/<path:name>", view_func=_page)
    return app


def _page(name: str = "index.html") -> Response:
    """A built file, or the one page for every address that is a place in the application."""
    if name.startswith(("api/", "assets/")) and not (DIST / name).is_file():
        raise NotFound
    answer = send_from_directory(DIST, name if (DIST / name).is_file() else "index.html")
    # Built files carry a hash in their names; the page that names them must always be asked for
    # anew.
    lasting = name.startswith("assets/")
    answer.headers["Cache-Control"] = (
        "public, max-age=31536000, immutable" if lasting else "no-cache"
    )
    return answer


def _door() -> Response | None:
    """Only this machine, and only pages of our own may write."""
    kept.set(False)
    host = request.host.rsplit(":", 1)[0] if not request.host.endswith("]") else request.host
    if host not in _LOCAL:
        return _trouble(403, "this address is not served here; expected 127.0.0.1 or localhost")
    if any(c in text for text in (request.path, *request.args.values()) for c in ("\0", "\ufffd")):
        return _trouble(
            422, "the address has a character that belongs in no text; expected it left out"
        )
    if request.method not in ("GET", "HEAD"):
        origin = request.headers.get("Origin")
        site = request.headers.get("Sec-Fetch-Site", "same-origin")
        if site not in ("same-origin", "none") or (
            origin and origin != request.host_url.rstrip("/")
        ):
            return _trouble(403, "writes are taken from this application's own pages only")
        drawing = request.path.endswith(("/drawings", "/pictures"))
        limit = DRAWING_LIMIT if drawing else BODY_LIMIT
        if (request.content_length or 0) > limit:
            return _trouble(413, f"too large; expected at most {limit >> 20} MB")
        if request.is_json and not drawing:
            parse(request.get_data())
    return None


def _headers(answer: Response) -> Response:
    answer.headers.setdefault("Content-Security-Policy", _POLICY)
    answer.headers["X-Content-Type-Options"] = "nosniff"
    answer.headers["Referrer-Policy"] = "no-referrer"
    answer.headers["Cross-Origin-Opener-Policy"] = "same-origin"
    answer.headers["Cross-Origin-Resource-Policy"] = "same-origin"
    if request.path.startswith("/api/"):
        answer.headers.setdefault("Cache-Control", "no-store")
    return answer


def _told(problem: Exception) -> Response:
    """Every error as a sentence; what we did not foresee goes to the log with its trace, not to the
    user.
    """
    if isinstance(problem, Refusal):
        return _trouble(422, problem.why, problem.path)
    if isinstance(problem, VersionConflict):
        return _trouble(409, str(problem), version=problem.version)
    if isinstance(problem, StaleDataError):
        return _trouble(409, "somebody else, or another tab, has edited this at the same moment")
    if isinstance(problem, NothingToUndo):
        return _trouble(409, str(problem))
    if isinstance(problem, NotFoundError):
        return _trouble(404, str(problem))
    if isinstance(problem, HTTPException):
        code = problem.code or 500
        return _trouble(
            code, "there is nothing here" if code == 404 else problem.description or problem.name
        )
    read_only = request.method in ("GET", "HEAD")
    if isinstance(problem, InDoubt) and not read_only:
        return _trouble(503, str(problem))
    changed = (
        "it was saved before that, so look at what stands"
        if kept.get() and not read_only
        else "nothing was changed"
    )
    # The commit of a request that only reads leaves nothing in doubt.
    state = (
        "starting"
        if isinstance(problem, InDoubt)
        else gone(problem)
        if isinstance(problem, DBAPIError)
        else ""
    )
    if state == "full" or (isinstance(problem, OSError) and problem.errno == errno.ENOSPC):
        return _trouble(
            507, f"the disk is full; {changed}. Make room where the data lies and do it again"
        )
    if state:
        return _trouble(503, f"the database is starting; {changed}. Try again in a moment")
    logger.error("%s %s failed", request.method, request.path, exc_info=problem)
    return _trouble(
        500, f"something went wrong here; {changed}, and the log of the server says what it was"
    )


def _trouble(code: int, what: str, where: str = "", version: int | None = None) -> Response:
    body = TroubleBody(what=what, where=where, version=version)
    return current_app.response_class(body.model_dump_json(), code, mimetype="application/json")
