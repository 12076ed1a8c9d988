"""The way to the database."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from functools import lru_cache

from sqlalchemy import Engine, create_engine
from sqlalchemy.orm import Session


def database_url() -> str:
    """Where the database is, from the environment; RuntimeError where the launcher did not set it."""
    url = os.environ.get("PLANK_DATABASE", "")
    if not url:
        raise RuntimeError("PLANK_DATABASE is not set; start the application with ./plank")
    return url


@lru_cache(maxsize=4)
def engine(url: str) -> Engine:
    return create_engine(url.replace("postgresql://", "postgresql+psycopg://", 1), pool_pre_ping=True, pool_size=12)


@contextmanager
def session(url: str | None = None) -> Iterator[Session]:
    """One transaction: committed at the end, rolled back on any error."""
    with Session(engine(url or database_url()), expire_on_commit=False) as opened, opened.begin():
        yield opened
