"""What 200 edits of a project with many scanned boards cost: `python -m bench.edits [boards]`.

Seconds an edit, and megabytes that all of them take in the database.
"""

import json
import os
import sys
import time
from dataclasses import replace
from statistics import median

from sqlalchemy import text

from launcher.paths import DATA
from launcher.postgres import running
from tests.core.layout.model.test_audit import JOB
from vividplank.core.exchange import read_job
from vividplank.core.job.change import Change, Put
from vividplank.core.survey.scan import scanned
from vividplank.devices.simulated import SimulatedScanner


def main() -> None:
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 40
    job = read_job(json.dumps(JOB))
    scanner = SimulatedScanner(fails=0)
    board = job.boards[0]
    boards = tuple(
        replace(one, surface=scanned(one, scanner.scan(one)).surface)
        for one in (replace(board, id=f"S{n}") for n in range(count))
    )
    with running(DATA / "postgres-bench", 56_400) as cluster:
        os.environ["PLANK_DATABASE"] = cluster.url("postgres")
        from vividplank.store import projects
        from vividplank.store.database import session
        from vividplank.store.prepare import migrate

        migrate()
        with session() as opened:
            opened.execute(text("delete from edit"))
            project = projects.add(opened, replace(job, boards=boards), "in")
        took = []
        for n in range(200):
            put = replace(job.parts[n % len(job.parts)], note=f"note {n}")
            began = time.perf_counter()
            with session() as opened:
                change = Change("a note", put_parts=(Put(put),))
                project = projects.edit(opened, project.pk, project.version, change)
            took.append(time.perf_counter() - began)
        with session() as opened:
            opened.execute(text("analyze edit"))
            size = opened.scalar(text("select pg_total_relation_size('edit')")) or 0
            projects.remove(opened, project.pk, project.version)
    middle, slowest = 1000 * median(took), 1000 * max(took)
    print(f"{count} scanned boards, 200 edits: {middle:.0f} ms in the median, ", end="")
    print(f"{slowest:.0f} ms the slowest; {size / 1e6:.1f} MB of edits")


if __name__ == "__main__":
    main()
