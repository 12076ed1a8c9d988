"""Ideas that would save: each confirmed by a solve, and none told that saves nothing."""

import time
from decimal import Decimal

from tests.making import BARE, a_board, a_fault, a_part
from vividplank.core.job import Job
from vividplank.core.layout.explain.what_ifs import WhatIf, what_ifs
from vividplank.core.layout.search.search import Limits, search

LIMITS = Limits(60, rounds=2)


def thought(job: Job) -> dict[tuple[str, str], WhatIf]:
    plan = search(job, LIMITS, time.monotonic)
    return {(t.kind, t.about): t for t in what_ifs(job, plan, "in", LIMITS, time.monotonic)}


def test_an_inch_that_saves_a_board() -> None:
    # Two of 30 in and a kerf do not go into 60; of 29 they do.
    job = Job(
        "",
        BARE,
        (a_part("A", 2, 30, 2),),
        (a_board("B", 60, 2.2), a_board("C", 60, 2.2, price="12")),
    )
    found = thought(job)
    assert found["shorter", "A"] == WhatIf(
        "shorter", "A", "Make Part A 1 in shorter", Decimal(12), 0
    )
    assert ("narrower", "A") not in found and ("lenient", "A") not in found
    # A free copy of the dear one saves what it costs.
    assert found["board", "C"].saves == 12


def test_a_knot_let_pass() -> None:
    knots = (a_fault("tight-knot", 20, 21, 1, 2, "both"),)
    job = Job(
        "",
        BARE,
        (a_part("A", 1, 30, 2),),
        (a_board("B", 40, 2.2, defects=knots), a_board("C", 40, 2.2, price="12")),
    )
    found = thought(job)
    assert (
        found["lenient", "A"].saves == 2
        and "sound knots are let pass" in found["lenient", "A"].words
    )


def test_what_finds_a_place_comes_first_and_telling_can_be_stopped() -> None:
    job = Job("", BARE, (a_part("A", 2, 30, 2),), (a_board("B", 60, 2.2),))
    plan = search(job, LIMITS, time.monotonic)
    assert len(plan.unplaced) == 1
    heard: list[WhatIf] = []
    first = what_ifs(job, plan, "in", LIMITS, time.monotonic, told=lambda t: bool(heard.append(t)))
    assert first == heard and len(heard) == 1 and heard[0].placed == 1
