"""Where every board's wood goes in a plan, closing exactly to the rough volume."""

from collections import defaultdict
from dataclasses import dataclass, replace
from decimal import Decimal
from itertools import pairwise

from vividplank.core.board import Board, Region
from vividplank.core.board.volume import board_volume, region_volume, stretch_volume
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, BoardPlan, Plan, Segment, Strip
from vividplank.core.yields.offcuts import Leftover, leftovers

#: In the order they are told; the words are those of the trade page.
CATEGORIES = (
    "parts",
    "offcuts kept",
    "end trim",
    "defects",
    "crosscut kerf",
    "rip kerf",
    "resaw kerf",
    "chips",
    "edge waste",
    "lost to error",
)


@dataclass(frozen=True)
class BoardAccount:
    """Cubic ticks by category; they add up to `rough` exactly."""

    board: str
    rough: int
    price: Decimal
    where: dict[str, int]

    @property
    def share(self) -> float:
        """Yield: finished parts over rough bought."""
        return self.where["parts"] / self.rough


@dataclass(frozen=True)
class Account:
    boards: tuple[BoardAccount, ...]

    @property
    def rough(self) -> int:
        return sum(b.rough for b in self.boards)

    @property
    def price(self) -> Decimal:
        return sum((b.price for b in self.boards), Decimal(0))

    @property
    def where(self) -> dict[str, int]:
        return {name: sum(b.where[name] for b in self.boards) for name in CATEGORIES}

    @property
    def share(self) -> float:
        return self.where["parts"] / self.rough if self.rough else 0.0


def account(job: Job, plan: Plan) -> Account:
    """The account of the boards a plan cuts; boards left in the rack are not in it."""
    shares = _panel_shares(job, plan)
    return Account(tuple(_board(job, b, shares) for b in plan.boards if b.segments))


def _board(job: Job, plan: BoardPlan, shares: dict[tuple[str, int], float]) -> BoardAccount:
    board, shop = job.board(plan.board), job.shop
    found: defaultdict[str, float] = defaultdict(float)
    kerf = shop.kerf.crosscut
    segments = sorted(plan.segments, key=lambda s: s.x0)
    ends = [0, *(x for s in segments for x in (s.x0, s.x1)), board.length]
    for i, (a, b) in enumerate(zip(ends[::2], ends[1::2], strict=True)):
        # One cut on either side of a gap that holds a segment there; a gap of one kerf is one cut.
        cut_a = min(kerf, b - a) if i > 0 else 0
        cut_b = min(kerf, b - a - cut_a) if i < len(segments) else 0
        found["crosscut kerf"] += stretch_volume(board, a, a + cut_a) + stretch_volume(
            board, b - cut_b, b
        )
    for left in leftovers(job, plan):
        _left(job, board, left, found)
    for segment in segments:
        _segment(job, board, segment, found, shares)
    rough = round(board_volume(board))
    where = {name: round(found[name]) for name in CATEGORIES if name != "edge waste"}
    where["edge waste"] = rough - sum(where.values())
    return BoardAccount(board.id, rough, board.price, {name: where[name] for name in CATEGORIES})


def _left(job: Job, board: Board, left: Leftover, found: defaultdict[str, float]) -> None:
    """What goes to the rack is kept, as thick as it goes there; the rest is trim, fault or edge
    waste, which takes what nothing else claims.
    """
    shop, region = job.shop, left.region
    if left.piece and left.kept(shop.keep):
        rough = region_volume(board, region)
        kept = min(rough, float(board_volume(left.piece))) if left.planed else rough
        found["offcuts kept"] += kept
        found["chips"] += rough - kept
    elif left.kind == "end":
        trim = (shop.end_trim, board.length - shop.end_trim)
        for x0, x1 in pairwise(
            sorted({region.x0, region.x1, *(x for x in trim if region.x0 < x < region.x1)})
        ):
            trimmed = x1 <= trim[0] or x0 >= trim[1]
            for a, b, faulty in _by_faults(board, replace(region, x0=x0, x1=x1)):
                found["defects" if faulty and not trimmed else "end trim"] += stretch_volume(
                    board, a, b
                )
    elif left.kind == "strip":
        for a, b, faulty in _by_faults(board, region):
            if faulty:
                place = replace(region, x0=a, x1=b, y0=region.line(a))
                found["defects"] += region_volume(board, place)


