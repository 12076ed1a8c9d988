"""Which operation takes how much of a board to chips; together exactly the chips of its account."""

from vividplank.core.board import Region, flat_slab
from vividplank.core.board.flat.depth import depths
from vividplank.core.board.volume import region_volume
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import BoardPlan, Plan
from vividplank.core.milling.model.planed import planed
from vividplank.core.yields.account import account

OPERATIONS = ("facing", "planing", "skim after resawing", "flattening panels")
_ALONG, _ACROSS = 24, 8


def chips_by_operation(job: Job, plan: Plan) -> dict[str, dict[str, int]]:
    """For every board that is cut, cubic ticks by operation, in the order of OPERATIONS.

    Facing takes what lies outside the plane of the flat slab on the hollow face; what saws and
    skims take is known from their settings; planing takes the rest.
    """
    totals = {b.board: b.where["chips"] for b in account(job, plan).boards}
    return {b.board: _board(job, b, totals[b.board]) for b in plan.boards if b.segments}


def _board(job: Job, plan: BoardPlan, total: int) -> dict[str, int]:
    board = job.board(plan.board)
    facing = skim = flattening = 0.0
    for segment in plan.segments:
        for strip, blank in segment.blanks():
            region = segment.blank_region(strip, blank)
            area = (blank.x1 - blank.x0) * (strip.y1 - strip.y0)
            layers = len(blank.layers)
            whole = segment.milled_region() if job.shop.method == "mill-wide" else region
            if layers > 1:
                skim += layers * job.shop.allowance.face * area
            elif any(i.stave for i in blank.items()):
                flattening += (
                    planed(job, blank) - job.part(next(blank.items()).part).thickness
                ) * area
            slab = flat_slab(board, whole)
            found = depths(board, whole, slab)
            rough = region_volume(board, region)
            # A face is cut to the plane of the slab; what stands over the other plane is the
            # planer's.
            facing += min(rough, _outside(job, plan.board, region, found.hollow >= 0, whole))
    found_skim, found_flat = round(skim), round(flattening)
    faced = min(round(facing), total - found_skim - found_flat)
    return dict(
        zip(
            OPERATIONS,
            (faced, total - faced - found_skim - found_flat, found_skim, found_flat),
            strict=True,
        )
    )


def _outside(job: Job, id: str, region: Region, below: bool, whole: Region) -> float:
    """The volume of a region under the lower plane of the slab of `whole`, or over its upper
    plane.
    """
    board = job.board(id)
    slab = flat_slab(board, whole)
    taken = 0.0
    for i in range(_ALONG):
        x = region.x0 + (region.x1 - region.x0) * (i + 0.5) / _ALONG
        for j in range(_ACROSS):
            y = region.line(x) + region.h0 + (region.h1 - region.h0) * (j + 0.5) / _ACROSS
            low = board.underside(x, y)
            gap = (
                slab.lower(x, y) - low
                if below
                else low + board.thickness(x, y) - slab.lower(x, y) - slab.thickness
            )
            taken += max(0.0, gap)
    return taken / (_ALONG * _ACROSS) * (region.x1 - region.x0) * (region.h1 - region.h0)
