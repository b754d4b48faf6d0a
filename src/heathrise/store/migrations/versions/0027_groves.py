"""Trees that are drawn on the land; injectors and panels of far places

Revision ID: 0027
Revises: 0026
"""

import sqlalchemy as sa
from alembic import op
from sqlalchemy.dialects import mysql

from heathrise.store.migrations import steps

revision = "0027"
down_revision = "0026"
branch_labels = None
depends_on = None


def upgrade() -> None:
    steps.add_column("far_point", sa.Column("injector", sa.Boolean(), nullable=False), before="0")
    steps.add_column("far_point", sa.Column("panel", sa.String(40), nullable=True))
    steps.create_foreign_key(
        "far_point_panel", "far_point", "panel", ["project_id", "panel"], ["project_id", "id"]
    )
    steps.create_table(
        "grove",
        sa.Column("project_id", sa.String(40), nullable=False),
        sa.Column("id", sa.String(40), nullable=False),
        sa.Column("placed", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(120), nullable=False),
        sa.Column("outline", sa.JSON(), nullable=False),
        sa.Column("height_m", mysql.DOUBLE(asdecimal=False), nullable=False),
        sa.Column("clear_m", mysql.DOUBLE(asdecimal=False), nullable=False),
        sa.Column("grows_m", mysql.DOUBLE(asdecimal=False), nullable=True),
        sa.ForeignKeyConstraint(["project_id"], ["project.id"], ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("project_id", "id"),
        mysql_engine="InnoDB",
        mysql_charset="utf8mb4",
    )


def downgrade() -> None:
    op.drop_table("grove")
    op.drop_constraint("far_point_panel", "far_point", type_="foreignkey")
    op.drop_column("far_point", "panel")
    op.drop_column("far_point", "injector")
