"""Boards cut as awkwardly as the rules allow, every clear stretch a part made to fit it:
relaxation.py must have counted it all.

Segments lie aslant, strips stand out over edges that are not parallel, faults cut them in two;
parts lie over sound faults where their faces allow it, two end to end in some blanks, and some are
staves.
"""

import random
from collections.abc import Iterator
from dataclasses import replace
from decimal import Decimal
from typing import cast

import numpy as np
import pytest

from tests.core.layout.bound.test_relaxation import held
from tests.making import BARE, a_board, a_fault
from vividplank.core.board import Board
from vividplank.core.cutlist import Faces, Panel, Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.relaxation import BoardRelaxation
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Shop

_8TH, _STEP = INCH // 8, INCH // 16
FACES = ("clear-two", "clear-one", "sound")


def shop(rng: random.Random) -> Shop:
    chosen = rng.choice((BARE, Shop()))
    return replace(chosen, method="rough-rip", max_slope=rng.choice((0.0, 0.02, 0.06)))


def board(rng: random.Random) -> Board:
    length, width = rng.randint(30, 110), rng.randint(24, 80) / 8
    faults = []
    for _ in range(rng.choice((0, 0, 1, 2, 4))):
        x, y = rng.uniform(0, length - 4), rng.uniform(0, width - 1)
        long, wide = rng.choice(((12, 1), (1, 1), (3, 3), (6, 0.25)))
        kind, face = rng.choice(("loose-knot", "tight-knot")), rng.choice(("A", "both"))
        faults.append(a_fault(kind, x, min(length, x + long), y, min(width, y + wide), face))
    far = max(2.5, width - rng.choice((0, 0.5, 0.75, 3)))
    made = a_board("B", length, width, 1.0, far_width=far, defects=tuple(faults))
    lifted = [rng.randint(0, INCH) for _ in range(3)] if rng.random() < 0.5 else [0, 0, 0]
    first, last = (
        replace(s, y0=s.y0 + up, y1=s.y1 + up) for s, up in zip(made.stations, lifted, strict=False)
    )
    if rng.random() < 0.7:
        return replace(made, stations=(first, last))
    up = lifted[2]  # crooked
    middle = replace(
        first, x=made.length // 2, y0=up, y1=up + max(3 * INCH, (first.y1 + last.y1) // 2)
    )
    return replace(made, stations=(first, middle, last))


def clear(
    board: Board, segment: Segment, low: int, high: int, faces: Faces
) -> Iterator[tuple[int, int]]:
    """Stretches of a strip from height low to high of a segment that lie on the board, off what the
    faces forbid.
    """
    forbidden = [
        d
        for d in board.defects
        if not d.sound or faces == "clear-two" or (faces == "clear-one" and d.face == "both")
    ]
    begun = None
    for x in range(segment.x0, segment.x1 + 1, _STEP):
        at = segment.y0 + segment.slope * (x - segment.x0)
        edges = board.edges(x)
        bottoms = sorted((at, at + segment.slope * _STEP))
        inside = edges[0] <= at + low and at + high <= edges[1]
        ahead = x + _STEP <= segment.x1 and not any(
            d.x0 < x + _STEP and d.x1 > x and d.y0 < bottoms[1] + high and d.y1 > bottoms[0] + low
            for d in forbidden
        )
        if not inside:
            if begun is not None and x - _STEP > begun:
                yield begun, x - _STEP
            begun = None
        elif begun is None:
            begun = x
        if begun is not None and not ahead:
            if x > begun:
                yield begun, x
            begun = None


