"""All operations, each on a piece in hand: those that flatten, and here those that saw."""

from collections.abc import Sequence
from dataclasses import replace

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, Item
from vividplank.core.milling.model.passes import equal_passes
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route import ways
from vividplank.core.milling.route.surfacing import Surfacing
from vividplank.core.milling.route.writer import Stock


class Planner(Surfacing):
    """Writes steps down in the order they are asked for."""

    def rip(
        self,
        stock: Stock,
        strip: Stock,
        net: int,
        over: int = 0,
        kept: str = "the jointer takes off the sawn edge",
    ) -> Stock:
        """One strip ripped off a piece, its reference edge to the fence; `kept` says what becomes
        of what it is `over`.
        """
        fence = net + over
        obstacle = ways.rip(self.machines, stock.size, fence, self.say)
        reason = (
            f"{self.say(over)} over, which {kept}"
            if over
            else "widths in falling order of fence setting, every one from a straight edge"
        )
        key = self.write(
            Step(
                f"{strip.name}/width",
                "table saw",
                f"Rip {strip.name} to {self.say(fence)}",
                f"face {stock.down}",
                "the jointed edge",
                fence,
                "width",
                (),
                stock.width,
                fence,
                "parallel within the thickness of a card",
                f"its strip is {self.say(strip.width)} of the board: "
                f"{self.say(strip.width - fence)} goes to edges and saw "
                f"marks; {reason}",
                setup=f"table saw {fence}",
                after=(stock.last,),
                tolerance=2 * self.step,
            ),
            stock,
            obstacle,
        )
        return replace(strip, thick=stock.thick, down=stock.down, last=key)

    def saw_edge(self, strip: Stock, net: int, over: int) -> Stock:
        """The sawn edge jointed to its net width: saw marks and burns go."""
        size = (strip.length, net + over, strip.thick)
        key = self.write(
            Step(
                f"{strip.name}/saw-edge",
                "jointer",
                f"Joint the sawn edge of {strip.name} to {self.say(net)}",
                "the sawn edge",
                f"face {strip.down}",
                over,
                "width",
                equal_passes(over, self.machines.jointer.usual_pass, self.step),
                net + over,
                net,
                f"{self.say(net)} along its whole length",
                f"{self.say(over)} was left for this: no saw marks where it shows or is glued",
                setup=f"jointer {min(over, self.machines.jointer.usual_pass)}",
                after=(strip.last,),
                tolerance=self.step,
            ),
            strip,
            ways.edge(self.machines, size, self.say),
        )
        return replace(strip, last=key)

    def saw_out(self, segment: Stock, strips: Sequence[Stock], why: str) -> str:
        """A rough segment sawn to its chalk lines before anything is flattened."""
        widths = ", ".join(self.say(s.width) for s in strips)
        return self.write(
            Step(
                f"{segment.name}/rough-rip",
                "bandsaw",
                f"Saw {segment.name} freehand to the lines: strips {widths}",
                "the flatter face",
                "no fence: follow the chalk line",
                0,
                "width",
                (),
                0,
                0,
                "each strip full on its line",
                why,
                setup="bandsaw freehand",
                after=(segment.last,),
            ),
            segment,
            None,
        )

    def resaw(self, stock: Stock, layers: int, each: int) -> Stock:
        saw = self.shop.kerf.resaw
        key = self.write(
            Step(
                f"{stock.name}/resaw",
                "bandsaw",
                f"Resaw {stock.name} into {layers} of {self.say(each)}",
                "the jointed edge",
                f"face {stock.down}, planed",
                each,
                "thickness",
                (),
                stock.thick,
                each,
                f"even within {self.about(2 * self.step)} along the cut",
                f"{layers} × {self.say(each)} and {layers - 1} kerf{'s' if layers > 2 else ''} "
                f"of {self.say(saw)} out of "
                f"{self.say(stock.thick)}; sawn from the reference face outward, the last piece "
                f"is the one that varies",
                setup=f"bandsaw {each}",
                after=(stock.last,),
                tolerance=2 * self.step,
            ),
            stock,
            ways.resaw(self.machines, stock.width, self.say),
        )
        return self.rest(
            replace(stock, thick=each, last=key),
            self.milling.waits.resawn,
            f"freshly sawn faces dry and move: {self.say(each)} is skimmed only after that",
        )

    def square(self, stock: Stock, names: tuple[str, ...]) -> Stock:
        key = self.write(
            Step(
                f"{stock.name}/square",
                "crosscut saw",
                f"Square one end of {stock.name}",
                f"face {stock.down}",
                "the jointed edge",
                0,
                "length",
                (),
                stock.length,
                stock.length,
                "against a square",
                f"{self.say(self.shop.allowance.length)} over in length is "
                "for this cut and the last; all lengths are measured from this end",
                pieces=names,
                setup="crosscut square",
                after=(stock.last,),
                tolerance=self.step,
            ),
            stock,
            ways.crosscut(self.machines, stock.width, self.say),
        )
        return replace(stock, last=key)

    def cut(
        self, stock: Stock, part: Part, items: Sequence[Item], gang: str = "", called: str = ""
    ) -> str:
        """The pieces of one length cut off at one stop; fitted ones wait for their measure from the
        work. `called` is what they are together where they are layers of one.
        """
        names = (called,) if called else tuple(piece_name(self.job, i) for i in items)
        who = called or " and ".join(i.name for i in items)
        measured = {self.milling.fitted[i.name] for i in items if i.name in self.milling.fitted}
        if part.fitted and not measured:
            return self.write(
                Step(
                    f"{stock.name}/fit-{part.id}",
                    "crosscut saw",
                    f"Hold {who} long; {'mitre and ' if part.is_mitred else ''}cut to the work",
                    f"face {stock.down}",
                    "the jointed edge",
                    0,
                    "length",
                    (),
                    stock.length,
                    part.length,
                    "measure on the dry assembly, then enter it",
                    f"the list says {self.say(part.length)}, but it is fitted: what it must meet "
                    f"decides",
                    pieces=names,
                    marks=tuple(i.name for i in items),
                    setup="crosscut to fit",
                    after=(stock.last,),
                    tolerance=self.step,
                ),
                stock,
                ways.crosscut(self.machines, stock.width, self.say),
            )
        length = min(measured) if part.fitted and measured else part.length
        return self.write(
            Step(
                f"{stock.name}/length-{part.id}",
                "crosscut saw",
                f"Cut {who} to {self.say(length)}",
                f"face {stock.down}",
                "the jointed edge, the squared end to the stop",
                length,
                "length",
                (),
                stock.length,
                length,
                "both of a pair together",
                "equal lengths at one stop"
                + (", as measured on the work" if measured and part.fitted else "")
                + gang,
                pieces=names,
                marks=tuple(i.name for i in items),
                setup=f"crosscut {length}",
                after=(stock.last,),
                tolerance=self.step,
            ),
            stock,
            ways.crosscut(self.machines, stock.width, self.say),
        )


def piece_name(job: Job, item: Item) -> str:
    """A piece as the shop calls it: what it is, its mark, and its stave."""
    return f"{job.part(item.part).name or item.part} {item.part}{item.n}" + (
        f", stave {item.stave}" if item.stave else ""
    )


def letter(n: int) -> str:
    return chr(ord("a") + (n - 1) % 26) * ((n - 1) // 26 + 1)


def show_faces(job: Job, blanks: Sequence[Blank]) -> bool:
    """Whether a part in it has two clear faces: then both show, and the first must be cleaned
    fully.
    """
    return any(job.part(i.part).faces == "clear-two" for blank in blanks for i in blank.items())
