"""Alembic's environment: one connection, one transaction, one migrator at a time."""

from alembic import context
from sqlalchemy import text

from vividplank.store.database import engine
from vividplank.store.models import Base

_LOCK = 8128  # any number, the same for all who migrate


def _run() -> None:
    with engine(context.config.attributes["url"]).connect() as connection:
        connection.execute(text(f"select pg_advisory_lock({_LOCK})"))
        connection.commit()
        try:
            context.configure(connection=connection, target_metadata=Base.metadata)
            with context.begin_transaction():
                context.run_migrations()
            connection.commit()
        finally:
            connection.execute(text(f"select pg_advisory_unlock({_LOCK})"))
            connection.commit()


_run()
