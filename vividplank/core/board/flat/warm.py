"""Compile the geometry ahead of time: `python -m vividplank.core.board.flat.warm`."""

from dataclasses import replace

from vividplank.core.board import Board, Region, Station, Surface, flat_slab


def warm() -> None:
    """Ask for a slab of either kind, so that the compiled code lies in the cache."""
    board = Board("", "", 9, (Station(0, 0, 9, 9, 9), Station(9, 0, 9, 9, 9)))
    scanned = replace(board, surface=Surface((0, 9), (0, 9), ((0, 0), (0, 0)), ((9, 9), (9, 9))))
    for each in (board, scanned):
        flat_slab(each, Region(0, 9, 0, 0.0, 0, 9))


if __name__ == "__main__":
    warm()
