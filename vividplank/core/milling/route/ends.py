"""The ends of pieces: blanks cut apart, squared, and cut into parts in the order they lie."""

from collections.abc import Sequence
from itertools import groupby

from vividplank.core.layout.model.plan import Blank, Item
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.own import own_steps
from vividplank.core.milling.route.resized import resized
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.milling.route.shapes import shape
from vividplank.core.piece import Piece


class Ends:
    """Crosscuts on milled pieces, written by `plan`."""

    def __init__(self, plan: Sawing) -> None:
        self.plan = plan

    def blank_length(
        self, piece: Piece, marks: Sequence[tuple[str, int, int]], rough: bool
    ) -> Step:
        plan = self.plan
        say = plan.say
        at = " and ".join(f"{say(x0)} to {say(x1)}" for _, x0, x1 in marks)
        longest = max(x1 - x0 for _, x0, x1 in marks)
        return Step(
            f"{piece.mark}/blank-length",
            "crosscut saw",
            f"Crosscut {piece.mark}, from its datum end: {at}",
            "either face" if rough else f"face {piece.reference}",
            "the straighter edge" if rough else "the datum edge",
            longest,
            "length",
            (),
            piece.length,
            longest,
            f"write {', '.join(name for name, _, _ in marks)} on the ends",
            "shorter first: what bow it has falls with the square of the length"
            if rough
            else "each is squared and cut by itself",
            setup="crosscut rough",
            tolerance=plan.step,
            along="datum-edge" if not rough else "line",
            face_down=piece.reference,
        )

    def saw_edge(self, piece: Piece, over: int) -> Step:
        say = self.plan.say
        return Step(
            "",
            "jointer",
            f"Joint the sawn edges of {piece.mark} to {say(piece.width - over)}",
            "the sawn edge",
            f"face {piece.reference}",
            check=f"{say(piece.width - over)} along its whole length",
            why=f"{say(over)} was left for this: no saw marks where it shows or is glued",
            does="joint-edge",
        )

    def apart(self, items: Sequence[Item], piece: Piece) -> list[Piece]:
        """What is laid by, cut apart: each as long as can be, under its own name."""
        plan = self.plan
        kerfs = (len(items) - 1) * plan.shop.kerf.crosscut
        lengths = [plan.part(i).length for i in items]
        spare = (piece.length - sum(lengths) - kerfs) // len(items)
        marks = []
        at = 0
        for item, length in zip(items, lengths, strict=True):
            marks.append((item.name, at, at + length + spare))
            at += length + spare + plan.shop.kerf.crosscut
        step = Step(
            f"{piece.mark}/apart",
            "crosscut saw",
            f"Crosscut {piece.mark} between {', '.join(i.name for i in items)}",
            f"face {piece.reference}",
            "the datum edge",
            dimension="length",
            stock_in=piece.length,
            stock_out=max(x1 - x0 for _, x0, x1 in marks),
            check="each as long as can be",
            why=f"{len(items)} pieces were milled in one blank of {plan.say(piece.length)}",
            setup="crosscut rough",
            along="datum-edge",
            face_down=piece.reference,
        )
        return plan.crosscut(piece, marks, step)

    def cut_up(self, items: Sequence[Item], piece: Piece, blank: Blank, called: str = "") -> None:
        """Squared, then cut off at one stop after the other in the order the parts lie, so that
        grain runs on from one to the next; then shaped. `called` is what the items are where they
        are layers of one piece.
        """
        plan = self.plan
        sized = [plan.part(i) for i in items]
        count = 1 if called else len(items)
        apart = plan.shop.kerf.crosscut
        lengths = [plan.part(i).length for i in items][:count]
        spare = piece.length - sum(lengths) - (count - 1) * apart
        off = max(0, min(spare // 2, TICKS_PER_INCH // 4)) // plan.step * plan.step
        widest = max(p.width for p in sized)
        if piece.width > widest + 1:
            piece, _ = plan.rip(piece, piece.mark, widest, kind="part-width")
        for part in {p.id: p for p in sized}.values():
            piece = own_steps(plan, part, piece, before=True)
        piece = plan.square(piece, (called,) if called else tuple(i.name for i in items), off)
        shortest = min(p.length for p in sized)
        gang = ""
        if shortest < plan.machines.jointer.shortest and not called:
            gang = (
                f"; they stayed in one blank of {plan.say(blank.x1 - blank.x0)} until now "
                f"because {plan.say(shortest)} is too short for the machines"
            )
        groups = self._groups(items, called)
        first = piece.mark
        for k, group in enumerate(groups):
            part = plan.part(group[0])
            more = k < len(groups) - 1
            rest = f"{first} rest" + (f" {k + 1}" if k else "") if more else ""
            cut, left = plan.cut(piece, part, group, rest, gang, called)
            for unit, one in zip([group] if called else [[i] for i in group], cut, strict=True):
                if one.thick > part.thickness + 1 and not called:
                    one = plan.thickness(one, part.thickness)
                if one.width > part.width + 1 and not part.panel:
                    one, _ = plan.rip(one, one.mark, part.width)
                one = shape(plan, one, part, unit, called)
                one = own_steps(plan, part, one, before=False)
                if not called:
                    resized(plan, one, unit[0])
            if left is None:
                break
            piece = left

    def _groups(self, items: Sequence[Item], called: str) -> list[list[Item]]:
        """Neighbours of one part are cut at one stop; fitted ones each by itself."""
        if called:
            return [list(items)]
        found: list[list[Item]] = []
        for part, same in groupby(items, key=self.plan.part):
            listed = list(same)
            found += [[i] for i in listed] if part.fitted else [listed]
        return found
