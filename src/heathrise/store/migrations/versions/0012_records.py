"""A record is sent once among its own kind, and says when it was written

Revision ID: 0012
Revises: 0011
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DATETIME

from heathrise.store.migrations import steps

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # When those of before were written nobody knows.
    steps.add_column("record", sa.Column("written", DATETIME(fsp=6), nullable=True))
    # The new key first: the foreign key of the project rests on one of the two.
    steps.create_unique_constraint("record_said", "record", ["project_id", "kind", "sent"])
    steps.drop_unique_constraint("record_sent", "record")


def downgrade() -> None:
    steps.create_unique_constraint("record_sent", "record", ["project_id", "sent"])
    steps.drop_unique_constraint("record_said", "record")
    op.drop_column("record", "written")
