"""Which end leads, how a machine shows its setting, and where the chips go."""

import pytest

from vividplank.core.board.grain import Grain
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.measure import TICKS_PER_MM
from vividplank.core.milling.physics.orient import for_edge, for_face
from vividplank.core.milling.shop.dial import Dial


def test_fibres_that_climb_from_the_table_want_the_other_end_first() -> None:
    # Climbing toward face A as x grows, with face B down, they come out at the table's side at the
    # datum end: the far end leads.
    climbing = Grain(datum_edge=0.05, far_edge=0.04)
    assert (
        for_face(climbing, "B").first == "far end" and for_face(climbing, "A").first == "datum end"
    )
    assert not for_face(climbing, "B").light


def test_where_the_edges_disagree_the_steeper_rules_in_light_passes() -> None:
    lead = for_face(Grain(datum_edge=0.02, far_edge=-0.06), "B")
    assert lead.first == "datum end" and lead.light and "steeper" in lead.why


def test_nobody_looked_or_straight_grain_leaves_the_choice() -> None:
    assert for_face(Grain(), "B").first == "" and for_face(Grain(datum_edge=0.001), "B").first == ""


def test_the_face_at_the_fence_decides_which_end_an_edge_leads_with() -> None:
    # Datum edge down, face B to the fence: the datum end leads. Fibres that fall toward the datum
    # edge as x grows agree.
    assert for_edge(Grain(), "B").first == "datum end" and for_edge(Grain(), "A").first == "far end"
    assert for_edge(Grain(), "B", datum_edge=False).first == "far end"
    agree, against = for_edge(Grain(across=-0.03), "B"), for_edge(Grain(across=0.03), "B")
    assert not agree.light and "down and away" in agree.why
    assert against.light and against.first == "datum end" and "light passes" in against.why
    assert not for_edge(Grain(across=0.03), "A").light  # the other face to the fence turns it round


@pytest.mark.parametrize(
    ("depth", "says"),
    [
        (INCH // 32, "half a turn"),
        (INCH // 64, "a quarter turn"),
        (3 * INCH // 64, "three quarters of a turn"),
        (INCH // 16, "one turn"),
        (3 * INCH // 32, "1 1/2 turns"),
        (INCH // 8, "2 turns"),
        (INCH // 256, "1/16 of a turn"),
    ],
)
def test_a_wheel_of_a_sixteenth_a_turn(depth: int, says: str) -> None:
    assert Dial("wheel", INCH // 16).says(depth, "in") == says


def test_a_scale_and_a_readout_show_the_measure() -> None:
    assert (
        Dial("scale").says(INCH // 32, "in") == "1/32 in"
        and Dial("readout").says(TICKS_PER_MM, "mm") == "1 mm"
    )
    assert Dial("wheel", 2 * TICKS_PER_MM).says(TICKS_PER_MM, "mm") == "half a turn"
