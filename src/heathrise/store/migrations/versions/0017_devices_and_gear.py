"""Devices run on less power than they ask for; stores have disks

Revision ID: 0017
Revises: 0016
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("device", sa.Column("reduced", sa.Boolean(), nullable=False), before="0")
    steps.add_column("device", sa.Column("disks", sa.Integer(), nullable=True))
    steps.add_column("device", sa.Column("redundancy", sa.String(40), nullable=True))


def downgrade() -> None:
    for name in ("redundancy", "disks", "reduced"):
        op.drop_column("device", name)
