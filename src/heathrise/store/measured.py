"""Measured walks, read once: what was written of them does not change."""

from __future__ import annotations

from sqlalchemy import func, select

from ..core.base.memo import IdentityMemo
from ..core.context.readings import Reading
from ..core.records import MeasuredWalk
from .records import Records
from .tables import record as table

_READING_BYTES = 700
MOST_COUNTED = 40_000  # that a fit takes while one waits


class Measured:
    """The measured walks of projects, as the same objects for as long as they are kept."""

    def __init__(self, records: Records) -> None:
        self._records = records
        self._walks: IdentityMemo[tuple[MeasuredWalk, ...]] = IdentityMemo(
            32, weigh=lambda walks: _READING_BYTES * sum(len(w.readings) for w in walks)
        )
        self._counted: IdentityMemo[tuple[Reading, ...]] = IdentityMemo(
            32, weigh=lambda readings: 8 * len(readings)
        )

    def all(self, project_id: str) -> tuple[MeasuredWalk, ...]:
        """Return the walks of a project, the first first."""
        its = (table.c.project_id == project_id, table.c.kind == MeasuredWalk.KIND)
        with self._records.engine.connect() as connection:
            last = connection.scalar(select(func.max(table.c.number)).where(*its))
        if last is None:
            return ()
        return self._walks.get(
            (), (project_id, last), lambda: tuple(self._records.of(project_id, MeasuredWalk))
        )

    def of(self, project_id: str, numbers: tuple[int, ...]) -> tuple[Reading, ...]:
        """Return the levels of some walks of a project, in their order."""
        walks = self.all(project_id)
        wanted = set(numbers)
        return self._counted.get(
            (walks,), numbers, lambda: tuple(r for w in walks if w.number in wanted for r in w.readings)
        )
