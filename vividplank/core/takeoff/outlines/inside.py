"""What lies in what on a flat drawing: frames round the parts, cut-outs in them, the boxes of a
title block.

Nothing is left out without a decision that names it and can be turned round.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field

from shapely import STRtree
from shapely.geometry import Point as Place
from shapely.geometry import Polygon

from vividplank.core.measure import System, about
from vividplank.core.takeoff.model.found import Decision, Settings, Words
from vividplank.core.takeoff.model.words import understand
from vividplank.core.takeoff.outlines.outline import Outline

#: Layers and names that are a frame's by their word, in some languages.
_FRAME = re.compile(
    r"border|frame|title|sheet|viewport|vport|page|format|paper|nest|stock|rahmen|schriftfeld|blatt|cartouche|cadre|marco|"
    r"plaat|platte|tafel|kader",
    re.IGNORECASE,
)
#: What stands in the boxes of a title block.
_TITLE = re.compile(
    r"^\s*(scale|date|drawn|checked|approved|title|sheet|rev(ision)?|drawing|dwg|project|material|size|page|name|tol(erance)?s?|"
    r"ma(ß|ss)stab|datum|gezeichnet|gepr(ü|ue)ft|benennung|blatt|echelle|échelle|escala|fecha)\b",
    re.IGNORECASE,
)
#: Long side over short side of sheets of paper, and sizes in mm of sheets that parts are nested on.
_RATIOS = (2**0.5, 11 / 8.5, 17 / 11, 22 / 17, 34 / 22, 44 / 34)
_SHEETS = (
    (2440, 1220),
    (2500, 1250),
    (2800, 2070),
    (3050, 1525),
    (1525, 1525),
    (2100, 1050),
    (3100, 1530),
)
#: What must speak for a frame that no word names.
_ENOUGH = 3


@dataclass
class _Node:
    outline: Outline
    shape: Polygon
    children: list["_Node"] = field(default_factory=list)
    words: list[Words] = field(default_factory=list)  # that stand in it and in nothing smaller

    @property
    def texts(self) -> list[str]:
        return [w.text for w in self.words]

    @property
    def size(self) -> tuple[float, float]:
        x0, y0, x1, y1 = self.shape.bounds
        return max(x1 - x0, y1 - y0), min(x1 - x0, y1 - y0)

    @property
    def square(self) -> bool:
        x0, y0, x1, y1 = self.shape.bounds
        return bool(self.shape.area > 0.99 * (x1 - x0) * (y1 - y0))

    def below(self) -> list["_Node"]:
        return [n for child in self.children for n in (child, *child.below())]


def sort_out(
    outlines: Sequence[Outline], words: Sequence[Words], settings: Settings, system: System
) -> tuple[list[Outline], tuple[Decision, ...], set[Words]]:
    """The outlines that are parts, a decision on every other one, and the words of the title block,
    which name no part.
    """
    roots = _tree(outlines, words)
    sorter = _Sorter(settings, system, everything=len(outlines))
    sorter.boxes = _title_boxes([n for root in roots for n in (root, *root.below())])
    for root in roots:
        sorter.sort(root, alone=len(roots) == 1)
    return [o for o in outlines if o.ref in sorter.parts], sorter.decisions(), sorter.titles


class _Sorter:
    def __init__(self, settings: Settings, system: System, everything: int) -> None:
        self.settings = settings
        self.system = system
        self.everything = everything
        self.parts: set[str] = set()
        self.titles: set[Words] = set()
        self.boxes: set[str] = set()  # of the title block
        self.found: dict[
            str, tuple[str, str, str, list[str]]
        ] = {}  # key: kind, what, its turn, refs

    def decisions(self) -> tuple[Decision, ...]:
        return tuple(
            Decision(
                key, kind, tuple(refs), what.format(n=len(refs)), turn, key in self.settings.turned
            )
            for key, (kind, what, turn, refs) in self.found.items()
        )

    def sort(self, node: _Node, alone: bool) -> None:
        """A node that lies in no part: a frame, a box of the title block, or a part with what lies
        in it.
        """
        if (
            node.children
            and _is_frame(node, alone)
            and self._decide(
                "frame",
                node,
                f"A frame: the outline of {self._size(node)} round {len(node.children)} others",
                "It is a part",
            )
        ):
            for child in node.children:
                self.sort(child, alone=len(node.children) == 1)
        elif node.outline.ref in self.boxes and self._decide(
            "title block", node, self._box(node), "It is a part"
        ):
            self.titles.update(node.words)
        else:
            self.parts.add(node.outline.ref)
            for child in node.children:
                self._inside(node, child)

    def _inside(self, host: _Node, node: _Node) -> None:
        """What lies in a part is a cut-out of it, unless it is named; what lies in a cut-out is
        looked at by itself.
        """
        # Words that begin in a bore are the part's: they run over its edge.
        bore = node.outline.circle and node.size[0] < host.size[1] / 2
        if node.outline.name not in ("", host.outline.name) or (
            not bore and any(_names(text) for text in node.texts)
        ):
            cut = not self._decide(
                "inside",
                node,
                f"A part by itself, for the words in it: {{n}} of {self._size(node)} in the "
                f"outline of "
                f"{self._size(host)}",
                "It is a cut-out",
                host,
            )
        elif node.outline.circle:
            cut = self._decide("holes", node, "Round holes in parts: {n}", "They are discs", None)
        else:
            cut = self._decide(
                "cut-out",
                node,
                f"Cut-outs: {{n}} of {self._size(node)} in the outline of {self._size(host)}",
                "It is a part",
                host,
            )
        if not cut:
            self.parts.add(node.outline.ref)
        for child in node.children:
            if cut:
                self.sort(child, alone=False)
            else:
                self._inside(node, child)

    def _decide(
        self, kind: str, node: _Node, what: str, turn: str, host: _Node | None = None
    ) -> bool:
        """Note the decision; whether it stands. The key is that of the same thing in a newer
        version of the drawing.
        """
        place = (
            ""
            if kind == "holes"
            else f":{node.outline.layer}:{_plain(node)}" + (f":{_plain(host)}" if host else "")
        )
        key = f"{kind}{place}"
        refs = self.found.setdefault(key, (kind, what, turn, []))[3]
        refs.append(node.outline.ref)
        return key not in self.settings.turned

    def _box(self, node: _Node) -> str:
        words = f" with '{node.texts[0][:40]}'" if node.texts else ", empty"
        return f"Title block: the box of {self._size(node)}{words}"

    def _size(self, node: _Node) -> str:
        long, short = node.size
        return f"{about(long * 320, self.system)} × {about(short * 320, self.system, unit=True)}"


def _title_boxes(nodes: Sequence[_Node]) -> set[str]:
    """Boxes with the words of a title block, and those that stand against them, whatever is written
    there.
    """
    boxes = [n for n in nodes if not n.children and n.square and not n.outline.name]
    found = [n for n in boxes if any(_TITLE.search(text) for text in n.texts)]
    if not found:
        return set()
    largest = 6 * max(float(n.shape.area) for n in found)
    index = STRtree([n.shape for n in boxes])
    taken = {n.outline.ref for n in found}
    while found:
        node = found.pop()
        for k in index.query(node.shape.buffer(1e-3 * node.size[0])):
            other = boxes[k]
            if other.outline.ref in taken or float(other.shape.area) > largest:
                continue
            against = other.shape.exterior.intersection(
                node.shape.exterior.buffer(1e-3 * node.size[1])
            )
            if float(against.length) > node.size[1] / 4:
                taken.add(other.outline.ref)
                found.append(other)
    return taken


def _plain(node: _Node) -> str:
    return "x".join(f"{s:.0f}" for s in node.size)


def _names(text: str) -> bool:
    """Whether words name a thing: letters that are more than a figure's sign, or three sizes."""
    said = understand(text, "mm")
    name = re.sub(r"\b(thru|through|deep|dia|typ|rad)\b", "", said.name)
    return len(said.sizes) == 3 or bool(re.search(r"[^\W\d_]{3,}", name))


