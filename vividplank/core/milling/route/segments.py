"""A segment from the crosscut piece to finished parts: brought down to what is milled, flattened
whole or strip by strip, ripped from its true edge, cut to length.
"""

from collections.abc import Sequence
from dataclasses import replace

from vividplank.core.board import flat_slab
from vividplank.core.layout.model.plan import Blank, Strip
from vividplank.core.milling.model.step import Given
from vividplank.core.milling.route.blanks import SAWN
from vividplank.core.milling.route.milled import Milled
from vividplank.core.milling.route.sawing import letter, show_faces
from vividplank.core.milling.route.windows import dangers, windows
from vividplank.core.milling.shop import ways
from vividplank.core.piece import Piece
from vividplank.core.piece import operations as op


class SegmentRoute(Milled):
    """The steps of one segment."""

    def write(self) -> None:
        if not any(s.blanks for s in self.strips):
            return
        need = max(self.plan.planed(blank) for _, blank in self.segment.blanks())
        why = self._rips_first(need)
        if why:
            self._strip_by_strip(why)
        else:
            self._whole(need)

    def _rips_first(self, need: int) -> str:
        """Why the strips are sawn out before anything is flattened; empty where they are not."""
        plan, piece = self.plan, self.piece
        if self.school == "rough-rip-first":
            return (
                "ripped before flattening, each piece has only its own share of the cup, and "
                "crooked stock is safer here than against a fence"
            )
        flat = flat_slab(self.board, self.segment.milled_region()).thickness
        true = piece.reference and piece.face(piece.reference).flat
        if flat < need and not true:
            return (
                f"whole, {piece.mark} holds only {plan.holds(flat)} flat and {plan.say(need)} is "
                f"needed; each strip by itself holds it"
            )
        faults = dangers(self.board, self.segment.milled_region())
        if faults:
            fault = faults[0].kind.replace("-", " ")
            return (
                f"a {fault} at {plan.about(faults[0].x0)} lies in its waste: cut away before "
                f"a cutter head, not in it"
            )
        if true:
            return ""
        obstacle = ways.face(plan.machines, self.milled().size, plan.say, can_rip=self._fit())
        chosen = plan.pick(f"{piece.mark}/face", "face", obstacle).ways[0]
        if chosen.method == "strips":
            return f"{obstacle.why}: {chosen.do}"
        blanks = [blank for _, blank in self.segment.blanks()]
        whole = plan.foretold(self.milled(), need, show_faces(self.job, blanks))
        if chosen.method == "machine" and not whole.enough:
            return (
                f"whole, the jointer would leave {piece.mark} under the {plan.say(need)} that is "
                "needed; each strip by itself loses less"
            )
        return ""

    def _fit(self) -> bool:
        """Whether every blank by itself goes over the jointer."""
        machines, say = self.plan.machines, self.plan.say
        sizes = [(k.x1 - k.x0, s.y1 - s.y0, self.plan.planed(k)) for s, k in self.segment.blanks()]
        return all(not ways.face(machines, size, say).why for size in sizes)

    # The segment in one piece.

    def _whole(self, need: int) -> None:
        plan = self.plan
        blanks = [blank for _, blank in self.segment.blanks()]
        show = show_faces(self.job, blanks)
        piece = self.brought_down(need)
        # A skim takes its light pass off either plane of the slab.
        spare = piece.slab.thickness - need - 2 * plan.machines.planer.last_pass - plan.step
        if self.school == "look-first" and spare >= 0 and not piece.reference:
            piece = plan.skim(piece)
        piece = plan.face(piece, need, show)
        widths, over = self._widths(self.edge_takes(piece))
        piece, edge = self._edged(piece, over[0])
        late = self.school in ("seven-steps", "jointed-saw-edge")
        if self.worth_resawing(piece, need):
            if piece.width <= plan.machines.bandsaw.tallest:
                piece = self.thin_off(piece, need, self.core(piece))
            else:
                late = True
        if self.school == "two-visits":
            piece = self._first_visit(piece, need)
        if not late:
            piece = plan.thickness(piece, need, core=self.core(piece))
        self._ripped(piece, edge, widths, over, need, late)

    def _widths(self, edge: int) -> tuple[list[int], list[tuple[int, int]]]:
        """How wide each strip is ripped, and of that how much is over on how many edges; the first
        gives up what its edge takes.
        """
        widths, over = [], []
        for k, strip in enumerate(self.strips):
            room = self.shop.allowance.width - (
                min(edge, self.shop.allowance.width) if not k else 0
            )
            sides, each, _ = self.left_on(strip.blanks, k == 0)
            each = min(each, room // sides // self.plan.step * self.plan.step) if sides else 0
            net = strip.y1 - strip.y0 - self.shop.allowance.width
            widths.append(net + sides * each)
            over.append((sides, each))
        return widths, over

    def _edged(self, piece: Piece, over: tuple[int, int]) -> tuple[Piece, int]:
        """With a true reference edge; and at which height over the segment's line it is."""
        s, plan = self.segment, self.plan
        room = max(0, self.shop.allowance.width - over[0] * over[1])
        if piece.datum_edge == "straight":
            line = self.line(0)
            xs = piece.breaks
            own = piece.sides(xs)[0] - line.over(xs)
            if float(own.max() - own.min()) < 1 and abs(float(own.max()) - self.low) <= room:
                height = round(float(own.max()))
                return replace(piece, datum=self.line(height)), height
        takes = min(self.edge_takes(piece), room)
        height = self.low + takes
        given = Given(
            piece.mark,
            y0=round(s.y0 - piece.datum.at(piece.x0)) if piece.datum.slope != s.slope else 0,
            slope=s.slope - piece.datum.slope,
            h0=height
            if piece.datum.slope != s.slope
            else round(self.line(height).at(piece.x0) - piece.datum.at(piece.x0)),
        )
        return plan.edge(piece, self.line(height), given), height

    def _first_visit(self, piece: Piece, need: int) -> Piece:
        plan = self.plan
        left = plan.level(self.core(piece)) - need - plan.step
        room = min(plan.milling.over, left, piece.thick - need - plan.step)
        over = room // plan.step * plan.step
        if over < 2 * plan.step:
            return piece
        piece = plan.thickness(
            piece,
            need + over,
            "rough-thickness",
            f"{plan.say(over)} stays for the second visit: what moves in its rest comes off then",
            self.core(piece),
        )
        piece = plan.rest(
            piece,
            plan.milling.waits.rested,
            "milling frees what holds it bent: let it move before its last thickness",
        )
        return plan.again(piece, need)

    def _ripped(
        self,
        piece: Piece,
        edge: int,
        widths: Sequence[int],
        over: Sequence[tuple[int, int]],
        need: int,
        late: bool,
    ) -> None:
        """The strips off the wide piece in the order they lie, each with its true edge to the
        fence.
        """
        plan = self.plan
        cuts = windows(self.board, self.segment, edge, widths, self.shop.kerf.rip)
        left: Piece | None = piece
        for j, cut in enumerate(cuts):
            assert left is not None
            name = f"{self.piece.mark}{letter(j + 1)}"
            last = j == len(cuts) - 1
            rest = "" if last else f"{self.piece.mark} rest" + (f" {j + 1}" if j else "")
            sides, each = over[j]
            _, _, what = self.left_on(cut.strip.blanks, j == 0)
            reason = self._reason(cut.width, cut.strip, sides * each, what)
            if cut.first > cut.width:
                strip, left = plan.rip(
                    left,
                    name,
                    cut.first,
                    rest,
                    f"{plan.say(cut.first - cut.width)} over: so the next strip begins clear of "
                    "what lies between them",
                )
                strip, _ = plan.rip(strip, name, cut.width, "", reason, "trim-width")
            else:
                strip, left = plan.rip(left, name, cut.width, rest, reason)
            if late:
                if self.worth_resawing(strip, need):
                    strip = self.thin_off(strip, need)
                strip = plan.thickness(strip, need)
            if self.school == "jointed-saw-edge" and what == SAWN and each:
                strip = plan.joint_sawn(
                    strip,
                    ("far-edge",) if not j else ("datum-edge", "far-edge"),
                    each,
                    "saw-edge",
                    self.ends.saw_edge(strip, sides * each),
                )
            for blank, one in self.apart(cut.strip, strip, rough=False):
                self.finish(blank, one)

    def _reason(self, width: int, strip: Strip, over: int, what: str) -> str:
        say = self.plan.say
        if over:
            return f"{say(over)} over, which {what}"
        return (
            f"its strip is {say(strip.y1 - strip.y0)} of the board: "
            f"{say(strip.y1 - strip.y0 - width)} goes to edges and saw marks; strips come off in "
            "the order they lie, each from a true edge"
        )

    # Strip by strip.

    def _strip_by_strip(self, why: str) -> None:
        plan, s, piece = self.plan, self.segment, self.piece
        named = [
            (f"{piece.mark}{letter(j)}", strip.y0, strip.y1)
            for j, strip in enumerate(self.strips, 1)
        ]
        widths = ", ".join(plan.say(high - low) for _, low, high in named)
        found = plan.saw_out(
            piece,
            named,
            round(s.y0 - piece.datum.at(piece.x0)),
            s.slope - piece.datum.slope,
            why,
            "rough-rip",
            f"Saw {piece.mark} freehand to the lines: strips {widths}",
        )
        for strip, sawn in zip(self.strips, found, strict=True):
            for blank, one in self.apart(strip, sawn, rough=True):
                self._by_itself(strip, blank, one)

    def _by_itself(self, strip: Strip, blank: Blank, piece: Piece) -> None:
        """A blank flattened, edged, planed and ripped by itself."""
        plan = self.plan
        need = plan.planed(blank)
        piece = plan.face(piece, need, show_faces(self.job, [blank]))
        sides, each, what = self.left_on([blank], True)
        room = self.shop.allowance.width
        each = min(each, room // sides // plan.step * plan.step) if sides else 0
        takes = min(plan.machines.jointer.usual_pass, room - sides * each)
        to = op.along(piece, takes, 0.0)
        piece = plan.edge(piece, to, Given(piece.mark, h0=takes))
        if self.worth_resawing(piece, need):
            piece = self.thin_off(piece, need)
        piece = plan.thickness(piece, need)
        net = strip.y1 - strip.y0 - room + sides * each
        reason = f"{plan.say(sides * each)} over, which {what}" if each else ""
        piece, _ = plan.rip(piece, piece.mark, net, "", reason)
        if what == SAWN and each:
            piece = plan.joint_sawn(
                piece, ("far-edge",), each, "saw-edge", self.ends.saw_edge(piece, each)
            )
        self.finish(blank, piece)
