"""The firm as its papers show it, the year a building was built in, how a duct gets into the ground

Revision ID: 0013
Revises: 0012
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import LONGBLOB

from heathrise.store.migrations import steps

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("building", sa.Column("built", sa.Integer(), nullable=True))
    steps.add_column("duct", sa.Column("dug", sa.String(40), nullable=False), "loam")
    steps.create_table(
        "firm",
        sa.Column("id", sa.Integer(), primary_key=True, autoincrement=False),
        sa.Column("said", sa.JSON(), nullable=False),
        sa.Column("media", sa.String(40), nullable=True),
        sa.Column("mark", LONGBLOB(), nullable=True),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("firm")
    op.drop_column("duct", "dug")
    op.drop_column("building", "built")
