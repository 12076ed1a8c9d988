"""Making a face flat: which one, which way up, by which way, and what comes off it."""

from collections.abc import Sequence
from math import ceil, floor

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.passes import equal_passes
from vividplank.core.milling.model.step import Corner, Method, Obstacle, Shim, Step
from vividplank.core.milling.physics.flatten import Flattened, flatten
from vividplank.core.milling.physics.orient import for_face
from vividplank.core.milling.route.writer import Writer
from vividplank.core.milling.shop import ways
from vividplank.core.milling.shop.machines import depth_of_pass
from vividplank.core.piece import Face, Piece, Plane
from vividplank.core.piece import operations as op

#: Methods that cut the face that looks up, and with it the whole of it to one plane.
_FROM_ABOVE: tuple[Method, ...] = ("hand", "bridge", "carrier", "step-and-carrier")
#: Ways that reach the plane of the thickest slab, where the jointer takes more.
_EXACT = (*_FROM_ABOVE, "outside", "none")
#: A face this little over its plane is clean, in ticks.
CLEAN = 8.0
#: What is worth a shim: a card.
_CARD = 80


def other(face: Face) -> Face:
    return "A" if face == "B" else "B"


class Facing(Writer):
    """The steps that make a face flat."""

    def facing_depth(self, piece: Piece, light: bool = False) -> int:
        jointer = self.machines.jointer
        unit = jointer.dial.step(self.step)
        usual = depth_of_pass(
            jointer.usual_pass, piece.width, jointer.bed_width, self.hardness(piece), unit
        )
        return round(max(unit, usual / 2 // unit * unit)) if light else usual

    def foretold(self, piece: Piece, finish: int, show: bool, light: bool = False) -> Flattened:
        """What the jointer does to it, in passes lighter than usual where only these leave
        enough.
        """
        # A step of the planer's dial more: it may have to stop between the needs of both faces.
        margin = ceil(self.machines.planer.dial.step(self.step))
        least = round(self.machines.jointer.dial.step(self.step))
        depths_of = [self.facing_depth(piece, light), self.facing_depth(piece, True), least]
        found: Flattened | None = None
        for depth in dict.fromkeys(depths_of):
            tried = flatten(
                piece.board,
                piece.box,
                finish + margin,
                depth,
                show,
                self.milling.enough,
                piece.cuts,
            )
            if tried.enough:
                return tried
            found = found or tried
        assert found is not None
        return found

    def face(self, piece: Piece, finish: int, show: bool) -> Piece:
        """One face flat, so that it still holds `finish`; nothing is done where one is flat
        already.
        """
        if piece.reference and piece.face(piece.reference).flat:
            return piece
        key = f"{piece.mark}/face"
        first = self.foretold(piece, finish, show)
        lead = for_face(piece.board.grain, first.down)
        found = self.foretold(piece, finish, show, lead.light) if lead.light else first
        offered = ways.face(self.machines, piece.size, self.say)
        if not found.enough:
            why = f"at the jointer alone it would come out under {self.say(finish)}"
            exact = [w for w in offered.ways if w.method in _EXACT and not w.guard_off]
            others = [w for w in offered.ways if w not in exact]
            offered = Obstacle(offered.why or why, (*(exact or ways.nowhere()), *others))
        chosen = self.pick(key, "face", offered)
        method = chosen.ways[0].method
        if method in _FROM_ABOVE or (not found.enough and method in _EXACT):
            return self._from_above(piece, finish, found, chosen)
        after = op.flatten(piece, found.down, found.plane)
        if found.high:
            self._knock_down(piece, found)
        ridge = chosen.ways[0].method == "ridge"
        if ridge:
            self._bed_pass(piece, found, found.passes)
        spare = min(found.thinnest, floor(found.slab), after.thick) - finish
        clean = f"{round(100 * found.clean)} % of the face clean is enough"
        if show:
            clean = "pencil lines across the face are gone"
        elif found.clean > 0.995:
            clean = "the whole face comes clean"
        hollow = piece.board.warp != type(piece.board.warp)() or piece.board.surface is not None
        step = Step(
            key,
            "jointer",
            f"Plane the ridge off face {found.down} of {piece.mark}"
            if ridge
            else f"Face {piece.mark}, hollow side down"
            if hollow
            else f"Face {piece.mark}",
            f"face {other(found.down)}; face {found.down} is cut"
            if ridge
            else f"face {found.down}",
            setting=found.depth,
            dimension="straight",
            passes=(found.depth,) * found.passes,
            stock_in=piece.thick,
            stock_out=min(piece.thick, -(-after.thick // self.step) * self.step),
            check=f"{clean}; a straightedge shows no light",
            why=self._face_reason(found, finish, spare, hollow)
            + (f". {lead.why}" if lead.light else "")
            + _pressed(piece, found),
            first=lead.first,
            setup=f"jointer {found.depth}",
            tolerance=self.step,
            leaves=self.holds(max(0, spare)) + " for the planer",
            spare=spare,
            does="flatten",
            cuts=found.down,
            face_down=other(found.down) if ridge else found.down,
            plane=after.z(found.plane),
            holds=finish + spare,
            clean=found.clean,
            knocked=tuple(Corner(x, y, d) for _, x, y, d in found.high),
            foretold=found,
        )
        return self.on_wood(step, piece, after, chosen)

    def _from_above(self, piece: Piece, finish: int, found: Flattened, chosen: Obstacle) -> Piece:
        """Flattened by the plane of the thickest slab: on a carrier the crown is up, under a plane
        or a router the hollow face.
        """
        way = chosen.ways[0]
        carried = way.method in ("carrier", "step-and-carrier")
        cuts = other(found.down) if carried else found.down
        low, high = self._slab(piece)
        lies = high if cuts == "A" else low
        after = op.flatten(piece, cuts, lies)
        spare = floor(high.c - low.c) - finish
        off = self._most_off(piece, cuts, lies)
        shims = self._shims(piece, other(cuts), lies) if carried else ()
        if way.method == "step-and-carrier":
            self._bed_pass(piece, found, 1)
        do = {
            "carrier": f"Flatten face {cuts} of {piece.mark} on a carrier",
            "step-and-carrier": f"Plane face {cuts} of {piece.mark}, its stepped part on a "
            "straight carrier",
            "bridge": f"Flatten face {cuts} of {piece.mark} under the router bridge",
            "outside": f"Have face {cuts} of {piece.mark} flattened",
            "none": f"Flatten face {cuts} of {piece.mark} where there is a machine for it",
        }.get(way.method, f"Flatten face {cuts} of {piece.mark} with hand planes")
        planer = self.machines.planer
        limit = min(planer.last_pass, planer.usual_pass)
        lead = for_face(piece.board.grain, other(cuts))
        step = Step(
            f"{piece.mark}/face",
            way.machine,
            do,
            _up(cuts),
            setting=0,
            dimension="straight",
            passes=equal_passes(off, limit, self.step) if carried else (),
            stock_in=piece.thick,
            stock_out=after.thick,
            check="pencil lines across the face are gone; winding sticks in line",
            why=self._above_reason(piece, cuts, off, finish, spare, way.method, shims),
            first=lead.first if carried else "",
            setup=f"{way.machine} carrier",
            tolerance=self.step,
            leaves=self.holds(max(0, spare)) + " for the other face",
            spare=spare,
            does="flatten",
            cuts=cuts,
            face_down=other(cuts),
            plane=after.z(lies),
            holds=finish + spare,
            shims=shims,
            foretold=found,
        )
        return self.on_wood(step, piece, after, chosen)

    def _slab(self, piece: Piece) -> tuple[Plane, Plane]:
        """The planes of its thickest flat slab, nearer each other by what has been skimmed off."""
        slab = piece.slab
        low = Plane(slab.a, slab.b, slab.c)
        high = low.raised(slab.thickness)
        if not piece.cuts:
            return low, high
        xs, ys = piece.places
        lower, upper = piece.faces(xs, ys)
        return (
            low.raised(max(0.0, float((lower - low.over(xs, ys)).max()))),
            high.raised(min(0.0, float((upper - high.over(xs, ys)).min()))),
        )

    def _bed_pass(self, piece: Piece, found: Flattened, passes: int) -> None:
        """What the bed takes of the width over the jointer: it leaves a step or a ridge beside."""
        bed = min(self.machines.jointer.bed_width, piece.width)
        step = Step(
            f"{piece.mark}/step",
            "jointer",
            f"{'One pass' if passes == 1 else f'{passes} passes'} over {self.say(bed)} of the "
            f"width of {piece.mark}",
            f"face {found.down}",
            "the datum edge",
            found.depth,
            "straight",
            (found.depth,) * passes,
            piece.thick,
            piece.thick,
            "the whole of what passed is clean",
            f"the lowest place wants {self.about(found.off)}; the rest stands beside it as a step",
            setup=f"jointer {found.depth}",
            does="knock-down",
            cuts=found.down,
            face_down=found.down,
        )
        self.on_wood(step, piece, piece)

    def _most_off(self, piece: Piece, face: Face, lies: Plane) -> float:
        xs, ys = piece.places
        lower, upper = piece.faces(xs, ys)
        gap = lies.over(xs, ys) - lower if face == "B" else upper - lies.over(xs, ys)
        return max(0.0, float(gap.max()))

    def _shims(self, piece: Piece, down: Face, lies: Plane) -> tuple[Shim, ...]:
        """Where the piece stands off a flat carrier under it when its upper face is to come out in
        that plane, and how high.
        """
        box = piece.box
        found = []
        gaps = []
        middle = (box.h0 + box.h1) // 2
        half = (box.x1 - box.x0) // 2
        long = box.x1 - box.x0
        spots = [(x, h) for h in (box.h0, box.h1) for x in (0, long)]
        spots += [(half, middle), (half, box.h0), (half, box.h1), (0, middle), (long, middle)]
        xs, ys = piece.places
        lower, upper = piece.faces(xs, ys)
        stand = lower - lies.over(xs, ys) if down == "B" else lies.over(xs, ys) - upper
        lowest = float(stand.min())
        for x, h in spots:
            at = piece.x0 + x
            low, high = piece.sides(xs[:1, 0] * 0 + at)
            y = min(max(piece.datum.at(at) + h, float(low[0])), float(high[0]))
            one_x, one_y = xs[:1, :1] * 0 + at, xs[:1, :1] * 0 + y
            z0, z1 = piece.faces(one_x, one_y)
            plane = lies.over(one_x, one_y)
            gaps.append(float((z0 - plane if down == "B" else plane - z1)[0, 0]) - lowest)
        for (x, h), gap in zip(spots, gaps, strict=True):
            if gap >= _CARD:
                found.append(Shim(x, h, round(gap)))
        return tuple(found)

    def _above_reason(
        self,
        piece: Piece,
        cuts: Face,
        off: float,
        finish: int,
        spare: int,
        method: Method,
        shims: Sequence[Shim],
    ) -> str:
        text = f"{self.about(off)} comes off face {cuts} at the most; the piece then holds "
        text += f"{self.holds(finish + spare)} flat"
        if shims:
            listed = ", ".join(
                f"{self.about(s.height)} at {self.about(s.x)} along, {self.about(s.y)} across"
                for s in shims
            )
            text += f". Shims: {listed}"
        if method == "bridge":
            text += self._bridge_plan(piece, off)
        return text

    def _bridge_plan(self, piece: Piece, off: float) -> str:
        """Sizes of a bridge for a bit of one inch: its span, slot, strokes and layers."""
        bit, layer = TICKS_PER_INCH, TICKS_PER_INCH // 8
        strokes = ceil(piece.width / (0.8 * bit))
        return (
            f". For a bit of {self.say(bit)}: a clear span of {self.say(piece.width + 2 * bit)}, a "
            f"slot of {self.say(bit + bit // 2)}, {strokes} strokes, "
            f"{max(1, ceil(off / layer))} layers of {self.say(layer)}, stops at both ends"
        )

    def _knock_down(self, piece: Piece, found: Flattened) -> None:
        """The high corners off by hand, so that the jointer meets the plane of the thickest
        slab.
        """
        listed = ", ".join(f"{self.about(d)} at {name}" for name, _, _, d in found.high)
        step = Step(
            f"{piece.mark}/knock-down",
            "hand plane",
            f"Knock the high corners of {piece.mark} down: {listed}",
            _up(found.down),
            setting=max(d for *_, d in found.high),
            dimension="straight",
            stock_in=piece.thick,
            stock_out=piece.thick,
            check="winding sticks in line, within a pass",
            why=(
                "laid on three corners a twist costs all of itself, split between two only half: "
                if len(found.high) < 3
                else "what stands lowest goes first, so that the jointer takes it level: "
            )
            + f"so {self.holds(found.slab)} stays",
            tolerance=found.depth,
            does="knock-down",
            cuts=found.down,
            face_down=other(found.down),
            knocked=tuple(Corner(x, y, d) for _, x, y, d in found.high),
        )
        self.on_wood(step, piece, piece)

    def _face_reason(self, found: Flattened, finish: int, spare: int, hollow: bool) -> str:
        text = (
            f"face {found.down} is the hollow one, so it stands on its ends and comes out flat; "
            if hollow
            else "nobody measured it bent: "
        ) + f"{self.about(found.off)} comes off at the most"
        if not found.enough:
            return f"{text}. It would come out under {self.say(finish)}"
        return text + (
            f", and {self.holds(spare)} more than the {self.say(finish)} needed stays for the "
            f"planer"
            if spare > 0
            else ""
        )

    def _share_clean(self, piece: Piece, face: Face) -> float:
        """The share of a flat face that lies in its plane."""
        lies = piece.face(face).plane
        assert lies is not None
        xs, ys = piece.places
        lower, upper = piece.faces(xs, ys)
        off = (lower if face == "B" else upper) - lies.over(xs, ys)
        return float((abs(off) <= CLEAN).mean())


def _up(face: Face) -> str:
    """How a piece lies whose upper face is cut."""
    return f"face {other(face)}; face {face} is cut"


def _pressed(piece: Piece, found: Flattened) -> str:
    """The two opposite corners a twisted piece stands on."""
    if found.high:  # knocked down: it no longer stands on them
        return ""
    board = piece.board
    share = piece.length / board.length * piece.width / board.widest
    twist = board.warp.twist * share
    if abs(twist) < _CARD:
        return ""
    touch = (
        "datum end, datum edge and far end, far edge"
        if (twist < 0) == (found.down == "B")
        else "far end, datum edge and datum end, far edge"
    )
    return f". It stands on two opposite corners, {touch}: press there, without letting it rock"
