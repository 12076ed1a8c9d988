"""Routes that were worked out lately are not worked out again, and never stand in for others."""

from dataclasses import replace

from tests.core.milling.test_milling import HAND_JOB, HAND_PLAN
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, recent_routes, routes


def test_the_same_are_given_for_what_is_equal() -> None:
    first = recent_routes(HAND_JOB, HAND_PLAN, Milling())
    assert recent_routes(replace(HAND_JOB), replace(HAND_PLAN), Milling()) is first
    assert recent_routes(HAND_JOB, HAND_PLAN, Milling(), {}, HAND_JOB.unit) is first
    assert first == routes(HAND_JOB, HAND_PLAN, Milling())


def test_whatever_differs_has_routes_of_its_own() -> None:
    fitted = replace(HAND_JOB, parts=tuple(replace(p, fitted=p.id == "A") for p in HAND_JOB.parts))
    ways = [
        (HAND_JOB, Milling(), None),
        (HAND_JOB, Milling(school="by-hand"), None),
        (HAND_JOB, Milling(), {"planer": 2.0}),
        (fitted, Milling(), None),
        (fitted, Milling(fitted={"A1": 19 * INCH}), None),
    ]
    for _ in range(2):
        for job, milling, factors in ways:
            found = recent_routes(job, HAND_PLAN, milling, factors)
            assert found == routes(job, HAND_PLAN, milling, factors)
