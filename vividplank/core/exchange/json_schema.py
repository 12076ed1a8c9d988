"""The JSON Schemas of the exchange files, as docs/ keeps them: `python -m
vividplank.core.exchange.json_schema`.
"""

import json
from pathlib import Path
from typing import Any

from pydantic import BaseModel

from vividplank.core.exchange.job_shape import JobShape
from vividplank.core.exchange.log_shape import LogShape
from vividplank.core.exchange.plan_shape import PlanShape
from vividplank.core.exchange.route_shape import RouteShape

FILES: dict[str, type[BaseModel]] = {
    "job.schema.json": JobShape,
    "plan.schema.json": PlanShape,
    "route.schema.json": RouteShape,
    "log.schema.json": LogShape,
}


def schema(name: str) -> dict[str, Any]:
    return {"$schema": "https://json-schema.org/draft/2020-12/schema"} | FILES[
        name
    ].model_json_schema()


if __name__ == "__main__":
    for name in FILES:
        (Path(__file__).parents[3] / "docs" / name).write_text(
            json.dumps(schema(name), indent=1) + "\n", encoding="utf-8"
        )
