"""What has been begun of a plan, and what of it another plan does to the same wood."""

from collections.abc import Collection, Iterable

from vividplank.core.layout.model.plan import Plan
from vividplank.core.milling.route.routes import Route


def begun(routes: Iterable[Route], done: Collection[str]) -> frozenset[str]:
    """Boards, and what is glued up, of which some step is done."""
    return frozenset(r.board for r in routes if any(s.key in done for s in r.steps))


def same_steps(before: Plan, after: Plan, routes: Iterable[Route]) -> frozenset[str]:
    """The steps (`routes` are those of `before`) that the other plan has as well: of boards both
    cut alike, and of what is glued up from such boards alone.
    """
    cut = {b.board: b.segments for b in after.boards}
    boards = {b.board for b in before.boards}
    alike = {b.board for b in before.boards if cut.get(b.board) == b.segments}
    found: set[str] = set()
    for route in routes:
        sources = {p.board.id for s in route.steps for p in s.wood_in} & boards
        if sources <= alike:
            found |= {s.key for s in route.steps}
    return frozenset(found)
