"""The firm's prices, other ways of doing a job, records that are sent once

Revision ID: 0008
Revises: 0007
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects.mysql import DOUBLE

from heathrise.store.migrations import steps

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("record", sa.Column("sent", sa.String(40), nullable=True))
    steps.create_unique_constraint("record_sent", "record", ["project_id", "sent"])
    steps.create_table(
        "firm_price",
        sa.Column("item", sa.String(120), primary_key=True),
        sa.Column("price", DOUBLE(asdecimal=False), nullable=False),
        sa.Column("on", sa.Date(), nullable=False),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )
    steps.create_table(
        "variant",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("changes", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("variant")
    op.drop_table("firm_price")
    op.drop_constraint("record_sent", "record", type_="unique")
    op.drop_column("record", "sent")
