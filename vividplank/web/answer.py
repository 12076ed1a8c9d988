"""Answers of the API."""

from flask import Response
from pydantic import BaseModel


def body(model: BaseModel, code: int = 200) -> Response:
    return Response(model.model_dump_json(), code, mimetype="application/json")


def file(content: str | bytes, name: str, media_type: str) -> Response:
    """A download; the name goes out plain, without what a header cannot hold."""
    plain = "".join(
        c if c.isalnum() or c in "-_. " else "_" for c in name.encode("ascii", "replace").decode()
    )
    return Response(
        content,
        mimetype=media_type,
        headers={"Content-Disposition": f'attachment; filename="{plain}"'},
    )
