"""Whether a plan is right for its job, judged from the rules alone.

Shares nothing with the search but the geometry of the board. The rule numbers are those of
docs/exchange.md, "When a plan is right".
"""

from collections import Counter, defaultdict
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from itertools import pairwise

from vividplank.core.board import Board, Region, flat_slab, same_species
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH, Unit, show

#: h(R) is a float: a slab thinner than the need by less than this is the same slab (1.2e-6 in).
SLAB_TOLERANCE = 0.01
#: A sloped line meets an edge at fractions of a tick.
EDGE_TOLERANCE = 1e-6


@dataclass(frozen=True)
class Violation:
    """One broken rule: its number, where, and what was found against what was needed."""

    rule: int
    place: str
    what: str

    def __str__(self) -> str:
        return f"rule {self.rule} at {self.place}: {self.what}"


def audit(job: Job, plan: Plan) -> list[Violation]:
    """Every violation of the plan against its job; none means the plan is right."""
    return list(_Audit(job, plan).violations())


def audit_board(job: Job, plan: BoardPlan) -> list[Violation]:
    """Violations within one board of a plan; which parts are placed is not asked."""
    one = _Audit(job, Plan((plan,)))
    return list(one._board(one.boards[plan.board], plan.segments))


class _Audit:
    def __init__(self, job: Job, plan: Plan) -> None:
        self.job = job
        self.plan = plan
        self.shop = job.shop
        self.parts = {p.id: p for p in job.parts}
        self.boards = {b.id: b for b in job.boards}
        self.closed = {item for c in plan.closed for item in c.items}

    def violations(self) -> Iterator[Violation]:
        for name, count in Counter(b.board for b in self.plan.boards).items():
            if name not in self.boards:
                yield Violation(7, f"board {name}", "no such board in the job")
            elif count > 1:
                yield Violation(7, f"board {name}", f"is cut {count} times; expected once")
        for board_plan in self.plan.boards:
            if board_plan.board in self.boards:
                yield from self._board(self.boards[board_plan.board], board_plan.segments)
        yield from self._instances()
        yield from self._panels()
        yield from self._runs()
        yield from self._money()

    def _board(self, board: Board, segments: tuple[Segment, ...]) -> Iterator[Violation]:
        place = f"board {board.id}"
        for left, right in pairwise(sorted(segments, key=lambda s: s.x0)):
            gap = right.x0 - left.x1
            if gap < self.shop.kerf.crosscut:
                yield Violation(
                    1,
                    place,
                    f"segments {self._in(gap)} apart; the crosscut kerf is "
                    f"{self._in(self.shop.kerf.crosscut)}",
                )
        for i, segment in enumerate(segments):
            yield from self._segment(board, segment, f"{place}, segment {i + 1}")

    def _segment(self, board: Board, segment: Segment, place: str) -> Iterator[Violation]:
        trim = self.shop.end_trim
        if segment.x1 <= segment.x0:
            yield Violation(1, place, "ends before it begins")
            return
        if segment.x0 < trim or segment.x1 > board.length - trim:
            yield Violation(
                1,
                place,
                f"{self._in(segment.x0)} to {self._in(segment.x1)} reaches into the end trim "
                f"of {self._in(trim)} on a board of {self._in(board.length)}",
            )
        if abs(segment.slope) > self.shop.max_slope:
            yield Violation(2, place, f"slope {segment.slope} is more than {self.shop.max_slope}")
        for low, high in pairwise(sorted(segment.strips, key=lambda s: s.y0)):
            gap = high.y0 - low.y1
            if gap < self.shop.kerf.rip:
                yield Violation(
                    1,
                    place,
                    f"strips {self._in(gap)} apart; the rip kerf is {self._in(self.shop.kerf.rip)}",
                )
        for j, strip in enumerate(segment.strips):
            here = f"{place}, strip {j + 1}"
            if strip.y1 <= strip.y0:
                yield Violation(1, here, "has no width")
                continue
            for left, right in pairwise(sorted(strip.blanks, key=lambda b: b.x0)):
                gap = right.x0 - left.x1
                if gap < self.shop.kerf.crosscut:
                    yield Violation(
                        1,
                        here,
                        f"blanks {self._in(gap)} apart; the crosscut kerf is "
                        f"{self._in(self.shop.kerf.crosscut)}",
                    )
            for k, blank in enumerate(strip.blanks):
                yield from self._blank(board, segment, strip, blank, f"{here}, blank {k + 1}")
        if self.shop.method == "mill-wide" and any(s.blanks for s in segment.strips):
            needs = [self._need(b) for _, b in segment.blanks()]
            yield from self._flat(board, segment.milled_region(), max(needs), place)

    def _blank(
        self, board: Board, segment: Segment, strip: Strip, blank: Blank, place: str
    ) -> Iterator[Violation]:
        if blank.x1 <= blank.x0 or blank.x0 < segment.x0 or blank.x1 > segment.x1:
            yield Violation(
                1, place, f"{self._in(blank.x0)} to {self._in(blank.x1)} is not inside its segment"
            )
            return
        region = segment.blank_region(strip, blank)
        if not board.within(region, EDGE_TOLERANCE):
            yield Violation(2, place, "reaches over the board's outline")
        if blank.x1 - blank.x0 < self.shop.min_blank_length:
            yield Violation(
                3,
                place,
                f"{self._in(blank.x1 - blank.x0)} long; no blank is shorter than "
                f"{self._in(self.shop.min_blank_length)}",
            )
        items = self._wanted(blank.items())
        for layer in blank.layers:
            yield from self._layer(layer, strip, blank, place)
        for item in items:
            part = self.parts[item.part]
            if not same_species(part.species, board.species):
                yield Violation(
                    7, place, f"{part.id} is wanted in {part.species}; the board is {board.species}"
                )
            elif not board.comes_from(part.from_board):
                yield Violation(7, place, f"{part.id} is to come out of {part.from_board}")
        if items:
            yield from self._defects(
                board, region, [self.parts[i.part] for i in items], len(blank.layers), place
            )
            if self.shop.method == "rough-rip":
                yield from self._flat(board, region, self._need(blank), place)

    def _wanted(self, items: Iterable[Item]) -> list[Item]:
        """Those of parts of the job; what is closed is made of other wood."""
        return [i for i in items if i.part in self.parts and i not in self.closed]

    def _layer(
        self, layer: tuple[Item, ...], strip: Strip, blank: Blank, place: str
    ) -> Iterator[Violation]:
        parts = [self.parts[i.part] for i in self._wanted(layer)]
        if not parts:
            return
        wanted = sum(p.length for p in parts) + (len(parts) - 1) * self.shop.apart
        wanted += self.shop.allowance.length
        if wanted > blank.x1 - blank.x0:
            yield Violation(
                3,
                place,
                f"its items need {self._in(wanted)}; it is {self._in(blank.x1 - blank.x0)} long",
            )
        for part in parts:
            if part.panel is None and part.width + self.shop.allowance.width > strip.y1 - strip.y0:
                yield Violation(
                    3,
                    place,
                    f"{part.id} needs {self._in(part.width + self.shop.allowance.width)} of "
                    f"width; the strip has {self._in(strip.y1 - strip.y0)}",
                )

    def _defects(
        self, board: Board, region: Region, parts: list[Part], layers: int, place: str
    ) -> Iterator[Violation]:
        inside = [d for d in board.defects if d.overlaps(region)]
        sound_only = all(p.faces == "sound" for p in parts)
        for defect in inside:
            where = (
                f"a {defect.kind} ({defect.face}) at {self._in(defect.x0)} to {self._in(defect.x1)}"
            )
            if not defect.sound:
                yield Violation(4, place, f"{where} lies in no blank")
            elif layers > 1 and not sound_only:
                yield Violation(
                    4, place, f"{where}; a resawn blank carries none unless all are sound"
                )
            elif any(p.faces == "clear-two" for p in parts):
                yield Violation(4, place, f"{where}; clear-two wants both faces free")
        if any(p.faces == "clear-one" for p in parts):
            marked = {f for d in inside for f in ("A", "B") if d.face in (f, "both")}
            if marked == {"A", "B"}:
                yield Violation(
                    4,
                    place,
                    "has a defect on either face; clear-one wants one free of every defect",
                )

    def _flat(self, board: Board, region: Region, need: int, place: str) -> Iterator[Violation]:
        slab = flat_slab(board, region).thickness
        if board.lies_flat:  # neither face is cut again
            slab += self.shop.allowance.face
        if slab < need - SLAB_TOLERANCE:
            yield Violation(
                5,
                place,
                f"the thickest flat slab is {slab / TICKS_PER_INCH:.4f} in; "
                f"{need / TICKS_PER_INCH:.4f} in is needed",
            )

    def _need(self, blank: Blank) -> int:
        wanted = self._wanted(blank.items())
        if not wanted:
            return 0
        thickest = max(self.parts[i.part].thickness for i in wanted)
        return self.shop.flat_for(thickest, len(blank.layers))

    def _instances(self) -> Iterator[Violation]:
        placed: Counter[tuple[str, int, int]] = Counter()
        again = Counter(part for part, _ in {(i.part, i.n) for i in self.closed})
        for _, _, _, _, item in self.plan.items():
            if item in self.closed:
                continue
            part = self.parts.get(item.part)
            place = f"part {item.part} n {item.n}"
            most = part.quantity + again[part.id] if part else 0
            if part is None:
                yield Violation(7, place, "no such part in the job")
            elif not 1 <= item.n <= most:
                yield Violation(7, place, f"n goes from 1 to {most}")
            elif (part.panel is not None) != (item.stave > 0):
                yield Violation(
                    6,
                    place,
                    "is a panel and needs a stave number"
                    if part.panel
                    else "is no panel and has a stave number",
                )
            placed[item.part, item.n, item.stave] += 1
        for (name, n, stave), count in placed.items():
            if count > 1:
                place = f"part {name} n {n}" + (f" stave {stave}" if stave else "")
                yield Violation(7, place, f"is placed {count} times; expected once")
        there = {(name, n) for name, n, _ in placed}
        left_out = Counter((u.part, u.n) for u in self.plan.unplaced)
        for part in self.job.parts:
            if again[part.id]:
                yield from self._as_many(part, there, left_out)
                continue
            for n in range(1, part.quantity + 1):
                times = ((part.id, n) in there) + left_out.pop((part.id, n), 0)
                if times != 1:
                    what = (
                        "neither placed nor listed as unplaced"
                        if not times
                        else "listed more than once"
                    )
                    yield Violation(7, f"part {part.id} n {n}", what)
        for name, n in left_out:
            yield Violation(7, f"part {name} n {n}", "is listed as unplaced and is not in the job")

    def _as_many(
        self, part: Part, there: set[tuple[str, int]], left_out: Counter[tuple[str, int]]
    ) -> Iterator[Violation]:
        """Of a part some of which are made again, as many are placed or left out as are wanted."""
        placed = {n for name, n in there if name == part.id}
        missing = {n for name, n in left_out if name == part.id}
        for n in missing:
            left_out.pop((part.id, n))
        if placed & missing or len(placed) + len(missing) != part.quantity:
            yield Violation(
                7,
                f"part {part.id}",
                f"{len(placed)} placed and {len(missing)} unplaced; expected {part.quantity}",
            )

    def _panels(self) -> Iterator[Violation]:
        net: defaultdict[tuple[str, int], list[int]] = defaultdict(list)
        for _, _, strip, _, item in self.plan.items():
            part = self.parts.get(item.part)
            if part and part.panel and item not in self.closed:
                width = strip.y1 - strip.y0 - self.shop.allowance.width
                net[item.part, item.n].append(width)
                if not part.panel.stave_min <= width <= part.panel.stave_max:
                    yield Violation(
                        6,
                        f"part {item.part} n {item.n} stave {item.stave}",
                        f"is {self._in(width)} wide net; expected "
                        f"{self._in(part.panel.stave_min)} to "
                        f"{self._in(part.panel.stave_max)}",
                    )
        for (name, n), widths in net.items():
            wanted = self.parts[name].width + self.shop.allowance.panel_width
            if sum(widths) < wanted:
                yield Violation(
                    6,
                    f"part {name} n {n}",
                    f"its staves add up to {self._in(sum(widths))}; {self._in(wanted)} is needed",
                )
            panel = self.parts[name].panel
            if panel and len(widths) > max(1, self.parts[name].width // panel.stave_min):
                yield Violation(
                    6,
                    f"part {name} n {n}",
                    f"has {len(widths)} staves; of {self._in(panel.stave_min)} each they would be "
                    f"wider than it is",
                )

    def _runs(self) -> Iterator[Violation]:
        for run in dict.fromkeys(p.run for p in self.job.parts if p.run):
            order = [
                (p.id, n) for p in self.job.parts if p.run == run for n in range(1, p.quantity + 1)
            ]
            members = set(order)
            if any((i.part, i.n) in members for i in self.closed):
                continue  # it cannot come out of one blank any more
            layers = [
                [(i.part, i.n) for i in layer]
                for b in self.plan.boards
                for s in b.segments
                for _, blank in s.blanks()
                for layer in blank.layers
                if any((i.part, i.n) in members for i in layer)
            ]
            if layers and [[i for i in layer if i in members] for layer in layers] != [order]:
                yield Violation(
                    7,
                    f"run {run}",
                    "does not come out of one blank end to end in the order of the file",
                )
            for layer in layers:
                at = [k for k, i in enumerate(layer) if i in members]
                if at != list(range(at[0], at[0] + len(at))):
                    yield Violation(7, f"run {run}", "has another part in its midst")

    def _money(self) -> Iterator[Violation]:
        used = {b.board for b in self.plan.boards if b.segments and b.board in self.boards}
        cost = sum((self.boards[name].price for name in used), Decimal(0))
        if abs(cost - self.plan.cost) > Decimal("0.000001"):
            yield Violation(8, "summary.cost", f"says {self.plan.cost}; the boards cut cost {cost}")
        if not self.plan.unplaced and self.plan.lower_bound > float(cost) + 1e-6:
            yield Violation(
                8,
                "summary.lower_bound",
                f"{self.plan.lower_bound} is above the cost of this very plan, {cost}",
            )

    def _in(self, ticks: int) -> str:
        unit: Unit = self.job.unit
        return show(ticks, unit, unit=True)
