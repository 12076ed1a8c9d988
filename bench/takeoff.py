"""How long reading a drawing takes in the worker's own process, and how much memory:
`.plank/venv/bin/python -m bench.takeoff`.

Memory is the most that any reader has held so far (MB), so each figure is at least that of the line
above.
"""

import io
import resource
import time
from pathlib import Path

import trimesh

from tests.takeoff.making import a_block, written
from tests.takeoff.step_files import bookcase
from vividplank.jobs.reading import read_in_process

FIXTURES = Path(__file__).parents[1] / "tests" / "takeoff" / "fixtures"
DEMO = Path(__file__).parents[1] / "vividplank" / "demo"


def fine_blocks(count: int, rounds: int) -> bytes:
    """Blocks of 12 triangles, each cut into four so many times, as binary STL of 50 bytes a
    triangle.
    """
    pieces: list[trimesh.Trimesh] = []
    for k in range(count):
        block = a_block((500, 60, 20), (0, 0, 30 * k))
        for _ in range(rounds):
            block = block.subdivide()
        pieces.append(block)
    return written(pieces, "stl")


def pages(count: int) -> bytes:
    """A PDF of so many sheets of A3 with 400 lines each."""
    from reportlab.lib.pagesizes import A3, landscape
    from reportlab.pdfgen.canvas import Canvas

    out = io.BytesIO()
    canvas = Canvas(out, pagesize=landscape(A3))
    for n in range(count):
        for k in range(100):
            canvas.rect(40 + 10 * (k % 10), 40 + 7 * (k // 10), 900 - 2 * k, 600 - n - k)
        canvas.showPage()
    canvas.save()
    return out.getvalue()


def main() -> None:
    files = {
        "an assembly of 50 solids, STEP": ("bookcase.step", bookcase(5)),
        "an assembly of 200 solids, STEP": ("bookcase.step", bookcase(20)),
        "the demo's settle, STEP": ("settle.step", (DEMO / "settle.step").read_bytes()),
        "32 bodies, 98,304 triangles, STL": ("blocks.stl", fine_blocks(32, 4)),
        "80 bodies, 983,040 triangles, STL": ("blocks.stl", fine_blocks(80, 5)),
        "25 sheets of A3, PDF": ("sheets.pdf", pages(25)),
    }
    files |= {
        f"{name}": (name, (FIXTURES / name).read_bytes())
        for name in (
            "tray.step",
            "stool.stl",
            "stool.3mf",
            "stool.dxf",
            "stool.svg",
            "sketch.pdf",
            "sketch.png",
            "list.xlsx",
            "list.ods",
        )
    }
    for title, (name, content) in files.items():
        began = time.perf_counter()
        reading, _ = read_in_process(content, name, {})
        taken = time.perf_counter() - began
        found = (
            f"{reading.pieces} pieces, {len(reading.parts)} parts"
            if reading.parts
            else f"{len(reading.views)} pages"
        )
        most = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
        what = found if not reading.table else "a list"
        print(
            f"{title:36} {len(content) / 1e6:5.2f} MB  {taken:5.1f} s  {most:5.0f} MB held  {what}",
            flush=True,
        )


if __name__ == "__main__":
    main()
