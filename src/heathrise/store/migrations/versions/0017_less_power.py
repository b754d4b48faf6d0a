"""Devices run on less power than they ask for

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


def downgrade() -> None:
    op.drop_column("device", "reduced")
