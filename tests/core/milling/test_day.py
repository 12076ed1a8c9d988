"""The shop's days: what must come first, rests that run through nights, settings gathered, days
fixed by hand.
"""

import json
import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.milling.test_milling import HAND_JOB, HAND_PLAN
from tests.core.milling.test_simulate import INCH
from tests.profiles import examples
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.milling import Milling, Step, routes
from vividplank.core.milling.days.compare import advise, compare
from vividplank.core.milling.days.day import (
    SET,
    CannotStand,
    Days,
    changes,
    distinct_setups,
    gather,
    wall,
    working,
)
from vividplank.core.milling.days.day_solver import plan_days
from vividplank.core.milling.days.resting import not_begun, ready_from, resting
from vividplank.core.milling.shop.pace import setup_minutes
from vividplank.core.milling.shop.school import SCHOOLS, Hours
from vividplank.core.timber import wood_named
from vividplank.core.timber.rest import Climate, Moisture, rest

EIGHT_HOURS = Hours(8 * 60, 16 * 60)


def step(
    key: str, setup: str, minutes: float = 10, after: str = "", hold: int = 0, people: int = 1
) -> Step:
    machine = setup.split()[0]
    return Step(
        key,
        {"saw": "table saw"}.get(machine, machine),
        "",
        setup=setup,
        minutes=minutes,  # type: ignore[arg-type]
        after=tuple(after.split()),
        hold=hold,
        people=people,
    )


def wrong(days: Days, steps: list[Step], milling: Milling) -> list[str]:
    """What a plan of days breaks, checked from the steps alone: every step once, after what it
    waits for and its hold, no machine and nobody at two things at once, time enough for each
    setting.
    """
    found = []
    hours = milling.hours
    at = {key: n for n, s in enumerate(days.setups) for key in s.steps}
    if sorted(at) != sorted(s.key for s in steps) or sum(len(s.steps) for s in days.setups) != len(
        steps
    ):
        found.append("not every step once")
    by_key = {s.key: s for s in steps}
    for s in steps:
        for key in s.after:
            if key not in at:
                continue
            before, mine = days.setups[at[key]], days.setups[at[s.key]]
            if before is mine:
                if by_key[key].hold or mine.steps.index(key) > mine.steps.index(s.key):
                    found.append(f"{s.key} before {key} at one setting")
            elif (
                wall(mine.begins, hours)
                < wall(max(0, before.ends - 1), hours) + bool(before.ends) + by_key[key].hold
            ):
                found.append(f"{s.key} does not wait for {key}")
    for n, one in enumerate(days.setups):
        need = setup_minutes(one.machine, milling.machines) + sum(
            by_key[k].minutes for k in one.steps
        )
        if one.ends - one.begins < need - 1e-6:
            found.append(f"{one.setup} is given too little time")
        for other in days.setups[n + 1 :]:
            over = one.begins < other.ends and other.begins < one.ends
            if over and one.machine == other.machine and one.machine in SET:
                found.append(f"{one.setup} and {other.setup} at once")
        busy = sum(
            min(o.people, hours.people) for o in days.setups if o.begins <= one.begins < o.ends
        )
        if busy > hours.people:
            found.append(f"{busy} people at work at {one.begins}")
    if {(s.machine, s.setup) for s in days.setups} != {(s.machine, s.setup) for s in steps}:
        found.append("a setting is missing")
    return found


def test_two_boards_share_their_settings() -> None:
    # Board by board the planer is set four times; gathered it is set twice.
    steps = [
        step("a/rough", "planer 2"),
        step("a/plane", "planer 1", after="a/rough"),
        step("b/rough", "planer 2"),
        step("b/plane", "planer 1", after="b/rough"),
    ]
    days = plan_days(steps, Milling(), 5)
    assert (days.changes, days.least, days.piece_by_piece, days.proved) == (2, 2, 4, True)
    # 2 + 20 minutes at either setting, one person.
    assert days.minutes == 44 and not wrong(days, steps, Milling())


def test_two_people_work_side_by_side_and_a_heavy_piece_takes_both() -> None:
    steps = [step("a/face", "jointer 1", 57), step("b/rip", "saw 1", 56)]
    two = Milling(hours=Hours(people=2))
    assert plan_days(steps, Milling(), 5).minutes == 120
    assert plan_days(steps, two, 5).minutes == 60
    heavy = [replace(steps[0], people=2), steps[1]]
    assert plan_days(heavy, two, 5).minutes == 120


def test_wood_that_comes_back_needs_the_setting_again_only_where_something_else_was_set() -> None:
    steps = [
        step("a/plane", "planer 1"),
        step("a/glue", "bench", after="a/plane"),
        step("a/flat", "planer 1", after="a/glue"),
        step("b/plane", "planer 2"),
    ]
    days = plan_days(steps, Milling(), 5)
    assert not wrong(days, steps, Milling())
    assert (
        days.changes == days.least == 2
    )  # the other thickness is planed before or after, not between


