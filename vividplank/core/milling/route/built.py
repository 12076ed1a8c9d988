"""Thick pieces built up of layers: glued face to face, then milled as one, so that their edges come
out in line.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from vividplank.core.cutlist import Part
from vividplank.core.layout.model.plan import Item
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.passes import thickness_passes
from vividplank.core.milling.model.step import Step
from vividplank.core.milling.route import ways
from vividplank.core.milling.route.planner import Planner
from vividplank.core.milling.route.shapes import shape
from vividplank.core.milling.route.writer import Stock

_CLAMP_EVERY = 6 * TICKS_PER_INCH


@dataclass(frozen=True)
class Layer:
    """A layer ready to be glued: which it is, the piece in hand, its net width, and how much wider
    than that it still is.
    """

    item: Item
    stock: Stock
    net: int
    over: int


def whole_of(part: Part, item: Item) -> int:
    """Which of the thick pieces a layer belongs to, from 1."""
    assert part.glued_up
    return (item.n - 1) // part.glued_up.layers + 1


def built_up(planner: Planner, part: Part, ready: Sequence[Layer]) -> None:
    """The steps from planed layers to one finished thick piece."""
    assert part.glued_up
    say, milling, planer = planner.say, planner.milling, planner.machines.planer
    layers = sorted(ready, key=lambda layer: layer.item.n)
    name = f"{part.id}{layers[0].item.n}-{layers[-1].item.n}"
    called = f"{part.name or part.id} {name}"
    thick = sum(layer.stock.thick for layer in layers)
    over = min(layer.over for layer in layers)
    first = min(layers, key=lambda layer: layer.stock.length).stock
    region = replace(first.region, h1=first.region.h0 + layers[0].net + over)
    whole = Stock(name, first.board, region, thick, "", glued=True)
    clamps = 2 * (whole.length // _CLAMP_EVERY + 1)
    glued = planner.write(
        Step(
            f"{name}/glue",
            "bench",
            f"Glue {called}: {', '.join(layer.item.name for layer in layers)} face to face",
            "grain running the same way in all of them, the best face outward",
            "one edge flush, cauls over its whole width"
            if not over
            else "edges about in line: they are milled together",
            thick,
            "none",
            (),
            0,
            0,
            f"closed all round; {clamps} clamps, half of them along each edge, from the middle out",
            f"{len(layers)} layers of {say(layers[0].stock.thick)} give {say(thick)}, the piece "
            f"needs "
            f"{say(part.glued_up.thickness)}",
            pieces=tuple(layer.item.name for layer in layers),
            after=tuple(layer.stock.last for layer in layers),
            hold=milling.waits.clamped,
        ),
        whole,
    )
    whole = replace(
        whole,
        last=planner.write(
            Step(
                f"{name}/unclamp",
                "bench",
                f"Take the clamps off {name}",
                "",
                "",
                0,
                "none",
                check="scrape the beads of glue off before any cutter meets them",
                why=f"the glue's own sheet rules; {milling.waits.clamped} minutes in clamps here",
                after=(glued,),
                hold=milling.waits.glue,
            ),
            whole,
        ),
    )
    if over:
        whole = _edges(planner, whole, part.width)
    finish = part.glued_up.thickness
    if thick - finish >= planner.step:
        whole = replace(
            whole,
            thick=finish,
            last=planner.write(
                Step(
                    f"{name}/flatten",
                    "planer",
                    f"Plane {name} to {say(finish)}",
                    "the flatter face, then the other",
                    "",
                    finish,
                    "thickness",
                    thickness_passes(thick, finish, planer.usual_pass, planer.last_pass),
                    thick,
                    finish,
                    f"caliper: {say(finish)}",
                    f"its layers together are {say(thick - finish)} over",
                    setup=f"planer {finish}",
                    after=(whole.last,),
                    tolerance=planner.step,
                    turn_over=1,
                ),
                whole,
                ways.thickness(milling.machines, whole.size, finish, say),
            ),
        )
    whole = planner.square(whole, (called,))
    last = planner.cut(whole, part, [layer.item for layer in layers], called=called)
    shape(planner, replace(whole, last=last), part, [layer.item for layer in layers], called)


def _edges(planner: Planner, whole: Stock, width: int) -> Stock:
    """One edge jointed over all layers, the other ripped parallel to it."""
    say, jointer = planner.say, planner.machines.jointer
    light = max(planner.step, jointer.usual_pass // 2 // planner.step * planner.step)
    jointed = planner.write(
        Step(
            f"{whole.name}/edge",
            "jointer",
            f"Joint one edge of {whole.name} until all layers are cut",
            "the edge with the layers nearest in line",
            "the flattest face",
            light,
            "straight",
            (light, light),
            whole.width,
            whole.width,
            "no glue line stands proud; square to the face",
            "scrape the glue first: it is hard on knives",
            setup=f"jointer {light}",
            after=(whole.last,),
            tolerance=planner.step,
        ),
        whole,
        ways.edge(planner.machines, whole.size, say),
    )
    ripped = planner.write(
        Step(
            f"{whole.name}/width",
            "table saw",
            f"Rip {whole.name} to {say(width)}",
            "the flattest face",
            "the jointed edge",
            width,
            "width",
            (),
            whole.width,
            width,
            "parallel within the thickness of a card",
            f"{say(whole.width - width)} was left on the layers, so that they need not be glued "
            f"to a hair",
            setup=f"table saw {width}",
            after=(jointed,),
            tolerance=2 * planner.step,
        ),
        whole,
        ways.rip(planner.machines, whole.size, width, say),
    )
    return replace(whole, last=ripped, region=replace(whole.region, h1=whole.region.h0 + width))
