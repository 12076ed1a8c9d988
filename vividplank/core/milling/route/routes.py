"""The steps of each board of a plan by the school the shop works in, and of each panel. Every
figure comes from the board's own surfaces; where a machine cannot take a piece, the step is done
another way and says so.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass, replace

from vividplank.core.board import Board, Region, flat_slab
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH, System, written
from vividplank.core.milling.model.planed import planed, segment_planed
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route import ways
from vividplank.core.milling.route.built import Layer, built_up, whole_of
from vividplank.core.milling.route.pace import Factors
from vividplank.core.milling.route.panels import Stave, panel
from vividplank.core.milling.route.planner import Planner, letter, show_faces
from vividplank.core.milling.route.shapes import shape
from vividplank.core.milling.route.writer import Stock, in_hand, thickest
from vividplank.core.milling.shop.machines import usual_machines
from vividplank.core.milling.shop.school import Milling, School

#: What may fly apart at a cutter head, or spoil it.
DANGEROUS = ("loose-knot", "check", "split", "shake", "metal", "rot")
#: What the jointed saw edge is ripped over.
_OVER = TICKS_PER_INCH // 16
#: What becomes of what layers are ripped over.
_KEPT = "stays on until they are glued and milled as one"


@dataclass(frozen=True)
class Route:
    """All steps for one board, segment by segment, or for one panel."""

    board: str
    steps: tuple[Step, ...]


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
    found: list[Route] = []
    staves: defaultdict[tuple[str, int], list[Stave]] = defaultdict(list)
    layers: defaultdict[tuple[str, int], list[Layer]] = defaultdict(list)
    for b in plan.boards:
        if b.segments:
            one = _Board(
                Planner(job, milling, factors, system),
                job.board(b.board),
                b.segments,
                staves,
                layers,
            )
            found.append(Route(b.board, tuple(one.planner.steps)))
    for (part, n), ready in sorted(staves.items()):
        planner = Planner(job, milling, factors, system)
        planner.by_hand = (milling.school_of(f"{part}{n}", part) or milling.school) == "by-hand"
        panel(planner, job.part(part), n, ready)
        found.append(Route(f"{part}{n}", tuple(planner.steps)))
    for (part, _), layered in sorted(layers.items()):
        planner = Planner(job, milling, factors, system)
        planner.by_hand = (
            milling.school_of(*(i.item.name for i in layered), part) or milling.school
        ) == "by-hand"
        built_up(planner, job.part(part), layered)
        found.append(Route(planner.steps[0].piece, tuple(planner.steps)))
    return tuple(found)


class _Board:
    """One board's steps."""

    def __init__(
        self,
        planner: Planner,
        board: Board,
        segments: Sequence[Segment],
        staves: defaultdict[tuple[str, int], list[Stave]],
        layers: defaultdict[tuple[str, int], list[Layer]],
    ) -> None:
        self.job, self.milling = planner.job, planner.milling
        self.planner, self.board, self.staves, self.layers = planner, board, staves, layers
        ordered = sorted(segments, key=lambda s: s.x0)
        last = self._rough_length(ordered)
        for n, segment in enumerate(ordered, 1):
            stock = in_hand(segment, board, f"{board.id}.{n}", segment.milled_region(), last)
            self._segment(segment, stock)

    def _rough_length(self, segments: list[Segment]) -> str:
        plan, board = self.planner, self.board
        marks = ", ".join(f"{written(s.x0, plan.system)} to {plan.say(s.x1)}" for s in segments)
        whole = flat_slab(board, _whole(board)).thickness
        best = min(flat_slab(board, s.milled_region()).thickness for s in segments)
        plan.by_hand = (self.milling.school_of(board.id) or self.milling.school) == "by-hand"
        stock = Stock(board.id, board, _whole(board), board.thickest, "")
        return plan.write(
            Step(
                f"{board.id}/rough-length",
                "crosscut saw",
                f"Crosscut {board.id} at {marks} from the datum end",
                "either face",
                "the straighter edge",
                segments[0].x0,
                "length",
                (),
                board.length,
                sum(s.x1 - s.x0 for s in segments),
                f"{len(segments)} piece{'s' if len(segments) > 1 else ''}; write {board.id}.1 … "
                f"on the ends",
                f"flat, the whole board would give {plan.holds(whole)}; cut so, its pieces give "
                f"at least "
                f"{plan.holds(best)}. Bow falls with "
                "the square of the length.",
                setup="crosscut rough",
            ),
            stock,
            ways.crosscut(plan.machines, board.widest, plan.say),
        )

    def _segment(self, segment: Segment, stock: Stock) -> None:
        blanks = [blank for _, blank in segment.blanks()]
        parts = [i.part for blank in blanks for i in blank.items()]
        school = self.milling.school_of(stock.name, self.board.id, *parts) or self.milling.school
        self.planner.by_hand = school == "by-hand"
        need = segment_planed(self.job, segment)
        why = self._rips_first(segment, stock, school, need)
        if why:
            self._rough_ripped(segment, stock, why)
        else:
            self._wide(segment, stock, school, need, show_faces(self.job, blanks))

    def _rips_first(self, segment: Segment, stock: Stock, school: School, need: int) -> str:
        """Why the strips are sawn out before anything is flattened; empty where they are not."""
        if school == "rough-rip-first":
            return (
                "ripped before flattening, each piece has only its own share of the cup, and "
                "crooked stock is safer here than "
                "against a fence"
            )
        flat = flat_slab(self.board, stock.region).thickness
        plan = self.planner
        if flat < need:
            return (
                f"whole, {stock.name} holds only {plan.holds(flat)} flat and {plan.say(need)} is "
                f"needed; each strip by "
                "itself holds it"
            )
        if school == "by-hand":
            return ""
        faults = [d for d in self.board.boxed if d.kind in DANGEROUS and d.overlaps(stock.region)]
        if faults and self._strips_fit(segment):
            fault = faults[0].kind.replace("-", " ")
            return (
                f"a {fault} at {plan.about(faults[0].x0)} lies in its waste: cut away before "
                f"a cutter head, not in it"
            )
        obstacle = ways.face(plan.machines, stock.size, plan.say, can_rip=self._strips_fit(segment))
        if obstacle and obstacle.ways[0].machine == "jointer":
            return f"{obstacle.why}: {obstacle.ways[0].do}"
        return ""

    def _strips_fit(self, segment: Segment) -> bool:
        """Whether every blank by itself goes over the jointer, and ripping makes a difference."""
        machines, say = self.planner.machines, self.planner.say
        sizes = [(k.x1 - k.x0, s.y1 - s.y0, planed(self.job, k)) for s, k in segment.blanks()]
        return all(ways.face(machines, size, say) is None for size in sizes)

    def _wide(
        self, segment: Segment, stock: Stock, school: School, need: int, show_face: bool
    ) -> None:
        plan, shop = self.planner, self.job.shop
        flat = flat_slab(self.board, stock.region).thickness
        if school == "look-first" and flat - need >= 2 * plan.machines.planer.last_pass:
            stock = plan.skim(stock)
        stock = plan.face(stock, need, show_face)
        stock = plan.edge(stock)
        over = (
            min(self.milling.over, int(flat) - need, stock.thick - need - plan.step)
            // plan.step
            * plan.step
        )
        if school == "two-visits" and over >= 2 * plan.step:
            stock = plan.thickness(
                stock,
                need + over,
                "rough-thickness",
                why=f"{plan.say(over)} stays for the second visit: what moves in its rest comes "
                f"off then",
            )
            stock = plan.rest(
                stock,
                self.milling.waits.rested,
                "milling frees what holds it bent: let it move before its last thickness",
            )
            stock = plan.face(stock, need, show_face, again=True)
        late = school in ("seven-steps", "jointed-saw-edge")
        if not late:
            stock = plan.thickness(stock, need)
        edge_over = min(_OVER, shop.allowance.width) if school == "jointed-saw-edge" else 0
        last = stock.last
        numbered = {id(s): j for j, s in enumerate(sorted(segment.strips, key=lambda s: s.y0), 1)}
        for strip in sorted(segment.strips, key=lambda s: (s.y0 - s.y1, s.y0)):
            net = strip.y1 - strip.y0 - shop.allowance.width
            name = f"{stock.name}{letter(numbered[id(strip)])}"
            region = Region(segment.x0, segment.x1, segment.y0, segment.slope, strip.y0, strip.y1)
            before, one = (
                replace(stock, last=last),
                Stock(name, self.board, region, stock.thick, last),
            )
            over = self._left_on(strip.blanks)
            piece = (
                plan.rip(before, one, net, over, _KEPT)
                if over
                else plan.rip(before, one, net, edge_over)
            )
            last = piece.last
            if late:
                piece = plan.thickness(piece, need)
            if edge_over and not over:
                piece = plan.saw_edge(piece, net, edge_over)
            for blank, each in self._apart(segment, strip, piece, rough=False):
                self._finish(strip, blank, each, net, over)

    def _rough_ripped(self, segment: Segment, stock: Stock, why: str) -> None:
        plan, shop = self.planner, self.job.shop
        ordered = sorted(segment.strips, key=lambda s: s.y0)
        pieces = []
        for j, strip in enumerate(ordered, 1):
            region = Region(segment.x0, segment.x1, segment.y0, segment.slope, strip.y0, strip.y1)
            pieces.append(Stock(f"{stock.name}{letter(j)}", self.board, region, stock.thick, ""))
        sawn = plan.saw_out(stock, pieces, why)
        for strip, piece in zip(ordered, pieces, strict=True):
            net = strip.y1 - strip.y0 - shop.allowance.width
            for blank, one in self._apart(segment, strip, replace(piece, last=sawn), rough=True):
                need = planed(self.job, blank)
                one = plan.face(one, need, show_faces(self.job, [blank]))
                one = plan.edge(one)
                one = plan.thickness(one, need)
                over = self._left_on([blank])
                one = plan.rip(one, one, net, over, _KEPT) if over else plan.rip(one, one, net)
                self._finish(strip, blank, one, net, over)

    def _left_on(self, blanks: Sequence[Blank]) -> int:
        """What layers stay over their width, so that their edges can be milled when they are one;
        other pieces nothing.
        """
        if all(self.job.part(i.part).glued_up for blank in blanks for i in blank.items()):
            return (
                min(_OVER, self.job.shop.allowance.width) // self.planner.step * self.planner.step
            )
        return 0

    def _apart(
        self, segment: Segment, strip: Strip, piece: Stock, rough: bool
    ) -> list[tuple[Blank, Stock]]:
        """The blanks of a strip cut apart at their marks; one alone stays as long as its strip
        until its ends are cut.
        """
        plan = self.planner
        blanks = sorted(strip.blanks, key=lambda b: b.x0)
        whole = blanks[0].x0 <= segment.x0 and blanks[0].x1 >= segment.x1
        if len(blanks) == 1 and (whole or not rough):
            region = segment.blank_region(strip, blanks[0])
            return [
                (
                    blanks[0],
                    replace(
                        piece,
                        region=region,
                        thick=thickest(self.board, region) if rough else piece.thick,
                    ),
                )
            ]
        found = []
        for k, blank in enumerate(blanks, 1):
            name = piece.name if len(blanks) == 1 else f"{piece.name}{k}"
            region = segment.blank_region(strip, blank)
            thick = thickest(self.board, region) if rough else piece.thick
            key = plan.write(
                Step(
                    f"{name}/blank-length",
                    "crosscut saw",
                    f"Crosscut {name} at {plan.say(blank.x0 - segment.x0)} and "
                    f"{plan.say(blank.x1 - segment.x0)}",
                    "either face" if rough else f"face {piece.down}",
                    "the sawn edge" if rough else "the jointed edge",
                    blank.x1 - blank.x0,
                    "length",
                    (),
                    segment.x1 - segment.x0,
                    blank.x1 - blank.x0,
                    "",
                    "shorter first: what bow it has falls with the square of the length"
                    if rough
                    else f"each {plan.say(blank.x1 - blank.x0)} is squared and cut by itself",
                    setup="crosscut rough",
                    after=(piece.last,),
                ),
                replace(piece, name=name),
                ways.crosscut(plan.machines, piece.width, plan.say),
            )
            found.append((blank, Stock(name, self.board, region, thick, key, piece.down)))
        return found

    def _finish(self, strip: Strip, blank: Blank, stock: Stock, net: int, over: int) -> None:
        """From a planed and ripped blank to finished pieces: resaw, last thickness, ends."""
        plan, job = self.planner, self.job
        finish = max(job.part(i.part).thickness for i in blank.items())
        if len(blank.layers) > 1:
            stock = plan.resaw(stock, len(blank.layers), finish + job.shop.allowance.face)
            stock = plan.thickness(
                stock,
                finish,
                "finish-thickness",
                f"a skim off both sawn faces: {plan.say(finish)}; turn it over by turns so that "
                f"both lose alike",
            )
        elif stock.thick > planed(job, blank):
            stock = plan.thickness(
                stock,
                planed(job, blank),
                "finish-thickness",
                f"{plan.say(planed(job, blank))} is the thickest part in "
                "it; turn it over by turns so that both sides lose alike",
            )
        plain = [i for i in blank.items() if not i.stave and not job.part(i.part).glued_up]
        stock = self._laid_by(blank, stock, net, over)
        if not plain:
            return
        names = tuple(dict.fromkeys(i.part for i in plain))
        stock = plan.square(stock, tuple(i.name for i in plain))
        shortest = min(job.part(p).length for p in names)
        gang = (
            (
                f"; they stayed in one blank of {plan.say(blank.x1 - blank.x0)} until now "
                f"because {plan.say(shortest)} is too "
                "short for the machines"
            )
            if shortest < plan.machines.jointer.shortest
            else ""
        )
        for part in sorted((job.part(p) for p in names), key=lambda p: -p.length):
            mine = [i for i in plain if i.part == part.id]
            shape(plan, replace(stock, last=plan.cut(stock, part, mine, gang)), part, mine)

    def _laid_by(self, blank: Blank, stock: Stock, net: int, over: int) -> Stock:
        """Staves and layers are laid by until they are glued, cut apart first where one blank holds
        more than one thing.
        """
        plan, job = self.planner, self.job
        items = max(blank.layers, key=len)
        waiting = [i for i in blank.items() if i.stave or job.part(i.part).glued_up]
        if waiting and len(items) > 1:
            key = plan.write(
                Step(
                    f"{stock.name}/apart",
                    "crosscut saw",
                    f"Crosscut {stock.name} between {', '.join(i.name for i in items)}",
                    f"face {stock.down}",
                    "the jointed edge",
                    0,
                    "length",
                    (),
                    stock.length,
                    stock.length // len(items),
                    "each as long as can be",
                    f"{len(items)} pieces were milled in one blank of {plan.say(stock.length)}",
                    setup="crosscut rough",
                    after=(stock.last,),
                ),
                stock,
                ways.crosscut(plan.machines, stock.width, plan.say),
            )
            stock = replace(stock, last=key)
        # What the blank is longer than its pieces is shared out: each is squared and cut to length
        # later.
        for layer in blank.layers:
            kerfs = (
                len(layer) - 1
            ) * job.shop.kerf.crosscut  # what they have between them is shared out too
            long = (stock.length - sum(job.part(i.part).length for i in layer) - kerfs) // len(
                layer
            )
            for item in (i for i in layer if i in waiting):
                part = job.part(item.part)
                alone = len(items) == 1 and len(blank.layers) == 1
                one = (
                    stock
                    if alone
                    else replace(
                        stock,
                        name=item.name,
                        region=stock.region
                        if len(layer) == 1
                        else _part_of(stock.region, part.length + long),
                    )
                )
                if item.stave:
                    self.staves[item.part, item.n].append(Stave(item.name, one, net))
                else:
                    self.layers[item.part, whole_of(part, item)].append(Layer(item, one, net, over))
        return stock


def _part_of(region: Region, length: int) -> Region:
    """A shorter piece of it, as long as asked for."""
    return replace(region, x1=region.x0 + length)


def _whole(board: Board) -> Region:
    """The widest straight rectangle over the whole length."""
    low = max(s.y0 for s in board.stations)
    high = min(s.y1 for s in board.stations)
    if high <= low:
        low, high = board.stations[0].y0, board.stations[0].y1
    return Region(0, board.length, low, 0.0, 0, high - low)
