"""The way to the database."""

import os
from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache
from typing import Literal

import psycopg
from sqlalchemy import Engine, create_engine
from sqlalchemy.exc import DBAPIError, InterfaceError, OperationalError
from sqlalchemy.orm import Session

from vividplank.store.errors import InDoubt

#: Whether a transaction with changes was committed since this was last set to False here: then
#: something was kept.
kept: ContextVar[bool] = ContextVar("kept", default=False)


def database_url() -> str:
    """Where the database is, from the environment; RuntimeError where the launcher did not set
    it.
    """
    url = os.environ.get("PLANK_DATABASE", "")
    if not url:
        raise RuntimeError("PLANK_DATABASE is not set; start the application with ./plank")
    return url


@lru_cache(maxsize=4)
def engine(url: str) -> Engine:
    return create_engine(
        url.replace("postgresql://", "postgresql+psycopg://", 1), pool_pre_ping=True, pool_size=12
    )


@contextmanager
def session(url: str | None = None) -> Iterator[Session]:
    """One transaction: committed at the end, rolled back on any error; InDoubt where the commit
    itself got no answer.
    """
    with Session(engine(url or database_url()), expire_on_commit=False) as opened:
        yield opened
        opened.flush()
        try:
            opened.commit()
        except DBAPIError as problem:
            if gone(problem):
                raise InDoubt from problem
            raise
        kept.set(True)


def gone(problem: DBAPIError) -> Literal["", "starting", "full"]:
    """Whether the database is away for now (starting, stopped, restored), or has no room; empty
    where it is neither.
    """
    if isinstance(problem.orig, psycopg.errors.DiskFull):
        return "full"
    away = problem.connection_invalidated or isinstance(problem, OperationalError | InterfaceError)
    return "starting" if away else ""
