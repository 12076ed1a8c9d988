"""What is fixed in a plan and what else might be cheaper, by the names the code has for them."""

from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.alter_column("layout", "holds", new_column_name="fixings")
    op.alter_column("layout", "thoughts", new_column_name="what_ifs")
    op.execute("""
        update layout set fixings = (fixings - 'rested' - 'first')
            || jsonb_build_object(
                'excluded', coalesce(fixings -> 'rested', '[]'::jsonb),
                'priority', coalesce(fixings -> 'first', '[]'::jsonb))
        where fixings ?| array['rested', 'first']
    """)
