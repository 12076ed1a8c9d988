"""Bring the database to the newest migration: `python -m vividplank.store.prepare`."""

from pathlib import Path

from alembic import command
from alembic.config import Config

from vividplank.store.database import database_url


def migrate(url: str | None = None) -> None:
    """Run what migrations are missing; safe to run twice and by two at once."""
    command.upgrade(configured(url or database_url()), "head")


def configured(url: str) -> Config:
    """What alembic needs to know: where the migrations are, and the database."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["url"] = url
    return config


if __name__ == "__main__":
    migrate()
