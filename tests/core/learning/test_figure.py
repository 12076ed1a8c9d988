"""What a shop learns goes from the usual toward what it has seen, and nothing odd swings it."""

from math import exp, isclose, log, pi
from random import Random

from hypothesis import given
from hypothesis import strategies as st

from tests.profiles import examples
from vividplank.core.learning.figure import ENOUGH, PROJECTS, SHOPS, Seen, allowance, rate, ratio
from vividplank.core.learning.learned import StepSeen, WoodSeen, in_use, learned

RATIOS = st.floats(0.3, 3.0)
SEEN = st.lists(st.builds(Seen, st.integers(1, 4), RATIOS), max_size=40)


def test_nothing_seen_is_the_usual_value_and_unsure() -> None:
    figure = ratio([])
    assert figure.value == 1
    assert figure.low < 0.65 and figure.high > 1.5
    assert (figure.events, figure.projects) == (0, 0)


def test_one_event_by_hand() -> None:
    """One event of one project, twice the foretold: its variance is that between projects and
    pi/2 times that of an event, ln(1.6)^2; the shop's about the usual is ln(1.5)^2."""
    variance = log(1.25) ** 2 + pi / 2 * log(1.6) ** 2
    weight = (1 / variance) / (1 / variance + 1 / log(1.5) ** 2)
    assert isclose(ratio([Seen(1, 2.0)]).value, 2**weight, rel_tol=1e-6)
    assert (log(1.25), log(1.5)) == (PROJECTS, SHOPS)


@examples(200)
@given(SEEN)
def test_it_lies_between_the_usual_and_what_was_seen(seen: list[Seen]) -> None:
    figure = ratio(seen)
    values = [1.0, *(s.ratio for s in seen)]
    assert min(values) - 1e-9 <= figure.value <= max(values) + 1e-9
    assert figure.low < figure.value < figure.high


@examples(100)
@given(RATIOS, st.integers(1, 30))
def test_the_more_is_seen_the_nearer_and_the_surer(times: float, count: int) -> None:
    few = ratio([Seen(1, times)] * count)
    more = ratio([Seen(1, times)] * (count + 5) + [Seen(2, times)] * count)
    assert abs(more.value - times) <= abs(few.value - times) + 1e-9
    assert more.high / more.low < few.high / few.low


@examples(100)
@given(st.lists(RATIOS, min_size=9, max_size=30), st.floats(20, 10_000))
def test_a_forgotten_timer_teaches_next_to_nothing(ratios: list[float], forgotten: float) -> None:
    """It moves the median by no more than one place."""
    ordered = sorted(ratios)
    now, then = (ratio([Seen(1, r) for r in (*ratios, *odd)]).value for odd in ((), (forgotten,)))
    middle = len(ordered) // 2
    assert then / now <= ordered[min(middle + 1, len(ordered) - 1)] / ordered[middle - 1] + 0.05


@examples(50)
@given(st.floats(4, 1000))
def test_one_odd_project_does_not_swing_the_shop(odd: float) -> None:
    ours = [Seen(p, 1.1) for p in (1, 2, 3, 4) for _ in range(20)]
    without, with_it = ratio(ours).value, ratio([*ours, *(Seen(9, odd) for _ in range(200))]).value
    assert with_it / without < 1.12


def test_an_allowance_nobody_has_tried_is_the_usual_one() -> None:
    figure = allowance([], 254.0, 60.0)
    assert isclose(figure.value, 254) and figure.low < 254 < figure.high and figure.events == 0


@examples(30)
@given(st.floats(30, 1000), st.integers(0, 10**6))
def test_an_allowance_comes_to_be_enough_for_nine_of_ten(middle: float, seed: int) -> None:
    """Of pieces that need so much in the median, spread by a factor 1.3; a new project's lie apart
    by the factor of projects, so that the figure is larger than that of these alone."""
    draw = Random(seed)
    seen = [Seen(p, middle * exp(draw.gauss(0, log(1.3)))) for p in range(6) for _ in range(60)]
    figure = allowance(seen, middle * 2, 1.0)
    share = sum(s.ratio <= figure.value for s in seen) / len(seen)
    assert ENOUGH - 0.03 < share < 1.0 and figure.value < 2.2 * middle


@examples(50)
@given(st.floats(4, 1000))
def test_one_odd_project_does_not_swing_an_allowance(odd: float) -> None:
    ours = [Seen(p, 100.0) for p in (1, 2, 3, 4) for _ in range(20)]
    without = allowance(ours, 250, 60).value
    with_it = allowance([*ours, *(Seen(9, 100 * odd) for _ in range(200))], 250, 60).value
    assert without < 250 and with_it / without < 1.15


def test_what_needed_nothing_brings_it_down_and_never_to_nothing() -> None:
    few, many = (allowance([Seen(1, 0.0)] * n, 254, 63.5).value for n in (3, 100))
    assert 63.5 < many < few < 254


def test_a_rate_by_hand() -> None:
    """One fault for 80 bd ft counts as much as 100 bd ft: 1.25; and 7 in 300: 8.25 in 400."""
    figure = rate(7, 300, 0.0125, 100, 3)
    assert isclose(figure.value, 8.25 / 400)
    assert figure.low < figure.value < figure.high
    assert isclose(rate(0, 0, 0.0125, 100, 0).value, 0.0125)


def test_all_a_shop_has_seen_and_what_is_switched_off() -> None:
    steps = [StepSeen(p, "jointer", 2.0, 3.0, 4, 5) for p in (1, 2) for _ in range(10)]
    steps += [StepSeen(1, "planer"), StepSeen(1, "planer", 2.0, 0.0, 4, 0)]  # nothing known of them
    woods = [WoodSeen(1, "white oak", 60, 40, 2), WoodSeen(2, "white oak", 90, 60, 1)]
    found = learned(steps, woods, {"passes:jointer"})
    assert [f.key for f in found] == [
        "minutes:jointer",
        "passes:jointer",
        "wood:white oak",
        "faults:white oak",
    ]
    assert 1.25 < in_use(found, "minutes")["jointer"] < 1.5
    assert in_use(found, "passes") == {}
    assert 1.5 < in_use(found, "wood")["white oak"] < 1.73
    assert [f.figure.events for f in found] == [20, 20, 2, 3]
