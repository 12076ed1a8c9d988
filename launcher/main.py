"""The commands of `./plank`."""

import argparse
import os
import subprocess
import sys
from collections.abc import Callable
from pathlib import Path

from launcher import backup, frontend, python_env
from launcher.checks import run_all
from launcher.paths import DATA, PORT, ROOT, Trouble, in_words, say
from launcher.postgres import Cluster, binaries, running
from launcher.processes import Child, await_web, port_is_free, serving, supervise

ABOUT = """\
Vivid Plank turns drawings into a cut list, lays the parts out on real, warped boards,
sequences the milling and accounts for every board foot.

  ./plank demo              start it with the demo project (reading-room settle)
  ./plank serve             start it without loading the demo
  ./plank worker            one more worker for long searches
  ./plank address           the address of the database, for a worker on another machine
  ./plank test              run every check and test
  ./plank test --quick      the checks and tests of the core alone

  ./plank plan JOB.json --out PLAN.json [--seconds 10]    lay out a job file
  ./plank audit JOB.json PLAN.json                        check a plan against its job
  ./plank route JOB.json PLAN.json --out ROUTE.json       write the steps of every piece
  ./plank replan JOB.json PLAN.json LOG.json --out JOB2.json [--plan PLAN2.json]
                                                          plan the rest of what has been begun

  ./plank backup FILE       write all projects to one file
  ./plank restore FILE      put back what a backup holds

What it needs is installed on the first start, into the folder .plank. Nothing listens
beyond this machine. Add --help to a command for its options.
"""


def main(arguments: list[str]) -> int:
    """Run one command; what goes wrong is told in a sentence."""
    if not arguments or arguments[0] in ("-h", "--help", "help"):
        print(ABOUT, end="")
        return 0
    command, rest = arguments[0], arguments[1:]
    found = _COMMANDS.get(command)
    if found is None:
        print(f"plank: there is no command '{command}'.\n\n{ABOUT}", end="", file=sys.stderr)
        return 2
    try:
        return found(rest)
    except Trouble as trouble:
        say(str(trouble))
    except OSError as problem:
        say(in_words(problem))
    except KeyboardInterrupt:
        say("stopped")
        return 130
    return 1


def _serving(rest: list[str], *, demo: bool) -> int:
    options = argparse.ArgumentParser(prog=f"plank {'demo' if demo else 'serve'}")
    options.add_argument("--port", type=_port, default=os.environ.get("PLANK_PORT", str(PORT)))
    chosen = options.parse_args(rest)
    address = f"http://127.0.0.1:{chosen.port}"
    with serving(chosen.port) as ours:
        if not ours:
            say(f"already running: {address}")
            return 0
        if not port_is_free(chosen.port):
            raise Trouble(
                f"port {chosen.port} is taken by another program. Stop that one, or choose "
                f"another: "
                f"./plank {'demo' if demo else 'serve'} --port {chosen.port + 1}"
            )
        with python_env.prepared("app") as python:
            frontend.build()
            binaries()
        with running() as cluster:
            environment = {**os.environ, "PLANK_DATABASE": cluster.url(), "PLANK_DATA": str(DATA)}
            _prepare(python, environment, demo)
            web = Child(
                "web server", [python, "-m", "vividplank.serve", "--port", str(chosen.port)]
            )
            worker = Child("worker", [python, "-m", "vividplank.jobs"])

            def ready() -> None:
                await_web(chosen.port, web)
                print(f"\n  Vivid Plank is at  {address}\n  Ctrl-C stops it.\n", flush=True)

            supervise([web, worker], environment, ready, cluster.keep_running)
    return 0


def _port(text: str) -> int:
    if not text.isdigit() or not 1 <= int(text) <= 65535:
        raise argparse.ArgumentTypeError(f"'{text}' is no port; expected a number from 1 to 65535")
    return int(text)


def _prepare(python: Path, environment: dict[str, str], demo: bool) -> None:
    command: list[str | Path] = [python, "-m", "vividplank.store.prepare"]
    if demo:
        command = [python, "-m", "vividplank.demo"]
    done = subprocess.run(command, cwd=ROOT, env=environment)
    if done.returncode:
        raise Trouble(
            "the database could not be brought up to date; what is printed above says why."
        )


def _worker(rest: list[str]) -> int:
    argparse.ArgumentParser(prog="plank worker").parse_args(rest)
    with python_env.prepared("app") as python:
        binaries()
    worker = Child("worker", [python, "-m", "vividplank.jobs"])

    def ready() -> None:
        say("the worker waits for work; Ctrl-C stops it")

    if os.environ.get("PLANK_DATABASE"):  # of another machine, which keeps it up to date
        supervise([worker], dict(os.environ), ready)
        return 0
    with running() as cluster:
        environment = {**os.environ, "PLANK_DATABASE": cluster.url(), "PLANK_DATA": str(DATA)}
        _prepare(python, environment, demo=False)
        supervise([worker], environment, ready, cluster.keep_running)
    return 0


def _address(rest: list[str]) -> int:
    argparse.ArgumentParser(prog="plank address").parse_args(rest)
    cluster = Cluster(DATA / "postgres")
    if not cluster.is_running():
        raise Trouble(
            "nothing runs here now. Start ./plank serve first; the address is good as long as "
            "that runs."
        )
    print(cluster.url())
    return 0


def _test(rest: list[str]) -> int:
    return run_all(rest)


def _core(command: str) -> Callable[[list[str]], int]:
    def run(rest: list[str]) -> int:
        with python_env.prepared("core") as python:
            pass  # nothing else is needed
        environment = {
            **os.environ,
            "PYTHONPATH": str(ROOT),
        }  # stay in the caller's folder: paths are theirs
        return subprocess.run(
            [python, "-m", "vividplank.command", command, *rest], env=environment
        ).returncode

    return run


def _with_file(name: str, act: Callable[[Path], None]) -> Callable[[list[str]], int]:
    def run(rest: list[str]) -> int:
        options = argparse.ArgumentParser(prog=f"plank {name}")
        options.add_argument("file", type=Path, metavar="FILE")
        act(options.parse_args(rest).file)
        return 0

    return run


_COMMANDS: dict[str, Callable[[list[str]], int]] = {
    "demo": lambda rest: _serving(rest, demo=True),
    "serve": lambda rest: _serving(rest, demo=False),
    "worker": _worker,
    "address": _address,
    "test": _test,
    "plan": _core("plan"),
    "audit": _core("audit"),
    "route": _core("route"),
    "replan": _core("replan"),
    "backup": _with_file("backup", backup.backup),
    "restore": _with_file("restore", backup.restore),
}
