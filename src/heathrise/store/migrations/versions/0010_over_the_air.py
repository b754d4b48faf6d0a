"""Access points whose link is the air

Revision ID: 0010
Revises: 0009
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("run", sa.Column("over_air", sa.Boolean(), nullable=False), "0")


def downgrade() -> None:
    op.drop_column("run", "over_air")
