"""What pieces needed, read from their steps: the board of tests/core/milling/test_milling.py, in
two visits. Its face takes one pass of 1/64; after its rest another of 1/64 is foretold.
"""

from tests.core.milling.test_milling import HAND_JOB, HAND_PLAN
from vividplank.core.learning.learned import NeedSeen, learned
from vividplank.core.learning.needed import Needed, needed
from vividplank.core.log.events import Did, Event, Measured, Quantity
from vividplank.core.measure import TICKS_PER_64TH
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.shop.school import School

_64 = TICKS_PER_64TH


def told(*events: Event, school: School = "two-visits") -> list[Needed]:
    return list(needed(routes(HAND_JOB, HAND_PLAN, Milling(school=school)), events))


def did(step: str, passes: int | None = None, reading: int | None = None) -> Did:
    return Did(n=1, step=step, passes=passes, reading=reading)


def read(piece: str, what: Quantity, value: float) -> Measured:
    return Measured(n=1, piece=piece, what=what, value=value)


def test_a_face_that_took_more_passes_than_foretold() -> None:
    assert told(did("B1.1/face", 3)) == [Needed("face", "Oak", 2 * _64)]
    assert told(did("B1.1/face", 0)) == [Needed("face", "Oak", 0)]
    assert told(did("B1.1/face", 1)) == [Needed("face", "Oak", 0)]


def test_a_tick_alone_says_nothing() -> None:
    steps = ("face", "edge", "rough-thickness", "sticker", "face-again", "thickness")
    assert told(*(did(f"B1.1/{s}") for s in steps)) == []


def test_what_came_off_after_a_rest_is_how_far_it_moved() -> None:
    rested = did("B1.1/sticker")
    assert told(rested, did("B1.1/face-again", 4)) == [Needed("movement", "Oak", 4 * _64)]
    assert told(rested, did("B1.1/face-again", 0)) == [Needed("movement", "Oak", 0)]
    # Read with a straightedge first, and more than the passes took.
    bowed = read("B1.1", "bow", 6 * _64)
    assert told(rested, bowed, did("B1.1/face-again", 4)) == [Needed("movement", "Oak", 6 * _64)]
    assert told(rested, read("B1.1", "twist", -_64), bowed) == [Needed("movement", "Oak", 6 * _64)]
    # Before its rest it was bowed from the tree; a crook is no matter of its face.
    assert told(bowed, rested, read("B1.1", "crook", _64)) == []


def test_a_strip_that_went_crooked_and_one_jointed() -> None:
    ripped = did("B1.1a/width")
    assert told(ripped, read("B1.1a", "crook", 5 * _64)) == [Needed("width", "Oak", 5 * _64)]
    jointed = told(ripped, did("B1.1a/saw-edge", 3), school="jointed-saw-edge")
    assert jointed == [Needed("width", "Oak", 6 * _64)]


def test_what_squaring_took_of_the_length() -> None:
    # The blank is 20 1/2 long.
    assert told(did("B1.1a/square", reading=20 * INCH + INCH // 4)) == [
        Needed("length", "Oak", INCH // 4)
    ]


def test_what_is_learned_of_them() -> None:
    needs = [NeedSeen(p, Needed("movement", "Oak", 2 * _64)) for p in (1, 2) for _ in range(10)]
    needs += [NeedSeen(1, Needed("face", "Oak", 0))] * 10
    movement, face = learned([], [], {"movement:Oak"}, needs)[::-1]
    assert (movement.key, movement.used, face.key) == ("movement:Oak", False, "allowance:face")
    assert 2 * _64 < movement.figure.value < INCH / 8 == movement.figure.usual
    assert face.figure.value < INCH / 32 and movement.figure.events == 20
