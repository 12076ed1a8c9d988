"""Steps done: each with its tick and its event, and boards cut up by their last; also those of a
log that was kept elsewhere.
"""

from collections.abc import Sequence

from sqlalchemy.orm import Session

from vividplank.core.layout.model.plan import Plan
from vividplank.core.log.events import Did, Event, LogError, standing
from vividplank.core.log.state import state
from vividplank.core.milling import Route
from vividplank.core.refusal import Refusal
from vividplank.store import layouts, log
from vividplank.store.layouts import Taken
from vividplank.store.shop import stock


def tick(session: Session, layout: int, said: Did, *, done: bool = True) -> None:
    """Tick a step off as said, or take the tick back; with its last step a board is cut up and its
    offcuts go to the rack.
    """
    found, plan = layouts.with_plan(session, layout)
    _tick(session, layout, plan, log.routes_of(session, found), said, done)


def _tick(
    session: Session, layout: int, plan: Plan, routes: Sequence[Route], said: Did, done: bool
) -> None:
    step = next((s for r in routes for s in r.steps if s.key == said.step), None)
    taken = Taken(
        said.reading,
        said.minutes,
        step.minutes if step else None,
        step.machine if step else "",
        said.passes,
        len(step.passes) if step else None,
        log.time_of(said),
    )
    log.tick(session, layout, said, done, taken)
    there = layouts.steps_done(session, layout)
    if done:
        for route in routes:
            if any(b.board == route.board for b in plan.boards) and all(
                s.key in there for s in route.steps
            ):
                stock.cut_up(session, layout, route.board, route)


def take_in(session: Session, project: int, events: Sequence[Event]) -> int:
    """Write what a log from elsewhere says after all that is known, in its order; answers how many
    events. A Refusal names the first that cannot have happened to the wood of the standing plan,
    and nothing is written.
    """
    layout, plan = layouts.standing_plan(session, project)
    routes = log.routes_of(session, layout)
    before = log.happened(session, layout)
    said = standing(events)
    behind = max((e.n for e in before), default=0)
    at = {behind + k: e for k, e in enumerate(said, 1)}
    numbered = [log.numbered(e, n) for n, e in at.items()]
    for k, event in enumerate(events):
        if event.at and log.time_of(event) is None:
            raise Refusal(f"$.events[{k}].at", f"is {event.at}; expected a time as in ISO 8601")
    while True:
        try:
            state(layout.job, plan, routes, (*before, *numbered))
            break
        except LogError as problem:
            if problem.n in at:
                place = next(k for k, e in enumerate(events) if e is at[problem.n])
                raise Refusal(f"$.events[{place}]", problem.why) from None
            before = tuple(e for e in before if e.n != problem.n)  # about an earlier plan
    for event in said:
        if isinstance(event, Did):
            _tick(session, layout.pk, plan, routes, event, True)
            continue
        log.tell(session, layout, event)
    return len(said)
