"""Making faces and edges flat and pieces even: which way the piece lies, what comes off, and what
then.
"""

from dataclasses import replace

from vividplank.core.milling.model.passes import equal_passes, thickness_passes
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.physics.flatten import Flattened, flatten
from vividplank.core.milling.physics.orient import Face, for_edge, for_face
from vividplank.core.milling.route import ways
from vividplank.core.milling.route.writer import Stock, Writer
from vividplank.core.milling.shop.machines import depth_of_pass


class Surfacing(Writer):
    """The steps at jointer, planer and hand plane."""

    def facing_depth(self, stock: Stock, light: bool = False) -> int:
        jointer = self.machines.jointer
        usual = depth_of_pass(
            jointer.usual_pass, stock.width, jointer.bed_width, self.hardness(stock), self.step
        )
        return max(self.step, usual // 2 // self.step * self.step) if light else usual

    def foretold(
        self, stock: Stock, finish: int, show_face: bool, light: bool = False
    ) -> Flattened:
        return flatten(
            stock.board, stock.region, finish, self.facing_depth(stock, light), show_face
        )

    def skim(self, stock: Stock) -> Stock:
        """A light cut off both faces at the thickest places, to read grain and faults."""
        light = self.machines.planer.last_pass
        out = stock.thick - 2 * light
        key = self.write(
            Step(
                f"{stock.name}/skim",
                "planer",
                f"Skim both faces of {stock.name}, {self.say(light)} each",
                "either face, then the other",
                "",
                out,
                "thickness",
                (light, light),
                stock.thick,
                out,
                "grain and faults can be read; mark what was hidden",
                f"it takes {self.say(2 * light)} at its thickest and does not flatten: the "
                f"rollers press the bend out "
                "and let it spring back",
                setup=f"planer {out}",
                after=(stock.last,),
                tolerance=self.step,
            ),
            stock,
            ways.thickness(self.machines, stock.size, out, self.say),
        )
        return replace(stock, thick=out, last=key)

    def face(self, stock: Stock, finish: int, show_face: bool, again: bool = False) -> Stock:
        """One face flat, hollow side down, the high corners knocked down first where that saves
        wood.
        """
        lead = for_face(stock.board.grain, self.foretold(stock, finish, show_face).down)
        found = self.foretold(stock, finish, show_face, lead.light)
        obstacle = ways.face(self.machines, stock.size, self.say)
        at_jointer = obstacle is None and not self.by_hand
        name = f"{stock.name}/face" + ("-again" if again else "")
        last = stock.last
        if again:
            passes: tuple[int, ...] = (self.facing_depth(stock, light=True),)
            faced = stock.thick - passes[0]
        elif at_jointer:
            if found.high:
                last = self._knock_down(stock, found)
            passes = (found.depth,) * found.passes
            faced = min(stock.thick, -(-found.thickest // self.step) * self.step)
        else:
            passes = equal_passes(found.off, found.depth, self.step)
            faced = min(stock.thick, max(finish, int(stock.thick - found.off)))
        # What the planer can still take with both faces clean: told the same wherever it is told.
        spare = (
            faced - finish
            if again
            else (found.thinnest if at_jointer else int(found.slab)) - finish
        )
        clean = f"{round(100 * found.clean)} % of the face clean is enough"
        if show_face:
            clean = "pencil lines across the face are gone"
        elif found.clean > 0.995:
            clean = "the whole face comes clean"
        down = stock.down if again else found.down
        key = self.write(
            Step(
                name,
                "jointer",
                f"Face {stock.name}, hollow side down"
                if not again
                else f"Face {stock.name} again: what moved comes off",
                f"face {down}",
                "",
                self.facing_depth(stock, lead.light),
                "straight",
                passes,
                stock.thick,
                faced,
                f"{clean}; a straightedge shows no light",
                self._face_reason(found, finish, spare, again)
                + (f". {lead.why}" if lead.light else ""),
                first=lead.first,
                setup=f"jointer {self.facing_depth(stock, lead.light)}",
                after=(last,),
                tolerance=self.step,
                leaves=self.holds(max(0, spare)) + " for the planer",
                spare=spare,
            ),
            stock,
            obstacle,
        )
        return replace(stock, thick=faced, last=key, down=down)

    def _knock_down(self, stock: Stock, found: Flattened) -> str:
        """The high corners off by hand, so that the jointer meets the plane of the thickest
        slab.
        """
        listed = ", ".join(f"{self.about(d)} at {name}" for name, d in found.high)
        return self.write(
            Step(
                f"{stock.name}/knock-down",
                "hand plane",
                f"Knock the high corners of {stock.name} down: {listed}",
                f"face {found.down} up",
                "",
                max(d for _, d in found.high),
                "straight",
                (),
                stock.thick,
                stock.thick,
                "winding sticks in line, within a pass",
                f"laid on three corners a twist costs all of itself, split between two only half: "
                f"so {self.holds(found.slab)} stays",
                after=(stock.last,),
                tolerance=found.depth,
            ),
            stock,
        )

    def _face_reason(self, found: Flattened, finish: int, spare: int, again: bool) -> str:
        if again:
            return (
                "after its rest the wood has moved as much as it will; a light pass takes that off"
            )
        text = (
            f"face {found.down} is the hollow one, so it stands on its ends and comes out flat; "
            f"{self.about(found.off)} "
            "comes off at the most"
        )
        if not found.enough:
            return (
                text
                + f". At the jointer alone it would come out under {self.say(finish)}: flatten "
                f"by the plane of the slab"
            )
        return text + (
            f", and {self.holds(spare)} more than the {self.say(finish)} needed stays for the "
            f"planer"
            if spare > 0
            else ""
        )

    def edge(self, stock: Stock) -> Stock:
        """The reference edge straight and square to the face that is flat."""
        jointer = self.machines.jointer
        lead = for_edge(stock.board.grain, stock.down)
        off = self._edge_depth(stock)
        most = (
            max(self.step, jointer.usual_pass // 2 // self.step * self.step)
            if lead.light
            else jointer.usual_pass
        )
        cut = equal_passes(off, most, self.step) or (most,)
        key = self.write(
            Step(
                f"{stock.name}/edge",
                "jointer",
                f"Joint the reference edge of {stock.name}",
                "edge at the datum side",
                f"face {stock.down}, the one just faced",
                most,
                "straight",
                cut,
                stock.width,
                stock.width,
                "square to the face along its whole length; mark it with an arrow to the curl on "
                "the face",
                f"the edge runs {self.about(off)} off its line at most; every later width is "
                f"measured from this one"
                + (f". {lead.why[0].upper()}{lead.why[1:]}" if lead.why else ""),
                first=lead.first,
                setup=f"jointer {most}",
                after=(stock.last,),
                tolerance=self.step,
            ),
            stock,
            ways.edge(self.machines, stock.size, self.say),
        )
        return replace(stock, last=key)

    def thickness(self, stock: Stock, finish: int, kind: str = "thickness", why: str = "") -> Stock:
        """The second face parallel to the first, from the thickest place down to `finish`."""
        planer = self.machines.planer
        start = max(finish, stock.thick)
        usual = depth_of_pass(
            planer.usual_pass, stock.width, planer.width, self.hardness(stock), self.step
        )
        passes = thickness_passes(start, finish, usual, planer.last_pass)
        up: Face = "A" if stock.down == "B" else "B"
        lead = for_face(stock.board.grain, up)
        half = len(passes) // 2
        key = self.write(
            Step(
                f"{stock.name}/{kind}",
                "planer",
                f"Plane {stock.name} to {self.say(finish)}",
                f"face {stock.down}, the flat one",
                "",
                finish,
                "thickness",
                passes,
                start,
                finish,
                f"caliper at both ends and the middle: {self.say(finish)}",
                why
                or f"begin at its thickest place, {self.about(start)}; the planer copies the "
                f"flat face and does not flatten "
                "by itself",
                first=lead.first,
                setup=f"planer {finish}",
                after=(stock.last,),
                tolerance=self.step,
                turn_over=half if len(passes) > 2 else 0,
            ),
            stock,
            ways.thickness(self.machines, stock.size, finish, self.say),
        )
        return replace(stock, thick=finish, last=key)

    def rest(self, stock: Stock, wait: int, why: str) -> Stock:
        days = wait / 1440
        key = self.write(
            Step(
                f"{stock.name}/sticker",
                "bench",
                f"Sticker {stock.name} for {days:g} day{'s' if days != 1 else ''}",
                "on dry, even stickers",
                dimension="none",
                why=why,
                check="air on all sides, a weight on top",
                after=(stock.last,),
                hold=wait,
            ),
            stock,
        )
        return replace(stock, last=key)

    def _edge_depth(self, stock: Stock) -> float:
        """How far the board's own edge strays from the reference line where it is inside the width
        used.
        """
        steps = 24
        region = stock.region
        heights = []
        for i in range(steps + 1):
            x = region.x0 + (region.x1 - region.x0) * i / steps
            heights.append(
                max(
                    stock.board.edges(x)[0] - region.line(x) - region.h0,
                    -float(self.shop.allowance.width),
                )
            )
        return max(heights) - min(heights)
