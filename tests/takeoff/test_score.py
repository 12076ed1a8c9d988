"""Files with a known truth, made up from seeds: each becomes the right list, or the reading
asks.
"""

import random

import pytest

from bench.takeoff_score import KINDS, judged
from tests.profiles import half
from vividplank.core.takeoff import Settings, read


@pytest.mark.parametrize("seed", half([5, 6, 7, 12]))
@pytest.mark.parametrize("kind", [k for k in KINDS if k != "list"])
def test_a_drawing_becomes_the_right_list(kind: str, seed: int) -> None:
    assert judged(KINDS[kind](random.Random(f"{kind} {seed}"))) in ("right", "answered")


@pytest.mark.parametrize("seed", range(1, 41))
def test_a_list_in_any_order_and_language_is_right_or_asked(seed: int) -> None:
    file = KINDS["list"](random.Random(f"list {seed}"))
    reading, _ = read(file.content, file.name, Settings())
    assert judged(file) == ("answered" if "Drittes" in reading.table else "right"), (
        "unknown headings are asked about"
    )
