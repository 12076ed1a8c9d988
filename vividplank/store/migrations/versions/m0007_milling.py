"""How a project is milled; the days planned for a layout; what was read and how long it took at
each step.
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.postgresql import JSONB

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("project", sa.Column("milling", JSONB(), nullable=True))
    op.add_column("layout", sa.Column("days", JSONB(), nullable=True))
    op.add_column("step_done", sa.Column("reading", sa.BigInteger(), nullable=True))
    op.add_column("step_done", sa.Column("minutes", sa.Float(), nullable=True))
    op.add_column("step_done", sa.Column("foretold", sa.Float(), nullable=True))
    op.add_column("step_done", sa.Column("machine", sa.Text(), server_default="", nullable=False))
