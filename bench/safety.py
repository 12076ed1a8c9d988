"""Steps at random: none with a fault at a cutter head that can fly apart, none past a limit of the
whole piece.

    .plank/venv/bin/python -m bench.safety [steps] [seed]

Every case is one segment of a warped and faulty board, strips laid where no unsound fault is, in a
shop and by a school of its own; the machine shop of the tests carries the steps out.
"""

import random
import sys
import time
from dataclasses import replace

from bench.execution import shop, worse
from bench.shop_jobs import _board
from tests.machine_shop import MachineShop
from vividplank.core.board import Board, flat_slab
from vividplank.core.cutlist import Faces, Part
from vividplank.core.exchange.route_file import route_document
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.shop.school import SCHOOLS
from vividplank.core.shop import Shop

SHOP = Shop()
_64TH = INCH // 64


def case(rng: random.Random) -> tuple[Job, Plan] | None:
    """One board with one segment, right by the audit; None where chance laid nothing out."""
    board: Board = replace(worse(_board(rng, "W"), rng), price=_board(rng, "W").price * 0)
    long = rng.randint(14, 48) * INCH
    x0 = rng.randint(INCH, max(INCH + 1, board.length - long - INCH))
    x1 = min(x0 + long, board.length - INCH)
    slope = rng.choice((0.0, 0.0, rng.uniform(-0.01, 0.01)))
    low, high = board.reach(0, slope, x0, x0, x1)
    at = low + rng.choice((0, 0, rng.randint(0, 3 * INCH)))
    strips: list[Strip] = []
    parts: list[Part] = []
    while at + 2 * INCH < high and len(strips) < 4:
        wide = rng.randint(64, 320) * _64TH
        if at + wide > high:
            break
        name = f"P{len(parts)}"
        strip = Strip(at, at + wide, (Blank(x0, x1, ((Item(name, 1),),)),))
        region = Segment(x0, x1, 0, slope, (strip,)).blank_region(strip, strip.blanks[0])
        if not any(d.overlaps(region) for d in board.defects if not d.sound):
            faces: Faces = "sound"
            strips.append(strip)
            parts.append(
                Part(name, "", 1, "oak", x1 - x0 - SHOP.allowance.length, wide, INCH, faces)
            )
        at += wide + SHOP.kerf.rip + rng.choice((0, rng.randint(0, INCH)))
    if not strips:
        return None
    segment = Segment(x0, x1, 0, slope, tuple(strips))
    flat = flat_slab(board, segment.milled_region()).thickness
    thick = int(flat - SHOP.allowance.face - rng.randint(1, 32) * _64TH) // _64TH * _64TH
    if thick < INCH // 4:
        return None
    sized = tuple(replace(p, thickness=thick, width=p.width - SHOP.allowance.width) for p in parts)
    job = Job("", SHOP, sized, (board,))
    plan = Plan((BoardPlan("W", (segment,)),))
    return None if audit(job, plan) else (job, plan)


def main(wanted: int, seed: int) -> None:
    rng = random.Random(f"safety {seed}")
    began = time.monotonic()
    steps = cases = at_cutters = wrong = 0
    while steps < wanted:
        found = case(rng)
        if found is None:
            continue
        job, plan = found
        milling = Milling(shop(rng), rng.choice(SCHOOLS))
        document = route_document(routes(job, plan, milling), job.unit)
        doing = MachineShop(job, plan, milling.machines, weighs=False).carry_out(document)
        bad = [v for v in doing if v.rule in ("fault", "limit", "machine", "face", "true")]
        for violation in bad[:2]:
            print(f"  case {cases}, {milling.school}: {violation}")
        wrong += len(bad)
        cases += 1
        steps += len(document["steps"])
        at_cutters += sum(
            s["machine"] in ("jointer", "planer", "router bridge") for s in document["steps"]
        )
    spent = time.monotonic() - began
    print(
        f"{cases} cases, {steps} steps, {at_cutters} at a cutter head: {wrong} unsafe; "
        f"{spent:.0f} s, {1000 * spent / steps:.1f} ms a step"
    )


if __name__ == "__main__":
    main(*(int(a) for a in (sys.argv[1:] + ["20000", "0"][len(sys.argv) - 1 :])))
