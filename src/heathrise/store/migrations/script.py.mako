"""${message}"""

import sqlalchemy as sa

from heathrise.store.migrations import steps

revision = ${repr(up_revision)}
down_revision = ${repr(down_revision)}


def upgrade() -> None:
    # Through steps, each of which can be made again: nothing takes a change of a table back.
    ${upgrades if upgrades else "pass"}
