"""Debian packages, only when they are absent."""

import os
import shutil
import subprocess

from launcher.paths import Trouble, say


def install(packages: list[str], why: str) -> None:
    """Install from Debian's packages as root or through sudo without a password; else say what to
    do.
    """
    command = f"apt-get install -y --no-install-recommends {' '.join(packages)}"
    patient = [
        "-o",
        "DPkg::Lock::Timeout=600",
    ]  # another apt may be at work: a machine just started updates itself
    if not shutil.which("apt-get"):
        raise Trouble(
            f"{why} is missing and this system has no apt-get. Install {' and '.join(packages)} "
            f"and start again."
        )
    prefix: list[str] = []
    if os.geteuid() != 0:
        if (
            not shutil.which("sudo")
            or subprocess.run(["sudo", "-n", "true"], capture_output=True).returncode
        ):
            raise Trouble(
                f"{why} is missing. Ask an administrator to run:  sudo apt-get update && sudo "
                f"{command}"
            )
        prefix = ["sudo", "-n"]
    say(f"installing {why} from Debian's packages ({' '.join(packages)})")
    environment = {**os.environ, "DEBIAN_FRONTEND": "noninteractive"}
    subprocess.run(
        [*prefix, "apt-get", *patient, "update", "-qq"], env=environment, capture_output=True
    )
    done = subprocess.run(
        [*prefix, *command.split(), *patient, "-qq"],
        env=environment,
        capture_output=True,
        text=True,
    )
    if done.returncode:
        last = (done.stderr or done.stdout).strip().splitlines()[-1:] or ["no reason given"]
        raise Trouble(f"{why} could not be installed ({last[0]}). Run it by hand:  {command}")
