"""The list's helpers: formulas, patterns, dividers and the foreman's checks."""

from dataclasses import asdict

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.cutlist import FormulaError, values_of
from vividplank.core.cutlist.dividers import (
    Divided,
    DividerTrouble,
    drawers,
    shelves,
    slats,
    slats_for_gap,
)
from vividplank.core.cutlist.formula import evaluate
from vividplank.core.exchange import Refusal
from vividplank.core.job.checks import checks
from vividplank.core.takeoff.patterns import PATTERNS, PatternTrouble, Written, pattern_named, write
from vividplank.store import projects
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.project import ProjectPath, TroubleBody
from vividplank.web.schemas.takeoff import (
    CheckBody,
    CheckList,
    DivideBody,
    DividedBody,
    FormulaText,
    FormulaValue,
    NewPattern,
    PatternBody,
    PatternChoiceBody,
    PatternList,
    PatternMeasureBody,
    PatternName,
    SketchBody,
)

area = APIBlueprint(
    "cutlist", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/patterns", responses={200: PatternList})
def list_patterns() -> Response:
    return answer.body(
        PatternList(
            patterns=[PatternName(pattern=p.key, title=p.title, says=p.says) for p in PATTERNS]
        )
    )


@area.post("/projects/<int:project>/pattern", responses={200: PatternBody})
def try_pattern(path: ProjectPath, body: NewPattern) -> Response:
    """What a pattern would write with these measures and choices, without changing anything."""
    with session() as opened:
        job = projects.load(opened, path.project).job
    try:
        pattern = pattern_named(body.pattern)
    except PatternTrouble as problem:
        raise Refusal("$.pattern", str(problem)) from None
    taken = ({m.name for m in job.measures}, {p.id for p in job.parts})
    trouble = ""
    try:
        written = write(pattern, job.unit, body.species, body.values, body.choices, *taken)
    except PatternTrouble as problem:
        trouble = str(problem)
        written = write(pattern, job.unit, "white oak", None, {}, *taken)
    chosen = {c.name: body.choices.get(c.name, c.options[0]) for c in pattern.choices}
    return answer.body(
        PatternBody(
            pattern=pattern.key,
            title=pattern.title,
            says=pattern.says,
            measures=_measures(written, job.unit),
            choices=[
                PatternChoiceBody(
                    name=c.name, says=c.says, options=list(c.options), chosen=chosen[c.name]
                )
                for c in pattern.choices
            ],
            parts=list(written.parts),
            arithmetic=list(written.arithmetic),
            warnings=list(written.warnings),
            trouble=trouble,
            sketches=[
                SketchBody(
                    name=s.name,
                    width=s.width,
                    height=s.height,
                    rects=[asdict(r) for r in s.rects],
                    dims=[asdict(d) for d in s.dims],
                )
                for s in written.sketches
            ],
        )
    )


@area.post("/projects/<int:project>/formula", responses={200: FormulaValue})
def try_formula(path: ProjectPath, body: FormulaText) -> Response:
    """What a formula comes to with the project's measures, or why it comes to nothing."""
    with session() as opened:
        job = projects.load(opened, path.project).job
    try:
        value = evaluate(
            body.text, job.unit, values_of(job.measures, job.unit), length=body.kind == "length"
        )
    except FormulaError as problem:
        return answer.body(FormulaValue(ticks=None, number=None, why=problem.why))
    return answer.body(
        FormulaValue(
            ticks=round(value.amount) if value.length else None,
            number=None if value.length else float(value.amount),
            why="",
        )
    )


@area.get("/projects/<int:project>/checks", responses={200: CheckList})
def get_checks(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
    return answer.body(
        CheckList(
            checks=[
                CheckBody(
                    parts=list(c.parts),
                    what=c.what,
                    why=c.why,
                    fix=c.fix,
                    put_parts=list(c.fixed),
                )
                for c in checks(project.job, project.system)
            ]
        )
    )


@area.post("/divide", responses={200: DividedBody})
def divide(body: DivideBody) -> Response:
    """A length divided; a Refusal where it does not go."""
    try:
        found = _divided(body)
    except DividerTrouble as problem:
        raise Refusal("$", str(problem)) from None
    return answer.body(
        DividedBody(
            openings=list(found.openings), at=list(found.at), left=found.left, said=found.said
        )
    )


def _divided(b: DivideBody) -> Divided:
    if b.kind == "shelves":
        return shelves(b.span, b.stock, b.heights, b.room, b.system)
    if b.kind == "drawers-equal":
        return drawers(b.span, b.count, b.gap, 1.0, b.system)
    if b.kind == "drawers-graded":
        return drawers(b.span, b.count, b.gap, b.growth, b.system)
    if b.kind == "slats-count":
        return slats(b.span, b.stock, b.count, b.system)
    return slats_for_gap(b.span, b.stock, b.gap, b.system)


def _measures(written: Written, unit: str) -> list[PatternMeasureBody]:
    values = values_of(written.measures, "mm" if unit == "mm" else "in")
    found = []
    for given, measure in zip(written.givens, written.measures, strict=True):
        value = values[measure.name.lower()]
        found.append(
            PatternMeasureBody(
                key=given.name,
                name=measure.name,
                says=given.says,
                kind=measure.kind,
                text=measure.text,
                own=given.own,
                ticks=round(value.amount) if value.length else None,
                number=None if value.length else float(value.amount),
            )
        )
    return found
