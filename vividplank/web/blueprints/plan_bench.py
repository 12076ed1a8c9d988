"""The bench of a plan: moves tried and made, what is held, undo, plans with names."""

from collections.abc import Callable
from functools import lru_cache

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.exchange import Refusal
from vividplank.core.job import Job
from vividplank.core.layout.edit import moves
from vividplank.core.layout.model.fixings import Fixings, Forbidden
from vividplank.core.layout.model.plan import Item, Plan
from vividplank.core.milling import recent_routes
from vividplank.store import layouts, log, milling, plan_history, projects
from vividplank.store.database import database_url, session
from vividplank.store.errors import VersionConflict
from vividplank.store.layouts import Layout
from vividplank.web import answer
from vividplank.web.asking import ask
from vividplank.web.schemas.layout import (
    FixingsBody,
    ItemBody,
    LayoutBody,
    MoveBody,
    NameBody,
    NamedPlan,
    NamedPlans,
    TriedBody,
    WhatIfBody,
    WhatIfsBody,
)
from vividplank.web.schemas.project import LayoutPath, ProjectPath, TroubleBody
from vividplank.web.translate import layout_body

area = APIBlueprint(
    "plan_bench",
    __name__,
    url_prefix="/api",
    abp_responses={404: TroubleBody, 409: TroubleBody, 422: TroubleBody},
)


@area.post("/layouts/<int:layout>/try", responses={200: TriedBody})
def try_move(path: LayoutPath, body: MoveBody) -> Response:
    """What a move would come to, without making it."""
    layout, plan = _argued(database_url(), path.layout)
    before = moves.worth(layout.job, plan)
    why = ""
    try:
        _only_whole(layout, plan, body)
        after = _moved(layout, plan, body)
    except moves.Refused as refused:
        why, after = str(refused), plan
    now = moves.worth(layout.job, after)
    found = moves.where(after, _item(body.item))
    board = body.board or (found.board if found else "")
    segments = next((b.segments for b in after.boards if b.board == board), ())
    return answer.body(
        TriedBody(
            holds=not why,
            why=why,
            cost=float(now.cost),
            cost_before=float(before.cost),
            yields=now.yields,
            yields_before=before.yields,
            unplaced=len(after.unplaced),
            board=board,
            segments=list(segments),
        )
    )


@area.post("/layouts/<int:layout>/move", responses={201: LayoutBody})
def make_move(path: LayoutPath, body: MoveBody) -> Response:
    """A move made by hand on the plan that stands; the plan before it is an undo away."""

    def moved(layout: Layout, plan: Plan) -> tuple[Plan, Fixings]:
        try:
            _only_whole(layout, plan, body)
            return _moved(layout, plan, body), layout.fixings
        except moves.Refused as refused:
            raise Refusal("$", str(refused)) from refused

    return _made(path.layout, moved)


@area.put("/layouts/<int:layout>/fixings", responses={201: LayoutBody})
def hold(path: LayoutPath, body: FixingsBody) -> Response:
    """What stays as it is when the rest is solved."""

    def held(layout: Layout, plan: Plan) -> tuple[Plan, Fixings]:
        return plan, _fixings(layout.job, plan, body)

    return _made(path.layout, held)


@area.post("/projects/<int:project>/layout/undo", responses={200: LayoutBody})
def undo(path: ProjectPath) -> Response:
    with session() as opened:
        return answer.body(
            layout_body(
                plan_history.undo(opened, path.project), projects.load(opened, path.project)
            )
        )


@area.post("/projects/<int:project>/layout/redo", responses={200: LayoutBody})
def redo(path: ProjectPath) -> Response:
    with session() as opened:
        return answer.body(
            layout_body(
                plan_history.redo(opened, path.project), projects.load(opened, path.project)
            )
        )


@area.put("/layouts/<int:layout>/name", responses={200: LayoutBody})
def call(path: LayoutPath, body: NameBody) -> Response:
    """Give a plan a name, to keep it and to hold others against it."""
    with session() as opened:
        layout = plan_history.call(opened, path.layout, body.name.strip())
        return answer.body(layout_body(layout, projects.load(opened, layout.project)))


