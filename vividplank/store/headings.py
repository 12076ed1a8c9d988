"""What columns of parts lists hold, by their headings, as the maker has said: one workshop, all
projects.
"""

from collections.abc import Mapping

from sqlalchemy import select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session

from vividplank.store.models import HeadingRow


def known(session: Session) -> dict[str, str]:
    """Meanings by heading, in lower case."""
    return {row.heading: row.meaning for row in session.scalars(select(HeadingRow))}


def remember(session: Session, meanings: Mapping[str, str]) -> None:
    """Keep them, in place of what was said of the same headings before."""
    for heading, meaning in meanings.items():
        values = {"heading": heading.casefold(), "meaning": meaning}
        session.execute(
            insert(HeadingRow)
            .values(values)
            .on_conflict_do_update(index_elements=["heading"], set_=values)
        )
