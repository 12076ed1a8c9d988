"""From what boards hold by item type to a plan that names every instance; of a panel that is not
whole nothing is placed.
"""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence

from vividplank.core.layout.model.fixings import pinned, with_pinned
from vividplank.core.layout.model.item_types import ItemType
from vividplank.core.layout.model.pattern import CuttingPattern, PatternSegment
from vividplank.core.layout.model.plan import Blank, BoardPlan, Item, Plan, Segment, Strip
from vividplank.core.layout.model.solution import Solution


def whole_panels(item_types: Sequence[ItemType], solution: Solution) -> list[int]:
    """What is left of each item type, where a panel of more staves than it may have is not made."""
    staves = Counter(
        index
        for pattern in solution.patterns
        for segment in pattern.segments
        for strip in segment.strips
        for blank in strip.blanks
        for layer in blank.layers
        for index in layer
    )
    return [
        max(1, n) if w.is_panel and staves[w.index] > w.staves_most else n
        for w, n in zip(item_types, solution.remaining, strict=True)
    ]


class Named:
    """Instances given out in order. `remaining` is what is not placed of each item type, `staves`
    the last stave a pinned panel has.
    """

    def __init__(
        self,
        item_types: Sequence[ItemType],
        remaining: Sequence[int],
        staves: dict[Item, int],
        held: dict[str, tuple[Segment, ...]],
    ) -> None:
        self.item_types = item_types
        self.remaining = remaining
        self.held = held
        self.waiting = {w.index: list(w.members) for w in item_types}
        self.staves = {w.index: staves.get(w.members[0][0], 0) for w in item_types}
        self.broken = {
            w.index for w, n in zip(item_types, remaining, strict=True) if w.is_panel and n > 0
        }

    def boards(
        self, ids: Iterable[str], patterns: Sequence[CuttingPattern]
    ) -> tuple[BoardPlan, ...]:
        """The boards that are cut, with what is pinned in its places."""
        found: list[BoardPlan] = []
        for board, pattern in zip(ids, patterns, strict=True):
            segments = tuple(named for s in pattern.segments if (named := self._segment(s)))
            if segments:
                found.append(BoardPlan(board, segments))
        return with_pinned(Plan(tuple(found)), self._whole_pins())

    def missing(self) -> Iterator[tuple[ItemType, Sequence[tuple[Item, ...]]]]:
        """The item types of which something is left out, and what; asked when all boards are
        named.
        """
        for item_type, remaining in zip(self.item_types, self.remaining, strict=True):
            if remaining > 0:
                yield (
                    item_type,
                    item_type.members
                    if item_type.is_panel
                    else tuple(self.waiting[item_type.index]),
                )

    def _segment(self, s: PatternSegment) -> Segment | None:
        strips: list[Strip] = []
        for t in s.strips:
            blanks = [
                Blank(k.x0, k.x1, layers)
                for k in t.blanks
                if (layers := tuple(named for layer in k.layers for named in self._layers(layer)))
            ]
            if blanks:
                strips.append(Strip(t.y0, t.y1, tuple(blanks)))
        return Segment(s.x0, s.x1, s.y0, s.slope, tuple(strips)) if strips else None

    def _layers(self, layer: tuple[int, ...]) -> Iterator[tuple[Item, ...]]:
        """A layer as it is; of a unit that is opened like a book each item is one."""
        items = self._items(layer)
        if layer and self.item_types[layer[0]].opened:
            for item in items:
                yield (item,)
        elif items:
            yield items

    def _items(self, layer: tuple[int, ...]) -> tuple[Item, ...]:
        named: list[Item] = []
        for index in layer:
            item_type = self.item_types[index]
            if item_type.is_panel:
                if index in self.broken:
                    continue
                self.staves[index] += 1
                first = item_type.members[0][0]
                named.append(Item(first.part, first.n, self.staves[index]))
            else:
                named += self.waiting[index].pop(0)
        return tuple(named)

    def _whole_pins(self) -> dict[str, tuple[Segment, ...]]:
        """What is pinned, without the staves of panels that could not be made whole."""
        gone = {self.item_types[index].members[0][0] for index in self.broken}
        pins = [
            i
            for segments in self.held.values()
            for s in segments
            for _, b in s.blanks()
            for i in b.items()
            if Item(i.part, i.n) not in gone
        ]
        return pinned(Plan(tuple(BoardPlan(b, s) for b, s in self.held.items())), pins)
