"""What pieces have needed of what was left on them, read from what was done and measured.

Only what was counted or read says something: a step that was ticked off and no more may have gone
well or ill. All in ticks.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Literal

from vividplank.core.log.events import Did, Event, Measured
from vividplank.core.milling import Route
from vividplank.core.milling.model.step import Step

#: `movement`: what comes off a face that has rested. `face`: what a face took beyond what was
#: foretold until it was clean. `width`: how crooked a strip became when it was ripped. `length`:
#: what was cut off until an end was square and sound.
Need = Literal["movement", "face", "width", "length"]
#: After these steps wood moves, and what is read of it then is how far.
_MOVES = {"rest": ("bow", "cup", "twist"), "rip": ("crook",)}
_TRUE = {"flatten": "rest", "joint-edge": "rip"}
_NEEDS: dict[str, Need] = {"rest": "movement", "rip": "width"}


@dataclass(frozen=True)
class Needed:
    what: Need
    wood: str
    ticks: int


def needed(routes: Iterable[Route], events: Iterable[Event]) -> tuple[Needed, ...]:
    """What the (standing) events, in their order, say of each piece of these routes."""
    steps = {s.key: s for route in routes for s in route.steps}
    reader = _Reader()
    found: list[Needed] = []
    for event in events:
        if isinstance(event, Measured):
            reader.read(event)
        elif isinstance(event, Did) and event.step in steps:
            found += reader.did(steps[event.step], event)
    return (*found, *reader.ended())


class _Reader:
    """Pieces that may have moved since they were last made true: by mark and why, their wood and
    the most that was read of them, None as long as nothing was.
    """

    def __init__(self) -> None:
        self.moving: dict[tuple[str, str], tuple[str, int | None]] = {}

    def read(self, event: Measured) -> None:
        for why, quantities in _MOVES.items():
            kept = self.moving.get((event.piece, why))
            if kept and event.what in quantities:
                most = max(kept[1] or 0, round(abs(event.value)))
                self.moving[event.piece, why] = (kept[0], most)

    def did(self, step: Step, event: Did) -> Iterator[Needed]:
        wood = step.wood_in[0].board.species if step.wood_in else ""
        counted = event.passes is not None and step.passes
        taken = (event.passes or 0) * step.passes[-1] if counted else None
        if why := _TRUE.get(step.does):
            moved = [self.moving.pop((mark, why), None) for mark in step.takes]
            for before in filter(None, moved):
                most = max((x for x in (before[1], taken) if x is not None), default=None)
                if most is not None:
                    yield Needed(_NEEDS[why], wood, most)
            if step.does == "flatten" and taken is not None and not any(moved):
                yield Needed("face", wood, max(0, taken - sum(step.passes)))
        elif step.does in _MOVES:
            for mark in (g.piece for g in step.gives):
                self.moving[mark, step.does] = (wood, None)
        elif step.does == "square" and event.reading is not None:
            yield Needed("length", wood, max(0, step.stock_in - event.reading))

    def ended(self) -> Iterator[Needed]:
        """What was read of pieces that nobody has made true since."""
        for (_, why), (wood, most) in self.moving.items():
            if most is not None:
                yield Needed(_NEEDS[why], wood, most)
