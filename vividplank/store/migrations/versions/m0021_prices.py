"""What a line of a price book asks, and what for: until now always a board foot."""

from alembic import op

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for table, column in (("supplier", "document"), ("estimate", "supplier")):
        op.execute(
            f"""
            update {table} set {column} = jsonb_set({column}, '{{prices}}', (
                select coalesce(jsonb_agg(
                    line - 'per_foot' || jsonb_build_object('asks', line -> 'per_foot')
                    order by place), '[]')
                from jsonb_array_elements({column} -> 'prices') with ordinality as of(line, place)
            ))
            where jsonb_typeof({column} -> 'prices') = 'array'
            """
        )
