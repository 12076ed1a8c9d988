"""What was made before the list wanted it smaller."""

from collections.abc import Collection, Iterable

from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.model.plan import Item, Made, Plan
from vividplank.core.log.state import Held

Size = tuple[int, int, int]
#: A piece is made to a size that it has but for so many ticks.
_EXACT = 2


def made_before(
    now: Job, before: Job, plan: Plan, pieces: Iterable[Held], lost: Iterable[Item]
) -> tuple[Made, ...]:
    """Of the pieces (in work or finished) of a plan for the job `before`: which had been brought to
    a size over that of the job as it is now, after what the plan itself says was made before. What
    is `lost` stays as it was for the job before, whatever the list wants by now.
    """
    parts = {p.id: p for p in now.parts}
    old = {p.id: p for p in before.parts}
    known = {(m.part, m.n): m.sizes for m in plan.made}
    found: dict[tuple[str, int], Size] = {}
    for held in pieces:
        units = {(i.part, i.n) for i in held.items}
        for part, n in units:
            if part not in parts or parts[part].glued_up or parts[part].fitted:
                continue
            whole = len(units) == 1 and (held.state == "finished" or not _staves(held))
            size = _made(held, parts[part], old[part], whole)
            was = found.get((part, n), size)
            found[part, n] = (max(size[0], was[0]), max(size[1], was[1]), max(size[2], was[2]))
    found |= {(i.part, i.n): _size(old[i.part]) for i in lost if i.part in parts and i.part in old}
    made = []
    for part, n in sorted({*found, *known}):
        sizes = known.get((part, n), ())
        if (part, n) not in found:
            made.append(Made(part, n, sizes))
            continue
        size = found[part, n]
        if size != _size(parts[part]) and size != (sizes[-1] if sizes else None):
            sizes = (*sizes, size)
        if sizes:
            made.append(Made(part, n, sizes))
    return tuple(made)


def _staves(held: Held) -> Collection[int]:
    return [i.stave for i in held.items if i.stave]


def _made(held: Held, part: Part, old: Part, whole: bool) -> Size:
    """Of each dimension what it was made to where the list wants less by now, else what the list
    wants. Only a piece that is `whole` tells of length and width.
    """
    body = held.body

    def one(there: int, before: int, wanted: int) -> int:
        return before if wanted + _EXACT < there <= before + _EXACT else wanted

    return (
        one(body.length, old.length, part.length) if whole else part.length,
        one(body.width, old.width, part.width) if whole else part.width,
        one(body.thick, old.thickness, part.thickness),
    )


def _size(part: Part) -> Size:
    return part.length, part.width, part.thickness
