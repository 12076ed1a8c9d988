"""SVG through svgelements: shapes with ids and transforms, in real units where the file has
them.
"""

import io
import math
import re
from dataclasses import replace
from functools import partial
from typing import Any
from xml.etree import ElementTree
from xml.etree.ElementTree import ParseError

from shapely.geometry import LineString, Polygon

from vividplank.core.takeoff.model.doubts import doubted, renamed
from vividplank.core.takeoff.model.found import (
    FILE_UNITS,
    Decision,
    FileUnit,
    Point,
    Reading,
    Settings,
    Unreadable,
    Words,
    counted,
)
from vividplank.core.takeoff.model.units import guess_unit
from vividplank.core.takeoff.model.words import SYSTEM_OF
from vividplank.core.takeoff.outlines.closing import Areas, Ring
from vividplank.core.takeoff.outlines.flat import parts_of_outlines, view_of
from vividplank.core.takeoff.outlines.outline import Outline
from vividplank.core.takeoff.solids.solids import plain_name

_MM_PER_PX = 25.4 / 96
_LABEL = "{http://www.inkscape.org/namespaces/inkscape}label"
_MODE = "{http://www.inkscape.org/namespaces/inkscape}groupmode"
_MOST_OUTLINES = 3000
#: A curve is cut into so many pieces, of which those are kept that stand off it by more than this
#: share of its length.
_PIECES, _FLAT = 128, 2e-5


def read_svg(content: bytes, settings: Settings) -> Reading:
    """Every closed shape as a part. Raises Unreadable where there is none."""
    from svgelements import SVG

    try:
        drawing = SVG.parse(
            io.BytesIO(_symbols_put_away(content)), reify=True, ppi=96, parse_display_none=True
        )
    except (
        ParseError,
        ValueError,
        TypeError,
        AttributeError,
        ZeroDivisionError,
        RecursionError,
        LookupError,
    ) as problem:
        raise Unreadable(f"this SVG file cannot be read: {str(problem)[:160]}") from None
    drawn = _Drawn(settings)
    drawn.take(drawing, "")
    drawn.close()
    if not drawn.outlines:
        raise Unreadable(
            "this SVG holds no closed shape; expected parts drawn as rectangles or closed paths"
        )
    if len(drawn.outlines) > _MOST_OUTLINES:
        raise Unreadable(
            f"this SVG holds {len(drawn.outlines)} closed shapes; expected at most {_MOST_OUTLINES}"
        )
    real = _real_units(content)
    points = [p for o in drawn.outlines for p in o.points]
    biggest = max(max(p[k] for p in points) - min(p[k] for p in points) for k in (0, 1))
    guess, question = guess_unit(biggest)
    unit: FileUnit = settings.unit or ("mm" if real else guess)
    scale = _MM_PER_PX if real and not settings.unit else FILE_UNITS[unit]

    def grown(p: Point) -> Point:
        return (p[0] * scale, -p[1] * scale)  # y up, as in every flat drawing here

    outlines = [
        Outline(o.ref, tuple(grown(p) for p in o.points), o.layer, o.name, circle=o.circle)
        for o in drawn.outlines
    ]
    words = [Words(grown(w.at), w.text) for w in drawn.words]
    lines = [tuple(grown(p) for p in line) for line in drawn.left[:5000]]
    taken, troubles, decisions = parts_of_outlines(outlines, words, (), unit, settings)
    parts, doubts = doubted(taken, settings, SYSTEM_OF[unit])
    layers = tuple(sorted({o.layer for o in outlines}))
    return Reading(
        "flat",
        unit,
        renamed(parts),
        (view_of(outlines, words, lines),),
        "" if settings.unit or real else question,
        troubles,
        layers,
        len(outlines),
        decisions=(*doubts, *decisions, *drawn.decisions(scale)),
    )


