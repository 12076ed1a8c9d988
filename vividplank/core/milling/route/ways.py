"""What each machine cannot take, and the ways round it, in the order they are to be thought of.

Nothing here asks for a guard to come off.
"""

from collections.abc import Callable, Iterator

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Obstacle, Way
from vividplank.core.milling.shop.machines import Machines

#: Writes ticks as the shop does.
Say = Callable[[int], str]
Size = tuple[int, int, int]
#: Up to this share of the bed a piece may stand over it and still be faced with a ridge left for
#: the plane.
_OVERHANG = 0.25
_SQUARE_FOOT = (12 * TICKS_PER_INCH) ** 2
#: Minutes for a square foot of hardwood face flattened by hand, and with a router on a bridge.
HAND_MINUTES, BRIDGE_MINUTES = 12.0, 6.0

_HAND_DANGER = "slow work tires: sharp iron, and stop before the hand grows careless"
_CARRIER_DANGER = "it must not rock or slide on its carrier: shims glued, a stop at its tail"
_BRIDGE_DANGER = "the bit must not meet a screw or a wedge"


def face(machines: Machines, size: Size, say: Say, can_rip: bool = False) -> Obstacle | None:
    """Facing at the jointer; `can_rip` says that it could be ripped into strips that the jointer
    takes.
    """
    length, width, thick = size
    jointer = machines.jointer
    if width > jointer.bed_width:
        return Obstacle(
            f"{say(width)} wide; the jointer takes {say(jointer.bed_width)}",
            tuple(_wide(machines, size, say, can_rip)),
        )
    if length < jointer.shortest:
        return Obstacle(
            f"{say(length)} long; nothing under {say(jointer.shortest)} goes over this jointer",
            tuple(_short(machines, size)),
        )
    if thick < jointer.thinnest:
        return Obstacle(
            f"{say(thick)} thick; the jointer takes {say(jointer.thinnest)} and more",
            (*_carrier(machines, size, say), *_by_hand(machines, size)),
        )
    if width < jointer.narrowest:
        return Obstacle(
            f"{say(width)} wide; under {say(jointer.narrowest)} hands come too near the cutter",
            (*_by_hand(machines, size), *_carrier(machines, size, say)),
        )
    return None


def edge(machines: Machines, size: Size, say: Say) -> Obstacle | None:
    """Jointing an edge."""
    length, width, thick = size
    jointer = machines.jointer
    if length > jointer.longest:
        return Obstacle(
            f"{say(length)} long; over {say(jointer.longest)} these tables cannot hold it straight",
            tuple(_long(machines, size)),
        )
    if length < jointer.shortest:
        return Obstacle(
            f"{say(length)} long; nothing under {say(jointer.shortest)} goes over this jointer",
            tuple(_short(machines, size)),
        )
    if thick < jointer.thinnest:
        return Obstacle(
            f"{say(thick)} thick; an edge under {say(jointer.thinnest)} cannot be held square to "
            f"the fence",
            tuple(_long(machines, size)),
        )
    if width < jointer.narrowest:
        return Obstacle(
            f"{say(width)} wide; under {say(jointer.narrowest)} hands come too near the cutter",
            tuple(_long(machines, size)),
        )
    return None


def thickness(machines: Machines, size: Size, finish: int, say: Say) -> Obstacle | None:
    """Planing to a thickness."""
    length, width, _ = size
    planer = machines.planer
    if width > planer.width:
        return Obstacle(
            f"{say(width)} wide; this planer takes {say(planer.width)}",
            (*_bridge(machines, size), *_by_hand(machines, size), *_outside(machines)),
        )
    if length < planer.shortest:
        return Obstacle(
            f"{say(length)} is shorter than the {say(planer.shortest)} it feeds",
            tuple(_short(machines, size)),
        )
    if finish < planer.thinnest:
        return Obstacle(
            f"{say(finish)} is thinner than the {say(planer.thinnest)} this planer takes",
            (*_carrier(machines, (length, width, finish), say), *_by_hand(machines, size)),
        )
    return None


def crosscut(machines: Machines, width: int, say: Say) -> Obstacle | None:
    """Sawing across."""
    if width <= machines.crosscut.widest:
        return None
    return Obstacle(
        f"{say(width)} wide; this saw cuts {say(machines.crosscut.widest)}",
        (
            Way(
                "handsaw",
                "cut it with a handsaw, which has no such limit",
                "2 minutes a cut; its kerf is narrower",
            ),
            Way(
                "crosscut saw",
                "cut from both edges to one line",
                "a step of a hair where the cuts meet",
                "the second cut closes on the blade where the board is bent: support both sides",
            ),
        ),
    )


