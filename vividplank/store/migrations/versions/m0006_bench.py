"""Plans are argued with: what is held, what was made by hand from which plan, names, undo."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("layout", sa.Column("holds", JSONB(), server_default="{}", nullable=False))
    op.add_column("layout", sa.Column("parent", sa.BigInteger(), nullable=True))
    op.add_column(
        "layout", sa.Column("made_by", sa.Text(), server_default="search", nullable=False)
    )
    op.add_column("layout", sa.Column("name", sa.Text(), server_default="", nullable=False))
    op.add_column(
        "layout", sa.Column("undone", sa.Boolean(), server_default="false", nullable=False)
    )
    op.add_column("layout", sa.Column("thoughts", JSONB(), nullable=True))
