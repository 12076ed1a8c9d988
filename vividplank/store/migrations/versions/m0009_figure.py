"""The figure a part is to show."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("part", sa.Column("figure", sa.Text(), server_default="", nullable=False))
