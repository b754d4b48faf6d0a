"""Pages that guests meet, vouchers by which they come past; updates on a day of the week;
several codes may be sealed as one

Revision ID: 0021
Revises: 0020
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

from heathrise.store.migrations import steps

revision = "0021"
down_revision = "0020"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("site", sa.Column("quiet_day", sa.String(40), nullable=True))
    steps.add_column("sealed_key", sa.Column("parts", sa.Integer(), nullable=False), before="1")
    steps.create_table(
        "portal",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("network", sa.String(40), nullable=False),
        sa.Column("way", sa.String(40), nullable=False),
        sa.Column("session_h", sa.Integer(), nullable=False),
        sa.Column("asks", sa.JSON(), nullable=False),
        sa.Column("terms", sa.String(4000), nullable=False),
        sa.Column("kept_days", sa.Integer(), nullable=True),
        sa.Column("law", sa.JSON(), nullable=False),
        sa.Column("told_by", sa.String(120), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "network"], ["network.project_id", "network.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )
    steps.create_table(
        "voucher_set",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("portal", sa.String(40), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("rooms", sa.Boolean(), nullable=False),
        sa.Column("hours", sa.Integer(), nullable=False),
        sa.Column("devices", sa.Integer(), nullable=False),
        sa.Column("limit_mbps", mysql.DOUBLE(asdecimal=False), nullable=True),
        sa.Column("price", sa.String(120), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "portal"], ["portal.project_id", "portal.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("voucher_set")
    op.drop_table("portal")
    op.drop_column("sealed_key", "parts")
    op.drop_column("site", "quiet_day")
