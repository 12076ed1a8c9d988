"""What the maker holds fast when the rest is solved: pinned pieces, forbidden places, boards that
stay in the rack.
"""

from collections import Counter
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from itertools import count

from vividplank.core.board import Defect
from vividplank.core.cutlist.part import blank_need
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit_board
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.plan import BoardPlan, Item, Plan, Segment, Strip

#: The kind of fault that a forbidden place is to the search; no survey records it.
FORBIDDEN = "forbidden"


@dataclass(frozen=True)
class Forbidden:
    """A rectangle of a board where nothing may lie, on either face; in ticks."""

    board: str
    x0: int
    x1: int
    y0: int
    y1: int

    def __post_init__(self) -> None:
        if self.x1 <= self.x0 or self.y1 <= self.y0:
            raise ValueError(
                f"a forbidden place on {self.board} has no area; expected x0 < x1 and y0 < y1"
            )


@dataclass(frozen=True)
class Fixings:
    """`pins` are pieces that stay where the plan has them, `excluded` boards that stay whole,
    `priority` parts that come before all others where there is not wood enough. `begun` are boards
    that are being cut, which a search does not see.
    """

    pins: tuple[Item, ...] = ()
    forbidden: tuple[Forbidden, ...] = ()
    excluded: tuple[str, ...] = ()
    priority: tuple[str, ...] = ()
    begun: tuple[str, ...] = ()

    def on(self, job: Job) -> Job:
        """The job as it is with what is held: forbidden places are faults, excluded boards are not
        there.
        """
        awake = self.awake(job)
        boards = tuple(
            replace(
                b,
                defects=b.defects
                + tuple(
                    Defect(FORBIDDEN, "both", f.x0, f.x1, f.y0, f.y1)
                    for f in self.forbidden
                    if f.board == b.id
                ),
            )
            for b in awake.boards
        )
        return replace(job, boards=boards)

    def awake(self, job: Job) -> Job:
        """The job without the boards that are rested."""
        return replace(job, boards=tuple(b for b in job.boards if b.id not in self.excluded))


@dataclass(frozen=True)
class Task:
    """What is held, and the plan in which the pins have their places; `plain` lets wishes for books
    and resawing go.
    """

    fixings: Fixings = Fixings()
    plan: Plan | None = None
    plain: bool = False

    def pinned(self, job: Job) -> dict[str, tuple[Segment, ...]]:
        """For every board of the job its pinned segments, where what is pinned is still right for
        it and still wanted.
        """
        held = pinned(self.plan, self.fixings.pins) if self.plan else {}
        there = {b.id for b in job.boards}
        listed = {(p.id, n) for p in job.parts for n in range(1, p.quantity + 1)}

        def right(board: str, segment: Segment) -> bool:
            wanted = all((i.part, i.n) in listed for _, b in segment.blanks() for i in b.items())
            return wanted and not audit_board(job, BoardPlan(board, (segment,)))

        kept = {
            b: tuple(s for s in segments if right(b, s))
            for b, segments in held.items()
            if b in there
        }
        return {board: segments for board, segments in kept.items() if segments}

    def kept(self, job: Job) -> bool:
        """Whether the plan as it is keeps what is held: nothing on forbidden places, no excluded
        board cut.
        """
        on = self.fixings.on(job)
        there = {b.id for b in on.boards}
        return self.plan is None or all(
            b.board in there and not audit_board(on, b) for b in self.plan.boards
        )


def pinned(plan: Plan, pins: Sequence[Item]) -> dict[str, tuple[Segment, ...]]:
    """For every board the segments with a pinned piece, and of them only the blanks that hold
    one.
    """
    wanted = set(pins)
    found: dict[str, tuple[Segment, ...]] = {}
    for board in plan.boards:
        segments = []
        for segment in board.segments:
            strips = tuple(
                replace(strip, blanks=held)
                for strip in segment.strips
                if (held := tuple(b for b in strip.blanks if any(i in wanted for i in b.items())))
            )
            if strips:
                segments.append(replace(segment, strips=strips))
        if segments:
            found[board.board] = tuple(segments)
    return found


def remaining_types(
    item_types: Sequence[ItemType], held: dict[str, tuple[Segment, ...]], allowance: int
) -> tuple[list[ItemType], dict[Item, int]]:
    """The wants without what is pinned, and for every panel begun the highest number of a stave of
    it (by its first item).
    """
    placed = [
        (item, strip.y1 - strip.y0 - allowance)
        for segments in held.values()
        for s in segments
        for strip, blank in s.blanks()
        for item in blank.items()
    ]
    there = {Item(i.part, i.n) for i, _ in placed}
    net: Counter[Item] = Counter()
    staves: dict[Item, int] = {}
    count_of: Counter[Item] = Counter()
    for item, width in placed:
        if item.stave:
            panel = Item(item.part, item.n)
            net[panel] += width
            count_of[panel] += 1
            staves[panel] = max(staves.get(panel, 0), item.stave)
    remaining: list[ItemType] = []
    place = count()
    for w in item_types:
        if w.is_panel:
            width = w.width - net[w.members[0][0]]
            if width > 0:
                remaining.append(
                    replace(
                        w,
                        index=next(place),
                        width=max(width, w.stave_min),
                        staves_most=max(1, w.staves_most - count_of[w.members[0][0]]),
                        volume=w.volume * width // w.width,
                    )
                )
        else:
            members = tuple(m for m in w.members if m[0] not in there)
            if members:
                remaining.append(replace(w, index=next(place), members=members))
    return remaining, staves


def with_pinned(plan: Plan, held: dict[str, tuple[Segment, ...]]) -> tuple[BoardPlan, ...]:
    """The boards of a plan with the pinned pieces back in their places."""
    boards = {b.board: list(b.segments) for b in plan.boards}
    for board, segments in held.items():
        there = boards.setdefault(board, [])
        for segment in segments:
            same = next((s for s in there if _line(s) == _line(segment)), None)
            if same is None:
                there.append(segment)
            else:
                there[there.index(same)] = replace(
                    same, strips=_together(same.strips, segment.strips)
                )
    return tuple(BoardPlan(b, tuple(sorted(s, key=lambda s: s.x0))) for b, s in boards.items())


def _line(s: Segment) -> tuple[int, int, float, float]:
    return s.x0, s.x1, s.y0, s.slope


def _together(some: Sequence[Strip], others: Sequence[Strip]) -> tuple[Strip, ...]:
    by_height = {(s.y0, s.y1): s for s in others}
    for strip in some:
        same = by_height.get((strip.y0, strip.y1))
        blanks = (*strip.blanks, *(same.blanks if same else ()))
        by_height[strip.y0, strip.y1] = replace(
            strip, blanks=tuple(sorted(blanks, key=lambda b: b.x0))
        )
    return tuple(by_height[key] for key in sorted(by_height))


def pinned_needs(segments: Iterable[Segment], job: Job) -> list[tuple[Segment, int]]:
    """The pinned segments of a board, each with the thickness that what is pinned in it asks
    for.
    """
    found = []
    for segment in segments:
        needs = [
            blank_need(
                [max(job.part(i.part).thickness for i in b.items())] * len(b.layers), job.shop
            )
            for _, b in segment.blanks()
        ]
        found.append((segment, max(needs)))
    return found
