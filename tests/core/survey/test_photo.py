"""Photographs straightened by four corners: a knot comes out where it is, and what is no photograph
is refused.
"""

import io

import pytest
from PIL import Image

from tests.making import a_board
from tests.photograph import dark_spot, photographed
from vividplank.core.survey.photo import NoPhoto, ends_of, opened, projection, straightened

BOARD = a_board(length=60, width=7, far_width=6)


@pytest.mark.parametrize("face", ["A", "B"])
@pytest.mark.parametrize("knot", [(12.0, 2.0), (31.5, 3.5), (55.0, 4.8)])
def test_a_knot_comes_out_within_a_sixteenth(face: str, knot: tuple[float, float]) -> None:
    board = a_board(length=60, width=7)
    taken = photographed(board, knot, face=face)
    x, y = dark_spot(straightened(opened(taken.jpeg), taken.corners, ends_of(board), face))
    up = 7 * (1 - y) if face == "A" else 7 * y
    assert (60 * x, up) == (pytest.approx(knot[0], abs=1 / 16), pytest.approx(knot[1], abs=1 / 16))


def test_a_projection_takes_four_points_to_four_points() -> None:
    square, other = [(0, 0), (4, 0), (4, 2), (0, 2)], [(1, 1), (9, 2), (8, 7), (2, 5)]
    a, b, c, d, e, f, g, h = projection(square, other)
    for (x, y), (to_x, to_y) in zip(square, other, strict=True):
        deep = g * x + h * y + 1
        assert ((a * x + b * y + c) / deep, (d * x + e * y + f) / deep) == (
            pytest.approx(to_x),
            pytest.approx(to_y),
        )


def test_a_tapered_board_fills_its_own_corners() -> None:
    # Its far end is an inch narrower: the straightened picture is as high as the wide end and lies
    # a corner lower there.
    taken = photographed(a_board(length=60, width=7), (30, 3))
    picture = Image.open(
        io.BytesIO(straightened(opened(taken.jpeg), taken.corners, ends_of(BOARD), "A"))
    )
    assert picture.size == (2400, 280)


@pytest.mark.parametrize(
    ("corners", "why"),
    [
        ([(0.1, 0.8), (0.9, 0.2), (0.9, 0.8), (0.1, 0.2)], "do not go round"),
        ([(0.1, 0.5), (0.9, 0.5), (0.9, 0.5), (0.1, 0.5)], "do not go round"),
        ([(0.1, 0.2), (0.9, 0.2), (0.9, 0.8), (0.1, 0.8)], "shows the other face"),
    ],
)
def test_corners_that_cannot_be_are_refused(corners: list[tuple[float, float]], why: str) -> None:
    kept = opened(photographed(BOARD, (30, 3)).jpeg)
    with pytest.raises(NoPhoto, match=why):
        straightened(kept, corners, ends_of(BOARD), "A")


def png(width: int, height: int) -> bytes:
    out = io.BytesIO()
    Image.new("1", (width, height)).save(out, "PNG")
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "why"),
    [
        (b"", "no photograph"),
        (b"%PDF-1.7 no picture", "no photograph"),
        (photographed(BOARD, (30, 3)).jpeg[:900], "no photograph"),
        (png(30, 3000), "too small"),
        (png(10_000, 9_000), "at most 80 million"),
    ],
)
def test_what_is_no_photograph_is_refused(content: bytes, why: str) -> None:
    with pytest.raises(NoPhoto, match=why):
        opened(content)


def test_a_photograph_held_sideways_comes_upright_and_not_too_large() -> None:
    out = io.BytesIO()
    sideways = Image.new("RGB", (6000, 3000), "#d9b98a")
    exif = sideways.getexif()
    exif[0x0112] = 6
    sideways.save(out, "JPEG", exif=exif)
    assert Image.open(io.BytesIO(opened(out.getvalue()))).size == (2000, 4000)
