"""What blanks become: cut apart, resawn, planed, cut into parts or laid by for the glue."""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from vividplank.core.layout.model.plan import Blank, Item, Segment, Strip
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.route.built import Layer, whole_of
from vividplank.core.milling.route.ends import Ends
from vividplank.core.milling.route.panels import Stave
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.milling.shop.school import School
from vividplank.core.piece import Piece

#: What a sawn edge is ripped over for the jointer, on each side of a strip.
_OVER = TICKS_PER_INCH // 16
#: A piece this much thicker than its kerf and its skim is worth resawing off and keeping.
_WORTH = TICKS_PER_INCH // 2
_KEPT = "stays on until they are glued and milled as one"
SAWN = "the jointer takes off the sawn edges"
_GLUED = "the jointer takes off the edges that are glued"


@dataclass
class Waiting:
    """Staves and layers laid by until they are glued, and on how many edges each stave is."""

    mating: Mapping[Item, int]
    staves: defaultdict[tuple[str, int], list[Stave]] = field(
        default_factory=lambda: defaultdict(list)
    )
    layers: defaultdict[tuple[str, int], list[Layer]] = field(
        default_factory=lambda: defaultdict(list)
    )


class Blanks:
    """What all blanks of a segment have in common, written by `planner`."""

    def __init__(self, planner: Sawing, segment: Segment, school: School, waiting: Waiting) -> None:
        self.plan, self.job, self.shop = planner, planner.job, planner.shop
        self.segment, self.school, self.waiting = segment, school, waiting
        self.strips = sorted(segment.strips, key=lambda s: s.y0)
        self.ends = Ends(planner)

    def worth_resawing(self, piece: Piece, need: int) -> bool:
        """Whether all of a segment is sawn thin off a thick piece rather than planed down to; not
        where some of it is resawn later.
        """
        one = all(len(b.layers) == 1 for _, b in self.segment.blanks())
        return one and self._worth_sawing_off(piece, max(s.y1 - s.y0 for s in self.strips), need)

    def _worth_sawing_off(self, piece: Piece, width: float, need: int) -> bool:
        """Whether so much goes off a piece of this width that it is sawn off and kept."""
        face, kerf = self.shop.allowance.face, self.shop.kerf.resaw
        machines = self.plan.machines
        return (
            machines.has("bandsaw")
            and not self.plan.by_hand
            and width <= machines.bandsaw.tallest
            and piece.thick - need - face - kerf >= _WORTH
        )

    def thin_off(self, piece: Piece, need: int, core: Piece | None = None) -> Piece:
        """The thin piece sawn off from the reference face, rested, and its face made sure of;
        `core` is what of it has to come out clean.
        """
        plan = self.plan
        skim = max(self.shop.allowance.face, 2 * plan.step) + plan.hollow(core or piece)
        each = need + -(-round(skim) // plan.step) * plan.step
        thin, _ = plan.split(piece, each, f"{piece.mark} thick")
        thin = plan.rest(
            thin,
            plan.milling.waits.resawn,
            f"freshly sawn faces dry and move: {plan.say(each)} is planed only after that",
        )
        return plan.again(thin, need)

    def apart(self, strip: Strip, piece: Piece, rough: bool) -> list[tuple[Blank, Piece]]:
        """The blanks of a strip cut apart at their marks; one as long as its strip stays."""
        plan = self.plan
        blanks = sorted(strip.blanks, key=lambda b: b.x0)
        start = round(piece.x0)
        kerf = self.shop.kerf.crosscut
        whole = len(blanks) == 1 and (
            blanks[0].x0 - start <= kerf and round(piece.x1) - blanks[0].x1 <= kerf
        )
        if not blanks or whole:
            return [(blank, piece) for blank in blanks]
        names = [
            piece.mark if len(blanks) == 1 else f"{piece.mark}{k + 1}" for k in range(len(blanks))
        ]
        marks = [
            (name, blank.x0 - start, blank.x1 - start)
            for name, blank in zip(names, blanks, strict=True)
        ]
        found = plan.crosscut(piece, marks, self.ends.blank_length(piece, marks, rough))
        return list(zip(blanks, found, strict=True))

    def finish(self, blank: Blank, piece: Piece) -> None:
        plan, job = self.plan, self.job
        finish = max(plan.part(i).thickness for i in blank.items())
        if len(blank.layers) == 1:
            thick = plan.planed(blank)
            if self._worth_sawing_off(piece, piece.width, thick):  # what lay beside it is resawn
                piece = self.thin_off(piece, thick)
            piece = plan.thickness(
                piece,
                thick,
                "finish-thickness",
                f"{plan.say(thick)} is the thickest part in it",
            )
            self.layer(blank.layers[0], piece, blank)
            return
        names = [f"{piece.mark}-{k}" for k in range(1, len(blank.layers) + 1)]
        kerfs, allowance = (len(names) - 1) * job.shop.kerf.resaw, job.shop.allowance
        share = (piece.thick - kerfs) // len(names) // plan.step * plan.step
        each = max(finish, min(finish + allowance.face + allowance.layer, share))
        if any(i.stave for i in blank.items()):  # what their panel loses when it is flattened
            glued = min(allowance.face, allowance.layer) or allowance.face // 2
            finish = min(each, finish + glued // plan.step * plan.step)
        for layer, one in zip(
            blank.layers, plan.resaw(piece, len(names), each, names), strict=True
        ):
            one = plan.rest(
                one,
                plan.milling.waits.resawn,
                f"freshly sawn faces dry and move: {plan.say(each)} is skimmed only after that",
            )
            one = plan.again(one, finish)
            one = plan.thickness(
                one, finish, "finish-thickness", f"a skim off the sawn faces: {plan.say(finish)}"
            )
            self.layer(layer, one, blank)

    def layer(self, items: Sequence[Item], piece: Piece, blank: Blank) -> None:
        """The items of one layer: staves and layers laid by, the others cut to their size."""
        job = self.job
        waits = [i for i in items if i.stave or job.part(i.part).glued_up]
        if not waits:
            self.ends.cut_up(items, piece, blank)
            return
        whole = len(items) == 1
        pieces = [piece] if whole else self.ends.apart(items, piece)
        for item, one in zip(items, pieces, strict=True):
            part = job.part(item.part)
            if item.stave:
                self.waiting.staves[item.part, item.n].append(Stave(item, one))
            elif part.glued_up:
                self.waiting.layers[item.part, whole_of(part, item)].append(Layer(item, one))
            else:
                self.ends.cut_up([item], one, blank)

    def left_on(self, blanks: Sequence[Blank], first: bool) -> tuple[int, int, str]:
        """On how many edges something stays over the width, how much on each, and what for."""
        items = [i for blank in blanks for i in blank.items()]
        jointer = self.plan.machines.jointer
        if items and all(self.job.part(i.part).glued_up for i in items):
            return 1, _OVER, _KEPT
        mating = max((self.waiting.mating.get(i, 0) for i in items), default=0)
        if mating:
            step = self.plan.step
            light = max(step, jointer.usual_pass // 2 // step * step)
            return mating, light, _GLUED
        if self.school == "jointed-saw-edge":
            return (1 if first else 2), _OVER, SAWN
        return 0, 0, ""
