"""Drawings by svgwrite, drawsvg and matplotlib: clones, layers, pages, transforms, groups with
names, units or none.
"""

import drawsvg
import matplotlib
import svgwrite
from corpus import Row, Writer, least_box

matplotlib.use("svg")
from matplotlib import pyplot
from matplotlib.patches import Polygon, Rectangle

w = Writer("svg")


def crest() -> tuple[float, float]:
    """The least box of the crest in `paths`: its two cubic curves in many points, inches to mm."""

    def curve(a: complex, b: complex, c: complex, d: complex) -> list[complex]:
        steps = (k / 2000 for k in range(2001))
        return [
            a * (1 - t) ** 3 + 3 * b * t * (1 - t) ** 2 + 3 * c * t * t * (1 - t) + d * t**3
            for t in steps
        ]

    points = curve(1 + 6j, 6 + 4j, 14 + 4j, 20 + 6j) + curve(20 + 8j, 14 + 6.5j, 6 + 6.5j, 1 + 8j)
    return least_box([(25.4 * p.real, 25.4 * p.imag) for p in points])


def clones() -> None:
    d = svgwrite.Drawing(w.path("clones.svg"), size=("900mm", "600mm"), viewBox="0 0 900 600")
    d.add(d.rect((0, 0), (900, 600), fill="white"))
    slat = d.defs.add(d.symbol(id="none"))
    del slat
    g = d.defs.add(d.g(id="slat"))
    g.add(d.rect((0, 0), (400, 40)))
    for k in range(4):
        d.add(d.use("#slat", insert=(20, 20 + 60 * k)))
    rail = d.add(d.g(id="Top-rail", transform="translate(20,400) rotate(10)"))
    rail.add(d.polygon([(0, 0), (500, 0), (500, 60), (250, 80), (0, 60)]))
    hidden = d.add(d.g(style="display:none"))
    hidden.add(d.rect((0, 0), (100, 20)))
    d.save()
    w.holds(
        "clones.svg",
        [("slat", 4, 400, 40, 0), ("Top rail", 1, 500, 80, 0)],
        says="a page, clones, a hidden group, a turned group",
    )


def layers() -> None:
    d = svgwrite.Drawing(
        w.path("layers.svg"), size=("500mm", "400mm"), viewBox="0 0 500 400", debug=False
    )
    d.attribs["xmlns:inkscape"] = "http://www.inkscape.org/namespaces/inkscape"
    for label, y in (("Oak 18 mm", 20.0), ("Ash 12 mm", 200.0)):
        layer = d.add(d.g(id=label.split()[0] + "1"))
        layer.attribs["inkscape:groupmode"], layer.attribs["inkscape:label"] = "layer", label
        for k in range(2):
            shape = layer.add(d.rect((20, y + 70 * k), (300 if y < 100 else 220, 50)))
            shape.attribs["inkscape:label"] = "Side" if y < 100 else "Bottom"
    d.save()
    w.holds(
        "layers.svg",
        [("Side", 2, 300, 50, 0), ("Bottom", 2, 220, 50, 0)],
        says="layers with labels",
    )


def paths() -> None:
    d = svgwrite.Drawing(w.path("paths.svg"), size=("24in", "18in"), viewBox="0 0 24 18")
    d.add(d.path("M1,1 h20 v3 h-20 z M3,2 h1 v1 h-1 z", id="stretcher"))
    d.add(d.path("M1,6 C6,4 14,4 20,6 L20,8 C14,6.5 6,6.5 1,8 Z", id="crest"))
    d.add(d.path("m 2,10 a 2,2 0 1 0 4,0 a 2,2 0 1 0 -4,0 z", id="disc"))
    d.add(d.line((0, 15), (24, 15), stroke="black"))
    d.save()
    w.holds(
        "paths.svg",
        [("stretcher", 1, 508, 76.2, 0), ("crest", 1, *crest(), 0), ("disc", 1, 101.6, 101.6, 0)],
        says="in inches; a hole in a path, curves, a disc by arcs, a loose line",
    )


def unitless() -> None:
    d = svgwrite.Drawing(w.path("unitless.svg"), size=(1000, 500))
    d.add(d.rect((10, 10), (720, 90), rx=4))
    d.add(d.rect((10, 120), (720, 90), rx=4))
    d.add(d.circle((850, 200), 100))
    d.add(d.text("Apron", insert=(30, 60)))
    d.save()
    w.holds(
        "unitless.svg",
        [("Apron", 1, 720, 90, 0), ("", 1, 720, 90, 0), ("", 1, 200, 200, 0)],
        "mm",
        says="no unit; one of two alike is named",
    )


def framed() -> None:
    d = svgwrite.Drawing(w.path("framed.svg"), size=("420mm", "297mm"), viewBox="0 0 420 297")
    d.add(d.rect((5, 5), (410, 287), fill="none", stroke="black"))
    block = d.add(d.g(id="titleblock"))
    for k, text in enumerate(("Scale 1:1", "Date 2026-10-12", "Drawn by K")):
        block.add(d.rect((300, 240 + 15 * k), (110, 15), fill="none", stroke="black"))
        block.add(d.text(text, insert=(303, 250 + 15 * k), font_size=6))
    for k in range(3):
        d.add(d.rect((20, 20 + 60 * k), (240, 40), fill="none", stroke="black"))
        d.add(d.text("Drawer front", insert=(30, 45 + 60 * k), font_size=8))
    d.save()
    w.holds("framed.svg", [("Drawer front", 3, 240, 40, 0)], says="a frame and a title block")


def drawn() -> None:
    d = drawsvg.Drawing(800, 400, origin=(0, 0))
    d.append(drawsvg.Rectangle(0, 0, 800, 400, fill="#fff"))
    for k in range(3):
        group = drawsvg.Group(transform=f"translate({20 + 10 * k},{20 + 90 * k})")
        group.append(
            drawsvg.Lines(
                0, 0, 500, 0, 500, 70, 40, 70, 0, 40, close=True, fill="none", stroke="black"
            )
        )
        d.append(group)
    d.append(drawsvg.Text("Bracket", 12, 60, 60))
    d.save_svg(w.path("drawsvg.svg"))
    w.holds(
        "drawsvg.svg",
        [("Bracket", 1, 500, 70, 0), ("", 2, 500, 70, 0)],
        "mm",
        says="a page, groups, one named by words",
    )


def plotted() -> None:
    """A plot at full size: axes off, points of 1/72 in; the page is drawn as a patch."""
    figure = pyplot.figure(figsize=(600 / 25.4, 300 / 25.4))
    axes = figure.add_axes((0, 0, 1, 1))
    axes.set_xlim(0, 600)
    axes.set_ylim(0, 300)
    axes.axis("off")
    truth: list[Row] = [("", 2, 400, 80, 0), ("", 1, 250, 90, 0)]
    for k in range(2):
        axes.add_patch(Rectangle((20, 20 + 100 * k), 400, 80, fill=False))
    axes.add_patch(Polygon([(430, 20), (520, 20), (520, 270), (460, 270)], closed=True, fill=False))
    figure.savefig(w.path("plot.svg"))
    w.holds("plot.svg", truth, says="a plot at full size, with its page and clipping")


for make in (clones, layers, paths, unitless, framed, drawn, plotted):
    make()
w.done()
