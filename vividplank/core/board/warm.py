"""Compile the geometry ahead of time: `python -m vividplank.core.board.warm`."""

from vividplank.core.board import Board, Region, Station, flat_slab


def warm() -> None:
    """Ask for one slab, so that the compiled code lies in the cache."""
    flat_slab(Board("", "", 9, (Station(0, 0, 9, 9, 9), Station(9, 0, 9, 9, 9))), Region(0, 9, 0, 0.0, 0, 9))


if __name__ == "__main__":
    warm()
