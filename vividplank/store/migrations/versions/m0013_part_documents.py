"""A part is one document, so that a new field of it needs no column."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

_SAME: tuple[str, ...] = (
    "id",
    "name",
    "quantity",
    "species",
    "length",
    "width",
    "thickness",
    "faces",
    "run",
)
_SAME += ("note", "stock", "grain", "fitted", "resawn", "layers", "match", "same_board", "figure")
_SAME += ("joint", "joint_length", "formulas", "outline")
_PARTS: tuple[str, ...] = (
    "stave_min",
    "stave_max",
    "edging_thickness",
    "edging_long_edges",
    "edging_ends",
)
_PARTS += ("source_drawing", "source_key")


def upgrade() -> None:
    op.add_column("part", sa.Column("document", JSONB(), nullable=True))
    same = ", ".join(f"'{name}', \"{name}\"" for name in _SAME)
    op.execute(f"""
        update part set document = jsonb_build_object({same})
            || jsonb_build_object(
                'panel', case when stave_min is not null then
                    jsonb_build_object('stave_min', stave_min, 'stave_max', stave_max) end,
                'edging', case when edging_thickness is not null then
                    jsonb_build_object('thickness', edging_thickness,
                        'long_edges', edging_long_edges, 'ends', edging_ends) end,
                'source', case when source_drawing is not null then
                    jsonb_build_object('drawing', source_drawing,
                        'key', coalesce(source_key, '')) end)
    """)
    op.alter_column("part", "document", nullable=False)
    for name in (*_SAME, *_PARTS):
        if name not in ("id", "quantity"):
            op.drop_column("part", name)
