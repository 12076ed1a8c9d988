"""Job files to jobs and back."""

from typing import Any

from vividplank.core.cutlist import Panel, Part
from vividplank.core.cutlist.check import check_part, check_runs
from vividplank.core.exchange.board_file import board_document, read_board, version_of
from vividplank.core.exchange.schema import JobShape, PartShape, ShopShape, newer_names
from vividplank.core.job import Job
from vividplank.core.measure import Unit, from_number, to_number
from vividplank.core.refusal import Refusal, load
from vividplank.core.shop import Allowance, Kerf, Shop


def read_job(text: str | bytes) -> Job:
    """The job in a file; a Refusal names the JSON path of what the format does not allow."""
    shape = load(text, JobShape)
    unit = shape.unit
    parts = tuple(_part(p, unit, f"$.parts[{i}]") for i, p in enumerate(shape.parts))
    for path, version in newer_names(shape, shape.version):
        raise Refusal(
            path,
            f"came with version {version} and this file says {shape.version}; expected no such "
            f"name here",
        )
    boards = tuple(read_board(b, unit, f"$.boards[{i}]") for i, b in enumerate(shape.boards))
    _unique([p.id for p in parts], "$.parts")
    _unique([b.id for b in boards], "$.boards")
    check_runs(parts)
    return Job(shape.name, _shop(shape.shop, unit), parts, boards, unit)


def job_document(job: Job) -> dict[str, Any]:
    """What is cut from boards, as the plain document of the exchange format: of the first version
    that can say it all.
    """
    job = job.on_boards()
    wishes = any(p.figure or p.same_board or p.match or p.resawn for p in job.parts)
    version = (
        3
        if wishes or job.shop.allowance.between
        else max((version_of(b) for b in job.boards), default=1)
    )

    def num(ticks: int) -> float | int:
        return to_number(ticks, job.unit)

    return {
        "format": "vivid-plank/job",
        "version": version,
        "unit": job.unit,
        "name": job.name,
        "shop": {
            "method": job.shop.method,
            "kerf": {k: num(getattr(job.shop.kerf, k)) for k in ("crosscut", "rip", "resaw")},
            "allowance": {
                k: num(getattr(job.shop.allowance, k))
                for k in ("length", "width", "face", "panel_width")
            }
            | ({"between": num(job.shop.allowance.between)} if job.shop.allowance.between else {}),
            "end_trim": num(job.shop.end_trim),
            "min_blank_length": num(job.shop.min_blank_length),
            "max_slope": job.shop.max_slope,
        },
        "parts": [
            {
                "id": p.id,
                "name": p.name,
                "quantity": p.quantity,
                "species": p.species,
                "length": num(p.length),
                "width": num(p.width),
                "thickness": num(p.thickness),
                "faces": p.faces,
            }
            | (
                {
                    "panel": {
                        "stave_min": num(p.panel.stave_min),
                        "stave_max": num(p.panel.stave_max),
                    }
                }
                if p.panel
                else {}
            )
            | ({"run": p.run} if p.run else {})
            | {
                k: getattr(p, k)
                for k in ("figure", "same_board", "match", "resawn")
                if getattr(p, k)
            }
            for p in job.parts
        ],
        "boards": [board_document(b, job.unit, version) for b in job.boards],
    }


def _shop(shape: ShopShape, unit: Unit) -> Shop:
    def ticks(value: float) -> int:
        return from_number(value, unit)

    return Shop(
        shape.method,
        Kerf(*(ticks(getattr(shape.kerf, k)) for k in ("crosscut", "rip", "resaw"))),
        Allowance(
            *(
                ticks(getattr(shape.allowance, k))
                for k in ("length", "width", "face", "panel_width", "between")
            )
        ),
        ticks(shape.end_trim),
        ticks(shape.min_blank_length),
        shape.max_slope,
    )


def _part(shape: PartShape, unit: Unit, path: str) -> Part:
    panel = None
    if shape.panel:
        panel = Panel(
            from_number(shape.panel.stave_min, unit), from_number(shape.panel.stave_max, unit)
        )
    return check_part(
        Part(
            shape.id,
            shape.name,
            shape.quantity,
            shape.species,
            from_number(shape.length, unit),
            from_number(shape.width, unit),
            from_number(shape.thickness, unit),
            shape.faces,
            panel,
            shape.run or "",
            resawn=shape.resawn,
            match=shape.match,
            same_board=shape.same_board,
            figure=shape.figure,
        ),
        path,
    )


def _unique(ids: list[str], path: str) -> None:
    for i, id in enumerate(ids):
        if id in ids[:i]:
            raise Refusal(f"{path}[{i}].id", f"'{id}' stands there already; expected every id once")
