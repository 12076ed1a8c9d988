"""A shop at work: steps done in any order that can be, faults found, pieces spoiled and read."""

import random
import time
from collections.abc import Sequence
from dataclasses import dataclass, replace

from vividplank.core.board import Defect
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.log.events import (
    Accepted,
    Cut,
    Did,
    Event,
    Found,
    Measured,
    Quantity,
    Seen,
    Span,
    Spoiled,
)
from vividplank.core.log.replan import Remaining, remaining
from vividplank.core.log.state import Wood, state
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, Route, routes

LIMITS = Limits(seconds=60, rounds=1)


WARPS: tuple[Quantity, ...] = ("bow", "cup", "twist", "crook")


@dataclass
class Shop:
    """The job as it is now, what it was laid out from, its plan, and what has happened."""

    now: Job
    job: Job
    plan: Plan
    milling: Milling
    events: list[Event]

    @property
    def routes(self) -> tuple[Route, ...]:
        return routes(self.job, self.plan, self.milling)

    @property
    def wood(self) -> Wood:
        return state(self.job, self.plan, self.routes, self.events)

    @property
    def _n(self) -> int:
        return max((e.n for e in self.events), default=0) + 1

    def work(self, rng: random.Random, most: int) -> None:
        """Steps whose turn it is, one after the other."""
        steps = [s for r in self.routes for s in r.steps]
        done = {e.step for e in self.events if isinstance(e, Did)}
        for _ in range(most):
            ready = [s for s in steps if s.key not in done and set(s.after) <= done]
            if not ready:
                return
            step = rng.choice(ready[:3])
            done.add(step.key)
            self.events.append(Did(n=self._n, step=step.key, minutes=round(step.minutes, 1)))

    def mishap(self, rng: random.Random) -> None:
        """Something happens to a piece that is there."""
        pieces = self.wood.pieces
        if all(h.state == "cut" for h in pieces.values()):
            return
        mark = rng.choice(sorted(m for m, h in pieces.items() if h.state != "cut"))
        held = pieces[mark]
        kind = rng.choice(("fault", "scrap", "stock", "thin", "moved", "accepted", "cut"))
        if kind == "cut" and held.state != "rack":
            middle = held.piece.length // 2
            spans = Span(f"{mark}-x", 0, middle), Span(f"{mark}-y", middle + INCH // 8, 2 * middle)
            if spans[1].high > spans[1].low:
                cut = Cut(n=self._n, does="crosscut", piece=mark, gives=spans)
                self.events.append(cut)
            return
        if kind == "thin" and held.state == "work":
            read = float(held.piece.thick - rng.randint(0, INCH // 4))
            self.events.append(
                Measured(n=self._n, piece=mark, what="thickness", value=max(1.0, read))
            )
        elif kind == "accepted":
            self.events.append(Accepted(n=self._n, piece=mark))
        elif kind == "moved":
            what = rng.choice(WARPS)
            read = float(rng.randint(-INCH // 8, INCH // 8))
            self.events.append(Measured(n=self._n, piece=mark, what=what, value=read))
        elif kind in ("scrap", "stock") and held.state != "rack":
            then = "scrap" if kind == "scrap" else "stock"
            self.events.append(Spoiled(n=self._n, piece=mark, why="split", then=then))
        else:
            x = rng.randint(0, max(1, held.piece.length - INCH))
            y = rng.randint(0, max(1, held.piece.width - INCH // 2))
            fault = Defect("metal", "both", x, x + INCH // 2, y, y + INCH // 2)
            self.events.append(Found(n=self._n, piece=mark, defect=fault))

    def list_changed(self, rng: random.Random) -> None:
        """A part is wanted smaller, once more, or once less."""
        part = rng.choice(self.now.parts)
        kind = rng.choice(("shorter", "narrower", "thinner", "more", "fewer"))
        off = rng.choice((INCH // 32, INCH // 16, INCH // 4))
        if kind == "shorter":
            part = replace(part, length=max(INCH, part.length - off))
        elif kind == "narrower" and not part.panel:
            part = replace(part, width=max(INCH // 2, part.width - off))
        elif kind == "thinner" and not part.glued_up:
            part = replace(part, thickness=max(INCH // 4, part.thickness - off // 2))
        elif kind == "more" and not part.run:
            part = replace(part, quantity=part.quantity + 1)
        elif kind == "fewer" and not part.run:
            part = replace(part, quantity=max(1, part.quantity - 1))
        parts = tuple(part if p.id == part.id else p for p in self.now.parts)
        self.now = replace(self.now, parts=parts)

    def taken_back(self, rng: random.Random) -> None:
        """The last thing that was seen did not happen."""
        seen = [e for e in self.events if isinstance(e, Seen)]
        if seen and rng.random() < 0.5:
            self.events.remove(seen[-1])

    def replan(self) -> Remaining:
        left = remaining(self.now, self.job, self.plan, self.routes, self.events)
        plan = search(left.job, LIMITS, time.monotonic)
        self.job, self.plan = left.whole, left.merged(plan)
        self.now = replace(self.now, boards=(*self.now.boards, *left.pieces))
        return left


def laid_out(job: Job, milling: Milling) -> Shop:
    job = job.on_boards()
    return Shop(job, job, search(job, LIMITS, time.monotonic), milling, [])


def wanted_numbers(job: Job, plan: Plan) -> dict[str, int]:
    """How many of every part are placed or told as left out, what is closed not counted."""
    closed = {i for c in plan.closed for i in c.items}
    placed = {(i.part, i.n) for *_, i in plan.items() if i not in closed}
    placed |= {(u.part, u.n) for u in plan.unplaced}
    return {p.id: sum(part == p.id for part, _ in placed) for p in job.parts}


def keys(made: Sequence[Route]) -> set[str]:
    return {s.key for r in made for s in r.steps}