@area.get("/projects/<int:project>/plans", responses={200: NamedPlans})
def named_plans(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        plans = plan_history.named(opened, path.project)
    found = []
    for layout, plan in plans:
        now = moves.worth(layout.job, plan)
        found.append(
            NamedPlan(
                pk=layout.pk,
                name=layout.name,
                cost=float(now.cost),
                unplaced=len(plan.unplaced),
                boards=now.boards,
                yields=now.yields,
                stale=layout.stale(project.job),
            )
        )
    return answer.body(NamedPlans(plans=found))


@area.get("/layouts/<int:layout>", responses={200: LayoutBody})
def get_one_layout(path: LayoutPath) -> Response:
    with session() as opened:
        layout = layouts.load(opened, path.layout)
        return answer.body(layout_body(layout, projects.load(opened, layout.project)))


@area.post("/layouts/<int:layout>/stand", responses={201: LayoutBody})
def stand(path: LayoutPath) -> Response:
    """A plan kept by its name becomes the one that stands."""
    with session() as opened:
        layout, plan = layouts.with_plan(opened, path.layout)
        log.keeps(opened, layout.project, plan)
        kept = layouts.keep(
            opened,
            layout.project,
            layout.job,
            plan,
            layout.made_by,
            layout.fixings,
            layout.made_from,
        )
        return answer.body(layout_body(kept, projects.load(opened, layout.project)), 201)


@area.get("/layouts/<int:layout>/what-ifs", responses={200: WhatIfsBody})
def get_what_ifs(path: LayoutPath) -> Response:
    """What else might be cheaper, as far as it is thought through."""
    with session() as opened:
        return answer.body(_what_ifs(layouts.what_ifs(opened, path.layout)))


@area.post("/layouts/<int:layout>/what-ifs", responses={202: WhatIfsBody})
def ask_what_ifs(path: LayoutPath) -> Response:
    """Let a worker think about what else might be cheaper."""
    with session() as opened:
        layouts.with_plan(opened, path.layout)
        layouts.think(opened, path.layout, (), done=False)
    ask().think(path.layout)
    with session() as opened:
        return answer.body(_what_ifs(layouts.what_ifs(opened, path.layout)), 202)


def _what_ifs(kept: layouts.WhatIfs | None) -> WhatIfsBody:
    found = kept.found if kept else ()
    return WhatIfsBody(
        asked=kept is not None,
        done=kept is not None and kept.done,
        found=[WhatIfBody(**{**vars(t), "saves": float(t.saves)}) for t in found],
    )


@lru_cache(maxsize=4)
def _argued(database: str, pk: int) -> tuple[Layout, Plan]:
    """A layout with a plan: job, plan and what is held never change in it, and a drag asks many
    times a second.
    """
    with session(database) as opened:
        return layouts.with_plan(opened, pk)


def _made(pk: int, change: Callable[[Layout, Plan], tuple[Plan, Fixings]]) -> Response:
    with session() as opened:
        layout, plan = layouts.with_plan(opened, pk)
        project = projects.load(opened, layout.project)
        standing = layouts.standing(opened, layout.project)
        if standing is None or standing.pk != pk:
            raise VersionConflict(standing.pk if standing else 0)
        if layout.stale(project.job):
            raise Refusal(
                "$",
                "parts, boards or the shop have changed since; expected the plan laid out again "
                "priority",
            )
        plan, fixings = change(layout, plan)
        kept = layouts.keep(
            opened, layout.project, layout.job, plan, "hand", fixings, layout.made_from
        )
        return answer.body(layout_body(kept, project), 201)


@lru_cache(maxsize=4)
def _boards_of_steps(database: str, pk: int, how: str) -> dict[str, str]:
    """The board that each step of a layout cuts; `how` tells one way of milling from another."""
    layout, plan = _argued(database, pk)
    with session(database) as opened:
        settings = milling.of_project(opened, layout.project, layout.job)
    return {s.key: r.board for r in recent_routes(layout.job, plan, settings) for s in r.steps}


def _only_whole(layout: Layout, plan: Plan, body: MoveBody) -> None:
    """What has been cut is not moved, and nothing is laid where it was: moves.Refused."""
    with session() as opened:
        done = layouts.steps_done(opened, layout.pk)
        how = milling.of_project(opened, layout.project, layout.job)
    if not done:
        return
    boards = _boards_of_steps(database_url(), layout.pk, repr(how))
    begun = {boards[key] for key in done if key in boards}
    items = [_item(body.item), *([_item(body.other)] if body.other else [])]
    touched = {found.board for item in items if (found := moves.where(plan, item))}
    if body.kind == "lay-down":
        touched.add(body.board)
    for board in sorted(touched & begun):
        raise moves.Refused(
            f"{board} has been cut into: what lies on it stays as it is. Where nothing was cut, "
            "take its ticks back under Mill first"
        )


def _moved(layout: Layout, plan: Plan, body: MoveBody) -> Plan:
    job, item = Fixings(forbidden=layout.fixings.forbidden).on(layout.job), _item(body.item)
    pins = set(layout.fixings.pins)
    found = moves.where(plan, item)
    moved = set(found.blank.items()) if found else {item}
    if body.other:
        moved |= {_item(body.other)}
    if body.kind != "recut" and moved & pins:
        raise moves.Refused("it is pinned; loosen the pin first")
    if body.kind == "lay-down":
        if body.board in layout.fixings.excluded:
            raise moves.Refused(f"{body.board} is to stay in the rack")
        after = moves.lay_down(job, plan, item, body.board, body.x, body.y)
    elif body.kind == "take-up":
        after = moves.take_up(job, plan, item)
    elif body.kind == "swap":
        if body.other is None:
            raise Refusal("$.other", "is missing; expected the item to change places with")
        after = moves.swap(job, plan, item, _item(body.other))
    elif body.kind == "turn":
        after = moves.turn(job, plan, item)
    elif body.kind == "recut":
        after = moves.recut(job, plan, item, body.x0, body.x1)
    elif body.kind == "split":
        after = moves.split(job, plan, item)
    else:
        after = moves.join(job, plan, item)
    return after


def _fixings(job: Job, plan: Plan, body: FixingsBody) -> Fixings:
    boards = {b.id: b for b in job.boards}
    there = {item for *_, item in plan.items()}
    for place, name in (
        *((f"$.forbidden[{i}].board", f.board) for i, f in enumerate(body.forbidden)),
        *((f"$.rested[{i}]", name) for i, name in enumerate(body.excluded)),
    ):
        if name not in boards:
            raise Refusal(place, f"is {name}; expected a board of this plan")
    for i, f in enumerate(body.forbidden):
        if f.x1 <= f.x0 or f.y1 <= f.y0:
            raise Refusal(f"$.forbidden[{i}]", "has no area; expected x0 < x1 and y0 < y1")
    pins = tuple(dict.fromkeys(item for i in body.pins if (item := _item(i)) in there))
    return Fixings(
        pins,
        tuple(Forbidden(**f.model_dump()) for f in body.forbidden),
        tuple(dict.fromkeys(body.excluded)),
        tuple(
            name for name in dict.fromkeys(body.priority) if any(p.id == name for p in job.parts)
        ),
    )


def _item(body: ItemBody) -> Item:
    return Item(body.part, body.n, body.stave)
