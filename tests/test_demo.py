"""The demo's own things belong together."""

import json
from math import dist
from pathlib import Path
from xml.etree import ElementTree

import pytest

from vividplank.core.board.grain import FIGURES
from vividplank.core.exchange import read_job
from vividplank.core.measure import TICKS_PER_INCH as INCH
from vividplank.core.timber import wood_named

ROOT = Path(__file__).parents[1]
DEMO = ROOT / "vividplank" / "demo"


def test_the_demo_is_the_example_of_the_exchange_page() -> None:
    assert (DEMO / "settle.job.json").read_bytes() == (
        ROOT / "docs" / "examples" / "settle.job.json"
    ).read_bytes()


def test_its_notes_are_about_parts_and_boards_that_are_there() -> None:
    job = read_job((DEMO / "settle.job.json").read_bytes())
    notes = json.loads((DEMO / "notes.json").read_text(encoding="utf-8"))
    assert set(notes["parts"]) <= {p.id for p in job.parts}
    assert set(notes["boards"]) <= {b.id for b in job.boards}
    assert set(notes["figures"]) <= {p.id for p in job.parts}
    for id, zones in notes["zones"].items():
        board = job.board(id)
        for figure, x0, x1, y0, y1 in zones:
            assert (
                figure in FIGURES
                and 0 <= x0 < x1 <= board.length / INCH
                and 0 <= y0 < y1 <= board.widest / INCH
            )
    assert set(notes["figures"].values()) <= {
        z[0] for zones in notes["zones"].values() for z in zones
    }
    assert all(wood_named(thing.species) for thing in (*job.parts, *job.boards))


def test_its_drawing_carries_the_written_dimensions() -> None:
    root = ElementTree.fromstring((DEMO / "settle.svg").read_text(encoding="utf-8"))
    words = {text.text for text in root.iter("{http://www.w3.org/2000/svg}text")}
    # The posts' and rails' own lengths: written dimensions rule.
    assert {"Front", "Side", "37 1/2", "50 1/2", "17"} <= words


def test_its_sheet_of_paper_measures_what_the_list_says() -> None:
    job = read_job((DEMO / "settle.job.json").read_bytes())
    kept = json.loads((DEMO / "marks.json").read_text(encoding="utf-8"))
    scale = kept["scales"][0]
    per = scale["distance"] / dist(scale["a"], scale["b"])
    for mark in kept["marks"]:
        part = job.part(mark["part"])
        sides = sorted(abs(mark["b"][k] - mark["a"][k]) * per for k in (0, 1))
        assert sides[1] / part.length == pytest.approx(1, abs=0.01) and sides[
            0
        ] / part.width == pytest.approx(1, abs=0.01)


def test_the_readme_names_both_commands_and_every_picture() -> None:
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    assert "./plank demo" in readme and "./plank test" in readme
    pictures = sorted(p.name for p in (ROOT / "docs" / "screenshots").glob("*.png"))
    assert 5 < len(pictures) < 20
    assert all(f"docs/screenshots/{name}" in readme for name in pictures)


def test_no_registry_is_named_in_the_lists_of_packages() -> None:
    for path in (*(ROOT / "requirements").glob("*.txt"), ROOT / "frontend" / "package-lock.json"):
        text = path.read_text(encoding="utf-8")
        assert "index-url" not in text and '"resolved"' not in text, path
