"""Boards are surveyed thoroughly: scans, grids, shapes of faults, grain; photographs; a rack of
boards outside projects.
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for name, default in (("grain", "{}"), ("dressed", "[]"), ("photos", "[]")):
        op.add_column("board", sa.Column(name, JSONB(), server_default=default, nullable=False))
    op.add_column("board", sa.Column("surface", JSONB(), nullable=True))
    op.add_column("board", sa.Column("grade", sa.Text(), server_default="", nullable=False))
    op.add_column(
        "board", sa.Column("searched", sa.Boolean(), server_default="false", nullable=False)
    )
    op.add_column("station", sa.Column("between", JSONB(), server_default="[]", nullable=False))
    op.add_column(
        "defect", sa.Column("shape", sa.Text(), server_default="rectangle", nullable=False)
    )
    op.add_column("defect", sa.Column("points", JSONB(), server_default="[]", nullable=False))
    op.add_column(
        "defect", sa.Column("severity", sa.Text(), server_default="plain", nullable=False)
    )
    for name in ("ticket", "keep", "instruments"):
        op.add_column("project", sa.Column(name, JSONB(), server_default="{}", nullable=False))
    op.add_column(
        "project", sa.Column("rack", sa.Boolean(), server_default="false", nullable=False)
    )
    op.create_table(
        "picture",
        sa.Column("pk", sa.BigInteger(), sa.Identity(), primary_key=True),
        sa.Column(
            "project",
            sa.BigInteger(),
            sa.ForeignKey("project.pk", ondelete="SET NULL"),
            nullable=True,
            index=True,
        ),
        sa.Column("photograph", sa.LargeBinary(), nullable=False),
        sa.Column("straight", sa.LargeBinary(), nullable=True),
        sa.Column("corners", JSONB(), server_default="[]", nullable=False),
    )
    op.create_table(
        "board_cut",
        sa.Column(
            "layout",
            sa.BigInteger(),
            sa.ForeignKey("layout.pk", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("board", sa.Text(), primary_key=True),
        sa.Column("at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
    )