def test_a_rest_runs_through_the_night() -> None:
    # Sawn until minute 15 of the first day; a day's rest ends at 8:15 on the second: minute 480 +
    # 15.
    steps = [step("a/saw", "saw 1", 11, hold=1440), step("a/plane", "planer 1", 8, after="a/saw")]
    milling = Milling(hours=EIGHT_HOURS)
    days = plan_days(steps, milling, 5)
    assert [(s.begins, s.ends) for s in days.setups] == [(0, 15), (495, 505)]
    assert not wrong(days, steps, milling)
    # 12 hours of glue end at 20:15, when the shop is shut: the first minute of the second day.
    glued = [replace(steps[0], hold=720), steps[1]]
    assert plan_days(glued, milling, 5).setups[1].begins == 480


def test_what_may_not_be_begun_yet_waits_and_holds_nothing_else_up() -> None:
    """Board a rests for three days: b is planed on the first, a on the fourth at 8:00, which is
    working minute 3 x 480, at a second making of the setting.
    """
    steps = [step("a/plane", "planer 1", 8), step("b/plane", "planer 1", 8)]
    milling = Milling(hours=EIGHT_HOURS)
    days = plan_days(steps, milling, 5, ready={"a/plane": 3 * 1440})
    begins = {k: s.begins for s in days.setups for k in s.steps}
    assert begins == {"b/plane": 0, "a/plane": 1440}
    assert not wrong(days, steps, milling)
    with pytest.raises(CannotStand, match="ready on day 4 at the earliest"):
        plan_days(steps[:1], milling, 5, {"planer 1": 1}, ready={"a/plane": 3 * 1440})


def test_a_damp_board_rests_until_the_air_lets_it_be_worked() -> None:
    """20 C and 50 % ask for 9.2 %: read at 15 % on day 100, an inch of this wood is within two
    points after the days that `rest` says; its fellow, at 10 %, may be worked at once.
    """
    damp, dry = (
        replace(b, moisture=(Moisture(percent, 100),))
        for b, percent in zip(HAND_JOB.boards, (15.0, 10.0), strict=False)
    )
    wood = wood_named(damp.species)
    said = rest(damp.moisture, damp.thickest, Climate(), wood.specific_gravity if wood else None)
    assert said and said.workable > 3
    (one,) = resting((damp, dry), Climate(), 102)
    assert one.board == damp.id and one.until == math.ceil(100 + said.workable) - 102
    assert not resting((damp, dry), Climate(), 100 + math.ceil(said.workable))
    found = routes(HAND_JOB, HAND_PLAN)
    ready = ready_from(found, (one,))
    assert set(ready) == {s.key for r in found if r.board == damp.id for s in r.steps}
    # A board that was begun is not sent to rest.
    assert not not_begun(found, (one,), {found[0].steps[0].key})


def test_the_clock_and_the_working_minutes() -> None:
    assert (
        wall(0, EIGHT_HOURS) == 0
        and wall(479, EIGHT_HOURS) == 479
        and wall(480, EIGHT_HOURS) == 1440
    )
    for minute in range(0, 3000, 7):
        assert working(wall(minute, EIGHT_HOURS), EIGHT_HOURS) == minute
    assert working(600, EIGHT_HOURS) == 480  # in the evening: next morning


def test_a_day_fixed_by_hand_keeps_the_rest_right() -> None:
    steps = [
        step("a/face", "jointer 1"),
        step("a/plane", "planer 1", after="a/face"),
        step("b/rip", "saw 1", after="a/plane"),
    ]
    milling = Milling(hours=EIGHT_HOURS)
    days = plan_days(steps, milling, 5, {"planer 1": 1})
    assert not wrong(days, steps, milling)
    assert [s.day(milling.hours) for s in days.setups] == [0, 1, 1]


def test_a_day_that_cannot_be_says_which_could() -> None:
    steps = [step("a/saw", "saw 1", hold=2 * 1440), step("a/plane", "planer 1", after="a/saw")]
    with pytest.raises(
        CannotStand,
        match="planer 1 cannot be begun on day 1: what it needs is ready on day 3 at the earliest",
    ):
        plan_days(steps, Milling(hours=EIGHT_HOURS), 5, {"planer 1": 0})
    with pytest.raises(CannotStand, match="no setting called planer 9"):
        plan_days(steps, Milling(), 5, {"planer 9": 0})


