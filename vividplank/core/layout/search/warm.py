"""Compile what a search needs ahead of time: `python -m vividplank.core.layout.search.warm`."""

import random

import numpy as np

from vividplank.core.board import Board, Station
from vividplank.core.board.flat.warm import warm as warm_board
from vividplank.core.cutlist import Part
from vividplank.core.job import Job
from vividplank.core.layout.bound.lower_bound import lower_bound
from vividplank.core.layout.bound.relaxation import BoardRelaxation
from vividplank.core.layout.model.item_types import item_types
from vividplank.core.layout.patterns.generator import PatternGenerator
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.shop import Shop


def warm() -> None:
    """Cut one small board and ask for its bound, so that the compiled code lies in the cache."""
    warm_board()
    ends = (Station(0, 0, 6 * INCH, INCH, INCH), Station(40 * INCH, 0, 6 * INCH, INCH, INCH))
    job = Job(
        "",
        Shop(),
        (Part("A", "", 2, "", 14 * INCH, 2 * INCH, INCH // 2, "sound"),),
        (Board("", "", 40 * INCH, ends),),
    )
    generator = PatternGenerator(job.boards[0], job.shop, item_types(job), INCH // 64)
    generator.cut([2], [1.0], random.Random(1))
    lower_bound(job, cuts=1)
    relaxation = BoardRelaxation(job.boards, item_types(job), job.shop)
    relaxation.most(np.ones(1))
    generator.rounding.cut(relaxation.counted[0], [2], [1.0])


if __name__ == "__main__":
    warm()
