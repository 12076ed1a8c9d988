"""Job files to jobs and back."""

from typing import Any

from vividplank.core.board import same_species
from vividplank.core.cutlist import FORMULA_FIELDS, Panel, Part
from vividplank.core.exchange.board_file import board_document, read_board, version_of
from vividplank.core.exchange.refusal import Refusal, load, one_line, prose
from vividplank.core.exchange.schema import JobShape, PartShape, ShopShape, newer_names
from vividplank.core.job import Job
from vividplank.core.measure import Unit, from_number, to_number
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


def check_part(part: Part, path: str) -> Part:
    """The part if its figures can be those of a part, or a Refusal."""
    for name in ("id", "name", "species", "run", "match", "same_board", "joint"):
        one_line(getattr(part, name), f"{path}.{name}")
    prose(part.note, f"{path}.note")
    for name in ("length", "width", "thickness"):
        if getattr(part, name) <= 0:
            raise Refusal(f"{path}.{name}", "expected more than nothing")
    if part.quantity < 1:
        raise Refusal(f"{path}.quantity", "expected a count of 1 or more")
    if part.panel and not 0 < part.panel.stave_min <= part.panel.stave_max:
        raise Refusal(
            f"{path}.panel.stave_max", "expected at least stave_min, and both above nothing"
        )
    if part.panel and part.run:
        raise Refusal(
            f"{path}.run", "a panel is glued from several blanks; expected no run beside a panel"
        )
    if not 1 <= part.layers <= 20:
        raise Refusal(f"{path}.layers", "expected 1 to 20 layers")
    if part.layers > 1 and part.run:
        raise Refusal(f"{path}.layers", "a run is one blank; expected no layers beside a run")
    if part.edging:
        if part.stock != "sheet":
            raise Refusal(f"{path}.edging", "edging goes on sheet parts; expected stock 'sheet'")
        if (
            part.edging.thickness <= 0
            or not 0 <= part.edging.long_edges <= 2
            or not 0 <= part.edging.ends <= 2
        ):
            raise Refusal(
                f"{path}.edging",
                "expected strips of some thickness on none, one or two edges each way",
            )
        if min(part.cut_size()) <= 0:
            raise Refusal(
                f"{path}.edging", "is thicker than the part; expected some sheet between the strips"
            )
    if any(name not in FORMULA_FIELDS for name, _ in part.formulas):
        raise Refusal(f"{path}.formulas", f"expected formulas for {', '.join(FORMULA_FIELDS)}")
    if not 0 <= part.joint_length < part.length:
        raise Refusal(f"{path}.joint_length", "expected less than the part's length")
    return part


def check_runs(parts: tuple[Part, ...]) -> None:
    """Parts of one run must share wood, width and thickness; a Refusal names the one that does
    not.
    """
    first: dict[str, Part] = {}
    for i, part in enumerate(parts):
        if not part.run:
            continue
        other = first.setdefault(part.run, part)
        if not same_species(part.species, other.species):
            raise Refusal(
                f"$.parts[{i}].species",
                f"run '{part.run}' is of {other.species}; expected the same wood",
            )
        for name in ("width", "thickness"):
            if getattr(part, name) != getattr(other, name):
                raise Refusal(
                    f"$.parts[{i}].{name}",
                    f"expected the {name} of {other.id}, with which it shares the run '{part.run}'",
                )


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
