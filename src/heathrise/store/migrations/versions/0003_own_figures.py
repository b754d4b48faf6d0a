"""Figures of the trade that the firm or a project sees differently

Revision ID: 0003
Revises: 0002
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.create_table(
        "firm_figure",
        sa.Column("path", sa.String(120), primary_key=True),
        sa.Column("value", sa.JSON(), nullable=False),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )
    steps.create_table(
        "own_figure",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("figure", sa.String(120), nullable=False),
        sa.Column("value", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("own_figure")
    op.drop_table("firm_figure")
