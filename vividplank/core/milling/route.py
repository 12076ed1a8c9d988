"""The steps of each board of a plan, in the order "plane, then rip" (or "rough-rip first" where the plan says so).

Rough length; face; edge; thickness; width; ends. Every figure comes from the board's own surfaces.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from vividplank.core.board import Board, Region, flat_slab
from vividplank.core.board.depth import Depths, depths
from vividplank.core.job import Job
from vividplank.core.layout.plan import Blank, Plan, Segment, Strip
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM, show
from vividplank.core.milling.machines import Machines, usual_machines
from vividplank.core.milling.passes import equal_passes, thickness_passes
from vividplank.core.milling.planed import planed
from vividplank.core.milling.step import Step


@dataclass(frozen=True)
class Route:
    """All steps for one board, segment by segment."""

    board: str
    steps: tuple[Step, ...]


def routes(job: Job, plan: Plan, machines: Machines | None = None) -> tuple[Route, ...]:
    """One route for each board the plan cuts, in the order of the plan."""
    planner = _Planner(job, machines or usual_machines(job.unit))
    return tuple(
        Route(b.board, tuple(planner.board(job.board(b.board), b.segments))) for b in plan.boards if b.segments
    )


class _Planner:
    def __init__(self, job: Job, machines: Machines) -> None:
        self.job = job
        self.shop = job.shop
        self.machines = machines
        self.step = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 10

    def board(self, board: Board, segments: tuple[Segment, ...]) -> Iterator[Step]:
        ordered = sorted(segments, key=lambda s: s.x0)
        yield self._rough_length(board, ordered)
        for n, segment in enumerate(ordered, 1):
            name = f"{board.id}.{n}"
            if self.shop.method == "rough-rip":
                yield from self._rough_ripped(board, segment, name)
            else:
                yield from self._milled_wide(board, segment, name)

    def _rough_length(self, board: Board, segments: list[Segment]) -> Step:
        marks = ", ".join(f"{show(s.x0, self.job.unit)} to {self._in(s.x1)}" for s in segments)
        whole = flat_slab(board, self._whole(board)).thickness
        best = min(flat_slab(board, s.milled_region()).thickness for s in segments)
        why = (f"flat, the whole board would give {self._about(whole)}; cut so, its pieces give at least "
               f"{self._about(best)}. Bow falls with the square of the length.")
        widest = self.machines.crosscut.widest
        wide = board.widest > widest
        return Step(
            f"{board.id}/length", "crosscut saw", f"Crosscut {board.id} at {marks} from the datum end", "either face",
            "the straighter edge", segments[0].x0, "length", (), board.length, sum(s.x1 - s.x0 for s in segments),
            f"{len(segments)} piece{'s' if len(segments) > 1 else ''}; write {board.id}.1 … on the ends", why,
            f"{self._in(board.widest)} wide; this saw cuts {self._in(widest)}" if wide else "",
            ("cut from both edges to one line", "a handsaw has no such limit") if wide else (),
        )

    def _milled_wide(self, board: Board, segment: Segment, name: str) -> Iterator[Step]:
        region = segment.milled_region()
        blanks = list(segment.blanks())
        thickest = max(planed(self.job, k) for _, k in blanks)
        yield from self._flatten(board, region, name, thickest)
        strips = sorted(segment.strips, key=lambda s: s.y0 - s.y1)
        yield self._rip(name, strips)
        for j, strip in enumerate(sorted(segment.strips, key=lambda s: s.y0), 1):
            label = f"{name}{_letter(j)}"
            for k, blank in enumerate(sorted(strip.blanks, key=lambda b: b.x0), 1):
                piece = label if len(strip.blanks) == 1 else f"{label}{k}"
                yield from self._to_size(strip, blank, piece, thickest)

    def _rough_ripped(self, board: Board, segment: Segment, name: str) -> Iterator[Step]:
        widths = ", ".join(self._in(s.y1 - s.y0) for s in sorted(segment.strips, key=lambda s: s.y0 - s.y1))
        yield Step(
            f"{name}/rough-rip", "bandsaw", f"Saw {name} freehand to the lines: strips {widths}", "the flatter face",
            "no fence: follow the chalk line", 0, "width", (), 0, 0, "each strip full on its line",
            "ripped before flattening, each piece has only its own share of the cup, and crooked stock is safer here "
            "than against a fence",
        )
        for j, strip in enumerate(sorted(segment.strips, key=lambda s: s.y0), 1):
            for k, blank in enumerate(sorted(strip.blanks, key=lambda b: b.x0), 1):
                piece = f"{name}{_letter(j)}" + ("" if len(strip.blanks) == 1 else str(k))
                yield Step(
                    f"{piece}/blank-length", "crosscut saw",
                    f"Crosscut {piece} at {self._in(blank.x0 - segment.x0)} and {self._in(blank.x1 - segment.x0)}",
                    "either face", "the sawn edge", blank.x1 - blank.x0, "length", (), segment.x1 - segment.x0,
                    blank.x1 - blank.x0, "", "shorter first: what bow it has falls with the square of the length",
                )
                thick = planed(self.job, blank)
                yield from self._flatten(board, segment.blank_region(strip, blank), piece, thick)
                yield self._rip(piece, [strip])
                yield from self._to_size(strip, blank, piece, thick)

    def _flatten(self, board: Board, region: Region, name: str, finish: int) -> Iterator[Step]:
        """Face, edge and thickness of one piece, down to the thickness `finish`."""
        slab = flat_slab(board, region)
        found = depths(board, region, slab)
        down = "B" if found.hollow >= 0 else "A"
        off = found.below if down == "B" else found.above
        width, length = region.h1 - region.h0, region.x1 - region.x0
        thick = self._thickest(board, region)
        jointer = self.machines.jointer
        obstacle, ways = self._jointer_obstacle(width, length, thick)
        cut = equal_passes(off, jointer.usual_pass, self.step)
        faced = int(thick - sum(cut))
        yield Step(
            f"{name}/face", "jointer", f"Face {name}, hollow side down", f"face {down}", "",
            jointer.usual_pass, "straight", cut, thick, faced,
            "pencil lines across the face are gone; a straightedge shows no light",
            self._face_reason(found, down, off, slab.thickness, finish), obstacle, ways, (name,),
        )
        edge_off = self._edge_depth(board, region)
        edge_cut = equal_passes(edge_off, jointer.usual_pass, self.step) or (jointer.usual_pass,)
        edge_obstacle, edge_ways = self._edge_obstacle(length)
        yield Step(
            f"{name}/edge", "jointer", f"Joint the reference edge of {name}", "edge at the datum side",
            f"face {down}, the one just faced", jointer.usual_pass, "straight", edge_cut, width, width,
            "square to the face along its whole length",
            f"the edge runs {self._about(edge_off)} off its line at most; the other edge is ripped parallel to this one",
            edge_obstacle, edge_ways, (name,),
        )
        planer = self.machines.planer
        start = max(finish, faced)
        planer_obstacle, planer_ways = self._planer_obstacle(width, length, finish)
        yield Step(
            f"{name}/thickness", "planer", f"Plane {name} to {self._in(finish)}", f"face {down}, the flat one", "",
            finish, "thickness", thickness_passes(start, finish, planer.usual_pass, planer.last_pass), start, finish,
            f"caliper at both ends and the middle: {self._in(finish)}",
            f"begin at its thickest place, {self._about(faced)}; the planer copies the flat face and does not flatten "
            "by itself",
            planer_obstacle, planer_ways, (name,),
        )

    def _face_reason(self, found: Depths, down: str, off: float, slab: float, finish: int) -> str:
        spare = slab - finish
        corner = max(found.corners_below)
        text = f"face {down} is the hollow one, so it stands on its ends and comes out flat; {self._about(off)} comes off"
        if spare > 0:
            text += f", and {self._about(spare)} more than the {self._in(finish)} needed stays for the planer"
        # Where all corners stand alike it is bow or cup; one higher than the rest is twist, and the hand plane's.
        if down == "B" and corner - min(found.corners_below) > self.machines.jointer.usual_pass:
            names = ("datum end, datum edge", "far end, datum edge", "datum end, far edge", "far end, far edge")
            where = names[found.corners_below.index(corner)]
            text += f". Knock down the high corner first ({where}, {self._about(corner)}) with a hand plane"
        return text

    def _jointer_obstacle(self, width: int, length: int, thick: int) -> tuple[str, tuple[str, ...]]:
        jointer = self.machines.jointer
        if width > jointer.bed_width:
            return (f"{self._in(width)} wide; the jointer takes {self._in(jointer.bed_width)}",
                    ("rip it along its chalk lines first and face the strips", "planer on a flat carrier, the board shimmed "
                     "so that it cannot rock", "a router on a bridge", "hand planes and winding sticks",
                     "a shop with a wider machine"))
        if length < jointer.shortest:
            return (f"{self._in(length)} long; nothing under {self._in(jointer.shortest)} goes over this jointer",
                    ("mill it in one blank with others and cut them apart afterwards", "a hand plane"))
        if thick < jointer.thinnest:
            return (f"{self._in(thick)} thick; the jointer takes {self._in(jointer.thinnest)} and more",
                    ("planer on a flat carrier", "a hand plane"))
        if width < jointer.narrowest:
            return (f"{self._in(width)} wide; under {self._in(jointer.narrowest)} hands come too near the cutter",
                    ("face it while still part of a wider piece", "a hand plane"))
        return "", ()

    def _edge_obstacle(self, length: int) -> tuple[str, tuple[str, ...]]:
        jointer = self.machines.jointer
        if length > jointer.longest:
            return (f"{self._in(length)} long; over {self._in(jointer.longest)} these tables cannot hold it straight",
                    ("rip it against a straight carrier", "a long hand plane and a straightedge held to the light"))
        if length < jointer.shortest:
            return (f"{self._in(length)} long; nothing under {self._in(jointer.shortest)} goes over this jointer",
                    ("mill it in one blank with others and cut them apart afterwards", "a hand plane"))
        return "", ()

    def _planer_obstacle(self, width: int, length: int, finish: int) -> tuple[str, tuple[str, ...]]:
        planer = self.machines.planer
        if width > planer.width:
            return (f"{self._in(width)} wide; this planer takes {self._in(planer.width)}",
                    ("rip it, plane the halves, glue them back", "hand planes and winding sticks",
                     "a shop with a wider machine"))
        if finish < planer.thinnest:
            return (f"{self._in(finish)} is thinner than the {self._in(planer.thinnest)} this planer takes",
                    ("stick it to a flat carrier board", "a hand plane or a scraper"))
        if length < planer.shortest:
            return (f"{self._in(length)} is shorter than the {self._in(planer.shortest)} it feeds",
                    ("mill it in one blank with others and cut them apart afterwards", "a hand plane or a scraper"))
        return "", ()

    def _rip(self, name: str, strips: list[Strip]) -> Step:
        nets = [s.y1 - s.y0 - self.shop.allowance.width for s in strips]
        falling = ", ".join(self._in(n) for n in nets)
        return Step(
            f"{name}/width", "table saw", f"Rip {name} to {falling}" + (", widest first" if len(nets) > 1 else ""),
            "the faced side", "the jointed edge; joint the sawn edge again before each next strip", nets[0], "width", (),
            sum(s.y1 - s.y0 for s in strips), nets[0], "parallel within the thickness of a card",
            f"a straight jointed edge against the fence; {self._in(self.shop.allowance.width)} over in each strip goes to "
            "jointing and saw marks, widths in falling order of fence setting", pieces=(name,),
        )

    def _to_size(self, strip: Strip, blank: Blank, piece: str, thickness: int) -> Iterator[Step]:
        """From a planed strip to finished pieces: resaw, last thickness, ends."""
        parts = [self.job.part(i.part) for layer in blank.layers for i in layer]
        names = tuple(
            f"{self.job.part(i.part).name or i.part} {i.part}{i.n}" + (f", stave {i.stave}" if i.stave else "")
            for layer in blank.layers for i in layer
        )
        finish = max(p.thickness for p in parts)
        layers = len(blank.layers)
        now = thickness
        if layers > 1:
            each = finish + self.shop.allowance.face
            yield Step(
                f"{piece}/resaw", "bandsaw", f"Resaw {piece} into {layers} of {self._in(each)}", "the jointed edge",
                "the planed face", each, "thickness", (), now, each, f"even within {self._about(2 * self.step)} along the cut",
                f"{layers} × {self._in(each)} and {layers - 1} kerf{'s' if layers > 2 else ''} of "
                f"{self._in(self.shop.kerf.resaw)} out of {self._in(now)}; let the pieces rest before the last skim",
                pieces=names,
            )
            now = each
        planer = self.machines.planer
        if now > finish:
            obstacle, ways = self._planer_obstacle(strip.y1 - strip.y0, blank.x1 - blank.x0, finish)
            yield Step(
                f"{piece}/finish-thickness", "planer", f"Plane {piece} to {self._in(finish)}", "the sawn or rougher side up",
                "", finish, "thickness", thickness_passes(now, finish, planer.usual_pass, planer.last_pass), now, finish,
                f"caliper: {self._in(finish)}",
                f"{self._in(finish)} is the thickest part in it; turn it over between passes so that both sides lose alike",
                obstacle, ways, names,
            )
        lengths = ", ".join(dict.fromkeys(self._in(p.length) for p in sorted(parts, key=lambda p: -p.length)))
        short_parts = [p for p in parts if p.length < self.machines.jointer.shortest]
        gang = (f"; they stayed in one blank of {self._in(blank.x1 - blank.x0)} until now because "
                f"{self._in(min(p.length for p in parts))} is too short for the machines") if short_parts else ""
        yield Step(
            f"{piece}/ends", "crosscut saw", f"Square one end of {piece}, then cut to {lengths}", "the faced side",
            "the jointed edge", max(p.length for p in parts), "length", (), blank.x1 - blank.x0,
            max(p.length for p in parts), "against a square; both of a pair together",
            f"{self._in(self.shop.allowance.length)} over in length is for these two cuts; equal lengths at one stop" + gang,
            pieces=names,
        )

    def _edge_depth(self, board: Board, region: Region) -> float:
        """How far the board's own edge strays from the reference line where it is inside the width used."""
        steps = 24
        heights = []
        for i in range(steps + 1):
            x = region.x0 + (region.x1 - region.x0) * i / steps
            heights.append(max(board.edges(x)[0] - region.line(x) - region.h0, -float(self.shop.allowance.width)))
        return max(heights) - min(heights)

    def _thickest(self, board: Board, region: Region) -> int:
        xs = [region.x0, region.x1, *(s.x for s in board.stations if region.x0 < s.x < region.x1)]
        return round(max(board.thickness(x, region.line(x) + h) for x in xs for h in (region.h0, region.h1)))

    def _whole(self, board: Board) -> Region:
        """The widest straight rectangle over the whole length."""
        low = max(s.y0 for s in board.stations)
        high = min(s.y1 for s in board.stations)
        if high <= low:
            low, high = board.stations[0].y0, board.stations[0].y1
        return Region(0, board.length, low, 0.0, 0, high - low)

    def _in(self, ticks: int) -> str:
        return show(ticks, self.job.unit, unit=True)

    def _about(self, ticks: float) -> str:
        """A surveyed figure: to the 64th, or the tenth of a millimetre."""
        return show(round(ticks / self.step) * self.step, self.job.unit, unit=True)


def _letter(n: int) -> str:
    return chr(ord("a") + (n - 1) % 26) * ((n - 1) // 26 + 1)

