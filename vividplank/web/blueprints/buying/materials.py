"""What a project needs besides its boards, and what it costs."""

from flask import Response
from flask_openapi3 import APIBlueprint

from vividplank.core.buying.material import Material, cost_of
from vividplank.store import buying
from vividplank.store.database import session
from vividplank.web import answer
from vividplank.web.schemas.buying import MaterialsBody, PutMaterials
from vividplank.web.schemas.project import ProjectPath, TroubleBody

area = APIBlueprint(
    "materials", __name__, url_prefix="/api", abp_responses={404: TroubleBody, 422: TroubleBody}
)


@area.get("/projects/<int:project>/materials", responses={200: MaterialsBody})
def get_materials(path: ProjectPath) -> Response:
    with session() as opened:
        return answer.body(_body(*buying.materials(opened, path.project)))


@area.put("/projects/<int:project>/materials", responses={200: MaterialsBody})
def put_materials(path: ProjectPath, body: PutMaterials) -> Response:
    """Kept if nobody has set them since the version they were made from; else 409 with the version
    that stands.
    """
    with session() as opened:
        kept = buying.put_materials(opened, path.project, body.materials, body.version)
        return answer.body(_body(*kept))


def _body(materials: tuple[Material, ...], version: int) -> MaterialsBody:
    cost = float(cost_of(materials))
    return MaterialsBody(materials=materials, cost=cost, version=version)
