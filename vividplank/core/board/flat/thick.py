"""For a wanted thickness: the longest pieces the board gives, and where to crosscut; and what
shimming saves.
"""

from dataclasses import dataclass

from vividplank.core.board.board import Board
from vividplank.core.board.defect import Region
from vividplank.core.board.flat.slab import flat_slab
from vividplank.core.measure import System, about

#: Cuts are tried at so many places along the board.
_PLACES = 96


@dataclass(frozen=True)
class Length:
    """A length of the board at full straight width and the flat thickness it holds, in ticks."""

    x0: int
    x1: int
    flat: float


def straight_width(board: Board, x0: int, x1: int) -> tuple[int, int]:
    """The edges of the widest straight strip along x0..x1; its own edges at x0 where a crook leaves
    little.
    """
    places = [x0, *(s.x for s in board.stations if x0 < s.x < x1), x1]
    edges = [board.edges(x) for x in places]
    low, high = max(e[0] for e in edges), min(e[1] for e in edges)
    if high - low < board.widest / 4:
        low, high = edges[0][0], edges[0][1]
    return int(-(-low // 1)), int(high)


def region(board: Board, x0: int, x1: int) -> Region:
    low, high = straight_width(board, x0, x1)
    return Region(x0, x1, low, 0.0, 0, high - low)


def flat_between(board: Board, x0: int, x1: int) -> float:
    return flat_slab(board, region(board, x0, x1)).thickness


def lengths_for(board: Board, thickness: int, kerf: int, shortest: int) -> tuple[Length, ...]:
    """The longest length that holds this thickness flat, the longest beside it, and so on; none
    under `shortest`.
    """
    step = max(board.length // _PLACES, 1)
    xs = [*range(0, board.length - step // 2, step), board.length]
    found: list[Length] = []
    free = [(0, board.length)]
    while free:
        best: Length | None = None
        for low, high in free:
            inside = [x for x in xs if low < x < high]
            best = (
                _longest(
                    board,
                    [low, *inside, high],
                    thickness,
                    max(shortest, best.x1 - best.x0 + 1 if best else 0),
                )
                or best
            )
        if best is None:
            break
        found.append(best)
        free = [
            piece
            for low, high in free
            for piece in (
                [(low, high)]
                if high <= best.x0 or low >= best.x1
                else [(low, best.x0 - kerf), (best.x1 + kerf, high)]
            )
            if piece[1] - piece[0] >= shortest
        ]
    return tuple(found)


def said_of(
    board: Board,
    thickness: int,
    found: tuple[Length, ...],
    kerf: int,
    shortest: int,
    system: System,
) -> str:
    """One sentence: where to crosscut for that thickness, or that this is not the board for it."""

    def say(ticks: float) -> str:
        return about(ticks, system, unit=True, down=True)

    whole = flat_between(board, 0, board.length)
    if whole >= thickness:
        return f"Holds {say(thickness)} flat in one length: {say(whole)} are in it whole."
    if not found:
        x1 = min(board.length, shortest)
        most = max(
            flat_between(board, x, x + x1) for x in range(0, board.length - x1 + 1, max(x1 // 4, 1))
        )
        return (
            f"Not for this: at {say(thickness)} nothing over {say(shortest)} comes out. Even so "
            f"short it holds {say(most)}: "
            "good for thinner parts, or for narrow ones ripped before they are flattened."
        )
    ends = {p.x1 for p in found if p.x1 < board.length}
    # Where one length begins a kerf after another ends, that is one cut.
    cuts = sorted(
        ends | {p.x0 for p in found if p.x0 > 0 and not any(0 < p.x0 - e <= kerf for e in ends)}
    )
    pieces = ", ".join(say(p.x1 - p.x0) for p in found)
    return (
        f"Whole it holds {say(whole)}. Crosscut at {' and '.join(say(c) for c in cuts)}: "
        f"{say(thickness)} flat comes out in "
        f"{'one length' if len(found) == 1 else f'{len(found)} lengths'} of {pieces}."
    )


def unshimmed(board: Board, place: Region) -> float:
    """The flat thickness if it is faced as it lies on the bench, not tilted or shimmed: over its
    lowest upper place.
    """
    steps = 64
    xs = [place.x0 + (place.x1 - place.x0) * k / steps for k in range(steps + 1)]
    hs = [place.h0 + (place.h1 - place.h0) * k / 16 for k in range(17)]
    under = [(x, place.line(x) + h) for x in xs for h in hs]
    heights = [(board.underside(x, y), board.thickness(x, y)) for x, y in under]
    return min(z + t for z, t in heights) - max(z for z, _ in heights)


def _longest(board: Board, xs: list[int], thickness: int, least: int) -> Length | None:
    """Longer never holds more: both ends only move forward."""
    best: Length | None = None
    j = 0
    for i, x0 in enumerate(xs):
        j = max(j, i + 1)
        while j < len(xs) and (flat := flat_between(board, x0, xs[j])) >= thickness:
            if xs[j] - x0 >= least and (best is None or xs[j] - x0 > best.x1 - best.x0):
                best = Length(x0, xs[j], flat)
            j += 1
    return best
