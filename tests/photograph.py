"""A made-up photograph of a board's face: drawn flat, then seen from above at a slant."""

import io
from dataclasses import dataclass

import numpy as np
from PIL import Image, ImageDraw

from vividplank.core.board import Board
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.survey.photo import Corner, projection

SCALE = 30  # pixels to the inch of the flat drawing
SIZE = (2400, 1500)


@dataclass(frozen=True)
class Taken:
    """The picture and where the board's corners are in it, as shares: datum end and edge, far end,
    its far edge, back.
    """

    jpeg: bytes
    corners: list[Corner]


def photographed(
    board: Board, knot: tuple[float, float], *, face: str = "A", radius: float = 0.45
) -> Taken:
    """The face with one dark knot whose middle is at `knot` (inches along, inches up)."""
    low, high = min(s.y0 for s in board.stations), max(s.y1 for s in board.stations)
    flat = Image.new(
        "RGB", (round(board.length / INCH * SCALE), round((high - low) / INCH * SCALE)), "#d9b98a"
    )
    draw = ImageDraw.Draw(flat)
    across = (high / INCH - knot[1] if face == "A" else knot[1] - low / INCH) * SCALE
    x = knot[0] * SCALE
    draw.ellipse(
        (x - radius * SCALE, across - radius * SCALE, x + radius * SCALE, across + radius * SCALE),
        fill="#2a1608",
    )
    w, h = flat.size
    # The near side of the board is below on face A; it looks larger than the far side.
    near, far = (0.9, 0.62) if face == "A" else (0.62, 0.9)
    bottom, top = [(0.04, near), (0.97, near - 0.03)], [(0.9, far - 0.2), (0.1, far - 0.22)]
    if face == "B":
        bottom, top = [(0.1, far - 0.5), (0.9, far - 0.48)], [(0.97, far - 0.03), (0.04, far)]
    corners: list[Corner] = [*bottom, *top]
    seen = [(a * SIZE[0], b * SIZE[1]) for a, b in corners]
    drawn = [(0, h), (w, h), (w, 0), (0, 0)] if face == "A" else [(0, 0), (w, 0), (w, h), (0, h)]
    coefficients = [float(c) for c in projection(seen, drawn)]
    picture = flat.transform(
        SIZE,
        Image.Transform.PERSPECTIVE,
        coefficients,
        Image.Resampling.BICUBIC,
        fillcolor="#7d8790",
    )
    noise = np.random.default_rng(4).normal(0, 6, (SIZE[1], SIZE[0], 3))
    picture = Image.fromarray(np.clip(np.asarray(picture) + noise, 0, 255).astype(np.uint8))
    kept = io.BytesIO()
    picture.save(kept, "JPEG", quality=90)
    return Taken(kept.getvalue(), corners)


def dark_spot(picture: bytes) -> tuple[float, float]:
    """The middle of what is darkest, as shares of the picture: where an eye would put the knot."""
    grey = np.asarray(Image.open(io.BytesIO(picture)).convert("L"), dtype=float)
    ys, xs = np.nonzero(grey < 90)
    return float(xs.mean() + 0.5) / grey.shape[1], float(ys.mean() + 0.5) / grey.shape[0]