def _is_frame(node: _Node, alone: bool) -> bool:
    if _FRAME.search(node.outline.layer) or _FRAME.search(node.outline.name):
        return True
    drawn = [c for c in node.children if not c.outline.circle]
    x0, y0, x1, y1 = node.shape.bounds
    # A sheet's frame may have its title block cut out of a corner.
    filled = float(node.shape.area) > (0.9 if len(drawn) > 1 else 0.99) * (x1 - x0) * (y1 - y0)
    if not filled or not drawn or node.outline.name or node.outline.thickness:
        return False
    long, short = node.size
    paper = any(abs(long / short - ratio) < 0.01 * ratio for ratio in _RATIOS)
    panel = any(abs(long - a) < 15 and abs(short - b) < 15 for a, b in _SHEETS)
    called = any(_names(text) and not _TITLE.search(text) for text in node.texts)
    if not (alone or paper or panel or len(drawn) >= 3) or (called and len(drawn) < 3):
        return False
    speaks = [
        2 * any(_names(text) for c in drawn for text in c.texts),
        2 * (len(drawn) > 1 and any(c.children for c in drawn)),
        any(c.outline.layer != node.outline.layer for c in drawn),
        len(drawn) >= 3,
        paper,
        panel,
        sum(c.shape.area for c in drawn) > 0.3 * node.shape.area,
        alone,
        2 * any(c.outline.name for c in drawn),
    ]
    return sum(int(s) for s in speaks) >= _ENOUGH


def _tree(outlines: Sequence[Outline], words: Sequence[Words]) -> list[_Node]:
    """Each outline in the smallest one that holds it, each text in the smallest it stands in; those
    in none.
    """
    nodes = [_Node(o, Polygon(o.points).buffer(0)) for o in outlines]
    nodes = [n for n in nodes if n.shape.area > 0]
    index = STRtree([n.shape for n in nodes])
    roots: list[_Node] = []
    for node in nodes:
        point = node.shape.representative_point()
        hosts = [
            n
            for n in (nodes[k] for k in index.query(point))
            if n is not node
            and n.shape.area > node.shape.area
            and n.shape.buffer(1e-6).contains(node.shape)
        ]
        host = min(hosts, key=lambda n: float(n.shape.area), default=None)
        (host.children if host else roots).append(node)
    for word in words:
        at = Place(word.at)
        inside = [nodes[k] for k in index.query(at) if nodes[k].shape.contains(at)]
        if inside:
            min(inside, key=lambda n: float(n.shape.area)).words.append(word)
    return roots
