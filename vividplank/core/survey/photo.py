"""A photograph of a board's face, straightened by the board's four corners so that it lies under
the drawing to scale.
"""

import io
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from vividplank.core.board.board import Board
from vividplank.core.measure import TICKS_PER_INCH

_MOST_PIXELS = 80_000_000
#: The straightened picture has so many pixels to the inch, unless the board is so long that it
#: would be wider than this.
_PER_INCH, _WIDEST = 40.0, 4000

Corner = tuple[float, float]


class NoPhoto(ValueError):
    """The text says why this cannot serve as a photograph of a board."""


@dataclass(frozen=True)
class Ends:
    """All that straightening needs to know of a board: its length, the edges at both ends, how low
    and high it reaches.
    """

    length: int
    near: tuple[int, int]
    far: tuple[int, int]
    low: int
    high: int


def ends_of(board: Board) -> Ends:
    first, last = board.stations[0], board.stations[-1]
    low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
    return Ends(board.length, (first.y0, first.y1), (last.y0, last.y1), low, high)


def opened(content: bytes) -> bytes:
    """The photograph upright as a JPEG, or NoPhoto."""
    from PIL import Image, ImageOps

    try:
        with Image.open(io.BytesIO(content), formats=("PNG", "JPEG", "WEBP")) as found:
            if found.width * found.height > _MOST_PIXELS:
                raise NoPhoto(
                    f"This picture has {found.width} by {found.height} pixels; expected at most "
                    f"80 million."
                )
            if min(found.width, found.height) < 40:
                raise NoPhoto(
                    f"This picture is {found.width} by {found.height} pixels; too small to show "
                    f"a board."
                )
            found.load()
            upright = ImageOps.exif_transpose(found).convert("RGB")
    except NoPhoto:
        raise
    except Exception as problem:  # what a broken picture does to a decoder is not to be foreseen
        raise NoPhoto(
            "This is no photograph that can be read here; expected a JPEG, PNG or WebP picture."
        ) from problem
    upright.thumbnail((4000, 4000))
    kept = io.BytesIO()
    upright.save(kept, "JPEG", quality=88)
    return kept.getvalue()


def straightened(content: bytes, corners: Sequence[Corner], board: Ends, face: str) -> bytes:
    """The photograph as the face is drawn: x to the right, the far edge up on face A and down on
    face B; a JPEG.

    `corners` are shares of the picture's width and height, in the order datum end at the datum
    edge, far end at the datum edge, far end at the far edge, datum end at the far edge. It reaches
    from the datum end to the board's length and from the lowest to the highest edge. NoPhoto where
    the corners do not go round the board once.
    """
    from PIL import Image

    with Image.open(io.BytesIO(content)) as picture:
        picture.load()
    _check(corners, mirrored=face == "B")
    low, high = board.low, board.high
    scale = min(_PER_INCH, _WIDEST / (board.length / TICKS_PER_INCH)) / TICKS_PER_INCH
    ends = (
        (0, board.near[0]),
        (board.length, board.far[0]),
        (board.length, board.far[1]),
        (0, board.near[1]),
    )
    drawn = [(x * scale, (high - y if face == "A" else y - low) * scale) for x, y in ends]
    seen = [(x * picture.width, y * picture.height) for x, y in corners]
    size = (max(1, round(board.length * scale)), max(1, round((high - low) * scale)))
    flat = picture.transform(
        size,
        Image.Transform.PERSPECTIVE,
        [float(c) for c in projection(drawn, seen)],
        Image.Resampling.BICUBIC,
    )
    kept = io.BytesIO()
    flat.save(kept, "JPEG", quality=85)
    return kept.getvalue()


def projection(source: Sequence[Corner], target: Sequence[Corner]) -> npt.NDArray[np.float64]:
    """a … h with x' = (ax + by + c) / (gx + hy + 1) and y' = (dx + ey + f) / (gx + hy + 1) for four
    pairs of points.

    The eight equations of a plane projective map (Hartley and Zisserman, Multiple View Geometry,
    2004, ch. 4).
    """
    rows, right = [], []
    for (x, y), (to_x, to_y) in zip(source, target, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -x * to_x, -y * to_x], [0, 0, 0, x, y, 1, -x * to_y, -y * to_y]]
        right += [to_x, to_y]
    found: npt.NDArray[np.float64] = np.linalg.solve(
        np.array(rows, dtype=np.float64), np.array(right, dtype=np.float64)
    )
    return found


def _check(corners: Sequence[Corner], *, mirrored: bool) -> None:
    turns = []
    for k in range(4):
        (ax, ay), (bx, by), (cx, cy) = (corners[(k + n) % 4] for n in range(3))
        turns.append((bx - ax) * (cy - by) - (by - ay) * (cx - bx))
    if not (all(t > 1e-5 for t in turns) or all(t < -1e-5 for t in turns)):
        raise NoPhoto(
            "The four corners do not go round the board. Set them again: datum end first, then "
            "along the datum edge."
        )
    if (turns[0] > 0) != mirrored:
        raise NoPhoto(
            f"Going round these corners shows the other face. This is face "
            f"{'B' if mirrored else 'A'}: is the datum edge the "
            "one you mean, or was the board turned over?"
        )
