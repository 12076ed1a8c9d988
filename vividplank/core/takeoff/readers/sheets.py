"""PDF, PNG and JPEG as sheets to take off from by eye: a picture of each page, and its lines to
snap to.
"""

import io
from dataclasses import dataclass
from typing import Any

from vividplank.core.takeoff.model.found import Point, Reading, Unreadable, View, Words

_MOST_PAGES = 40
_MOST_LINES = 6000
#: Pictures are shown at so many pixels on the longer side.
_PIXELS = 2400
_MOST_PIXELS = 80_000_000
_MM_PER_POINT = 25.4 / 72


@dataclass(frozen=True)
class Page:
    """A page as a PNG."""

    png: bytes


def read_pdf(content: bytes) -> tuple[Reading, list[Page]]:
    """Pages with their vector lines and words, mm on paper, y down. Raises Unreadable for what is
    no PDF.
    """
    import pypdfium2 as pdfium

    try:
        document = pdfium.PdfDocument(content)
        count = len(document)
    except pdfium.PdfiumError as problem:
        raise Unreadable(f"this PDF cannot be read: {str(problem)[:160]}") from None
    if not count:
        raise Unreadable("this PDF has no page")
    views, pages = [], []
    for n in range(min(count, _MOST_PAGES)):
        page = document[n]
        width, height = page.get_size()
        if not 1 <= width <= 20000 or not 1 <= height <= 20000:
            raise Unreadable(
                f"page {n + 1} of this PDF measures {width:.0f} by {height:.0f} points; expected "
                f"a sheet of paper"
            )
        picture = (
            page.render(scale=_PIXELS / max(width, height), may_draw_forms=False)
            .to_pil()
            .convert("RGB")
        )
        pages.append(Page(_png(picture)))
        lines, words = tuple(_lines(page)), tuple(_words(page))
        views.append(
            View(f"page {n + 1}", width * _MM_PER_POINT, height * _MM_PER_POINT, (), lines, words)
        )
    troubles = (
        (f"only the first {_MOST_PAGES} of {count} pages were taken",)
        if count > _MOST_PAGES
        else ()
    )
    return Reading("sheet", "mm", views=tuple(views), troubles=troubles), pages


def read_picture(content: bytes) -> tuple[Reading, list[Page]]:
    """A photograph or scan as one sheet, 1 mm to the pixel until its scale is set."""
    from PIL import Image, ImageOps

    try:
        with Image.open(io.BytesIO(content), formats=("PNG", "JPEG")) as opened:
            if opened.width * opened.height > _MOST_PIXELS:
                raise Unreadable(
                    f"this picture has {opened.width} by {opened.height} pixels; expected at "
                    f"most 80 million"
                )
            opened.load()
            picture = _on_white(ImageOps.exif_transpose(opened))
    except Unreadable:
        raise
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError) as problem:
        raise Unreadable(f"this picture cannot be read: {str(problem)[:160]}") from None
    width, height = picture.size
    picture.thumbnail((_PIXELS, _PIXELS))
    return Reading("sheet", "mm", views=(View("picture", float(width), float(height)),)), [
        Page(_png(picture))
    ]


def _on_white(picture: Any) -> Any:
    """Without its transparency, as on paper: black lines on nothing would be black on black."""
    from PIL import Image

    if not picture.has_transparency_data:
        return picture.convert("RGB")
    clear = picture.convert("RGBA")
    return Image.alpha_composite(Image.new("RGBA", clear.size, "white"), clear).convert("RGB")


def _placed(page: Any, x: float, y: float) -> Point:
    """A point of the page's own space on the sheet as it is seen, cropped and turned: mm from the
    upper left corner.
    """
    import pypdfium2.raw as raw

    width, height = (round(side * _MM_PER_POINT * 1000) for side in page.get_size())
    across, down = raw.c_int(), raw.c_int()
    raw.FPDF_PageToDevice(page.raw, 0, 0, width, height, 0, x, y, across, down)
    return (across.value / 1000, down.value / 1000)


def _png(picture: Any) -> bytes:
    out = io.BytesIO()
    picture.save(out, "PNG", optimize=False, compress_level=6)
    return out.getvalue()


def _lines(page: Any) -> list[tuple[Point, ...]]:
    """Straight pieces of the paths on the page, form objects included."""
    import pypdfium2.raw as raw

    found: list[tuple[Point, ...]] = []
    for item in page.get_objects(filter=(raw.FPDF_PAGEOBJ_PATH,), max_depth=8):
        matrix = item.get_matrix()
        container = item.container
        while container is not None:
            matrix = matrix.multiply(container.get_matrix())
            container = container.container
        line: list[Point] = []
        start: Point | None = None
        for k in range(raw.FPDFPath_CountSegments(item.raw)):
            segment = raw.FPDFPath_GetPathSegment(item.raw, k)
            x, y = raw.c_float(), raw.c_float()
            raw.FPDFPathSegment_GetPoint(segment, x, y)
            point = _placed(page, *matrix.on_point(x.value, y.value))
            if raw.FPDFPathSegment_GetType(segment) == raw.FPDF_SEGMENT_MOVETO:
                if len(line) > 1:
                    found.append(tuple(line))
                line, start = [point], point
            else:
                line.append(point)
            if raw.FPDFPathSegment_GetClose(segment) and start:
                line.append(start)
        if len(line) > 1:
            found.append(tuple(line))
        if len(found) >= _MOST_LINES:
            break
    return found[:_MOST_LINES]


def _words(page: Any) -> list[Words]:
    text = page.get_textpage()
    found = []
    for k in range(min(text.count_rects(), 2000)):
        left, bottom, right, top = text.get_rect(k)
        said = text.get_text_bounded(left, bottom, right, top).strip()
        if said:
            found.append(Words(_placed(page, left, bottom), said[:200]))
    return found
