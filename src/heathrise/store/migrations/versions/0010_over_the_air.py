"""Access points whose link is the air

Revision ID: 0010
Revises: 0009
"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("run", sa.Column("over_air", sa.Boolean(), nullable=False, server_default="0"))
    op.alter_column(
        "run", "over_air", existing_type=sa.Boolean(), existing_nullable=False, server_default=None
    )


def downgrade() -> None:
    op.drop_column("run", "over_air")
