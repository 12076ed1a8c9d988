"""`./plank test`: every check and test of the project."""

import argparse
import os
import shutil
import subprocess
import sys
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

from launcher import debian, frontend, python_env
from launcher.paths import DATA, ROOT, say
from launcher.postgres import binaries

#: Two tests at a time on a small machine, and one more, since a test in a browser waits a lot.
_WORKERS = str((os.cpu_count() or 1) + 1)
#: One thread each: the tests run side by side, and the arrays are small.
_ONE_THREAD = dict.fromkeys(("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS"), "1")
#: The tests that need neither a database nor other processes.
_QUICK = ["-m", "not slow"]


def run_all(rest: list[str]) -> int:
    """Lint, types and tests of both halves; 0 when all of them hold. Extra words go to pytest."""
    options = argparse.ArgumentParser(prog="plank test", description="Words after -- go to pytest.")
    options.add_argument("--only", choices=["lint", "frontend", "python"], help="one of the parts")
    options.add_argument("--quick", action="store_true", help="the core alone, with few examples")
    chosen, words = options.parse_known_args(rest)
    words = [w for w in words if w != "--"]
    steps = _Steps()
    with python_env.prepared("test") as python:
        checks: list[_Check] = []
        if chosen.only in (None, "lint"):
            checks += [
                _Check("mypy", [python, "-m", "mypy"]),
                _Check("ruff", [python, "-m", "ruff", "check", "."]),
                _Check("ruff format", [python, "-m", "ruff", "format", "--check", "."]),
            ]
        if chosen.only in (None, "lint", "frontend") and not chosen.quick:
            environment = frontend.packages()
            npm = shutil.which("npm", path=environment["PATH"]) or "npm"
            for script in ("lint", "types", "test") if chosen.only != "lint" else ("lint", "types"):
                command: list[str | Path] = [npm, "run", "--silent", script]
                checks.append(_Check(f"npm {script}", command, frontend.FOLDER, environment))
        steps.side_by_side(checks)
        if chosen.only in (None, "python") and not chosen.quick:
            binaries()
            if not shutil.which("chromium"):
                debian.install(["chromium"], "Chromium")
            frontend.build()
    if chosen.only in (None, "python"):
        environment = {**os.environ, **_ONE_THREAD, "PLANK_DATA": str(DATA)}
        if chosen.quick:
            environment["HYPOTHESIS_PROFILE"] = "smoke"
            words += _QUICK
        command = [python, "-m", "pytest", "-n", _WORKERS, "--dist", "worksteal", *words]
        steps.run(_Check("pytest", command, environment=environment))
    return steps.told()


@dataclass(frozen=True)
class _Check:
    """A command that exits with 0 where something holds."""

    name: str
    command: list[str | Path]
    folder: Path = ROOT
    environment: dict[str, str] | None = None

    def run(self, output: int | None = None) -> tuple[int, float, str]:
        """Its exit code, the seconds it took, and what it said, where `output` is a pipe."""
        began = time.monotonic()
        done = subprocess.run(
            [str(c) for c in self.command],
            cwd=self.folder,
            env=self.environment or dict(os.environ),
            stdout=output,
            stderr=subprocess.STDOUT if output else None,
            text=True,
        )
        return done.returncode, time.monotonic() - began, done.stdout or ""


class _Steps:
    """What was run, and what of it failed."""

    def __init__(self) -> None:
        self.failed: list[str] = []

    def run(self, check: _Check) -> None:
        """One by itself, which speaks while it runs."""
        code, took, _ = check.run()
        self._tell(check, code, took)

    def side_by_side(self, checks: list[_Check]) -> None:
        """As many at a time as there are processors; each is told when it and those before it are
        done.
        """
        with ThreadPoolExecutor(os.cpu_count() or 1) as pool:
            found = pool.map(lambda c: c.run(subprocess.PIPE), checks)
            for check, (code, took, said) in zip(checks, found, strict=True):
                sys.stdout.write(said)
                self._tell(check, code, took)

    def _tell(self, check: _Check, code: int, took: float) -> None:
        say(f"{check.name}: {'FAILED' if code else 'ok'} ({took:.0f} s)")
        if code:
            self.failed.append(check.name)

    def told(self) -> int:
        """The exit code, after a last line that says how it went."""
        say(f"failed: {', '.join(self.failed)}" if self.failed else "everything holds")
        return 1 if self.failed else 0
