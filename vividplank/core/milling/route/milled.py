"""What of a crosscut piece is milled in one, and the piece brought down to it where need be."""

from dataclasses import replace

from vividplank.core.board import Board
from vividplank.core.layout.model.plan import Segment
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.route.blanks import Blanks, Waiting
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.milling.route.windows import REACH, dangers
from vividplank.core.milling.shop import ways
from vividplank.core.milling.shop.school import School
from vividplank.core.piece import Line, Piece
from vividplank.core.piece import operations as op

#: A fault so near a line touches the edge that is jointed to it.
_NEAR = TICKS_PER_INCH // 16


class Milled(Blanks):
    """The part of a crosscut piece from the lowest to the highest strip edge."""

    def __init__(
        self, planner: Sawing, segment: Segment, piece: Piece, school: School, waiting: Waiting
    ) -> None:
        super().__init__(planner, segment, school, waiting)
        self.piece = piece
        self.board: Board = piece.board
        self.low, self.high = self.strips[0].y0, max(s.y1 for s in self.strips)

    def line(self, height: float) -> Line:
        """A height over the segment's line, in the axes of the board."""
        s = self.segment
        return Line(s.y0 - s.slope * s.x0 + height, s.slope)

    def milled(self) -> Piece:
        return self.core(self.piece)

    def core(self, piece: Piece) -> Piece:
        """What of a piece is milled for its strips; the rest beside it is only carried along."""
        return op.rip(piece, piece.mark, self.line(self.low), self.line(self.high), "rough")

    def brought_down(self, need: int) -> Piece:
        """The piece as it goes to the jointer: with wood beside what is milled only where that does
        no harm.
        """
        plan, piece = self.plan, self.piece
        milled = self.milled()
        over_bed = bool(ways.face(plan.machines, milled.size, plan.say).why)
        for low, high in ((False, False), (False, True), (True, False), (True, True)):
            tried = op.rip(
                piece,
                piece.mark,
                self.line(self.low) if low else None,
                self.line(self.high) if high else None,
                "rough",
            )
            why_not = self.harm(tried, need, over_bed, low)
            if not why_not or (low and high):
                break
        if not (low or high):
            return piece
        first = self.harm(piece, need, over_bed, False)
        s = self.segment
        (found,) = plan.saw_out(
            piece,
            [(piece.mark, self.low if low else None, self.high if high else None)],
            round(s.y0 - piece.datum.at(piece.x0)),
            s.slope - piece.datum.slope,
            first,
            "rough-width",
            f"Saw {piece.mark} freehand to the {'lines' if low and high else 'line'}: "
            f"{plan.say(tried.width)} wide",
        )
        return found

    def harm(self, piece: Piece, need: int, over_bed: bool, low_cut: bool) -> str:
        """What would go wrong if the piece were milled as wide as this; empty where nothing."""
        plan = self.plan
        bad = [d for d in piece.faults if not d.sound]
        danger = dangers(self.board, piece.box)
        if danger:
            fault = danger[0].kind.replace("-", " ")
            at = plan.about(danger[0].x0)
            return f"a {fault} at {at} lies beside what is milled: cut away first"
        if not low_cut:
            region = self.segment.milled_region()
            under = replace(region, h0=self.low - piece.width, h1=self.low + _NEAR)
            band = [d for d in bad if d.overlaps(under)]
            if band:
                return (
                    f"{band[0].kind.replace('-', ' ')} lies along the edge that is to be the "
                    "reference: sawn off before it is jointed"
                )
            xs = piece.breaks
            low, _ = piece.sides(xs)
            deep = self.line(self.low).over(xs) - low
            if float(deep.max()) > REACH:
                return (
                    f"its edge lies {plan.about(float(deep.max()))} outside the line: too much for "
                    "the jointer"
                )
        obstacle = ways.face(plan.machines, piece.size, plan.say).why
        if obstacle and not over_bed and not piece.reference:
            return f"{obstacle}; only {plan.say(self.high - self.low)} of it is used"
        if not piece.reference and piece.slab.thickness < need:
            return (
                f"as wide as it is it holds only {plan.holds(piece.slab.thickness)} flat, and "
                f"{plan.say(need)} is needed"
            )
        return ""

    def edge_takes(self, piece: Piece) -> int:
        """What truing the reference edge takes beyond the lowest line."""
        if piece.datum_edge == "straight":
            return 0
        xs = piece.breaks
        low, _ = piece.sides(xs)
        stray = max(0.0, float((low - self.line(self.low).over(xs)).max()))
        rough = any(line.slope == self.segment.slope for line in piece.low)
        least = self.plan.machines.jointer.usual_pass if rough else 0
        return max(-(-int(stray) // self.plan.step) * self.plan.step, least)
