"""Pipes and cables of others in the ground; names of revisions; projects laid aside

Revision ID: 0023
Revises: 0022
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

from heathrise.store.migrations import steps

revision = "0023"
down_revision = "0022"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("journal", sa.Column("name", sa.String(120), nullable=True))
    steps.add_column("project", sa.Column("archived", sa.Boolean(), nullable=False), before="0")
    steps.create_table(
        "buried_service",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("carries", sa.String(40), nullable=False),
        sa.Column("path", sa.JSON(), nullable=False),
        sa.Column("depth_m", mysql.DOUBLE(asdecimal=False), nullable=True),
        sa.Column("found", sa.Boolean(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("buried_service")
    op.drop_column("project", "archived")
    op.drop_column("journal", "name")