def _segment(
    job: Job,
    board: Board,
    segment: Segment,
    found: defaultdict[str, float],
    shares: dict[tuple[str, int], float],
) -> None:
    shop = job.shop
    strips = sorted(segment.strips, key=lambda s: s.y0)
    for low, high in pairwise(strips):
        for h0, h1 in _cuts(low.y1, high.y0, shop.kerf.rip):
            found["rip kerf"] += region_volume(
                board, _along(segment, segment.x0, segment.x1, h0, h1)
            )
    if strips:
        top = strips[-1].y1
        found["rip kerf"] += region_volume(
            board, _along(segment, segment.x0, segment.x1, top, top + shop.kerf.rip)
        )
    for strip in strips:
        blanks = sorted(strip.blanks, key=lambda b: b.x0)
        ends = [segment.x0, *(x for b in blanks for x in (b.x0, b.x1)), segment.x1]
        gaps = list(zip(ends[::2], ends[1::2], strict=True))
        for i, (a, b) in enumerate(gaps):
            before, after = i > 0, i < len(gaps) - 1
            cut_a = min(shop.kerf.crosscut, b - a) if before else 0
            cut_b = min(shop.kerf.crosscut, b - a - cut_a) if after else 0
            for x0, x1 in ((a, a + cut_a), (b - cut_b, b)):
                found["crosscut kerf"] += region_volume(
                    board, _along(segment, x0, x1, strip.y0, strip.y1)
                )
        for blank in blanks:
            _blank(job, board, segment, strip, blank, found, shares)


def _blank(
    job: Job,
    board: Board,
    segment: Segment,
    strip: Strip,
    blank: Blank,
    found: defaultdict[str, float],
    shares: dict[tuple[str, int], float],
) -> None:
    """Inside a blank: parts, the kerfs between them, length left over, resaw kerf, chips; its sides
    are edge waste.
    """
    shop = job.shop
    rough = region_volume(board, segment.blank_region(strip, blank))
    area = (blank.x1 - blank.x0) * (strip.y1 - strip.y0)
    layers = len(blank.layers)
    parts = kerf = ends = sides = 0.0
    for layer in blank.layers:
        length = 0
        for item in layer:
            part = job.part(item.part)
            if part.panel:
                net = strip.y1 - strip.y0 - shop.allowance.width
                volume = part.length * net * part.thickness * shares[item.part, item.n]
            else:
                volume = float(part.volume)
            parts += volume
            sides += part.length * (strip.y1 - strip.y0) * part.thickness - volume
            length += part.length
            thickness = part.thickness
        kerf += (len(layer) - 1) * shop.kerf.crosscut * (strip.y1 - strip.y0) * thickness
        rest = blank.x1 - blank.x0 - length - (len(layer) - 1) * shop.kerf.crosscut
        ends += rest * (strip.y1 - strip.y0) * thickness
    resaw = (layers - 1) * shop.kerf.resaw * area
    found["parts"] += parts
    found["crosscut kerf"] += kerf
    found["end trim"] += ends
    found["resaw kerf"] += resaw
    # What is left of the blank's thickness once parts, their sides and the saw have had theirs.
    found["chips"] += max(0.0, rough - parts - kerf - ends - sides - resaw)


def _panel_shares(job: Job, plan: Plan) -> dict[tuple[str, int], float]:
    """How much of its staves' net width a finished panel keeps."""
    net: defaultdict[tuple[str, int], int] = defaultdict(int)
    for _, _, strip, _, item in plan.items():
        if item.stave:
            net[item.part, item.n] += strip.y1 - strip.y0 - job.shop.allowance.width
    return {key: min(1.0, job.part(key[0]).width / total) for key, total in net.items()}


def _along(segment: Segment, x0: int, x1: int, h0: int, h1: int) -> Region:
    return Region(x0, x1, segment.y0 + segment.slope * (x0 - segment.x0), segment.slope, h0, h1)


def _cuts(low: int, high: int, kerf: int) -> list[tuple[int, int]]:
    """The saw cuts in a gap: one along each side, or one where the gap is hardly more."""
    if high - low < 2 * kerf:
        return [(low, min(low + kerf, high))]
    return [(low, low + kerf), (high - kerf, high)]


def _by_faults(board: Board, region: Region) -> list[tuple[int, int, bool]]:
    """The region's length in order, cut where an unsound fault begins or ends, and whether one lies
    there.
    """
    if region.x1 <= region.x0:
        return []
    low = min(region.line(region.x0), region.line(region.x1)) + region.h0
    high = max(region.line(region.x0), region.line(region.x1)) + region.h1
    faults = [d for d in board.boxed if not d.sound and d.y0 < high and d.y1 > low]
    marks = {region.x0, region.x1} | {
        x for d in faults for x in (d.x0, d.x1) if region.x0 < x < region.x1
    }
    return [(a, b, any(d.x0 < b and d.x1 > a for d in faults)) for a, b in pairwise(sorted(marks))]