def test_what_rests_on_stickers_finds_floor() -> None:
    # Two pieces of 40 x 12 in (3.3 square feet each) rest a day; with floor for one only they rest
    # one after the other.
    def resting(name: str) -> list[Step]:
        rested = step(f"{name}/sticker", "bench", 5, hold=1440)
        sticker = replace(rested, size=(40 * INCH, 12 * INCH, INCH), setup=f"bench {name}")
        return [sticker, step(f"{name}/plane", f"planer {name}", 5, after=f"{name}/sticker")]

    steps = resting("a") + resting("b")
    roomy, narrow = (
        plan_days(steps, Milling(hours=replace(EIGHT_HOURS, floor=f)), 5) for f in (10.0, 4.0)
    )
    assert narrow.minutes > roomy.minutes + 400
    assert not wrong(narrow, steps, Milling(hours=EIGHT_HOURS))


@pytest.mark.parametrize("school", SCHOOLS)
def test_a_whole_job_by_every_school(school: str) -> None:
    milling = Milling(school=school)  # type: ignore[arg-type]
    steps = [s for r in routes(HAND_JOB, HAND_PLAN, milling) for s in r.steps]
    days = plan_days(steps, milling, 3)
    assert not wrong(days, steps, milling)
    assert days.least <= days.changes <= days.piece_by_piece


def test_without_time_to_solve_it_the_gathered_order_stands() -> None:
    steps = [s for r in routes(HAND_JOB, HAND_PLAN) for s in r.steps]
    days = plan_days(steps, Milling(), 0.0)
    assert not days.proved and wrong(days, steps, Milling()) == []


def test_nothing_to_do_is_no_day() -> None:
    assert plan_days([], Milling()) == Days((), 0, 0, 0, 0, True)


def test_the_rest_of_a_job_is_planned_without_what_is_done() -> None:
    steps = [s for r in routes(HAND_JOB, HAND_PLAN) for s in r.steps]
    left = [s for s in steps if not s.key.startswith("B1/") and "/face" not in s.key]
    assert not wrong(plan_days(left, Milling(), 2), left, Milling())


@st.composite
def works(draw: st.DrawFn) -> list[Step]:
    """A few pieces that each go from setting to setting."""
    found = []
    for n in range(draw(st.integers(1, 4))):
        last = ""
        for k in range(draw(st.integers(1, 4))):
            setup = draw(st.sampled_from(["jointer 1", "planer 1", "planer 2", "saw 1", "bench"]))
            hold = draw(st.sampled_from([0, 0, 0, 300, 1440]))
            key = f"{n}.{k}"
            found.append(
                step(
                    key,
                    setup,
                    draw(st.integers(1, 200)) / 4,
                    last,
                    hold,
                    draw(st.sampled_from([1, 1, 2])),
                )
            )
            last = key
    return found


@examples(40)
@given(works(), st.integers(1, 2))
def test_no_day_breaks_what_the_steps_ask(steps: list[Step], people: int) -> None:
    milling = Milling(hours=replace(EIGHT_HOURS, people=people))
    days = plan_days(steps, milling, 3)
    assert wrong(days, steps, milling) == []
    assert days.least == distinct_setups(steps) <= days.changes


@examples(100)
@given(works())
def test_gathering_does_every_step_once_after_what_it_waits_for(steps: list[Step]) -> None:
    done: set[str] = set()
    for batch in gather(steps):
        for s in batch.steps:
            assert set(s.after) <= done
            done.add(s.key)
    assert done == {s.key for s in steps}
    assert changes(s for b in gather(steps) for s in b.steps) >= distinct_setups(steps)


def test_schools_side_by_side_and_the_advice() -> None:
    costs = {c.order.school: c for c in compare(HAND_JOB, HAND_PLAN, Milling())}
    assert set(costs) == set(SCHOOLS)
    assert (
        costs["by-hand"].setups == 0
        and costs["by-hand"].minutes > 2 * costs["plane-then-rip"].minutes
    )
    assert (
        costs["two-visits"].rest == 3 * 24 * 60
        and costs["two-visits"].minutes > costs["plane-then-rip"].minutes
    )
    assert (
        costs["seven-steps"].passes > costs["plane-then-rip"].passes
    )  # each strip goes through the planer by itself
    best, why = advise(tuple(costs.values()), HAND_JOB)
    assert best.order.school == "plane-then-rip" and "minutes" in why
    assert "two visits are the safer way" in why  # there is a panel in the job


def test_a_cupped_board_on_a_narrow_jointer_is_for_rough_ripping() -> None:
    from tests.core.layout.model.test_audit import JOB, PLAN
    from vividplank.core.milling.shop.machines import Jointer, Machines

    cupped = json.loads(json.dumps(JOB))
    for board in cupped["boards"]:
        board["warp"] = {"cup": 0.12}
    job, plan = read_job(json.dumps(cupped)), read_plan(json.dumps(PLAN))
    costs = {
        c.order.school: c
        for c in compare(job, plan, Milling(Machines(jointer=Jointer(bed_width=6 * INCH))))
    }
    assert costs["rough-rip-first"].spare > costs["look-first"].spare - 1
    assert costs["rough-rip-first"].not_here == 0
