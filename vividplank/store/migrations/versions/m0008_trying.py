"""What a search is at while it goes on."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("layout", sa.Column("trying", sa.Text(), server_default="", nullable=False))