class _Drawn:
    """Shapes, words and open lines in user units, transforms applied."""

    def __init__(self, settings: Settings) -> None:
        self.outlines: list[Outline] = []
        self.words: list[Words] = []
        self.left: list[tuple[Point, ...]] = []  # lines that enclose nothing
        self.unseen = 0
        self._lines: dict[str, list[tuple[Point, ...]]] = {}  # by layer
        self._areas = Areas(settings)

    def close(self) -> None:
        """Areas that loose lines of one layer enclose together, small gaps closed."""
        for layer, lines in self._lines.items():
            self.left.extend(self._areas.take(lines, layer, partial(self._ring, layer)))

    def _ring(self, layer: str, ring: Ring) -> str:
        ref = f"v{len(self.outlines) + 1}"
        self.outlines.append(Outline(ref, ring.points, layer))
        return ref

    def _call(self, begins: int, own: str) -> None:
        """What a group is called: its one part's name, holes drawn beside it or not; a layer's,
        where it holds several.
        """
        inside = self.outlines[begins:]
        if not inside:
            return
        largest = max(inside, key=lambda o: Polygon(o.points).buffer(0).area)
        hull = Polygon(largest.points).buffer(1e-6)
        if all(hull.contains(Polygon(o.points).buffer(0)) for o in inside):
            inside = [
                replace(o, name=o.name or plain_name(own)) if o is largest else o for o in inside
            ]
        else:
            inside = [o if o.layer else replace(o, layer=own) for o in inside]
        self.outlines[begins:] = inside

    def decisions(self, scale: float) -> list[Decision]:
        found = []
        found += self._areas.decisions(scale)
        if self.unseen:
            found.append(
                Decision(
                    "hidden", "hidden", (), f"Left out: {counted(self.unseen, 'thing')} not shown"
                )
            )
        if self.left:
            found.append(
                Decision(
                    "open lines",
                    "open",
                    (),
                    f"No parts: {counted(len(self.left), 'line')} without an area",
                )
            )
        return found

    def take(self, group: Any, layer: str) -> None:
        from svgelements import Circle, Ellipse, Group, Path, Shape, Text, Use

        for element in group:
            if _unseen(element):
                self.unseen += 1
            elif isinstance(element, (Group, Use)):
                own = _own(element, _LABEL) or _named(_own(element, "id"))
                begins = len(self.outlines)
                self.take(element, (own or layer) if _own(element, _MODE) == "layer" else layer)
                if _own(element, _MODE) != "layer" and own:
                    self._call(begins, own)
            elif isinstance(element, Text):
                if element.text and element.text.strip():
                    at = element.transform.point_in_matrix_space((element.x, element.y))
                    self.words.append(Words((float(at.x), float(at.y)), element.text.strip()[:200]))
            elif isinstance(element, Shape):
                name = plain_name(_own(element, _LABEL) or _named(str(element.id or "")))
                for ring, closed in _rings(abs(Path(element))):
                    if closed:
                        self.outlines.append(
                            Outline(
                                f"v{len(self.outlines) + 1}",
                                ring,
                                layer,
                                name,
                                circle=isinstance(element, (Circle, Ellipse)),
                            )
                        )
                        name = ""  # further rings of one path are its holes
                    elif len(ring) > 1:
                        self._lines.setdefault(layer, []).append(ring)


def _symbols_put_away(content: bytes) -> bytes:
    """Symbols as groups among the definitions: they are drawn where they are used, not where they
    stand.
    """
    if b"<symbol" not in content:
        return content
    root = ElementTree.fromstring(content)
    name = root.tag.rpartition("}")[0] + "}" if root.tag.startswith("{") else ""
    definitions = ElementTree.SubElement(root, f"{name}defs")
    for parent in list(root.iter()):
        if parent.tag != f"{name}defs":
            for symbol in parent.findall(f"{name}symbol"):
                parent.remove(symbol)
                definitions.append(symbol)
    for symbol in root.iter(f"{name}symbol"):
        symbol.tag = f"{name}g"
    root.remove(definitions)
    root.insert(0, definitions)
    return ElementTree.tostring(root)


def _rings(path: Any) -> list[tuple[tuple[Point, ...], bool]]:
    from svgelements import Close, Line, Move

    found = []
    for sub in path.as_subpaths():
        points: list[Point] = []
        closed = False
        for segment in sub:
            if isinstance(segment, Close):
                closed = True
            elif isinstance(segment, (Move, Line)):
                points.append((float(segment.end.x), float(segment.end.y)))
            else:
                points.extend(_curve(segment))
        if len(points) > 2 and math.dist(points[0], points[-1]) < 1e-6:
            closed, points = True, points[:-1]
        if all(math.isfinite(c) for p in points for c in p):
            closed = closed and len(points) > 2
            found.append((tuple(points), closed))
    return found


def _curve(segment: Any) -> list[Point]:
    """A curve as straight pieces, without its first point."""
    places = [segment.point(k / _PIECES) for k in range(_PIECES + 1)]
    line = LineString([(float(p.x), float(p.y)) for p in places])
    if not line.is_valid or not line.length:
        return [(float(places[-1].x), float(places[-1].y))]
    return [(float(x), float(y)) for x, y in line.simplify(_FLAT * line.length).coords[1:]]


def _unseen(element: Any) -> bool:
    values = getattr(element, "values", None) or {}
    style = str(values.get("style", "") or "").replace(" ", "")
    return (
        str(values.get("display", "")) == "none"
        or str(values.get("visibility", "")) == "hidden"
        or "display:none" in style
        or "visibility:hidden" in style
    )


def _own(element: Any, key: str) -> str:
    """An attribute of this element itself; svgelements hands the parents' down as well."""
    attributes = element.values.get("attributes", {})
    return str(attributes.get(key) or "").strip()


def _named(identity: str) -> str:
    """An id as a name, unless a program made it up: rect1234, path-7.

    >>> _named("seat-rail"), _named("rect4136")
    ('seat rail', '')
    """
    made_up = re.fullmatch(
        r"(rect|path|polygon|polyline|circle|ellipse|g|group|layer|use|svg|svgjs\w*?|line|line2d|shape|patch|figure|axes|legend|"
        r"xtick|ytick|text|clip\w*?|object|surface|page)?[-_]?\d*([-_]\d+)*",
        identity,
        re.IGNORECASE,
    )
    return "" if made_up else re.sub(r"[_-]+", " ", identity).strip()


def _real_units(content: bytes) -> bool:
    """Whether the root says how large it is in the world: width="600mm"."""
    root = re.search(rb"<svg\b[^>]*>", content[:20000], re.DOTALL)
    return bool(
        root and re.search(rb"\bwidth\s*=\s*[\"']\s*[\d.]+\s*(mm|cm|in|pt|pc)\s*[\"']", root[0])
    )
