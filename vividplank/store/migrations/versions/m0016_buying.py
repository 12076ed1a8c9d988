"""Suppliers of wood, simulated purchases, and boards looked at where they are sold."""

from datetime import datetime

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def _now() -> sa.Column[datetime]:
    return sa.Column("at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False)


def upgrade() -> None:
    op.create_table(
        "supplier",
        sa.Column("id", sa.Text(), primary_key=True),
        sa.Column("document", postgresql.JSONB(), nullable=True),
        _now(),
    )
    op.create_table(
        "estimate",
        sa.Column("pk", sa.BigInteger(), sa.Identity(), primary_key=True),
        sa.Column(
            "project",
            sa.BigInteger(),
            sa.ForeignKey("project.pk", ondelete="CASCADE"),
            nullable=False,
            index=True,
        ),
        sa.Column(
            "asked", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False
        ),
        sa.Column("made_from", sa.Text(), nullable=False),
        sa.Column("job", postgresql.JSONB(), nullable=False),
        sa.Column("supplier", postgresql.JSONB(), nullable=False),
        sa.Column("grade", sa.Text(), server_default="", nullable=False),
        sa.Column("use_hand", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("trips", sa.BigInteger(), nullable=False),
        sa.Column("trouble", sa.Text(), server_default="", nullable=False),
    )
    op.create_table(
        "purchase",
        sa.Column(
            "estimate",
            sa.BigInteger(),
            sa.ForeignKey("estimate.pk", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("seed", sa.BigInteger(), primary_key=True, autoincrement=False),
        sa.Column("document", postgresql.JSONB(), nullable=False),
    )
    op.create_table(
        "offer",
        sa.Column(
            "project",
            sa.BigInteger(),
            sa.ForeignKey("project.pk", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("mark", sa.Text(), primary_key=True),
        _now(),
        sa.Column("document", postgresql.JSONB(), nullable=False),
        sa.Column("state", sa.Text(), server_default="pile", nullable=False),
        sa.Column("patterns", postgresql.JSONB(), server_default="[]", nullable=False),
        sa.Column("found_for", sa.Text(), server_default="", nullable=False),
    )
