"""The route as the plain document of the exchange format: what a second program needs to carry the
steps out on the wood and to check every one.
"""

from collections.abc import Sequence
from typing import Any

from vividplank.core.layout.model.plan import Item
from vividplank.core.measure import TICKS_PER_INCH, TICKS_PER_MM, Unit, to_number
from vividplank.core.milling.model.step import Given, Size, Step
from vividplank.core.milling.route.routes import Route


def route_document(routes: Sequence[Route], unit: Unit) -> dict[str, Any]:
    """All steps, in an order in which they can be done."""
    return {
        "format": "vivid-plank/route",
        "version": 1,
        "unit": unit,
        "steps": [_Written(unit).step(s) for route in routes for s in route.steps],
    }


class _Written:
    """Steps in a unit; what has no meaning for a step is left out."""

    def __init__(self, unit: Unit) -> None:
        self.unit = unit

    def num(self, ticks: float) -> float | int:
        whole = round(ticks)
        return to_number(whole, self.unit)

    def step(self, s: Step) -> dict[str, Any]:
        num = self.num
        found: dict[str, Any] = {
            "key": s.key,
            "machine": s.machine,
            "does": s.does,
            "after": list(s.after),
            "takes": list(s.takes),
            "gives": [self._given(g) for g in s.gives],
            "size_in": {mark: self._size(size) for mark, size in s.sizes_in.items()},
            "size_out": {mark: self._size(size) for mark, size in s.sizes_out.items()},
            "minutes": s.minutes,
            "says": s.do,
            "because": s.why,
        }
        if s.machine == "not here":
            found["here"] = False
        if s.way != "machine":
            found["way"] = s.way
        danger = next((w.danger for w in s.ways if w.method == s.way), "")
        facts = {
            "cuts": s.cuts,
            "face_down": s.face_down,
            "end_first": s.first.split(" ")[0],
            "along": s.along,
            "across": s.across,
            "danger": danger,
            "obstacle": s.obstacle,
        }
        found |= {name: value for name, value in facts.items() if value}
        if s.edge:
            found["edges"] = list(s.edge)
        if s.knocked:
            found["knocked"] = [
                {"x": num(c.x), "y": num(c.y), "depth": num(c.depth)} for c in s.knocked
            ]
        if s.shims:
            found["shims"] = [
                {"x": num(c.x), "y": num(c.y), "height": num(c.height)} for c in s.shims
            ]
        if s.hold:
            found["hours"] = s.hold / 60
        if s.measure:
            found["measure"] = num(s.measure)
        if s.fellows:
            found["fellows"] = [{"piece": f.piece, "measure": num(f.measure)} for f in s.fellows]
        return found | self._cut(s)

    def _cut(self, s: Step) -> dict[str, Any]:
        """Depth, passes and settings of what a cutter does."""
        num = self.num
        if s.does == "flatten":
            assert s.plane is not None
            return {
                "plane": {"a": s.plane.a, "b": s.plane.b, "c": self._fine(s.plane.c)},
                "clean": round(s.clean, 3),
                "holds": num(s.holds),
            } | ({"depth": num(s.passes[0]), "passes": len(s.passes)} if s.passes else {})
        if s.does in ("joint-edge", "glue-edge") and s.passes:
            return {"depth": num(s.passes[0]), "passes": len(s.passes)}
        if s.does in ("plane", "skim"):
            return {
                "setting": num(s.setting),
                "passes": [num(r) for r in s.readings],
            } | ({"turned": s.turn_over} if s.turn_over else {})
        if s.does in ("rip", "resaw", "length", "fit", "trim") and s.setting:
            return {"setting": num(s.setting)}
        return {}

    def _fine(self, ticks: float) -> float:
        """A height that is no whole number of ticks."""
        return ticks / (TICKS_PER_INCH if self.unit == "in" else TICKS_PER_MM)

    def _size(self, size: Size) -> dict[str, float | int]:
        return dict(zip(("length", "width", "thickness"), map(self.num, size), strict=True))

    def _given(self, g: Given) -> dict[str, Any]:
        found: dict[str, Any] = {"piece": g.piece}
        for name in ("x0", "x1", "h0", "h1", "z0", "z1"):
            value = getattr(g, name)
            if value is not None:
                found[name] = self.num(value)
        if g.y0:
            found["y0"] = self.num(g.y0)
        if g.slope:
            found["slope"] = g.slope
        if g.items:
            found["items"] = [item_document(i) for i in g.items]
        return found


def item_document(i: Item) -> dict[str, Any]:
    return {"part": i.part, "n": i.n} | ({"stave": i.stave} if i.stave else {})
