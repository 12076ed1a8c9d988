"""A machine shop that does what a route document says, to the letter, on the real pieces.

Written from docs/exchange.md, "The route"; of the product it uses only the geometry of a piece
(where its wood is, how thick, how much of it), nothing that plans. What a step says that cannot be
done so, or that leaves something other than it says, is a violation.
"""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from itertools import pairwise
from typing import Any

import numpy as np
from shapely import Polygon, box

from vividplank.core.board import Board, Defect, Station, flat_slab
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Plan
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, from_number
from vividplank.core.milling import Machines
from vividplank.core.piece import Cut, Line, Piece, Plane
from vividplank.core.piece.volume import chips, volume

FLY_APART = {"loose-knot", "check", "split", "shake", "metal", "rot"}
SOUND = {"tight-knot", "pin-knot", "stain", "sapwood", "mineral"}
CUTTERS = {"jointer", "planer", "router bridge"}
FENCED = {"rip", "resaw", "square", "length", "fit", "trim"}
OTHER = {"A": "B", "B": "A"}
#: Ticks: what two ways of rounding may differ by, and what no caliper shows (1/250 in).
HAIR, FINE = 2, 32


@dataclass(frozen=True)
class Violation:
    step: str
    rule: str
    what: str

    def __str__(self) -> str:
        return f"{self.step}: {self.rule}: {self.what}"


@dataclass(frozen=True)
class Held:
    """A piece on the bench: its wood, which faces and edges are true by now and where true faces
    lie, what it had been before it rested, its items, and what it was glued from.
    """

    wood: Piece
    true: frozenset[str] = frozenset()
    planes: Mapping[str, Plane] = field(default_factory=dict)
    unsure: frozenset[str] = frozenset()
    items: tuple[tuple[str, int, int], ...] = ()
    staves: tuple["Held", ...] = ()
    trimmed: tuple[float, float] = (0.0, 0.0)
    measure: int = 0


