"""The log of a project, and where a board came from. Ticks of plans that stand become events."""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("board", sa.Column("came_from", sa.Text(), nullable=False, server_default=""))
    op.create_table(
        "event",
        sa.Column(
            "project",
            sa.BigInteger(),
            sa.ForeignKey("project.pk", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("n", sa.BigInteger(), primary_key=True, autoincrement=False),
        sa.Column("at", sa.DateTime(timezone=True), server_default=sa.func.now(), nullable=False),
        sa.Column("layout", sa.BigInteger(), nullable=True),
        sa.Column("document", postgresql.JSONB(), nullable=False),
    )
    op.execute("""
        insert into event (project, n, at, layout, document)
        select l.project, row_number() over (partition by l.project order by d.at, d.key), d.at,
               l.pk,
               jsonb_strip_nulls(jsonb_build_object(
                   'kind', 'did', 'step', d.key, 'reading', d.reading, 'minutes', d.minutes))
        from step_done d join layout l on l.pk = d.layout
        where l.pk = (
            select s.pk from layout s
            where s.project = l.project and s.plan is not null and not s.undone
            order by s.pk desc limit 1)
    """)
