"""`plan`, `audit`, `route` and `replan` at the command line: a job file to a plan file, one checked
against the other, both to the steps at the machines, and the rest of what has been begun planned
again, by the core alone.
"""

import argparse
import json
import os
import signal
import sys
import time
from dataclasses import replace
from pathlib import Path
from types import FrameType

from vividplank.core.exchange import (
    Refusal,
    job_document,
    plan_document,
    read_job,
    read_plan,
    read_workshop,
)
from vividplank.core.exchange.log_file import read_log
from vividplank.core.exchange.route_file import item_document, route_document
from vividplank.core.job import Job
from vividplank.core.layout.model.audit import audit
from vividplank.core.layout.model.fixings import Fixings
from vividplank.core.layout.model.plan import Plan
from vividplank.core.layout.search.reoptimise import solve
from vividplank.core.layout.search.search import Limits, Progress, search
from vividplank.core.log.events import LogError, standing
from vividplank.core.log.replan import remaining
from vividplank.core.milling import Milling, routes
from vividplank.core.milling.route.routes import usual_milling
from vividplank.core.milling.shop.school import SCHOOLS, School


def main(arguments: list[str]) -> int:
    """Exit codes as docs/exchange.md gives them."""
    parser = argparse.ArgumentParser(prog="plank")
    commands = parser.add_subparsers(dest="command", required=True)
    plan = commands.add_parser("plan", help="lay out a job file")
    plan.add_argument("job", type=Path)
    plan.add_argument("--out", type=Path, required=True)
    plan.add_argument("--seconds", type=_seconds, default=10.0)
    plan.add_argument("--seed", type=int, default=1)
    check = commands.add_parser("audit", help="check a plan against its job")
    check.add_argument("job", type=Path)
    check.add_argument("plan", type=Path)
    route = commands.add_parser("route", help="write the steps of every piece of a plan")
    route.add_argument("job", type=Path)
    route.add_argument("plan", type=Path)
    route.add_argument("--out", type=Path, required=True)
    route.add_argument("--school", choices=SCHOOLS)
    replan = commands.add_parser("replan", help="plan the rest of what has been begun")
    replan.add_argument("job", type=Path)
    replan.add_argument("plan", type=Path)
    replan.add_argument("log", type=Path)
    replan.add_argument("--out", type=Path, required=True)
    replan.add_argument("--plan", type=Path, dest="plan_out")
    replan.add_argument("--seconds", type=_seconds, default=10.0)
    replan.add_argument("--school", choices=SCHOOLS)
    chosen = parser.parse_args(arguments)
    try:
        if chosen.command == "plan":
            return _plan(
                chosen.job,
                chosen.out,
                Limits(chosen.seconds, seed=chosen.seed, workers=len(os.sched_getaffinity(0))),
            )
        if chosen.command == "route":
            return _route(chosen.job, chosen.plan, chosen.out, chosen.school)
        if chosen.command == "replan":
            return _replan(chosen)
        return _audit(chosen.job, chosen.plan)
    except Refusal as refusal:
        print(f"refused: {refusal}", file=sys.stderr)
    except (OSError, UnicodeDecodeError) as problem:
        print(f"refused: {problem}", file=sys.stderr)
    return 2


def _plan(job_file: Path, out: Path, limits: Limits) -> int:
    job = read_job(job_file.read_bytes()).on_boards()
    stopped = False

    def stop(_: int, __: FrameType | None) -> None:
        nonlocal stopped
        stopped = True

    def go_on(_: Progress) -> bool:
        return not stopped

    signal.signal(signal.SIGINT, stop)
    signal.signal(signal.SIGTERM, stop)
    plan = search(job, limits, time.monotonic, go_on)
    out.write_text(json.dumps(plan_document(plan, job.unit), indent=1) + "\n", encoding="utf-8")
    left = f", {len(plan.unplaced)} left out" if plan.unplaced else ""
    print(
        f"cost {plan.cost}, bound {plan.lower_bound:.2f}, {len(plan.boards)} of "
        f"{len(job.boards)} boards{left}, "
        f"{plan.seconds:.1f} s"
    )
    return 3 if stopped else 0


def _audit(job_file: Path, plan_file: Path) -> int:
    found = audit(read_job(job_file.read_bytes()).on_boards(), read_plan(plan_file.read_bytes()))
    for violation in found:
        print(violation)
    return 1 if found else 0


def _planned(job_file: Path, plan_file: Path, school: School | None) -> tuple[Job, Plan, Milling]:
    """A job, a plan that is right for it, and the shop it is milled in."""
    text = job_file.read_bytes()
    job, plan = read_job(text).on_boards(), read_plan(plan_file.read_bytes())
    wrong = audit(job, plan)
    if wrong:
        raise Refusal("$", f"expected a plan that is right for the job: {wrong[0]}")
    usual = usual_milling(job)
    place = read_workshop(text)
    machines = place.machines if place else usual.machines
    return job, plan, replace(usual, machines=machines, school=school or usual.school)


def _replan(chosen: argparse.Namespace) -> int:
    job, plan, milling = _planned(chosen.job, chosen.plan, chosen.school)
    events = standing(read_log(chosen.log.read_bytes()))
    try:
        left = remaining(job, job, plan, routes(job, plan, milling), events)
    except LogError as problem:
        raise Refusal("$.events", str(problem)) from None
    document = job_document(left.job, read_workshop(chosen.job.read_bytes())) | {"version": 3}
    document["kept"] = [
        {"piece": k.piece, "items": [item_document(i) for i in k.items]} for k in left.kept
    ]
    chosen.out.write_text(json.dumps(document, indent=1) + "\n", encoding="utf-8")
    wanted = sum(p.quantity for p in left.job.parts)
    print(
        f"{len(left.kept)} pieces keep what they are for, {len(left.freed)} are freed, "
        f"{wanted} parts are left to lay out on {len(left.job.boards)} boards"
    )
    if chosen.plan_out:
        limits = Limits(chosen.seconds, workers=len(os.sched_getaffinity(0)))
        found = solve(left.job, limits, time.monotonic, None, left.task(Fixings()))
        text = json.dumps(plan_document(found, job.unit), indent=1)
        chosen.plan_out.write_text(text + "\n", encoding="utf-8")
        short = f", {len(found.unplaced)} left out" if found.unplaced else ""
        print(f"cost {found.cost}, {len(found.boards)} boards{short}, {found.seconds:.1f} s")
    return 0


def _route(job_file: Path, plan_file: Path, out: Path, school: School | None) -> int:
    job, plan, milling = _planned(job_file, plan_file, school)
    document = route_document(routes(job, plan, milling), job.unit)
    out.write_text(json.dumps(document, indent=1) + "\n", encoding="utf-8")
    steps = document["steps"]
    print(f"{len(steps)} steps, {sum(s['minutes'] for s in steps):.0f} minutes at the machines")
    return 0


def _seconds(text: str) -> float:
    value = float(text)
    if not 0 < value < 1e6:
        raise argparse.ArgumentTypeError(f"{text}: expected more than 0 seconds")
    return value


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
