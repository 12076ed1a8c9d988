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
    born = {i: s for s in steps.values() for g in s.gives for i in g.items}
    found = []
    gone = {item for c in plan.closed for item in c.items}
    for board, _, _, _, item in plan.items():
        if item in gone:
            continue
        step = born[item]
        piece = step.takes[0] if step.does != "glue" else _stave(item, step)
        found.append(
            Whereabouts(
                item.name,
                job.part(item.part).name or item.part,
                board.board,
                piece,
                _place(item, step, steps, born, done),
            )
        )
    return tuple(found)


def _stave(item: Item, glue: Step) -> str:
    """The piece a stave is glued as."""
    items = [i for g in glue.gives for i in g.items]
    return glue.takes[items.index(item)] if len(items) == len(glue.takes) else glue.piece


def _place(
    item: Item,
    step: Step,
    steps: Mapping[str, Step],
    born: Mapping[Item, Step],
    done: Collection[str],
) -> str:
    if item.stave:
        whole = born.get(Item(item.part, item.n))
        if whole and whole.key in done:
            return "finished"
        if step.does == "glue" and step.key in done:
            return "panel"
    before = [s for s in _before(step, item, steps) if s.key in done]
    after = [s for s in steps.values() if s.does == "shape" and item.name in s.marks]
    if step.key in done and not item.stave:
        if step.does == "fit":
            return "fitted"
        return "finished" if all(s.key in done for s in after) else "milled"
    did = {s.does for s in before}
    held = step.does == "fit" and "square" in did
    if "glue" in did:
        return "held long" if held else "glued up"
    if any(_rests(s, steps, done) for s in before):
        return "resting"
    if held:
        return "held long"
    if "plane" in did:
        return "milled"
    return "rough" if before else "rack"


def _rests(step: Step, steps: Mapping[str, Step], done: Collection[str]) -> bool:
    """Whether it lies on stickers and nothing has been done with it since."""
    return step.does == "rest" and not any(
        step.key in s.after and s.key in done for s in steps.values()
    )


def _before(step: Step, item: Item, steps: Mapping[str, Step]) -> Iterator[Step]:
    """Every step its piece went through before; of a glue-up only those of the item's own."""
    seen: set[str] = set()
    waiting = list(step.after)
    if step.does == "glue" and item.stave:
        own = _stave(item, step)
        waiting = [k for k in step.after if own in {g.piece for g in steps[k].gives}]
    while waiting:
        key = waiting.pop()
        if key not in seen:
            seen.add(key)
            waiting += steps[key].after
            yield steps[key]
