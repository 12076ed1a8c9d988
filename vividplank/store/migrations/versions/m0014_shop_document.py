"""A project's shop is one document, so that a new setting of it needs no column."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

_SAME = ("method", "end_trim", "min_blank_length", "max_slope", "ticket", "keep", "instruments")
_GROUPS = {
    "kerf": ("crosscut", "rip", "resaw"),
    "allowance": ("length", "width", "face", "panel_width", "between"),
}


def upgrade() -> None:
    op.add_column("project", sa.Column("shop", JSONB(), nullable=True))
    same = ", ".join(f"'{name}', {name}" for name in _SAME)
    groups = ", ".join(
        f"'{group}', jsonb_build_object("
        + ", ".join(f"'{name}', {group}_{name}" for name in names)
        + ")"
        for group, names in _GROUPS.items()
    )
    climate = "'climate', jsonb_build_object('celsius', celsius, 'humidity', humidity)"
    op.execute(f"update project set shop = jsonb_build_object({same}, {groups}, {climate})")
    op.alter_column("project", "shop", nullable=False)
    grouped = [f"{group}_{name}" for group, names in _GROUPS.items() for name in names]
    for name in (*_SAME, *grouped, "celsius", "humidity"):
        op.drop_column("project", name)
