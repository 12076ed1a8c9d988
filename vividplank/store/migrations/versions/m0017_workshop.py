"""A workshop of its own, that projects are made in; what was accounted of a layout; passes taken.

Projects whose machines, waits and hours are the same are in one workshop; those that had the usual
ones still have them. What was last set anywhere, which a new project began with, comes first.
"""

import json
from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import postgresql

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None

_SHARED = ("machines", "waits", "hours", "over", "enough")
_MM = 320
#: The usual machines of a shop in millimetres, as they were when this was written.
_METRIC: dict[str, Any] = {
    "machines": {
        "jointer": {
            "bed_width": 200 * _MM,
            "shortest": 300 * _MM,
            "thinnest": 12 * _MM,
            "narrowest": 50 * _MM,
            "longest": 2400 * _MM,
            "usual_pass": _MM * 4 // 5,
        },
        "planer": {
            "width": 380 * _MM,
            "shortest": 300 * _MM,
            "thinnest": 6 * _MM,
            "usual_pass": 3 * _MM // 2,
            "last_pass": _MM * 2 // 5,
            "dial": {"kind": "wheel", "per_turn": 2 * _MM},
        },
        "crosscut": {"widest": 300 * _MM},
        "table_saw": {"tallest": 75 * _MM, "fence": 600 * _MM, "narrowest": 12 * _MM},
        "bandsaw": {"tallest": 200 * _MM},
    }
}


def upgrade() -> None:
    op.create_table(
        "workshop",
        sa.Column("pk", sa.BigInteger(), sa.Identity(), primary_key=True),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("version", sa.BigInteger(), server_default="0", nullable=False),
        sa.Column("document", postgresql.JSONB(), nullable=False),
    )
    op.create_table(
        "account",
        sa.Column(
            "layout",
            sa.BigInteger(),
            sa.ForeignKey("layout.pk", ondelete="CASCADE"),
            primary_key=True,
        ),
        sa.Column("made_from", sa.Text(), nullable=False),
        sa.Column("document", postgresql.JSONB(), nullable=False),
    )
    op.add_column("step_done", sa.Column("passes", sa.BigInteger(), nullable=True))
    op.add_column("step_done", sa.Column("passes_foretold", sa.BigInteger(), nullable=True))
    op.add_column("project", sa.Column("workshop", sa.BigInteger(), nullable=True))
    _carry_over()
    op.alter_column("project", "workshop", nullable=False)
    op.create_foreign_key(None, "project", "workshop", ["workshop"], ["pk"])


def _carry_over() -> None:
    connection = op.get_bind()
    rows = connection.execute(
        sa.text("select pk, name, system, milling from project where not rack order by edited desc")
    ).all()
    rows = sorted(rows, key=lambda r: r.milling is None)  # what was last set comes first
    workshops: dict[str, int] = {}
    for row in rows:
        if row.milling is None:
            document = {} if row.system.startswith(("in", "ft")) else _METRIC
        else:
            document = {n: row.milling[n] for n in _SHARED if n in row.milling}
        key = json.dumps(document, sort_keys=True)
        if key not in workshops:
            name = f"The workshop of {row.name}" if workshops else "Our workshop"
            workshops[key] = _workshop(name, document)
        connection.execute(
            sa.text("update project set workshop = :workshop, milling = :own where pk = :pk"),
            {
                "workshop": workshops[key],
                "own": row.milling
                and json.dumps({n: v for n, v in row.milling.items() if n not in _SHARED}),
                "pk": row.pk,
            },
        )
    first = next(iter(workshops.values()), None)
    racks = sa.text("update project set workshop = :workshop where workshop is null")
    if connection.execute(sa.text("select 1 from project where rack")).first():
        first = first or _workshop("Our workshop", {})
        connection.execute(racks, {"workshop": first})


def _workshop(name: str, document: dict[str, Any]) -> int:
    """Its number."""
    made = sa.text(
        "insert into workshop (name, document) values (:name, cast(:document as jsonb)) "
        "returning pk"
    )
    said = {"name": name, "document": json.dumps(document)}
    return int(op.get_bind().execute(made, said).scalar_one())
