"""What a project needs besides its boards, and what it costs."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0019"
down_revision = "0018"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column(
        "project",
        sa.Column("materials", postgresql.JSONB(), nullable=False, server_default="[]"),
    )
    op.add_column(
        "project",
        sa.Column("materials_version", sa.BigInteger(), nullable=False, server_default="0"),
    )
