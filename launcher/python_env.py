"""The project's own Python environment, filled part by part from pinned, hashed lists."""

import contextlib
import errno
import hashlib
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from typing import Literal

from launcher import debian
from launcher.paths import DATA, ROOT, Trouble, check_space, say

Part = Literal["core", "app", "test"]
#: Calls every kernel once.
WARM = "vividplank.core.layout.search.warm"
_INCLUDES: dict[Part, tuple[Part, ...]] = {
    "core": ("core", "app", "test"),
    "app": ("app", "test"),
    "test": ("test",),
}


def ensure(part: Part) -> Path:
    """The interpreter of an environment that holds at least this part."""
    python = DATA / "venv" / "bin" / "python"
    wanted = _digest(part)
    if python.exists() and any(_stamp(p) == _digest(p) for p in _INCLUDES[part]):
        return python
    check_space()
    if not python.exists():
        _create(DATA / "venv")
    say(f"setting up Python packages ({part}); this is done once")
    done = subprocess.run(
        [
            python,
            "-m",
            "pip",
            "install",
            "--quiet",
            "--disable-pip-version-check",
            "--no-input",
            "--require-hashes",
            "-r",
            ROOT / "requirements" / f"{part}.txt",
        ],
        capture_output=True,
        text=True,
    )
    if done.returncode:
        reason = [line for line in done.stderr.splitlines() if "ERROR" in line][
            -1:
        ] or done.stderr.splitlines()[-1:]
        if "No space left" in done.stderr:
            raise OSError(errno.ENOSPC, "No space left on device", str(DATA))
        raise Trouble(
            f"the Python packages could not be set up: {' '.join(reason)}. Check the way to the "
            f"package "
            "registry and start again."
        )
    (DATA / f"venv.{part}").write_text(wanted)
    return python


def _create(folder: Path) -> None:
    try:
        import ensurepip  # noqa: F401
    except ImportError:
        debian.install(["python3-venv"], "Python's venv")
    done = subprocess.run(
        [sys.executable, "-m", "venv", "--clear", folder], capture_output=True, text=True
    )
    if done.returncode:
        raise Trouble(
            f"no Python environment could be made in {folder}: "
            f"{(done.stderr or done.stdout).strip()}"
        )


@contextlib.contextmanager
def prepared(part: Part) -> Iterator[Path]:
    """As `ensure`, with the geometry compiled; that goes on beside the installing of the rest and
    beside what is done inside, and is waited for at the end.
    """
    python = ensure("core")  # all that the compiling needs
    with compiling(python):
        ensure(part)
        yield python


@contextlib.contextmanager
def compiling(python: Path) -> Iterator[None]:
    """Compile the geometry beside what is done meanwhile, and wait for it at the end.

    Done once, here, and not under the first person who waits for a plan; anew when a kernel has
    changed, since what is kept of one file does not see that another it calls is no longer the
    same.
    """
    kernels = sorted((ROOT / "vividplank").rglob("*_kernel.py"))
    wanted = hashlib.sha256(b"".join(k.read_bytes() for k in kernels)).hexdigest()
    stamp = ROOT / "vividplank" / "__pycache__" / "kernels"
    if stamp.exists() and stamp.read_text() == wanted:
        yield
        return
    for old in (ROOT / "vividplank").rglob("*.nb[ci]"):
        old.unlink(missing_ok=True)
    say("compiling the geometry; this takes a minute or two and is done once")
    compiler = subprocess.Popen(
        [python, "-m", WARM],
        cwd=ROOT,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
    )
    try:
        yield
        if compiler.wait() == 0:
            stamp.parent.mkdir(exist_ok=True)
            stamp.write_text(wanted)
    finally:
        if compiler.poll() is None:
            compiler.kill()
            compiler.wait()


def _digest(part: Part) -> str:
    return hashlib.sha256((ROOT / "requirements" / f"{part}.txt").read_bytes()).hexdigest()


def _stamp(part: Part) -> str:
    stamp = DATA / f"venv.{part}"
    return stamp.read_text() if stamp.exists() else ""
