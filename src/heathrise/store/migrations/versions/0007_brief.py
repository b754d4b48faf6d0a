"""The brief: site facts, what is there and what becomes of it, pains, clients, pictures

Revision ID: 0007
Revises: 0006
"""

from typing import Any

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE, LONGBLOB

from heathrise.store.migrations import steps

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

_NUMBER = DOUBLE(asdecimal=False)
SITE: dict[str, tuple[Any, Any]] = {
    "client_name": (sa.String(120), ""),
    "contact": (sa.String(120), ""),
    "visited_on": (sa.String(120), None),
    "start_on": (sa.String(120), None),
    "due_on": (sa.String(120), None),
    "budget": (_NUMBER, None),
    "house_rules": (sa.JSON(), "[]"),
    "quiet_hour": (sa.String(120), "03:00"),
    "opens": (sa.String(120), "08:00"),
    "closes": (sa.String(120), "18:00"),
    "units": (sa.String(40), "metric"),
    "line_kind": (sa.String(40), "fibre"),
    "line_up_mbps": (_NUMBER, 100),
    "line_address": (sa.String(40), "automatic"),
    "television": (sa.Boolean(), False),
    "upstream_gear": (sa.String(120), ""),
}
TABLES: dict[str, dict[str, tuple[Any, bool]]] = {
    "line_entry": {
        "floor": (sa.String(40), False),
        "name": (sa.String(120), False),
        "at": (sa.JSON(), False),
    },
    "pain": {
        "floor": (sa.String(40), False),
        "kind": (sa.String(40), False),
        "at": (sa.JSON(), False),
        "words": (sa.String(400), False),
    },
    "client_group": {
        "space": (sa.String(40), False),
        "kind": (sa.String(120), False),
        "count": (sa.Integer(), False),
        "wired": (sa.Integer(), False),
        "old": (sa.Boolean(), False),
    },
    "zone": {
        "floor": (sa.String(40), False),
        "kind": (sa.String(40), False),
        "name": (sa.String(120), False),
        "outline": (sa.JSON(), False),
        "access_points": (sa.Integer(), False),
        "outlets": (sa.Integer(), False),
        "cameras": (sa.Integer(), False),
    },
    "old_cable": {
        "floor": (sa.String(40), False),
        "name": (sa.String(120), False),
        "a": (sa.JSON(), False),
        "b": (sa.JSON(), False),
        "category": (sa.String(40), True),
        "condition": (sa.String(40), False),
        "state": (sa.String(40), False),
    },
    "underlay": {
        "floor": (sa.String(40), False),
        "picture": (sa.String(120), False),
        "name": (sa.String(120), False),
        "width_px": (sa.Integer(), False),
        "height_px": (sa.Integer(), False),
        "metres_per_px": (_NUMBER, False),
        "at": (sa.JSON(), False),
        "turn_deg": (_NUMBER, False),
        "crop": (sa.JSON(), False),
        "strength": (_NUMBER, False),
        "hidden": (sa.Boolean(), False),
    },
}


def upgrade() -> None:
    for name, (kind, before) in SITE.items():
        steps.add_column("site", sa.Column(name, kind, nullable=True))
        if before is not None:
            op.execute(sa.text(f"UPDATE site SET `{name}` = :v").bindparams(v=before))
            op.alter_column("site", name, existing_type=kind, nullable=False)
    for table in ("device", "switch"):
        steps.add_column(table, sa.Column("state", sa.String(40), nullable=False), "new")
    for table, columns in TABLES.items():
        to = "space" if "space" in columns else "floor"
        steps.create_table(
            table,
            sa.Column("project_id", sa.String(40), nullable=False),
            sa.Column("id", sa.String(40), nullable=False),
            sa.Column("placed", sa.Integer(), nullable=False),
            *(sa.Column(name, kind, nullable=null) for name, (kind, null) in columns.items()),
            sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
            sa.ForeignKeyConstraint(["project_id", to], [f"{to}.project_id", f"{to}.id"]),
            sa.PrimaryKeyConstraint("project_id", "id"),
            mysql_engine="InnoDB",
            mysql_charset="utf8mb4",
        )
    steps.create_table(
        "picture",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("media", sa.String(40), nullable=False),
        sa.Column("width_px", sa.Integer(), nullable=False),
        sa.Column("height_px", sa.Integer(), nullable=False),
        sa.Column("data", LONGBLOB(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )
    steps.create_table(
        "paper",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("kind", sa.String(40), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("made", sa.DateTime(), nullable=False, server_default=sa.func.now()),
        sa.Column("data", LONGBLOB(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("paper")
    op.drop_table("picture")
    for table in reversed(TABLES):
        op.drop_table(table)
    for table in ("switch", "device"):
        op.drop_column(table, "state")
    for name in reversed(SITE):
        op.drop_column("site", name)
