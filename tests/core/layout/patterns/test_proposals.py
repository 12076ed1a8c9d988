"""Looking ahead along a board: the knapsacks against trying everything, and boards that go up
without waste.
"""

import itertools
import random

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from bench.planted import FAMILIES, planted
from tests.making import BARE, a_board, a_fault, a_part, t
from tests.profiles import examples
from vividplank.core.board import Board
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.lower_bound import lower_bound
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.patterns.generator import CuttingPattern, PatternGenerator
from vividplank.core.layout.patterns.leads import Companions, Leads
from vividplank.core.layout.patterns.lookahead_kernel import lengths
from vividplank.core.layout.patterns.proposals_kernel import (
    ACROSS,
    companions,
    fill_width,
    knapsack,
    length_values,
    still_there,
    strip_values,
    together,
)

small = st.integers(1, 12)


@examples(100)
@given(
    st.integers(5, 40),
    st.lists(st.tuples(small, st.integers(1, 9), st.integers(1, 3)), min_size=1, max_size=5),
)
def test_the_strips_of_a_width_are_the_best_there_are(
    room: int, items: list[tuple[int, int, int]]
) -> None:
    wide, profits, copies = (np.array(each, dtype=np.int64) for each in zip(*items, strict=True))
    values = profits.astype(float)
    chosen = knapsack(room, values, wide, copies, np.arange(len(items)))
    every = itertools.product(*(range(c + 1) for c in copies))
    assert sum(values * chosen) == max(
        sum(values * take) for take in every if sum(wide * np.array(take)) <= room
    )
    assert sum(wide * chosen) <= room and all(chosen <= copies)


@examples(100)
@given(
    st.integers(5, 40),
    st.integers(0, 2),
    st.lists(st.tuples(st.integers(3, 15), small, st.integers(1, 2)), min_size=1, max_size=4),
)
def test_the_lengths_of_a_board_are_the_best_there_are(
    most: int, kerf: int, items: list[tuple[int, int, int]]
) -> None:
    runs, profits, copies = (np.array(each, dtype=np.int64) for each in zip(*items, strict=True))
    found = length_values(runs + kerf, profits.astype(float), copies, most + kerf)
    every = itertools.product(*(range(c + 1) for c in copies))
    fits = [take for take in map(np.array, every) if sum(take * (runs + kerf)) - kerf <= most]
    assert found[-1] == max(sum(take * profits) for take in fits)


def leads(*each: tuple[int, int, float, int, float]) -> tuple[Leads, np.ndarray]:
    """Length, width, worth, how many there are, thickness: each an item type of its own, by the
    piece.
    """
    long, wide, profits, count, need = zip(*each, strict=True)
    owner, ones, stock, lengths, widths = (
        np.array(v, dtype=np.int64) for v in (range(len(each)), [1] * len(each), count, long, wide)
    )
    worth, thick = np.array(profits, dtype=float), np.array(need, dtype=float)
    return Leads(lengths, widths, worth, thick, owner, ones, 1, 0), stock


def test_a_strip_takes_its_lead_end_to_end_and_the_best_companion() -> None:
    some, stock = leads((10, 4, 10, 2, 1), (7, 4, 6, 1, 1), (5, 5, 9, 1, 1), (7, 3, 8, 1, 9))
    there = still_there(some, stock)
    table = Companions(*companions(28, 5.0, some, there))
    values, ways = strip_values(28, 5.0, some, there, table)
    # Two of the first are 21 with their kerf, and leave 6: nothing narrow and thin enough is so
    # short. One of the second leaves 20: a first (10) goes beside it, and leaves 9, too little for
    # anything else. One of the third leaves 22: two of the first (21). The fourth needs more
    # thickness than there is.
    assert list(values) == [20, 6 + 10, 9 + 20, 0]
    assert [tuple(w) for w in ways[:, :3]] == [(2, 0, 0), (1, 0, 1), (1, 0, 2), (0, 0, 0)]


