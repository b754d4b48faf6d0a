"""MariaDB through SQLAlchemy: tables, repository, migrations."""

from .repository import Repository, Saved, StaleRevision, UnknownProject
from .stores import Stores
from .tables import connect

__all__ = ["Repository", "Saved", "StaleRevision", "Stores", "UnknownProject", "connect"]
