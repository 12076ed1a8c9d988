"""Which way a piece lies and which end leads: hollow side down, fibres down and away from the
cutter.

At a jointer the fence stands to the right of the feed. With the datum edge on the table and face B
to the fence the datum end leads, with face A the far end; with the far edge down it is the other
way round. So the reference face decides which end leads when the edge is jointed, and where the
fibres want the other end there is a conflict.
"""

from dataclasses import dataclass

from vividplank.core.board.grain import End, Grain, feed_first
from vividplank.core.piece import Face

#: Slopes under this hardly tear.
_STEEP = 0.01


@dataclass(frozen=True)
class Lead:
    """The end that leads; `light` asks for light passes because the fibres are against it, and
    `why` says so.
    """

    first: End
    light: bool = False
    why: str = ""


def for_face(grain: Grain, down: Face) -> Lead:
    """Facing with that face on the table, or planing the face opposite to it: either end may
    lead.
    """
    asked = [
        feed_first(s, down)
        for s in (grain.datum_edge, grain.far_edge)
        if s is not None and abs(s) >= _STEEP
    ]
    if not asked:
        return Lead("")
    if len(set(asked)) == 1:
        return Lead(asked[0], False, f"the fibres run out of face {down} toward the other end")
    steeper = (
        grain.datum_edge
        if abs(grain.datum_edge or 0) >= abs(grain.far_edge or 0)
        else grain.far_edge
    )
    return Lead(
        feed_first(steeper, down),
        True,
        "the two edges ask for different ends: the steeper one rules, in light passes",
    )


def for_edge(grain: Grain, reference: Face, datum_edge: bool = True) -> Lead:
    """Jointing an edge with the reference face to the fence: the end that must lead, and whether
    the fibres agree.
    """
    leads: End = "datum end" if (reference == "B") == datum_edge else "far end"
    if abs(grain.across) < _STEEP:
        return Lead(leads)
    # Seen on face A the fibres climb away from the datum edge as x grows where `across` is
    # positive.
    away = grain.across if datum_edge else -grain.across
    wanted: End = "far end" if away > 0 else "datum end"
    if wanted == leads:
        return Lead(leads, False, "the fibres run down and away from the cutter")
    return Lead(
        leads,
        True,
        f"with face {reference} to the fence the {leads} leads, and the fibres would have the "
        f"other: light passes, fed slowly",
    )
