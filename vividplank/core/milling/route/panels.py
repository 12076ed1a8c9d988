"""Panels: staves put in order, jointed, glued, left, flattened and trimmed to size."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from vividplank.core.board import Region
from vividplank.core.cutlist import Part
from vividplank.core.layout.model.plan import Item
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.passes import thickness_passes
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route import ways
from vividplank.core.milling.route.planner import Planner
from vividplank.core.milling.route.shapes import shape
from vividplank.core.milling.route.writer import Stock

_CLAMP_EVERY = 8 * TICKS_PER_INCH


@dataclass(frozen=True)
class Stave:
    """A stave ready to be glued: its name on the wood, the piece in hand, its net width, and the
    board it came from.
    """

    name: str
    stock: Stock
    net: int


def in_order(staves: Sequence[Stave]) -> list[Stave]:
    """Staves of one board beside each other as they grew, so that colour and figure run on."""
    return sorted(
        staves,
        key=lambda s: (s.stock.board.id, s.stock.region.y0 + s.stock.region.h0, s.stock.region.x0),
    )


def panel(planner: Planner, part: Part, n: int, staves: Sequence[Stave]) -> None:
    """The steps from planed and ripped staves to the finished panel."""
    name = f"{part.id}{n}"
    say, milling = planner.say, planner.milling
    ordered = in_order(staves)
    jointed = []
    for stave in ordered:
        stock = stave.stock
        size = (stock.length, stave.net, stock.thick)
        light = max(
            planner.step, milling.machines.jointer.usual_pass // 2 // planner.step * planner.step
        )
        jointed.append(
            planner.write(
                Step(
                    f"{stock.name}/glue-edge",
                    "jointer",
                    f"Joint both edges of {stave.name} for glue",
                    "the edge, grain running out behind",
                    "one stave's face to the fence, its neighbour's other face: what the fence "
                    "is out of square cancels",
                    light,
                    "straight",
                    (light, light),
                    stave.net,
                    stave.net - 2 * light,
                    "two edges held to the light: closed at the ends, a hair hollow in the "
                    "middle at most",
                    "by hand, plane the two edges folded together; a joint left hollow by a hair "
                    "needs one clamp less",
                    setup=f"jointer {light}",
                    marks=(stave.name,),
                    after=(stock.last,),
                    tolerance=planner.step,
                ),
                stock,
                ways.edge(milling.machines, size, say),
            )
        )
    width = sum(s.net for s in ordered)
    thick = max(s.stock.thick for s in ordered)
    length = min(s.stock.length for s in ordered)
    clamps = length // _CLAMP_EVERY + 1
    whole = Stock(
        name, ordered[0].stock.board, Region(0, length, 0, 0.0, 0, width), thick, "", glued=True
    )
    glued = planner.write(
        Step(
            f"{name}/glue",
            "bench",
            f"Glue {part.name or part.id} {name}: {', '.join(s.name for s in ordered)} side by "
            f"side",
            _arch(ordered),
            "",
            width,
            "none",
            (),
            0,
            0,
            f"flat across under a straightedge while the glue is wet; {clamps} clamps, every "
            f"second from below",
            f"{len(ordered)} staves give {say(width)}, the panel needs {say(part.width)}; "
            f"{clamps} clamps, one every "
            f"{say(_CLAMP_EVERY)}",
            pieces=tuple(s.name for s in ordered),
            after=tuple(jointed),
            hold=milling.waits.clamped,
        ),
        whole,
    )
    opened = planner.write(
        Step(
            f"{name}/unclamp",
            "bench",
            f"Take the clamps off {name}",
            "",
            "",
            0,
            "none",
            check="scrape the beads of glue while they are rubber",
            why=f"the glue's own sheet rules; {milling.waits.clamped} minutes in clamps here",
            after=(glued,),
            hold=milling.waits.glue,
        ),
        whole,
    )
    whole = replace(whole, last=opened)
    planer = milling.machines.planer
    flat = planner.write(
        Step(
            f"{name}/flatten",
            "planer",
            f"Plane {name} to {say(part.thickness)}",
            "the flatter face, then the other",
            "",
            part.thickness,
            "thickness",
            thickness_passes(thick, part.thickness, planer.last_pass, planer.last_pass),
            thick,
            part.thickness,
            f"caliper: {say(part.thickness)}; no step at a joint",
            f"its staves stopped {say(thick - part.thickness)} over, so that the joints can be "
            f"flattened away after glue-up",
            setup=f"planer {part.thickness}",
            after=(opened,),
            tolerance=planner.step,
            turn_over=1,
        ),
        whole,
        ways.thickness(milling.machines, whole.size, part.thickness, say),
    )
    trimmed = planner.write(
        Step(
            f"{name}/trim",
            "table saw",
            f"Trim {name} to {say(part.width)} wide",
            "the better face up",
            "a straight edge; take half from each side",
            part.width,
            "width",
            (),
            width,
            part.width,
            "both edges parallel",
            f"{say(max(0, width - part.width))} over goes off both edges alike",
            setup=f"table saw {part.width}",
            after=(flat,),
            tolerance=2 * planner.step,
        ),
        replace(whole, thick=part.thickness),
        ways.rip(milling.machines, (length, width, part.thickness), part.width, say),
    )
    # A panel is as wide as a crosscut saw is narrow: its length is squared by the same means as any
    # other piece's.
    across = replace(
        whole, thick=part.thickness, last=trimmed, region=Region(0, length, 0, 0.0, 0, part.width)
    )
    cut = planner.write(
        Step(
            f"{name}/length",
            "crosscut saw",
            f"Square {name} and cut it to {say(part.length)}",
            "the better face up",
            "the trimmed edge",
            part.length,
            "length",
            (),
            length,
            part.length,
            "both diagonals alike",
            "staves were left long, so that no end has to be kept in line",
            pieces=(f"{part.name or part.id} {name}",),
            setup=f"crosscut {part.length}",
            after=(trimmed,),
            tolerance=planner.step,
        ),
        across,
        ways.crosscut(milling.machines, part.width, say),
    )
    shape(
        planner,
        replace(across, last=cut),
        part,
        [Item(part.id, n)],
        f"{part.name or part.id} {name}",
    )


def _arch(staves: Sequence[Stave]) -> str:
    """How the rings are to lie, as far as somebody has looked at the ends."""
    hearts: Mapping[str, str] = {
        s.stock.board.id: s.stock.board.grain.heart for s in staves if s.stock.board.grain.heart
    }
    if not hearts:
        return (
            "look at the ends: rings arching up and down by turns keep it flat in waves, all one "
            "way gives one arch to be "
            "held down"
        )
    told = ", ".join(
        f"{board} has its heart at face {face}" for board, face in sorted(hearts.items())
    )
    return f"rings arching up and down by turns: {told}"
