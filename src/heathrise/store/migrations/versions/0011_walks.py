"""Walks that are often taken with a call, stairs, and the school of back-haul

Revision ID: 0011
Revises: 0010
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

# What a table of before has: the default of its field.
ADDED = (("space", "stairs", sa.Boolean(), "0"), ("site", "back_haul", sa.String(40), "wired"))


def upgrade() -> None:
    for table, name, kind, before in ADDED:
        steps.add_column(table, sa.Column(name, kind, nullable=False), before)
    steps.create_table(
        "habit",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("from_space", sa.String(40), nullable=False),
        sa.Column("to_space", sa.String(40), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["project_id", "from_space"], ["space.project_id", "space.id"]),
        sa.ForeignKeyConstraint(["project_id", "to_space"], ["space.project_id", "space.id"]),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("habit")
    for table, name, *_ in reversed(ADDED):
        op.drop_column(table, name)
