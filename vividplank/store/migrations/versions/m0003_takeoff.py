"""Parts know how they are made and where they come from; drawings are read."""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    def text(name: str, default: str) -> sa.Column[str]:
        return sa.Column(name, sa.Text(), server_default=default, nullable=False)

    def document(name: str, default: str) -> sa.Column[dict[str, object]]:
        return sa.Column[dict[str, object]](name, JSONB(), server_default=default, nullable=False)

    op.add_column("project", document("measures", "[]"))
    columns: tuple[sa.Column[Any], ...] = (
        text("stock", "board"),
        text("grain", "length"),
        sa.Column("fitted", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("resawn", sa.Boolean(), server_default="false", nullable=False),
        sa.Column("layers", sa.BigInteger(), server_default="1", nullable=False),
        text("match", ""),
        text("same_board", ""),
        *(
            sa.Column(f"edging_{name}", sa.BigInteger(), nullable=True)
            for name in ("thickness", "long_edges", "ends")
        ),
        text("joint", ""),
        sa.Column("joint_length", sa.BigInteger(), server_default="0", nullable=False),
        document("formulas", "[]"),
        sa.Column("source_drawing", sa.BigInteger(), nullable=True),
        sa.Column("source_key", sa.Text(), nullable=True),
        document("outline", "[]"),
    )
    for column in columns:
        op.add_column("part", column)
    columns = (
        text("state", "waiting"),
        text("trouble", ""),
        document("settings", "{}"),
        sa.Column("reading", JSONB(), nullable=True),
        document("marks", "{}"),
        sa.Column("marks_version", sa.BigInteger(), server_default="0", nullable=False),
        sa.Column(
            "replaces",
            sa.BigInteger(),
            sa.ForeignKey("drawing.pk", ondelete="SET NULL"),
            nullable=True,
        ),
        sa.Column("replaced", sa.Boolean(), server_default="false", nullable=False),
    )
    for column in columns:
        op.add_column("drawing", column)
    op.create_table(
        "drawing_page",
        sa.Column(
            "drawing",
            sa.BigInteger(),
            sa.ForeignKey("drawing.pk", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("n", sa.BigInteger(), primary_key=True),
        sa.Column("png", sa.LargeBinary(), nullable=False),
    )
