"""The ways to do each task on a piece, the usual machine first where it takes it, and why it does
not where it does not.

Nothing here asks for a guard to come off without saying so, and such a way is never taken of our
own accord.
"""

from collections.abc import Callable, Iterator

from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Machine, Obstacle, Size, Way
from vividplank.core.milling.shop.machines import Machines

#: Writes ticks as the shop does.
Say = Callable[[int], str]
#: Up to this share of the bed a piece may stand over it and still be faced with a ridge left for
#: the plane.
_OVERHANG = 0.25
_SQUARE_FOOT = (12 * TICKS_PER_INCH) ** 2
#: Minutes for a square foot of hardwood face flattened by hand, and with a router on a bridge.
HAND_MINUTES, BRIDGE_MINUTES = 12.0, 6.0

_HAND_DANGER = "slow work tires: sharp iron, and stop before the hand grows careless"
_CARRIER_DANGER = "it must not rock or slide on its carrier: shims glued, a stop at its tail"
_BRIDGE_DANGER = "the bit must not meet a screw or a wedge"
_GUARD_DANGER = (
    "many guards cannot stay over the cutter at this: where yours would have to come off, not this "
    "way"
)


def face(machines: Machines, size: Size, say: Say, can_rip: bool = False) -> Obstacle:
    """Making one face flat; `can_rip` says that it could be ripped into strips that the jointer
    takes.
    """
    length, width, _ = size
    why = _not_over_the_jointer(machines, size, say)
    ways: list[Way] = []
    if not why:
        ways.append(_usual("jointer"))
    elif width > machines.jointer.bed_width and can_rip and machines.has("jointer"):
        ways.append(
            Way(
                "jointer",
                "strips",
                "rip it along its chalk lines first and face the strips",
                "each strip is faced by itself",
            )
        )
    narrow = machines.has("jointer") and width < machines.jointer.narrowest
    others = [*_carrier(machines, size), *_bridge(machines, size)]
    hand = list(_by_hand(machines, size))
    ways += [*hand, *others] if narrow else [*others, *hand]
    ways += _outside(machines)
    over = width - machines.jointer.bed_width
    long = length >= machines.jointer.shortest and machines.has("jointer")
    if long and 0 < over <= machines.jointer.bed_width * _OVERHANG and machines.by_hand:
        ways.append(
            Way(
                "hand plane",
                "ridge",
                f"face what the bed takes and plane the ridge of {say(over)} off by hand",
                f"about {round(hand_minutes((length, over, 0)))} minutes",
                _GUARD_DANGER,
                guard_off=True,
            )
        )
    if long and over > 0 and any(w.method == "carrier" for w in ways):
        ways.append(
            Way(
                "planer",
                "step-and-carrier",
                "one deeper pass over the jointer leaves a step; the stepped part on a straight "
                "carrier, the rest free beside it, through the planer",
                "one setting more and a straight carrier board",
                _GUARD_DANGER,
                guard_off=True,
            )
        )
    return Obstacle(why, tuple(ways) or nowhere())


def _not_over_the_jointer(machines: Machines, size: Size, say: Say) -> str:
    length, width, thick = size
    jointer = machines.jointer
    if not machines.has("jointer"):
        return "no jointer in this shop"
    if width > jointer.bed_width:
        return f"{say(width)} wide; the jointer takes {say(jointer.bed_width)}"
    if length < jointer.shortest:
        return f"{say(length)} long; nothing under {say(jointer.shortest)} goes over this jointer"
    if thick < jointer.thinnest:
        return f"{say(thick)} thick; the jointer takes {say(jointer.thinnest)} and more"
    if width < jointer.narrowest:
        return f"{say(width)} wide; under {say(jointer.narrowest)} hands come too near the cutter"
    return ""


