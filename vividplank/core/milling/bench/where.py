"""Every piece can be found: its name and mark, the board it came from, and how far it is."""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass

from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Item, Plan
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.routes import Route

#: In the order a piece goes through them.
PLACES = (
    "rack",
    "rough",
    "resting",
    "milled",
    "panel",
    "glued up",
    "held long",
    "finished",
    "fitted",
)
#: Kinds of steps that a piece comes out of, by how they begin; the last of them counts.
_LAST = ("length-", "fit-", "glue-edge", "mitre-", "taper-", "outline-")


@dataclass(frozen=True)
class Whereabouts:
    """`mark` is written on the wood, `piece` the blank it is in by now ("O3.1a"), `place` one of
    PLACES.
    """

    mark: str
    name: str
    board: str
    piece: str
    place: str


def whereabouts(
    job: Job, plan: Plan, routes: tuple[Route, ...], done: Collection[str]
) -> tuple[Whereabouts, ...]:
    """All pieces of a plan, staves by themselves, in the order of the plan."""
    steps = {s.key: s for r in routes for s in r.steps}
    after: dict[str, list[str]] = {}
    for s in steps.values():
        for key in s.after:
            after.setdefault(key, []).append(s.key)
    last = _last_steps(steps)
    found = []
    for board, _, _, _, item in plan.items():
        step = steps[last[item.name]]
        found.append(
            Whereabouts(
                item.name,
                job.part(item.part).name or item.part,
                board.board,
                step.piece,
                _place(item, step, steps, after, done),
            )
        )
    return tuple(found)


def _last_steps(steps: Mapping[str, Step]) -> dict[str, str]:
    """The step that each piece comes out of: its last cut or shaping, or for a stave the jointing
    for glue.
    """
    found: dict[str, str] = {}
    for s in steps.values():
        if s.kind.startswith(_LAST):
            for mark in s.marks:
                found[mark] = s.key
    return found


def _place(
    item: Item,
    step: Step,
    steps: Mapping[str, Step],
    after: Mapping[str, list[str]],
    done: Collection[str],
) -> str:
    if item.stave:
        glued = f"{item.part}{item.n}"
        if f"{glued}/length" in done:
            return "finished"
        if f"{glued}/glue" in done:
            return "panel"
    if step.key in done and not item.stave:
        return "fitted" if step.kind.startswith("fit-") else "finished"
    before = [steps[k] for k in _before(step, steps) if k in done]
    kinds = {s.kind for s in before}
    if "unclamp" in kinds or "glue" in kinds:
        return "held long" if step.kind.startswith("fit-") and "square" in kinds else "glued up"
    if any(
        s.kind == "sticker" and not any(k in done for k in after.get(s.key, [])) for s in before
    ):
        return "resting"
    if step.kind.startswith("fit-") and any(k.startswith("square") for k in kinds):
        return "held long"
    if kinds & {"thickness", "finish-thickness"}:
        return "milled"
    return "rough" if kinds else "rack"


def _before(step: Step, steps: Mapping[str, Step]) -> Iterator[str]:
    """Everything that comes before a step."""
    seen: set[str] = set()
    left = list(step.after)
    while left:
        key = left.pop()
        if key not in seen:
            seen.add(key)
            left += steps[key].after
            yield key
