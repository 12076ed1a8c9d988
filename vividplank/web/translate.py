"""Between the core's things and what goes over the wire."""

from dataclasses import asdict, fields
from typing import TypeVar

from vividplank.core.board import Board
from vividplank.core.cutlist import Measure, Part, values_of
from vividplank.core.job import Job
from vividplank.core.job.change import Change, Put
from vividplank.core.layout.edit.moves import worth
from vividplank.store.layouts import Layout
from vividplank.store.projects import Project
from vividplank.web.schemas.layout import LayoutBody, PlanBody
from vividplank.web.schemas.project import EditBody, MeasureValueBody, ProjectBody

T = TypeVar("T", Part, Board)


def project_body(project: Project) -> ProjectBody:
    return ProjectBody(
        pk=project.pk,
        name=project.job.name,
        system=project.system,
        version=project.version,
        shop=project.job.shop,
        parts=list(project.job.parts),
        boards=list(project.job.boards),
        measures=measure_bodies(project.job),
        undo=project.undo,
        redo=project.redo,
        rack=project.rack,
    )


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


def _only(thing: type[T], put: T) -> T:
    """The thing alone, without what the edit says of it."""
    return thing(**{f.name: getattr(put, f.name) for f in fields(thing)})


def change_of(body: EditBody) -> Change:
    return Change(
        body.label,
        body.name,
        None,
        body.shop,
        tuple(Put(_only(Part, p), p.was) for p in body.put_parts),
        frozenset(body.remove_parts),
        tuple(Put(_only(Board, b), b.was) for b in body.put_boards),
        frozenset(body.remove_boards),
        None if body.measures is None else tuple(body.measures),
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
            "plan": layout.plan
            and PlanBody(
                boards=list(layout.plan.boards),
                unplaced=list(layout.plan.unplaced),
                closed=list(layout.plan.closed),
            ),
            "boards": list(layout.job.boards),
            "parts": list(layout.job.parts),
            "fixings": asdict(layout.fixings),
            "made_by": layout.made_by,
            "name": layout.name,
            "yields": worth(layout.job, layout.plan).yields if layout.plan else 0.0,
        }
    )
