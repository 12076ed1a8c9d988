"""Panels: staves put in order, their mating edges jointed, glued, left, flattened and trimmed to
size.
"""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Item, Plan
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Given, Step
from vividplank.core.milling.route.own import own_steps
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.milling.route.shapes import shape
from vividplank.core.milling.shop import ways
from vividplank.core.piece import Piece, Side
from vividplank.core.piece import operations as op

_CLAMP_EVERY = 8 * TICKS_PER_INCH


@dataclass(frozen=True)
class Stave:
    """A stave ready to be jointed and glued."""

    item: Item
    piece: Piece


def mating_edges(job: Job, plan: Plan) -> dict[Item, tuple[Side, ...]]:
    """The edges of every stave that are glued to another, in the order the staves are to lie: those
    of one board beside each other as they grew, so that colour and figure run on.

    What the panel is over comes off its two outer staves; where these would end under the least
    width, the widest two are put outside.
    """
    panels: defaultdict[tuple[str, int], list[tuple[tuple[str, float, int], int, Item]]] = (
        defaultdict(list)
    )
    for board, segment, strip, blank, item in plan.items():
        if item.stave:
            place = (board.board, float(segment.y0 + strip.y0), blank.x0)
            net = strip.y1 - strip.y0 - job.shop.allowance.width
            panels[item.part, item.n].append((place, net, item))
    found: dict[Item, tuple[Side, ...]] = {}
    for (part, _), staves in panels.items():
        staves.sort(key=lambda s: s[0])
        panel = job.part(part).panel
        over = sum(net for _, net, _ in staves) - job.part(part).width
        room = sum(staves[k][1] - panel.stave_min for k in (0, -1)) if panel else over
        if room < over and len(staves) > 2:
            widest = sorted(staves, key=lambda s: -s[1])[:2]
            inner = [s for s in staves if s not in widest]
            staves = [widest[0], *inner, widest[1]]
        ordered = [item for _, _, item in staves]
        for k, item in enumerate(ordered):
            low: tuple[Side, ...] = ("datum-edge",) if k else ()
            high: tuple[Side, ...] = ("far-edge",) if k < len(ordered) - 1 else ()
            found[item] = low + high
    return found


