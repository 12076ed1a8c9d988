"""A newer version of a drawing against the one before: what changed, part by part."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.takeoff.model.found import Found

#: Sizes nearer than this are the same size.
_SAME = TICKS_PER_MM // 5


@dataclass(frozen=True)
class Difference:
    """`what` names every kind of change between `before` and `after`; both are there but for gone
    and new parts.
    """

    what: tuple[Literal["same", "size", "count", "name", "new", "gone"], ...]
    before: Found | None
    after: Found | None


def differences(before: Sequence[Found], after: Sequence[Found]) -> tuple[Difference, ...]:
    """Parts are one by their name, else by their size; the order is that of the newer drawing, gone
    ones last.
    """
    left = list(before)
    pairs: list[tuple[Found | None, Found]] = []
    for wanted in (
        lambda a, b: a.name == b.name and _alike(a, b),
        lambda a, b: a.name == b.name,
        _alike,
    ):
        matched = {id(a) for _, a in pairs}
        for a in after:
            if id(a) in matched:
                continue
            found = next((b for b in left if wanted(a, b)), None)
            if found:
                left.remove(found)
                pairs.append((found, a))
    by_after = {id(a): b for b, a in pairs}
    changed = [_difference(by_after.get(id(a)), a) for a in after]
    return (*changed, *(Difference(("gone",), b, None) for b in left))


def _difference(before: Found | None, after: Found) -> Difference:
    if before is None:
        return Difference(("new",), None, after)
    what: list[Literal["same", "size", "count", "name", "new", "gone"]] = []
    if not _alike(before, after):
        what.append("size")
    if before.quantity != after.quantity:
        what.append("count")
    if before.name != after.name:
        what.append("name")
    return Difference(tuple(what) or ("same",), before, after)


def _alike(a: Found, b: Found) -> bool:
    return all(
        abs(getattr(a, s) - getattr(b, s)) <= _SAME for s in ("length", "width", "thickness")
    )
