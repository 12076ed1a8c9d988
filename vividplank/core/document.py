"""A job as a plain document in ticks, for keeping and comparing; unlike a job file it loses
nothing.
"""

import hashlib
import json
from dataclasses import asdict
from decimal import Decimal
from typing import Any

from pydantic import TypeAdapter

from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.fixings import Fixings
from vividplank.core.shop import Shop

#: What of a part its place on a board depends on.
_LAID_OUT_BY = (
    "id",
    "quantity",
    "species",
    "length",
    "width",
    "thickness",
    "faces",
    "panel",
    "run",
)
#: What of a board no plan depends on.
_SURVEY = ("note", "moisture", "grain", "grade", "searched", "photos", "came_from", "supplier")
_WISHES = ("same_board", "match", "resawn", "figure", "from_board")


_JOB = TypeAdapter(Job)
_PART = TypeAdapter(Part)
_SHOP = TypeAdapter(Shop)
_BOARD = TypeAdapter(Board)
_FIXINGS = TypeAdapter(Fixings)


def job_to_document(job: Job) -> dict[str, Any]:
    """The job as JSON values; equal jobs give equal documents."""
    document: dict[str, Any] = json.loads(json.dumps(asdict(job), default=_plain))
    return document


def job_from_document(document: dict[str, Any]) -> Job:
    return _JOB.validate_python(document)


def part_to_document(part: Part) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(json.dumps(asdict(part)))
    return document


def part_from_document(document: dict[str, Any]) -> Part:
    return _PART.validate_python(document)


def shop_to_document(shop: Shop) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(json.dumps(asdict(shop)))
    return document


def shop_from_document(document: dict[str, Any]) -> Shop:
    return _SHOP.validate_python(document)


def board_from_document(document: dict[str, Any]) -> Board:
    return _BOARD.validate_python(document)


def fixings_to_document(fixings: Fixings) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(json.dumps(asdict(fixings)))
    return document


def fixings_from_document(document: dict[str, Any]) -> Fixings:
    return _FIXINGS.validate_python(document)


def _plain(value: object) -> str:
    if not isinstance(value, Decimal):
        raise TypeError(f"{value!r} has no place in a document")
    return format(value.normalize(), "f")  # 88, 88.0 and 88.00 are one price


def digest(job: Job) -> str:
    """What a plan was computed from: changes when anything does that a layout depends on."""
    document = job_to_document(job.on_boards())
    wished = {part["figure"] for part in document["parts"]}
    document.pop("name")
    document.pop("measures")
    for name in ("ticket", "keep", "chalk"):
        document["shop"].pop(name)
    for name in ("between", "layer"):  # plans from before there was any stand
        if not document["shop"]["allowance"][name]:
            document["shop"]["allowance"].pop(name)
    for board in document["boards"]:
        if zones := [z for z in board["grain"]["zones"] if z["figure"] in wished]:
            board["zones"] = zones
        if not board["dressed"]:  # plans from before boards could be dressed stand
            board.pop("dressed")
        for name in _SURVEY:
            board.pop(name)
        for defect in board["defects"]:
            defect.pop("severity")
    document["parts"] = [
        {name: part[name] for name in _LAID_OUT_BY}
        | {name: part[name] for name in _WISHES if part[name]}
        for part in document["parts"]
    ]
    return hashlib.sha256(json.dumps(document, sort_keys=True).encode()).hexdigest()
