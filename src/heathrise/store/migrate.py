"""Brings a database to the newest shape of the tables."""

from __future__ import annotations

from pathlib import Path

from alembic import command
from alembic.config import Config
from sqlalchemy import Engine, text

WAIT_SECONDS = 120
_LOCK = "CONCAT('heathrise-', SHA1(DATABASE()))"


class MigrationHeld(RuntimeError):
    """Another process brings this database to its newest shape and has not come to an end."""


def migrate(engine: Engine) -> None:
    """Run all migrations that have not yet run.

    MariaDB writes each change of a table at once and takes none back, so each step is on its own
    and can be made again: whatever was killed on the way, the next call goes on where it stopped.

    Raises:
        MigrationHeld: another process has been at it for all of ``WAIT_SECONDS``.
    """
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    alone = engine.execution_options(isolation_level="AUTOCOMMIT")
    with alone.connect() as connection:
        # What a killed process asked for last may still be under way in the database.
        if connection.scalar(text(f"SELECT GET_LOCK({_LOCK}, {WAIT_SECONDS})")) != 1:
            raise MigrationHeld(f"another process has migrated for over {WAIT_SECONDS} s")
        try:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")
        finally:
            connection.execute(text(f"SELECT RELEASE_LOCK({_LOCK})"))
