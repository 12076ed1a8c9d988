"""The tables of the first slice."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "project",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("system", sa.Text(), nullable=False),
        sa.Column("version", sa.BigInteger(), nullable=False),
        sa.Column(
            "edited", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False
        ),
        sa.Column("demo", sa.Boolean(), nullable=False),
        sa.Column("method", sa.Text(), nullable=False),
        sa.Column("kerf_crosscut", sa.BigInteger(), nullable=False),
        sa.Column("kerf_rip", sa.BigInteger(), nullable=False),
        sa.Column("kerf_resaw", sa.BigInteger(), nullable=False),
        sa.Column("allowance_length", sa.BigInteger(), nullable=False),
        sa.Column("allowance_width", sa.BigInteger(), nullable=False),
        sa.Column("allowance_face", sa.BigInteger(), nullable=False),
        sa.Column("allowance_panel_width", sa.BigInteger(), nullable=False),
        sa.Column("end_trim", sa.BigInteger(), nullable=False),
        sa.Column("min_blank_length", sa.BigInteger(), nullable=False),
        sa.Column("max_slope", sa.Double(), nullable=False),
        sa.PrimaryKeyConstraint("pk"),
    )
    op.create_table(
        "board",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("project", sa.BigInteger(), nullable=False),
        sa.Column("position", sa.BigInteger(), nullable=False),
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("species", sa.Text(), nullable=False),
        sa.Column("length", sa.BigInteger(), nullable=False),
        sa.Column("price", sa.Numeric(), nullable=False),
        sa.Column("quarter", sa.Text(), nullable=False),
        sa.Column("note", sa.Text(), nullable=False),
        sa.Column("bow", sa.BigInteger(), nullable=False),
        sa.Column("cup", sa.BigInteger(), nullable=False),
        sa.Column("twist", sa.BigInteger(), nullable=False),
        sa.ForeignKeyConstraint(["project"], ["project.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
        sa.UniqueConstraint("project", "id", deferrable=True, initially="DEFERRED"),
    )
    op.create_index(op.f("ix_board_project"), "board", ["project"], unique=False)
    op.create_table(
        "drawing",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("project", sa.BigInteger(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("media_type", sa.Text(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("size", sa.BigInteger(), nullable=False),
        sa.Column(
            "added", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False
        ),
        sa.ForeignKeyConstraint(["project"], ["project.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
    )
    op.create_index(op.f("ix_drawing_project"), "drawing", ["project"], unique=False)
    op.create_table(
        "edit",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("project", sa.BigInteger(), nullable=False),
        sa.Column("label", sa.Text(), nullable=False),
        sa.Column("before", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("after", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("undone", sa.Boolean(), nullable=False),
        sa.Column(
            "made", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False
        ),
        sa.ForeignKeyConstraint(["project"], ["project.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
    )
    op.create_index(op.f("ix_edit_project"), "edit", ["project"], unique=False)
    op.create_table(
        "layout",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("project", sa.BigInteger(), nullable=False),
        sa.Column("state", sa.Text(), nullable=False),
        sa.Column(
            "asked", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False
        ),
        sa.Column("seconds", sa.Double(), nullable=False),
        sa.Column("made_from", sa.Text(), nullable=False),
        sa.Column("job", postgresql.JSONB(astext_type=sa.Text()), nullable=False),
        sa.Column("stop_asked", sa.Boolean(), nullable=False),
        sa.Column("spent", sa.Double(), nullable=False),
        sa.Column("rounds", sa.BigInteger(), nullable=False),
        sa.Column("unplaced", sa.BigInteger(), nullable=True),
        sa.Column("cost", sa.Numeric(), nullable=True),
        sa.Column("lower_bound", sa.Double(), nullable=True),
        sa.Column("plan", postgresql.JSONB(astext_type=sa.Text()), nullable=True),
        sa.Column("trouble", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(["project"], ["project.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
    )
    op.create_index(op.f("ix_layout_project"), "layout", ["project"], unique=False)
    op.create_table(
        "part",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("project", sa.BigInteger(), nullable=False),
        sa.Column("position", sa.BigInteger(), nullable=False),
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("quantity", sa.BigInteger(), nullable=False),
        sa.Column("species", sa.Text(), nullable=False),
        sa.Column("length", sa.BigInteger(), nullable=False),
        sa.Column("width", sa.BigInteger(), nullable=False),
        sa.Column("thickness", sa.BigInteger(), nullable=False),
        sa.Column("faces", sa.Text(), nullable=False),
        sa.Column("stave_min", sa.BigInteger(), nullable=True),
        sa.Column("stave_max", sa.BigInteger(), nullable=True),
        sa.Column("run", sa.Text(), nullable=False),
        sa.Column("note", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(["project"], ["project.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
        sa.UniqueConstraint("project", "id", deferrable=True, initially="DEFERRED"),
    )
    op.create_index(op.f("ix_part_project"), "part", ["project"], unique=False)
    op.create_table(
        "defect",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("board", sa.BigInteger(), nullable=False),
        sa.Column("position", sa.BigInteger(), nullable=False),
        sa.Column("kind", sa.Text(), nullable=False),
        sa.Column("face", sa.Text(), nullable=False),
        sa.Column("x0", sa.BigInteger(), nullable=False),
        sa.Column("x1", sa.BigInteger(), nullable=False),
        sa.Column("y0", sa.BigInteger(), nullable=False),
        sa.Column("y1", sa.BigInteger(), nullable=False),
        sa.ForeignKeyConstraint(["board"], ["board.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
    )
    op.create_index(op.f("ix_defect_board"), "defect", ["board"], unique=False)
    op.create_table(
        "station",
        sa.Column("pk", sa.BigInteger(), sa.Identity(always=False), nullable=False),
        sa.Column("board", sa.BigInteger(), nullable=False),
        sa.Column("x", sa.BigInteger(), nullable=False),
        sa.Column("y0", sa.BigInteger(), nullable=False),
        sa.Column("y1", sa.BigInteger(), nullable=False),
        sa.Column("t0", sa.BigInteger(), nullable=False),
        sa.Column("t1", sa.BigInteger(), nullable=False),
        sa.ForeignKeyConstraint(["board"], ["board.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("pk"),
    )
    op.create_index(op.f("ix_station_board"), "station", ["board"], unique=False)
    op.create_table(
        "step_done",
        sa.Column("layout", sa.BigInteger(), nullable=False),
        sa.Column("key", sa.Text(), nullable=False),
        sa.Column(
            "at", sa.DateTime(timezone=True), server_default=sa.text("now()"), nullable=False
        ),
        sa.ForeignKeyConstraint(["layout"], ["layout.pk"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("layout", "key"),
    )
