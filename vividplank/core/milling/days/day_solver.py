"""The order of the shop's days by CP-SAT: which making of a setting each step goes to, and when
each is made.
"""

from collections import defaultdict
from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import Any

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.days.day import (
    SET,
    Batch,
    CannotStand,
    Days,
    Setup,
    changes,
    distinct_setups,
    tenths,
    wall,
    working,
)
from vividplank.core.milling.days.makings import makings, with_followers
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.shop.pace import setup_minutes
from vividplank.core.milling.shop.school import Milling

#: Minutes that one setting weighs against the end of the work, beyond the time it takes.
_SETTING = 15
_DAY = 1440
#: More than all steps can add up to for being done at a later making of their setting.
_TIE = 100_000
_SQUARE_FOOT = (12 * TICKS_PER_INCH) ** 2


def plan_days(
    steps: Sequence[Step],
    milling: Milling,
    seconds: float = 7.0,
    on_day: Mapping[str, int] | None = None,
    workers: int = 2,
    ready: Mapping[str, int] | None = None,
) -> Days:
    """All steps over the shop's days. `ready` is when a step may be begun at the earliest (its
    release date), by key, in minutes by the clock from the first morning. `on_day` names a setting
    ("planer 6604", or its second making "planer 6604 2") and the day (from 0) it is to be begun;
    CannotStand where the rest does not allow it. The same steps give the same days where the solver
    proves its order the best within its time.
    """
    if not steps:
        return Days((), 0, 0, 0, 0, True)
    ready = ready or {}
    batches = makings(steps, ready)
    model = _Model(batches, milling, on_day or {}, ready)
    starts, proved = model.solve(seconds, workers)
    setups = tuple(
        sorted(
            (
                Setup(
                    b.machine,
                    b.setup,
                    b.number,
                    tuple(s.key for s in listed),
                    start,
                    start + length,
                    max(s.people for s in listed),
                )
                for b, listed, start, length in starts
            ),
            key=lambda s: (s.begins, s.ends),
        )
    )
    by_key = {s.key: s for s in steps}
    return Days(
        setups,
        max(s.ends for s in setups),
        changes(by_key[k] for s in setups for k in s.steps),
        distinct_setups(steps),
        changes(steps),
        proved,
    )


