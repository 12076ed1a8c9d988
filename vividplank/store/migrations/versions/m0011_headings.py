"""What a column of a parts list holds, by its heading, as the maker said once."""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "heading",
        sa.Column("heading", sa.Text(), primary_key=True),
        sa.Column("meaning", sa.Text(), nullable=False),
    )
