"""Boards that wait until they have come near the moisture of the shop's air."""

from collections.abc import Container, Iterable, Sequence
from dataclasses import dataclass
from math import ceil

from vividplank.core.board import Board
from vividplank.core.milling.route.routes import Route
from vividplank.core.timber import wood_named
from vividplank.core.timber.rest import Climate, rest

_DAY = 1440


@dataclass(frozen=True)
class Resting:
    """A board that was read at `percent`, where the air asks for `equilibrium`: it may be worked
    from the morning of day `until`, counted from the first day (0).
    """

    board: str
    percent: float
    equilibrium: float
    until: int


def resting(boards: Iterable[Board], climate: Climate, begins: int) -> tuple[Resting, ...]:
    """Those that may not be worked yet on the first day, `begins`, counted from 1970-01-01."""
    found = []
    for board in boards:
        wood = wood_named(board.species)
        gravity = wood.specific_gravity if wood else None
        said = rest(board.moisture, board.thickest, climate, gravity)
        if said is None:
            continue
        until = ceil(max(m.day for m in board.moisture) + said.workable) - begins
        if said.workable and until > 0:
            percent = said.equilibrium + said.away
            found.append(Resting(board.id, percent, said.equilibrium, until))
    return tuple(found)


def not_begun(
    routes: Sequence[Route], resting: Sequence[Resting], done: Container[str]
) -> tuple[Resting, ...]:
    """A board of which a step is done waits no longer."""
    begun = {r.board for r in routes if any(s.key in done for s in r.steps)}
    return tuple(r for r in resting if r.board not in begun)


def ready_from(routes: Sequence[Route], resting: Sequence[Resting]) -> dict[str, int]:
    """Minutes by the clock from the first morning before which a step is not begun, by its key."""
    until = {r.board: r.until * _DAY for r in resting}
    return {s.key: until[r.board] for r in routes if r.board in until for s in r.steps}
