"""What else might be cheaper: each idea is solved before it is told, and told only where it saves.

Parts are asked about in the order of the wood their pieces take, the greediest first; boards in the
order of their price.
"""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Literal

from vividplank.core.cutlist import Part
from vividplank.core.cutlist.part import FACES
from vividplank.core.job import Job
from vividplank.core.layout.explain.chalk import to_rule
from vividplank.core.layout.model.fixings import Task
from vividplank.core.layout.model.limits import Clock, Limits
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import search
from vividplank.core.measure import TICKS_PER_INCH, System

Kind = Literal["shorter", "narrower", "lenient", "method", "board"]
#: How much shorter and narrower a part is tried.
_SHORTER, _NARROWER = TICKS_PER_INCH, TICKS_PER_INCH // 4
#: Parts and boards that are asked about.
_PARTS, _BOARDS = 4, 3
_WORDS = {
    "clear-one": "a sound knot on its hidden face is let pass",
    "sound": "sound knots are let pass on both its faces",
}


@dataclass(frozen=True)
class WhatIf:
    """`saves` is in the money of the shop, `placed` how many more parts find a place."""

    kind: Kind
    about: str
    words: str
    saves: Decimal
    placed: int


@dataclass(frozen=True)
class _Idea:
    kind: Kind
    about: str
    words: str
    job: Job


def what_ifs(
    job: Job,
    plan: Plan,
    system: System,
    limits: Limits,
    clock: Clock,
    task: Task | None = None,
    told: Callable[[WhatIf], bool] = lambda _: True,
) -> list[WhatIf]:
    """The ideas that are worth something, the most first; `limits` are for each. `told` hears of
    each as it is confirmed and answers whether to go on.
    """
    found: list[WhatIf] = []
    for idea in _ideas(job, plan, system):
        tried = search(idea.job, limits, clock, task=task)
        placed = len(plan.unplaced) - len(tried.unplaced)
        saves = plan.cost - tried.cost
        if placed > 0 or (placed == 0 and saves > 0):
            thought = WhatIf(idea.kind, idea.about, idea.words, saves, placed)
            found.append(thought)
            if not told(thought):
                break
    return sorted(found, key=lambda t: (-t.placed, -t.saves))


def _ideas(job: Job, plan: Plan, system: System) -> Iterator[_Idea]:
    if job.shop.method == "mill-wide":
        other = replace(job, shop=replace(job.shop, method="rough-rip"))
        yield _Idea("method", "", "Saw the blanks free first and flatten them one by one", other)
    least = job.shop.min_blank_length - job.shop.allowance.length
    for part in sorted(job.parts, key=lambda p: -p.quantity * p.length * p.width)[:_PARTS]:
        name = part.name or part.id
        if part.length - _SHORTER > least:
            words = f"Make {name} {to_rule(_SHORTER, job, system)} shorter"
            yield _Idea(
                "shorter", part.id, words, _with(job, replace(part, length=part.length - _SHORTER))
            )
        if part.width > 4 * _NARROWER and not part.run:
            words = f"Make {name} {to_rule(_NARROWER, job, system)} narrower"
            yield _Idea(
                "narrower", part.id, words, _with(job, replace(part, width=part.width - _NARROWER))
            )
        if part.faces != "sound":
            lenient = FACES[FACES.index(part.faces) + 1]
            words = f"{name}: {_WORDS[lenient]}"
            yield _Idea("lenient", part.id, words, _with(job, replace(part, faces=lenient)))
    used = {b.board for b in plan.boards}
    dear = sorted((b for b in job.boards if b.id in used), key=lambda b: -b.price)
    for board in dear[:_BOARDS]:
        free = replace(board, id=f"{board.id} once more", price=Decimal(0))
        words = f"One more board like {board.id}, for less than that"
        yield _Idea("board", board.id, words, replace(job, boards=(*job.boards, free)))


def _with(job: Job, part: Part) -> Job:
    return replace(job, parts=tuple(part if p.id == part.id else p for p in job.parts))
