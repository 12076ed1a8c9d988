"""The queue's own tables, as the queue ships them."""

from alembic import op
from procrastinate.schema import SchemaManager

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # Straight to the driver: the queue's SQL holds colons and percent signs that are no parameters.
    op.get_bind().connection.cursor().execute(SchemaManager.get_schema())
