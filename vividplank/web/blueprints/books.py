"""Books: where the wood goes by the steps of the standing plan."""

from collections import defaultdict
from collections.abc import Collection, Mapping, Sequence

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.layout.model.plan import Plan
from vividplank.core.milling import Route, recent_routes
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES, OPERATIONS, account
from vividplank.core.yields.cost import costs
from vividplank.core.yields.ledger import Account
from vividplank.store import layouts, milling, projects
from vividplank.store.database import session
from vividplank.store.layouts import Layout
from vividplank.store.milling import Time
from vividplank.web import answer
from vividplank.web.schemas.project import (
    AccountBody,
    BoardAccountBody,
    LabourBody,
    PartCostBody,
    ProjectPath,
    SoFarBody,
    TroubleBody,
)

area = APIBlueprint(
    "books", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/account", responses={200: AccountBody})
def get_account(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        layout, plan = layouts.standing_plan(opened, path.project)
        how = milling.of_project(opened, path.project, layout.job)
        times = milling.times(opened, layout.pk)
        done = layouts.steps_done(opened, layout.pk)
    made = recent_routes(layout.job, plan, how)
    found = account(layout.job, made, plan.closed)
    bought = cubic_board_feet(sum(b.rough for b in found.boards if b.price))
    parts = cubic_board_feet(found.where["parts"])
    price, cost = float(found.price), costs(found)
    called = {p.id: p.name or p.id for p in layout.job.parts}
    pieces = {p.id: p.quantity for p in layout.job.parts}
    return answer.body(
        AccountBody(
            layout=layout.pk,
            stale=layout.stale(project.job),
            categories=list(CATEGORIES),
            boards=[
                BoardAccountBody(
                    board=b.board,
                    species=layout.job.board(b.board).species,
                    rough=_feet(b.rough),
                    price=float(b.price),
                    share=b.share,
                    where={k: _feet(v) for k, v in b.where.items()},
                    chips={k: _feet(b.chips[k]) for k in OPERATIONS},
                )
                for b in found.boards
            ],
            rough=_feet(found.rough),
            price=price,
            share=found.share,
            where={k: _feet(v) for k, v in found.where.items()},
            chips={k: _feet(v) for k, v in found.chips.items()},
            per_foot_bought=price / float(bought) if bought else None,
            per_foot_of_parts=price / float(parts) if parts else None,
            parts=[
                PartCostBody(
                    part=c.part,
                    name=called.get(c.part, c.part),
                    pieces=pieces.get(c.part, 1),
                    feet=_feet(round(c.volume)),
                    cost=float(c.cost),
                )
                for c in sorted(cost.parts, key=lambda c: -c.cost)
            ],
            kept_worth=float(cost.kept),
            for_nothing=float(cost.nothing),
            so_far=_so_far(layout, plan, made, found, done, times) if done else None,
        )
    )


def _so_far(
    layout: Layout,
    plan: Plan,
    made: Sequence[Route],
    planned: Account,
    done: Collection[str],
    times: Mapping[str, Time],
) -> SoFarBody:
    real = account(layout.job, made, plan.closed, done)
    cut = {b.board for b in real.boards}
    foretold = {
        name: sum(b.where[name] for b in planned.boards if b.board in cut) for name in CATEGORIES
    }
    whole: defaultdict[str, float] = defaultdict(float)
    for step in (s for r in made for s in r.steps):
        whole[step.machine] += step.minutes
    nothing = Time(0.0, 0.0)
    return SoFarBody(
        boards=sorted(cut),
        rough=_feet(real.rough),
        planned={k: _feet(v) for k, v in foretold.items()},
        where={k: _feet(v) for k, v in real.where.items()},
        labour=[
            LabourBody(
                machine=machine,
                planned=round(minutes, 1),
                foretold=round(times.get(machine, nothing).foretold, 1),
                taken=round(times.get(machine, nothing).taken, 1),
            )
            for machine, minutes in sorted(whole.items(), key=lambda m: -m[1])
        ],
    )


def _feet(cubic_ticks: int) -> float:
    return float(cubic_board_feet(cubic_ticks))
