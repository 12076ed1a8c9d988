"""What a board is worth to a list, given what is in the cart: the value of what the cart gives with
it less that without it.

The value of a set of boards is the best choice of one cutting pattern for each, by the values of
the parts (values.py): a set packing program over patterns that were found for every board when it
was looked at, so that two sets are compared over the same patterns and a difference is not noise.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from random import Random
from typing import Any

from scipy.stats import norm

from vividplank.core.board import Board
from vividplank.core.buying.chance.estimate import SURE
from vividplank.core.buying.chance.values import Values
from vividplank.core.job import Job
from vividplank.core.layout.model.item_types import ItemType, item_types
from vividplank.core.layout.model.pattern import (
    CuttingPattern,
    PatternBlank,
    PatternSegment,
    PatternStrip,
)
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.layout.search.restricted_master import RestrictedMaster
from vividplank.core.measure import TICKS_PER_64TH, TICKS_PER_MM

#: Patterns are sought for the whole list, for what is still wanted, and for parts of either.
_AT_RANDOM = 3
#: Search effort, for all that is wanted and for a part of it: ways followed side by side, and tried
#: to go on with each.
_BROAD, _NARROW = (3, 4), (2, 2)
#: Seconds at most to choose the patterns of a cart, and the share of its value that the choice may
#: be off.
_SECONDS, _GAP = 2.0, 5e-4
#: Standard deviations of a normal error with nine chances of ten.
_WIDE = float(norm.ppf((1 + SURE) / 2))
Patterns = tuple[CuttingPattern, ...]


@dataclass(frozen=True)
class Cart:
    """What a set of boards gives: the pattern of each, the units still wanted, and its value."""

    patterns: dict[str, CuttingPattern]
    remaining: tuple[int, ...]
    value: float

    @property
    def whole(self) -> bool:
        return not any(self.remaining)


@dataclass(frozen=True)
class Worth:
    """`value` is what the list costs less to complete with this board, give or take `error` with
    nine chances of ten (None where no purchase was simulated); `pattern` what it gives then.
    """

    value: float
    error: float | None
    pattern: CuttingPattern | None
    before: Cart
    after: Cart


class Judge:
    """Says what boards are worth to one list."""

    def __init__(self, job: Job, values: Values, seed: int = 1) -> None:
        """`job` is the list of one wood and quarter."""
        self.job = job
        self.types: list[ItemType] = item_types(job)
        self.of_units = values
        self.values = values.units
        self._profits = [  # for a volume, as generators ask
            v * (w.width if w.is_panel else 1) / w.volume
            for v, w in zip(values.units, self.types, strict=True)
        ]
        self.last = values.last
        self.cost = values.cost
        self.demand = [w.width if w.is_panel else w.count for w in self.types]
        self.seed = seed
        self.narrowest = min((w.stave_least or w.width for w in self.types), default=0)
        self.mark = TICKS_PER_64TH if job.unit == "in" else TICKS_PER_MM // 2

    def patterns(self, board: Board, remaining: Sequence[int], tries: int = _AT_RANDOM) -> Patterns:
        """Ways to cut a board, for the whole list and for what is still wanted, and for as many
        random parts of both.
        """
        face = self.job.shop.allowance.face
        lying = board.thickened(face) if board.lies_flat else board
        generator = PatternGenerator(lying, self.job.shop, self.types, self.mark)
        rng = Random(f"{self.seed} {board.id}")
        wanted = [self.demand, list(remaining)]
        wanted += [
            [
                n if w.is_panel and rng.random() < 0.5 else round(n * rng.random())
                for w, n in zip(self.types, base, strict=True)
            ]
            for base in (self.demand, remaining) * tries
        ]
        found: dict[tuple[tuple[int, int], ...], CuttingPattern] = {}
        for n, amounts in enumerate(wanted):
            if any(amounts):
                beam, among = _BROAD if n < 2 else _NARROW
                for pattern in generator.cut(amounts, self._profits, rng, beam, among):
                    found.setdefault(pattern.taken, pattern)
        return tuple(found.values())

    def cart(self, boards: Sequence[tuple[str, Patterns]]) -> Cart:
        """The best that boards give together; each under its mark with its patterns."""
        master = RestrictedMaster([0.0] * len(boards), self.demand, self.values)
        for k, (_, patterns) in enumerate(boards):
            for pattern in patterns:
                master.add(k, pattern)
        chosen = master.solve(_SECONDS, self.values, _GAP) or {}
        return self._chosen({boards[k][0]: p for k, p in chosen.items()})

    def _chosen(self, patterns: dict[str, CuttingPattern]) -> Cart:
        got = [0] * len(self.types)
        for pattern in patterns.values():
            for index, amount in pattern.taken:
                got[index] += amount
        remaining = tuple(max(0, d - g) for d, g in zip(self.demand, got, strict=True))
        value = sum(
            v * (d - r) for v, d, r in zip(self.values, self.demand, remaining, strict=True)
        ) + (0.0 if any(remaining) else self.last)
        return Cart(patterns, remaining, value)

    def worth(
        self,
        cart: Sequence[tuple[str, Patterns]],
        mark: str,
        patterns: Patterns,
        before: Cart | None = None,
    ) -> Worth:
        """Of a board with these patterns, beside a cart; `before` is what that gives, where it is
        known.
        """
        before = before or self.cart(cart)
        after = self.cart([*cart, (mark, patterns)])
        # Either choice is one for the other set too; where the clock has stopped one of them short
        # of the best, a difference that is only that must not be called a worth.
        beside = (self._chosen({**before.patterns, mark: p}) for p in patterns)
        after = max((after, *beside), key=lambda c: c.value)
        rest = {m: p for m, p in after.patterns.items() if m != mark}
        before = max(before, self._chosen(rest), key=lambda c: c.value)
        gained = [b - a for b, a in zip(before.remaining, after.remaining, strict=True)]
        off = self.of_units.deviation(gained)
        return Worth(
            max(0.0, after.value - before.value),
            None if off is None else _WIDE * off,
            after.patterns.get(mark),
            before,
            after,
        )


def patterns_to_rows(patterns: Patterns) -> list[Any]:
    """As JSON values."""
    return [list(p) for p in patterns]


def patterns_from_rows(rows: Sequence[Any]) -> Patterns:
    """What `patterns_to_rows` has written."""
    return tuple(
        CuttingPattern(
            tuple(
                PatternSegment(
                    x0,
                    x1,
                    y0,
                    slope,
                    tuple(
                        PatternStrip(
                            low,
                            high,
                            tuple(
                                PatternBlank(a, b, tuple(tuple(layer) for layer in layers))
                                for a, b, layers in blanks
                            ),
                        )
                        for low, high, blanks in strips
                    ),
                )
                for x0, x1, y0, slope, strips in segments
            ),
            tuple((index, amount) for index, amount in taken),
        )
        for segments, taken in rows
    )
