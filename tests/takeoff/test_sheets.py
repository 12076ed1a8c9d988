"""Sheets to take off from by eye: lines and words lie where the picture shows them, however the
page is turned or cropped.
"""

import io

import pypdfium2 as pdfium
import pytest
from PIL import Image, ImageDraw
from reportlab.pdfgen.canvas import Canvas

from vividplank.core.takeoff import Settings, read

MM = 72 / 25.4


def page_with_rail(turned: int, cropped: bool) -> bytes:
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(297 * MM, 210 * MM), pageCompression=0)
    canvas.setLineWidth(2)
    canvas.rect(60 * MM, 50 * MM, 160 * MM, 20 * MM)
    canvas.drawString(65 * MM, 100 * MM, "Long rail")
    canvas.save()
    document = pdfium.PdfDocument(out.getvalue())
    if cropped:
        document[0].set_cropbox(40 * MM, 30 * MM, 260 * MM, 200 * MM)
    document[0].set_rotation(turned)
    held = io.BytesIO()
    document.save(held)
    return held.getvalue()


@pytest.mark.parametrize("cropped", [False, True])
@pytest.mark.parametrize("turned", [0, 90, 180, 270])
def test_lines_lie_where_the_picture_shows_them(turned: int, cropped: bool) -> None:
    reading, pages = read(page_with_rail(turned, cropped), "rail.pdf", Settings())
    view = reading.views[0]
    wide, high = (220.0, 170.0) if cropped else (297.0, 210.0)
    assert (view.width, view.height) == pytest.approx(
        (wide, high) if turned % 180 == 0 else (high, wide), abs=0.05
    )
    [rail] = view.lines
    spans = sorted(max(p[k] for p in rail) - min(p[k] for p in rail) for k in (0, 1))
    assert spans == pytest.approx([20, 160], abs=0.01)
    picture = Image.open(io.BytesIO(pages[0].png)).convert("L")
    scale = picture.width / view.width
    for x, y in rail:
        assert picture.getpixel((round(x * scale), round(y * scale))) < 100, (
            "a corner to snap to lies on its line"
        )
    [word] = view.words
    assert word.text == "Long rail"
    x, y = (round(at * scale) for at in word.at)
    around = picture.crop((x - 30, y - 30, x + 30, y + 30))
    assert around.getextrema()[0] < 100, "the word lies where it is written"


def test_a_picture_without_a_ground_is_black_on_white() -> None:
    drawn = Image.new("RGBA", (300, 200), (0, 0, 0, 0))
    ImageDraw.Draw(drawn).line((20, 100, 280, 100), fill=(0, 0, 0, 255), width=3)
    out = io.BytesIO()
    drawn.save(out, "PNG")
    _, pages = read(out.getvalue(), "rail.png", Settings())
    seen = Image.open(io.BytesIO(pages[0].png))
    assert seen.getpixel((150, 30)) == (255, 255, 255) and seen.getpixel((150, 100)) == (0, 0, 0)
