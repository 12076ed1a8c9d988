"""Job files to jobs and back."""

from dataclasses import fields, replace
from typing import Any

from vividplank.core.board import Board
from vividplank.core.cutlist import (
    Measure,
    MeasureTrouble,
    Part,
    values_of,
)
from vividplank.core.cutlist.check import check_part, check_runs, worked_out_anew
from vividplank.core.exchange.board_file import board_document, read_board, version_of
from vividplank.core.exchange.derived import from_file, in_files, to_file, unusual
from vividplank.core.exchange.job_shape import (
    JobShape,
    PlainBoardShape,
    PlainPartShape,
    PlainShopShape,
    newer_names,
)
from vividplank.core.job import Job
from vividplank.core.measure import Unit
from vividplank.core.milling.shop.workshop import Workshop, usual_workshop
from vividplank.core.refusal import Refusal, load
from vividplank.core.shop import Shop

_PLAIN_PART = frozenset(PlainPartShape.model_fields)
_PLAIN_SHOP = frozenset(PlainShopShape.model_fields)
#: What stands in a file's `shop` and is the workshop's, whatever is made in it.
_OF_WORKSHOP = ("climate", "instruments")
_PLAIN_BOARD = frozenset(PlainBoardShape.model_fields)


def read_job(text: str | bytes) -> Job:
    """The job in a file; a Refusal names the JSON path of what the format does not allow."""
    shape = load(text, JobShape)
    unit = shape.unit
    given = shape.model_dump(exclude_unset=True)
    parts = tuple(_part(p, unit, f"$.parts[{i}]") for i, p in enumerate(given["parts"]))
    for path, version in newer_names(shape, shape.version):
        raise Refusal(
            path,
            f"came with version {version} and this file says {shape.version}; expected no such "
            f"name here",
        )
    boards = tuple(
        _board(shape.boards[i], b, unit, f"$.boards[{i}]") for i, b in enumerate(given["boards"])
    )
    _unique([p.id for p in parts], "$.parts")
    _unique([b.id for b in boards], "$.boards")
    check_runs(parts)
    how = {name: value for name, value in given["shop"].items() if name not in _OF_WORKSHOP}
    shop: Shop = from_file(how, Shop, unit)
    measures = tuple(from_file(m, Measure, unit) for m in given.get("measures", ()))
    return _worked_out(Job(shape.name, shop, parts, boards, unit, measures))


def read_workshop(text: str | bytes) -> Workshop | None:
    """The workshop of a job file: its machines, climate and instruments; None where it says none of
    them. What it leaves out has its usual value.
    """
    shape = load(text, JobShape)
    said = shape.model_dump(exclude_unset=True)
    both: dict[str, Any] = {"machines": said.get("machines")}
    both |= {name: said["shop"].get(name) for name in _OF_WORKSHOP}
    given = {name: value for name, value in both.items() if value is not None}
    if not given:
        return None
    usual = usual_workshop(shape.unit)
    known = {
        name: from_file(_over(to_file(was, type(was), shape.unit), value), type(was), shape.unit)
        for name, value in given.items()
        for was in [getattr(usual, name)]
    }
    return replace(usual, **known)


def _over(usual: dict[str, Any], given: dict[str, Any]) -> dict[str, Any]:
    """What is given, and the usual where it says nothing."""
    both = {
        name: _over(usual[name], value) if isinstance(value, dict) and value else value
        for name, value in given.items()
        if name in usual
    }
    return usual | {n: v for n, v in given.items() if n not in usual} | both


def _worked_out(job: Job) -> Job:
    """The job with every formula worked out anew; a Refusal where one has no value."""
    if not job.measures and not any(p.formulas for p in job.parts):
        return job
    try:
        values = values_of(job.measures, job.unit)
    except MeasureTrouble as problem:
        raise Refusal(f"$.measures.{problem.name}", problem.why) from None
    parts = (worked_out_anew(p, job.unit, values, f"$.parts[{i}]") for i, p in enumerate(job.parts))
    return replace(job, parts=tuple(parts))


def job_document(job: Job, workshop: Workshop | None = None) -> dict[str, Any]:
    """The job as the plain document of the exchange format: of the first version that can say it
    all. Where the `workshop` is not as usual it is of version 3.
    """
    unit = job.unit
    place = _unusual_of(workshop or usual_workshop(unit), unit)
    version = 3 if place else _version(job)
    shop = to_file(job.shop, Shop, unit)
    for name in ("between", "layer"):
        if not shop["allowance"][name]:
            del shop["allowance"][name]
    usual = [f.name for f in fields(Shop) if f.name not in _PLAIN_SHOP]
    kept = {name for name, _ in unusual(job.shop, _PLAIN_SHOP)}
    for name in usual:
        if name not in kept:
            del shop[name]
    document = {
        "format": "vivid-plank/job",
        "version": version,
        "unit": unit,
        "name": job.name,
        "shop": shop,
        "parts": [_part_document(p, unit) for p in job.parts],
        "boards": [
            board_document(b, unit, version)
            | {
                name: to_file(getattr(b, name), hint, unit)
                for name, hint in unusual(b, _PLAIN_BOARD)
            }
            for b in job.boards
        ],
    }
    if job.measures:
        document["measures"] = [to_file(m, Measure, unit) for m in job.measures]
    shop.update({name: place.pop(name) for name in _OF_WORKSHOP if name in place})
    return document | place


def _unusual_of(workshop: Workshop, unit: Unit) -> dict[str, Any]:
    """What a file says of a workshop, where that is not as usual."""
    usual = usual_workshop(unit)
    return {
        name: to_file(now, type(now), unit)
        for name in ("machines", *_OF_WORKSHOP)
        for now in [getattr(workshop, name)]
        if now != getattr(usual, name)
    }


def _version(job: Job) -> int:
    newest = (
        job.measures
        or job.shop.allowance.between
        or job.shop.allowance.layer
        or unusual(job.shop, _PLAIN_SHOP)
        or any(unusual(p, _PLAIN_PART) for p in job.parts)
        or any(b.came_from or b.supplier or unusual(b, _PLAIN_BOARD) for b in job.boards)
    )
    return 3 if newest else max((version_of(b) for b in job.boards), default=1)


def _part_document(part: Part, unit: Unit) -> dict[str, Any]:
    plain: dict[str, Any] = to_file(part, Part, unit)
    kept = _PLAIN_PART | {name for name, _ in unusual(part, _PLAIN_PART)}
    return {k: v for k, v in plain.items() if k in kept and not (k == "run" and not v)}


def _part(given: dict[str, Any], unit: Unit, path: str) -> Part:
    said = {"name": ""} | given | {"run": given.get("run") or ""}
    return check_part(from_file(said, Part, unit), path)


def _board(shape: Any, given: dict[str, Any], unit: Unit, path: str) -> Board:
    board = read_board(shape, unit, path)
    beyond = {name: value for name, value in given.items() if name not in _PLAIN_BOARD}
    if not beyond:
        return board
    hints = {f.name: hint for f, hint in in_files(Board)}
    return replace(board, **{name: from_file(v, hints[name], unit) for name, v in beyond.items()})


def _unique(ids: list[str], path: str) -> None:
    for i, id in enumerate(ids):
        if id in ids[:i]:
            raise Refusal(f"{path}[{i}].id", f"'{id}' stands there already; expected every id once")
