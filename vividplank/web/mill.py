"""Mill: the steps of the standing plan, and what is done of them."""

from dataclasses import asdict

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.milling import routes
from vividplank.core.milling.cautions import CAUTIONS
from vividplank.store import layouts, projects, stock
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas import LayoutPath, MillingBody, ProjectPath, RouteBody, StepBody, StepDone, TroubleBody

area = APIBlueprint("mill", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody})


@area.get("/projects/<int:project>/milling", responses={200: MillingBody})
def get_milling(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        layout, plan = layouts.standing_plan(opened, path.project)
        done = layouts.steps_done(opened, layout.pk)
    found = routes(layout.job, plan)
    return answer.body(MillingBody(
        layout=layout.pk, stale=layout.stale(project.job), system=project.system,
        routes=[
            RouteBody(board=r.board, steps=[
                StepBody.model_validate(asdict(s) | {"done": s.key in done, "passes": list(s.passes),
                                                     "way_round": [w.do for w in s.ways], "pieces": list(s.pieces)})
                for s in r.steps
            ]) for r in found
        ],
        cautions={machine: list(lines) for machine, lines in CAUTIONS.items()},
    ))


@area.put("/layouts/<int:layout>/steps", responses={204: None})
def mark_step(path: LayoutPath, body: StepDone) -> Response:
    """Tick a step off or take the tick back; with its last step a board is cut up and its offcuts go to the rack."""
    with session() as opened:
        layouts.mark_step(opened, path.layout, body.key, body.done)
        layout = layouts.load(opened, path.layout)
        done = layouts.steps_done(opened, path.layout)
        if body.done and layout.plan:
            for route in routes(layout.job, layout.plan):
                if all(step.key in done for step in route.steps):
                    stock.cut_up(opened, path.layout, route.board)
    return Response(status=204)
