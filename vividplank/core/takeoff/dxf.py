"""DXF through ezdxf, with its recovery: closed outlines, blocks, words and written dimensions."""

import io
import math
from collections.abc import Iterable, Iterator
from typing import Any

from vividplank.core.measure import MeasureError, parse
from vividplank.core.takeoff.flat import Outline, Written, parts_of_outlines, view_of
from vividplank.core.takeoff.found import FILE_UNITS, FileUnit, Point, Reading, Settings, Unreadable, Words
from vividplank.core.takeoff.solids import numbered
from vividplank.core.takeoff.units import guess_unit
from vividplank.core.takeoff.words import SYSTEM_OF

_INSUNITS: dict[int, FileUnit] = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m"}
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
_MOST_OUTLINES = 3000
_CLOSED = 1e-3


def read_dxf(content: bytes, settings: Settings) -> Reading:
    """Every closed outline of the model space as a part. Raises Unreadable where there is none."""
    from ezdxf import recover
    from ezdxf.lldxf.const import DXFError

    try:
        document, auditor = recover.read(io.BytesIO(content))
    except (DXFError, OSError, ValueError, IndexError, KeyError, TypeError, AttributeError) as problem:
        raise Unreadable(f"this DXF file cannot be read: {str(problem)[:160]}") from None
    troubles = [f"the DXF was damaged: {str(e.message)[:120]}" for e in auditor.errors[:5]]
    if content.rstrip(b" \r\n\t\x1a\0")[-3:] != b"EOF" and not content.startswith(b"AutoCAD Binary DXF"):
        troubles.append("the DXF ends before its end mark: what stood at its end is missing. Export it anew")
    drawn = _Drawn()
    drawn.take(document.modelspace(), 0, {})
    closed = drawn.closed()
    if not closed:
        raise Unreadable("this DXF holds no closed outline in its model space; expected parts drawn as closed lines")
    if len(closed) > _MOST_OUTLINES:
        raise Unreadable(
            f"this DXF holds {len(closed)} closed outlines; expected at most {_MOST_OUTLINES}. Export the parts alone"
        )
    said = _INSUNITS.get(int(document.header.get("$INSUNITS", 0)))
    every = [p for o in closed for p in o.points]
    biggest = max(max(p[k] for p in every) - min(p[k] for p in every) for k in (0, 1))
    guess, question = guess_unit(biggest)
    unit = settings.unit or said or guess
    scale = FILE_UNITS[unit]

    def grown(points: Iterable[Point]) -> tuple[Point, ...]:
        return tuple((x * scale, y * scale) for x, y in points)

    outlines = [
        Outline(
            o.ref,
            grown(o.points),
            o.layer,
            o.name,
            o.quantity,
            _length(drawn.thickness.get(o.ref, ""), unit),
            o.species,
            o.circle,
        )
        for o in closed
    ]
    words = [Words((w.at[0] * scale, w.at[1] * scale), w.text) for w in drawn.words]
    written = [w for d in drawn.dimensions if (w := _written(d, scale, unit))]
    parts, more = parts_of_outlines(outlines, words, written, unit, settings)
    lines = [grown(line) for line in drawn.open_lines()]
    layers = tuple(sorted({o.layer for o in closed}))
    return Reading(
        "flat",
        unit,
        numbered(parts),
        (view_of(outlines, words, lines),),
        "" if settings.unit or said else question,
        (*troubles, *more),
        layers,
        len(closed),
    )


