"""How long reading a drawing takes in the worker's own process: `.plank/venv/bin/python -m bench.takeoff`."""

import time
from pathlib import Path

import trimesh

from tests.takeoff.making import a_block, written
from tests.takeoff.step_files import bookcase
from vividplank.jobs.reading import read_in_process

FIXTURES = Path(__file__).parents[1] / "tests" / "takeoff" / "fixtures"
DEMO = Path(__file__).parents[1] / "vividplank" / "demo"


def fine_blocks() -> bytes:
    """32 blocks of 3,072 triangles each: about 5 MB of STL."""
    pieces: list[trimesh.Trimesh] = []
    for k in range(32):
        block = a_block((500, 60, 20), (0, 0, 30 * k))
        for _ in range(4):
            block = block.subdivide()
        pieces.append(block)
    return written(pieces, "stl")


def main() -> None:
    files = {
        "an assembly of 50 solids, STEP": ("bookcase.step", bookcase(5)),
        "an assembly of 200 solids, STEP": ("bookcase.step", bookcase(20)),
        "the demo's settle, STEP": ("settle.step", (DEMO / "settle.step").read_bytes()),
        "32 bodies, 98,304 triangles, STL": ("blocks.stl", fine_blocks()),
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
        found = f"{reading.pieces} pieces, {len(reading.parts)} parts" if reading.parts else f"{len(reading.views)} pages"
        print(f"{title:36} {len(content) / 1e6:5.2f} MB  {taken:5.1f} s  {found if not reading.table else 'a list'}")


if __name__ == "__main__":
    main()
