"""Devices run on less power than they ask for; stores have disks; the firm has gear of its own

Revision ID: 0017
Revises: 0016
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import LONGTEXT

from heathrise.store.migrations import steps

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("device", sa.Column("reduced", sa.Boolean(), nullable=False), before="0")
    steps.add_column("device", sa.Column("disks", sa.Integer(), nullable=True))
    steps.add_column("device", sa.Column("redundancy", sa.String(40), nullable=True))
    steps.add_column("device", sa.Column("splitter", sa.String(120), nullable=True))

    steps.create_table(
        "way_pin",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("switch", sa.String(40), nullable=False),
        sa.Column("port", sa.Integer(), nullable=False),
        sa.Column("to", sa.String(40), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "switch"], ["switch.project_id", "switch.id"]),
        sa.ForeignKeyConstraint(["project_id", "to"], ["switch.project_id", "switch.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )
    steps.create_table(
        "firm_gear",
        sa.Column("id", sa.String(80), primary_key=True),
        sa.Column("shelf", sa.String(40), nullable=False),
        sa.Column("entry", LONGTEXT, nullable=False),
        sa.Column("withdrawn", sa.Boolean(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("firm_gear")
    op.drop_table("way_pin")
    for name in ("splitter", "redundancy", "disks", "reduced"):
        op.drop_column("device", name)
