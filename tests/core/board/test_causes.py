"""Bent, tapered and uneven told apart; which end goes first; readings of a day taken together."""

from dataclasses import replace

import pytest

from tests.making import a_board
from vividplank.core.board import Board, Grain, Region, Station, Warp
from vividplank.core.board.causes import causes, said_of_causes
from vividplank.core.board.grain import Zone, feed_first
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.timber.rest import Climate, Moisture, by_day, rest

FLAT = a_board(length=96, width=8)
WHOLE = Region(0, FLAT.length, 0, 0.0, 0, 8 * INCH)


def of(board: Board) -> tuple[float, float, float]:
    found = causes(board, WHOLE)
    return found.bent / INCH, found.tapered / INCH, found.uneven / INCH


def test_each_cause_alone() -> None:
    assert of(FLAT) == (
        pytest.approx(0, abs=1e-3),
        pytest.approx(0, abs=1e-3),
        pytest.approx(0, abs=1e-3),
    )
    assert of(replace(FLAT, warp=Warp(bow=INCH // 4))) == tuple(
        pytest.approx(v, abs=2e-3) for v in (0.25, 0, 0)
    )
    # From 1 in to 7/8 in along: half of the eighth is under the mean.
    ends = (FLAT.stations[0], replace(FLAT.stations[1], t0=INCH * 7 // 8, t1=INCH * 7 // 8))
    bent, tapered, uneven = of(replace(FLAT, stations=ends))
    assert (tapered, uneven) == (
        pytest.approx(1 / 16, abs=1e-3),
        pytest.approx(0, abs=1e-3),
    ) and bent < 1e-3
    # A hollow of 1/8 in along the middle of the width is neither bend nor taper.
    hollow = tuple(replace(s, between=(INCH * 7 // 8,)) for s in FLAT.stations)
    bent, tapered, uneven = of(replace(FLAT, stations=hollow))
    assert uneven == pytest.approx(1 / 16, abs=0.01) and tapered == pytest.approx(0, abs=1e-3)


def test_the_sentence_names_the_worst_first_and_what_helps() -> None:
    ends = (FLAT.stations[0], replace(FLAT.stations[1], t0=INCH * 15 // 16, t1=INCH * 15 // 16))
    said = said_of_causes(
        causes(replace(FLAT, warp=Warp(bow=INCH // 4), stations=ends), WHOLE), "in"
    )
    assert said.index("1/4 in because it is bent") < said.index("1/32 in because it is tapered")
    assert said_of_causes(causes(FLAT, WHOLE), "in") == ""


@pytest.mark.parametrize(
    ("slope", "down", "first"),
    [
        # Fibres that climb away from the table toward the far end: the far end leads, so that they
        # fall toward the trailing end.
        (0.05, "B", "far end"),
        (0.05, "A", "datum end"),
        (-0.05, "B", "datum end"),
        (-0.05, "A", "far end"),
        (0.0, "A", ""),
        (None, "B", ""),
    ],
)
def test_which_end_goes_first(slope: float | None, down: str, first: str) -> None:
    assert feed_first(slope, down) == first  # type: ignore[arg-type]


def test_rings_name_the_cut_and_zones_their_share() -> None:
    assert [Grain(rings=r).sawn for r in (None, 0, 29, 30, 59, 60, 90)] == [
        "",
        "flat-sawn",
        "flat-sawn",
        "rift-sawn",
        "rift-sawn",
        "quarter-sawn",
        "quarter-sawn",
    ]
    zone = Zone("quarter", 10 * INCH, 50 * INCH, 2 * INCH, 6 * INCH)
    assert zone.share_of(Region(0, 20 * INCH, 0, 0.0, 2 * INCH, 6 * INCH)) == 0.5
    assert zone.share_of(Region(60 * INCH, 70 * INCH, 0, 0.0, 0, INCH)) == 0


def test_the_places_of_a_day_are_taken_together() -> None:
    readings = (Moisture(14, 1), Moisture(12, 20, 5, 5), Moisture(9, 20, 50, 5))
    assert by_day(readings) == [(14, 1, 0), (10.5, 20, 3)]
    found = rest(readings, INCH, Climate())
    assert found and found.uneven == 3 and found.away == pytest.approx(10.5 - Climate().equilibrium)
    assert Station(0, 0, 9, 4, 8, (7,)).spread(5) == [4, 5.5, 7, 7.5, 8]
