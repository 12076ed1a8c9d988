"""Against others on their own ground: flat, faultless boards, plain parts, straight cuts right
across.

A general rectangle-packing library (rectpack: every guillotine heuristic it has, over several
orders of the boards) and a plain CP-SAT model (pieces that do not overlap, boards used or not) get
the same time as the search. Kerfs are counted for them as in bench/planted.py: pieces and boards a
kerf larger. The model may even place what no saw could cut.

    .plank/venv/bin/python -m bench.others [seconds] [seeds] [boards ...]
"""

import itertools
import sys
import time

import rectpack
from ortools.sat.python import cp_model
from rectpack import guillotine

from bench.planted import Planted, planted
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.layout.search.warm import warm
from vividplank.core.measure import TICKS_PER_INCH as INCH

_16TH = INCH // 16
#: Best area, short side and long side, each with every rule for cutting what is left.
_HEURISTICS = [
    getattr(guillotine, f"Guillotine{fit}{cut}")
    for fit in ("Baf", "Bssf", "Blsf")
    for cut in ("Sas", "Las", "Slas", "Llas", "Maxas", "Minas")
]
_SORTS = (
    rectpack.SORT_AREA,
    rectpack.SORT_LSIDE,
    rectpack.SORT_SSIDE,
    rectpack.SORT_PERI,
    rectpack.SORT_NONE,
)


def sizes(job: Job) -> tuple[list[tuple[int, int]], list[tuple[int, int, float]]]:
    """Pieces and boards in sixteenths, each a kerf larger; boards with their prices."""
    shop = job.shop
    pieces = [
        (
            (p.length + shop.allowance.length + shop.kerf.crosscut) // _16TH,
            (p.width + shop.allowance.width + shop.kerf.rip) // _16TH,
        )
        for p in job.parts
        for _ in range(p.quantity)
    ]
    boards = [
        (
            (b.length - 2 * shop.end_trim + shop.kerf.crosscut) // _16TH,
            (b.widest + shop.kerf.rip) // _16TH,
            float(b.price),
        )
        for b in job.boards
    ]
    return pieces, boards


def by_library(job: Job, seconds: float) -> float | None:
    """The least cost of any heuristic and order within the time; None where none placed
    everything.
    """
    pieces, boards = sizes(job)
    began = time.monotonic()
    best: float | None = None
    orders = (
        lambda b: b[2] / (b[0] * b[1]),
        lambda b: -b[0] * b[1],
        lambda b: b[0] * b[1],
        lambda b: -b[0],
        lambda b: -b[1],
    )
    for order, heuristic, sort in itertools.product(orders, _HEURISTICS, _SORTS):
        if time.monotonic() - began > seconds:
            break
        packer = rectpack.newPacker(
            rectpack.PackingMode.Offline, rectpack.PackingBin.BBF, heuristic, sort, rotation=False
        )
        listed = sorted(boards, key=order)
        for long, wide, _ in listed:
            packer.add_bin(long, wide)
        for n, (long, wide) in enumerate(pieces):
            packer.add_rect(long, wide, rid=n)
        packer.pack()
        placed = packer.rect_list()
        if len(placed) < len(pieces):
            continue
        # It names the boards it opened in its own order: the cheapest of each size are counted.
        left = sorted(boards, key=lambda b: b[2])
        cost = 0.0
        for opened in packer:
            size = (opened.width, opened.height)
            used = next(b for b in left if b[:2] == size)
            left.remove(used)
            cost += used[2]
        best = cost if best is None else min(best, cost)
    return best


def by_model(job: Job, seconds: float) -> float | None:
    """The cost of the best plan of the model within the time; None where it found none."""
    pieces, boards = sizes(job)
    model = cp_model.CpModel()
    used = [model.new_bool_var("") for _ in boards]
    on = [[model.new_bool_var("") for _ in boards] for _ in pieces]
    for i in range(len(pieces)):
        model.add_exactly_one(on[i])
    for b, (long, wide, _) in enumerate(boards):
        xs, ys = [], []
        for i, (p_long, p_wide) in enumerate(pieces):
            if p_long > long or p_wide > wide:
                model.add(on[i][b] == 0)
                continue
            x, y = model.new_int_var(0, long - p_long, ""), model.new_int_var(0, wide - p_wide, "")
            xs.append(model.new_optional_fixed_size_interval_var(x, p_long, on[i][b], ""))
            ys.append(model.new_optional_fixed_size_interval_var(y, p_wide, on[i][b], ""))
            model.add_implication(on[i][b], used[b])
        model.add_no_overlap_2d(xs, ys)
        model.add(
            sum(p_l * p_w * on[i][b] for i, (p_l, p_w) in enumerate(pieces))
            <= long * wide * used[b]
        )
    model.minimize(
        sum(round(price * 10_000) * u for (_, _, price), u in zip(boards, used, strict=True))
    )
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds = seconds
    solver.parameters.num_workers = 2
    solver.parameters.random_seed = 1
    status = solver.solve(model)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return sum(price for (_, _, price), u in zip(boards, used, strict=True) if solver.value(u))


def main(seconds: float, seeds: int, counts: list[int]) -> None:
    warm()
    for boards in counts:
        for seed in range(1, seeds + 1):
            made: Planted = planted("flat", boards, seed)
            best = float(made.cost)
            ours = search(made.job, Limits(seconds, workers=2), time.monotonic)
            assert not audit(made.job, ours)
            library, model = by_library(made.job, seconds), by_model(made.job, seconds)
            said = [f"{cost / best:.3f}" if cost else "not whole" for cost in (library, model)]
            whole = f"{float(ours.cost) / best:.3f}" if not ours.unplaced else "not whole"
            print(
                f"{boards} boards, {len(made.job.parts)} parts, seed {seed}: over the optimum "
                f"ours {whole}, "
                f"library {said[0]}, model {said[1]}",
                flush=True,
            )


if __name__ == "__main__":
    main(
        float(sys.argv[1]) if len(sys.argv) > 1 else 10.0,
        int(sys.argv[2]) if len(sys.argv) > 2 else 2,
        [int(a) for a in sys.argv[3:]] or [3, 6, 12],
    )
