"""Boards have readings of their moisture, shops a climate."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("board", sa.Column("moisture", JSONB(), server_default="[]", nullable=False))
    op.add_column("project", sa.Column("celsius", sa.Float(), server_default="20", nullable=False))
    op.add_column(
        "project", sa.Column("humidity", sa.Float(), server_default="0.5", nullable=False)
    )
