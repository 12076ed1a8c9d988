"""What is drawn in the model space of a DXF: closed outlines, words and dimensions, with blocks
taken apart.

Nothing is passed over in silence: hidden layers, gaps that were closed and lines without an area
become decisions.
"""

import math
import re
from collections.abc import Iterable
from functools import partial
from typing import Any

import numpy as np
from ezdxf.lldxf.const import DXFError

from vividplank.core.takeoff.model.found import Decision, Point, Settings, Words, counted
from vividplank.core.takeoff.outlines.closing import Areas, Ring
from vividplank.core.takeoff.outlines.outline import Outline

#: What block attributes may be called.
_ATTRIBUTES = {
    "name": "name",
    "part": "name",
    "description": "name",
    "thickness": "thickness",
    "thick": "thickness",
    "t": "thickness",
    "qty": "quantity",
    "quantity": "quantity",
    "count": "quantity",
    "wood": "species",
    "material": "species",
    "species": "species",
}
_DEEPEST = 12
#: How the library tells of an entity that lacks what it is made of.
_DAMAGED = (DXFError, AttributeError, ValueError, TypeError, ZeroDivisionError)
#: A curve is drawn by straight pieces that stand off it by no more than this share of its size.
_FLAT = 5e-5
#: Points nearer than this share of an outline's size are one: programs round what they write.
_ONE_POINT = 1e-6
#: A line whose ends are nearer than this share of its size was meant to be closed.
_CLOSED = 1e-3
_SHAPES = ("LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE")
Points = tuple[Point, ...]


def plain(text: str) -> str:
    """Text without the codes of DXF: %%c, %%d and %%p as signs, %%u and %%o dropped, \\P as a line
    break.

    >>> plain("%%uRail%%u 2%%d"), plain("\\\\A1;660\\\\PTYP")
    ('Rail 2°', '660\\nTYP')
    """
    for code, sign in (("c", "⌀"), ("d", "°"), ("p", "±"), ("u", ""), ("o", ""), ("k", "")):
        text = re.sub(f"%%{code}", sign, text, flags=re.IGNORECASE)
    if "\\" in text or "{" in text:
        from ezdxf.tools.text import plain_mtext

        text = str(plain_mtext(text))
    return text.strip()


