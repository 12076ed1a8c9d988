"""What parts end to end have between them; milling settings carry a version, and every project
keeps its own.
"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column(
        "project",
        sa.Column("allowance_between", sa.BigInteger(), server_default="0", nullable=False),
    )
    op.add_column(
        "project", sa.Column("milling_version", sa.BigInteger(), server_default="0", nullable=False)
    )
    op.execute("update project set milling = null where jsonb_typeof(milling) = 'null'")
    # Projects that had none took those last set anywhere: they keep them.
    op.execute("""
        update project set milling = latest.milling - 'exceptions' - 'fitted' - 'school'
        from (
            select milling from project
            where milling is not null and not rack order by edited desc limit 1
        ) latest
        where project.milling is null and not rack
    """)
