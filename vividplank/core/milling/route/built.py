"""Thick pieces built up of layers: glued face to face, then milled as one, so that their edges come
out in line.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from vividplank.core.cutlist import Part
from vividplank.core.layout.model.plan import Blank, Item
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.core.milling.model.step import Given, Step
from vividplank.core.milling.route.ends import Ends
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.piece import Piece
from vividplank.core.piece import operations as op

_CLAMP_EVERY = 6 * TICKS_PER_INCH


@dataclass(frozen=True)
class Layer:
    """A layer ready to be glued."""

    item: Item
    piece: Piece


def whole_of(part: Part, item: Item) -> int:
    """Which of the thick pieces a layer belongs to, from 1."""
    assert part.glued_up
    return (item.n - 1) // part.glued_up.layers + 1


def built_up(planner: Sawing, part: Part, ready: Sequence[Layer]) -> None:
    """The steps from planed layers to one finished thick piece."""
    assert part.glued_up
    say, milling = planner.say, planner.milling
    layers = sorted(ready, key=lambda layer: layer.item.n)
    name = f"{part.id}{layers[0].item.n}-{layers[-1].item.n}"
    called = f"{part.name or part.id} {name}"
    whole = op.glue([layer.piece for layer in layers], name, "thickness")
    home = layers[0].piece.board.id
    planner.home[name] = planner.home.get(home, home)
    over = whole.width - part.width
    clamps = 2 * (whole.length // _CLAMP_EVERY + 1)
    glue = Step(
        f"{name}/glue",
        "bench",
        f"Glue {called}: {', '.join(layer.item.name for layer in layers)} face to face",
        "grain running the same way in all of them, the best face outward",
        "one edge flush, cauls over its whole width"
        if over <= 0
        else "edges about in line: they are milled together",
        whole.thick,
        "none",
        (),
        0,
        0,
        f"closed all round; {clamps} clamps, half of them along each edge, from the middle out",
        f"{len(layers)} layers of {say(layers[0].piece.thick)} give {say(whole.thick)}, the piece "
        f"needs {say(part.glued_up.thickness)}",
        pieces=tuple(layer.item.name for layer in layers),
        hold=milling.waits.clamped,
        piece=name,
        does="glue",
        across="thickness",
    )
    planner.write(glue, [layer.piece for layer in layers], [(Given(name), whole)])
    opened = Step(
        f"{name}/unclamp",
        "bench",
        f"Take the clamps off {name}",
        dimension="none",
        check="scrape the beads of glue off before any cutter meets them",
        why=f"the glue's own sheet rules; {milling.waits.clamped} minutes in clamps here",
        hold=milling.waits.glue,
        does="unclamp",
    )
    whole = planner.on_wood(opened, whole, whole)
    usual = planner.machines.jointer.usual_pass
    light = max(planner.step, usual // 2 // planner.step * planner.step)
    if over > 0 or whole.datum_edge == "rough":
        takes = max(0, min(2 * light, over))
        whole = planner.edge(whole, op.along(whole, takes, 0.0), Given(name, h0=takes), light)
    whole, _ = planner.rip(
        whole,
        name,
        part.width,
        "",
        f"{say(whole.width - part.width)} was left on the layers, so that they need not be glued "
        "to a hair",
    )
    finish = part.glued_up.thickness
    whole = planner.thickness(
        whole,
        finish,
        "flatten",
        f"its layers together are {say(max(0, whole.thick - finish))} over",
    )
    items = [layer.item for layer in layers]
    Ends(planner).cut_up(items, whole, Blank(0, whole.length, (tuple(items),)), called)