def cut(rng: random.Random, board: Board, shop: Shop) -> tuple[list[Part], Plan]:
    """The board cut at random, and a part for all that comes of it."""
    parts: list[Part] = []
    segments = []
    x0, end = shop.end_trim, board.length - shop.end_trim
    while end - x0 >= shop.min_blank_length:
        x1 = min(end, x0 + rng.choice((rng.randint(shop.min_blank_length, end - x0), end - x0)))
        slope = rng.choice(
            (0.0, rng.uniform(-shop.max_slope, shop.max_slope), shop.max_slope, -shop.max_slope)
        )
        lines = [board.edges(x)[0] - slope * (x - x0) for x in (x0, x1)]
        segment = Segment(
            x0,
            x1,
            round(rng.choice((min(lines), max(lines), rng.uniform(min(lines), max(lines))))),
            slope,
            (),
        )
        strips, low = [], 0
        while low < board.widest + 2 * shop.max_slope * (x1 - x0):
            net = rng.randint(8, 32) * _8TH
            tops = [
                int(board.edges(x)[1] - segment.y0 - slope * (x - x0))
                for x in (x0, (x0 + x1) // 2, x1)
            ]
            snug = [
                top - low - shop.allowance.width
                for top in tops
                if INCH <= top - low - shop.allowance.width <= 5 * INCH
            ]
            if snug and rng.random() < 0.8:
                net = rng.choice(snug)  # up to the upper edge at one end, or in the middle
            high = low + net + shop.allowance.width
            blanks = []
            faces = cast(Faces, rng.choice(FACES))
            for a, b in clear(board, segment, low, high, faces):
                if b - a >= max(shop.min_blank_length, shop.allowance.length + _8TH):
                    blanks.append(_blank(rng, shop, parts, a, b, net, faces))
            if blanks:
                strips.append(Strip(low, high, tuple(blanks)))
                low = high + shop.kerf.rip
            else:
                low += rng.choice((_STEP, net))
        if strips:
            segments.append(replace(segment, strips=tuple(strips)))
        x0 = x1 + shop.kerf.crosscut
    return parts, Plan((BoardPlan(board.id, tuple(segments)),), (), board.price)


def _blank(
    rng: random.Random, shop: Shop, parts: list[Part], a: int, b: int, net: int, faces: Faces
) -> Blank:
    room = b - a - shop.allowance.length
    if rng.random() < 0.3:
        staves = Panel(max(INCH, net - rng.randint(0, 8) * _8TH), net + rng.randint(0, 8) * _8TH)
        parts.append(
            Part(
                f"P{len(parts)}",
                "",
                1,
                "oak",
                room,
                net - shop.allowance.panel_width,
                INCH // 2,
                faces,
                staves,
            )
        )
        return Blank(a, b, ((Item(parts[-1].id, 1, 1),),))
    first = rng.randint(room // 4, room // 2) if rng.random() < 0.4 and room > 8 * INCH else 0
    lengths = [first, room - first - shop.kerf.crosscut] if first else [room]
    made = [
        Part(f"P{len(parts) + k}", "", 1, "oak", long, net, INCH // 2, faces)
        for k, long in enumerate(lengths)
    ]
    parts += made
    return Blank(a, b, (tuple(Item(p.id, 1) for p in made),))


@pytest.mark.parametrize("seed", range(120))
def test_what_was_cut_had_room(seed: int) -> None:
    rng = random.Random(f"aslant {seed}")
    how = shop(rng)
    stock = board(rng)
    parts, plan = cut(rng, stock, how)
    if not parts:
        return
    job = Job("", how, tuple(parts), (replace(stock, price=Decimal(10)),))
    assert audit(job, replace(plan, cost=Decimal(10))) == []
    listed = item_types(job)
    taken = held(plan.boards[0], listed, job)
    for some in (1.0, 0.9, 0.5, 0.2):
        area = np.array([float(w.length if w.is_panel else w.length * w.width) for w in listed])
        profits = area * [rng.uniform(0.5, 1) if rng.random() < some else 0 for _ in listed]
        most, _ = BoardRelaxation(job.boards, listed, how).most(profits)
        assert float(profits @ taken) <= most[0] * (1 + 1e-9)
