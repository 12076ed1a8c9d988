"""Books: where the wood goes by the steps of the standing plan."""

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.milling import routes
from vividplank.core.timber import cubic_board_feet
from vividplank.core.yields import CATEGORIES, OPERATIONS, account
from vividplank.store import layouts, milling, projects
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.project import AccountBody, BoardAccountBody, ProjectPath, TroubleBody

area = APIBlueprint(
    "books", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/account", responses={200: AccountBody})
def get_account(path: ProjectPath) -> Response:
    with session() as opened:
        project = projects.load(opened, path.project)
        layout, plan = layouts.standing_plan(opened, path.project)
        how = milling.of_project(opened, path.project, layout.job)
    found = account(layout.job, routes(layout.job, plan, how), plan.closed)
    bought = cubic_board_feet(sum(b.rough for b in found.boards if b.price))
    parts = cubic_board_feet(found.where["parts"])
    price = float(found.price)
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
        )
    )


def _feet(cubic_ticks: int) -> float:
    return float(cubic_board_feet(cubic_ticks))
