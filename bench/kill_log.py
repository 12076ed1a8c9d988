"""Killed in the middle of events and of planning again: nothing that was acknowledged is lost.

    .plank/venv/bin/python -m bench.kill_log [rounds] [seed]

On a database of its own. Every round a process ticks steps, tells of faults and plans the rest
again, saying of each when it is kept, until it is killed (SIGKILL) at a random moment; what it said
was kept must be there, and the plan that stands must be right.
"""

import contextlib
import json
import os
import random
import signal
import sys
import time
from pathlib import Path

import psycopg

from launcher.paths import DATA
from launcher.postgres import running
from vividplank.core.board import Defect
from vividplank.core.exchange import read_job, read_plan
from vividplank.core.layout.model.audit import audit
from vividplank.core.log.events import Did, Found
from vividplank.store import layouts, log, projects
from vividplank.store.database import engine, session
from vividplank.store.layouts import Taken
from vividplank.store.prepare import migrate

EXAMPLES = Path(__file__).parents[1] / "docs" / "examples"
INCH_16 = 508


def work(project: int, rng: random.Random, said: int) -> None:
    """Until it is killed; writes a line for everything that is kept."""
    from vividplank.jobs.queue import lay_out

    def kept(what: dict[str, object]) -> None:
        os.write(said, (json.dumps(what) + "\n").encode())

    while True:
        with session() as opened:
            layout = layouts.standing(opened, project)
            assert layout and layout.plan
            wood = log.wood(opened, layout)
            steps = [s.key for r in log.routes_of(opened, layout) for s in r.steps]
        undone = [k for k in steps if k not in wood.done]
        for key in undone[: rng.randint(1, 4)]:
            with session() as opened:
                log.tick(opened, layout.pk, Did(n=1, step=key), True, Taken(minutes=1.0))
            kept({"tick": key})
        marks = [m for m, h in wood.pieces.items() if h.state == "work"]
        if marks and rng.random() < 0.3:
            mark = rng.choice(marks)
            fault = Defect("metal", "both", INCH_16, 4 * INCH_16, INCH_16, 4 * INCH_16)
            with session() as opened:
                event = log.add(opened, project, layout.pk, Found(n=1, piece=mark, defect=fault))
            kept({"event": event.n})
        if rng.random() < 0.5:
            with session() as opened:
                rest = log.bring_in(opened, project)
                job = projects.load(opened, project).job.on_boards()
                asked = layouts.ask(opened, project, job, 0.3, rest.begun if rest else ())
            lay_out(asked.pk)
            kept({"plan": asked.pk})


def main(rounds: int, seed: int) -> None:
    rng = random.Random(f"kill {seed}")
    wrong = acknowledged = 0
    with running(DATA / "postgres-bench", 54928) as cluster:
        with psycopg.connect(cluster.url("postgres"), autocommit=True) as upkeep:
            upkeep.execute("drop database if exists kill_log with (force)")
            upkeep.execute("create database kill_log")
        url = cluster.url("kill_log")
        os.environ["PLANK_DATABASE"] = url
        migrate(url)
        job = read_job((EXAMPLES / "settle.job.json").read_bytes())
        plan = read_plan((EXAMPLES / "settle.plan.json").read_bytes())
        with session() as opened:
            project = projects.add(opened, job, "in").pk
            layouts.keep(opened, project, job.on_boards(), plan, "file")
        ticks: set[str] = set()
        events: set[int] = set()
        for k in range(rounds):
            engine(url).dispose()
            heard, said = os.pipe()
            child = os.fork()
            if not child:
                os.close(heard)
                with contextlib.suppress(BaseException):
                    work(project, random.Random(f"{seed} {k}"), said)
                os._exit(1)
            os.close(said)
            time.sleep(rng.uniform(0.3, 3.0))
            os.kill(child, signal.SIGKILL)
            os.waitpid(child, 0)
            with os.fdopen(heard) as lines:
                for line in lines:
                    what = json.loads(line)
                    acknowledged += 1
                    ticks |= {what["tick"]} if "tick" in what else set()
                    events |= {what["event"]} if "event" in what else set()
            with session() as opened:
                layout = layouts.standing(opened, project)
                assert layout and layout.plan
                lost = ticks - layouts.steps_done(opened, layout.pk)
                there = [e.event.n for e in log.entries(opened, project)]
                lost_events = events - set(there)
                broken = audit(layout.job, layout.plan)
                log.wood(opened, layout)
            bad = len(lost) + len(lost_events) + len(broken)
            bad += there != list(range(1, len(there) + 1))
            if bad:
                print(f"round {k}: {sorted(lost)[:3]} {sorted(lost_events)[:3]} {broken[:2]}")
            wrong += bad
        engine(url).dispose()
    print(f"{rounds} rounds, {acknowledged} acknowledged, {len(events)} faults: {wrong} wrong")


if __name__ == "__main__":
    given = sys.argv[1:] + ["100", "1"][len(sys.argv) - 1 :]
    main(int(given[0]), int(given[1]))