class PanelRoute:
    """From planed and ripped staves, in order, to the finished panel."""

    def __init__(
        self,
        planner: Sawing,
        part: Part,
        n: int,
        staves: Sequence[Stave],
        mating: Mapping[Item, tuple[Side, ...]],
    ) -> None:
        self.plan, self.part, self.n, self.mating = planner, part, n, mating
        self.name = f"{part.id}{n}"
        self.called = f"{part.name or part.id} {self.name}"
        order = list(mating)
        self.staves = sorted(staves, key=lambda s: order.index(s.item))
        self.outer = (0, 0)
        self.over = 0
        self.targets: dict[Item, int] = {}

    def write(self) -> Piece:
        """Every step of it; answers the panel as it is then."""
        plan, part = self.plan, self.part
        self._narrow()
        jointed = [self._jointed(stave) for stave in self.staves]
        self.outer = (jointed[0].width, jointed[-1].width)
        if len(jointed) == 1:
            whole = plan.thickness(jointed[0], part.thickness, "flatten")
        else:
            whole = self._glued_up(jointed)
        whole = self._trimmed(whole)
        whole = own_steps(plan, part, whole, before=True)
        whole = self._cut(whole)
        whole = shape(plan, whole, part, [Item(part.id, self.n)], self.called)
        return own_steps(plan, part, whole, before=False)

    def _narrow(self) -> None:
        """How wide each stave is to be: what the two outer ones cannot lose in trimming comes off
        the inner ones before they are glued, none under its least width.
        """
        plan, part = self.plan, self.part
        light = _light(plan)
        nets = [s.piece.width - light * len(self.mating[s.item]) for s in self.staves]
        least = part.panel.stave_min if part.panel else 0
        room = [max(0, net - least) for net in nets]
        self.over = sum(nets) - part.width
        short = self.over - (room[0] + room[-1] if len(nets) > 1 else self.over)
        for k in range(1, len(nets) - 1):
            off = max(0, min(room[k], short))
            nets[k] -= off
            short -= off
        self.targets = dict(zip((s.item for s in self.staves), nets, strict=True))

    def _jointed(self, stave: Stave) -> Piece:
        """Only what is glued is jointed: the outer edges are sawn off at the end."""
        plan = self.plan
        sides = self.mating[stave.item]
        light = _light(plan)
        target = self.targets[stave.item] + light * len(sides)
        piece = stave.piece
        thinnest = min(s.piece.thick for s in self.staves)
        if piece.thick > thinnest + 1:
            piece = plan.thickness(
                piece, thinnest, "even", "as thick as the thinnest stave: they meet face to face"
            )
        if piece.width > target:
            piece, _ = plan.rip(
                piece,
                piece.mark,
                target,
                "",
                f"the panel would be {plan.say(self.over)} too wide, more than its outer staves "
                "can lose",
                "narrow",
            )
        if not sides:
            return piece
        which = (
            "both edges"
            if len(sides) == 2
            else f"the {'datum' if sides[0] == 'datum-edge' else 'far'} edge"
        )
        texts = Step(
            "",
            "jointer",
            f"Joint {which} of {stave.item.name} for glue",
            "the edge, grain running out behind",
            "one stave's face to the fence, its neighbour's other face: what the fence "
            "is out of square cancels",
            check="two edges held to the light: closed at the ends, a hair hollow in the "
            "middle at most",
            why="by hand, plane the two edges folded together; a joint left hollow by a hair "
            "needs one clamp less",
            marks=(stave.item.name,),
            does="glue-edge",
        )
        return plan.joint_sawn(piece, sides, light, "glue-edge", texts)

    def _glued_up(self, staves: Sequence[Piece]) -> Piece:
        """In one go, or in parts that the planer takes and that are glued together when flat."""
        plan, part = self.plan, self.part
        width = sum(p.width for p in staves)
        thick = max(p.thick for p in staves)
        length = min(p.length for p in staves)
        key = f"{self.name}/flatten"
        found = ways.thickness(plan.machines, (length, width, thick), part.thickness, plan.say)
        chosen = plan.pick(key, "thickness", found).ways[0]
        limit = plan.machines.planer.width
        halves = (
            bool(found.why)
            and plan.machines.has("planer")
            and width > limit
            and max(p.width for p in staves) <= limit
            and length >= plan.machines.planer.shortest
            and not plan.by_hand
            and plan.milling.chosen.get(key, "halves") == "halves"
            and dict(plan.machines.preferred).get("thickness", "halves") == "halves"
        )
        items = [s.item for s in self.staves]
        if not halves or chosen.method == "machine":
            whole = self._glue(self.name, staves, items, self.called)
            return self._flattened(whole, key)
        groups: list[list[int]] = [[]]
        for k, piece in enumerate(staves):
            if sum(staves[j].width for j in groups[-1]) + piece.width > limit:
                groups.append([])
            groups[-1].append(k)
        flat = []
        for g, group in enumerate(groups, 1):
            mark = f"{self.name} part {g}"
            listed = [staves[k] for k in group]
            if len(listed) == 1:
                one = listed[0]
            else:
                one = self._glue(
                    mark, listed, [items[k] for k in group], f"{self.called}, part {g}"
                )
            flat.append(
                plan.thickness(
                    one,
                    part.thickness,
                    "flatten",
                    f"{plan.say(width)} wide altogether; the planer takes {plan.say(limit)}, so it "
                    "is glued up and planed in parts",
                )
            )
        single = [items[g[0]] for g in groups if len(g) == 1]
        whole = self._glue(self.name, flat, single, self.called)
        step = Step(
            f"{self.name}/clean-joint",
            "hand plane",
            f"Plane and scrape the last joint of {self.name} flush",
            "on the bench, first one face, then the other",
            dimension="none",
            check="no step under a fingernail",
            why="its parts were planed before they were glued: only the joint stands proud",
            pieces=(self.called,),
            does="own",
        )
        return plan.on_wood(step, whole, whole)

    def _flattened(self, whole: Piece, key: str) -> Piece:
        plan, part = self.plan, self.part
        over = whole.thick - part.thickness
        return plan.thickness(
            whole,
            part.thickness,
            key.rpartition("/")[2],
            f"its staves stopped {plan.say(max(0, over))} over, so that the joints can be "
            "flattened away after glue-up",
        )

    def _glue(
        self, mark: str, staves: Sequence[Piece], items: Sequence[Item], called: str
    ) -> Piece:
        plan, part, waits = self.plan, self.part, self.plan.milling.waits
        say = plan.say
        whole = op.glue(staves, mark, "width")
        plan.home[mark] = plan.home.get(staves[0].board.id, staves[0].board.id)
        clamps = whole.length // _CLAMP_EVERY + 1
        own = {s.piece.mark: s.item.name for s in self.staves}
        names = tuple(own.get(p.mark, p.mark) for p in staves)
        glue = Step(
            f"{mark}/glue",
            "bench",
            f"Glue {called}: {', '.join(names)} side by side",
            _arch(staves),
            "",
            whole.width,
            "none",
            (),
            0,
            0,
            f"flat across under a straightedge while the glue is wet; {clamps} clamps, every "
            "second from below; a triangle drawn across the joints keeps the order",
            f"{len(staves)} staves give {say(whole.width)}, the panel needs {say(part.width)}; "
            f"{clamps} clamps, one every {say(_CLAMP_EVERY)}",
            pieces=names,
            hold=waits.clamped,
            piece=mark,
            does="glue",
            across="width",
        )
        plan.write(glue, staves, [(Given(mark, items=tuple(items)), whole)])
        opened = Step(
            f"{mark}/unclamp",
            "bench",
            f"Take the clamps off {mark}",
            dimension="none",
            check="scrape the beads of glue while they are rubber",
            why=f"the glue's own sheet rules; {waits.clamped} minutes in clamps here",
            hold=waits.glue,
            does="unclamp",
        )
        return plan.on_wood(opened, whole, whole)

    def _trimmed(self, whole: Piece) -> Piece:
        """What is over off both sides alike, but no outer stave under its least width."""
        plan, part = self.plan, self.part
        over = whole.width - part.width
        if over < 1:
            return whole
        least = part.panel.stave_min if part.panel else 0
        room = [max(0, width - least) for width in self.outer]
        step = plan.step
        low = min(over // 2 // step * step, room[0])
        if over - low > room[1]:
            low = min(room[0], over - room[1])
        after = op.rip(
            whole, whole.mark, op.along(whole, low, 0.0), op.along(whole, low + part.width, 0.0)
        )
        say = plan.say
        trim = Step(
            f"{whole.mark}/trim",
            "table saw",
            f"Trim {whole.mark} to {say(part.width)} wide",
            f"face {whole.reference or 'B'}",
            "the datum edge first, then the edge just sawn",
            part.width,
            "width",
            (),
            whole.width,
            part.width,
            "both edges parallel",
            f"{say(low)} comes off the datum side and {say(over - low)} off the far side: first "
            f"the fence at {say(low + part.width)}, then at {say(part.width)}",
            setup=f"table saw {part.width}",
            tolerance=2 * step,
            does="trim",
            along="datum-edge",
            face_down=whole.reference or "B",
        )
        found = ways.rip(plan.machines, whole.size, part.width, say)
        chosen = plan.pick(trim.key, "rip", found)
        return plan.on_wood(
            trim, whole, after, chosen, Given(whole.mark, h0=low, h1=low + part.width)
        )

    def _alone(self) -> tuple[Item, ...]:
        """The stave of a panel that has no other, which is never glued."""
        return (self.staves[0].item,) if len(self.staves) == 1 else ()

    def _cut(self, whole: Piece) -> Piece:
        plan, part = self.plan, self.part
        item = Item(part.id, self.n)
        if part.fitted:
            items = [item, *self._alone()]
            return plan.cut(whole, part, items, called=self.called)[0][0]
        step = plan.step
        off = max(0, min((whole.length - part.length) // 2, TICKS_PER_INCH // 4)) // step * step
        after = op.crosscut(whole, self.name, off, off + part.length)
        cut = Step(
            f"{self.name}/length",
            "crosscut saw",
            f"Square {self.name} and cut it to {plan.say(part.length)}",
            f"face {whole.reference or 'B'}",
            "the datum edge",
            part.length,
            "length",
            (),
            whole.length,
            part.length,
            "both diagonals alike",
            "staves were left long, so that no end has to be kept in line",
            pieces=(self.called,),
            setup=f"crosscut {part.length}",
            tolerance=plan.step,
            does="length",
            along="datum-edge",
            face_down=whole.reference or "B",
        )
        found = plan.pick(cut.key, "crosscut", ways.crosscut(plan.machines, whole.size, plan.say))
        given = Given(self.name, off, off + part.length, items=(*self._alone(), item))
        return plan.on_wood(cut, whole, after, found, given)


def _light(plan: Sawing) -> int:
    usual = plan.machines.jointer.usual_pass
    return max(plan.step, usual // 2 // plan.step * plan.step)


def _arch(staves: Sequence[Piece]) -> str:
    """How the rings are to lie, as far as somebody has looked at the ends."""
    hearts: Mapping[str, str] = {
        p.board.id: p.board.grain.heart for p in staves if p.board.grain.heart
    }
    if not hearts:
        return (
            "look at the ends: rings arching up and down by turns keep it flat in waves, all one "
            "way gives one arch to be held down"
        )
    told = ", ".join(
        f"{board} has its heart at face {face}" for board, face in sorted(hearts.items())
    )
    return f"rings arching up and down by turns: {told}"
