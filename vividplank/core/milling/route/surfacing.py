"""Making edges straight and pieces even: what comes off them, and what then."""

from collections.abc import Sequence
from dataclasses import replace
from math import ceil, floor

from vividplank.core.milling.model.passes import depths, equal_passes, settings
from vividplank.core.milling.model.step import Given, Step
from vividplank.core.milling.physics.orient import for_edge, for_face
from vividplank.core.milling.route.facing import CLEAN, Facing, other
from vividplank.core.milling.shop import ways
from vividplank.core.milling.shop.machines import depth_of_pass
from vividplank.core.piece import Face, Line, Piece, Plane
from vividplank.core.piece import operations as op


class Surfacing(Facing):
    """The steps at jointer, planer and hand plane."""

    def skim(self, piece: Piece) -> Piece:
        """A light cut off both faces at the thickest places, to read grain and faults."""
        light = self.machines.planer.last_pass
        thick = piece.thick
        after = op.skim(op.skim(piece, "A", thick - light), "B", thick - 2 * light)
        step = Step(
            f"{piece.mark}/skim",
            "planer",
            f"Skim both faces of {piece.mark}, {self.say(light)} each",
            "either face, then the other",
            setting=thick - 2 * light,
            dimension="thickness",
            passes=(light, light),
            stock_in=thick,
            stock_out=thick - 2 * light,
            check="grain and faults can be read; mark what was hidden",
            why=f"it takes {self.say(2 * light)} at its thickest and does not flatten: the "
            "rollers press the bend out and let it spring back",
            setup=f"planer {thick - 2 * light}",
            tolerance=self.step,
            turn_over=1,
            does="skim",
            cuts="A",
            face_down="B",
        )
        found = ways.thickness(self.machines, piece.size, thick - 2 * light, self.say)
        return self.on_wood(step, piece, after, self.pick(step.key, "thickness", found))

    def again(self, piece: Piece, finish: int) -> Piece:
        """The reference face made sure of after a rest or a resaw: a light pass where the thickness
        allows one, else a straightedge.
        """
        face: Face = piece.reference or "B"
        lies = piece.face(face).plane
        assert lies is not None
        depth = self.facing_depth(piece, light=True)
        key = f"{piece.mark}/face-again"
        found = ways.face(self.machines, piece.size, self.say)
        chosen = self.pick(key, "face", found, without=("carrier", "step-and-carrier", "ridge"))
        if piece.thick - depth - self.step < finish or chosen.ways[0].method != "machine":
            step = Step(
                f"{piece.mark}/check",
                "bench",
                f"Hold a straightedge and winding sticks to face {face} of {piece.mark}",
                f"face {other(face)}",
                dimension="none",
                check="no light under them; if it has moved, plane its high places down",
                why="it has moved as much as it will; what is flat still is not cut again",
                does="check",
                face_down=other(face),
                cuts=face,
            )
            return self.on_wood(step, piece, op.check(piece, face))
        into = depth if face == "B" else -depth
        after = op.flatten(piece, face, lies.raised(into))
        step = Step(
            key,
            "jointer",
            f"Face {piece.mark} again: what moved comes off",
            f"face {face}",
            setting=depth,
            dimension="straight",
            passes=(depth,),
            stock_in=piece.thick,
            stock_out=after.thick,
            check="the whole face comes clean; a straightedge shows no light",
            why="after its rest the wood has moved as much as it will; a light pass takes that off",
            setup=f"jointer {depth}",
            tolerance=self.step,
            leaves=self.holds(max(0, after.thick - finish)) + " for the planer",
            spare=after.thick - finish,
            does="flatten",
            cuts=face,
            face_down=face,
            plane=after.z(lies.raised(into)),
            holds=after.thick,
            clean=self._share_clean(after, face),
        )
        return self.on_wood(step, piece, after, chosen)

    def edge(self, piece: Piece, to: Line, given: Given, light: int = 0) -> Piece:
        """The reference edge straight along a line of its board, and square to the face that is
        flat; in `light` passes where that is given.
        """
        jointer = self.machines.jointer
        face: Face = piece.reference or "B"
        lead = for_edge(piece.board.grain, face)
        xs = piece.breaks
        low, _ = piece.sides(xs)
        off = max(0.0, float((to.over(xs) - low).max()))
        unit = jointer.dial.step(self.step)
        most = (
            round(max(unit, jointer.usual_pass / 2 // unit * unit))
            if lead.light
            else light or jointer.usual_pass
        )
        after = op.joint_edge(piece, "datum-edge", to)
        step = Step(
            f"{piece.mark}/edge",
            "jointer",
            f"Joint the reference edge of {piece.mark}",
            "edge at the datum side",
            f"face {face}, the flat one",
            most,
            "straight",
            equal_passes(off, most, self.step) or (most,),
            piece.width,
            after.width,
            "square to the face along its whole length; mark it with an arrow to the curl on "
            "the face",
            f"the edge runs {self.about(off)} off its line at most; every later width is "
            f"measured from this one"
            + (f". {lead.why[0].upper()}{lead.why[1:]}" if lead.why else ""),
            first=lead.first,
            setup=f"jointer {most}",
            tolerance=self.step,
            does="joint-edge",
            edge=("datum-edge",),
            face_down=face,
        )
        found = self.pick(step.key, "edge", ways.edge(self.machines, piece.size, self.say))
        if found.ways[0].machine == "table saw":
            step = replace(step, setup="table saw carrier", setting=0, passes=())
        return self.on_wood(step, piece, after, found, given)

    def thickness(
        self,
        piece: Piece,
        finish: int,
        kind: str = "thickness",
        why: str = "",
        core: Piece | None = None,
    ) -> Piece:
        """The second face parallel to the first, from the thickest place down to `finish`; nothing
        is done where it is that thick and both faces are true.
        """
        down: Face = piece.reference or "B"
        up = other(down)
        lies = piece.face(down).plane
        assert lies is not None, f"{piece.mark} has no flat face"
        if piece.face(up).flat and piece.thick <= finish + 1:
            return piece
        planer = self.machines.planer
        start = -(-max(finish, piece.thick) // self.step) * self.step
        unit = planer.dial.step(self.step)
        most = depth_of_pass(
            planer.usual_pass, piece.width, planer.width, self.hardness(piece), unit
        )
        made = settings(start, finish, most, planer.usual_pass, planer.last_pass, unit)
        clear, hollow = self._what_is_left(core or piece, down, lies)
        made, turned = _turning(made, clear, hollow, finish, unit)
        after = self._planed(piece, up, finish, made, turned)
        lead = for_face(piece.board.grain, up)
        step = Step(
            f"{piece.mark}/{kind}",
            "planer",
            f"Plane {piece.mark} to {self.say(finish)}",
            f"face {down}, the flat one",
            "",
            finish,
            "thickness",
            depths(start, made),
            start,
            finish,
            f"caliper at both ends and the middle: {self.say(finish)}",
            why
            or f"begin at its thickest place, {self.about(start)}; the planer copies the "
            f"flat face and does not flatten by itself",
            first=lead.first,
            setup=f"planer {finish}",
            tolerance=self.step,
            turn_over=turned,
            does="plane",
            cuts=up,
            face_down=down,
        )
        found = ways.thickness(self.machines, piece.size, finish, self.say)
        return self.on_wood(step, piece, after, self.pick(step.key, "thickness", found))

    def level(self, piece: Piece) -> int:
        """How thick it can still be planed with both faces clean, over its flat face."""
        down: Face = piece.reference or "B"
        lies = piece.face(down).plane
        assert lies is not None, f"{piece.mark} has no flat face"
        clear, hollow = self._what_is_left(piece, down, lies)
        return floor(clear - hollow)

    def hollow(self, piece: Piece) -> float:
        """How deep the deepest place of its flat face is under it."""
        down: Face = piece.reference or "B"
        lies = piece.face(down).plane
        assert lies is not None, f"{piece.mark} has no flat face"
        return self._what_is_left(piece, down, lies)[1]

    def _what_is_left(self, piece: Piece, down: Face, lies: Plane) -> tuple[float, float]:
        """Up to which setting the upper face comes out clean all over, and how deep the hollows are
        that the lower one still has.
        """
        xs, ys = piece.places
        lower, upper = piece.faces(xs, ys)
        plane = lies.over(xs, ys)
        if down == "B":
            return float((upper - plane).min()), max(0.0, float((lower - plane).max()))
        return float((plane - lower).min()), max(0.0, float((plane - upper).max()))

    def _planed(
        self, piece: Piece, up: Face, finish: int, made: Sequence[int], turned: int
    ) -> Piece:
        if not made:
            return op.plane(piece, up, finish)
        if not turned:
            return op.plane(piece, up, made[-1])
        return op.plane(op.plane(piece, up, made[turned - 1]), other(up), made[-1])

    def rest(self, piece: Piece, wait: int, why: str) -> Piece:
        days = wait / 1440
        step = Step(
            f"{piece.mark}/sticker",
            "bench",
            f"Sticker {piece.mark} for {days:g} day{'s' if days != 1 else ''}",
            "on dry, even stickers",
            dimension="none",
            why=why,
            check="air on all sides, a weight on top",
            hold=wait,
            does="rest",
        )
        return self.on_wood(step, piece, op.rest(piece))


def _turning(
    made: tuple[int, ...], clear: float, hollow: float, finish: int, unit: float
) -> tuple[tuple[int, ...], int]:
    """After how many of the passes to turn the piece over: not before the upper face is clean, and
    so that what is left then cleans the lower one; half way where it is clean already, so that
    both lose alike; 0 where it is not turned.
    """
    if not made:
        return made, 0
    clean = next((k for k, s in enumerate(made, 1) if s <= clear + CLEAN), len(made))
    if hollow <= CLEAN:
        half = len(made) // 2
        return made, half if len(made) > 2 and clean <= half else 0
    enough = [k for k, s in enumerate(made, 1) if s >= finish + hollow - CLEAN and s > finish]
    if enough and enough[-1] >= clean:
        return made, enough[-1]
    # No setting lies between both needs: one more is made that does.
    extra = finish + ceil(hollow / unit - 1e-9) * unit
    with_it = tuple(sorted({*made, round(extra)}, reverse=True))
    return with_it, with_it.index(round(extra)) + 1
