"""Pieces that were made, and that the list wants smaller since: planed, ripped and cut again."""

from vividplank.core.layout.model.plan import Item
from vividplank.core.milling.model.step import Given
from vividplank.core.milling.route.sawing import Sawing
from vividplank.core.piece import Piece
from vividplank.core.piece import operations as op


def resized(plan: Sawing, piece: Piece, item: Item) -> Piece:
    """Brought from each size it was made to to the next, and to that of the list at last. Steps
    that are done keep the figures they were done by.
    """
    made = plan.made.get((item.part, item.n))
    if not made:
        return piece
    part = plan.job.part(item.part)
    wanted = (*made[1:], (part.length, part.width, part.thickness))
    for k, (length, width, thickness) in enumerate(wanted, 1):
        word = "again" if k == 1 else f"again-{k}"
        why = f"it was made before the list wanted {piece.mark} smaller"
        if piece.thick > thickness + 1:
            piece = plan.thickness(piece, thickness, f"{word}-thickness", why)
        if piece.width > width + 1:
            piece, _ = plan.rip(piece, piece.mark, width, reason=why, kind=f"{word}-width")
        if piece.length > length + 1:
            piece = _shorter(plan, piece, length, f"{piece.mark}/{word}-length", why)
    return piece


def _shorter(plan: Sawing, piece: Piece, length: int, key: str, why: str) -> Piece:
    step = plan.to_length(
        piece, f"Cut {piece.mark} to {plan.say(length)}", length, key=key, why=why
    )
    after = op.crosscut(piece, piece.mark, 0, length)
    found = plan.across(key, piece)
    return plan.on_wood(step, piece, after, found, Given(piece.mark, 0, length))