def rip(machines: Machines, size: Size, net: int, say: Say) -> Obstacle | None:
    """Ripping at the table saw to a net width."""
    _, _, thick = size
    saw = machines.table_saw
    band = Way(
        "bandsaw",
        "saw it at the bandsaw to the line, then plane the edge",
        "a pass over the edge more",
    )
    hand = Way("handsaw", "rip it by hand", "4 minutes for each foot")
    if thick > saw.tallest:
        return Obstacle(
            f"{say(thick)} thick; this saw cuts {say(saw.tallest)}",
            (band, hand) if thick <= machines.bandsaw.tallest else (hand,),
        )
    if net < saw.narrowest:
        return Obstacle(
            f"{say(net)} wide; under {say(saw.narrowest)} there is no room for a push stick "
            f"beside the blade",
            (band, hand),
        )
    if net > saw.fence:
        return Obstacle(f"{say(net)} wide; the fence goes out to {say(saw.fence)}", (band, hand))
    return None


def resaw(machines: Machines, height: int, say: Say) -> Obstacle | None:
    """Sawing a piece on edge into thinner ones."""
    if height <= machines.bandsaw.tallest:
        return None
    return Obstacle(
        f"{say(height)} high on edge; this bandsaw takes {say(machines.bandsaw.tallest)}",
        (
            Way(
                "handsaw",
                "saw it by hand from all four corners toward the middle",
                "half an hour a piece",
            ),
            *_outside(machines),
        ),
    )


def hand_minutes(size: Size, per_foot: float = HAND_MINUTES) -> float:
    """Minutes to flatten one face, by its area."""
    return max(3.0, size[0] * size[1] / _SQUARE_FOOT * per_foot)


def _wide(machines: Machines, size: Size, say: Say, can_rip: bool) -> Iterator[Way]:
    if can_rip:
        yield Way(
            "jointer",
            "rip it along its chalk lines first and face the strips",
            "each strip is faced by itself",
        )
    yield from _carrier(machines, size, say)
    yield from _bridge(machines, size)
    if machines.by_hand and size[1] <= machines.jointer.bed_width * (1 + _OVERHANG):
        over = size[1] - machines.jointer.bed_width
        yield from _by_hand(machines, size)
        yield Way(
            "hand plane",
            f"face what the bed takes and plane the ridge of {say(over)} off by hand",
            f"about {round(hand_minutes((size[0], over, 0)))} minutes",
            "the ridge must clear the table's edge",
        )
    else:
        yield from _by_hand(machines, size)
    yield from _outside(machines)


def _carrier(machines: Machines, size: Size, say: Say) -> Iterator[Way]:
    length, width, _ = size
    if machines.carrier and width <= machines.planer.width and length >= machines.planer.shortest:
        yield Way(
            "planer",
            "on a flat carrier, shimmed so that it cannot rock",
            "10 minutes to shim it",
            _CARRIER_DANGER,
        )


def _bridge(machines: Machines, size: Size) -> Iterator[Way]:
    if machines.router_bridge >= size[1] > 0:
        yield Way(
            "router bridge",
            "a router on a bridge over it",
            f"about {round(hand_minutes(size, BRIDGE_MINUTES))} minutes",
            _BRIDGE_DANGER,
        )


def _by_hand(machines: Machines, size: Size) -> Iterator[Way]:
    if machines.by_hand:
        yield Way(
            "hand plane",
            "hand planes and winding sticks",
            f"about {round(hand_minutes(size))} minutes",
            _HAND_DANGER,
        )
    yield from () if machines.by_hand else _nowhere(machines)


def _nowhere(machines: Machines) -> Iterator[Way]:
    if machines.outside:
        yield from _outside(machines)
    else:
        yield Way("not here", "leave it out, or lay the part on another board", "a new layout")


def _outside(machines: Machines) -> Iterator[Way]:
    if machines.outside:
        yield Way("outside shop", f"take it to {machines.outside}", "the way there and their price")


def _short(machines: Machines, size: Size) -> Iterator[Way]:
    yield from _by_hand(machines, size)
    yield Way(
        "not here",
        "lay it out again in one blank with others and cut them apart afterwards",
        "a new layout",
    )


def _long(machines: Machines, size: Size) -> Iterator[Way]:
    yield Way(
        "table saw",
        "rip it against a straight carrier",
        "5 minutes to fix it to the carrier",
        "the carrier runs along the fence, never the crooked edge",
    )
    if machines.by_hand:
        yield Way(
            "hand plane",
            "a long hand plane and a straightedge held to the light",
            f"about {round(3 + size[0] / (24 * TICKS_PER_INCH))} minutes",
        )
