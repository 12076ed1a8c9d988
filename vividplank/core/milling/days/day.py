"""The shop's days: steps of all boards gathered so that settings change least, under what must come
before what.

Steps of one machine and one setting form a set-up; it may have to be made more than once where the
wood comes back to it after work elsewhere. Time is counted in working minutes, day after day
without the nights; rests and glue run through nights.
"""

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from math import ceil
from random import Random

from vividplank.core.milling.model.step import Step
from vividplank.core.milling.shop.machines import Machines
from vividplank.core.milling.shop.pace import setup_minutes
from vividplank.core.milling.shop.school import Hours

_DAY = 1440
#: Machines one sets; a hand plane or a glue-up has no setting to lose.
SET = ("crosscut saw", "jointer", "planer", "table saw", "bandsaw", "router bridge")


class CannotStand(Exception):
    """A day asked for that the rest of the work does not allow; says which and what would be
    possible.
    """


@dataclass(frozen=True)
class Setup:
    """One setting made, and the steps done at it in order. `begins` and `ends` are working minutes
    from the first morning; `number` counts the times this setting is made, from 1.
    """

    machine: str
    setup: str
    number: int
    steps: tuple[str, ...]
    begins: int
    ends: int
    people: int

    def day(self, hours: Hours) -> int:
        """The day it is begun, from 0."""
        return self.begins // hours.minutes


@dataclass(frozen=True)
class Days:
    """`setups` in the order they are begun; `minutes` until the last ends; `changes` settings made,
    `least` that no order can undercut, `piece_by_piece` what milling one board after the other
    would make; `proved` when no better order exists.
    """

    setups: tuple[Setup, ...]
    minutes: int
    changes: int
    least: int
    piece_by_piece: int
    proved: bool


def distinct_setups(steps: Iterable[Step]) -> int:
    """Every setting must be made once: no order makes fewer."""
    return len({(s.machine, s.setup) for s in steps if s.machine in SET})


def changes(steps: Iterable[Step]) -> int:
    """Settings made when the steps are done in this order."""
    at: dict[str, str] = {}
    count = 0
    for step in steps:
        if step.machine in SET and at.get(step.machine) != step.setup:
            at[step.machine] = step.setup
            count += 1
    return count


def wall(minute: int, hours: Hours) -> int:
    """Minutes by the clock since the first morning, of a working minute."""
    return minute + minute // hours.minutes * (_DAY - hours.minutes)


def working(clock: int, hours: Hours) -> int:
    """The first working minute that is not before a minute by the clock."""
    day, rest = divmod(clock, _DAY)
    return day * hours.minutes + min(rest, hours.minutes)


def tenths(minutes: float) -> int:
    """Tenths of a minute, rounded up: times are added as whole numbers."""
    return ceil(10 * minutes - 1e-9)


@dataclass(frozen=True)
class Batch:
    """Steps done at one making of one setting."""

    machine: str
    setup: str
    number: int
    steps: tuple[Step, ...]

    def minutes(self, machines: Machines) -> int:
        """With making the setting, in whole minutes."""
        return max(
            1,
            -(
                -(
                    tenths(setup_minutes(self.machine, machines))
                    + sum(tenths(s.minutes) for s in self.steps)
                )
                // 10
            ),
        )

    @property
    def people(self) -> int:
        return max((s.people for s in self.steps), default=1)


def gather(steps: Sequence[Step], tries: int = 0) -> list[Batch]:
    """Batches in an order in which each can be done, with as few makings of settings as were found.

    Always the setting of which the largest share of what is left is ready; then `tries` times with
    some chance in it (by default the more the fewer steps there are), the best of them. A step may
    follow another of its own batch.
    """
    best = _gathered(steps, None)
    rng = Random(1)
    for _ in range(tries or min(300, 60_000 // (len(steps) + 1))):
        found = _gathered(steps, rng)
        if _makings(found) < _makings(best):
            best = found
    return best


def _makings(batches: Sequence[Batch]) -> tuple[int, int]:
    return sum(b.machine in SET for b in batches), len(batches)


def _gathered(steps: Sequence[Step], rng: Random | None) -> list[Batch]:
    left: dict[str, Step] = {s.key: s for s in steps}
    members: defaultdict[tuple[str, str], list[Step]] = defaultdict(list)
    for s in steps:
        members[s.machine, s.setup].append(s)
    made: Counter[tuple[str, str]] = Counter()
    found: list[Batch] = []
    while left:
        best: tuple[tuple[float, int, int], tuple[str, str], list[Step]] | None = None
        for n, (place, listed) in enumerate(members.items()):
            ready = _ready(listed, left)
            if not ready:
                continue
            # All that is left of a setting first; then the largest share of one; a rest that must
            # run is begun early.
            share = len(ready) / len(listed)
            chance = rng.random() if rng and share < 1 else 0.0
            resting = any(s.hold for s in ready) and share == 1
            rank = (
                share + chance + (0.5 if resting else 0.0) + (1.0 if share == 1 else 0.0),
                len(ready),
                -n,
            )
            if best is None or rank > best[0]:
                best = rank, place, ready
        assert best, "steps wait for one another in a ring"
        _, place, ready = best
        made[place] += 1
        found.append(Batch(*place, made[place], tuple(ready)))
        gone = {s.key for s in ready}
        for s in ready:
            del left[s.key]
        members[place] = [s for s in members[place] if s.key not in gone]
        if not members[place]:
            del members[place]
    return found


def _ready(listed: Sequence[Step], left: Mapping[str, Step]) -> list[Step]:
    """Steps that can be done one after the other at this setting now."""
    gone: set[str] = set()
    ready = []
    for s in listed:  # in the order of the routes, so what comes before is met before
        if s.key in left and all(
            k not in left or (k in gone and not left[k].hold) for k in s.after
        ):
            ready.append(s)
            gone.add(s.key)
    return ready
