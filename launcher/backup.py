"""All projects to one file and back, by PostgreSQL's own dump."""

import os
import subprocess
from pathlib import Path

from launcher import python_env
from launcher.paths import ROOT, Trouble, say
from launcher.postgres import Cluster, binaries, running

#: Where a backup is put back and brought up to date before it takes the place of what is there.
_ASIDE, _BEFORE = "plank_restored", "plank_before"
#: The exit code of vividplank.store.prepare where the database is newer than it.
_NEWER = 3


def backup(file: Path) -> None:
    """Write the whole database to `file`, for its owner alone; an existing file is not
    overwritten.
    """
    if file.exists():
        raise Trouble(f"{file} is there already. Name another file, or move that one away.")
    if not file.resolve().parent.is_dir():
        raise Trouble(
            f"there is no folder {file.resolve().parent}. Make it, or name another place."
        )
    with running() as cluster:
        file.touch(0o600)
        done = cluster.run(binaries() / "pg_dump", "-Fc", "-f", file.resolve(), "plank")
    if done.returncode:
        file.unlink(missing_ok=True)
        raise Trouble(f"no backup was written: {_last(done.stderr)}")
    say(f"wrote {file} ({file.stat().st_size >> 10} KB)")


def restore(file: Path) -> None:
    """Put the database back as the file holds it, and bring it up to date; all or nothing, also
    while the application runs.
    """
    if not file.is_file():
        raise Trouble(f"there is no file {file}.")
    with file.open("rb") as start:
        if start.read(5) != b"PGDMP":
            raise Trouble(
                f"{file} is no backup of Vivid Plank. Expected a file written by ./plank backup."
            )
    python = python_env.ensure("app")
    with running() as cluster:
        _sql(cluster, f"drop database if exists {_ASIDE} with (force)", f"create database {_ASIDE}")
        try:
            _fill(cluster, file)
            _bring_up_to_date(cluster, python)
            _swap(cluster)
        finally:
            _sql(cluster, f"drop database if exists {_ASIDE} with (force)")
    say(f"restored from {file}")


def _fill(cluster: Cluster, file: Path) -> None:
    done = cluster.run(
        binaries() / "pg_restore", "--exit-on-error", "--no-owner", "-d", _ASIDE, file.resolve()
    )
    if done.returncode:
        raise Trouble(
            f"nothing was changed: {file} is damaged or cut off ({_last(done.stderr)}). Take "
            f"another backup."
        )


def _bring_up_to_date(cluster: Cluster, python: Path) -> None:
    environment = {**os.environ, "PLANK_DATABASE": cluster.url(_ASIDE)}
    done = subprocess.run(
        [python, "-m", "vividplank.store.prepare"],
        cwd=ROOT,
        env=environment,
        capture_output=True,
        text=True,
    )
    if done.returncode == _NEWER:
        raise Trouble(
            "nothing was changed: this backup was written by a newer Vivid Plank. Restore it "
            "with that one."
        )
    if done.returncode:
        raise Trouble(
            f"nothing was changed: what the backup holds could not be brought up to date "
            f"({_last(done.stderr)})."
        )


def _swap(cluster: Cluster) -> None:
    """What was restored takes the place of what is there; who is at work is cut off, and finds it
    when they ask again.
    """
    _sql(
        cluster,
        "alter database plank with allow_connections false",
        "select pg_terminate_backend(pid) from pg_stat_activity where datname = 'plank'",
        f"alter database plank rename to {_BEFORE}",
        f"alter database {_ASIDE} rename to plank",
        f"drop database {_BEFORE} with (force)",
    )


def _sql(cluster: Cluster, *statements: str) -> None:
    for statement in statements:
        done = cluster.run(
            binaries() / "psql", "-d", "postgres", "-v", "ON_ERROR_STOP=1", "-qAtc", statement
        )
        if done.returncode:
            raise Trouble(f"the database would not do '{statement}': {_last(done.stderr)}")


def _last(told: str) -> str:
    lines = [line.strip() for line in told.splitlines() if line.strip()]
    return (
        lines[-1].removeprefix("pg_restore: ").removeprefix("error: ")
        if lines
        else "no reason was given"
    )
