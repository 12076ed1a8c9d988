"""All operations on a piece in hand: those that flatten, and here those that saw."""

from collections.abc import Sequence
from dataclasses import replace

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Blank, Item
from vividplank.core.milling.model.passes import equal_passes
from vividplank.core.milling.model.step import Fellow, Given, Obstacle, Step
from vividplank.core.milling.route.surfacing import Surfacing
from vividplank.core.milling.shop import ways
from vividplank.core.piece import Piece, Side
from vividplank.core.piece import operations as op


class Sawing(Surfacing):
    """The steps at the saws."""

    def crosscut(
        self, piece: Piece, marks: Sequence[tuple[str, int, int]], step: Step
    ) -> list[Piece]:
        """Pieces between marks along it, each under its name."""
        found = [op.crosscut(piece, name, x0, x1) for name, x0, x1 in marks]
        gives = [
            (Given(name, x0, x1), one) for (name, x0, x1), one in zip(marks, found, strict=True)
        ]
        offered = ways.crosscut(self.machines, piece.size, self.say)
        self.write(
            replace(step, does="crosscut"),
            [piece],
            gives,
            self.pick(step.key, "crosscut", offered),
        )
        return found

    def saw_out(
        self,
        piece: Piece,
        strips: Sequence[tuple[str, int | None, int | None]],
        y0: int,
        slope: float,
        why: str,
        kind: str,
        do: str,
    ) -> list[Piece]:
        """Sawn freehand along drawn lines before anything is flattened: what lies between heights
        over the line y0 + slope·x of the piece; None where a side stays.
        """
        found, gives = [], []
        for name, low, high in strips:
            lines = [None if h is None else op.along(piece, y0 + h, slope) for h in (low, high)]
            one = op.rip(piece, name, lines[0], lines[1], "rough")
            found.append(one)
            gives.append((Given(name, y0=y0, slope=slope, h0=low, h1=high), one))
        step = Step(
            f"{piece.mark}/{kind}",
            "bandsaw",
            do,
            "the flatter face",
            "no fence: follow the chalk line",
            dimension="width",
            check="full on the line everywhere",
            why=why,
            setup="bandsaw freehand",
            does="rip",
            along="line",
        )
        offered = ways.saw_out(self.machines, piece.size, self.say)
        self.write(step, [piece], gives, self.pick(step.key, "saw-out", offered))
        return found

    def rip(
        self,
        piece: Piece,
        name: str,
        width: int,
        rest: str = "",
        reason: str = "",
        kind: str = "width",
        after: Sequence[str] = (),
    ) -> tuple[Piece, Piece | None]:
        """One strip ripped off a piece, its true datum edge to the fence, and the rest of it where
        that has a name. A piece that is that wide already, between two true edges, is not ripped.
        """
        strip = op.rip(piece, name, None, op.along(piece, width, 0.0))
        strip = replace(strip, datum_edge=piece.datum_edge)
        gives = [(Given(name, h0=0, h1=width), strip)]
        left = None
        if rest:
            start = width + self.shop.kerf.rip
            left = op.rip(piece, rest, op.along(piece, start, 0.0), None)
            gives.append((Given(rest, h0=start), left))
        elif name == piece.mark and piece.far_edge == "straight" and abs(piece.width - width) <= 1:
            return piece, None
        face = piece.reference
        step = Step(
            f"{name}/{kind}",
            "table saw",
            f"Rip {name} to {self.say(width)}",
            f"face {face}",
            "the datum edge, jointed or sawn true",
            width,
            "width",
            (),
            piece.width,
            width,
            "parallel within the thickness of a card",
            reason or f"{self.say(max(0, piece.width - width))} stays beyond the blade",
            setup=f"table saw {width}",
            tolerance=2 * self.step,
            piece=name,
            does="rip",
            along="datum-edge",
            face_down=face,
        )
        offered = ways.rip(self.machines, piece.size, width, self.say)
        self.write(step, [piece], gives, self.pick(step.key, "rip", offered))
        return strip, left

    def joint_sawn(
        self, piece: Piece, sides: Sequence[Side], off: int, kind: str, texts: Step
    ) -> Piece:
        """Sawn edges jointed, each by so much; `texts` says what for."""
        after = piece
        low = off if "datum-edge" in sides else 0
        high = off if "far-edge" in sides else 0
        wide = piece.box.h1
        if low:
            after = op.joint_edge(after, "datum-edge", op.along(piece, low, 0.0))
        if high:
            after = op.joint_edge(after, "far-edge", op.along(piece, wide - high, 0.0))
        given = Given(piece.mark, h0=low, h1=wide - high)
        usual = self.machines.jointer.usual_pass
        step = replace(
            texts,
            key=f"{piece.mark}/{kind}",
            setting=min(off, usual),
            dimension="width",
            passes=equal_passes(off, usual, self.step) * len(sides),
            stock_in=piece.width,
            stock_out=after.width,
            setup=f"jointer {min(off, usual)}",
            tolerance=self.step,
            edge=tuple(sides),
            face_down=piece.reference,
        )
        offered = ways.edge(self.machines, piece.size, self.say)
        found = self.pick(step.key, "edge", offered, without=("straight-carrier",))
        return self.on_wood(step, piece, after, found, given)

    def resaw(self, piece: Piece, layers: int, each: int, names: Sequence[str]) -> list[Piece]:
        """Equal layers, sawn from the reference face outward."""
        saw = self.shop.kerf.resaw
        marks = [(name, k * (each + saw), k * (each + saw) + each) for k, name in enumerate(names)]
        why = (
            f"{layers} × {self.say(each)} and {layers - 1} kerf{'s' if layers > 2 else ''} "
            f"of {self.say(saw)} out of {self.say(piece.thick)}; sawn from the reference face "
            "outward, the last piece is the one that varies"
        )
        return self._resawn(piece, marks, each, f"into {layers} of {self.say(each)}", why)

    def split(self, piece: Piece, each: int, kept: str) -> tuple[Piece, Piece]:
        """A thin piece off a thick one, from its reference face; the other goes to the rack."""
        start = each + self.shop.kerf.resaw
        why = (
            f"planing {self.say(piece.thick)} down to it would make "
            f"{self.say(piece.thick - each)} of chips; {self.say(piece.thick - start)} stays "
            "for the rack"
        )
        marks = [(piece.mark, 0, each), (kept, start, piece.thick)]
        one, two = self._resawn(piece, marks, each, f"at {self.say(each)}", why)
        self.kept.append(two)
        return one, two

    def _resawn(
        self, piece: Piece, marks: Sequence[tuple[str, int, int]], each: int, how: str, why: str
    ) -> list[Piece]:
        found = [op.resaw(piece, name, z0, z1) for name, z0, z1 in marks]
        gives = [
            (Given(name, z0=z0, z1=z1), one)
            for (name, z0, z1), one in zip(marks, found, strict=True)
        ]
        step = Step(
            f"{piece.mark}/resaw",
            "bandsaw",
            f"Resaw {piece.mark} {how}",
            "the jointed edge",
            f"face {piece.reference}, the flat one",
            each,
            "thickness",
            (),
            piece.thick,
            each,
            f"even within {self.about(2 * self.step)} along the cut",
            why,
            setup=f"bandsaw {each}",
            tolerance=2 * self.step,
            does="resaw",
            along="datum-edge",
            face_down=piece.reference,
        )
        offered = ways.resaw(self.machines, piece.width, self.say)
        self.write(step, [piece], gives, self.pick(step.key, "resaw", offered))
        return found

    def square(self, piece: Piece, names: tuple[str, ...], off: int) -> Piece:
        """One end cut square; all lengths are measured from it."""
        after = op.crosscut(piece, piece.mark, off, piece.length)
        step = Step(
            f"{piece.mark}/square",
            "crosscut saw",
            f"Square one end of {piece.mark}",
            f"face {piece.reference}",
            "the datum edge",
            0,
            "length",
            (),
            piece.length,
            after.length,
            "against a square",
            f"{self.say(self.shop.allowance.length)} over in length is "
            "for this cut and the last; all lengths are measured from this end",
            pieces=names,
            setup="crosscut square",
            tolerance=self.step,
            does="square",
            along="datum-edge",
            face_down=piece.reference,
        )
        found = self.across(step.key, piece)
        return self.on_wood(step, piece, after, found, Given(piece.mark, off, piece.length))

    def across(self, key: str, piece: Piece) -> Obstacle:
        return self.pick(key, "crosscut", ways.crosscut(self.machines, piece.size, self.say))

    def cut(
        self,
        piece: Piece,
        part: Part,
        items: Sequence[Item],
        rest: str = "",
        gang: str = "",
        called: str = "",
    ) -> tuple[list[Piece], Piece | None]:
        """Pieces of one length cut off at one stop, in the order they lie; a fitted one waits for
        its measure from the work. `called` is what the items are together where they are layers of
        one; `rest` the name of what is left.
        """
        if part.fitted:
            return self._fit(piece, part, items, rest, called)
        length, apart = part.length, self.shop.kerf.crosscut
        units = [tuple(items)] if called else [(i,) for i in items]
        marks = [called or i.name for i in items[: len(units)]]
        found, gives = [], []
        at = 0
        for mark, unit in zip(marks, units, strict=True):
            one = op.crosscut(piece, mark, at, at + length)
            found.append(one)
            gives.append((Given(mark, at, at + length, items=unit), one))
            at += length + apart
        left = op.crosscut(piece, rest, at, piece.length) if rest else None
        if left:
            gives.append((Given(rest, at, piece.length), left))
        who = called or " and ".join(i.name for i in items)
        step = replace(
            self.to_length(
                piece,
                f"Cut {who} to {self.say(length)}",
                length,
                f"{piece.mark}/length-{part.id}",
                f"equal lengths at one stop{gang}",
            ),
            check="both of a pair together",
            pieces=(called,) if called else tuple(piece_name(self.job, i) for i in items),
            marks=tuple(i.name for i in items),
        )
        self.write(step, [piece], gives, self.across(step.key, piece))
        return found, left

    def to_length(self, piece: Piece, do: str, length: int, key: str, why: str) -> Step:
        """A cut to a length at the stop, to be written with what it gives."""
        return Step(
            key,
            "crosscut saw",
            do,
            f"face {piece.reference}",
            "the datum edge, the squared end to the stop",
            length,
            "length",
            (),
            piece.length,
            length,
            why=why,
            setup=f"crosscut {length}",
            tolerance=self.step,
            does="length",
            along="datum-edge",
            face_down=piece.reference,
        )

    def _fit(
        self, piece: Piece, part: Part, items: Sequence[Item], rest: str, called: str
    ) -> tuple[list[Piece], Piece | None]:
        """One fitted piece: held long, and cut to the work once it is measured."""
        mark = called or items[0].name
        measures = (self.milling.fitted.get(i.name, 0) for i in items)
        measured = next((m for m in measures if m), 0)
        fellows = self._fellows(part, items[0].n)
        name = part.id if called else items[0].name
        length = measured or part.length
        apart = self.shop.kerf.crosscut
        # Held long it keeps what the blank has for it beyond its length.
        spare = self.shop.allowance.length if not rest else self.shop.allowance.between
        long = length if measured else min(piece.length, part.length + spare)
        one = op.crosscut(piece, mark, 0, long)
        gives = [(Given(mark, 0, long, items=tuple(items)), one)]
        left = op.crosscut(piece, rest, long + apart, piece.length) if rest else None
        if left:
            gives.append((Given(rest, long + apart, piece.length), left))
        mitred = "mitre and " if part.is_mitred else ""
        step = Step(
            f"{piece.mark}/length-{name}" if measured else f"{piece.mark}/fit-{name}",
            "crosscut saw",
            f"Cut {mark} to {self.say(length)}"
            if measured
            else f"Hold {mark} long; {mitred}cut to the work",
            f"face {piece.reference}",
            "the datum edge, the squared end to the stop" if measured else "the datum edge",
            length if measured else 0,
            "length",
            (),
            piece.length,
            length,
            "" if measured else "measure on the dry assembly, then enter it",
            (
                f"{self.say(length)} as measured on the work"
                if measured
                else f"the list says {self.say(part.length)}, but it is fitted: what it must meet "
                f"decides"
            )
            + "".join(f"; {self._beside(f, measured)}" for f in fellows),
            pieces=(called or piece_name(self.job, items[0]),),
            marks=tuple(i.name for i in items),
            setup=f"crosscut {length}" if measured else "crosscut to fit",
            tolerance=self.step,
            does="fit",
            along="datum-edge",
            face_down=piece.reference,
            measure=measured,
            fellows=fellows,
        )
        self.write(step, [piece], gives, self.across(step.key, piece))
        return [one], left

    def _fellows(self, part: Part, n: int) -> tuple[Fellow, ...]:
        """The other instances of a part that have their measure: opposite sides of the work."""
        fitted = self.milling.fitted
        found = []
        for other in range(1, part.quantity + 1):
            whole = Item(part.id, other).name
            of = (m for name, m in fitted.items() if m and name.partition("·")[0] == whole)
            measure = next(of, 0)
            if other != n and measure:
                found.append(Fellow(whole, measure))
        return tuple(found)

    def _beside(self, fellow: Fellow, measured: int) -> str:
        """How a measure compares with that of a fellow."""
        at = f"{fellow.piece} was measured at {self.say(fellow.measure)}"
        apart = fellow.measure - measured
        if not measured:
            return at
        if abs(apart) < self.step:
            return f"{fellow.piece} is the same"
        longer = "longer" if apart > 0 else "shorter"
        return (
            f"{at}, {self.say(abs(apart))} {longer}: measure both places and both diagonals again "
            "before the cut"
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
