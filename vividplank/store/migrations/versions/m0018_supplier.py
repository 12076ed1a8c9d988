"""Who sold a board. Those brought home from a cart before have it in their note."""

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("board", sa.Column("supplier", sa.Text(), nullable=False, server_default=""))
    op.execute(
        r"UPDATE board SET supplier = substring(note from '(?:^|; )bought at ([^;]+)$') "
        r"WHERE note ~ '(^|; )bought at [^;]+$'"
    )
    op.execute("DELETE FROM account")  # worked out anew with who sold each board
