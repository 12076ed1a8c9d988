"""Plan files to plans and back."""

from decimal import Decimal
from typing import Any

from vividplank.core.exchange.board_file import money
from vividplank.core.exchange.plan_shape import PlanShape
from vividplank.core.layout.model.plan import (
    Blank,
    BoardPlan,
    Closed,
    Item,
    Made,
    Plan,
    Segment,
    Strip,
    Unplaced,
)
from vividplank.core.measure import Unit, from_number, to_number
from vividplank.core.refusal import load


def read_plan(text: str | bytes) -> Plan:
    """The plan in a file; whether it is right for a job is the audit's affair."""
    shape = load(text, PlanShape)

    def ticks(value: float) -> int:
        return from_number(value, shape.unit)

    return Plan(
        tuple(
            BoardPlan(
                b.board,
                tuple(
                    Segment(
                        ticks(s.x0),
                        ticks(s.x1),
                        ticks(s.y0),
                        s.slope,
                        tuple(
                            Strip(
                                ticks(t.y0),
                                ticks(t.y1),
                                tuple(
                                    Blank(
                                        ticks(k.x0),
                                        ticks(k.x1),
                                        tuple(
                                            tuple(Item(i.part, i.n, i.stave or 0) for i in layer)
                                            for layer in k.layers
                                        ),
                                    )
                                    for k in t.blanks
                                ),
                            )
                            for t in s.strips
                        ),
                    )
                    for s in b.segments
                ),
            )
            for b in shape.boards
        ),
        tuple(Unplaced(u.part, u.n, u.why) for u in shape.unplaced),
        Decimal(str(shape.summary.cost)),
        shape.summary.lower_bound,
        shape.summary.seconds,
        tuple(
            Closed(
                c.piece,
                c.after,
                c.then,
                tuple(Item(i.part, i.n, i.stave or 0) for i in c.items),
                c.board,
            )
            for c in shape.closed
        ),
        tuple(
            Made(m.part, m.n, tuple((ticks(x), ticks(y), ticks(z)) for x, y, z in m.sizes))
            for m in shape.made
        ),
    )


def plan_document(plan: Plan, unit: Unit) -> dict[str, Any]:
    """The plan as the plain document of the exchange format."""

    def num(ticks: int) -> float | int:
        return to_number(ticks, unit)

    def item(i: Item) -> dict[str, Any]:
        return {"part": i.part, "n": i.n} | ({"stave": i.stave} if i.stave else {})

    found = {
        "format": "vivid-plank/plan",
        "version": 1,
        "unit": unit,
        "boards": [
            {
                "board": b.board,
                "segments": [
                    {
                        "x0": num(s.x0),
                        "x1": num(s.x1),
                        "y0": num(s.y0),
                        "slope": s.slope,
                        "strips": [
                            {
                                "y0": num(t.y0),
                                "y1": num(t.y1),
                                "blanks": [
                                    {
                                        "x0": num(k.x0),
                                        "x1": num(k.x1),
                                        "layers": [[item(i) for i in layer] for layer in k.layers],
                                    }
                                    for k in t.blanks
                                ],
                            }
                            for t in s.strips
                        ],
                    }
                    for s in b.segments
                ],
            }
            for b in plan.boards
        ],
        "unplaced": [{"part": u.part, "n": u.n, "why": u.why} for u in plan.unplaced],
        "closed": [
            {
                "piece": c.piece,
                "after": c.after,
                "then": c.then,
                "items": [item(i) for i in c.items],
            }
            | ({"board": c.board} if c.board else {})
            for c in plan.closed
        ],
        "made": [
            {"part": m.part, "n": m.n, "sizes": [[num(d) for d in size] for size in m.sizes]}
            for m in plan.made
        ],
        "summary": {
            "cost": money(plan.cost),
            "lower_bound": plan.lower_bound,
            "seconds": round(plan.seconds, 3),
        },
    }
    return {k: v for k, v in found.items() if v or k not in ("closed", "made")}
