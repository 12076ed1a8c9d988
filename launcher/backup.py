"""All projects to one file and back, by PostgreSQL's own dump."""

from pathlib import Path

from launcher.house import Trouble, say
from launcher.postgres import binaries, running


def backup(file: Path) -> None:
    """Write the whole database to `file`; an existing file is not overwritten."""
    if file.exists():
        raise Trouble(f"{file} is there already. Name another file, or move that one away.")
    if not file.resolve().parent.is_dir():
        raise Trouble(f"there is no folder {file.resolve().parent}. Make it, or name another place.")
    with running() as cluster:
        done = cluster.run(binaries() / "pg_dump", "-Fc", "-f", file.resolve(), "plank")
    if done.returncode:
        file.unlink(missing_ok=True)
        raise Trouble(f"no backup was written: {done.stderr.strip()}")
    say(f"wrote {file} ({file.stat().st_size >> 10} KB)")


def restore(file: Path) -> None:
    """Put the database back as the file holds it; all or nothing."""
    if not file.is_file():
        raise Trouble(f"there is no file {file}.")
    with file.open("rb") as start:
        if start.read(5) != b"PGDMP":
            raise Trouble(f"{file} is no backup of Vivid Plank. Expected a file written by ./plank backup.")
    with running() as cluster:
        done = cluster.run(binaries() / "pg_restore", "--clean", "--if-exists", "--single-transaction", "--no-owner",
                           "-d", "plank", file.resolve())
    if done.returncode:
        raise Trouble(f"nothing was changed; the backup could not be put back: {done.stderr.strip()}")
    say(f"restored from {file}")
