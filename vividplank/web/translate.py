"""Between the core's things and what goes over the wire."""

from dataclasses import asdict
from decimal import Decimal

from vividplank.core.board import Board
from vividplank.core.cutlist import Measure, Part, values_of
from vividplank.core.document import board_from_document, part_from_document, shop_from_document
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put
from vividplank.core.layout.edit.moves import worth
from vividplank.core.layout.model.plan import Plan, Segment
from vividplank.store.layouts import Layout
from vividplank.store.projects import Project
from vividplank.web.schemas.board import BoardBody
from vividplank.web.schemas.layout import LayoutBody
from vividplank.web.schemas.project import (
    AllowanceBody,
    ClimateBody,
    EditBody,
    InstrumentsBody,
    KeepBody,
    KerfBody,
    MeasureValueBody,
    PartBody,
    ProjectBody,
    ShopBody,
    TicketBody,
)


def project_body(project: Project) -> ProjectBody:
    shop = project.job.shop
    return ProjectBody(
        pk=project.pk,
        name=project.job.name,
        system=project.system,
        version=project.version,
        shop=ShopBody(
            method=shop.method,
            kerf=KerfBody(**vars(shop.kerf)),
            allowance=AllowanceBody(**vars(shop.allowance)),
            end_trim=shop.end_trim,
            min_blank_length=shop.min_blank_length,
            max_slope=shop.max_slope,
            climate=ClimateBody(**vars(shop.climate)),
            ticket=TicketBody(**vars(shop.ticket)),
            keep=KeepBody(**vars(shop.keep)),
            instruments=InstrumentsBody(**vars(shop.instruments)),
        ),
        parts=[part_body(p) for p in project.job.parts],
        boards=[board_body(b) for b in project.job.boards],
        measures=measure_bodies(project.job),
        undo=project.undo,
        redo=project.redo,
        rack=project.rack,
    )


def part_body(p: Part) -> PartBody:
    shown = {**asdict(p), "formulas": dict(p.formulas)}
    del shown["glued_up"]  # what a layer of a plan is of; a listed part has its layers
    return PartBody.model_validate(shown)


def part_of(body: PartBody) -> Part:
    document = body.model_dump(exclude={"was"})
    return part_from_document({**document, "formulas": list(document["formulas"].items())})


def measure_bodies(job: Job) -> list[MeasureValueBody]:
    values = values_of(job.measures, job.unit)

    def body(m: Measure) -> MeasureValueBody:
        value = values[m.name.lower()]
        return MeasureValueBody(
            name=m.name,
            text=m.text,
            kind=m.kind,
            note=m.note,
            ticks=round(value.amount) if value.length else None,
            number=None if value.length else float(value.amount),
        )

    return [body(m) for m in job.measures]


def board_body(b: Board) -> BoardBody:
    return BoardBody.model_validate({**asdict(b), "price": float(b.price)})


def board_of(body: BoardBody) -> Board:
    document = body.model_dump(exclude={"was"})
    document["price"] = Decimal(str(body.price))
    return board_from_document(document)


def change_of(body: EditBody) -> Change:
    return Change(
        body.label,
        body.name,
        None,
        shop_from_document(body.shop.model_dump()) if body.shop else None,
        tuple(Put(part_of(p), p.was) for p in body.put_parts),
        frozenset(body.remove_parts),
        tuple(Put(board_of(b), b.was) for b in body.put_boards),
        frozenset(body.remove_boards),
        None
        if body.measures is None
        else tuple(Measure(m.name, m.text, m.kind, m.note) for m in body.measures),
    )


def layout_body(layout: Layout, project: Project) -> LayoutBody:
    return LayoutBody.model_validate(
        {
            "pk": layout.pk,
            "state": layout.state,
            "stale": layout.stale(project.job),
            "seconds": layout.seconds,
            "spent": layout.spent,
            "rounds": layout.rounds,
            "unplaced": layout.unplaced,
            "cost": None if layout.cost is None else float(layout.cost),
            "lower_bound": layout.lower_bound,
            "trying": layout.trying,
            "trouble": layout.trouble,
            "system": project.system,
            "plan": plan_in_ticks(layout.plan) if layout.plan else None,
            "boards": [board_body(b) for b in layout.job.boards],
            "parts": [part_body(p) for p in layout.job.parts],
            "fixings": asdict(layout.fixings),
            "made_by": layout.made_by,
            "name": layout.name,
            "yields": worth(layout.job, layout.plan).yields if layout.plan else 0.0,
        }
    )


def plan_in_ticks(plan: Plan) -> dict[str, object]:
    """The plan as the screens draw it."""
    return {
        "boards": [
            {"board": b.board, "segments": segments_in_ticks(b.segments)} for b in plan.boards
        ],
        "unplaced": [{"part": u.part, "n": u.n, "why": u.why} for u in plan.unplaced],
    }


def segments_in_ticks(segments: tuple[Segment, ...]) -> list[dict[str, object]]:
    return [
        {
            "x0": s.x0,
            "x1": s.x1,
            "y0": s.y0,
            "slope": s.slope,
            "strips": [
                {
                    "y0": t.y0,
                    "y1": t.y1,
                    "blanks": [
                        {
                            "x0": k.x0,
                            "x1": k.x1,
                            "layers": [
                                [{"part": i.part, "n": i.n, "stave": i.stave} for i in layer]
                                for layer in k.layers
                            ],
                        }
                        for k in t.blanks
                    ],
                }
                for t in s.strips
            ],
        }
        for s in segments
    ]