def edge(machines: Machines, size: Size, say: Say) -> Obstacle:
    """Jointing an edge."""
    length, width, thick = size
    jointer = machines.jointer
    if not machines.has("jointer"):
        why = "no jointer in this shop"
    elif length > jointer.longest:
        why = (
            f"{say(length)} long; over {say(jointer.longest)} these tables cannot hold it straight"
        )
    elif length < jointer.shortest:
        why = f"{say(length)} long; nothing under {say(jointer.shortest)} goes over this jointer"
    elif thick < jointer.thinnest:
        why = (
            f"{say(thick)} thick; an edge under {say(jointer.thinnest)} cannot be held square to "
            f"the fence"
        )
    elif width < jointer.narrowest:
        why = f"{say(width)} wide; under {say(jointer.narrowest)} hands come too near the cutter"
    else:
        why = ""
    ways: list[Way] = [] if why else [_usual("jointer")]
    hand = [
        Way(
            "hand plane",
            "hand",
            "a long hand plane and a straightedge held to the light",
            f"about {round(3 + length / (24 * TICKS_PER_INCH))} minutes",
        )
    ] * machines.by_hand
    carrier = [
        Way(
            "table saw",
            "straight-carrier",
            "rip it against a straight carrier",
            "5 minutes to fix it to the carrier",
            "the carrier runs along the fence, never the crooked edge",
        )
    ] * (
        machines.has("table saw")
        and thick <= machines.table_saw.tallest
        and width >= machines.table_saw.narrowest
        and length >= machines.jointer.shortest
    )
    ways += [*carrier, *hand]
    return Obstacle(why, tuple(ways) or (*_outside(machines), *nowhere())[:1])


def thickness(machines: Machines, size: Size, finish: int, say: Say) -> Obstacle:
    """Planing to a thickness."""
    length, width, _ = size
    planer = machines.planer
    carried: list[Way] = []
    if not machines.has("planer"):
        why = "no thickness planer in this shop"
    elif width > planer.width:
        why = f"{say(width)} wide; this planer takes {say(planer.width)}"
    elif length < planer.shortest:
        why = f"{say(length)} is shorter than the {say(planer.shortest)} it feeds"
    elif finish < planer.thinnest:
        why = f"{say(finish)} is thinner than the {say(planer.thinnest)} this planer takes"
        carried = list(_carrier(machines, size))
    else:
        why = ""
    ways = [] if why else [_usual("planer")]
    ways += [*carried, *_bridge(machines, size), *_by_hand(machines, size), *_outside(machines)]
    return Obstacle(why, tuple(ways) or nowhere())


def crosscut(machines: Machines, size: Size, say: Say) -> Obstacle:
    """Sawing across."""
    width = size[1]
    ways: list[Way] = []
    if not machines.has("crosscut saw"):
        why = "no crosscut saw in this shop"
    elif width > machines.crosscut.widest:
        why = f"{say(width)} wide; this saw cuts {say(machines.crosscut.widest)}"
    else:
        why = ""
        ways.append(_usual("crosscut saw"))
    ways.append(
        Way(
            "handsaw",
            "hand",
            "cut it with a handsaw, which has no such limit",
            "2 minutes a cut; its kerf is narrower",
        )
    )
    if why and machines.has("crosscut saw") and width <= 2 * machines.crosscut.widest:
        ways.append(
            Way(
                "crosscut saw",
                "both-sides",
                "cut from both edges to one line",
                "a step of a hair where the cuts meet",
                "the second cut closes on the blade where the board is bent: support both sides",
            )
        )
    if machines.has("table saw") and width <= machines.table_saw.fence:
        ways.append(
            Way(
                "table saw",
                "sled",
                "on a sled at the table saw",
                "the sled put on and squared",
                "the blade comes out behind the sled's fence: hands clear of it",
            )
        )
    return Obstacle(why, tuple(ways))


