"""Caliper, moisture meter and metal detector: near the truth, sometimes nothing, and odd readings
questioned.
"""

from statistics import mean, stdev

import pytest

from vividplank.core.board import Board, Station, Warp
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.survey.instruments import NoReading
from vividplank.core.survey.question import about_moisture, about_thickness
from vividplank.core.timber.rest import Moisture
from vividplank.devices.hidden import HiddenBoard, Nail, hidden_board
from vividplank.devices.simulated import (
    SimulatedBench,
    SimulatedCaliper,
    SimulatedMetalDetector,
    SimulatedMoistureMeter,
    SimulatedReadout,
)

LONG = 80 * INCH
BOARD = Board(
    "D1",
    "ash",
    LONG,
    (
        Station(0, 0, 7 * INCH, 8400, 8300),
        Station(40 * INCH, 0, 7 * INCH, 8350, 8350),
        Station(LONG, 0, 7 * INCH, 8300, 8400),
    ),
    Warp(bow=1000),
)
NAIL = Nail(60 * INCH, 3 * INCH, 0.05 * INCH)


def truth(board: Board) -> HiddenBoard:
    return HiddenBoard(board, (NAIL,), 9.0, 2.0)


def test_a_caliper_reads_near_the_truth_and_slips_now_and_then() -> None:
    caliper = SimulatedCaliper(truth)
    read, slipped = [], 0
    for _ in range(400):
        try:
            read.append(caliper.thickness(BOARD, 40 * INCH, 2 * INCH))
        except NoReading:
            slipped += 1
    assert mean(read) == pytest.approx(8350, abs=0.0005 * INCH)
    assert stdev(read) == pytest.approx(0.002 * INCH, rel=0.15)
    assert 4 <= slipped <= 32  # 4 in 100 of 400, give or take three times its spread


def test_over_a_nail_the_caliper_reads_thick_and_that_is_questioned() -> None:
    read = SimulatedCaliper(truth, fails=0).thickness(BOARD, NAIL.x, NAIL.y)
    assert read > 8350 + 0.04 * INCH
    assert "metal" in about_thickness(BOARD, NAIL.x, read, "in") and "3/64" in about_thickness(
        BOARD, NAIL.x, read, "in"
    )
    assert about_thickness(BOARD, 20 * INCH, 8360, "in") == ""
    assert "thinner" in about_thickness(BOARD, 20 * INCH, 7900, "mm")
    assert "Nothing" in about_thickness(BOARD, 20 * INCH, 0, "in")


def test_a_wrong_figure_does_not_vouch_for_itself() -> None:
    swollen = Board(
        "D2",
        "ash",
        LONG,
        (*BOARD.stations[:1], Station(40 * INCH, 0, 7 * INCH, 8900, 8900), BOARD.stations[-1]),
    )
    assert "metal" in about_thickness(swollen, 40 * INCH, 8900, "in")


def test_moisture_follows_the_board_and_odd_readings_are_questioned() -> None:
    meter = SimulatedMoistureMeter(truth, fails=0)
    ends = mean(meter.percent(BOARD, 0, INCH) for _ in range(100))
    middle = mean(meter.percent(BOARD, LONG // 2, INCH) for _ in range(100))
    assert (ends, middle) == (pytest.approx(11, abs=0.1), pytest.approx(9, abs=0.1))
    day = (Moisture(9.1, 5), Moisture(9.4, 5), Moisture(20, 4))
    assert about_moisture(day, 5, 9.8) == "" and "pocket" in about_moisture(day, 5, 13)
    assert "green" in about_moisture((), 5, 40) and "drier" in about_moisture((), 5, 4)


def test_a_readout_shows_thousandths_and_its_zero_is_a_little_off() -> None:
    true = SimulatedReadout(truth, noise=0, fails=0, off=0).height(BOARD, INCH)
    assert true == INCH
    readout = SimulatedReadout(truth)
    shown: list[int] = []
    for _ in range(300):
        try:
            shown.append(readout.height(BOARD, 6604))
        except NoReading as blank:
            assert str(blank) == "The readout is blank. Wake it and read again."
    assert 270 < len(shown) < 300
    assert abs(sum(shown) / len(shown) - 6604 - 0.003 * INCH) < 3
    assert all(abs(s / (INCH / 1000) - round(s / (INCH / 1000))) < 0.07 for s in shown)


def test_the_detector_places_nails_and_misses_one_now_and_then() -> None:
    detector = SimulatedMetalDetector(truth)
    found = [detector.sweep(BOARD) for _ in range(200)]
    places = [place for each in found for place in each]
    assert 0.87 < len(places) / 200 < 1
    assert all(abs(x - NAIL.x) < 1.1 * INCH and abs(y - NAIL.y) < 1.1 * INCH for x, y in places)
    assert SimulatedMetalDetector(lambda b: HiddenBoard(b, (), 9, 0)).sweep(BOARD) == []


def test_the_hidden_board_is_the_same_every_time_and_keeps_the_outline() -> None:
    one = hidden_board(BOARD)
    assert one == hidden_board(BOARD)
    assert [(s.x, s.y0, s.y1) for s in one.board.stations] == [
        (s.x, s.y0, s.y1) for s in BOARD.stations
    ]
    assert one.board.warp.bow == pytest.approx(1000, rel=0.16) and one.board.warp.twist != 0
    assert hidden_board(Board("D9", "ash", LONG, BOARD.stations)) != one
    bench = SimulatedBench()
    assert all(
        bench.offered(kind) for kind in ("caliper", "readout", "moisture", "metal", "scanner")
    )