class Drawn:
    """In file units. `hidden` are layers (in lower case) that are switched off or frozen, and which
    it is.
    """

    def __init__(self, hidden: dict[str, str], settings: Settings) -> None:
        self.outlines: list[Outline] = []
        self.thickness: dict[str, str] = {}
        self.words: list[Words] = []
        self.dimensions: list[Any] = []
        self.hidden = hidden
        self.damaged = 0  # entities that lack what they are made of
        self.settings = settings
        self._behind: dict[str, int] = {}  # entities on hidden layers, by the layer's name
        self._loose: dict[tuple[str, str], list[Points]] = {}
        self._given: dict[str, dict[str, str]] = {}
        self._left: list[Points] = []
        self._areas = Areas(settings)
        self._upright: list[str] = []

    def take(
        self, entities: Iterable[Any], depth: int, given: dict[str, str], group: str = ""
    ) -> None:
        for entity in entities:
            try:
                self._take(entity, depth, given, group)
            except _DAMAGED:
                self.damaged += 1

    def _take(self, entity: Any, depth: int, given: dict[str, str], group: str) -> None:
        kind = entity.dxftype()
        layer = str(entity.dxf.get("layer", "0"))
        if self._is_hidden(
            layer, entity, counts=kind in _SHAPES or kind in ("INSERT", "SOLID", "TRACE")
        ):
            return
        if kind == "INSERT":
            if depth < _DEEPEST:
                self._block(entity, depth, given)
        elif kind in ("TEXT", "ATTRIB", "MTEXT"):
            if not self.settings.meaning(layer).ignore:
                self._text(entity.dxf.insert, entity.text if kind == "MTEXT" else entity.dxf.text)
        elif kind in ("SOLID", "TRACE"):
            a, b, d, c = (entity.dxf.get(f"vtx{k}", entity.dxf.vtx2) for k in range(4))
            self._outline(tuple((float(p[0]), float(p[1])) for p in (a, b, c, d)), layer, given)
        elif kind == "DIMENSION":
            self.dimensions.append(entity)
        elif kind in _SHAPES:
            self._line(entity, kind, layer, given, group)

    def _is_hidden(self, layer: str, entity: Any, *, counts: bool) -> bool:
        how = self.hidden.get(layer.casefold(), "")
        if not how and entity.dxf.get("invisible", 0):
            layer, how = f"{layer}, invisible", "made invisible"
        if not how:
            return False
        self.hidden.setdefault(layer.casefold(), how)
        if counts:
            self._behind[layer] = self._behind.get(layer, 0) + 1
        return f"hidden:{layer}" not in self.settings.turned

    def _block(self, insert: Any, depth: int, given: dict[str, str]) -> None:
        told = dict(given)
        for attribute in insert.attribs:
            name = _ATTRIBUTES.get(attribute.dxf.tag.casefold())
            if name and attribute.dxf.text.strip():
                told[name] = plain(attribute.dxf.text)
        if insert.mcount > 1:
            for one in insert.multi_insert():
                self.take(
                    one.virtual_entities(),
                    depth + 1,
                    told,
                    f"{insert.dxf.handle}.{len(self._given)}",
                )
        else:
            self.take(
                insert.virtual_entities(),
                depth + 1,
                told,
                f"{insert.dxf.handle}.{len(self._given)}.{len(self.outlines)}",
            )

    def _text(self, at: Any, text: str) -> None:
        told = plain(text)
        if told and len(self.words) < 5000:
            self.words.append(Words((float(at[0]), float(at[1])), told[:200]))

    def _line(self, entity: Any, kind: str, layer: str, given: dict[str, str], group: str) -> None:
        from ezdxf.path import make_path

        try:
            path = make_path(entity)
            span = _width([(float(v.x), float(v.y), float(v.z)) for v in path.control_vertices()])
            corners = [
                (float(v.x), float(v.y), float(v.z))
                for v in path.flattening(max(span * _FLAT, 1e-12))
            ]
        except (TypeError, ValueError, ZeroDivisionError):
            return
        if len(corners) < 2 or not np.all(np.isfinite(corners)):
            return
        points, upright = _laid_flat(corners)
        thick = abs(float(entity.dxf.thickness)) if entity.dxf.is_supported("thickness") else 0.0
        told = {**({"thickness": str(thick)} if thick else {}), **given}
        size = max(_width(points), 1e-9)
        gap = math.dist(points[0], points[-1])
        if gap <= _CLOSED * size and len(points) > 3:
            ring = points[:-1] if gap <= _ONE_POINT * size else points
            ref = self._outline(ring, layer, told, kind in ("CIRCLE", "ELLIPSE"))
            if ref and gap > _ONE_POINT * size:
                self._areas.gaps.append((ref, gap))
            if ref and upright:
                self._upright.append(ref)
        else:
            self._loose.setdefault((layer, group), []).append(points)
            self._given[f"{layer}/{group}"] = told

    def _outline(
        self, points: Points, layer: str, told: dict[str, str], circle: bool = False
    ) -> str:
        """The new outline's name; empty where it has no area, or stands there already, filled and
        drawn round.
        """
        if len(set(points)) < 3 or any(
            o.layer == layer and set(o.points) == set(points) for o in self.outlines
        ):
            return ""
        ref = f"d{len(self.outlines) + 1}"
        count = told.get("quantity", "1")
        self.outlines.append(
            Outline(
                ref,
                points,
                layer,
                told.get("name", ""),
                int(count) if count.isdigit() and int(count) else 1,
                0,
                told.get("species", ""),
                circle,
            )
        )
        self.thickness[ref] = told.get("thickness", "")
        return ref

    def closed(self) -> list[Outline]:
        """Closed entities, and loops that loose lines of one layer (of one block) make together,
        small gaps closed.
        """
        for (layer, group), lines in self._loose.items():
            told = self._given[f"{layer}/{group}"]
            self._left.extend(self._areas.take(lines, layer, partial(self._ring, layer, told)))
        self._loose.clear()
        return self.outlines

    def _ring(self, layer: str, told: dict[str, str], ring: Ring) -> str:
        return self._outline(ring.points, layer, told)

    def open_lines(self) -> list[Points]:
        return self._left[:5000]

    def decisions(self, scale: float, settings: Settings) -> list[Decision]:
        """What was decided before anything was measured; `scale` makes mm of the file's unit."""
        found = [
            Decision(
                f"hidden:{layer}",
                "hidden",
                (),
                f"Left out: {counted(many, 'thing')} on the layer '{layer}', which "
                f"is {self.hidden[layer.casefold()]}",
                "They count",
                f"hidden:{layer}" in settings.turned,
            )
            for layer, many in self._behind.items()
        ]
        found += self._areas.decisions(scale)
        if self._upright:
            told = f"Laid flat: {counted(len(self._upright), 'outline')} drawn upright"
            found.append(Decision("upright", "upright", tuple(self._upright), told))
        if self._left:
            told = f"No parts: {counted(len(self._left), 'line')} without an area"
            found.append(Decision("open lines", "open", (), told))
        return found


def _laid_flat(corners: list[tuple[float, float, float]]) -> tuple[Points, bool]:
    """The points in their own plane, and whether that stands upright in space: then x is level and
    y goes up in it.
    """
    points = np.array(corners)
    if float(np.ptp(points[:, 2])) <= 1e-6 * max(1e-9, _width(corners)):
        return tuple((float(x), float(y)) for x, y, _ in corners), False
    middle = points.mean(axis=0)
    _, sizes, axes = np.linalg.svd(points - middle)
    normal = axes[2]
    if len(sizes) < 3 or sizes[2] > 1e-6 * max(sizes[0], 1e-9) or abs(normal[2]) > 0.999:
        return tuple((float(x), float(y)) for x, y, _ in corners), False
    level = np.cross((0.0, 0.0, 1.0), normal)
    level /= np.linalg.norm(level)
    if level[np.argmax(np.abs(level))] < 0:
        level = -level
    up = np.cross(normal, level)
    up *= 1 if up[2] > 0 else -1
    return tuple((float(p @ level), float(p @ up)) for p in points), True


def _width(points: Iterable[tuple[float, ...]]) -> float:
    listed = np.array(list(points))
    return float(np.ptp(listed, axis=0).max()) if len(listed) else 0.0