def rip(machines: Machines, size: Size, net: int, say: Say) -> Obstacle:
    """Ripping at a fence to a width."""
    _, _, thick = size
    saw = machines.table_saw
    if not machines.has("table saw"):
        why = "no table saw in this shop"
    elif thick > saw.tallest:
        why = f"{say(thick)} thick; this saw cuts {say(saw.tallest)}"
    elif net < saw.narrowest:
        why = (
            f"{say(net)} wide; under {say(saw.narrowest)} there is no room for a push stick "
            f"beside the blade"
        )
    elif net > saw.fence:
        why = f"{say(net)} wide; the fence goes out to {say(saw.fence)}"
    else:
        why = ""
    band = Way(
        "bandsaw",
        "line",
        "saw it at the bandsaw to the line, then plane the edge",
        "a pass over the edge more",
    )
    hand = Way("handsaw", "hand", "rip it by hand, then plane the edge", "4 minutes for each foot")
    ways = [] if why else [_usual("table saw")]
    if machines.has("bandsaw") and thick <= machines.bandsaw.tallest:
        ways.append(band)
    return Obstacle(why, (*ways, hand))


def saw_out(machines: Machines, size: Size, say: Say) -> Obstacle:
    """Sawing along a drawn line, without a fence."""
    thick = size[2]
    hand = Way("handsaw", "hand", "rip it by hand along the line", "4 minutes for each foot")
    if not machines.has("bandsaw"):
        return Obstacle("no bandsaw in this shop", (hand,))
    if thick > machines.bandsaw.tallest:
        return Obstacle(
            f"{say(thick)} thick; this bandsaw takes {say(machines.bandsaw.tallest)}", (hand,)
        )
    return Obstacle("", (_usual("bandsaw"), hand))


def resaw(machines: Machines, height: int, say: Say) -> Obstacle:
    """Sawing a piece on edge into thinner ones."""
    hand = Way(
        "handsaw",
        "hand",
        "saw it by hand from all four corners toward the middle",
        "half an hour a piece",
    )
    if not machines.has("bandsaw"):
        return Obstacle("no bandsaw in this shop", (hand, *_outside(machines)))
    if height > machines.bandsaw.tallest:
        return Obstacle(
            f"{say(height)} high on edge; this bandsaw takes {say(machines.bandsaw.tallest)}",
            (hand, *_outside(machines)),
        )
    return Obstacle("", (_usual("bandsaw"), hand, *_outside(machines)))


def hand_minutes(size: Size, per_foot: float = HAND_MINUTES) -> float:
    """Minutes to flatten one face, by its area."""
    return max(3.0, size[0] * size[1] / _SQUARE_FOOT * per_foot)


def _usual(machine: Machine) -> Way:
    return Way(machine, "machine", f"at the {machine}", "as usual")


def _carrier(machines: Machines, size: Size) -> Iterator[Way]:
    length, width, _ = size
    planer = machines.planer
    if (
        machines.carrier
        and machines.has("planer")
        and width <= planer.width
        and length >= planer.shortest
    ):
        yield Way(
            "planer",
            "carrier",
            "on a flat carrier, shimmed so that it cannot rock",
            "10 minutes to shim it",
            _CARRIER_DANGER,
        )


def _bridge(machines: Machines, size: Size) -> Iterator[Way]:
    if machines.router_bridge >= size[1] > 0:
        yield Way(
            "router bridge",
            "bridge",
            "a router on a bridge over it",
            f"about {round(hand_minutes(size, BRIDGE_MINUTES))} minutes",
            _BRIDGE_DANGER,
        )


def _by_hand(machines: Machines, size: Size) -> Iterator[Way]:
    if machines.by_hand:
        yield Way(
            "hand plane",
            "hand",
            "hand planes and winding sticks",
            f"about {round(hand_minutes(size))} minutes",
            _HAND_DANGER,
        )


def _outside(machines: Machines) -> list[Way]:
    if not machines.outside:
        return []
    return [
        Way(
            "outside shop",
            "outside",
            f"take it to {machines.outside}",
            "the way there and their price",
        )
    ]


def nowhere() -> tuple[Way, ...]:
    return (
        Way(
            "not here",
            "none",
            "leave it out, or lay the part on another board, in one blank with others where it is "
            "too short",
            "a new layout",
        ),
    )
