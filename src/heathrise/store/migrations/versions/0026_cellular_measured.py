"""Level and quality of a cellular network as they were measured at a place on the land

Revision ID: 0026
Revises: 0025
"""

import sqlalchemy as sa
from alembic import op

from heathrise.store.migrations import steps

revision = "0026"
down_revision = "0025"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for name in ("cell_dbm", "cell_db"):
        steps.add_column("far_point", sa.Column(name, sa.Double(), nullable=True))


def downgrade() -> None:
    for name in ("cell_db", "cell_dbm"):
        op.drop_column("far_point", name)
