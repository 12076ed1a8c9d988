"""Load the demo once: `python -m vividplank.demo`."""

import json
from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path

from sqlalchemy import delete, select

from vividplank.core.board import Zone
from vividplank.core.board.grain import Figure
from vividplank.core.cutlist import Source
from vividplank.core.exchange import read_job
from vividplank.core.job.change import Change, Put
from vividplank.core.measure import TICKS_PER_INCH
from vividplank.store import drawings, layouts, projects
from vividplank.store.database import session
from vividplank.store.models import EditRow, ProjectRow
from vividplank.store.prepare import migrate

_HERE = Path(__file__).parent
_SECONDS = 10.0


def _zones(written: Sequence[tuple[Figure, float, float, float, float]]) -> tuple[Zone, ...]:
    return tuple(
        Zone(figure, *(round(v * TICKS_PER_INCH) for v in corners)) for figure, *corners in written
    )


def load_demo() -> None:
    """Put the settle on the shelf if no demo is there (a removed one comes back), and ask for its
    layout.
    """
    notes = json.loads((_HERE / "notes.json").read_text(encoding="utf-8"))
    with session() as opened:
        if opened.scalar(select(ProjectRow.pk).where(ProjectRow.demo)) is not None:
            return
        job = read_job((_HERE / "settle.job.json").read_bytes())
        job = replace(
            job,
            parts=tuple(
                replace(p, note=notes["parts"].get(p.id, ""), figure=notes["figures"].get(p.id, ""))
                for p in job.parts
            ),
            boards=tuple(
                replace(
                    b,
                    quarter=b.nominal.name,
                    note=notes["boards"].get(b.id, ""),
                    grain=replace(b.grain, zones=_zones(notes["zones"].get(b.id, ()))),
                )
                for b in job.boards
            ),
        )
        project = projects.add(opened, job, "in", demo=True)
        step = (_HERE / "settle.step").read_bytes()
        model = drawings.add(opened, project.pk, "settle.step", "application/octet-stream", step)
        paper = drawings.add(
            opened,
            project.pk,
            "settle, front and side.pdf",
            "application/pdf",
            (_HERE / "settle.pdf").read_bytes(),
        )
        drawings.mark(
            opened, paper.pk, 0, json.loads((_HERE / "marks.json").read_text(encoding="utf-8"))
        )
        # The list was taken off the model: a part's key in it is its name.
        taken_off = tuple(Put(replace(p, source=Source(model.pk, p.name))) for p in job.parts)
        projects.edit(
            opened, project.pk, project.version, Change("the takeoff", put_parts=taken_off)
        )
        opened.execute(
            delete(EditRow).where(EditRow.project == project.pk)
        )  # nothing of the maker's to undo yet
        layouts.ask(opened, project.pk, job, _SECONDS)


if __name__ == "__main__":
    migrate()
    load_demo()
