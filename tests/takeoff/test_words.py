"""What the writing beside a part says."""

import pytest

from tests.making import t
from vividplank.core.takeoff.model.units import guess_unit
from vividplank.core.takeoff.model.words import Said, understand


@pytest.mark.parametrize(
    ("text", "said"),
    [
        ("Rail", Said("Rail")),
        ("2x Rail", Said("Rail", 2)),
        ("Rail x4", Said("Rail", 4)),
        ("Rail, 3 off", Said("Rail", 3)),
        ("Rail (qty 6)", Said("Rail", 6)),
        ("2 pcs Rail", Said("Rail", 2)),
        ("Rail t=19", Said("Rail", thickness=19 * 320)),
        ("Rail 19 mm thick", Said("Rail", thickness=19 * 320)),
        ("2x Rail 600 x 70 x 19", Said("Rail", 2, (600 * 320, 70 * 320, 19 * 320), 19 * 320)),
        ("Door 600 x 400", Said("Door", 1, (600 * 320, 400 * 320))),
        ("", Said()),
        ("Shelf 2", Said("Shelf 2")),
        ("2x 3-way bracket", Said("3-way bracket", 2)),
        ("Lid (2)", Said("Lid", 2)),
        ("Qty: 3\n19 mm thick\nShelf", Said("Shelf", 3, thickness=19 * 320)),
        ("600x70x19 Rail", Said("Rail", 1, (600 * 320, 70 * 320, 19 * 320), 19 * 320)),
    ],
)
def test_in_millimetres(text: str, said: Said) -> None:
    assert understand(text, "mm") == said


def test_in_inches_with_fractions() -> None:
    assert understand("Rail 23 1/2 x 2 3/4 x 13/16", "in") == Said(
        "Rail", 1, (t(23.5), t(2.75), t(13 / 16)), t(13 / 16)
    )
    assert understand('2x Shelf, 3/4" thick', "in") == Said("Shelf", 2, (), t(0.75))
    assert understand('2x 3/4" thick', "in") == Said("", 2, (), t(0.75))
    assert (
        understand("4x 3/4 Shelf", "in")
        == understand("4x 3/4 Shelf", "mm")
        == Said("Shelf", 4, (), t(0.75))
    )
    assert understand("Qty: 3\n1/4 thick", "in") == Said("", 3, (), t(0.25))


@pytest.mark.parametrize("text", ["10 000 x", "x x x", "1/3 x 2 x 3", "t=", "0x"])
def test_what_is_no_size_is_left_as_words(text: str) -> None:
    assert understand(text, "mm").sizes == ()


@pytest.mark.parametrize(
    ("biggest", "unit"),
    [(1320, "mm"), (2400, "mm"), (52, "in"), (96, "in"), (1.3, "m"), (0.9, "m"), (0.001, "mm")],
)
def test_the_likeliest_unit_makes_it_furniture(biggest: float, unit: str) -> None:
    assert guess_unit(biggest)[0] == unit
