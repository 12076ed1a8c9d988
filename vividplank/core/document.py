"""A job as a plain document in ticks, for keeping and comparing; unlike a job file it loses nothing."""

import hashlib
import json
from dataclasses import asdict
from decimal import Decimal
from typing import Any

from vividplank.core.board import Board, Defect, Station, Warp
from vividplank.core.cutlist import Edging, Measure, Panel, Part, Source
from vividplank.core.job import Job
from vividplank.core.shop import Allowance, Kerf, Shop
from vividplank.core.timber.rest import Climate, Moisture

#: What of a part its place on a board depends on.
_LAID_OUT_BY = ("id", "quantity", "species", "length", "width", "thickness", "faces", "panel", "run")


def job_to_document(job: Job) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(json.dumps(asdict(job), default=_plain))
    return document


def _plain(value: object) -> str:
    if not isinstance(value, Decimal):
        raise TypeError(f"{value!r} has no place in a document")
    return format(value.normalize(), "f")  # 88, 88.0 and 88.00 are one price


def job_from_document(document: dict[str, Any]) -> Job:
    return Job(
        document["name"], shop_from_document(document["shop"]),
        tuple(part_from_document(p) for p in document["parts"]),
        tuple(board_from_document(b) for b in document["boards"]), document["unit"],
        tuple(Measure(**m) for m in document.get("measures", ())),
    )


def shop_from_document(d: dict[str, Any]) -> Shop:
    return Shop(**{
        **d, "kerf": Kerf(**d["kerf"]), "allowance": Allowance(**d["allowance"]), "climate": Climate(**d.get("climate", {})),
    })


def part_from_document(d: dict[str, Any]) -> Part:
    return Part(**{
        **d, "panel": Panel(**d["panel"]) if d.get("panel") else None,
        "edging": Edging(**d["edging"]) if d.get("edging") else None,
        "source": Source(**d["source"]) if d.get("source") else None,
        "formulas": tuple((f, text) for f, text in d.get("formulas", ())),
        "outline": tuple((x, y) for x, y in d.get("outline", ())),
    })


def board_from_document(d: dict[str, Any]) -> Board:
    return Board(**{
        **d, "stations": tuple(Station(**s) for s in d["stations"]), "warp": Warp(**d["warp"]),
        "defects": tuple(Defect(**f) for f in d["defects"]), "price": Decimal(str(d["price"])),
        "moisture": tuple(Moisture(**m) for m in d.get("moisture", ())),
    })


def digest(job: Job) -> str:
    """What a plan was computed from: changes when anything does that a layout depends on."""
    document = job_to_document(job.on_boards())
    document.pop("name")
    document.pop("measures")
    document["shop"].pop("climate")
    for board in document["boards"]:
        board.pop("note")
        board.pop("moisture")
    document["parts"] = [{name: part[name] for name in _LAID_OUT_BY} for part in document["parts"]]
    return hashlib.sha256(json.dumps(document, sort_keys=True).encode()).hexdigest()
