"""Outlines that lie exactly on each other: a fill and its line, or one shape on two layers. They
count once, unless it is said that both do.
"""

from collections.abc import Sequence

from shapely import STRtree
from shapely.geometry import Polygon

from vividplank.core.takeoff.model.found import Decision, Settings, counted
from vividplank.core.takeoff.outlines.outline import Outline

#: What sticks out of either is less than this share of it.
_ONE = 1e-3


def drawn_once(
    outlines: Sequence[Outline], settings: Settings
) -> tuple[list[Outline], tuple[Decision, ...]]:
    """The outlines without those that lie on another; of two the one that has a name stays, else
    the first.
    """
    shapes = [Polygon(o.points).buffer(0) for o in outlines]
    index = STRtree(shapes)
    order = sorted(range(len(outlines)), key=lambda k: not outlines[k].name)
    gone: dict[int, int] = {}
    for k in order:
        if k in gone:
            continue
        for j in index.query(shapes[k]):
            if (
                j == k
                or j in gone
                or outlines[j].name not in ("", outlines[k].name)
                or not _on(shapes[k], shapes[j])
            ):
                continue
            if j not in gone.values():
                gone[int(j)] = k
    doubles: dict[str, tuple[str, list[str]]] = {}
    for j, k in gone.items():
        on, by = outlines[j].layer, outlines[k].layer
        where = f" on '{on}', as on '{by}'" if on != by else ""
        doubles.setdefault(f"twice:{on}:{by}", (where, []))[1].append(outlines[j].ref)
    decisions = tuple(
        Decision(
            key,
            "twice",
            tuple(refs),
            f"Drawn twice, counted once: {counted(len(refs), 'outline')}{where}",
            "They count as well",
            key in settings.turned,
        )
        for key, (where, refs) in doubles.items()
    )
    left_out = {ref for d in decisions if not d.turned for ref in d.refs}
    return [o for o in outlines if o.ref not in left_out], decisions


def _on(one: Polygon, other: Polygon) -> bool:
    reach = _ONE * float(one.length)
    if any(abs(a - b) > reach for a, b in zip(one.bounds, other.bounds, strict=True)):
        return False
    return float(one.symmetric_difference(other).area) < _ONE * float(one.area)
