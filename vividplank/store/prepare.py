"""Bring the database to the newest migration: `python -m vividplank.store.prepare`."""

from pathlib import Path

from alembic import command
from alembic.config import Config

from vividplank.store.database import database_url


def migrate(url: str | None = None) -> None:
    """Run what migrations are missing; safe to run twice and by two at once."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url or database_url()
    command.upgrade(config, "head")


if __name__ == "__main__":
    migrate()