class MachineShop:
    """Carries a route out and keeps what was wrong with it; volumes only where it `weighs`."""

    def __init__(self, job: Job, plan: Plan, machines: Machines, weighs: bool = True) -> None:
        self.job, self.plan, self.machines, self.weighs = job, plan, machines, weighs
        self.held: dict[str, Held] = {b.id: _bought(b) for b in job.boards}
        self.found: list[Violation] = []
        self.came: dict[tuple[str, int, int], Held] = {}
        self.made_by: dict[str, str] = {}
        self.before: dict[str, frozenset[str]] = {}
        self.step: dict[str, Any] = {}
        self.unit = job.unit

    # What is said of a step.

    def carry_out(self, document: dict[str, Any]) -> list[Violation]:
        self.unit = document["unit"]
        for step in document["steps"]:
            self.step = step
            try:
                self._do()
            except KeyError as missing:
                self._wrong("piece", f"there is no {missing}")
        self.step = {"key": "at the end"}
        self._every_item()
        self._runs()
        self._panels()
        return self.found

    def _wrong(self, rule: str, what: str) -> None:
        self.found.append(Violation(self.step["key"], rule, what))

    def _expect(self, right: bool, rule: str, what: str) -> None:
        if not right:
            self._wrong(rule, what)

    def _ticks(self, value: float) -> int:
        return from_number(value, self.unit)

    def _fine(self, value: float) -> float:
        return value * (TICKS_PER_INCH if self.unit == "in" else TICKS_PER_MM)

    def _do(self) -> None:
        step = self.step
        self._order()
        taken = [self.held[mark] for mark in step["takes"]]
        for mark, held in zip(step["takes"], taken, strict=True):
            self._size(held.wood, step["size_in"][mark], "size in")
            self._limits(held.wood)
            self._faults(held.wood)
            self._leans(held)
        if step["does"] == "glue":
            given = {step["gives"][0]["piece"]: self._glued(taken)}
        else:
            (one,) = taken
            made = self._worked(one)
            given = {g["piece"]: self._given(made, g) for g in step["gives"]}
            if self.weighs:
                self._apart(made, [given[g["piece"]].wood for g in step["gives"]])
        for mark in step["takes"]:
            del self.held[mark]
        for g in step["gives"]:
            held = given[g["piece"]]
            self._expect(g["piece"] not in self.held, "piece", f"{g['piece']} is there already")
            own = self._ticks(step["measure"]) if "measure" in step and "items" in g else 0
            held = replace(held, measure=own or (held.measure if len(given) == 1 else 0))
            items = tuple((i["part"], i["n"], i.get("stave", 0)) for i in g.get("items", ()))
            if items:
                held = replace(held, items=items)
                self._come(held)
            self._size(held.wood, step["size_out"][g["piece"]], "size out")
            self.held[g["piece"]] = held
            self.made_by[g["piece"]] = step["key"]

    def _order(self) -> None:
        """In any order `after` allows: what made a piece comes before who takes it."""
        step = self.step
        before: set[str] = set()
        for key in step["after"]:
            self._expect(key in self.before, "order", f"comes after {key}, which is not done yet")
            before |= self.before.get(key, frozenset()) | {key}
        self.before[step["key"]] = frozenset(before)
        for mark in step["takes"]:
            maker = self.made_by.get(mark)
            if maker and maker not in before:
                self._wrong("order", f"takes {mark} and does not come after {maker}")

    def _size(self, wood: Piece, said: dict[str, float], rule: str) -> None:
        real = dict(zip(("length", "width", "thickness"), wood.size, strict=True))
        for name, ticks in real.items():
            told = self._ticks(said[name])
            self._expect(
                abs(told - ticks) <= HAIR,
                rule,
                f"{wood.mark} is {ticks / TICKS_PER_INCH:.4f} in {name}, told "
                f"{told / TICKS_PER_INCH:.4f}",
            )

    # Machines.

    def _limits(self, wood: Piece) -> None:
        step, m = self.step, self.machines
        machine, does, way = step["machine"], step["does"], step.get("way", "machine")
        length, width, thick = wood.size
        self._expect(machine not in m.off, "machine", f"this shop has no {machine}")

        def most(value: float, limit: float, what: str) -> None:
            self._expect(
                value <= limit + HAIR,
                "limit",
                f"{wood.mark} is {value / TICKS_PER_INCH:.3f} in {what} at the {machine}; it takes "
                f"{limit / TICKS_PER_INCH:.3f}",
            )

        def least(value: float, limit: float, what: str) -> None:
            most(-value, -limit, what)

        if machine == "jointer":
            least(length, m.jointer.shortest, "long")
            least(thick, m.jointer.thinnest, "thick")
            least(width, m.jointer.narrowest, "wide")
            if does in ("joint-edge", "glue-edge"):
                most(length, m.jointer.longest, "long")
            elif way not in ("ridge", "step-and-carrier") and not step["key"].endswith("/step"):
                most(width, m.jointer.bed_width, "wide")
        if machine == "planer":
            most(width, m.planer.width, "wide")
            least(length, m.planer.shortest, "long")
            if does == "plane" and way != "carrier":
                least(self._ticks(step["setting"]), m.planer.thinnest, "thick")
        if machine == "table saw" and does in ("rip", "trim"):
            most(thick, m.table_saw.tallest, "thick")
            most(self._ticks(step["setting"]), m.table_saw.fence, "at the fence")
            least(self._ticks(step["setting"]), m.table_saw.narrowest, "at the fence")
        if machine == "bandsaw":
            most(width if does == "resaw" else thick, m.bandsaw.tallest, "high")
        if machine == "crosscut saw":
            times = 2 if way == "both-sides" else 1
            most(width, times * m.crosscut.widest, "wide")
        if machine == "router bridge":
            most(width, m.router_bridge, "wide")

    def _faults(self, wood: Piece) -> None:
        if self.step["machine"] not in CUTTERS or self.step["does"] not in (
            "flatten",
            "plane",
            "skim",
            "joint-edge",
            "glue-edge",
            "knock-down",
        ):
            return
        for fault in _in_it(wood):
            if fault.kind in FLY_APART:
                self._wrong("fault", f"a {fault.kind} is in {wood.mark} at the cutter")

    def _leans(self, held: Held) -> None:
        """What lies on a table or at a fence is true, and the machine cuts the face it can."""
        step = self.step
        does, down = step["does"], step.get("face_down", "")
        if does in FENCED and step.get("along") != "line":
            self._expect(down in held.true, "true", f"face {down or '?'} down is not flat")
            along = step.get("along", "")
            self._expect(along in held.true, "true", f"the {along or 'edge'} is not straight")
        if does == "plane":
            self._expect(down in held.true, "true", f"face {down or '?'} down is not flat")
        if does in ("joint-edge", "glue-edge"):
            self._expect(down in held.true, "true", f"face {down or '?'} at the fence is not flat")
        if does in ("flatten", "plane"):
            jointed = step["machine"] == "jointer"
            self._expect(
                (step["cuts"] == down) == jointed
                or step["machine"] in ("outside shop", "not here"),
                "face",
                f"the {step['machine']} cannot cut face {step['cuts']} with face {down} down",
            )

    # What becomes of the wood.

    def _worked(self, held: Held) -> Held:
        does = self.step["does"]
        if does == "flatten":
            return self._flattened(held)
        if does == "plane":
            return self._planed(held)
        if does == "skim":
            return self._skimmed(held)
        if does == "rest":
            faces = held.true & {"A", "B"}
            return replace(held, true=held.true - faces, unsure=held.unsure | faces)
        if does == "check":
            face = self.step["cuts"]
            self._expect(face in held.unsure | held.true, "true", f"face {face} was never flat")
            return replace(held, true=held.true | {face})
        return held

    def _cut(self, held: Held, face: str, plane: Plane) -> Held:
        wood = replace(held.wood, cuts=(*held.wood.cuts, Cut(face, plane)))  # type: ignore[arg-type]
        return replace(
            held, wood=wood, true=held.true | {face}, planes={**held.planes, face: plane}
        )

    def _flattened(self, held: Held) -> Held:
        step, face = self.step, self.step["cuts"]
        told = step["plane"]
        wood = held.wood
        at = wood.datum.at(wood.x0)
        a, b = told["a"] - told["b"] * wood.datum.slope, told["b"]
        plane = Plane(a, b, self._fine(told["c"]) - a * wood.x0 - b * at)
        after = self._cut(held, face, plane)
        clean = _clean(after.wood, face, plane)
        self._expect(
            clean >= step["clean"] - 0.2,
            "clean",
            f"{clean:.2f} of face {face} is clean, told {step['clean']}",
        )
        if "depth" in step:
            most = self._deepest(step["machine"])
            self._expect(
                self._ticks(step["depth"]) <= most + HAIR, "pass", f"{step['depth']} is too deep"
            )
            self._expect(step["depth"] > 0 and step["passes"] > 0, "pass", "a pass of nought")
        slab = flat_slab(wood.board, wood.box).thickness
        if face not in held.unsure and not wood.cuts:
            self._expect(
                self._ticks(step["holds"]) <= slab + FINE,
                "h(R)",
                f"told to hold {step['holds']}, it holds {slab / TICKS_PER_INCH:.4f} in",
            )
        return after

    def _deepest(self, machine: str) -> int:
        m = self.machines
        return m.jointer.usual_pass if machine == "jointer" else m.planer.usual_pass

    def _planed(self, held: Held) -> Held:
        step, face = self.step, self.step["cuts"]
        down = OTHER[face]
        if down not in held.planes:
            return held
        made = [self._ticks(p) for p in step["passes"]]
        turned = step.get("turned", 0)
        if made:
            self._settings(held.wood.thick, made)
            self._expect(made[-1] == self._ticks(step["setting"]), "pass", "ends off its setting")
        else:
            made = [self._ticks(step["setting"])]
        first = made[turned - 1] if turned else made[-1]
        after = self._cut(held, face, _beside(held.planes[down], down, first))
        if turned:
            after = self._cut(after, down, _beside(after.planes[face], face, made[-1]))
        return after

    def _settings(self, thick: int, made: list[int]) -> None:
        """They fall, none is nought, none is deeper than allowed, all lie on the dial."""
        m, by_machine = self.machines.planer, self.step["machine"] == "planer"
        rule = TICKS_PER_INCH // 64 if self.job.unit == "in" else TICKS_PER_MM // 10
        unit = m.dial.step(rule)
        at = max(thick, made[0])
        for k, setting in enumerate(made):
            taken = at - setting
            self._expect(taken > 0 or (k == 0 and taken == 0), "pass", f"{taken} ticks in a pass")
            if by_machine:
                self._expect(taken <= m.usual_pass + rule, "pass", f"{taken} ticks are too deep")
                over = (setting - made[-1]) / unit
                self._expect(
                    abs(over - round(over)) * unit <= 1, "dial", f"{setting} is not on the dial"
                )
            at = setting
        if by_machine and len(made) > 1:
            self._expect(made[-2] - made[-1] <= max(m.last_pass, unit) + 1, "pass", "ends heavy")

    def _skimmed(self, held: Held) -> Held:
        wood = held.wood
        made = [self._ticks(p) for p in self.step["passes"]]
        cuts = (Cut("A", None, float(made[0])), Cut("B", None, float(made[1])))
        return replace(held, wood=replace(wood, cuts=(*wood.cuts, *cuts)))

    def _given(self, held: Held, g: dict[str, Any]) -> Held:
        """The piece a step gives, cut out of the one it takes."""
        step, wood = self.step, held.wood
        length = wood.length
        x0 = self._ticks(g["x0"]) if "x0" in g else 0
        x1 = self._ticks(g["x1"]) if "x1" in g else length
        self._expect(0 <= x0 < x1 <= length + HAIR, "region", f"{g} reaches beyond {wood.mark}")
        found = replace(
            wood,
            mark=g["piece"],
            x0=wood.x0 + x0,
            x1=wood.x1 if "x1" not in g else wood.x0 + x1,
        )
        slope = wood.datum.slope + g.get("slope", 0.0)
        # The lines go through y0 at the beginning of the region.
        start = found.x0
        base = wood.datum.at(start) + self._ticks(g.get("y0", 0)) - slope * start
        true = held.true
        straight = step.get("along") != "line"
        for name, side, edge in (("h0", "low", "datum-edge"), ("h1", "high", "far-edge")):
            if name not in g:
                continue
            line = Line(base + self._ticks(g[name]), slope)
            xs = np.linspace(found.x0, found.x1, 65)
            before = found.sides(xs)
            if side == "low":
                found = replace(found, low=(*found.low, line), datum=line)
            else:
                found = replace(found, high=(*found.high, line))
            after = found.sides(xs)
            k = 0 if side == "low" else 1
            cut = bool(np.abs(before[k] - after[k]).max() > HAIR)
            if step["does"] in ("joint-edge", "glue-edge") and edge in step["edges"]:
                share = self._on_line(found, k, line)
                self._expect(share >= 0.5, "edge", f"{share:.2f} of the {edge} is straight")
                true = true | {edge}
            elif cut or self._on_line(found, k, line) > 0.99:
                true = true | {edge} if straight else true - {edge}
        held = replace(held, wood=found, true=true)
        if "z0" in g:
            held = self._layer(held, self._ticks(g["z0"]), self._ticks(g["z1"]))
        if step["does"] == "trim":
            width = wood.width
            held = replace(held, trimmed=(self._ticks(g["h0"]), width - self._ticks(g["h1"])))
        return held

    def _on_line(self, wood: Piece, k: int, line: Line) -> float:
        """The share of an edge that lies on a line."""
        xs = np.linspace(wood.x0, wood.x1, 129)
        return float((np.abs(wood.sides(xs)[k] - line.over(xs)) <= HAIR).mean())

    def _layer(self, held: Held, z0: int, z1: int) -> Held:
        """A layer between two heights over the face at the fence; its faces are to be checked."""
        face = self.step["face_down"]
        base, into = held.planes[face], 1 if face == "B" else -1
        wood, planes = held.wood, dict(held.planes)
        thick = wood.thick
        for side, height in ((face, z0), (OTHER[face], z1)):
            if 0 < height < thick:
                plane = base.raised(into * height)
                wood = replace(wood, cuts=(*wood.cuts, Cut(side, plane)))  # type: ignore[arg-type]
                planes[side] = plane
        unsure = held.unsure | {"A", "B"}
        return replace(held, wood=wood, planes=planes, true=held.true - {"A", "B"}, unsure=unsure)

    def _apart(self, made: Held, given: list[Piece]) -> None:
        """No two of the pieces given share wood, the saw finds its kerf, and with what lies between
        them all the wood is there again.
        """
        before = self.held[self.step["takes"][0]].wood
        wood = made.wood
        whole = volume(before)
        gone = chips(before, wood)
        self._closes(whole, volume(wood) + gone, "chips")
        does = self.step["does"]
        saws = self.job.shop.kerf
        if does in ("crosscut", "square", "length", "fit"):
            at, total = wood.x0, 0.0
            for one in sorted(given, key=lambda p: p.x0):
                if at > wood.x0:
                    self._expect(
                        one.x0 - at >= saws.crosscut - HAIR, "kerf", f"{one.mark} too near"
                    )
                total += volume(replace(wood, x0=at, x1=one.x0)) if one.x0 > at else 0.0
                total += volume(one)
                at = one.x1
            total += volume(replace(wood, x0=at)) if at < wood.x1 else 0.0
            self._closes(volume(wood), total, "lengths")
        elif does in ("rip", "trim", "joint-edge", "glue-edge"):
            total = 0.0
            low: tuple[Line, ...] = ()
            middle = np.array([(wood.x0 + wood.x1) / 2])
            last = None
            for one in sorted(given, key=lambda p: float(p.sides(middle)[0][0])):
                if last is not None:
                    gap = one.sides(wood.breaks)[0] - last.sides(wood.breaks)[1]
                    kerf = saws.rip if self.step["machine"] == "table saw" else 0
                    self._expect(float(gap.min()) >= kerf - HAIR, "kerf", f"{one.mark} too near")
                cut = tuple(line for line in one.low if line not in wood.low)
                if cut:
                    total += volume(replace(wood, low=(*wood.low, *low), high=(*wood.high, *cut)))
                total += volume(one)
                last = one
                low = tuple(line for line in one.high if line not in wood.high)
            if low:
                total += volume(replace(wood, low=(*wood.low, *low)))
            self._closes(volume(wood), total, "widths")

    def _closes(self, before: float, after: float, what: str) -> None:
        self._expect(
            abs(before - after) <= 1e-9 * before,
            "volume",
            f"{what}: {before:.0f} cubic ticks become {after:.0f}",
        )

    def _glued(self, taken: list[Held]) -> Held:
        """A body of its own; what meets is true on both sides."""
        step = self.step
        wide = step["across"] == "width"
        length = min(h.wood.length for h in taken)
        width = (sum if wide else min)(h.wood.width for h in taken)
        thick = (max if wide else sum)(h.wood.thick for h in taken)
        if wide:
            for a, b in pairwise(taken):
                self._expect("far-edge" in a.true, "joint", f"{a.wood.mark} is not jointed")
                self._expect("datum-edge" in b.true, "joint", f"{b.wood.mark} is not jointed")
                self._expect(
                    abs(a.wood.thick - b.wood.thick) <= FINE, "joint", "staves differ in thickness"
                )
        else:
            for h in taken:
                self._expect({"A", "B"} <= h.true, "joint", f"{h.wood.mark} has a rough face")
        first = taken[0].wood.board
        ends = tuple(Station(x, 0, width, thick, thick) for x in (0, length))
        board = Board(step["gives"][0]["piece"], first.species, length, ends)
        true = frozenset.intersection(*(h.true & {"A", "B"} for h in taken))
        if wide:
            true |= taken[0].true & {"datum-edge"} | taken[-1].true & {"far-edge"}
        else:  # datum edges flush
            edges = frozenset.intersection(*(h.true - {"A", "B"} for h in taken))
            same = all(h.wood.width == width for h in taken)
            true |= edges if same else edges & {"datum-edge"}
        planes = {"A": Plane(0, 0, thick), "B": Plane(0, 0, 0)}
        staves = tuple(s for h in taken for s in (h.staves or (h,)))
        return Held(
            Piece(board.id, board, 0, float(length)),
            true,
            {f: p for f, p in planes.items() if f in true},
            staves=staves,
        )

    # At the end.

    def _come(self, held: Held) -> None:
        for item in held.items:
            self._expect(item not in self.came, "items", f"{item} comes to be twice")
            self.came[item] = held

    def _every_item(self) -> None:
        wanted = {(i.part, i.n, i.stave) for *_, i in self.plan.items()}
        for item in wanted - set(self.came):
            self._wrong("items", f"{item} never comes to be")
        last: dict[tuple[str, int, int], Held] = {}
        for held in self.held.values():
            for item in held.items:
                last[item] = held
        for item, held in last.items():
            if item[2] == 0:
                self._finished(item, held)

    def _finished(self, item: tuple[str, int, int], held: Held) -> None:
        part = self.job.part(item[0])
        wood = held.wood
        name = f"{part.id}{item[1]}"
        want = {"length": part.length, "width": part.width, "thickness": part.thickness}
        if part.glued_up:
            want["thickness"] = part.glued_up.thickness
        real = dict(zip(("length", "width", "thickness"), wood.size, strict=True))
        for what, ticks in want.items():
            if what == "length" and held.measure:
                ticks = held.measure
            elif what == "length" and part.fitted:
                self._expect(real[what] >= ticks - HAIR, "finished", f"{name} is held too short")
                continue
            self._expect(
                abs(real[what] - ticks) <= HAIR,
                "finished",
                f"{name} is {real[what] / TICKS_PER_INCH:.4f} in {what}, not "
                f"{ticks / TICKS_PER_INCH:.4f}",
            )
        for side in ("A", "B", "datum-edge", "far-edge"):
            self._expect(side in held.true, "finished", f"{side} of {name} is not true")
        xs, ys = wood.places
        lower, upper = wood.faces(xs, ys)
        for face, height in (("A", upper), ("B", lower)):
            if face in held.planes:
                plane = held.planes[face].over(xs, ys)
                gap = float(np.abs(height - plane).max())
                self._expect(
                    gap <= FINE, "finished", f"face {face} of {name} is not clean ({gap:.0f})"
                )
        thin = float((upper - lower).min())
        self._expect(
            thin >= want["thickness"] - FINE, "finished", f"{name} is {thin:.0f} at its thinnest"
        )
        for one in held.staves or (held,):
            self._quality(name, part.faces, one.wood)

    def _quality(self, name: str, faces: str, wood: Piece) -> None:
        inside = list(_in_it(wood))
        for fault in inside:
            self._expect(fault.kind in SOUND, "quality", f"a {fault.kind} is in {name}")
        marked = {f for d in inside for f in "AB" if d.face in (f, "both")}
        most = {"clear-two": 0, "clear-one": 1, "sound": 2}[faces]
        self._expect(len(marked) <= most, "quality", f"{name} is marked on {sorted(marked)}")

    def _runs(self) -> None:
        for run in dict.fromkeys(p.run for p in self.job.parts if p.run):
            order = [
                (p.id, n, 0)
                for p in self.job.parts
                if p.run == run
                for n in range(1, p.quantity + 1)
                if (p.id, n, 0) in self.came
            ]
            at = [self.came[i].wood for i in order]
            for a, b in pairwise(at):
                self._expect(a.board.id == b.board.id, "run", f"{run} comes from two boards")
                self._expect(a.x1 <= b.x0 + HAIR, "run", f"{b.mark} does not follow {a.mark}")
                self._expect(
                    abs(a.datum.at(a.x1) - b.datum.at(a.x1)) <= FINE, "run", f"{run} steps aside"
                )

    def _panels(self) -> None:
        for held in self.held.values():
            if len(held.staves) < 2 or not held.items:
                continue
            part = self.job.part(held.items[0][0])
            if part.panel and not part.glued_up:
                widths = [float(s.wood.width) for s in held.staves]
                low, high = held.trimmed
                widths[0] -= low
                widths[-1] -= high
                self._expect(
                    min(widths) >= part.panel.stave_min - FINE,
                    "panel",
                    f"a stave of {held.wood.mark} ends {min(widths) / TICKS_PER_INCH:.3f} wide",
                )


