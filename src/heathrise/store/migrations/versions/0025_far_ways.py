"""The way by which a place on the land is reached

Revision ID: 0025
Revises: 0024
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0025"
down_revision = "0024"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("far_point", sa.Column("way", sa.String(40), nullable=False), before="")


def downgrade() -> None:
    op.drop_column("far_point", "way")
