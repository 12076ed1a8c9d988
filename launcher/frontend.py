"""The front end: its packages when the lock file changed, its build when its sources changed."""

import hashlib
import shutil
import subprocess
from pathlib import Path

from launcher import node
from launcher.paths import DATA, ROOT, Trouble, check_space, say

FOLDER = ROOT / "frontend"
DIST = FOLDER / "dist"


def packages() -> dict[str, str]:
    """Install the front end's packages where they are absent or old; the environment to run them
    in.
    """
    environment = node.ensure()
    lock = hashlib.sha256((FOLDER / "package-lock.json").read_bytes()).hexdigest()
    stamp = FOLDER / "node_modules" / ".plank"
    if not stamp.exists() or stamp.read_text() != lock:
        check_space()
        say("setting up the front end's packages; this is done once")
        _run(
            ["npm", "ci", "--no-audit", "--no-fund", "--loglevel=error", "--ignore-scripts"],
            environment,
        )
        stamp.write_text(lock)
    return environment


def build() -> None:
    """Build the screens if they are not those of the sources."""
    wanted = _digest()
    stamp = DATA / "frontend.built"
    if stamp.exists() and stamp.read_text() == wanted and (DIST / "index.html").exists():
        return
    environment = packages()
    say("building the screens")
    _run(["npm", "run", "--silent", "build"], environment)
    DATA.mkdir(parents=True, exist_ok=True)
    stamp.write_text(wanted)


def _digest() -> str:
    found = hashlib.sha256()
    plain = [
        FOLDER / name
        for name in ("index.html", "package-lock.json", "vite.config.ts", "tsconfig.json")
    ]
    for path in sorted([*plain, *(p for p in (FOLDER / "src").rglob("*") if p.is_file())]):
        found.update(str(path.relative_to(FOLDER)).encode() + path.read_bytes())
    return found.hexdigest()


def _run(command: list[str], environment: dict[str, str]) -> None:
    program = shutil.which(command[0], path=environment["PATH"])
    if program is None:
        raise Trouble(
            f"{command[0]} is missing. Install Node 20.19 or newer, or remove {DATA / 'node'} "
            f"and start again."
        )
    done = subprocess.run(
        [program, *command[1:]], cwd=FOLDER, env=environment, capture_output=True, text=True
    )
    if done.returncode:
        last = "\n".join((done.stderr or done.stdout).strip().splitlines()[-12:])
        raise Trouble(f"'{' '.join(command)}' failed in {Path('frontend')}:\n{last}")
