"""Old cables count for what they were tested at

Revision ID: 0016
Revises: 0015
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("old_cable", sa.Column("tested_mbps", sa.Integer(), nullable=True))


def downgrade() -> None:
    op.drop_column("old_cable", "tested_mbps")
