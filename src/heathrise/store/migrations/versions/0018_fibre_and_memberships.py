"""A device's run can be fibre; ends belong to networks, names to access points; what is reached is said

Revision ID: 0018
Revises: 0017
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

from heathrise.store.migrations import steps

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None

_NAME = (
    ("steering", sa.Boolean()),
    ("dtim", sa.Integer()),
    ("lowest_rate_mbps", sa.Integer()),
    ("limit_mbps", DOUBLE(asdecimal=False)),
    ("from_hour", sa.String(120)),
    ("to_hour", sa.String(120)),
)


def upgrade() -> None:
    steps.add_column("run", sa.Column("medium", sa.String(40), nullable=True))
    steps.add_column("network", sa.Column("shut", sa.JSON(), nullable=False), before="[]")
    steps.add_column("network", sa.Column("internet", sa.Boolean(), nullable=True))
    steps.add_column("network", sa.Column("lease_h", sa.Integer(), nullable=True))
    steps.add_column("wireless_name", sa.Column("access_points", sa.JSON(), nullable=False), before="[]")
    for name, kind in _NAME:
        steps.add_column("wireless_name", sa.Column(name, kind, nullable=True))
    steps.create_table(
        "membership",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("network", sa.String(40), nullable=False),
        sa.Column("device", sa.String(40), nullable=True),
        sa.Column("switch", sa.String(40), nullable=True),
        sa.Column("port", sa.Integer(), nullable=False),
        sa.Column("given", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "network"], ["network.project_id", "network.id"]),
        sa.ForeignKeyConstraint(["project_id", "device"], ["device.project_id", "device.id"]),
        sa.ForeignKeyConstraint(["project_id", "switch"], ["switch.project_id", "switch.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("membership")
    for name, _ in (*reversed(_NAME), ("access_points", None)):
        op.drop_column("wireless_name", name)
    for name in ("lease_h", "internet", "shut"):
        op.drop_column("network", name)
    op.drop_column("run", "medium")