class _Drawn:
    """What is drawn in the model space, blocks taken apart, in file units."""

    def __init__(self) -> None:
        self.outlines: list[Outline] = []
        self.thickness: dict[str, str] = {}
        self.words: list[Words] = []
        self.dimensions: list[Any] = []
        self._loose: dict[tuple[str, str], list[tuple[Point, ...]]] = {}
        self._given: dict[str, dict[str, str]] = {}
        self._left: list[tuple[Point, ...]] = []

    def take(self, entities: Iterable[Any], depth: int, given: dict[str, str], group: str = "") -> None:
        for entity in entities:
            kind = entity.dxftype()
            if kind == "INSERT":
                if depth < _DEEPEST:
                    self._block(entity, depth, given)
            elif kind in ("TEXT", "ATTRIB"):
                self._text(entity.dxf.insert, entity.dxf.text)
            elif kind == "MTEXT":
                self._text(entity.dxf.insert, entity.plain_text())
            elif kind in ("SOLID", "TRACE"):
                a, b, d, c = (entity.dxf.get(f"vtx{k}", entity.dxf.vtx2) for k in range(4))
                self._outline(tuple((float(p[0]), float(p[1])) for p in (a, b, c, d)), entity.dxf.layer, given)
            elif kind == "DIMENSION":
                self.dimensions.append(entity)
            else:
                self._line(entity, kind, given, group)

    def _block(self, insert: Any, depth: int, given: dict[str, str]) -> None:
        told = dict(given)
        for attribute in insert.attribs:
            name = _ATTRIBUTES.get(attribute.dxf.tag.casefold())
            if name and attribute.dxf.text.strip():
                told[name] = attribute.dxf.text.strip()
        if insert.mcount > 1:
            for one in insert.multi_insert():
                self.take(one.virtual_entities(), depth + 1, told, f"{insert.dxf.handle}.{len(self._given)}")
        else:
            self.take(
                insert.virtual_entities(), depth + 1, told, f"{insert.dxf.handle}.{len(self._given)}.{len(self.outlines)}"
            )

    def _text(self, at: Any, text: str) -> None:
        if text.strip() and len(self.words) < 5000:
            self.words.append(Words((float(at[0]), float(at[1])), text.replace("\n", " ").strip()[:200]))

    def _line(self, entity: Any, kind: str, given: dict[str, str], group: str) -> None:
        from ezdxf.path import make_path

        if kind not in ("LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE"):
            return
        try:
            path = make_path(entity)
            points = tuple((float(v.x), float(v.y)) for v in path.flattening(max(0.01, _span(path) / 2000)))
        except (TypeError, ValueError, ZeroDivisionError):
            return
        if len(points) < 2 or not all(math.isfinite(c) for p in points for c in p):
            return
        thick = abs(float(entity.dxf.get("thickness", 0.0)))
        told = {**({"thickness": str(thick)} if thick else {}), **given}
        if math.dist(points[0], points[-1]) <= _CLOSED * max(1.0, _width(points)) and len(points) > 3:
            self._outline(points[:-1], entity.dxf.layer, told, kind in ("CIRCLE", "ELLIPSE"))
        else:
            self._loose.setdefault((entity.dxf.layer, group), []).append(points)
            self._given[f"{entity.dxf.layer}/{group}"] = told

    def _outline(self, points: tuple[Point, ...], layer: str, told: dict[str, str], circle: bool = False) -> None:
        if len(set(points)) < 3 or any(o.layer == layer and set(o.points) == set(points) for o in self.outlines):
            return  # no area, or filled and drawn round: one part
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

    def closed(self) -> list[Outline]:
        """Closed entities, and loops that loose lines of one layer (of one block) make together."""
        for (layer, group), lines in self._loose.items():
            rings, rest = _loops(lines)
            for ring in rings:
                self._outline(ring, layer, self._given[f"{layer}/{group}"])
            self._left.extend(rest)
        self._loose.clear()
        return self.outlines

    def open_lines(self) -> list[tuple[Point, ...]]:
        return self._left[:5000]


def _loops(lines: list[tuple[Point, ...]]) -> tuple[list[tuple[Point, ...]], list[tuple[Point, ...]]]:
    """The areas that lines enclose (each as small as can be), and the lines that enclose nothing."""
    from shapely import node, polygonize_full
    from shapely.geometry import LineString, MultiLineString

    if len(lines) > 4000:
        return [], lines
    grid = max(_width([p for line in lines for p in line]) * 1e-6, 1e-9)
    snapped = [LineString([(round(x / grid) * grid, round(y / grid) * grid) for x, y in line]) for line in lines]
    areas, cuts, dangles, invalid = polygonize_full([node(MultiLineString([s for s in snapped if s.length > 0]))])
    rings = [tuple((float(x), float(y)) for x, y in a.exterior.coords[:-1]) for a in areas.geoms]
    return rings, [tuple((float(x), float(y)) for x, y in g.coords) for c in (cuts, dangles, invalid) for g in c.geoms]


def _written(dimension: Any, scale: float, unit: FileUnit) -> Written | None:
    if dimension.dimtype not in (0, 1):
        return None
    a, b = dimension.dxf.defpoint2, dimension.dxf.defpoint3
    if dimension.dimtype == 0:
        angle = math.radians(float(dimension.dxf.get("angle", 0.0)))
    else:
        angle = math.atan2(b[1] - a[1], b[0] - a[0])
    measured = abs((b[0] - a[0]) * math.cos(angle) + (b[1] - a[1]) * math.sin(angle)) * scale
    text = str(dimension.dxf.get("text", "") or "")
    figure = _length(text, unit) if text.strip() not in ("", "<>") else round(measured * 320)
    if not figure:
        return None
    return Written((a[0] * scale, a[1] * scale), (b[0] * scale, b[1] * scale), angle, figure, measured)


def _length(text: str, unit: FileUnit) -> int:
    try:
        return parse(text.replace("%%c", ""), SYSTEM_OF[unit]) if text.strip() else 0
    except MeasureError:
        return 0


def _points(path: Any) -> Iterator[Point]:
    for v in path.control_vertices():
        yield (float(v.x), float(v.y))


def _span(path: Any) -> float:
    return _width(list(_points(path)))


def _width(points: Iterable[Point]) -> float:
    points = list(points)
    if not points:
        return 0.0
    return max(max(p[k] for p in points) - min(p[k] for p in points) for k in (0, 1))
