"""Mains on the drawing, and racks as things

Revision ID: 0014
Revises: 0013
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

from heathrise.store.migrations import steps

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None

_FLOOR = (("floor", sa.String(40), False), ("name", sa.String(120), False))
TABLES = {
    "panel": (*_FLOOR, ("at", sa.JSON(), False), ("azimuth_deg", DOUBLE(asdecimal=False), False)),
    "socket": (
        *_FLOOR,
        ("at", sa.JSON(), False),
        ("height_m", DOUBLE(asdecimal=False), False),
        ("panel", sa.String(40), True),
        ("circuit", sa.String(120), False),
        ("state", sa.String(40), False),
    ),
    "mains_route": (*_FLOOR, ("path", sa.JSON(), False)),
    "light": (*_FLOOR, ("at", sa.JSON(), False)),
    "extender": (
        ("device", sa.String(40), False),
        ("model", sa.String(120), False),
        ("share", DOUBLE(asdecimal=False), False),
    ),
    "rack_place": (
        ("equipment_room", sa.String(40), False),
        ("thing", sa.String(120), False),
        ("unit", sa.Integer(), False),
    ),
}
REFERENCES = ("floor", "panel", "equipment_room", "device")
ADDED = (
    ("space", "water", sa.Boolean(), True, None),
    ("space", "locks", sa.Boolean(), True, None),
    ("equipment_room", "frame", sa.String(120), True, None),
    ("equipment_room", "battery", sa.String(120), True, None),
    ("equipment_room", "stud_m", DOUBLE(asdecimal=False), True, None),
    ("equipment_room", "vent_m3h", DOUBLE(asdecimal=False), False, "0"),
)


def upgrade() -> None:
    for table, name, kind, empty, before in ADDED:
        steps.add_column(table, sa.Column(name, kind, nullable=empty), before)
    for table, columns in TABLES.items():
        keys = [
            sa.ForeignKeyConstraint(["project_id", name], [f"{name}.project_id", f"{name}.id"])
            for name, *_ in columns
            if name in REFERENCES
        ]
        steps.create_table(
            table,
            sa.Column("project_id", sa.String(40), nullable=False),
            sa.Column("id", sa.String(40), nullable=False),
            sa.Column("placed", sa.Integer(), nullable=False),
            *(sa.Column(name, kind, nullable=empty) for name, kind, empty in columns),
            sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
            *keys,
            sa.PrimaryKeyConstraint("project_id", "id"),
            mysql_engine="InnoDB",
            mysql_charset="utf8mb4",
        )


def downgrade() -> None:
    for table in reversed(TABLES):
        op.drop_table(table)
    for table, name, *_ in reversed(ADDED):
        op.drop_column(table, name)
