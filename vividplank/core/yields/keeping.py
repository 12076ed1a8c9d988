"""What of the wood a saw leaves goes to the rack, as boards of their own."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import replace

from vividplank.core.board import Board
from vividplank.core.board.clear import clear_areas
from vividplank.core.board.piece import cut_out
from vividplank.core.piece import FACES, SIDES, Face, Piece, Side
from vividplank.core.piece.operations import as_board
from vividplank.core.shop import Keep


def worth_keeping(piece: Board, keep: Keep) -> bool:
    """Whether a rectangle free of unsound faults as large as the rule asks can be cut from it."""
    if piece.length < keep.length or piece.widest < keep.width:
        return False
    return bool(clear_areas(piece, "sound", 1, keep.length, keep.width))


def offcut(piece: Piece) -> Board | None:
    """A piece as a board: rough wood as bent as it was, a dressed one as thick and flat as it is;
    None where there is nothing to speak of.
    """
    if piece.cuts:
        if piece.width < 2:
            return None
        faces: list[Face | Side] = [f for f in FACES if piece.face(f).flat]
        faces = ["B"] if faces == ["A"] else faces  # it was turned over
        edges: list[Face | Side] = [e for e in SIDES if piece.edge(e) == "straight"]
        if len(edges) == 1 and piece.face_a.flat and not piece.face_b.flat:
            edges = [e for e in SIDES if e not in edges]
        return replace(as_board(piece), dressed=(*faces, *edges))
    return cut_out(
        piece.board,
        piece.mark,
        round(piece.x0),
        round(piece.x1),
        (lambda x: max(line.at(x) for line in piece.low)) if piece.low else None,
        (lambda x: min(line.at(x) for line in piece.high)) if piece.high else None,
    )


def racked(pieces: Iterable[Piece], keep: Keep, project: str = "") -> dict[str, tuple[Board, ...]]:
    """The boards that go to the rack, by the board they were cut from, the longest first."""
    found: defaultdict[str, list[Board]] = defaultdict(list)
    quarters: dict[str, str] = {}
    for piece in pieces:
        board = offcut(piece)
        if board and worth_keeping(board, keep):
            found[piece.board.id].append(board)
            quarters[piece.board.id] = piece.board.quarter
    return {
        id: tuple(
            replace(
                b,
                note=f"offcut of {id}" + (f", {project}" if project else ""),
                quarter=quarters[id],
            )
            for b in sorted(boards, key=lambda b: (-b.length, -b.mean_width))
        )
        for id, boards in found.items()
    }
