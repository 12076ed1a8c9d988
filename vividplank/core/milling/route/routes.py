"""The steps of each board of a plan by the school the shop works in, and of each panel and built-up
piece, worked out on the wood: every step takes whole pieces as they are by then and gives what
becomes of them.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from vividplank.core.board import Board
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Closed, Item, Plan, Segment
from vividplank.core.measure import System
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.blanks import Waiting
from vividplank.core.milling.route.built import built_up
from vividplank.core.milling.route.panels import PanelRoute, mating_edges
from vividplank.core.milling.route.resized import resized
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.milling.route.segments import SegmentRoute
from vividplank.core.milling.shop.machines import usual_machines
from vividplank.core.milling.shop.pace import Factors
from vividplank.core.milling.shop.school import Milling, School
from vividplank.core.piece import Piece, piece_of_board
from vividplank.core.piece import operations as op


@dataclass(frozen=True)
class Route:
    """All steps for one board, segment by segment, or for one panel; and what is sawn off its
    thickness and kept.
    """

    board: str
    steps: tuple[Step, ...]
    kept: tuple[Piece, ...] = ()


def usual_milling(job: Job) -> Milling:
    """Starting values: the usual machines, and the order the layout was made for."""
    return Milling(
        usual_machines(job.unit),
        "rough-rip-first" if job.shop.method == "rough-rip" else "plane-then-rip",
    )


def routes(
    job: Job,
    plan: Plan,
    milling: Milling | None = None,
    factors: Factors | None = None,
    system: System | None = None,
) -> tuple[Route, ...]:
    """One route for each board the plan cuts, in the order of the plan, then one for each panel and
    each piece of layers.

    `system` is how its sentences tell lengths; left out, in the job's own unit.
    """
    milling = milling or usual_milling(job)
    planner = Sawing(job, milling, factors, system)
    planner.made = {(m.part, m.n): m.sizes for m in plan.made}
    mating = mating_edges(job, plan)
    waiting = Waiting({item: len(sides) for item, sides in mating.items()})
    found: list[Route] = []
    for b in plan.boards:
        if b.segments:
            steps = planner.begin()
            _board(planner, job.board(b.board), b.segments, waiting)
            found.append(Route(b.board, tuple(steps), tuple(planner.kept)))
    for (part, n), ready in sorted(waiting.staves.items()):
        steps = planner.begin(
            (milling.school_of(f"{part}{n}", part) or milling.school) == "by-hand"
        )
        whole = Item(part, n)
        made = PanelRoute(planner, planner.part(whole), n, ready, mating).write()
        resized(planner, made, whole)
        found.append(Route(f"{part}{n}", tuple(steps)))
    for (part, _), layered in sorted(waiting.layers.items()):
        school = milling.school_of(*(layer.item.name for layer in layered), part)
        steps = planner.begin((school or milling.school) == "by-hand")
        built_up(planner, job.part(part), layered)
        found.append(Route(steps[0].piece, tuple(steps)))
    return _open(found, plan.closed) if plan.closed else tuple(found)


def _open(routes: Sequence[Route], closed: Sequence[Closed]) -> tuple[Route, ...]:
    """Without the steps of pieces that went another way, once they had; one that is stock is a
    board of its own by then.
    """
    gone: set[str] = set()
    found: list[Route] = []
    for route in routes:
        gone.discard(route.board)
        steps: list[Step] = []
        for step in route.steps:
            if gone & set(step.takes):
                gone |= {g.piece for g in step.gives}
                continue
            steps.append(step)
            gone |= {c.piece for c in closed if c.after == step.key}
        found.append(replace(route, steps=tuple(steps)))
    there = {s.key for r in found for s in r.steps}
    return tuple(
        replace(
            r,
            steps=tuple(replace(s, after=tuple(k for k in s.after if k in there)) for s in r.steps),
        )
        for r in found
        if r.steps
    )


def _board(planner: Sawing, board: Board, segments: Sequence[Segment], waiting: Waiting) -> None:
    ordered = sorted(segments, key=lambda s: s.x0)
    milling = planner.milling
    planner.by_hand = (milling.school_of(board.id) or milling.school) == "by-hand"
    for segment, piece in zip(ordered, _rough_length(planner, board, ordered), strict=True):
        parts = [i.part for _, blank in segment.blanks() for i in blank.items()]
        school: School = milling.school_of(piece.mark, board.id, *parts) or milling.school
        planner.by_hand = school == "by-hand"
        SegmentRoute(planner, segment, piece, school, waiting).write()


def _rough_length(planner: Sawing, board: Board, segments: Sequence[Segment]) -> list[Piece]:
    """The board crosscut before anything is flattened."""
    say = planner.say
    whole = piece_of_board(board)
    names = [f"{board.id}.{n}" for n in range(1, len(segments) + 1)]
    cuts = [(name, s.x0, s.x1) for name, s in zip(names, segments, strict=True)]
    marks = ", ".join(f"{say(s.x0)} to {say(s.x1)}" for s in segments)
    flat = bool(whole.reference)
    least = min(op.crosscut(whole, name, x0, x1).slab.thickness for name, x0, x1 in cuts)
    step = Step(
        f"{board.id}/rough-length",
        "crosscut saw",
        f"Crosscut {board.id}, from the datum end: {marks}",
        "either face",
        "the straighter edge",
        segments[0].x0,
        "length",
        (),
        board.length,
        sum(s.x1 - s.x0 for s in segments),
        f"{len(segments)} piece{'s' if len(segments) > 1 else ''}; write {', '.join(names)} on the "
        "ends",
        "it is flat already: cut to what its parts need"
        if flat
        else f"flat, the whole board would give {planner.holds(whole.slab.thickness)}; cut so, its "
        f"pieces give at least {planner.holds(least)} at the same width. Bow falls with the square "
        "of the length.",
        setup="crosscut rough",
        along="line",
    )
    return planner.crosscut(whole, cuts, replace(step, pieces=()))
