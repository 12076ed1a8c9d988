"""How often a setting may be made: as gathered, and once more where some of its steps wait."""

from collections import Counter
from collections.abc import Collection, Iterable, Sequence
from dataclasses import replace

from vividplank.core.milling.days.day import Batch, gather
from vividplank.core.milling.model.step import Step


def with_followers(steps: Iterable[Step], first: Collection[str]) -> set[str]:
    """The keys of `first` and of all that comes after them; `steps` in an order in which they can
    be done.
    """
    found = set(first)
    for step in steps:
        if found & set(step.after):
            found.add(step.key)
    return found


def makings(steps: Sequence[Step], resting: Collection[str]) -> list[Batch]:
    """Batches in an order in which each can be done. Steps that may not be begun yet (`resting`)
    and what comes after them are gathered by themselves, behind the others.
    """
    late = with_followers(steps, resting)
    first = gather([s for s in steps if s.key not in late])
    made = Counter((b.machine, b.setup) for b in first)
    second = gather([s for s in steps if s.key in late])
    again = [replace(b, number=b.number + made[b.machine, b.setup]) for b in second]
    return _once_more(first + again)


def _once_more(batches: list[Batch]) -> list[Batch]:
    """One more making, empty at first, of every setting at which something is done that waits for a
    glue-up or a rest: it may be worth setting the machine again for it rather than letting all the
    others wait.
    """
    made = {(b.machine, b.setup): b.number for b in batches}
    steps = [s for b in batches for s in b.steps]
    held = {s.key for s in steps if s.hold}
    late = with_followers(steps, {s.key for s in steps if held & set(s.after)})
    extra = []
    for (machine, setup), number in made.items():
        here = {s.key for b in batches if (b.machine, b.setup) == (machine, setup) for s in b.steps}
        if number == 1 and here & late and here - late:
            extra.append(Batch(machine, setup, number + 1, ()))
    return batches + extra
