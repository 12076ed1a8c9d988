"""A job as a plain document in ticks, for keeping and comparing; unlike a job file it loses
nothing.
"""

import hashlib
import json
from dataclasses import asdict
from decimal import Decimal
from typing import Any

from vividplank.core.board import Board, Defect, Grain, Station, Surface, Warp, Zone
from vividplank.core.board.photo import Photo
from vividplank.core.cutlist import Edging, GluedUp, Measure, Panel, Part, Source
from vividplank.core.job import Job
from vividplank.core.layout.model.fixings import Fixings, Forbidden
from vividplank.core.layout.model.plan import Item
from vividplank.core.shop import Allowance, Instruments, Keep, Kerf, Shop
from vividplank.core.timber.board_feet import TicketRule
from vividplank.core.timber.rest import Climate, Moisture

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
_WISHES = ("same_board", "match", "resawn", "figure")


def job_to_document(job: Job) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(json.dumps(asdict(job), default=_plain))
    return document


def _plain(value: object) -> str:
    if not isinstance(value, Decimal):
        raise TypeError(f"{value!r} has no place in a document")
    return format(value.normalize(), "f")  # 88, 88.0 and 88.00 are one price


def job_from_document(document: dict[str, Any]) -> Job:
    return Job(
        document["name"],
        shop_from_document(document["shop"]),
        tuple(part_from_document(p) for p in document["parts"]),
        tuple(board_from_document(b) for b in document["boards"]),
        document["unit"],
        tuple(Measure(**m) for m in document.get("measures", ())),
    )


def shop_from_document(d: dict[str, Any]) -> Shop:
    return Shop(
        **{
            **d,
            "kerf": Kerf(**d["kerf"]),
            "allowance": Allowance(**d["allowance"]),
            "climate": Climate(**d.get("climate", {})),
            "ticket": TicketRule(**d.get("ticket", {})),
            "keep": Keep(**d.get("keep", {})),
            "instruments": Instruments(**d.get("instruments", {})),
        }
    )


def part_from_document(d: dict[str, Any]) -> Part:
    return Part(
        **{
            **d,
            "panel": Panel(**d["panel"]) if d.get("panel") else None,
            "edging": Edging(**d["edging"]) if d.get("edging") else None,
            "glued_up": GluedUp(**d["glued_up"]) if d.get("glued_up") else None,
            "source": Source(**d["source"]) if d.get("source") else None,
            "formulas": tuple((f, text) for f, text in d.get("formulas", ())),
            "outline": tuple((x, y) for x, y in d.get("outline", ())),
        }
    )


def board_from_document(d: dict[str, Any]) -> Board:
    surface, grain = d.get("surface"), d.get("grain") or {}
    return Board(
        **{
            **d,
            "stations": tuple(
                Station(**{**s, "between": tuple(s.get("between", ()))}) for s in d["stations"]
            ),
            "warp": Warp(**d["warp"]),
            "defects": tuple(_defect(f) for f in d["defects"]),
            "price": Decimal(str(d["price"])),
            "moisture": tuple(Moisture(**m) for m in d.get("moisture", ())),
            "dressed": tuple(d.get("dressed", ())),
            "surface": surface
            and Surface(
                tuple(surface["xs"]),
                tuple(surface["ys"]),
                *(tuple(map(tuple, surface[k])) for k in ("lower", "upper")),
            ),
            "photos": tuple(Photo(**p) for p in d.get("photos", ())),
            "grain": Grain(**{**grain, "zones": tuple(Zone(**z) for z in grain.get("zones", ()))}),
        }
    )


def _defect(d: dict[str, Any]) -> Defect:
    return Defect(**{**d, "points": tuple((x, y) for x, y in d.get("points", ()))})


def fixings_to_document(holds: Fixings) -> dict[str, Any]:
    document: dict[str, Any] = json.loads(json.dumps(asdict(holds)))
    return document


def fixings_from_document(d: dict[str, Any]) -> Fixings:
    return Fixings(
        tuple(Item(**i) for i in d.get("pins", ())),
        tuple(Forbidden(**f) for f in d.get("forbidden", ())),
        tuple(d.get("excluded", ())),
        tuple(d.get("priority", ())),
    )


def digest(job: Job) -> str:
    """What a plan was computed from: changes when anything does that a layout depends on."""
    document = job_to_document(job.on_boards())
    wished = {part["figure"] for part in document["parts"]}
    document.pop("name")
    document.pop("measures")
    for name in ("climate", "ticket", "keep", "instruments"):
        document["shop"].pop(name)
    if not document["shop"]["allowance"]["between"]:  # plans from before there was any stand
        document["shop"]["allowance"].pop("between")
    for board in document["boards"]:
        if zones := [z for z in board["grain"]["zones"] if z["figure"] in wished]:
            board["zones"] = zones
        for name in ("note", "moisture", "grain", "dressed", "grade", "searched", "photos"):
            board.pop(name)
        for defect in board["defects"]:
            defect.pop("severity")
    document["parts"] = [
        {name: part[name] for name in _LAID_OUT_BY}
        | {name: part[name] for name in _WISHES if part[name]}
        for part in document["parts"]
    ]
    return hashlib.sha256(json.dumps(document, sort_keys=True).encode()).hexdigest()
