"""The air and the instruments are the workshop's: those of the project edited last that says more
than the usual.
"""

from alembic import op

revision = "0020"
down_revision = "0019"
branch_labels = None
depends_on = None

_USUAL = """'{"climate": {"celsius": 20.0, "humidity": 0.5}, "instruments": {}}'::jsonb"""


def upgrade() -> None:
    for name in ("climate", "instruments"):
        said = f"jsonb_strip_nulls(shop -> '{name}')"
        if name == "instruments":  # only those that are connected
            said = (
                "(select jsonb_object_agg(key, value) from jsonb_each(shop -> 'instruments')"
                " where value <> '\"\"'::jsonb)"
            )
        op.execute(
            f"""
            update workshop set version = version + 1,
                document = jsonb_set(document, '{{{name}}}', found.said)
            from (
                select distinct on (workshop) workshop as pk, {said} as said from project
                where not rack and {said} is not null and {said} <> {_USUAL} -> '{name}'
                order by workshop, edited desc
            ) as found
            where workshop.pk = found.pk
            """
        )
    op.execute("update project set shop = shop - 'climate' - 'instruments'")