def _bought(board: Board) -> Held:
    """A board from the yard, or left over: without warp its dressed face B lies flat, and its
    dressed face A where it is even as well; a dressed edge is true where it is straight.
    """
    true: set[str] = set()
    planes: dict[str, Plane] = {}
    straight = board.surface is None and not any(vars(board.warp).values())
    for face in {"A", "B"} & set(board.dressed):
        if straight and (face == "B" or board.even):
            true.add(face)
            planes[face] = Plane(0, 0, board.thickest if face == "A" else 0)
    for edge, name in (("datum-edge", "y0"), ("far-edge", "y1")):
        ends = {getattr(s, name) for s in board.stations}
        if edge in board.dressed and (len(ends) == 1 or len(board.stations) == 2):
            true.add(edge)
    return Held(Piece(board.id, board, 0.0, float(board.length)), frozenset(true), planes)


def _beside(plane: Plane, face: str, distance: int) -> Plane:
    """The plane that far into the wood from a face's."""
    return plane.raised(distance if face == "B" else -distance)


def _clean(wood: Piece, face: str, plane: Plane) -> float:
    """The share of a face that lies in its plane."""
    line = np.linspace(wood.x0, wood.x1, 65)
    low, high = wood.sides(line)
    ys = low[:, None] + (high - low)[:, None] * np.linspace(0.01, 0.99, 17)
    xs = np.broadcast_to(line[:, None], ys.shape).copy()
    lower, upper = wood.faces(xs, ys)
    height = lower if face == "B" else upper
    return float((np.abs(height - plane.over(xs, ys)) <= FINE).mean())


def _in_it(wood: Piece) -> Iterator[Defect]:
    """Faults of its board of which some is in the piece."""
    xs = wood.breaks
    low, high = wood.sides(xs)
    ring = [*zip(xs, low, strict=True), *zip(xs[::-1], high[::-1], strict=True)]
    ground = Polygon(ring)
    for fault in wood.board.defects:
        for one in fault.boxes if fault.shape != "rectangle" else (fault,):
            if ground.intersection(box(one.x0, one.y0, one.x1, one.y1)).area > TICKS_PER_INCH:
                yield fault
                break


def violations(
    job: Job, plan: Plan, machines: Machines, document: dict[str, Any]
) -> list[Violation]:
    return MachineShop(job, plan, machines).carry_out(document)


def told(found: Iterable[Violation]) -> str:
    return "\n".join(str(v) for v in found)
