"""Plans of saved projects: the one place where a design, the catalogue and the firm's prices meet."""

from __future__ import annotations

from ..core.context.plan import Plan
from ..core.design import Design
from .prices import FirmPrices
from .repository import Prepared, Repository, Saved


class Plans:
    """Plans by project, whose answers all who ask share."""

    def __init__(self, repository: Repository, prices: FirmPrices) -> None:
        self._repository, self._prices = repository, prices

    def of(self, saved: Saved | Prepared) -> Plan:
        """Return the plan of a project as it is saved, or as it is about to be."""
        return self._plan(saved.design)

    def load(self, project_id: str) -> tuple[Saved, Plan]:
        """Return a project as last saved, and its plan.

        Raises:
            UnknownProject: there is none.
        """
        saved = self._repository.load(project_id)
        return saved, self.of(saved)

    def at(self, project_id: str, revision: int) -> Plan:
        """Return the plan of a project at an earlier revision.

        Raises:
            UnknownProject: there is no such project, or no such revision of it.
        """
        return self._plan(self._repository.at(project_id, revision))

    def _plan(self, design: Design) -> Plan:
        return Plan(design, self._repository.catalogue, self._prices.all(), shared=True)
