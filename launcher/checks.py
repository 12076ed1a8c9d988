"""`./plank test`: every check and test of the project."""

import argparse
import os
import shutil
import subprocess
import time
from pathlib import Path

from launcher import debian, frontend, python_env
from launcher.house import DATA, ROOT, say
from launcher.postgres import binaries


def run_all(rest: list[str]) -> int:
    """Lint, types and tests of both halves; 0 when all of them hold. Extra words go to pytest."""
    options = argparse.ArgumentParser(prog="plank test", description="Words after -- go to pytest.")
    options.add_argument("--only", choices=["lint", "frontend", "python"], help="one of the three parts")
    chosen, words = options.parse_known_args(rest)
    words = [w for w in words if w != "--"]
    python = python_env.ensure("test")
    failed: list[str] = []

    def step(name: str, command: list[str | Path], folder: Path = ROOT, environment: dict[str, str] | None = None) -> None:
        began = time.monotonic()
        code = subprocess.run([str(c) for c in command], cwd=folder, env=environment or dict(os.environ)).returncode
        say(f"{name}: {'ok' if code == 0 else 'FAILED'} ({time.monotonic() - began:.0f} s)")
        if code:
            failed.append(name)

    if chosen.only in (None, "lint"):
        step("ruff", [python, "-m", "ruff", "check", "."])
        step("mypy", [python, "-m", "mypy"])
    if chosen.only in (None, "lint", "frontend"):
        environment = frontend.packages()
        npm = shutil.which("npm", path=environment["PATH"]) or "npm"
        for script in ("lint", "types", "test") if chosen.only != "lint" else ("lint", "types"):
            step(f"npm {script}", [npm, "run", "--silent", script], frontend.FOLDER, environment)
    if chosen.only in (None, "python"):
        binaries()
        if not shutil.which("chromium"):
            debian.install(["chromium"], "Chromium")
        frontend.build()
        step("pytest", [python, "-m", "pytest", *words], environment={**os.environ, "PLANK_DATA": str(DATA)})
    if failed:
        say(f"failed: {', '.join(failed)}")
        return 1
    say("everything holds")
    return 0