def test_two_strips_do_not_take_the_same_companion() -> None:
    # Both long ones want the short one behind them; there is one, and what is best after that takes
    # the width that is left.
    some, stock = leads((20, 4, 80, 1, 1), (20, 4, 80, 1, 1), (9, 4, 36, 1, 1))
    table = Companions(*companions(30, 1.0, some, still_there(some, stock)))
    strips = np.zeros((ACROSS, 4), dtype=np.int64)
    many, total = fill_width(8, 30, 1.0, some, stock, strips, table)
    assert (many, total) == (2, 196.0) and list(stock) == [0, 0, 0]


@examples(60)
@given(
    st.lists(
        st.tuples(st.integers(3, 12), st.integers(2, 5), st.integers(1, 30), st.integers(0, 2)),
        min_size=1,
        max_size=6,
    )
)
def test_companions_are_the_best_of_different_wants_that_fit(
    pieces: list[tuple[int, int, int, int]],
) -> None:
    some, stock = leads(*((a, b, float(c), n, 1) for a, b, c, n in pieces))
    some = some._replace(owner=some.owner // 2)  # two leads to an item type, as a panel's staves
    long, wide, profits, owner = some.blank, some.wide, some.profits, some.owner
    there = np.maximum(0, still_there(some, stock))
    column, which, row = companions(30, 1.0, some, there)
    for i in range(len(pieces)):
        for rest in range(31):
            fitting = [
                j
                for j in range(len(pieces))
                if wide[j] <= wide[i] and long[j] <= rest and there[j] > 0
            ]
            value = {j: min(there[j], (rest + 1) // (long[j] + 1)) * profits[j] for j in fitting}
            best = sorted(
                (
                    max(value[j] for j in fitting if owner[j] == o)
                    for o in {owner[j] for j in fitting}
                ),
                reverse=True,
            )
            found = (
                [int(j) for j in which[row[i], column[rest]] if j >= 0] if column[rest] >= 0 else []
            )
            # A piece that fits five times or more is remembered as fitting four times.
            if all(long[j] * 5 + 4 > rest for j in fitting):
                assert [value[j] for j in found] == best[:3]
                assert len({owner[j] for j in found}) == len(found)


def test_lengths_that_go_together_leave_one_another_their_parts() -> None:
    runs, values = np.array([10, 10, 9]), np.array([100.0, 99.0, 50.0])
    used = np.array([[1, 1, 0], [0, 1, 1], [0, 0, 1]])
    order = np.array([0, 1, 2])
    # The first two want the same part. The first and the third are 10 + 1 + 9 long.
    assert together(20, np.array([1, 1, 1]), runs, values, used, order, 1) == 150
    assert together(19, np.array([1, 1, 1]), runs, values, used, order, 1) == 100
    assert together(21, np.array([1, 2, 1]), runs, values, used, order, 1) == 199


def test_lengths_asked_about_are_those_that_parts_fill_exactly() -> None:
    # With a kerf of 1: two of 10 are 21, the 10 and the 7 are 18, and 40 is all there is; of the 12
    # none is left, and two of 7 would be 15, but there is one. What is shorter than the machines
    # take is as long as they take.
    some, stock = leads((10, 4, 1, 2, 1), (7, 4, 1, 1, 1), (12, 4, 1, 0, 1), (3, 4, 1, 1, 1))
    pairs = np.array([[0, 1, 18], [0, 2, 23], [0, 3, 14]])
    found = lengths(some, stock, pairs, 8, 40, 60, 1)
    assert found.tolist() == [8, 10, 14, 18, 21, 40]
    assert lengths(some, stock, pairs, 8, 17, 60, 1).tolist() == [
        8,
        10,
        14,
        17,
    ]


@given(st.lists(st.tuples(st.integers(12, 50), st.integers(2, 6)), min_size=1, max_size=12))
def test_pairs_are_nearly_as_wide_and_those_that_waste_least_come_first(
    sizes: list[tuple[int, int]],
) -> None:
    parts = tuple(a_part(f"P{k}", 1, long, wide) for k, (long, wide) in enumerate(sizes))
    proposer = PatternGenerator(
        a_board("B", 100, 8),
        BARE,
        item_types(Job("", BARE, parts, (a_board("B", 100, 8),))),
        t(1 / 64),
    ).proposer
    wide, long = proposer.wide, proposer.long
    waste = []
    for one, two, together_long in proposer.pairs:
        assert one != two and wide[two] <= wide[one] and 8 * wide[two] >= 7 * wide[one]
        assert together_long == long[one] + long[two] + proposer.kerf + proposer.shared
        waste.append((wide[one] - wide[two]) * long[two])
    assert waste == sorted(waste)
    alike = [
        (a, b)
        for a in range(len(parts))
        for b in range(a)
        if 8 * min(wide[a], wide[b]) >= 7 * max(wide[a], wide[b])
    ]
    assert sorted((max(a, b), min(a, b)) for a, b, _ in proposer.pairs.tolist()) == sorted(alike)


def cut(
    board: Board, parts: tuple[Part, ...], beam: int = 2
) -> tuple[list[CuttingPattern], PatternGenerator, Job]:
    job = Job("", BARE, parts, (board,))
    generator = PatternGenerator(board, BARE, item_types(job), t(1 / 64))
    demand = [w.count if not w.is_panel else w.width for w in generator.item_types]
    return generator.cut(demand, [1.0] * len(demand), random.Random(1), beam), generator, job


def test_a_board_that_holds_everything_exactly_is_cut_so() -> None:
    # 60 by 6 in: 35 7/8 and 24 in long beside a kerf; 2 + 3 7/8 and 1 1/2 + 1 1/2 + 2 3/4 across,
    # with their kerfs.
    parts = (
        a_part("A", 1, 35.875, 2),
        a_part("B", 1, 35.875, 3.875),
        a_part("C", 2, 24, 1.5),
        a_part("D", 1, 24, 2.75),
    )
    (best, *_), _, _ = cut(a_board(length=60, width=6), parts)
    assert sorted(best.taken) == [(0, 1), (1, 1), (2, 2), (3, 1)]


def test_beside_a_fault_the_width_is_used() -> None:
    # Rot over the lower 3 in of the first 30: what is above it is as long as the board.
    board = a_board(length=60, width=6, defects=(a_fault("rot", 0, 30, 0, 3),))
    (best, *_), _, _ = cut(board, (a_part("A", 1, 60, 2.75), a_part("B", 1, 29, 2.75)))
    assert sorted(best.taken) == [(0, 1), (1, 1)]


def test_staves_take_the_width_that_is_left() -> None:
    (best, *_), generator, _ = cut(
        a_board(length=30, width=8), (a_part("A", 1, 30, 3), a_part("P", 1, 30, 4.8, panel=(2, 5)))
    )
    assert dict(best.taken)[0] == 1 and dict(best.taken)[1] >= generator.item_types[1].width


@pytest.mark.parametrize("family", FAMILIES)
def test_planted_jobs_are_what_they_say(family: str) -> None:
    for seed in (1, 2):
        made = planted(family, 4, seed)  # type: ignore[arg-type]
        assert audit(made.job, made.plan) == []
        assert lower_bound(made.job) <= float(made.cost) + 1e-6
        if family == "flat":  # the area alone proves it
            assert lower_bound(made.job) == pytest.approx(float(made.cost), rel=1e-3)


def test_most_planted_boards_go_up_without_waste() -> None:
    made = planted("flat", 12, 1)
    listed, shop = item_types(made.job), made.job.shop
    grown = [
        (w.length + shop.kerf.crosscut) * (w.width + shop.allowance.width + shop.kerf.rip)
        for w in listed
    ]
    whole = 0
    boards = [b for b in made.job.boards if b.id.startswith("P")]
    for board in boards:
        generator = PatternGenerator(board, shop, listed, t(1 / 64))
        profits = [g / w.volume for g, w in zip(grown, listed, strict=True)]
        patterns = generator.cut([1] * len(listed), profits, random.Random(2), 4, 4)
        best = max(sum(grown[i] * n for i, n in pattern.taken) for pattern in patterns)
        most = (board.length - 2 * shop.end_trim + shop.kerf.crosscut) * (
            board.widest + shop.kerf.rip
        )
        assert best <= most
        whole += best >= 0.999 * most
    assert whole >= len(boards) / 2
