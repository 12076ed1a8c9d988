"""Load the demo once: `python -m vividplank.demo`."""

import json
from dataclasses import replace
from pathlib import Path

from sqlalchemy import select

from vividplank.core.exchange import read_job
from vividplank.core.timber import quarter_of
from vividplank.store import drawings, layouts, projects
from vividplank.store.database import session
from vividplank.store.models import ProjectRow
from vividplank.store.prepare import migrate

_HERE = Path(__file__).parent
_SECONDS = 10.0


def load_demo() -> None:
    """Put the settle on the shelf if no demo is there (a removed one comes back), and ask for its layout."""
    notes = json.loads((_HERE / "notes.json").read_text(encoding="utf-8"))
    with session() as opened:
        if opened.scalar(select(ProjectRow.pk).where(ProjectRow.demo)) is not None:
            return
        job = read_job((_HERE / "settle.job.json").read_bytes())
        job = replace(
            job,
            parts=tuple(replace(p, note=notes["parts"].get(p.id, "")) for p in job.parts),
            boards=tuple(
                replace(b, quarter=quarter_of(b.thickest).name, note=notes["boards"].get(b.id, "")) for b in job.boards
            ),
        )
        project = projects.add(opened, job, "in", demo=True)
        drawings.add(opened, project.pk, "settle, front and side.svg", "image/svg+xml",
                     (_HERE / "settle.svg").read_bytes())
        layouts.ask(opened, project.pk, job, _SECONDS)


if __name__ == "__main__":
    migrate()
    load_demo()
