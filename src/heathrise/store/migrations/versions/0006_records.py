"""Records: what was observed, appended and never changed

Revision ID: 0006
Revises: 0005
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME, LONGTEXT

from heathrise.store.migrations import steps

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.create_table(
        "record",
        sa.Column("number", sa.Integer(), primary_key=True, autoincrement=True),
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("kind", sa.String(40), nullable=False),
        sa.Column("at", DATETIME(fsp=6), nullable=False),
        sa.Column("author", sa.String(120), nullable=False),
        sa.Column("body", LONGTEXT(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("record")
