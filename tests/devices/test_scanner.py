"""A scan of a known board gives back its warp and its flat thickness within the noise it states."""

import random
from dataclasses import replace

import pytest

from vividplank.core.board import Board, Region, Station, Warp, flat_slab
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.survey.instruments import NoReading, Scan
from vividplank.core.survey.scan import scanned
from vividplank.devices.hidden import HiddenBoard, Nail
from vividplank.devices.simulated import SimulatedScanner


def true_board(seed: int) -> Board:
    rng = random.Random(seed)
    length, width = rng.randint(40, 120) * INCH, rng.randint(5, 10) * INCH
    t = round(1.05 * INCH)
    ends = (
        Station(0, 0, width, t, t - rng.randint(0, 300)),
        Station(length, 0, width, t - rng.randint(0, 300), t),
    )
    warp = Warp(*(round(rng.uniform(-most, most) * INCH) for most in (0.4, 0.12, 0.3)))
    return Board(f"T{seed}", "white oak", length, ends, warp)


def read(board: Board, nails: tuple[Nail, ...] = (), **how: float) -> Scan:
    return SimulatedScanner(lambda b: HiddenBoard(b, nails, 9, 0), **{"fails": 0, **how}).scan(
        board
    )


def test_warp_and_flat_thickness_are_within_the_stated_noise_in_95_of_100() -> None:
    thick, bent = 0, 0
    for seed in range(100):
        board = true_board(seed)
        found = scanned(board, read(board))
        whole = Region(0, board.length, 0, 0.0, 0, board.widest)
        part = Region(
            board.length // 5, board.length * 7 // 10, INCH, 0.0, 0, board.widest - 2 * INCH
        )
        known = replace(board, warp=Warp(), surface=found.surface)
        thick += all(
            abs(flat_slab(known, r).thickness - flat_slab(board, r).thickness) <= found.sure
            for r in (whole, part)
        )
        bent += all(
            abs(getattr(found.warp, k) - getattr(board.warp, k)) <= found.sure
            for k in ("bow", "cup", "twist")
        )
        assert found.noise == pytest.approx(0.004 * INCH, rel=0.15)
        assert found.sure < INCH / 200  # a promise worth having
        assert not found.swellings
    assert thick >= 95 and bent >= 95


def test_a_nail_shows_as_a_swelling_at_its_place() -> None:
    board = true_board(3)
    nail = Nail(board.length // 3, 3 * INCH, 0.045 * INCH)
    (found,) = scanned(board, read(board, (nail,))).swellings
    assert abs(found.x - nail.x) <= 1.5 * INCH and abs(found.y - nail.y) <= INCH
    assert 0.3 * nail.swelling < found.rise < nail.swelling  # the mean over its neighbourhood


def test_gaps_are_filled_and_too_many_refused() -> None:
    board = true_board(4)
    holed = scanned(board, read(board, lost=0.25))
    assert holed.lost == pytest.approx(0.25, abs=0.03)
    assert flat_slab(
        replace(board, warp=Warp(), surface=holed.surface),
        Region(0, board.length, 0, 0.0, 0, board.widest),
    ).thickness == pytest.approx(
        flat_slab(board, Region(0, board.length, 0, 0.0, 0, board.widest)).thickness, abs=holed.sure
    )
    with pytest.raises(NoReading, match="heights are missing"):
        scanned(board, read(board, lost=0.6))
    with pytest.raises(NoReading, match="moved"):
        read(board, fails=1)
