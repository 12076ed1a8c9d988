"""The maker's own steps: what joinery and decoration a part asks for, where the maker puts it."""

from dataclasses import replace

from vividplank.core.cutlist import Part
from vividplank.core.milling.model.step import Machine, Step
from vividplank.core.milling.route.writer import Writer
from vividplank.core.milling.shop.pace import BY_NAME
from vividplank.core.piece import Piece


def own_steps(plan: Writer, part: Part, piece: Piece, before: bool) -> Piece:
    """The maker's own steps of a part on one piece, in the order they were entered."""
    mine = [s for s in plan.milling.own if s.part == part.id and s.before == before]
    for k, own in enumerate(mine, 1):
        machine: Machine = BY_NAME.get(own.machine, "bench")
        word = "before" if before else "own"
        step = Step(
            f"{piece.mark}/{word}-{k}",
            machine,
            f"{own.name}: {piece.mark}",
            against=own.setting,
            dimension="none",
            check="try it on an offcut first",
            why=f"your own step for {part.name or part.id}"
            + (f", at the {own.machine}" if machine == "bench" != own.machine else ""),
            setup=f"{machine} {own.name} {own.setting}".strip(),
            pieces=(piece.mark,),
            does="own",
        )
        plan.on_wood(step, piece, piece)
        plan.steps[-1] = replace(plan.steps[-1], minutes=own.minutes)
    return piece
