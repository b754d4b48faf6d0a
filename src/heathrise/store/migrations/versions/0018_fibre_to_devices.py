"""A device's run can be fibre

Revision ID: 0018
Revises: 0017
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0018"
down_revision = "0017"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("run", sa.Column("medium", sa.String(40), nullable=True))


def downgrade() -> None:
    op.drop_column("run", "medium")
