"""Bring the database to the newest migration: `python -m vividplank.store.prepare`."""

import sys
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory

from vividplank.store.database import database_url, engine

#: Exit code where the database was written by a newer Vivid Plank; the launcher knows it as well.
NEWER = 3


def migrate(url: str | None = None) -> None:
    """Run what migrations are missing; safe to run twice and by two at once."""
    command.upgrade(configured(url or database_url()), "head")


def configured(url: str) -> Config:
    """What alembic needs to know: where the migrations are, and the database."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url
    return config


def is_newer(url: str) -> bool:
    """Whether the database stands at a migration that is not known here."""
    known = {s.revision for s in ScriptDirectory.from_config(configured(url)).walk_revisions()}
    with engine(url).connect() as connection:
        return not set(MigrationContext.configure(connection).get_current_heads()) <= known


if __name__ == "__main__":
    if is_newer(database_url()):
        print("this database was written by a newer Vivid Plank", file=sys.stderr)
        sys.exit(NEWER)
    migrate()
