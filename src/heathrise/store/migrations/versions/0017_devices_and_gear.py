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

    steps.create_table(
        "firm_gear",
        sa.Column("id", sa.String(80), primary_key=True),
        sa.Column("shelf", sa.String(40), nullable=False),
        sa.Column("entry", LONGTEXT, nullable=False),
        sa.Column("withdrawn", sa.Boolean(), nullable=False),
    )


def downgrade() -> None:
    op.drop_table("firm_gear")
    for name in ("redundancy", "disks", "reduced"):
        op.drop_column("device", name)
