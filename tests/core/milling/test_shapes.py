"""Mitres, tapers and outlines: read from the part, cut after everything else, by figures worked by
hand.
"""

import time
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.making import a_board, a_part, t
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.search.search import Limits, search
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.bench.words import setting_name
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route.shapes import Taper, taper_of
from vividplank.core.shop import Shop


def shaped(part: Part, milling: Milling | None = None) -> dict[str, Step]:
    job = Job("", Shop(), (part,), tuple(a_board(id, 100, 7, 1.05) for id in "ABCD"))
    plan = search(job, Limits(seconds=60, rounds=1), time.monotonic)
    assert not plan.unplaced
    return {s.key: s for r in routes(job, plan, milling) for s in r.steps}


def outline(*points: tuple[float, float]) -> tuple[tuple[int, int], ...]:
    return tuple((t(x), t(y)) for x, y in points)


def of_kind(found: dict[str, Step], start: str) -> Step:
    return next(s for s in found.values() if s.kind.startswith(start))


def test_a_mitred_rail_is_squared_then_mitred_at_its_full_length() -> None:
    found = shaped(replace(a_part("F", 2, 16, 1.5), joint="mitre"))
    length, mitre = of_kind(found, "length-"), of_kind(found, "mitre-")
    assert length.stock_out == t(16) and mitre.after == (length.key,)
    assert (
        "16 in from long point to long point" in mitre.check
        and setting_name(mitre, "in") == "45° for mitres"
    )
    assert not any(s.kind.startswith("mitre-") for s in shaped(a_part("F", 2, 16, 1.5)).values())


def test_a_fitted_mitre_is_cut_with_its_measure() -> None:
    found = shaped(replace(a_part("E", 1, 16, 1.5), joint="mitre", fitted=True))
    assert of_kind(found, "fit-").do == "Hold E1 long; mitre and cut to the work"
    assert not any(s.kind.startswith("mitre-") for s in found.values())
    # Measured on the work it keeps its mitre, at that measure.
    measured = shaped(
        replace(a_part("E", 1, 16, 1.5), joint="mitre", fitted=True),
        Milling(fitted={"E1": t(15.75)}),
    )
    length, mitre = of_kind(measured, "length-"), of_kind(measured, "mitre-")
    assert length.stock_out == t(15.75) and mitre.after == (length.key,)
    assert "15 3/4 in from long point to long point" in mitre.check


def test_a_leg_tapered_on_one_edge() -> None:
    # From 2 at the datum end to 1 1/4 at the far end, all of it off the upper edge.
    leg = replace(a_part("L", 1, 28, 2), outline=outline((0, 0), (28, 0), (28, 1.25), (0, 2)))
    assert taper_of(leg) == Taper(t(2), t(1.25), 0, t(0.75))
    found = shaped(leg)
    sawn, planed = of_kind(found, "taper-L"), of_kind(found, "taper-plane")
    assert (
        sawn.do == "Saw the taper of L1: 2 in at the datum end, 1 1/4 in at the far end"
        and "one edge" in sawn.against
    )
    assert (sawn.machine, sawn.stock_in, sawn.stock_out) == ("bandsaw", t(2), t(1.25))
    assert sawn.after == (of_kind(found, "length-").key,) and planed.after == (sawn.key,)
    # An edge of 28 x 3/4 is 0.15 square feet at 12 minutes: under the least of 3.
    assert planed.machine == "hand plane" and planed.minutes == 3.0


def test_a_taper_on_both_edges_may_point_either_way() -> None:
    points = outline((0, 0.25), (0, 1.75), (28, 2), (28, 0))
    leg = replace(a_part("L", 1, 28, 2), outline=points)
    found = taper_of(leg)
    assert found == Taper(t(1.5), t(2), -t(0.25), -t(0.25)) and found.sides == 2
    sawn = of_kind(shaped(leg), "taper-L")
    assert "both edges" in sawn.against and sawn.check.endswith("1 1/2 in at the datum end")


@pytest.mark.parametrize(
    "points",
    [
        ((0, 0), (28, 0), (26, 2), (2, 2)),  # ends aslant
        ((0, 0), (28, 0), (28, 2), (14, 1), (0, 2)),  # five corners
        ((0, 0), (28, 0.5), (28, 2), (0, 1.5)),  # leaning, but as wide at one end as at the other
    ],
)
def test_other_outlines_are_sawn_to_their_line(points: tuple[tuple[float, float], ...]) -> None:
    part = replace(a_part("C", 1, 28, 2), outline=outline(*points))
    assert taper_of(part) is None
    step = of_kind(shaped(part), "outline-")
    assert step.machine == "bandsaw" and step.why.startswith(
        "corners along and across from the datum corner: 0 in, 0 in"
    )


def test_an_outline_that_is_the_rectangle_needs_nothing() -> None:
    part = replace(a_part("C", 1, 28, 2), outline=outline((0, 0), (28, 0), (28, 2), (0, 2)))
    assert not any(s.kind.startswith(("taper-", "outline-")) for s in shaped(part).values())


def test_a_panel_is_mitred_after_it_has_its_length() -> None:
    found = shaped(replace(a_part("S", 1, 20, 9, panel=(2, 5)), joint="mitre"))
    assert found["S1/mitre-S"].after == ("S1/length",)


@given(st.integers(12, 60), st.integers(2, 9), st.integers(0, 100), st.integers(0, 100))
def test_a_taper_says_how_wide_its_ends_are(length: int, width: int, low: int, high: int) -> None:
    # Both edges come in at the far end by a share of a third of the width each.
    low_in, high_in = t(width) * low // 300, t(width) * high // 300
    points = ((0, 0), (t(length), low_in), (t(length), t(width) - high_in), (0, t(width)))
    found = taper_of(replace(a_part("P", 1, length, width), outline=points))
    if low_in + high_in <= 160:
        assert found is None or found.start - found.end == low_in + high_in
    else:
        assert found and (found.start, found.start - found.end) == (t(width), low_in + high_in)
