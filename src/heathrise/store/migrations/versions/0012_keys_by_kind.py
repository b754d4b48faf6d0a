"""A record is sent once among its own kind: no key of a snag stands in a signature's way

Revision ID: 0012
Revises: 0011
"""

from heathrise.store.migrations import steps

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    # The new key first: the foreign key of the project rests on one of the two.
    steps.create_unique_constraint("record_said", "record", ["project_id", "kind", "sent"])
    steps.drop_unique_constraint("record_sent", "record")


def downgrade() -> None:
    steps.create_unique_constraint("record_sent", "record", ["project_id", "sent"])
    steps.drop_unique_constraint("record_said", "record")