class _Model:
    """Batches as intervals; a setting that the gathering had to make more than once may take its
    steps at any making.
    """

    def __init__(
        self,
        batches: Sequence[Batch],
        milling: Milling,
        on_day: Mapping[str, int],
        ready: Mapping[str, int],
    ) -> None:
        from ortools.sat.python import (
            cp_model,  # a second to import; only who plans a day pays for it
        )

        self.cp: Any = cp_model
        self.batches = batches
        self.milling = milling
        self.model = cp_model.CpModel()
        self.hours = milling.hours
        self.ready = ready
        self.horizon = self._horizon(on_day)
        self.places: defaultdict[tuple[str, str], list[int]] = defaultdict(list)
        for n, b in enumerate(batches):
            self.places[b.machine, b.setup].append(n)
        self.greedy = {s.key: n for n, b in enumerate(batches) for s in b.steps}
        self.steps = {s.key: s for b in batches for s in b.steps}
        self.days: dict[tuple[int, bool], Any] = {}
        self.pinned: list[tuple[str, int, int]] = []
        self._intervals()
        self._precedence()
        self._release()
        self._floor()
        for name, day in on_day.items():
            self._pin(name, day)

    def _horizon(self, on_day: Mapping[str, int]) -> int:
        work = sum(b.minutes(self.milling.machines) for b in self.batches)
        holds = sum(max((s.hold for s in b.steps), default=0) for b in self.batches)
        days = holds // _DAY + max(on_day.values(), default=0) + 4
        days += max(self.ready.values(), default=0) // _DAY + 1
        nights = sum(1 for b in self.batches if any(s.hold for s in b.steps))
        return int(work + (days + nights) * self.hours.minutes)

    def _intervals(self) -> None:
        m, machines = self.model, self.milling.machines
        self.start: list[Any] = []
        self.lengths: dict[int, Any] = {}
        self.end: list[Any] = []
        self.there: dict[tuple[str, int], Any] = {}
        self.used: list[Any] = []
        by_machine: defaultdict[str, list[Any]] = defaultdict(list)
        people: list[Any] = []
        for n, b in enumerate(self.batches):
            start, end = (
                m.new_int_var(0, self.horizon, f"start {n}"),
                m.new_int_var(0, self.horizon, f"end {n}"),
            )
            ns = self._makings(n)
            if len(ns) == 1:
                length: Any = b.minutes(machines)
                used: Any = 1
                interval = m.new_interval_var(start, length, end, f"batch {n}")
            else:
                listed = [s for k in ns for s in self.batches[k].steps]
                for s in listed:
                    self.there[s.key, n] = m.new_bool_var(f"{s.key} in {n}")
                used = m.new_bool_var(f"used {n}")
                for s in listed:
                    m.add_implication(self.there[s.key, n], used)
                work = sum(tenths(s.minutes) * self.there[s.key, n] for s in listed)
                work += tenths(setup_minutes(b.machine, machines)) * used
                length = m.new_int_var(0, self.horizon, f"length {n}")
                m.add(10 * length >= work)
                m.add(10 * length <= work + 9)
                self.lengths[n] = length
                interval = m.new_optional_interval_var(start, length, end, used, f"batch {n}")
            self.start.append(start)
            self.end.append(end)
            self.used.append(used)
            if b.machine in SET:
                by_machine[b.machine].append(interval)
            people.append(
                (interval, min(max(self.batches[k].people for k in ns), self.hours.people))
            )
        for ns in self.places.values():
            for key in (
                sorted({s.key for n in ns for s in self.batches[n].steps}) if len(ns) > 1 else ()
            ):
                m.add_exactly_one(self.there[key, n] for n in ns)
            for one, two in pairwise(ns):
                m.add(self.start[two] >= self.end[one]).only_enforce_if(
                    self.used[one], self.used[two]
                )
        for intervals in by_machine.values():
            m.add_no_overlap(intervals)
        m.add_cumulative([i for i, _ in people], [p for _, p in people], self.hours.people)
        last = m.new_int_var(0, self.horizon, "last")
        m.add_max_equality(last, self.end)
        setups = sum(u for n, u in enumerate(self.used) if self.batches[n].machine in SET)
        ends = last + (self._end_of_the_others() if self.ready else 0)
        # Of equal orders the one that does each step at the first making of its setting.
        later = sum(lit * self.batches[n].number for (_, n), lit in self.there.items())
        m.minimize(_TIE * (ends + _SETTING * setups) + later)

    def _end_of_the_others(self) -> Any:
        """When what waits for no release date is done: nobody is idle until the last board has
        rested.
        """
        late = with_followers((s for b in self.batches for s in b.steps), self.ready)
        end = self.model.new_int_var(0, self.horizon, "end of the others")
        for key in self.steps.keys() - late:
            for n, there in self._where(key):
                bound = self.model.add(end >= self.end[n])
                if there is not None:
                    bound.only_enforce_if(there)
        return end

    def _makings(self, n: int) -> list[int]:
        """All batches of one setting."""
        return self.places[self.batches[n].machine, self.batches[n].setup]

    def _where(self, key: str) -> list[tuple[int, Any]]:
        """The batches a step may be in, each with what says that it is."""
        n = self.greedy[key]
        ns = self._makings(n)
        return [(n, None)] if len(ns) == 1 else [(k, self.there[key, k]) for k in ns]

    def _precedence(self) -> None:
        seen: set[tuple[int, int, int, int, int]] = set()
        for step in self.steps.values():
            for key in step.after:
                before = self.steps.get(key)
                if before is None:
                    continue  # done already
                for a, in_a in self._where(key):
                    for b, in_b in self._where(step.key):
                        if a == b and not before.hold:
                            continue
                        marks = [lit for lit in (in_a, in_b) if lit is not None]
                        name = (
                            a,
                            b,
                            before.hold,
                            *[*sorted(lit.index for lit in marks), -1, -1][:2],
                        )
                        if name in seen:
                            continue
                        seen.add(name)
                        if a == b:
                            self.model.add_bool_or(
                                [lit.negated() for lit in marks]
                            ) if marks else self.model.add(False)
                        else:
                            self._after(a, b, before.hold, marks)

    def _after(self, a: int, b: int, hold: int, marks: Sequence[Any]) -> None:
        if not hold:
            bound = self.model.add(self.start[b] >= self.end[a])
        else:
            bound = self.model.add(self._clock(b, True) >= self._clock(a, False) + hold)
        if marks:
            bound.only_enforce_if(*marks)

    def _release(self) -> None:
        for key, clock in self.ready.items():
            if key in self.steps:
                for n, there in self._where(key):
                    bound = self.model.add(self._clock(n, True) >= clock)
                    if there is not None:
                        bound.only_enforce_if(there)

    def _clock(self, n: int, begin: bool) -> Any:
        """By the clock, when a batch begins or ends; an end at closing time is still that day's."""
        if (n, begin) not in self.days:
            long = self.hours.minutes
            minute, back = (self.start[n], 0) if begin else (self.end[n], 1)
            day = self.model.new_int_var(0, self.horizon // long, f"day {n}")
            self.model.add(minute >= day * long + back)
            self.model.add(minute < (day + 1) * long + back)
            self.days[n, begin] = day
        return (self.start[n] if begin else self.end[n]) + self.days[n, begin] * (
            _DAY - self.hours.minutes
        )

    def _floor(self) -> None:
        """What rests on stickers takes floor until it is taken up again."""
        intervals, feet = [], []
        for n, b in enumerate(self.batches):
            area = sum(s.size[0] * s.size[1] for s in b.steps if s.kind == "sticker") / _SQUARE_FOOT
            if not area:
                continue
            keys = {s.key for s in b.steps}
            taken_up = [self.greedy[s.key] for s in self.steps.values() if keys & set(s.after)]
            if not taken_up:
                continue
            until = self.model.new_int_var(0, self.horizon, f"until {n}")
            once = [k for k in set(taken_up) if len(self._makings(k)) == 1]
            self.model.add_max_equality(until, [self.end[n], *(self.start[k] for k in once)])
            long = self.model.new_int_var(0, self.horizon, f"rest {n}")
            intervals.append(self.model.new_interval_var(self.end[n], long, until, f"resting {n}"))
            feet.append(tenths(area))
        room = tenths(self.hours.floor)
        if intervals and all(f <= room for f in feet):
            self.model.add_cumulative(intervals, feet, room)

    def _pin(self, name: str, day: int) -> None:
        ns = [n for n, b in enumerate(self.batches) if name in (b.setup, f"{b.setup} {b.number}")]
        if not ns:
            raise CannotStand(f"there is no setting called {name} in this work")
        n = ns[0]
        self.pinned.append((name, n, day))
        if len(self._makings(n)) > 1:  # what is held to a day is not made empty to get round it
            self.model.add_bool_or([lit for (_, k), lit in self.there.items() if k == n])
        self.model.add(self.start[n] >= day * self.hours.minutes)
        self.model.add(self.start[n] < (day + 1) * self.hours.minutes)

    def solve(
        self, seconds: float, workers: int
    ) -> tuple[list[tuple[Batch, tuple[Step, ...], int, int]], bool]:
        """For every batch its steps, begin and length; and whether the order is proved the best."""
        starts = self._hint()
        solver = self.cp.CpSolver()
        solver.parameters.max_time_in_seconds = seconds
        solver.parameters.num_workers = workers
        solver.parameters.random_seed = 1
        state = solver.solve(self.model)
        if state not in (self.cp.OPTIMAL, self.cp.FEASIBLE):
            if not self.pinned:  # as gathered, one setting after the other: right, if not quick
                gathered = [(b, starts[n]) for n, b in enumerate(self.batches) if b.steps]
                return [
                    (b, b.steps, start, b.minutes(self.milling.machines)) for b, start in gathered
                ], False
            name, n, day = self.pinned[-1]
            earliest = starts[n] // self.hours.minutes
            raise CannotStand(
                f"{name} cannot be begun on day {day + 1}: what it needs is ready on day "
                f"{earliest + 1} at the earliest"
                if day < earliest
                else f"{name} cannot be begun on day {day + 1} with the other days that are fixed"
            )
        found = []
        for n, b in enumerate(self.batches):
            ns = self._makings(n)
            listed = (
                b.steps
                if len(ns) == 1
                else tuple(
                    s
                    for k in ns
                    for s in self.batches[k].steps
                    if solver.value(self.there[s.key, n])
                )
            )
            if listed:
                begin = solver.value(self.start[n])
                found.append((b, listed, begin, solver.value(self.end[n]) - begin))
        return found, state == self.cp.OPTIMAL

    def _hint(self) -> list[int]:
        """The gathered order one batch after the other, told to the solver; gives each batch's
        begin.
        """
        starts: list[int] = []
        ends: dict[str, int] = {}
        at = 0
        for n, b in enumerate(self.batches):
            if not b.steps:
                starts.append(at)
                self.model.add_hint(self.used[n], 0)
                continue
            for s in b.steps:
                at = max(at, working(self.ready.get(s.key, 0), self.hours))
                for key in s.after:
                    if key in ends and self.greedy[key] != n:
                        ready = wall(max(0, ends[key] - 1), self.hours) + 1 + self.steps[key].hold
                        at = max(
                            at, ends[key], working(ready, self.hours) if self.steps[key].hold else 0
                        )
            length = b.minutes(self.milling.machines)
            starts.append(at)
            self.model.add_hint(self.start[n], at)
            if (n, True) in self.days:
                self.model.add_hint(self.days[n, True], at // self.hours.minutes)
            at += length
            self.model.add_hint(self.end[n], at)
            if (n, False) in self.days:
                self.model.add_hint(self.days[n, False], (at - 1) // self.hours.minutes)
            if len(self.places[b.machine, b.setup]) > 1:
                self.model.add_hint(self.used[n], 1)
                self.model.add_hint(self.lengths[n], length)
            for s in b.steps:
                ends[s.key] = at
                for k, literal in self._where(s.key):
                    if literal is not None:
                        self.model.add_hint(literal, k == n)
        return starts
