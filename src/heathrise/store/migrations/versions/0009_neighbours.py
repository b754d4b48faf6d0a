"""Measured neighbours, and the schools by which a site is planned

Revision ID: 0009
Revises: 0008
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

from heathrise.store.migrations import steps

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

# What a site planned before has: the default of its field.
ADDED = (
    ("radar_channels", sa.Boolean(), "1"),
    ("four_channels_24", sa.Boolean(), "0"),
    ("channels_by", sa.String(40), "plan"),
    ("asks_second", sa.Boolean(), "1"),
    ("mount_first", sa.String(40), "ceiling"),
)


def upgrade() -> None:
    for name, kind, before in ADDED:
        steps.add_column("site", sa.Column(name, kind, nullable=False), before)
    steps.create_table(
        "neighbour",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("floor", sa.String(40), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("at", sa.JSON(), nullable=False),
        sa.Column("band", sa.String(40), nullable=False),
        sa.Column("channel", sa.Integer(), nullable=False),
        sa.Column("width_mhz", sa.Integer(), nullable=False),
        sa.Column("level_dbm", DOUBLE(asdecimal=False), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "floor"], ["floor.project_id", "floor.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("neighbour")
    for name, *_ in reversed(ADDED):
        op.drop_column("site", name)
