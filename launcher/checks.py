"""`./plank test`: every check and test of the project."""

import argparse
import os
import shutil
import subprocess
import time
from pathlib import Path

from launcher import debian, frontend, python_env
from launcher.paths import DATA, ROOT, say
from launcher.postgres import binaries

#: Two tests at a time on a small machine, and one more, since a test in a browser waits a lot.
_WORKERS = str((os.cpu_count() or 1) + 1)
#: One thread each: the tests run side by side, and the arrays are small.
_ONE_THREAD = dict.fromkeys(("OMP_NUM_THREADS", "OPENBLAS_NUM_THREADS"), "1")
#: The tests that need neither a database nor other processes.
_QUICK = ["-m", "not slow", "tests", "vividplank/core"]


def run_all(rest: list[str]) -> int:
    """Lint, types and tests of both halves; 0 when all of them hold. Extra words go to pytest."""
    options = argparse.ArgumentParser(prog="plank test", description="Words after -- go to pytest.")
    options.add_argument("--only", choices=["lint", "frontend", "python"], help="one of the parts")
    options.add_argument("--quick", action="store_true", help="the core alone, with few examples")
    chosen, words = options.parse_known_args(rest)
    words = [w for w in words if w != "--"]
    steps = _Steps()
    with python_env.prepared("test") as python:
        if chosen.only in (None, "lint"):
            steps.run("ruff", [python, "-m", "ruff", "check", "."])
            steps.run("ruff format", [python, "-m", "ruff", "format", "--check", "."])
            steps.run("mypy", [python, "-m", "mypy"])
        if chosen.only in (None, "lint", "frontend") and not chosen.quick:
            environment = frontend.packages()
            npm = shutil.which("npm", path=environment["PATH"]) or "npm"
            for script in ("lint", "types", "test") if chosen.only != "lint" else ("lint", "types"):
                steps.run(
                    f"npm {script}",
                    [npm, "run", "--silent", script],
                    frontend.FOLDER,
                    environment,
                )
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
        steps.run("pytest", command, environment=environment)
    return steps.told()


class _Steps:
    """What was run, one after the other, and what of it failed."""

    def __init__(self) -> None:
        self.failed: list[str] = []

    def run(
        self,
        name: str,
        command: list[str | Path],
        folder: Path = ROOT,
        environment: dict[str, str] | None = None,
    ) -> None:
        began = time.monotonic()
        done = subprocess.run(
            [str(c) for c in command], cwd=folder, env=environment or dict(os.environ)
        )
        took = time.monotonic() - began
        say(f"{name}: {'FAILED' if done.returncode else 'ok'} ({took:.0f} s)")
        if done.returncode:
            self.failed.append(name)

    def told(self) -> int:
        """The exit code, after a last line that says how it went."""
        say(f"failed: {', '.join(self.failed)}" if self.failed else "everything holds")
        return 1 if self.failed else 0
